import { describe, expect, it } from 'vitest'
import { judge } from './judge'
import {
	documents,
	exposure,
	gate,
	good,
	input,
	mat,
	next as nextSession,
	noRamp,
	athlete,
	pain,
	run,
	stateAt,
	usual,
} from '../../tests/support/verdict-fixture'
import type { Exposure, LadderState } from './types'

const sprint20 = stateAt('acceleration', 'three-point-20')
const steady: Partial<Exposure> = { marks: gate(3.1, 3.08, 3.09, 3.1, 3.09, 3.1), usual: { gate: usual(3.06) } }

describe('P1, pass', () => {
	it('holds after one clear pass and asks for one more like it', () => {
		const { verdict, decidedBy, sentence, next } = run(
			'acceleration',
			stateAt('acceleration', 'three-point-10'),
			null,
			{ marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } },
		)
		expect([verdict, decidedBy]).toEqual(['hold', 'P3'])
		expect(sentence).toContain('One more like it')
		expect(next.rungId).toBe('three-point-10')
	})

	it('advances after two passes running, to the next rung at its own dose', () => {
		const at = stateAt('acceleration', 'three-point-10')
		const passed = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } }
		const { verdict, next, sentence } = run('acceleration', at, passed, passed)
		expect(verdict).toBe('advance')
		expect(next).toMatchObject({ rungId: 'three-point-20', dose: { sets: 1, reps: 6 } })
		expect(sentence).toContain('1.90 s is 1.2 % over the usual 1.88 s, within what a day moves it')
	})

	it('gives the dose back first when it was below the rung’s', () => {
		const at = stateAt('acceleration', 'three-point-20', { dose: { sets: 1, reps: 4 }, easedBy: 'drop-off' })
		const { verdict, next } = run(
			'acceleration',
			at,
			{ ...steady, marks: gate(3.1, 3.08, 3.09, 3.1) },
			{ ...steady, marks: gate(3.1, 3.08, 3.09, 3.1) },
		)
		expect(verdict).toBe('advance')
		expect(next).toMatchObject({ rungId: 'three-point-20', dose: { sets: 1, reps: 6 }, easedBy: null })
	})

	it('waits at a gate, and need not be earned again when it opens', () => {
		const waiting = run('acceleration', sprint20, steady, steady)
		expect(waiting).toMatchObject({
			verdict: 'hold',
			decidedBy: 'S8',
			next: { rungId: 'three-point-20', passed: true },
		})
		expect(waiting.sentence).toContain('opens at level 3')
		const opened = run('acceleration', waiting.next, null, steady, { athlete: athlete({ level: 3 }) })
		expect(opened).toMatchObject({ verdict: 'advance', next: { rungId: 'three-point-30', passed: false } })
	})

	it('takes a set ended for drop-off as done', () => {
		const ended = { ...steady, marks: gate(3.1, 3.08, 3.09), repsDone: 3, endReason: 'drop-off' as const }
		expect(run('acceleration', sprint20, ended, ended).next.passed).toBe(true)
		expect(run('acceleration', sprint20, ended, { ...ended, endReason: 'refusal' }).next.passed).toBe(false)
	})

	it('passes a box by contact time under the ceiling of the level', () => {
		const at = stateAt('shock', 'depth-15')
		const short = { marks: mat(0.145, 0.14, 0.145, 0.14, 0.145, 0.14, 0.145, 0.14, 0.14, 0.145), quality: good(10) }
		const absorbed = { standings: { shock: ['landing-15', 'landing-30', 'pause-15', 'pause-30'] } }
		expect(run('shock', at, short, short, absorbed)).toMatchObject({ verdict: 'advance', next: { rungId: 'depth-30' } })
		const longer = { marks: mat(0.21, 0.2, 0.21, 0.2, 0.21, 0.2, 0.21, 0.2, 0.2, 0.21), quality: good(10) }
		expect(run('shock', at, longer, longer).sentence).toContain(
			'passed, but its contact of 205 ms is over the sprint goal',
		)
		// Level 3 asks for 200 ms: the same contacts no longer pass.
		expect(run('shock', at, longer, longer, { athlete: athlete({ level: 3 }) }).sentence).not.toContain('passed')
	})

	it('does not take a reduced session for evidence', () => {
		const reduced = { ...steady, planned: { sets: 1, reps: 3 }, repsDone: 3, marks: gate(3.08, 3.09, 3.08) }
		const { verdict, sentence } = run('acceleration', sprint20, steady, reduced)
		expect(verdict).toBe('hold')
		expect(sentence).toContain('says nothing about it')
	})
})

