import { describe, expect, it } from 'vitest'
import { factsOf } from '../../tests/support/plain-facts'
import { QUALITY_FIRST } from '../library/schools'
import { formOf } from '../rules/form'
import { addDays } from '../calendar/day-count'
import { STARTER_LIBRARY, rungOf } from '../library/starter-library'
import type { PlannedLine } from '../vocabulary/line'
import { lockOf } from './locks'
import { type EntryPlan, entryState, resolveLine, sameLine, startingAt } from './resolve-line'
import type { LadderState } from './types'

// A locked rung gives way to the highest open one below; one that waits for a caution stands for who was put on it.

const everything = Object.fromEntries(
	Object.values(STARTER_LIBRARY.ladders).map((one) => [one.id, one.rungs.map((rung) => rung.id)]),
)
const on = (ladderId: string, change: Partial<EntryPlan> = {}): EntryPlan => ({
	drillId: 'pogo',
	ladderId,
	dose: { sets: 1, reps: 1 },
	parameters: {},
	rest: { repsS: 0, setsS: 0 },
	doseFactor: 1,
	...change,
})
const fixed = (drillId: string, change: Partial<EntryPlan> = {}): EntryPlan => ({
	...on('', { drillId, dose: { sets: 4, reps: 5 }, ...change }),
	ladderId: null,
})
const state = (ladderId: string, rungId: string, change: Partial<LadderState> = {}): LadderState => ({
	...startingAt(STARTER_LIBRARY, ladderId, rungId),
	...change,
})
type More = Parameters<typeof factsOf>[0]
const resolved = (entry: EntryPlan, at: LadderState | null, more: More = {}, strict = false) => {
	const line = resolveLine(entry, at, STARTER_LIBRARY, factsOf({ passed: everything, ...more }), false, strict)
	if (line.blocked !== null) throw new Error(line.blocked)
	return line
}

describe('where somebody starts', () => {
	it('at the first rung, with nothing passed; on a rung, what lies below passed', () => {
		expect(entryState(STARTER_LIBRARY, 'cut')).toEqual({
			ladderId: 'cut',
			rungId: 'wide',
			dose: { sets: 2, reps: 4 },
			substitute: null,
			passed: false,
			easedBy: null,
			done: [],
		})
		expect(startingAt(STARTER_LIBRARY, 'cut', 'cut-90')).toMatchObject({
			rungId: 'cut-90',
			dose: { sets: 3, reps: 3 },
			done: ['wide', 'sharp-wide'],
		})
		expect(startingAt(STARTER_LIBRARY, 'cut', 'wide').done).toEqual([])
	})
	it('names what it does not know', () => {
		expect(() => entryState(STARTER_LIBRARY, 'nope')).toThrow('ladderId: "nope" is not in the library')
		expect(() => entryState({ ladders: { empty: { rungs: [] } as never } }, 'empty')).toThrow('ladderId: "empty"')
		expect(() => startingAt(STARTER_LIBRARY, 'nope', 'x')).toThrow('ladderId: "nope" is not in the library')
		expect(() => startingAt(STARTER_LIBRARY, 'cut', 'nope')).toThrow(RangeError)
		const gone = { reentry: { pathId: 'gone', rungId: 'x', since: '2026-03-01' } }
		expect(() => resolved(on('cut'), state('cut', 'wide', gone))).toThrow('pathId: "gone" is not in the library')
		expect(() => resolved(fixed('gone'), null)).toThrow('drillId: "gone" is not in the library')
		expect(() => resolved(on('nope'), null)).toThrow('ladderId: "nope" is not in the library')
	})
})

