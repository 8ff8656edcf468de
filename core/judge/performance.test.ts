import { describe, expect, it } from 'vitest'
import { JUMP_LADDER, QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { School, SchoolChoices } from '../vocabulary/school'
import {
	athlete,
	documents,
	exposure,
	gate,
	good,
	input,
	mat,
	next,
	run,
	runIn,
	stateAt,
	usual,
} from '../../tests/support/verdict-fixture'
import { judge } from './judge'
import { variationFor } from './performance-rules'
import type { Exposure, Judgement, LadderState, VerdictInput } from './types'

// P1–P4, P7, P10, P11 at and beside their boundaries, with what each found and the state it leads to.

const start = (change: Partial<LadderState> = {}) => stateAt('acceleration', 'three-point-10', change)
const best = { usual: { gate: usual(1.88) } }
const ten: Partial<Exposure> = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), ...best }
const slow: Partial<Exposure> = { marks: gate(2.1, 2.11, 2.1, 2.12, 2.1, 2.11), ...best }
const lineOf = (judged: Judgement, rule: string) => judged.trace.find((line) => line.rule === rule)!
const found = (judged: Judgement, rule: string) =>
	`${lineOf(judged, rule).fired ? 'fired: ' : ''}${lineOf(judged, rule).found}`
const school = (choices: Partial<SchoolChoices>): School => ({
	...QUALITY_FIRST,
	choices: { ...QUALITY_FIRST.choices, ...choices },
})
const by = (ok: number, poor: number, notYet = 0, setTaps = 0): Partial<Exposure> => ({
	quality: { good: ok, notYet, poor, setTaps },
})
const adult = { athlete: athlete({ level: 3 }) }

describe('what an exposure is said to be', () => {
	const cut = (now: Partial<Exposure>) => run('cut', stateAt('cut', 'cut-90'), null, now)
	it.each([
		['by eye', by(9, 0), '9 of 9 judged reps good · 100 % of the reps'],
		['four in five', by(8, 1, 1), '8 of 10 judged reps good · 100 % of the reps'],
		['two thirds done', { ...by(6, 0), repsDone: 6 }, '6 of 6 judged reps good · 67 % of the reps'],
		['a tap for the set', { quality: { good: 0, notYet: 0, poor: 0, setTaps: 1 } }, '100 % of the reps'],
	] as [string, Partial<Exposure>, string][])('%s', (_name, now, words) => {
		expect(found(cut(now), 'P2')).toBe(words)
	})
	it('without an exposure at the dose, that', () => {
		for (const rule of ['P1', 'P2'])
			expect(found(cut({ planned: { sets: 1, reps: 3 } }), rule)).toBe('not done at this dose')
	})
	it('once, and the reps', () => {
		expect(found(cut(by(9, 0)), 'P1')).toBe('once: 9 of 9 judged reps good · 100 % of the reps')
		expect(found(cut(by(5, 0, 4)), 'P1')).toBe('5 of 9 judged reps good · 100 % of the reps')
	})
	it('its sentence says what was seen', () => {
		expect(cut(by(9, 0)).sentence).toBe('Hold 90° cut, 3×3: 9 of 9 judged reps good. One more like it.')
		expect(cut({ quality: { good: 0, notYet: 0, poor: 0, setTaps: 1 } }).sentence).toBe(
			'Hold 90° cut, 3×3: passed before. One more like it.',
		)
	})
})