describe('P2, miss, and P3, unclear', () => {
	const by = (poor: number, ok: number) => ({ quality: { good: ok, notYet: 0, poor, setTaps: 1 } })
	const at = stateAt('cut', 'cut-90')

	it('holds after one miss, eases one rung after two running', () => {
		expect(run('cut', at, by(0, 9), by(4, 5))).toMatchObject({ verdict: 'hold', decidedBy: 'P2' })
		expect(run('cut', at, by(4, 5), by(4, 5))).toMatchObject({
			verdict: 'ease',
			decidedBy: 'P2',
			next: { rungId: 'sharp-wide' },
		})
	})

	it('takes a third of poor reps as not yet a miss', () => {
		expect(run('cut', at, by(3, 6), by(3, 6)).decidedBy).not.toBe('P2')
	})

	it('eases the dose at the bottom of a ladder', () => {
		expect(run('cut', stateAt('cut', 'wide'), by(4, 4), by(4, 4)).next).toMatchObject({
			rungId: 'wide',
			dose: { sets: 1, reps: 4 },
		})
	})

	it.each([
		['nothing was logged', 'cut', at, { repsDone: 0 }, 'nothing was logged'],
		['nobody judged', 'cut', at, {}, '3 more judged reps'],
		['two judged reps', 'cut', at, { quality: { good: 2, notYet: 0, poor: 0, setTaps: 0 } }, '1 more judged rep'],
		['no time taken', 'acceleration', sprint20, {}, 'no|gate times would settle it'],
		['a first time', 'acceleration', sprint20, { marks: gate(3.1, 3.1) }, 'one more session measured this way'],
		[
			'half the reps',
			'acceleration',
			sprint20,
			{ ...steady, repsDone: 3, marks: gate(3.1, 3.08, 3.09) },
			'3 of 6 reps',
		],
	])('says what is missing: %s', (_name, ladderId, state, now, words) => {
		const { verdict, decidedBy, sentence } = run(
			ladderId as string,
			state as LadderState,
			null,
			now as Partial<Exposure>,
		)
		expect([verdict, decidedBy]).toEqual(['hold', 'P3'])
		expect(sentence).toMatch(new RegExp(`Not enough to say: .*(${words as string})`))
	})

	it('judges mixed timing by the majority method and says so', () => {
		const mixed = {
			...steady,
			marks: [...gate(3.1, 3.08, 3.09, 3.1), { kind: 'sprint' as const, value: 2.6, method: 'stopwatch' as const }],
		}
		const { trace } = run('acceleration', sprint20, null, mixed)
		expect(trace.find((line) => line.rule === 'P2')?.found).toContain('gate only, 1 left out')
	})
})

describe('P4, drop-off', () => {
	const falls = { marks: gate(3.06, 3.05, 3.07, 3.08, 3.18, 3.22), usual: { gate: usual(3.02) } }

	it('eases to the reps before the fall after twice running', () => {
		const { verdict, decidedBy, next, sentence } = run('acceleration', sprint20, falls, falls)
		expect([verdict, decidedBy]).toEqual(['ease', 'P4'])
		expect(next).toMatchObject({ dose: { sets: 1, reps: 4 }, easedBy: 'drop-off' })
		expect(sentence).toBe('Ease from 6 to 4 reps: reps 5 and 6 were 4.3 % and 5.6 % off the best, twice running.')
	})

	it('looks past a session the athlete missed', () => {
		const one = input('acceleration', sprint20, falls, falls)
		const missed = exposure('s15', '2026-03-10', sprint20, { repsDone: 0 })
		const { verdict, decidedBy } = judge(
			{ ...one, exposures: [one.exposures[0]!, missed, one.exposures[1]!] },
			documents('acceleration'),
		)
		expect([verdict, decidedBy]).toEqual(['ease', 'P4'])
	})

	it('changes nothing after one', () => {
		expect(run('acceleration', sprint20, steady, falls).decidedBy).not.toBe('P4')
	})

	it('never goes under half the rung’s dose', () => {
		const early = {
			marks: gate(3.05, 3.2, 3.22, 3.21),
			usual: { gate: usual(3.15) },
			repsDone: 4,
			endReason: 'drop-off' as const,
		}
		expect(run('acceleration', sprint20, early, early).next.dose).toEqual({ sets: 1, reps: 3 })
	})

	it('gives one rep back for each exposure without a fall', () => {
		const at = stateAt('acceleration', 'three-point-20', { dose: { sets: 1, reps: 4 }, easedBy: 'drop-off' })
		const { verdict, next, sentence } = run('acceleration', at, null, { ...steady, marks: gate(3.1, 3.08, 3.09, 3.1) })
		expect(verdict).toBe('hold')
		expect(next).toMatchObject({ dose: { sets: 1, reps: 5 }, easedBy: 'drop-off' })
		expect(sentence).toContain('one rep back')
	})
})

