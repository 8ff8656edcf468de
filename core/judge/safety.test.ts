import { describe, expect, it } from 'vitest'
import { athlete, exposure, gate, pain, run, stateAt, usual } from '../../tests/support/verdict-fixture'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Closure } from '../vocabulary/care'
import { walkTogether } from './walk-together'
import type { Exposure, LadderState, PainReport, VerdictInput } from './types'

// What a verdict says of the rulebook's findings: in which words, and what it moves. Days as people say them.

const sprint: Partial<Exposure> = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } }
const starts = (more: Partial<VerdictInput>, state: Partial<LadderState> = {}) =>
	run('acceleration', stateAt('acceleration', 'three-point-10', state), sprint, sprint, more)
const said = (...pains: Partial<PainReport>[]) => starts({ pains: pains.map(pain) })
const closed = (...closures: Closure[]) => starts({ closures })
const lineOf = (judged: ReturnType<typeof starts>, rule: string) => judged.trace.find((line) => line.rule === rule)!
const thigh = (grade: Closure['grade'], since: string, more: Partial<Closure> = {}): Closure => ({
	region: 'back-thigh',
	side: 'left',
	grade,
	since,
	...more,
})

describe('what was found of pain', () => {
	it.each([
		[[], 'none reported'],
		[[{ score: 2 }], 'left back thigh 2 of 10, noted'],
		[[{ score: 1 }], 'left back thigh 1 of 10, noted'],
		[[{ score: 0 }], 'none reported'],
		[[{ score: 2, region: 'wrist' }], 'none reported'],
		[[{ score: 2, sessionId: 's1', day: '2026-03-09' }], 'none reported'],
		[[{ score: 3 }], 'left back thigh 3 of 10'],
		[[{ score: 4 }], 'left back thigh 4 of 10'],
		[[{ score: 6, side: 'both' }], 'back thigh 6 of 10'],
		[[{ score: 4, sessionId: 's1', day: '2026-03-09' }], 'left back thigh to be spared since Mon 9 Mar'],
		[[{ score: 8, sessionId: 's1', day: '2026-03-09' }], 'left back thigh closed since Mon 9 Mar'],
	] as [Partial<PainReport>[], string][])('%j: %s', (pains, found) => {
		expect(lineOf(said(...pains), 'S1').found).toBe(found)
	})
	it('a pain of today is named before a closure of before, of the same region alone', () => {
		const closures = [thigh('closed', '2026-03-01')]
		const today = starts({ closures, pains: [pain({ score: 2 }), pain({ score: 3, region: 'wrist' })] })
		expect(lineOf(today, 'S1').found).toBe('left back thigh 2 of 10')
		const other = starts({ closures, pains: [pain({ score: 3, region: 'wrist' })] })
		expect(lineOf(other, 'S1').found).toBe('left back thigh closed since Sun 1 Mar')
	})
})

describe('why it is closed', () => {
	it.each([
		[[{ score: 5 }], 'left back thigh pain 5 of 10.'],
		[[{ score: 6 }, { score: 7 }], 'left back thigh pain 7 of 10.'],
		[[{ score: 7 }, { score: 6 }], 'left back thigh pain 7 of 10.'],
		[[{ score: 9 }, { score: 2, redFlag: true }], 'left back thigh: sharp pain, giving way, locking or numbness.'],
		[
			[{ score: 3 }, { score: 3, sessionId: 's1', day: '2026-03-09' }],
			'left back thigh pain of 3 or more twice in 14 days.',
		],
		[[{ score: 6 }, { score: 8, side: 'right' }], 'right back thigh pain 8 of 10.'],
	] as [Partial<PainReport>[], string][])('%j: %s', (pains, expected) => {
		const { verdict, sentence } = said(...pains)
		expect(verdict).toBe('stop')
		expect(sentence.endsWith(expected), sentence).toBe(true)
	})
	it('closed before: since when, whatever is said today', () => {
		const since = 'Closed until cleared: left back thigh, since Sun 1 Mar.'
		expect(closed(thigh('closed', '2026-03-01')).sentence).toBe(since)
		expect(starts({ closures: [thigh('closed', '2026-03-01')], pains: [pain({ score: 2 })] }).sentence).toBe(since)
	})
	it('everything: with the advice to get help, by its reason or since when', () => {
		expect(said({ region: 'neck-head', side: 'both', score: 7 }).sentence).toBe(
			'Stop, closed until cleared: a reported blow or strong pain at the head or neck. Get professional help now.',
		)
		expect(closed({ region: 'everything', grade: 'everything', since: '2026-03-01' }).sentence).toBe(
			'Closed until cleared: everything, since Sun 1 Mar. Get professional help now.',
		)
		// Said by another way than a pain in the session.
		expect(closed({ region: 'everything', grade: 'everything', since: '2026-03-12' }).sentence).toContain(
			'Closed until cleared: everything',
		)
		const both = closed(thigh('closed', '2026-03-01'), {
			region: 'everything',
			grade: 'everything',
			since: '2026-03-10',
		})
		expect(both.sentence).toContain('everything, since Tue 10 Mar')
	})
	it('closed outranks spared, whichever is listed first', () => {
		const calf: Closure = { region: 'calf', grade: 'closed', since: '2026-03-10' }
		expect(closed(thigh('spare', '2026-03-10'), calf).verdict).toBe('stop')
		expect(closed(calf, thigh('spare', '2026-03-10')).verdict).toBe('stop')
	})
})