describe('a rung that is shut', () => {
	// The gate of 90° cuts is a caution; that of a depth jump a block.
	const noStops: More = { passed: { ...everything, brake: [], cut: [] } }
	it('by a caution: it stands for who was put on it, and gives way for who was not, and where it is asked strictly', () => {
		expect(resolved(on('cut'), state('cut', 'cut-90'), noStops).rungId).toBe('cut-90')
		expect(resolved(on('cut'), state('cut', 'cut-90'), noStops, true).rungId).toBe('wide')
		expect(resolved(on('cut'), null, noStops).rungId).toBe('wide')
	})
	it('only the own rung stands: a shut one below it does not stand in', () => {
		// In an unloading week the carried loads are shut; the ladder above falls below them all.
		const at = state('shock', 'depth-30')
		expect(resolved(on('shock'), at, { level: 1, passed: { shock: [] } }).rungId).not.toMatch(/^depth/)
	})
	it('down to the lowest rung', () => {
		expect(resolved(on('cut'), state('cut', 'sharp-wide'), { ...noStops, level: 1 }).rungId).toBe('sharp-wide')
		const wet: More = { surface: 'wet-grass' }
		expect(resolved(on('react'), state('react', 'flip-call'), wet).rungId).toBe('point-and-go')
		// Where nothing below is open, its own is asked for, and the rulebook answers.
		const unwell: More = { reports: [{ kind: 'unwell', day: '2026-03-19' }] }
		expect(
			resolved(on('carried-load'), state('carried-load', 'run-250'), { ...unwell, phase: 'unloading' }).rungId,
		).toBe('run-250')
		expect(resolved(on('brake'), state('brake', 'stop-5'), { ...unwell }).rungId).toBe('stop-5')
	})
	it('what hurts is left to the rulebook: the rung stays', () => {
		const hurt: More = { reports: [{ kind: 'pain', region: 'knee', score: 6, day: '2026-03-19' }] }
		expect(resolved(on('shock'), state('shock', 'depth-30'), hurt).rungId).toBe('depth-30')
		const held: More = { restrictions: [{ region: 'knee', since: '2026-03-12' }] }
		expect(resolved(on('shock'), state('shock', 'depth-30'), held).rungId).toBe('depth-30')
	})
	it('a ladder whose side the school does not take writes nothing; of a school that takes it, it does', () => {
		const { id } = STARTER_LIBRARY.ladders.contrast!.rungs[0]!
		const under = (contrast: 'use' | 'own-trial') =>
			resolveLine(
				on('contrast'),
				state('contrast', id),
				STARTER_LIBRARY,
				factsOf({
					passed: everything,
					schools: [{ ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, contrast } }],
				}),
			)
		expect(under('own-trial')).toEqual({ blocked: expect.stringMatching(/\S/) as string, ladderId: 'contrast' })
		expect(under('use')).toMatchObject({ blocked: null, rungId: id })
	})
})

describe('the ball', () => {
	const ball = (rungId: string, more: More = {}) =>
		resolved(on('throw'), state('throw', rungId, { ballKg: 1 }), more).parameters.ballKg
	it('a lighter one is the own rung’s, not the one’s below', () => {
		expect(ball('overhead')).toBe(1)
		expect(resolved(on('throw'), state('throw', 'overhead')).parameters.ballKg).toBe(3)
		expect(resolved(on('throw'), state('throw', 'overhead', { ballKg: null })).parameters.ballKg).toBe(3)
		const lower = resolved(
			on('throw'),
			state('throw', 'step-in', { ballKg: 1 }),
			{ level: 1, passed: { throw: [] } },
			true,
		)
		expect(lower).toMatchObject({ rungId: 'underhand', parameters: { ballKg: 3 } })
	})
})