const NAGGING = [
	['s0', '2026-03-05'],
	['s1', '2026-03-09'],
	['s2', '2026-03-12'],
].map(([sessionId, day]) => pain({ sessionId: sessionId!, day: day!, score: 2 }))

describe('S1, pain, and S2, what is closed', () => {
	it('notes 1 and 2, swaps at 3 and 4, closes at 5', () => {
		expect(run('acceleration', sprint20, null, steady, { pains: [pain({ score: 2 })] }).verdict).toBe('hold')
		const swapped = run('acceleration', sprint20, null, steady, { pains: [pain({ score: 4 })] })
		expect(swapped).toMatchObject({
			verdict: 'swap',
			decidedBy: 'S1',
			next: { rungId: 'three-point-10', substitute: null },
		})
		const closed = run('acceleration', sprint20, null, steady, { pains: [pain({ score: 5 })] })
		expect(closed).toMatchObject({
			verdict: 'stop',
			tier: 'block',
			next: { rungId: 'three-point-20' },
		})
	})

	it('closes on a red flag whatever the number, and on 3 or more twice in 14 days', () => {
		expect(run('acceleration', sprint20, null, steady, { pains: [pain({ score: 1, redFlag: true })] }).verdict).toBe(
			'stop',
		)
		const earlier = (day: string) => pain({ sessionId: 's0', day, score: 3 })
		expect(run('acceleration', sprint20, null, steady, { pains: [earlier('2026-03-05'), pain({})] }).verdict).toBe(
			'stop',
		)
		expect(run('acceleration', sprint20, null, steady, { pains: [earlier('2026-02-20'), pain({})] }).verdict).toBe(
			'swap',
		)
	})

	it('takes 2 in the third session running for 3', () => {
		expect(run('acceleration', sprint20, null, steady, { pains: NAGGING }).verdict).toBe('swap')
		expect(run('acceleration', sprint20, null, steady, { pains: NAGGING.slice(1) }).verdict).toBe('hold')
	})

	it('leaves a ladder alone that does not load the region, but closes all for the head', () => {
		expect(run('acceleration', sprint20, null, steady, { pains: [pain({ region: 'wrist', score: 6 })] }).verdict).toBe(
			'hold',
		)
		const head = run('acceleration', sprint20, null, steady, {
			pains: [pain({ region: 'neck-head', score: 2, redFlag: true })],
		})
		expect(head.verdict).toBe('stop')
		expect(head.sentence).toContain('professional help')
	})

	it('keeps what is closed closed, whatever the marks say', () => {
		const closures = [{ region: 'back-thigh' as const, grade: 'closed' as const, since: '2026-03-01' }]
		expect(run('acceleration', sprint20, steady, steady, { closures })).toMatchObject({
			verdict: 'stop',
			decidedBy: 'S1',
			tier: 'block',
		})
	})
})

describe('S7, ramp', () => {
	const at = stateAt('acceleration', 'three-point-10')
	const passed = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } }
	const starts = (...days: [string, number][]) => ({
		...noRamp,
		maximalStarts: days.map(([day, value]) => ({ day, value, unloading: false })),
	})

	it('eases to what the week has room for', () => {
		// Weeks of 12, floor 16 at level 2, limit 16; 12 done in the rolling week leave room for 4.
		const ramp = starts(['2026-03-02', 12], ['2026-03-11', 12])
		const { verdict, decidedBy, tier, next, sentence } = run('acceleration', at, null, passed, {
			ramp,
			next: nextSession({ day: '2026-03-14' }),
		})
		expect([verdict, decidedBy, tier]).toEqual(['ease', 'S7', 'caution'])
		expect(next).toMatchObject({ dose: { sets: 1, reps: 4 }, easedBy: 'ramp' })
		expect(sentence).toBe('Ease from 1×6 to 1×4: the week has 12 of 16 maximal starts.')
	})

	it('asks for the full dose again when the week has room', () => {
		const cut = stateAt('acceleration', 'three-point-10', { dose: { sets: 1, reps: 4 }, easedBy: 'ramp' })
		expect(run('acceleration', cut, null, { ...passed, planned: { sets: 1, reps: 4 } }).next).toMatchObject({
			dose: { sets: 1, reps: 6 },
			easedBy: null,
		})
	})

	it('keeps a passed rung waiting rather than losing the pass', () => {
		const landing = stateAt('shock', 'pause-30')
		const ok = { quality: good(9) }
		const full = { ...noRamp, hardContacts: [{ day: '2026-03-11', value: 39, unloading: false }] }
		const held = run('shock', landing, ok, ok, { ramp: full, next: nextSession({ day: '2026-03-14' }) })
		expect(held).toMatchObject({ verdict: 'hold', decidedBy: 'S7', next: { rungId: 'pause-30', passed: true } })
	})
})