describe('what stands in', () => {
	it('names it, and where the ladder goes on', () => {
		const { instead, sentence } = said({ score: 3 })
		expect(instead).toBe('a-run')
		expect(sentence).toBe(
			'Swap for A-run: left back thigh 3 of 10. Afterwards it goes on one rung lower, at standing start 10 m, once the easy form was asked about and read 0 or 1.',
		)
	})
	it('again: it stands in', () => {
		expect(closed(thigh('spare', '2026-03-05')).sentence).toBe(
			'A-run stands in: left back thigh to be spared since Thu 5 Mar. It ends once the easy form was asked about and read 0 or 1.',
		)
	})
	it('of two, each is named, and one that is new is enough to go lower', () => {
		const two = closed(thigh('spare', '2026-03-05'), { region: 'calf', grade: 'spare', since: '2026-03-12' })
		expect(two.sentence).toContain(', with calf or Achilles.')
		expect(two.next.rungId).toBe('standing-10')
		const old = closed(thigh('spare', '2026-03-05'), { region: 'calf', grade: 'spare', since: '2026-03-06' })
		expect(old.next.rungId).toBe('three-point-10')
	})
	it('on the first rung it goes on there, at 60 %', () => {
		const first = run(
			'shock',
			stateAt('shock', 'landing-15'),
			null,
			{},
			{ pains: [pain({ region: 'knee', score: 3 })] },
		)
		expect(first.sentence).toContain('Afterwards it goes on at drop landing 15 cm')
		expect(first.next).toMatchObject({ rungId: 'landing-15', dose: { sets: 1, reps: 5 }, passed: false })
	})
	it('on the way back what is to be spared is for its step to answer; what is closed is closed', () => {
		const reentry = { pathId: 're-entry-run', rungId: 'run-60', since: '2026-03-05' }
		const back = (grade: Closure['grade']) => starts({ closures: [thigh(grade, '2026-03-10')] }, { reentry })
		expect(back('spare').decidedBy).toBe('RE')
		expect(back('closed')).toMatchObject({ verdict: 'stop', decidedBy: 'S1' })
	})
	it('closed by hand is said by its own rule, with who did it; pain beside it by pain', () => {
		const restrictions = [{ region: 'back-thigh' as const, pattern: null, since: '2026-03-10', setBy: 'H. Brekke' }]
		const hand = starts({ restrictions, closures: [thigh('closed', '2026-03-10', { side: undefined })] })
		expect(hand).toMatchObject({ verdict: 'swap', decidedBy: 'S2' })
		expect(hand.sentence).toMatch(/^\S.* stands in: back thigh closed by hand since Tue 10 Mar by H\. Brekke\.$/)
		expect(STARTER_LIBRARY.drills[hand.instead!]!.regions['back-thigh'] ?? 0).toBe(0)
		expect(starts({ restrictions, closures: [thigh('closed', '2026-03-09')] }).decidedBy).toBe('S1')
		const knee = [{ region: 'knee' as const, pattern: null, since: '2026-03-10', setBy: 'H. Brekke' }]
		expect(starts({ restrictions: knee, closures: [thigh('closed', '2026-03-10')] }).decidedBy).toBe('S1')
	})
})