describe('what comes from the athlete’s own measurements', () => {
	it('the ball by body mass, said where it is another than the rung’s; a verdict’s lighter one goes before', () => {
		const at = (massKg: number | null, more: Partial<LadderState> = {}) =>
			resolved(on('throw'), state('throw', 'overhead', more), { massKg })
		expect(at(82)).toMatchObject({ parameters: { ballKg: 4 }, note: 'a ball of 4 kg by body mass' })
		expect(at(60)).toMatchObject({ parameters: { ballKg: 3 }, note: null })
		expect(at(null).parameters.ballKg).toBe(2)
		expect(at(82, { ballKg: 3 })).toMatchObject({ parameters: { ballKg: 3 }, note: null })
		// One object for one ball: what reads lines knows it again.
		expect(at(82).parameters).toBe(at(84).parameters)
		expect(resolved(on('cut'), state('cut', 'wide'), { massKg: 82 }).parameters).not.toHaveProperty('ballKg')
	})
	it('a ball of body mass is not harder than the rung’s; a heavier one than that is', () => {
		const ladder = (ballKg: number) => formOf(STARTER_LIBRARY.drills['overhead-throw']!, { ballKg }, STARTER_LIBRARY)
		expect(ladder(5).places[0]!.beyond).toBe(false)
		expect(ladder(5.5).places[0]!.beyond).toBe(true)
	})
	const box = (heightCm: number, keepsGoal = true): More => ({
		own: { bestBox: { heightCm, keepsGoal, on: '2026-03-02', how: 'contact mat' } },
	})
	it('no rebound above the own best box where the school stays low: a lower one of the same drill stands in', () => {
		expect(resolved(on('shock'), state('shock', 'depth-45'), box(30))).toMatchObject({
			rungId: 'depth-30',
			parameters: { heightCm: 30 },
			note: 'own best box is 30 cm (contact mat, Mon 2 Mar)',
		})
		expect(resolved(on('shock'), state('shock', 'depth-45'), box(20, false))).toMatchObject({
			rungId: 'depth-15',
			note: 'no box keeps the sprint goal yet; the contact is shortest from 20 cm (contact mat, Mon 2 Mar)',
		})
		expect(resolved(on('shock'), state('shock', 'depth-45'), box(45)).rungId).toBe('depth-45')
		expect(resolved(on('shock'), state('shock', 'depth-45')).rungId).toBe('depth-45')
		expect(resolved(on('shock'), state('shock', 'pause-45'), box(30)).rungId).toBe('pause-45')
		// Where no lower one of the drill is open, the highest open rung below.
		expect(resolved(on('shock'), state('shock', 'depth-15'), box(10)).rungId).toBe('pause-30')
	})
	it('a school that climbs goes by the rung', () => {
		const climbs = { ...box(30), school: 'jump-ladder' }
		expect(resolved(on('shock'), state('shock', 'depth-45'), climbs).rungId).toBe('depth-45')
	})
	it('the side that lags takes a rep of each set from the other, in work on one leg', () => {
		const at = (favour: 'left' | 'right' | null, rungId = 'single-leg-pogo', dose = { sets: 3, reps: 6 }) =>
			resolved(on('stiffness'), state('stiffness', rungId, { favour, dose }))
		expect(at('right')).toMatchObject({
			dose: { sets: 3, reps: 6 },
			sides: { left: { sets: 3, reps: 5 }, right: { sets: 3, reps: 7 } },
			note: 'one rep of each set moves to the right, not more in all',
		})
		expect(at('left').sides).toEqual({ left: { sets: 3, reps: 7 }, right: { sets: 3, reps: 5 } })
		expect(at(null)).not.toHaveProperty('sides')
		expect(at('left', 'pogo')).not.toHaveProperty('sides')
		expect(at('left', 'single-leg-pogo', { sets: 3, reps: 2 }).sides?.right).toEqual({ sets: 3, reps: 1 })
		expect(at('left', 'single-leg-pogo', { sets: 6, reps: 1 })).not.toHaveProperty('sides')
	})
})

describe('what the sheet asks of everybody', () => {
	it.each([
		['as asked', 'broad-jump', {}, {}, { sets: 4, reps: 5 }],
		['three quarters while intensifying', 'broad-jump', {}, { phase: 'intensify' }, { sets: 3, reps: 5 }],
		['the smaller share: the entry’s', 'broad-jump', { doseFactor: 0.5 }, { phase: 'intensify' }, { sets: 2, reps: 5 }],
		['the smaller share: the phase’s', 'broad-jump', { doseFactor: 0.9 }, { phase: 'unloading' }, { sets: 2, reps: 5 }],
		['tendon work knows no phase', 'calf-hold', {}, { phase: 'unloading' }, { sets: 4, reps: 5 }],
		['nor does preparation', 'walk-through', {}, { phase: 'unloading' }, undefined],
	] as [string, string, Partial<EntryPlan>, More, object | undefined][])('%s', (_name, drillId, change, more, dose) => {
		const line = resolved(fixed(drillId, change), null, more)
		if (dose) expect(line.dose).toEqual(dose)
		else expect(STARTER_LIBRARY.drills[drillId]!.family === 'prepare').toBe(line.dose.sets === 4)
	})
	it('a variation after a plateau has its own dose, and the entry’s share of it', () => {
		const { rungs } = STARTER_LIBRARY.ladders.acceleration!
		const { drillId } = rungs.find((rung) => rung.id === 'standing-10')!.variations![0]!
		const at = state('acceleration', 'standing-10', { substitute: { drillId, since: '2026-03-01' } })
		const { dose } = STARTER_LIBRARY.drills[drillId]!.defaults
		expect(resolved(on('acceleration'), at)).toMatchObject({
			drillId,
			dose,
			rungId: 'standing-10',
			ladderId: 'acceleration',
		})
		const half = resolved(on('acceleration', { doseFactor: 0.5 }), at).dose
		expect(half.sets * half.reps).toBeLessThan(dose.sets * dose.reps)
	})
})

