import { describe, expect, it } from 'vitest'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Drill } from '../vocabulary/drill'
import type { Gate, Rung } from '../vocabulary/ladder'
import type { Level, Phase } from '../vocabulary/words'
import type { Parameters as DrillParameters } from '../vocabulary/dose'
import type { School, SchoolChoices, SchoolNumbers } from '../vocabulary/school'
import {
	type LockContext,
	depthOpen,
	lockOf,
	lockOfDrill,
	nextRung,
	passedRungs,
	phaseShare,
	plainContext,
} from './locks'
import type { OpenRestriction } from './types'

const drill = (id: string): Drill => STARTER_LIBRARY.drills[id]!
const schoolWith = (choices: Partial<SchoolChoices>, numbers: Partial<SchoolNumbers> = {}): School => ({
	...QUALITY_FIRST,
	choices: { ...QUALITY_FIRST.choices, ...choices },
	numbers: { ...QUALITY_FIRST.numbers, ...numbers },
})
/** A grown athlete of level 3 of whom everything is known, in peaking, in a school that allows the most. */
const free = (more: Partial<LockContext> = {}): LockContext =>
	plainContext({
		level: 3,
		ageYears: 25,
		massKg: 70,
		phase: 'peaking',
		school: schoolWith({ depthJumps: 'all-year' }, { highestBoxCm: 75, assistedCapPercent: 20 }),
		day: '2026-03-12',
		...more,
	})
const said = (id: string, parameters: DrillParameters, more: Partial<LockContext> = {}) => {
	const lock = lockOfDrill(drill(id), parameters, free(more))
	return lock && `${lock.rule} ${lock.tier}: ${lock.words}`
}

it('nothing is locked for a grown athlete of whom all is known, on an ordinary day', () => {
	for (const id of ['depth-jump', 'drop-landing', 'assisted-fly', 'cut-90', 'overhead-throw', 'pogo'].filter(drill))
		expect(said(id, drill(id).defaults.parameters), id).toBeNull()
})

// S4, block. Level 1 or under 16: landings and pause jumps to 30 cm only, no rebound from a box, no assisted
// speed. Over 100 kg: no box over 45 cm [published: NSCA, from memory]. Unknown: the strictest row.
describe('S4, age', () => {
	it.each([
		[15, 'S4 block: under 16: land and pause only'],
		[16, null],
		[null, 'S4 block: the birth date is unknown: land and pause only'],
	])('at %s years: a rebound from a box', (ageYears, expected) => {
		expect(said('depth-jump', { heightCm: 15 }, { ageYears })).toBe(expected)
	})
	it.each([
		[15, 30, null],
		[15, 31, 'S4 block: under 16: boxes to 30 cm'],
		[16, 31, null],
		[null, 30, null],
		[null, 31, 'S4 block: birth date unknown: boxes to 30 cm'],
	])('at %s years: a landing from %d cm', (ageYears, heightCm, expected) => {
		expect(said('drop-landing', { heightCm }, { ageYears })).toBe(expected)
	})
})
describe('S4, level', () => {
	it.each([
		[1, 'S4 block: opens at level 2'],
		[2, null],
		[3, null],
	] as [Level, string | null][])('level %d: a rebound from a box', (level, expected) => {
		expect(said('depth-jump', { heightCm: 15 }, { level })).toBe(expected)
	})
	it.each([
		[1, 30, null],
		[1, 31, 'S4 block: level 1: boxes to 30 cm'],
		[2, 45, null],
	] as [Level, number, string | null][])('level %d: a pause jump from %d cm', (level, heightCm, expected) => {
		expect(said('pause-jump', { heightCm }, { level })).toBe(expected)
	})
	it('says nothing of jumps without a box', () => {
		expect(said('broad-jump', {}, { level: 1, ageYears: 12, massKg: null })).toBeNull()
	})
})
describe('S4, body mass', () => {
	it.each([
		[100, 46, null],
		[100.1, 45, null],
		[100.1, 46, 'S4 block: over 100 kg: no box over 45 cm'],
		[null, 45, null],
		[null, 46, 'S4 block: body mass unknown: no box over 45 cm'],
	])('%s kg from %d cm', (massKg, heightCm, expected) => {
		expect(said('drop-landing', { heightCm }, { massKg })).toBe(expected)
	})
})
describe('S4, assisted speed', () => {
	const assisted = Object.values(STARTER_LIBRARY.drills).find((one) => one.counting.metres?.kind === 'assisted')!
	it.each([
		[{ ageYears: 15 }, 'S4 block: under 16: no assisted speed'],
		[{ ageYears: null }, 'S4 block: the birth date is unknown: no assisted speed'],
		[{ level: 1 as Level }, 'S4 block: opens at level 2'],
		[{ level: 2 as Level }, null],
	])('%j', (more, expected) => {
		expect(said(assisted.id, { assistPercent: 5 }, more)).toBe(expected)
	})
})