describe('P2', () => {
	it('once it holds, and a pass that waited is lost; twice it goes one rung lower', () => {
		const once = run('acceleration', start({ passed: true }), null, slow)
		expect(once).toMatchObject({ verdict: 'hold', decidedBy: 'P2', next: { passed: false, rungId: 'three-point-10' } })
		expect(once.sentence).toMatch(
			/^Hold three-point start 10 m, 1×6: 2\.11 s is 12\.\d % over the usual 1\.88 s, more than a day moves it: over 3 % is virtually certain, 99 % or more\. Twice running would ease it\.$/,
		)
		const twice = run('acceleration', start({ passed: true }), slow, slow)
		expect(twice).toMatchObject({ verdict: 'ease', next: { passed: false, rungId: 'standing-10' } })
		expect(found(twice, 'P2')).toMatch(/^fired: chance of .* · 100 % of the reps, and the time before too$/)
	})
	it('poor by eye says how many, also where the times were good', () => {
		const poor = run('acceleration', start(), null, { ...ten, ...by(3, 3) })
		expect(poor.decidedBy).toBe('P2')
		expect(poor.sentence).toBe(
			'Hold three-point start 10 m, 1×6: 3 of 6 judged reps were poor. Twice running would ease it.',
		)
	})
	it('at the bottom two thirds of the dose are left', () => {
		const bottom = run('cut', stateAt('cut', 'wide', { passed: true }), by(4, 4), by(4, 4))
		expect(bottom).toMatchObject({
			verdict: 'ease',
			next: { rungId: 'wide', passed: false, dose: { sets: 1, reps: 4 } },
		})
		expect(bottom.sentence).toBe('Ease to 1×4: 4 of 8 judged reps were poor, twice running.')
	})
	it('goes past a rung below that is closed in this phase, down to the first', () => {
		// Depth jumps open in peaking: from the landing of 45 cm the rung below is the pause jump.
		const accumulate = { next: next({ phase: 'accumulate' }), ...adult }
		const shock = run('shock', stateAt('shock', 'landing-45'), by(5, 10), by(5, 10), accumulate)
		expect(shock.next.rungId).toBe('pause-30')
		expect(run('cut', stateAt('cut', 'sharp-wide'), by(4, 4), by(4, 4)).next.rungId).toBe('wide')
	})
})