it('two lines ask for the same when drill, rung, sets, reps and every parameter do', () => {
	const line: PlannedLine = {
		drillId: 'cut-90',
		drillVersion: 1,
		ladderId: 'cut',
		rungId: 'cut-90',
		dose: { sets: 2, reps: 3 },
		parameters: { distanceM: 10, angleDeg: 90 },
		rest: { repsS: 0, setsS: 0 },
	}
	expect(sameLine(line, { ...line, rest: { repsS: 9, setsS: 9 } })).toBe(true)
	for (const other of [
		{ drillId: 'pogo' },
		{ rungId: null },
		{ dose: { sets: 2, reps: 4 } },
		{ dose: { sets: 3, reps: 2 } },
		{ parameters: { distanceM: 10, angleDeg: 60 } },
		{ parameters: { distanceM: 10 } },
		{ sides: { left: { sets: 2, reps: 2 } } },
		{ sides: { right: { sets: 2, reps: 4 } } },
	])
		expect(sameLine(line, { ...line, ...other }), JSON.stringify(other)).toBe(false)
	const sides = { left: { sets: 2, reps: 2 }, right: { sets: 2, reps: 4 } }
	expect(sameLine({ ...line, sides }, { ...line, sides: structuredClone(sides) })).toBe(true)
	expect(sameLine({ ...line, sides }, { ...line, sides: { ...sides, left: { sets: 3, reps: 2 } } })).toBe(false)
	// A side that is no more, and the same reps in other sets.
	expect(sameLine({ ...line, sides }, { ...line, sides: { left: sides.left } })).toBe(false)
	expect(sameLine({ ...line, sides }, { ...line, sides: { ...sides, left: { sets: 1, reps: 2 } } })).toBe(false)
})
it('and when the pieces of a complex and the place of a weight are the same', () => {
	const line: PlannedLine = {
		drillId: 'contrast-start',
		drillVersion: 1,
		ladderId: 'contrast',
		rungId: 'heavy-free-10',
		dose: { sets: 2, reps: 1 },
		parameters: { distanceM: 10 },
		rest: { repsS: 0, setsS: 0 },
	}
	const rest = { repsS: 0, setsS: 0 }
	const pull = {
		drillId: 'resisted-start',
		reps: 1,
		parameters: { distanceM: 10, resistPercent: 50 },
		rest,
		judged: false,
	}
	const start = { drillId: 'contrast-start', reps: 1, parameters: { distanceM: 10 }, rest, judged: true }
	const of = (...pieces: object[]) => ({ ...line, pieces }) as PlannedLine
	expect(sameLine(of(pull, start), of({ ...pull }, { ...start }))).toBe(true)
	for (const other of [
		line,
		of(pull),
		of(pull, start, start),
		of(start, pull),
		of({ ...pull, drillId: 'hill-run' }, start),
		of(pull, { ...start, reps: 2 }),
		of({ ...pull, parameters: { distanceM: 10, resistPercent: 40 } }, start),
		of({ ...pull, parameters: { distanceM: 10 } }, start),
	]) {
		expect(sameLine(of(pull, start), other), JSON.stringify(other)).toBe(false)
		expect(sameLine(other, of(pull, start)), JSON.stringify(other)).toBe(false)
	}
	const worn = { segment: 'shank' as const, side: 'left' as const, fromJointCm: 15, grams: 200 }
	const carrying = (carried: object) => ({ ...line, carried: { ...worn, ...carried } }) as PlannedLine
	expect(sameLine(carrying({}), carrying({ purpose: 'rhythm' }))).toBe(true)
	for (const other of [{ segment: 'thigh' }, { side: 'right' }, { side: undefined }, { fromJointCm: 20 }])
		expect(sameLine(carrying({}), carrying(other)), JSON.stringify(other)).toBe(false)
	expect(sameLine(line, carrying({}))).toBe(false)
	expect(sameLine(carrying({}), line)).toBe(false)
})
it('a rung that is carried says where; of everybody’s drill the whole dose stays what it is', () => {
	const carried = resolved(on('carried-load'), state('carried-load', 'run-250'))
	expect(carried.carried).toMatchObject({ segment: 'shank', grams: 250 })
	// One rep is fewer than any share leaves: it is not touched where nothing is cut.
	expect(resolved(fixed('broad-jump', { dose: { sets: 1, reps: 1 } }), null, { phase: 'accumulate' }).dose).toEqual({
		sets: 1,
		reps: 1,
	})
	expect(() => resolved(on('nope'), null)).toThrow('ladderId: "nope" is not in the library')
})
it('turns stand still before the day somebody came to the rung', () => {
	const to20 = [{ ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, assisted: 'to-20' as const } }] as never
	const at = (day: string) =>
		resolved(on('assisted'), state('assisted', 'assist-15', { rungSince: '2026-03-30' }), { day, schools: to20 })
	expect([at('2026-03-29'), at('2026-03-30')].map(({ parameters }) => parameters.assistPercent)).toEqual([15, 5])
	// The second day is still of the first week.
	expect(at('2026-03-31').parameters.assistPercent).toBe(5)
})