// S2, block: alternatives or nothing while a restriction is open on a region the drill loads, or on its pattern.
describe('S2', () => {
	const closed = (more: Partial<OpenRestriction>): OpenRestriction => ({
		region: null,
		pattern: null,
		since: '2026-03-01',
		setBy: 'H. Brekke',
		...more,
	})
	it.each([
		['drop-landing', closed({ region: 'knee' }), true],
		['drop-landing', closed({ region: 'shoulder' }), false],
		['overhead-throw', closed({ region: 'shoulder' }), true],
		['cut-90', closed({ pattern: drill('cut-90').pattern }), true],
		['calf-hold', closed({ pattern: drill('calf-hold').pattern }), false],
		['range-of-motion', closed({ pattern: drill('range-of-motion').pattern }), false],
	])('%s under %j', (id, restriction, locked) => {
		expect(said(id, drill(id).defaults.parameters, { restrictions: [restriction] })).toBe(
			locked ? 'S2 block: closed until cleared' : null,
		)
	})
	it('is found behind another that does not concern the drill', () => {
		const restrictions = [closed({ region: 'wrist' }), closed({ region: 'ankle' })]
		expect(said('pogo', {}, { restrictions })).toBe('S2 block: closed until cleared')
	})
})

// S3, block: unwell, nothing high, shock or maximal.
it.each([
	['standing-start', {}, true],
	['depth-jump', { heightCm: 30 }, true],
	['drop-landing', { heightCm: 46 }, true],
	['drop-landing', { heightCm: 45 }, false],
	['pogo', {}, false],
	['relaxed-skip', {}, false],
] as [string, DrillParameters, boolean][])('S3, unwell: %s %j', (id, parameters, locked) => {
	expect(said(id, { ...drill(id).defaults.parameters, ...parameters }, { unwell: true })).toBe(
		locked ? 'S3 block: unwell: nothing high, shock or maximal' : null,
	)
})