it('says so where nothing stands in: the first rung, and no alternative of its drill', () => {
	const throwing = documents('throw')
	const [first] = throwing.ladder.rungs
	const bare = { ...throwing.drills[first!.drillId]!, alternatives: {}, regions: { shoulder: 3 as const } }
	const judged = judge(
		input(
			'throw',
			stateAt('throw', first!.id),
			null,
			{ quality: good(9) },
			{ pains: [pain({ region: 'shoulder', score: 3 })] },
		),
		{ ...throwing, drills: { ...throwing.drills, [bare.id]: bare } },
	)
	expect([judged.verdict, judged.decidedBy, judged.instead]).toEqual(['stop', 'S1', null])
	expect(judged.sentence).toContain('no drill here spares it')
})

it('refuses documents other than those the input cites', () => {
	expect(() => judge(input('cut', stateAt('cut', 'wide'), null, null), documents('shock'))).toThrow(
		'ladder: cut version 4 is cited',
	)
})

describe('S4, a rung that is not for this athlete', () => {
	const good5 = { quality: good(10), repsDone: 10, marks: mat(0.18, 0.18, 0.18) }
	const at15 = stateAt('shock', 'depth-15')
	it.each([
		[13, 70, 2, 'pause-30'],
		[15, 70, 3, 'pause-30'],
		[null, 70, 3, 'pause-30'],
		[25, 70, 1, 'pause-30'],
	] as const)('%s years, %s kg, level %i: never one more like it', (ageYears, massKg, level, rungId) => {
		const verdict = run('shock', at15, good5, good5, { athlete: athlete({ ageYears, massKg, level }) })
		expect(verdict).toMatchObject({ verdict: 'ease', decidedBy: 'S4', tier: 'block', next: { rungId } })
		expect(verdict.sentence).toContain('Down to pause jump 30 cm')
	})
	it('at 16 it is', () => {
		expect(run('shock', at15, good5, good5, { athlete: athlete({ ageYears: 16 }) }).decidedBy).not.toBe('S4')
	})
	it('a heavy athlete comes down from 60 cm', () => {
		const verdict = run(
			'shock',
			stateAt('shock', 'pause-60'),
			null,
			{ quality: good(9) },
			{ athlete: athlete({ massKg: 104, level: 3 }) },
		)
		expect(verdict).toMatchObject({ decidedBy: 'S4', next: { rungId: 'depth-45' } })
	})
})

describe('the order of reasons', () => {
	it('an aid that cost comfort is the reason, before the slow time it caused', () => {
		const at = stateAt('assisted', 'assist-10')
		const slow = { marks: gate(2.2, 2.2, 2.2), usual: { gate: usual(1.9) }, comfort: { worst: 4, braking: true } }
		expect(run('assisted', at, null, slow, { athlete: athlete({ level: 3 }) }).decidedBy).toBe('P10')
	})
	it('twice running is on two days: two sessions of one day are one time', () => {
		const at = stateAt('cut', 'wide')
		const poor = { quality: { good: 0, notYet: 0, poor: 8, setTaps: 0 } }
		expect(run('cut', at, poor, poor).verdict).toBe('ease')
		expect(run('cut', at, { ...poor, day: '2026-03-12' }, poor).verdict).toBe('hold')
	})
	it('says which kind of rung stood in, and nothing that cannot be done', () => {
		const at = stateAt('acceleration', 'three-point-20')
		const say = (rungId: string) => run('acceleration', at, null, { rungId, onRung: false }).sentence
		expect(say('three-point-10')).toContain('a lower rung stood in')
		expect(say('three-point-30')).toContain('a higher rung stood in')
		const two = stateAt('cut', 'wide', { dose: { sets: 1, reps: 2 } })
		expect(run('cut', two, null, { planned: { sets: 1, reps: 2 }, repsDone: 2 }).sentence).toContain(
			'one tap for a set would settle it',
		)
	})
})