describe('P4', () => {
	const falls: Partial<Exposure> = { marks: gate(1.9, 1.89, 1.9, 1.91, 2.02, 2.04), usual: { gate: usual(2) } }
	const early: Partial<Exposure> = { marks: gate(1.9, 1.89, 2.02, 2.04, 2.03, 2.04), usual: { gate: usual(2) } }
	const of = (before: Partial<Exposure> | null, now: Partial<Exposure>, state: Partial<LadderState> = {}) =>
		run('acceleration', start(state), before, now)
	it('says the largest, what was seen once, and keeps the smaller count', () => {
		expect(found(of(null, { ...ten, marks: gate(1.9, 1.88, 1.9, 1.91) }), 'P4')).toBe('largest 1.6 %')
		expect(found(of(null, falls), 'P4')).toBe('6.9 % and 7.9 %, once')
		expect(lineOf(of(null, falls), 'P4').limit).toMatch(/ %, beyond chance, twice running$/)
		expect(of(falls, falls).next).toMatchObject({ dose: { sets: 1, reps: 4 }, passed: false })
		// The smaller of 4 and 2, and never under half of six.
		expect(of(early, falls).next.dose).toEqual({ sets: 1, reps: 3 })
		expect(of(falls, early).next.dose).toEqual({ sets: 1, reps: 3 })
	})
	it('at half of the dose there is nothing to take away', () => {
		const half = of(early, early, { dose: { sets: 1, reps: 3 }, easedBy: 'drop-off' })
		expect(half.verdict).not.toBe('ease')
		expect(found(half, 'P4')).toMatch(/, already at half the rung's dose$/)
	})
	it('a watch is too coarse to tell', () => {
		const watch: Exposure['marks'] = [1.9, 1.9, 1.9, 2.0].map((value) => ({
			kind: 'sprint',
			value,
			method: 'stopwatch',
		}))
		expect(found(of(null, { marks: watch }), 'P4')).toBe('the method cannot show tiredness here')
	})
	it('nothing measured says so', () => {
		expect(found(of(null, {}), 'P4')).toBe('nothing measured')
		expect(lineOf(of(null, {}), 'P4').limit).toBe('—')
	})
	describe('a ball that slows', () => {
		const tape = (...values: number[]): Exposure['marks'] =>
			values.map((value) => ({ kind: 'distance', value, method: 'tape' }))
		const thrown = (state: Partial<LadderState>) =>
			run('throw', stateAt('throw', 'rotational', { passed: true, ...state }), null, {
				marks: tape(10, 10.1, 10, 7.6, 7.5),
				...by(6, 0),
			})
		it.each([
			[{}, 2],
			[{ ballKg: 5 }, 4],
			[{ ballKg: 2.5 }, 2],
			[{ ballKg: 2 }, 1],
		] as [Partial<LadderState>, number][])('%j: %i kg', (state, ballKg) => {
			const judged = thrown(state)
			expect(judged).toMatchObject({ verdict: 'ease', decidedBy: 'P4', next: { ballKg, passed: false } })
			expect(judged.sentence).toMatch(
				new RegExp(
					`^Ease to the ${ballKg} kg ball: the throws were 2\\d\\.\\d % and 2\\d\\.\\d % short of the best\\.$`,
				),
			)
		})
		it('of 1 kg there is none lighter', () => {
			expect(thrown({ ballKg: 1 }).decidedBy).not.toBe('P4')
			expect(found(thrown({ ballKg: 1 }), 'P4')).toMatch(/, and no lighter ball$/)
		})
	})
})

describe('P10, a pulled run', () => {
	const pulled = (rungId: string, comfort: Exposure['comfort']) =>
		run('assisted', stateAt('assisted', rungId, { passed: true }), null, { comfort, ...by(3, 0) }, adult)
	it.each([
		[{ worst: 2, braking: false }, '2 of 5', null],
		[{ worst: 3, braking: false }, 'fired: 3 of 5', 'assist-5'],
		[{ worst: 0, braking: true }, 'fired: 0 of 5, braking seen', 'assist-5'],
		[null, 'no comfort report', null],
	] as [Exposure['comfort'], string, string | null][])('%j: %s', (comfort, words, rungId) => {
		const judged = pulled('assist-10', comfort)
		expect(found(judged, 'P10')).toBe(words)
		expect(judged.decidedBy === 'P10').toBe(rungId !== null)
		if (rungId) expect(judged.next).toMatchObject({ rungId, stay: true, passed: false, dose: { sets: 3, reps: 1 } })
	})
	it('on the lowest pull half the dose is left, and a word to leave it out', () => {
		const judged = pulled('assist-5', { worst: 4, braking: true })
		expect(judged).toMatchObject({
			verdict: 'ease',
			decidedBy: 'P10',
			next: { rungId: 'assist-5', passed: false, dose: { sets: 1, reps: 2 } },
		})
		expect(judged.sentence).toBe(
			'Ease assisted, 5 % over to one easy try: 4 of 5, braking seen. Leave it out if the next is no better.',
		)
	})
	it('where nothing pulls nothing is asked', () => {
		expect(found(run('acceleration', start(), null, { ...ten, comfort: { worst: 5, braking: true } }), 'P10')).toBe(
			'no pull',
		)
	})
})

describe('P11, a carried load', () => {
	const carried = (rungId: string, loadOff: Exposure['loadOff']) =>
		run('carried-load', stateAt('carried-load', rungId, { passed: true }), null, { loadOff }, adult)
	it.each([
		['speed-loss', 'off for speed lost'],
		['movement', 'off for a compromised movement'],
	] as const)('%s: one lighter', (loadOff, words) => {
		const judged = carried('run-250', loadOff)
		expect(judged).toMatchObject({ verdict: 'ease', decidedBy: 'P11', next: { rungId: 'run-100', passed: false } })
		expect(found(judged, 'P11')).toBe(`fired: ${words}`)
		expect(judged.sentence).toBe(`Ease to building run, 100 g: the load came ${words}.`)
		expect(lineOf(judged, 'P11').limit).toMatch(/^5(\.0)? %$/)
	})
	it('none lighter: half the dose', () => {
		const judged = carried('near-100', 'movement')
		expect(judged).toMatchObject({
			decidedBy: 'P11',
			next: { rungId: 'near-100', passed: false, dose: { sets: 2, reps: 2 } },
		})
		expect(judged.sentence).toBe(
			'Ease to 2×2: the load came off for a compromised movement, and there is none lighter.',
		)
	})
	it('it stayed on; it was never carried', () => {
		expect(found(carried('run-250', null), 'P11')).toBe('stayed on')
		expect(found(run('carried-load', stateAt('carried-load', 'run-250'), null, null, adult), 'P11')).toBe('stayed on')
		expect(found(run('acceleration', start(), null, { ...ten, loadOff: 'movement' }), 'P11')).toBe('no load carried')
	})
})

describe('P7, no change over four sessions', () => {
	const flat = (value: number, id: string, day: string, change: Partial<Exposure> = {}) =>
		exposure(id, day, start(), { marks: gate(value, value, value), usual: { gate: usual(1.87) }, ...change })
	const days = [
		['a', '2026-03-02'],
		['b', '2026-03-05'],
		['s1', '2026-03-09'],
		['s2', '2026-03-12'],
	] as const
	const four = (values: readonly number[], change: Partial<Exposure>[] = []) =>
		days.map(([id, day], index) => flat(values[index]!, id, day, change[index]))
	const of = (
		exposures: Exposure[],
		more: Partial<VerdictInput> = {},
		choices: Partial<SchoolChoices> = { variety: 'rotate' },
	) => runIn(school(choices), 'acceleration', start(), null, null, { focus: 'priority', exposures, ...more })
	const steady = [1.93, 1.931, 1.929, 1.93] as const
	it('swaps the variation at the same rung', () => {
		const judged = of(four(steady))
		expect(judged).toMatchObject({
			verdict: 'swap',
			decidedBy: 'P7',
			instead: 'resisted-start',
			next: { rungId: 'three-point-10', substitute: { drillId: 'resisted-start', since: '2026-03-16' } },
		})
		expect(found(judged, 'P7')).toMatch(/^fired: −0\.00 s over four sessions, noise 0\.0\d s$/)
		expect(judged.sentence).toMatch(/^Swap for .* at the same rung: no change beyond noise over four sessions\.$/)
	})
	it('or only proposes it', () => {
		expect(of(four(steady), {}, { variety: 'same' })).toMatchObject({
			verdict: 'hold',
			decidedBy: 'P7',
			next: { substitute: null },
		})
	})
	// By gates one time is good to 0.02 s: four means of three are within 2 × 0.0115 × √4 / 2 = 0.023 s.
	it.each([
		[[1.95, 1.95, 1.93, 1.93], true, /^fired: −0\.02 s/],
		[[1.93, 1.93, 1.95, 1.95], true, /^fired: \+0\.02 s/],
		[[2.0, 2.0, 1.93, 1.93], false, /^−0\.07 s over four sessions, noise/],
		[[1.93, 1.93, 2.0, 2.0], false, /^\+0\.07 s over four sessions/],
		[[2.0, 1.93, 2.0, 1.93], true, /^fired: /],
	] as [number[], boolean, RegExp][])('%j: %s', (values, fires, words) => {
		const judged = of(four(values))
		expect(found(judged, 'P7')).toMatch(words)
		expect(lineOf(judged, 'P7').fired).toBe(fires)
	})
	it.each([
		['three are too few', four(steady).slice(1), '3 measured sessions on this rung'],
		['one done as something else', four(steady, [{ onRung: false }]), '3 measured sessions on this rung'],
		['one of another rung', four(steady, [{ rungId: 'standing-10' }]), '3 measured sessions on this rung'],
		['one of which nothing was done', four(steady, [{ repsDone: 0 }]), '3 measured sessions on this rung'],
		['one in an unloading week', four(steady, [{ phase: 'unloading' }]), '3 measured sessions on this rung'],
		['one without marks', four(steady, [{}, { marks: [] }]), '4 measured sessions on this rung'],
		['who passes is on no plateau', four([1.9, 1.9, 1.9, 1.9]), 'passing'],
	] as [string, Exposure[], string][])('%s', (_name, exposures, words) => {
		expect(found(of(exposures), 'P7')).toBe(words)
	})
	const watch = { marks: gate(1.7, 1.7, 1.7).map((mark) => ({ ...mark, method: 'stopwatch' as const })) }
	it.each([
		['two by hand before two by gates: a change that nobody made', four([2, 2, 1.93, 1.93], [watch, watch])],
		['one by hand among gates', four(steady, [{}, watch])],
		['two on another ground', four(steady, [{ like: 'a' }, { like: 'a' }, { like: 'b' }, { like: 'b' }])],
		['two of another kind', four(steady, [{ marks: mat(1.93, 1.93, 1.93) }, { marks: mat(1.93, 1.93, 1.93) }])],
		[
			'one leg, then the other',
			four(
				steady,
				(['left', 'left', 'right', 'right'] as const).map((side) => ({
					marks: gate(1.93, 1.93, 1.93).map((mark) => ({ ...mark, side })),
				})),
			),
		],
	] as [string, Exposure[]][])('%s: not measured alike', (_name, exposures) => {
		expect(found(of(exposures), 'P7')).toBe('4 sessions on this rung, not measured alike')
	})
	it('on one ground, by one method, both legs however many reps each did', () => {
		const legs = (left: number, right: number) => ({
			like: 'a',
			marks: [
				...gate(...Array<number>(left).fill(1.9)).map((mark) => ({ ...mark, side: 'left' as const })),
				...gate(...Array<number>(right).fill(2.2)).map((mark) => ({ ...mark, side: 'right' as const })),
			],
			usual: {},
		})
		// Together the first two would be 1.98 s on average and the last two 2.12 s.
		const judged = of(four(steady, [legs(3, 1), legs(3, 1), legs(1, 3), legs(1, 3)]))
		// Whichever leg was first.
		const turned = { ...legs(1, 3), marks: legs(1, 3).marks.reverse() }
		expect(lineOf(of(four(steady, [legs(3, 1), legs(3, 1), turned, legs(1, 3)])), 'P7').fired).toBe(true)
		expect(found(judged, 'P7')).toMatch(/^fired: \+0\.00 s over four sessions/)
	})
	it('of five the last four count', () => {
		const five = [flat(2.2, 'z', '2026-02-26'), ...four(steady)]
		expect(lineOf(of(five), 'P7').fired).toBe(true)
	})
	it('not where the ladder is no priority', () => {
		expect(found(of(four(steady), { focus: null }), 'P7')).toBe('not a priority ladder')
		expect(found(of(four(steady), { focus: 'kept' }), 'P7')).toBe('not a priority ladder')
	})
	it('a rung without a variation says so', () => {
		const at = stateAt('acceleration', 'reaction-20')
		const exposures = days.map(([id, day]) =>
			exposure(id, day, at, { marks: gate(3.5, 3.5, 3.5), usual: { gate: usual(3.3) } }),
		)
		const judged = runIn(school({ variety: 'rotate' }), 'acceleration', at, null, null, {
			focus: 'priority',
			exposures,
			...adult,
		})
		expect(found(judged, 'P7')).toMatch(/; no variation of this rung$/)
	})
	it('three sessions of the variation, then the rung itself again', () => {
		const substitute = { drillId: 'resisted-start', since: '2026-03-02' }
		const varied = (change: Partial<Exposure>[]) =>
			runIn(school({ variety: 'rotate' }), 'acceleration', start({ substitute }), null, null, {
				focus: 'priority',
				exposures: change.map((one, index) => flat(1.9, days[index]![0], days[index]![1], { onRung: false, ...one })),
			})
		expect(varied([{}, {}])).toMatchObject({
			verdict: 'swap',
			decidedBy: 'P7',
			instead: 'resisted-start',
			next: { substitute },
		})
		expect(varied([{}, {}]).sentence).toBe('The variation stays: 2 of 3 sessions done.')
		expect(varied([{}, {}, {}])).toMatchObject({ verdict: 'hold', decidedBy: 'P7', next: { substitute: null } })
		expect(varied([{}, {}, {}]).sentence).toBe('Back to three-point start 10 m, to see what the variation brought.')
		// What was done on the rung, before the variation began, or not at all is none of it.
		for (const one of [{ onRung: true }, { day: '2026-03-01' }, { repsDone: 0 }])
			expect(varied([one, {}, {}]).sentence).toBe('The variation stays: 2 of 3 sessions done.')
		// Another drill than one of the rung's variations is no variation.
		const other = runIn(
			school({}),
			'acceleration',
			start({ substitute: { drillId: 'pogo', since: '2026-03-02' } }),
			null,
			ten,
		)
		expect(other.decidedBy).not.toBe('P7')
	})
	it('the pull goes from heavy to light towards the season, or is light alone', () => {
		const { rungs } = STARTER_LIBRARY.ladders.acceleration!
		const [standing, threePoint, reaction] = ['standing-10', 'three-point-10', 'reaction-20'].map(
			(id) => rungs.find((rung) => rung.id === id)!,
		)
		const asked = (
			phase: 'accumulate' | 'intensify' | 'peaking' | 'unloading',
			resistance: SchoolChoices['resistance'],
			rung = threePoint!,
		) =>
			variationFor(rung, {
				documents: documents('acceleration', school({ resistance })),
				input: input('acceleration', start(), null, null, { next: next({ phase }) }),
			})
		const { resistance } = QUALITY_FIRST.choices
		expect(asked('accumulate', resistance)?.resistance).toBe('heavy')
		expect(asked('intensify', resistance)?.resistance).toBe('moderate')
		expect(asked('peaking', resistance)?.resistance).toBe('light')
		expect(asked('unloading', resistance)?.resistance).toBe('light')
		for (const phase of ['accumulate', 'intensify'] as const)
			expect(asked(phase, 'light-only')?.resistance).toBe('light')
		expect(asked('accumulate', resistance, standing)?.resistance).toBe('heavy')
		// Without a pull of that kind, whatever has none.
		const bare = { ...standing!, variations: standing!.variations!.filter((one) => one.resistance !== 'heavy') }
		expect(asked('accumulate', resistance, bare)).toMatchObject({ drillId: 'falling-start' })
		expect(asked('accumulate', resistance, reaction)).toBeNull()
	})
})

describe('P1', () => {
	const pass = (state: Partial<LadderState>, more: Partial<VerdictInput> = {}) =>
		run('acceleration', start(state), ten, ten, more)
	it('who has waited advances with a single pass, and with an unclear one; not with a miss', () => {
		const waited = { passed: true, passedSince: '2026-03-02' }
		const once = run('acceleration', start(waited), null, ten)
		expect(once).toMatchObject({
			verdict: 'advance',
			next: { rungId: 'three-point-20', passed: false, passedSince: null },
		})
		expect(once.sentence).toBe('Advance to three-point start 20 m, 1×6: passed before, and what it waited for is met.')
		expect(found(once, 'P1')).toBe('fired: passed before')
		const unclear: Partial<Exposure> = { marks: gate(1.93, 1.94, 1.93, 1.94), ...best }
		expect(run('acceleration', start(waited), null, unclear).verdict).toBe('advance')
		expect(run('acceleration', start(waited), null, slow).verdict).toBe('hold')
		const twice = run('acceleration', start(waited), ten, ten)
		expect(twice.sentence).toBe(
			'Advance to three-point start 20 m, 1×6: 1.90 s is 1.2 % over the usual 1.88 s, within what a day moves it, twice running.',
		)
		expect(found(twice, 'P1')).toMatch(/^fired: twice: /)
	})
	it('the day of the pass is kept while it waits', () => {
		const shut = { athlete: athlete({ level: 2 }) }
		const at = (more: Partial<LadderState>) =>
			run('acceleration', stateAt('acceleration', 'three-point-20', more), twenty, twenty, shut).next
		expect(at({})).toMatchObject({ passed: true, passedSince: '2026-03-12' })
		expect(at({ passedSince: '2026-02-01' })).toMatchObject({ passed: true, passedSince: '2026-02-01' })
	})
	it('a kept ladder is P8; one that stays at its pull is P1', () => {
		expect(pass({}, { focus: 'kept' })).toMatchObject({ verdict: 'hold', decidedBy: 'P8', next: { passed: true } })
		expect(pass({}, { focus: 'kept' }).sentence).toBe(
			'Hold three-point start 10 m: passed, and kept, not driven on, in this block.',
		)
		const stays = pass({ stay: true })
		expect(stays).toMatchObject({ verdict: 'hold', decidedBy: 'P1', next: { passed: true } })
		expect(stays.sentence).toContain('stays at the last comfortable pull')
	})
	it('the top of the ladder, and the top that is open now', () => {
		const react = run('acceleration', stateAt('acceleration', 'reaction-20'), call, call, adult)
		expect(react).toMatchObject({ verdict: 'hold', decidedBy: 'P1', next: { rungId: 'reaction-20', passed: true } })
		expect(react.sentence).toBe(
			'Hold start on a call 20 m, the top of the ladder: 3.30 s is the usual 3.30 s, within what a day moves it.',
		)
		const marks: Partial<Exposure> = { marks: mat(...Array<number>(10).fill(0.14)), quality: good(10) }
		const done = STARTER_LIBRARY.ladders.shock!.rungs.map((rung) => rung.id).slice(0, 8)
		const heavy = runIn(JUMP_LADDER, 'shock', stateAt('shock', 'depth-30', { done }), marks, marks, {
			athlete: athlete({ level: 3, massKg: 104 }),
			next: next({ phase: 'accumulate' }),
			standings: { shock: done },
		})
		expect(heavy.sentence).toMatch(/the top that is open now: /)
	})
	it('a heavier load is no higher box: what stays low looks at boxes alone', () => {
		const low = school({ boxHeight: 'low' })
		const marks: Partial<Exposure> = { marks: mat(...Array<number>(9).fill(0.19)), quality: good(9) }
		const judged = runIn(low, 'stiffness', stateAt('stiffness', 'pogo-for-height'), marks, marks)
		expect(judged).toMatchObject({ verdict: 'advance', next: { rungId: 'travelling-pogo' } })
	})
})
const twenty: Partial<Exposure> = { marks: gate(3.1, 3.08, 3.09, 3.1, 3.09, 3.1), usual: { gate: usual(3.06) } }
const call: Partial<Exposure> = { marks: gate(3.3, 3.3, 3.3, 3.3, 3.3), usual: { gate: usual(3.3) } }

describe('P3, why it is no evidence', () => {
	const at = stateAt('acceleration', 'three-point-20')
	const unclear = (change: Partial<Exposure>) => run('acceleration', at, null, { ...twenty, ...change })
	it.each([
		[{ firstDayBack: true }, 'the first day back says nothing either way'],
		[{ phase: 'unloading' as const }, 'an unloading week says nothing'],
		[{ rungId: 'standing-10' }, 'a lower rung stood in for this one'],
		[{ rungId: 'three-point-30' }, 'a higher rung stood in for this one'],
		[{ rungId: 'gone' }, 'other work stood in for this one'],
		[{ rungId: 'wall' }, 'a lower rung stood in for this one'],
		[{ onRung: false }, 'another drill stood in'],
		[{ planned: { sets: 1, reps: 5 } }, 'the session asked for less than this dose, so it says nothing about it'],
	] as [Partial<Exposure>, string][])('%j: %s', (change, why) => {
		expect(unclear(change).sentence).toBe(`Hold three-point start 20 m, 1×6: ${why}.`)
	})
	it('of several the first day back is said first', () => {
		expect(unclear({ firstDayBack: true, phase: 'unloading', onRung: false }).sentence).toContain('first day back')
	})
	it('nothing logged, and neither pass nor miss', () => {
		expect(unclear({ repsDone: 0 })).toMatchObject({ verdict: 'hold', decidedBy: 'P3' })
		expect(found(unclear({ repsDone: 0 }), 'P3')).toBe('fired: nothing logged')
		expect(run('acceleration', at, null, null).sentence).toContain('nothing was logged')
		const between = run('acceleration', start(), null, { marks: gate(1.93, 1.94, 1.93, 1.94), ...best })
		expect(found(between, 'P3')).toMatch(
			/^fired: 1\.94 s is 2\.9 % over the usual 1\.88 s: it may be the day or a fall of over 3 %; /,
		)
	})
})

it('a version of a ladder of before judges by itself, not by the library’s', () => {
	const cited = documents('cut')
	const older = { ...cited.ladder, rungs: cited.ladder.rungs.filter((rung) => rung.id !== 'soft-180') }
	const state = stateAt('cut', 'cut-90', { done: ['wide', 'sharp-wide'] })
	const judged = judge(
		input('cut', state, by(9, 0), by(9, 0), {
			...adult,
			standings: { brake: ['slow-10', 'stop-5', 'stop-10', 'dead-5', 'dead-10', 'dead-15', 'dead-20'] },
		}),
		{ ...cited, ladder: older },
	)
	expect(judged.sentence).toContain('full 180° turn')
})