// P6: unloading week, no shock and no carried load; the ladder goes on past it.
describe('P6', () => {
	it('no rebounds and no carried load in an unloading week', () => {
		const carried = Object.values(STARTER_LIBRARY.drills).find((one) => one.carriesLoad)
		expect(said('depth-jump', { heightCm: 15 }, { phase: 'unloading' })).toContain('P6 caution')
		if (carried) expect(said(carried.id, carried.defaults.parameters, { phase: 'unloading' })).toContain('P6 caution')
		expect(said('drop-landing', { heightCm: 30 }, { phase: 'unloading' })).toBeNull()
		expect(lockOfDrill(drill('depth-jump'), { heightCm: 15 }, free({ phase: 'unloading' }))?.skip).toBe(true)
	})
	// Intensify: dose 75 %. Unloading: 60 %. Rebounds all year: a little outside peaking.
	it.each([
		['accumulate', 'pogo', 'all-year', 1],
		['intensify', 'pogo', 'all-year', 0.75],
		['peaking', 'pogo', 'all-year', 1],
		['unloading', 'pogo', 'all-year', 0.6],
		['accumulate', 'depth-jump', 'all-year', 0.6],
		['intensify', 'depth-jump', 'all-year', 0.6],
		['intensify', 'depth-jump', 'peaking-and-intensify', 0.75],
		['peaking', 'depth-jump', 'all-year', 1],
		['unloading', 'depth-jump', 'all-year', 0.6],
	] as [Phase, string, SchoolChoices['depthJumps'], number][])(
		'%s, %s, %s: %d of the dose',
		(phase, id, when, share) => {
			expect(phaseShare(phase, drill(id), schoolWith({ depthJumps: when }))).toBe(share)
		},
	)
	it.each([
		['peaking', [false, false, true, false]],
		['peaking-and-intensify', [false, true, true, false]],
		['all-year', [true, true, true, false]],
		['never', [false, false, false, false]],
	] as [SchoolChoices['depthJumps'], boolean[]][])('rebounds from a box, %s', (when, open) => {
		const phases: Phase[] = ['accumulate', 'intensify', 'peaking', 'unloading']
		expect(phases.map((phase) => depthOpen(schoolWith({ depthJumps: when }), phase))).toEqual(open)
	})
})

// S10, caution: wet grass, no shock and no reactive cut of 90° or more.
describe('S10, wet grass', () => {
	const reactive = Object.values(STARTER_LIBRARY.drills).find((one) => one.reactive && one.counting.cuts)!
	it.each([
		['depth-jump', { heightCm: 30 }, true],
		['drop-landing', { heightCm: 30 }, false],
		[reactive.id, { angleDeg: 90 }, true],
		[reactive.id, { angleDeg: 89 }, false],
		['cut-90', { angleDeg: 90 }, false],
	] as [string, DrillParameters, boolean][])('%s %j', (id, parameters, locked) => {
		const lock = said(id, { ...drill(id).defaults.parameters, ...parameters }, { surface: 'wet-grass' })
		if (locked) expect(lock).toContain('S10 caution: wet grass')
		else expect(lock).toBeNull()
		expect(said(id, { ...drill(id).defaults.parameters, ...parameters }, { surface: 'grass' })).toBeNull()
	})
})

// S11, caution: no shock within 48 h before a match, nothing high or maximal within 36 h after one;
// exactly 36 h after is allowed.
describe('S11', () => {
	it.each([
		[0, true],
		[47.9, true],
		[48.1, false],
		[null, false],
	])('shock %s h before a match', (hoursToMatch, locked) => {
		expect(said('depth-jump', { heightCm: 30 }, { hoursToMatch })).toBe(
			locked ? 'S11 caution: a match within 48 h: no rebounds from a box' : null,
		)
	})
	it('says nothing of other hard work before a match', () => {
		expect(said('standing-start', drill('standing-start').defaults.parameters, { hoursToMatch: 20 })).toBeNull()
	})
	it.each([
		[1, true],
		[35.9, true],
		[36, false],
		[null, false],
	])('a standing start %s h after a match', (hoursSinceMatch, locked) => {
		const lock = said('standing-start', drill('standing-start').defaults.parameters, { hoursSinceMatch })
		if (locked) expect(lock).toContain('S11 caution')
		else expect(lock).toBeNull()
	})
	it('leaves easy work after a match', () => {
		expect(said('pogo', {}, { hoursSinceMatch: 2 })).toBeNull()
	})
})

it('what is closed for good is said before what is closed today', () => {
	const everything: Partial<LockContext> = {
		ageYears: 15,
		unwell: true,
		surface: 'wet-grass',
		hoursToMatch: 10,
		restrictions: [{ region: 'knee', pattern: null, since: '2026-03-01', setBy: 'x' }],
	}
	expect(said('depth-jump', { heightCm: 15 }, everything)).toContain('S4')
	expect(said('depth-jump', { heightCm: 15 }, { ...everything, ageYears: 25 })).toContain('S2')
	expect(said('depth-jump', { heightCm: 15 }, { ...everything, ageYears: 25, restrictions: [] })).toContain('S3')
})