describe('a beginner’s form of a drill', () => {
	// Easy ones twice as often as hard ones: 4×8 for 4×4 (common practice, no source).
	const more = [{ ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, beginners: 'more-easy' as const } }] as never
	const as = (level: 1 | 2 | 3, schools = more, entry = fixed('single-leg-pogo', { dose: { sets: 4, reps: 4 } })) =>
		resolved(entry, null, { level, schools })
	it('is the easy one, more often, at level 1 alone', () => {
		expect(as(1)).toMatchObject({
			drillId: 'pogo',
			drillVersion: STARTER_LIBRARY.drills.pogo!.version,
			dose: { sets: 3, reps: 12 },
			rest: STARTER_LIBRARY.drills.pogo!.defaults.rest,
			ladderId: null,
			note: 'the easy form of single-leg pogo, more often',
		})
		for (const level of [2, 3] as const)
			expect(as(level)).toMatchObject({ drillId: 'single-leg-pogo', dose: { sets: 4, reps: 4 }, note: null })
	})
	it('stands in only where the school has it so, and the drill names one', () => {
		expect(as(1, [QUALITY_FIRST] as never).drillId).toBe('single-leg-pogo')
		expect(as(1, more, fixed('broad-jump')).drillId).toBe('broad-jump')
	})
	it('is less in an unloading week, and where the sheet asks for less', () => {
		const half = fixed('single-leg-pogo', { doseFactor: 0.5 })
		// Half of three sets is one whole set.
		expect(as(1, more, half).dose).toEqual({ sets: 1, reps: 12 })
	})
	it('is no form of a complex, nor of a rung: that is the ladder’s to say', () => {
		const pieces = [
			{ drillId: 'slow-split-squat', reps: 3, parameters: {}, rest: { repsS: 0, setsS: 0 }, judged: false },
			{ drillId: 'single-leg-pogo', reps: 4, parameters: {}, rest: { repsS: 0, setsS: 0 }, judged: true },
		]
		expect(as(1, more, fixed('single-leg-pogo', { pieces } as never)).drillId).toBe('single-leg-pogo')
		expect(resolved(on('stiffness'), state('stiffness', 'pogo'), { level: 1, schools: more }).note).toBeNull()
	})
	it('is named by six drills, each an easier one of its family', () => {
		const pairs = Object.values(STARTER_LIBRARY.drills).flatMap(({ id, easy }) => (easy ? [[id, easy.drillId]] : []))
		expect(pairs.map(([id]) => id).sort()).toEqual([
			'hurdle-hop',
			'lateral-reach',
			'one-foot-stick',
			'pogo-for-height',
			'power-skip',
			'single-leg-pogo',
		])
		const ranks = ['low', 'moderate', 'high', 'shock']
		for (const [id, easy] of pairs) {
			const [hard, soft] = [STARTER_LIBRARY.drills[id!]!, STARTER_LIBRARY.drills[easy!]!]
			expect(soft.family).toBe(hard.family)
			expect(ranks.indexOf(soft.intensity), id).toBeLessThanOrEqual(ranks.indexOf(hard.intensity))
			expect(soft.easy).toBeUndefined()
			const reps = ({ sets, reps: each }: { sets: number; reps: number }) => sets * each
			expect(reps(hard.easy!.dose), id).toBe(2 * reps(hard.defaults.dose))
		}
	})
})

