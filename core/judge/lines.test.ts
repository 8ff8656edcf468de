import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import { QUALITY_FIRST } from '../library/schools'
import { permitLine } from '../plan/permit-line'
import { STARTER_LIBRARY } from '../library/starter-library'
import { stripOf } from '../plan/session-strip'
import { type AthleteHistory, evidenceFor, gatherInput } from './gather-input'
import { judge } from './judge'
import { concluded, factsOf } from '../../tests/support/plain-facts'
import { moveTo, overrule } from './overrule'
import { entryState, resolveLine, sameLine } from './resolve-line'
import { returnTargetOf, targetOf } from './target'
import { expectationOf } from '../field/expectation'
import type { Documents } from './types'
import type { PlannedLine } from '../vocabulary/line'
import { writeDrill, writeMark } from '../words/write-numbers'

const ladder = STARTER_LIBRARY.ladders.acceleration!
const documents: Documents = {
	ladder,
	school: QUALITY_FIRST,
	drills: STARTER_LIBRARY.drills,
	paths: STARTER_LIBRARY.ladders,
}
const KNOWN = { level: 2, day: '2026-03-12', passed: everything() } as const
const locks = factsOf(KNOWN)
function everything(): Record<string, string[]> {
	return Object.fromEntries(
		Object.values(STARTER_LIBRARY.ladders).map((one) => [one.id, one.rungs.map((rung) => rung.id)]),
	)
}
const onLadder = {
	drillId: 'wall-drill',
	ladderId: 'acceleration',
	dose: { sets: 9, reps: 9 },
	parameters: {},
	rest: { repsS: 0, setsS: 0 },
	doseFactor: 1,
}

describe('what the day takes away', () => {
	const deep = { ...entryState(STARTER_LIBRARY, 'shock'), rungId: 'depth-30', dose: { sets: 5, reps: 2 } }
	const line = (change: Parameters<typeof factsOf>[0]) =>
		resolveLine({ ...onLadder, ladderId: 'shock' }, deep, STARTER_LIBRARY, factsOf({ ...KNOWN, ...change }))
	it.each([
		['nothing', {}, 'depth-30', ''],
		['an unloading week', { phase: 'unloading' }, 'pause-30', 'an unloading week: no rebounds from a box'],
		['fever', { reports: [{ kind: 'unwell', day: '2026-03-12' }] }, 'pause-30', 'nothing high, shock or maximal'],
		['wet grass', { surface: 'wet-grass' }, 'pause-30', 'wet grass'],
		['a match tomorrow', { hoursToMatch: 24 }, 'pause-30', '24 h to a match: no shock'],
	] as [string, Parameters<typeof factsOf>[0], string, string][])('%s', (_name, change, rungId, note) => {
		const resolved = line(change)
		expect(resolved).toMatchObject({ blocked: null, rungId })
		if (resolved.blocked === null) expect(resolved.note ?? '').toContain(note)
	})
	it('writes the step of the way back, and the lighter ball', () => {
		const back = {
			...entryState(STARTER_LIBRARY, 'acceleration'),
			rungId: 'three-point-20',
			dose: { sets: 1, reps: 6 },
			reentry: { pathId: 're-entry-run', rungId: 'run-70', since: '2026-03-01' },
		}
		expect(resolveLine(onLadder, back, STARTER_LIBRARY, locks)).toMatchObject({
			drillId: 'build-run',
			parameters: { effortPercent: 70 },
			dose: { sets: 1, reps: 5 },
			note: 'on the way back, run at 70 %',
		})
		const ball = { ...entryState(STARTER_LIBRARY, 'throw'), rungId: 'overhead', dose: { sets: 2, reps: 4 }, ballKg: 2 }
		expect(resolveLine({ ...onLadder, ladderId: 'throw' }, ball, STARTER_LIBRARY, locks)).toMatchObject({
			parameters: { ballKg: 2 },
		})
	})
})