describe('worry, age and illness', () => {
	it('a worry waits with what stands in', () => {
		const worries = [{ drillId: 'three-point-start', region: 'back-thigh' as const, since: '2026-03-01' }]
		const worried = starts({ worries })
		expect(worried).toMatchObject({ verdict: 'swap', decidedBy: 'S9', tier: 'caution' })
		expect(worried.instead).not.toBeNull()
		expect(worried.sentence).toMatch(
			/^Swap for .*: a worry about the back thigh since Sun 1 Mar in this movement\. Three-point start 10 m waits until it is settled\.$/,
		)
		expect(worried.next.rungId).toBe('three-point-10')
	})
	it('who is too young for the first rung passes nothing', () => {
		const young = run(
			'assisted',
			stateAt('assisted', 'assist-5', { passed: true }),
			null,
			{},
			{ athlete: athlete({ ageYears: 15 }) },
		)
		expect(young).toMatchObject({
			verdict: 'ease',
			decidedBy: 'S4',
			tier: 'block',
			next: { rungId: 'assist-5', passed: false },
		})
		expect(young.sentence).toContain('is not for this athlete (15 years old')
	})
	it('illness says so where the work is easy', () => {
		const easy = run(
			'skip-rhythm',
			stateAt('skip-rhythm', 'relaxed-skip'),
			null,
			{},
			{ athlete: athlete({ unwell: true }) },
		)
		expect(lineOf(easy, 'S3')).toMatchObject({ fired: false, found: 'unwell, and this is easy work' })
		expect(lineOf(starts({}), 'S3')).toMatchObject({ fired: false, found: 'well' })
	})
	it('what did not fire says so', () => {
		for (const rule of ['S1', 'S2', 'S3', 'S4', 'S9']) expect(lineOf(starts({}), rule).fired, rule).toBe(false)
	})
})

it('a walk on a path nobody holds, or off it, leads nobody', () => {
	const { ladders } = STARTER_LIBRARY
	const on = (pathId: string, rungId: string): LadderState =>
		stateAt('acceleration', 'three-point-20', { reentry: { pathId, rungId, since: '2026-03-01' } })
	const plain = stateAt('acceleration', 'three-point-20')
	const other = stateAt('top-speed', 'fly-10-20', {
		reentry: { pathId: 're-entry-run', rungId: 'run-60', since: '2026-03-01' },
	})
	const walk = (before: LadderState, after: LadderState) =>
		walkTogether([other], [{ before, after }], { ladders }, '2026-03-12')
	expect(walk(plain, plain)).toEqual([])
	expect(walk(on('gone', 'x'), on('gone', 'y'))).toEqual([])
	expect(walk(on('re-entry-run', 'run-60'), on('re-entry-land', 'pogo'))).toEqual([])
	expect(walk(on('re-entry-run', 'run-60'), on('re-entry-run', 'run-60'))).toEqual([])
})

describe('whose side, which session', () => {
	const sides = (closed: Closure['side'], ...pains: Partial<PainReport>[]) =>
		starts({
			closures: [{ region: 'back-thigh', ...(closed ? { side: closed } : {}), grade: 'closed', since: '2026-03-12' }],
			pains: pains.map(pain),
		}).sentence
	it.each([
		['left', [{ side: 'right', score: 9 }], 'left back thigh, since Thu 12 Mar'],
		['left', [{ side: 'right', score: 9 }, { score: 6 }], 'left back thigh pain 6 of 10'],
		['left', [{ side: 'both', score: 6 }], 'back thigh pain 6 of 10'],
		['both', [{ side: 'right', score: 6 }], 'right back thigh pain 6 of 10'],
		[undefined, [{ side: 'right', score: 6 }], 'right back thigh pain 6 of 10'],
		['left', [{ region: 'knee', score: 9 }], 'left back thigh, since Thu 12 Mar'],
		['left', [{ score: 9, sessionId: 's1', day: '2026-03-09' }], 'left back thigh, since Thu 12 Mar'],
		['left', [{ score: 9, sessionId: 's1', day: '2026-03-09' }, { score: 5 }], 'left back thigh pain 5 of 10'],
	] as [Closure['side'], Partial<PainReport>[], string][])('closed %s, said %j', (closed, pains, words) => {
		expect(sides(closed, ...pains)).toContain(words)
	})
	it('everything closed, said in another session or as a small pain of the head: since when', () => {
		const all: Closure = { region: 'everything', grade: 'everything', since: '2026-03-12' }
		const head = { region: 'neck-head' as const, side: 'both' as const, score: 8 }
		const of = (...pains: Partial<PainReport>[]) => starts({ closures: [all], pains: pains.map(pain) }).sentence
		expect(of(head)).toContain('a reported blow or strong pain')
		expect(of({ ...head, sessionId: 's1', day: '2026-03-09' })).toContain('everything, since Thu 12 Mar')
		expect(of({ ...head, score: 4 })).toContain('everything, since Thu 12 Mar')
	})
})