// S8: gates and prerequisites; a block for shock and assisted, else a caution.
describe('S8, gates of a rung', () => {
	const rung = (drillId: string, gates: Gate[], more: Partial<Rung> = {}): Rung => ({
		id: 'here',
		name: 'Here',
		level: 2,
		drillId,
		parameters: {},
		dose: { sets: 3, reps: 3 },
		rest: { repsS: 60, setsS: 60 },
		pass: { kind: 'quality' },
		gates,
		...more,
	})
	const locked = (one: Rung, more: Partial<LockContext> = {}, since?: string) => {
		const state = since ? ({ rungSince: since } as Parameters<typeof lockOf>[3]) : null
		const lock = lockOf(one, drill(one.drillId), free(more), state)
		return lock && `${lock.rule} ${lock.tier}${lock.skip ? ' passed over' : ''}: ${lock.words}`
	}
	it('level', () => {
		expect(
			locked(
				rung('bound-for-distance' in STARTER_LIBRARY.drills ? 'bound-for-distance' : 'pogo', [{ kind: 'level' }]),
				{ level: 1 },
			),
		).toBe('S8 caution: opens at level 2')
		expect(locked(rung('pogo', [{ kind: 'level' }]), { level: 2 })).toBeNull()
		// A rebound at level 2 that asks level 3: a block.
		expect(
			locked(rung('depth-jump', [{ kind: 'level' }], { level: 3, parameters: { heightCm: 45 } }), { level: 2 }),
		).toBe('S8 block: opens at level 3')
	})
	it('what has to be passed before', () => {
		const gate: Gate = { kind: 'passed', ladderId: 'brake', rungId: 'stop-10', rungName: 'Several steps to a stop' }
		expect(locked(rung('pogo', [gate]))).toBe('S8 caution: opens after several steps to a stop')
		expect(locked(rung('pogo', [gate]), { standings: { brake: ['stop-5'] } })).not.toBeNull()
		expect(locked(rung('pogo', [gate]), { standings: { cut: ['stop-10'] } })).not.toBeNull()
		expect(locked(rung('pogo', [gate]), { standings: { brake: ['stop-5', 'stop-10'] } })).toBeNull()
		expect(locked(rung('depth-jump', [gate], { parameters: { heightCm: 15 } }))).toContain('S8 block')
	})
	it.each([
		['2026-02-27', 'S8 caution: opens after 14 days on the rung below, 13 so far'],
		['2026-02-26', null],
		['2026-02-25', null],
	])('days on the rung below, since %s', (since, expected) => {
		expect(locked(rung('pogo', [{ kind: 'days-below', days: 14 }]), {}, since)).toBe(expected)
	})
	it('days on the rung below that nobody knows are too few', () => {
		expect(locked(rung('pogo', [{ kind: 'days-below', days: 14 }]))).toBe(
			'S8 caution: opens after 14 days on the rung below',
		)
	})
	it('the school’s highest box', () => {
		const at = (heightCm: number) => rung('drop-landing', [], { parameters: { heightCm } })
		const school = schoolWith({}, { highestBoxCm: 45 })
		expect(locked(at(45), { school })).toBeNull()
		expect(locked(at(46), { school })).toBe('S8 block passed over: over the school’s highest box, 45 cm')
	})
	it('the school’s cap of assisted speed', () => {
		const assisted = Object.values(STARTER_LIBRARY.drills).find((one) => one.counting.metres?.kind === 'assisted')!
		const at = (assistPercent: number) => rung(assisted.id, [], { parameters: { assistPercent } })
		const school = schoolWith({}, { assistedCapPercent: 10 })
		expect(locked(at(10), { school })).toBeNull()
		expect(locked(at(11), { school })).toBe('S8 block passed over: over the school’s cap, 10 %')
		expect(locked(at(5), { school: schoolWith({}, { assistedCapPercent: 0 }) })).toBe(
			'S8 block passed over: the school uses no assisted speed',
		)
	})
	it('the phase of rebounds', () => {
		const deep = rung('depth-jump', [{ kind: 'depth-phase' }], { parameters: { heightCm: 15 } })
		expect(locked(deep, { phase: 'accumulate', school: schoolWith({ depthJumps: 'peaking' }) })).toBe(
			'S8 block passed over: opens in the peaking phase',
		)
		expect(locked(deep, { phase: 'accumulate', school: schoolWith({ depthJumps: 'peaking-and-intensify' }) })).toBe(
			'S8 block passed over: opens in the intensify or peaking phase',
		)
		expect(locked(deep, { school: schoolWith({ depthJumps: 'never' }) })).toBe(
			'S8 block passed over: the school uses no rebounds from a box',
		)
		expect(locked(deep, { phase: 'peaking', school: schoolWith({ depthJumps: 'peaking' }) })).toBeNull()
	})
	it.each([
		['volume', 'capacity', { volume: 'skill' }, 'hard finishing work is closed in this school'],
		['conditioning', 'long-runs', { conditioning: 'shuttles' }, 'the school conditions another way'],
		['contrast', 'use', { contrast: 'own-trial' }, 'closed until the athlete’s own trial says it helps'],
	] as ['volume' | 'conditioning' | 'contrast', string, Partial<SchoolChoices>, string][])(
		'a question of the school: %s',
		(question, side, other, words) => {
			const one = rung('pogo', [{ kind: 'school', question, side }])
			expect(locked(one, { school: schoolWith(other) })).toBe(`S8 block passed over: ${words}`)
			expect(locked(one, { school: schoolWith({ [question]: side } as Partial<SchoolChoices>) })).toBeNull()
		},
	)
	it('the athlete’s own trial opens slow-to-fast contrast', () => {
		const one = rung('pogo', [{ kind: 'school', question: 'contrast', side: 'use' }])
		expect(locked(one, { school: schoolWith({ contrast: 'own-trial' }), contrastHelps: true })).toBeNull()
	})
})