describe('resolving a line', () => {
	it('takes rung, dose and rest from the athlete’s state, not from the sheet', () => {
		const state = {
			...entryState(STARTER_LIBRARY, 'acceleration'),
			rungId: 'three-point-20',
			dose: { sets: 1, reps: 4 },
		}
		expect(resolveLine(onLadder, state, STARTER_LIBRARY, locks)).toMatchObject({
			drillId: 'three-point-start',
			rungId: 'three-point-20',
			dose: { sets: 1, reps: 4 },
			parameters: { distanceM: 20 },
			rest: { repsS: 120, setsS: 240 },
		})
	})
	it('starts somebody new on the first rung', () => {
		expect(resolveLine(onLadder, null, STARTER_LIBRARY, locks)).toMatchObject({
			rungId: 'wall',
			dose: { sets: 3, reps: 6 },
		})
	})
	it('falls back to the highest open rung when the gate has closed', () => {
		const deep = { ...entryState(STARTER_LIBRARY, 'shock'), rungId: 'depth-30', dose: { sets: 3, reps: 2 } }
		const line = resolveLine(
			{ ...onLadder, ladderId: 'shock' },
			deep,
			STARTER_LIBRARY,
			factsOf({ ...KNOWN, phase: 'accumulate' }),
		)
		expect(line).toMatchObject({ rungId: 'pause-30', dose: { sets: 3, reps: 3 } })
	})
	// What hurts is answered for the line as a whole; on the ladder stays only a variation of the rung.
	it('asks for its own rung where a region is closed, and for the variation after a plateau', () => {
		const state = { ...entryState(STARTER_LIBRARY, 'acceleration'), rungId: 'standing-10' }
		const hurt = concluded({ ...KNOWN, reports: [{ kind: 'pain', region: 'back-thigh', score: 6, day: '2026-03-12' }] })
		const asked = resolveLine(onLadder, state, STARTER_LIBRARY, hurt.facts)
		expect(asked).toMatchObject({ drillId: 'standing-start', rungId: 'standing-10' })
		const given = permitLine(asked, hurt, STARTER_LIBRARY)
		if (given.blocked !== null) throw new Error(given.blocked)
		expect(STARTER_LIBRARY.drills[given.drillId]!.regions['back-thigh'] ?? 0).toBe(0)
		expect(given.note).toContain('back thigh closed since Thu 12 Mar')
		const varied = Object.values(STARTER_LIBRARY.ladders)
			.flatMap((one) => one.rungs.map((rung) => ({ one, rung })))
			.find(({ rung }) => (rung.variations ?? []).length > 0)!
		const [variation] = varied.rung.variations!
		const plateau = {
			...entryState(STARTER_LIBRARY, varied.one.id),
			rungId: varied.rung.id,
			substitute: { drillId: variation!.drillId, since: '2026-01-01' },
		}
		expect(resolveLine({ ...onLadder, ladderId: varied.one.id }, plateau, STARTER_LIBRARY, locks)).toMatchObject({
			drillId: variation!.drillId,
			parameters: variation!.parameters,
			rungId: varied.rung.id,
		})
		// A drill that is no variation of the rung stands for nothing.
		expect(
			resolveLine(
				{ ...onLadder, ladderId: varied.one.id },
				{ ...plateau, substitute: { drillId: 'calf-hold', since: '2026-01-01' } },
				STARTER_LIBRARY,
				locks,
			),
		).toMatchObject({ drillId: varied.rung.drillId })
	})
	it('cuts the dose in an unloading week', () => {
		expect(resolveLine({ ...onLadder, doseFactor: 0.6 }, null, STARTER_LIBRARY, locks)).toMatchObject({
			dose: { sets: 1, reps: 6 },
		})
	})
	it('gives a fixed drill to everybody as the sheet says', () => {
		expect(
			resolveLine(
				{
					...onLadder,
					ladderId: null,
					drillId: 'broad-jump',
					dose: { sets: 2, reps: 3 },
					rest: { repsS: 60, setsS: 60 },
				},
				null,
				STARTER_LIBRARY,
				locks,
			),
		).toMatchObject({ drillId: 'broad-jump', dose: { sets: 2, reps: 3 }, rungId: null })
	})
	it('names what the library does not hold', () => {
		expect(() => resolveLine({ ...onLadder, ladderId: 'nope' }, null, STARTER_LIBRARY, locks)).toThrow(
			'ladderId: "nope"',
		)
	})
	it('knows when two lines ask for the same', () => {
		const line: PlannedLine = {
			drillId: 'pogo',
			drillVersion: 1,
			ladderId: null,
			rungId: null,
			dose: { sets: 3, reps: 15 },
			parameters: {},
			rest: { repsS: 60, setsS: 60 },
		}
		expect(
			sameLine(line, {
				...line,
				rest: { repsS: 90, setsS: 90 },
				parameters: { distanceM: undefined } as PlannedLine['parameters'],
			}),
		).toBe(true)
		expect(sameLine(line, { ...line, dose: { sets: 2, reps: 15 } })).toBe(false)
	})
})