describe('back on the ladder', () => {
	it('a lower rung begins anew: its dose, nothing passed, no eased dose, no stay; what lies below is passed', () => {
		const down = run(
			'shock',
			stateAt('shock', 'depth-15', {
				passed: true,
				passedSince: '2026-03-01',
				easedBy: 'drop-off',
				stay: true,
				ballKg: 2,
			}),
			null,
			{},
			{ athlete: athlete({ ageYears: 13 }) },
		)
		expect(down.next).toMatchObject({
			rungId: 'pause-30',
			dose: { sets: 3, reps: 3 },
			passed: false,
			easedBy: null,
			stay: false,
			rungSince: '2026-03-16',
		})
	})
	it('while on a step, a region closed that the rung alone loads closes it; one spared does not', () => {
		// The run at 60 % and the start load the back thigh both; nothing of either loads a wrist.
		const reentry = { pathId: 're-entry-run', rungId: 'walk', since: '2026-03-05' }
		const on = (grade: Closure['grade'], region: Closure['region']) =>
			starts({ closures: [{ region, grade, since: '2026-03-10' }] }, { reentry }).decidedBy
		expect(on('closed', 'back-thigh')).toBe('S1')
		expect(on('spare', 'back-thigh')).toBe('RE')
		expect(on('closed', 'wrist')).toBe('RE')
	})
	it('illness on a step or a rung, with another drill or nothing', () => {
		const ill = starts({ athlete: athlete({ unwell: true }) })
		expect(ill).toMatchObject({ verdict: 'hold', decidedBy: 'S3', next: { rungId: 'three-point-10' } })
	})
	it('what stands in of the same drill is named as its rung', () => {
		const low = run(
			'shock',
			stateAt('shock', 'landing-30'),
			null,
			{},
			{ closures: [{ region: 'knee', side: 'left', grade: 'spare', since: '2026-03-12' }] },
		)
		expect(low.verdict === 'swap' || low.verdict === 'stop').toBe(true)
	})
})

describe('what is folded from the pains alone, where nothing was folded before', () => {
	const small = (sessionId: string, day: string) => pain({ sessionId, day, score: 2 })
	const folded = (pains: PainReport[], more: Partial<VerdictInput> = {}) => starts({ pains, ...more }).verdict
	const three = [small('s0', '2026-03-05'), small('s1', '2026-03-09'), small('s2', '2026-03-12')]
	it('in the third of three known sessions running 2 counts as 3', () => {
		expect(folded(three)).toBe('swap')
		expect(folded(three.slice(1))).toBe('advance')
	})
	it('a session of which nothing is known had no pain: nothing runs on through it', () => {
		expect(folded(three, { lastSessions: ['sx', 's1', 's2'] })).not.toBe('swap')
	})
	it('a session without pain between two breaks the run', () => {
		const exposures = ['s0', 's1', 's2'].map((id, index) =>
			exposure(
				id,
				['2026-03-05', '2026-03-09', '2026-03-12'][index]!,
				stateAt('acceleration', 'three-point-10'),
				sprint,
			),
		)
		expect(folded([three[0]!, three[2]!], { exposures })).not.toBe('swap')
		expect(folded(three, { exposures })).toBe('swap')
	})
	it('of an input of before, what was closed on the ladder closes', () => {
		const old = starts({}, { closed: { region: 'knee', since: '2026-03-01' } })
		expect(old).toMatchObject({ verdict: 'stop', decidedBy: 'S1' })
		expect(starts({}, { closed: null }).verdict).toBe('advance')
	})
})