describe('what is passed, and what comes next', () => {
	const ladder = STARTER_LIBRARY.ladders.stiffness!
	const ids = ladder.rungs.map((rung) => rung.id)
	const state = (more: object) => ({ rungId: ids[2]!, passed: false, ...more }) as Parameters<typeof passedRungs>[0]
	it('all below the rung where nothing was kept, with the rung once it is passed', () => {
		expect(passedRungs(state({}), ladder)).toEqual(ids.slice(0, 2))
		expect(passedRungs(state({ passed: true }), ladder)).toEqual(ids.slice(0, 3))
	})
	it('as kept, with the rung itself once it is passed, and once only', () => {
		expect(passedRungs(state({ done: [ids[0]] }), ladder)).toEqual([ids[0]])
		expect(passedRungs(state({ done: [ids[0]], passed: true }), ladder)).toEqual([ids[0], ids[2]])
		expect(passedRungs(state({ done: [ids[0], ids[2]], passed: true }), ladder)).toEqual([ids[0], ids[2]])
	})
	it('next is the lowest rung not passed, with why it is shut; none at the top', () => {
		const level1 = free({ level: 1 })
		expect(nextRung(ladder, state({ passed: true }), STARTER_LIBRARY.drills, free())?.rung.id).toBe(ids[3])
		expect(nextRung(ladder, state({ done: ids.slice(1), passed: true }), STARTER_LIBRARY.drills, free())?.rung.id).toBe(
			ids[0],
		)
		expect(nextRung(ladder, state({ done: ids }), STARTER_LIBRARY.drills, free())).toBeNull()
		const shut = ladder.rungs.findIndex((rung) => rung.gates.some((gate) => gate.kind === 'level') && rung.level > 1)
		const below = state({ rungId: ids[shut - 1], passed: true })
		expect(nextRung(ladder, below, STARTER_LIBRARY.drills, level1)?.lock).not.toBeNull()
	})
})