/** Two sessions of three-point starts as the log would hold them. */
function history(times: number[][], birthDate: string | null = '2000-01-01'): AthleteHistory {
	const sessions = times.map((_, i) => ({
		id: `s${i}`,
		day: `2026-03-${String(2 + i * 3).padStart(2, '0')}`,
		startTime: '17:30',
		phase: 'peaking' as const,
	}))
	const line = {
		drillId: 'three-point-start',
		drillVersion: 1,
		ladderId: 'acceleration',
		rungId: 'three-point-20',
		dose: { sets: 1, reps: 6 },
		parameters: { distanceM: 20 },
		rest: { repsS: 120, setsS: 120 },
	}
	const events = times.flatMap((session, i) =>
		session.map(
			(timeS, rep): LogEvent => ({
				id: `e${i}-${rep}`,
				sessionId: `s${i}`,
				athleteId: 'a',
				deviceId: 'd',
				deviceSeq: i * 10 + rep,
				deviceTime: '2026-03-01T00:00:00Z',
				entryId: `n${i}`,
				lineId: `l${i}`,
				setNo: 1,
				repNo: rep + 1,
				type: 'mark',
				kind: 'sprint',
				value: {
					splits: [
						{ distanceM: 10, timeS: 1.9 },
						{ distanceM: 20, timeS },
					],
					method: 'gate',
				},
			}),
		),
	)
	return {
		athleteId: 'a',
		birthDate,
		massKg: 70,
		outside: [],
		care: [],
		newRungs: [],
		sessions,
		lines: sessions.map((session, i) => ({ ...line, id: `l${i}`, entryId: `n${i}`, sessionId: session.id })),
		events,
		counts: new Map(events.map((event) => [event.id, { maximalStarts: 1 }])),
		stamps: new Map(),
		means: new Map([
			[
				'1|sprint|three-point-start|three-point|d20|-|-|-|-|-|gate',
				[
					{ day: '2026-02-20', n: 3, mean: 3.04, squares: 0, best: 3 },
					{ day: '2026-02-24', n: 3, mean: 3.06, squares: 0, best: 3.02 },
					{ day: '2026-03-02', n: 2, mean: 3.08, squares: 0.0032, best: 3.02 },
				],
			],
		]),
	}
}
const state = {
	...entryState(STARTER_LIBRARY, 'acceleration'),
	rungId: 'three-point-20',
	dose: { sets: 1, reps: 6 },
	done: ['wall', 'a-run', 'standing-10', 'three-point-10'],
}
const drillOf = (id: string) => STARTER_LIBRARY.drills[id]!
const gather = (from: AthleteHistory) =>
	gatherInput(
		{
			session: {
				...from.sessions.at(-1)!,
				next: { day: '2026-03-12', startTime: '17:30', phase: 'peaking', surface: 'grass' },
			},
			ladder,
			state,
			level: 2,
			school: QUALITY_FIRST,
			focus: null,
			standings: {},
			closures: [],
			returning: [],
			levels: {},
		},
		evidenceFor(from.sessions.at(-1)!, from, drillOf),
		drillOf,
	)