describe('take-offs by the school', () => {
	const schools = (plants: 'one' | 'sport' | 'all', trained: string[]) =>
		[{ ...QUALITY_FIRST, plants: trained, choices: { ...QUALITY_FIRST.choices, plants } }] as never
	const at = (rungId: string, taken: never) =>
		resolved(on('take-off'), state('take-off', rungId), { schools: taken, level: 3 }, true).rungId
	it('are all four, those of the sport, or the one used most', () => {
		const rungs = ['two-lr-0', 'two-rl-0', 'left-0', 'right-0']
		const open = (plants: 'one' | 'sport' | 'all') =>
			rungs.filter(
				(rungId) =>
					lockOf(
						factsOf({ passed: everything, schools: schools(plants, ['right', 'two-lr']) }),
						rungOf(STARTER_LIBRARY.ladders['take-off']!, rungId).rung,
					) === null,
			)
		expect(open('all')).toEqual(rungs)
		expect(open('sport')).toEqual(['two-lr-0', 'right-0'])
		expect(open('one')).toEqual(['right-0'])
	})
	it('give way to the highest that is trained below', () => {
		expect(at('left-1', schools('sport', ['two-lr', 'right']))).toBe('two-lr-1')
		expect(at('left-1', schools('all', ['two-lr']))).toBe('left-1')
	})
})

describe('an assisted calendar of ten weeks', () => {
	// Two to three weeks near 5 %, two to three near 10 %, then easy, middle and cap days by turns (common practice, no source).
	const START = '2026-03-02'
	const to20 = [{ ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, assisted: 'to-20' as const } }] as never
	const week = (n: number) => addDays(START, 7 * (n - 1))
	const came = (n: number): [string, string] =>
		n <= 2 ? ['assist-5', START] : n <= 4 ? ['assist-10', week(3)] : ['assist-15', week(5)]
	const at = (day: string, [rungId, rungSince]: [string, string]) =>
		resolved(on('assisted'), state('assisted', rungId, { rungSince }), { day, schools: to20 })
	it('is 5, 5, 10, 10, then 5, 10 and 15 % week by week', () => {
		const percents = [1, 2, 3, 4, 5, 6, 7, 8, 9, 10].map((n) => at(week(n), came(n)).parameters.assistPercent)
		expect(percents).toEqual([5, 5, 10, 10, 5, 10, 15, 5, 10, 15])
	})
	it('turns on the seventh day, and says which week it is', () => {
		const line = (day: string) => at(day, ['assist-15', week(5)])
		expect([line(addDays(week(5), 6)), line(addDays(week(5), 7))].map(({ note }) => note)).toEqual([
			'an easy week, by turns',
			'a middle week, by turns',
		])
		expect(line(addDays(week(5), 20)).parameters).toEqual({ distanceM: 20, runInM: 20, assistPercent: 15 })
	})
	it('follows each pulled run with a free one, pulled as the week says', () => {
		const { dose, pieces } = at(addDays(week(5), 7), ['assist-15', week(5)])
		expect(dose).toEqual({ sets: 3, reps: 1 })
		expect(pieces!.map(({ drillId, parameters, judged }) => [drillId, parameters.assistPercent, judged])).toEqual([
			['assisted-fly', 10, true],
			['fly-20', undefined, false],
		])
	})
	it('opens its next step after two weeks, not before', () => {
		const gate = rungOf(STARTER_LIBRARY.ladders.assisted!, 'assist-10').rung.gates.find(
			({ kind }) => kind === 'days-below',
		)
		expect(gate).toEqual({ kind: 'days-below', days: 14 })
	})
	it('is the rung’s own form where nobody knows since when', () => {
		const unknown = resolved(on('assisted'), state('assisted', 'assist-15'), { day: week(5), schools: to20 })
		expect([unknown.parameters.assistPercent, unknown.note]).toEqual([15, null])
	})
})