describe('gathering the evidence', () => {
	it('reads the exposures in order, each with the usual before it', () => {
		const input = gather(history([[3.1, 3.02], [3.08]]))
		expect(input.exposures.map((exposure) => [exposure.repsDone, exposure.usual?.gate?.value])).toEqual([
			[2, expect.closeTo(3.05, 10)],
			[1, expect.closeTo(3.06, 10)],
		])
		expect(input.athlete.ageYears).toBe(26)
		expect(input.ramp.maximalStarts).toEqual([
			{ day: '2026-03-02', unloading: false, value: 2 },
			{ day: '2026-03-05', unloading: false, value: 1 },
		])
	})
	it('does not depend on the order the events came in', () => {
		const straight = history([
			[3.1, 3.02, 3.2],
			[3.08, 3.1],
		])
		const turned = {
			...straight,
			events: [...straight.events].reverse(),
			sessions: [...straight.sessions],
			lines: [...straight.lines].reverse(),
		}
		expect(gather(turned)).toEqual(gather(straight))
	})
	it('says nothing was logged for somebody who was not there', () => {
		const input = gather(history([[3.1], [3.1], []]))
		expect(judge(input, documents).sentence).toContain('nothing was logged')
	})
})

describe('overruling', () => {
	const judgement = judge(gather(history([[3.1], [3.1]])), documents)
	const input = gather(history([[3.1], [3.1]]))
	it('holds, eases to two thirds, and advances only to an open rung', () => {
		expect(overrule('hold', judgement, input, documents)).toMatchObject({ next: state })
		expect(overrule('ease', judgement, input, documents)).toMatchObject({ next: { dose: { sets: 1, reps: 4 } } })
		expect(overrule('advance', judgement, input, documents)).toMatchObject({ next: { rungId: 'three-point-30' } })
		expect(
			overrule('advance', judgement, { ...input, athlete: { ...input.athlete, level: 3 } }, documents),
		).toMatchObject({ next: { rungId: 'three-point-30' } })
	})
	it('never gets round a block', () => {
		expect(overrule('hold', { ...judgement, tier: 'block' }, input, documents)).toHaveProperty('refused')
	})
	// A step needs the clearance and the step before; nobody overrules the way back to its end.
	it('on the way back repeats a step or goes one back, never on', () => {
		const onStep = (rungId: string) => ({
			...input,
			state: { ...state, reentry: { pathId: 're-entry-run', rungId, since: '2026-03-05' } },
		})
		const at70 = onStep('run-70')
		expect(overrule('hold', judgement, at70, documents)).toEqual({ next: at70.state })
		expect(overrule('ease', judgement, at70, documents)).toMatchObject({ next: { reentry: { rungId: 'run-60' } } })
		expect(overrule('advance', judgement, at70, documents)).toHaveProperty('refused')
		expect(overrule('ease', judgement, onStep('walk'), documents)).toHaveProperty('refused')
	})
	it('moves by hand to any rung that is not blocked, and counts what lies below as passed', () => {
		expect(moveTo('three-point-10', state, documents, locks)).toMatchObject({
			next: { rungId: 'three-point-10', done: ['wall', 'a-run', 'standing-10'], passed: false },
		})
		// A level gate is a caution: the coach may, with a reason.
		expect(moveTo('three-point-30', state, documents, locks)).toMatchObject({ next: { rungId: 'three-point-30' } })
		const shock = { ...documents, ladder: STARTER_LIBRARY.ladders.shock! }
		const beginner = factsOf({ ...KNOWN, level: 1 })
		expect(moveTo('depth-15', entryState(STARTER_LIBRARY, 'shock'), shock, beginner)).toEqual({
			refused: 'Depth jump 15 cm: land and pause only at level 1 or under 16.',
		})
		// What is closed is no place to be put on; who is on the way back stays on it.
		const hurt = factsOf({ ...KNOWN, reports: [{ kind: 'pain', region: 'back-thigh', score: 6, day: '2026-03-12' }] })
		expect(moveTo('three-point-10', state, documents, hurt)).toHaveProperty('refused')
		const reentry = { pathId: 're-entry-run', rungId: 'run-70', since: '2026-03-05' }
		expect(moveTo('three-point-10', { ...state, reentry }, documents, locks)).toMatchObject({ next: { reentry } })
		expect(moveTo('nope', state, documents, locks)).toHaveProperty('refused')
	})
})

describe('words and numbers', () => {
	it('writes drills and marks the way coaches do', () => {
		expect(writeDrill({ name: 'Depth jump' }, { heightCm: 30 })).toBe('Depth jump 30 cm')
		expect(writeDrill({ name: '90° cut' }, { distanceM: 10, angleDeg: 90 })).toBe('90° cut 10 m')
		expect([
			writeMark({ kind: 'contact', value: 0.1464 }),
			writeMark({ kind: 'sprint', value: 3.1 }),
			writeMark({ kind: 'height', value: 0.345 }),
			writeMark({ kind: 'distance', value: 11.8 }),
		]).toEqual(['146 ms', '3.10 s', '34.5 cm', '11.80 m'])
	})
	it('states the target with the usual it comes from', () => {
		const { rungs } = ladder
		expect(targetOf(rungs[4]!, 2, QUALITY_FIRST, { gate: 3, stopwatch: 2.8 }, true)).toBe(
			'3.09 s or better (within 3 % of the usual 3.00 s, gate)',
		)
		expect(targetOf(rungs[4]!, 2, QUALITY_FIRST, {}, false)).toBe('a first time to compare with')
		expect(targetOf(rungs[4]!, 2, QUALITY_FIRST, {}, true)).toBe('one more session measured this way makes a usual')
		const throwing = STARTER_LIBRARY.ladders.throw!.rungs.find((rung) => rung.pass.kind === 'not-below')!
		expect(targetOf(throwing, 2, QUALITY_FIRST, { tape: 10 }, true)).toBe(
			'9.50 m or more (within 5 % of the usual 10.00 m, tape)',
		)
		expect(targetOf(STARTER_LIBRARY.ladders.shock!.rungs[4]!, 3, QUALITY_FIRST, {}, false)).toBe(
			'contact 200 ms or less',
		)
		expect(targetOf(null, 1, QUALITY_FIRST, {}, false)).toBe('good by eye')
	})
	it('takes a step of the way back as a share of the best before, or by feel', () => {
		expect(returnTargetOf(80, { gate: 4 })).toBe(
			'5.00 s, 80 % of own best (gate); discomfort of 1 or more ends the day',
		)
		expect(returnTargetOf(80, {})).toContain('80 % by feel')
	})
	it('expects a time around the athlete’s own best', () => {
		const { low, high } = expectationOf('sprint', 20, 3)
		expect([low, high]).toEqual([2.8499999999999996, 3.3600000000000003])
	})
})

it('lays a session out as parts of minutes with what they cost', () => {
	const entry = (part: string, drillId: string, dose: { sets: number; reps: number }) => {
		const drill = STARTER_LIBRARY.drills[drillId]!
		const { heightCm, distanceM } = drill.defaults.parameters
		const parameters = { ...(heightCm ? { heightCm } : {}), ...(distanceM ? { distanceM } : {}) }
		return {
			part,
			family: drill.family,
			minutes: 6.4,
			lines: ['a', 'b'].map((athleteId) => ({ athleteId, parameters, dose, drill })),
		}
	}
	const strip = stripOf([
		entry('Jumps', 'pogo', { sets: 3, reps: 15 }),
		entry('Jumps', 'depth-jump', { sets: 5, reps: 2 }),
		entry('Acceleration', 'three-point-start', { sets: 1, reps: 6 }),
	])
	expect(
		strip.map(({ name, minutes, contacts, lowContacts, fastMetres, hard }) => ({
			name,
			minutes,
			contacts,
			lowContacts,
			fastMetres,
			hard,
		})),
	).toEqual([
		{ name: 'Jumps', minutes: 12.8, contacts: 20, lowContacts: 45, fastMetres: 0, hard: true },
		{ name: 'Acceleration', minutes: 6.4, contacts: 0, lowContacts: 0, fastMetres: 120, hard: true },
	])
})
