import { describe, expect, it } from 'vitest'
import { QUALITY_FIRST } from '../library/schools'
import type { School } from '../vocabulary/school'
import type { Closure } from '../vocabulary/care'
import {
	athlete,
	exposure,
	gate,
	good,
	mat,
	next,
	noRamp,
	pain,
	run,
	runIn,
	stateAt,
	usual,
} from '../../tests/support/verdict-fixture'
import type { RuleId } from '../rules/rule'
import type { Exposure, Judgement, LadderState, VerdictInput } from './types'

// A verdict carries every rule that was looked at: what was found, against what limit, whether it fired; and the state
// it leads to, whole. Thursday 12 March, level 2, next session Monday 16 March.

const ten: Partial<Exposure> = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } }
const slow: Partial<Exposure> = { marks: gate(2.1, 2.11, 2.1, 2.12, 2.1, 2.11), usual: { gate: usual(1.88) } }
const eye: Partial<Exposure> = { quality: good(9) }
const start = (change: Partial<LadderState> = {}) => stateAt('acceleration', 'three-point-10', change)
const passes = (more: Partial<VerdictInput> = {}, state: Partial<LadderState> = {}) =>
	run('acceleration', start(state), ten, ten, more)
const calf: Closure = { region: 'calf', side: 'left', grade: 'spare', since: '2026-03-05' }
const worked = (day: string, startTime = '17:30'): Partial<VerdictInput> => ({
	work: [{ day, startTime, families: ['sprint'], kinds: ['maximal-sprint'], outside: false }],
})
const starts = (...days: [string, number][]): VerdictInput['ramp'] => ({
	...noRamp,
	maximalStarts: days.map(([day, value]) => ({ day, value, unloading: false })),
})
const two: School = { ...QUALITY_FIRST, numbers: { ...QUALITY_FIRST.numbers, advancesPerSession: 2 } }

type Traced = [fired: boolean, found: string | RegExp, limit?: string]
function expectTrace(judged: Judgement, expected: Partial<Record<RuleId, Traced>>): void {
	for (const [rule, [fired, found, limit]] of Object.entries(expected)) {
		const line = judged.trace.find((one) => one.rule === rule)
		expect(line?.fired, `${rule} fired: ${line?.found}`).toBe(fired)
		if (typeof found === 'string') expect(line?.found, rule).toBe(found)
		else expect(line?.found, rule).toMatch(found)
		if (limit !== undefined) expect(line?.limit, rule).toBe(limit)
	}
}
type Row = [name: string, judged: () => Judgement, is: object, trace: Partial<Record<RuleId, Traced>>, says?: RegExp]
const rows = (...all: Row[]) =>
	it.each(all)('%s', (_name, judged, is, trace, says) => {
		const verdict = judged()
		expect(verdict).toMatchObject(is)
		expectTrace(verdict, trace)
		if (says) expect(verdict.sentence).toMatch(says)
	})

describe('the order of what fires', () => {
	const cut = (more: Partial<VerdictInput>) => run('cut', stateAt('cut', 'cut-90'), eye, eye, more)
	const ankle = { region: 'ankle' as const, pattern: null, since: '2026-03-10', setBy: 'H. Brekke' }
	rows(
		[
			'of two swaps the block decides, not the caution that is asked first',
			() => cut({ restrictions: [ankle], closures: [{ ...calf, region: 'knee' }] }),
			{ verdict: 'swap', decidedBy: 'S2', tier: 'block' },
			{ S1: [true, 'left knee to be spared since Thu 5 Mar'], S2: [true, /by H\. Brekke/] },
		],
		[
			'unwell holds, but a rung that is not for a boy of 13 comes down',
			() => run('shock', stateAt('shock', 'depth-15'), eye, eye, { athlete: athlete({ ageYears: 13, unwell: true }) }),
			{ verdict: 'ease', decidedBy: 'S4' },
			{ S3: [true, /unwell/], S4: [true, /13 years/] },
		],
		[
			'unwell is a block: it stands before two misses',
			() => run('acceleration', start(), slow, slow, { athlete: athlete({ unwell: true }) }),
			{ verdict: 'hold', decidedBy: 'S3', tier: 'block', next: { rungId: 'three-point-10' } },
			{ P2: [true, /and the time before too/] },
		],
		[
			'six weeks away is less than what stands in for a sore calf',
			() => run('acceleration', start(), null, { repsDone: 0 }, { ...worked('2026-01-29'), closures: [calf] }),
			{ verdict: 're-enter', decidedBy: 'P9', tier: 'performance' },
			{ S1: [true, /left calf/] },
		],
		[
			'what is closed is closed, however long away',
			() =>
				run(
					'acceleration',
					start(),
					null,
					{ repsDone: 0 },
					{ ...worked('2026-01-29'), closures: [{ ...calf, grade: 'closed' }] },
				),
			{ verdict: 'stop', decidedBy: 'S1', tier: 'block' },
			{ P9: [true, /46 days/] },
		],
		[
			'ten days away holds; a sore calf swaps: the swap is lower',
			() => run('acceleration', start(), null, { repsDone: 0 }, { ...worked('2026-03-05'), closures: [calf] }),
			{ verdict: 'swap', decidedBy: 'S1' },
			{ P9: [true, '11 days to 2026-03-16'] },
		],
	)
	it('what another rule waits for is said as that rule, once', () => {
		const waiting = run('acceleration', stateAt('acceleration', 'three-point-20'), steady, steady)
		const lines = waiting.trace.filter((line) => line.rule === 'S8')
		expect(lines).toEqual([
			{
				rule: 'S8',
				question: 'What the next rung waits for',
				found: waiting.sentence,
				limit: 'open',
				fired: true,
				firmness: waiting.firmness,
			},
		])
		for (const judged of [passes(), passes({ closures: [calf] })])
			expect(judged.trace.some((line) => line.question === 'What the next rung waits for')).toBe(false)
	})
	it('each rule is asked once, in the order of the page', () => {
		expect(passes().trace.map((line) => line.rule)).toEqual([
			...['S1', 'S2', 'S3', 'S4', 'S9', 'RE', 'P9', 'P10', 'P11', 'P2', 'P4', 'P7', 'P1', 'P3'],
			...['S11', 'P8', 'S7', 'S6'],
		])
	})
	it('what is stopped, swapped or on the way back is held to no week and no spacing', () => {
		const full = { ramp: starts(['2026-03-02', 12], ['2026-03-11', 99]), ...worked('2026-03-15'), next: next() }
		const reentry = { pathId: 're-entry-run', rungId: 'run-60', since: '2026-03-05' }
		for (const judged of [
			passes({ ...full, pains: [pain({ score: 6 })] }),
			passes({ ...full, pains: [pain({ score: 3 })] }),
			passes(full, { reentry }),
		]) {
			expect(judged.trace.some((line) => line.rule === 'S7')).toBe(false)
			expect(judged.cautions).toEqual([])
			expectTrace(judged, { S6: [false, 'not hard work'] })
		}
	})
})
const steady: Partial<Exposure> = { marks: gate(3.1, 3.08, 3.09, 3.1, 3.09, 3.1), usual: { gate: usual(3.06) } }

describe('an advance and what may hold it back', () => {
	rows(
		[
			'nothing does',
			() => passes(),
			{
				verdict: 'advance',
				decidedBy: 'P1',
				tier: 'performance',
				cautions: [],
				next: {
					rungId: 'three-point-20',
					dose: { sets: 1, reps: 6 },
					passed: false,
					passedSince: null,
					easedBy: null,
					rungSince: '2026-03-16',
					done: ['wall', 'a-run', 'standing-10', 'three-point-10'],
				},
			},
			{
				P1: [
					true,
					/^twice: chance of 1\.94 s or better (very likely, 9\d %|virtually certain, 99 % or more) \(mean 1\.90 s of 6\) · 100 % of the reps$/,
					'80 % of reps, 80 % likely, four in five good',
				],
				P2: [false, /^chance of 1\.94 s or better/, 'poor on more than a third, or 20 % likely and less'],
				P4: [false, /^largest 0\.5 %$/],
				P7: [false, 'not a priority ladder'],
				P9: [false, 'no earlier work known'],
				P10: [false, 'no pull'],
				P11: [false, 'no load carried'],
				RE: [false, 'not on a way back'],
				S11: [false, 'none', 'no new hard rung within 48 h'],
				P8: [false, 'nothing else new', '1 a session, one hard one in 72 h'],
				S7: [false, '0 done and 6 planned, maximal starts', '16 in the week'],
				S6: [false, 'far enough', '48 h, met from 44'],
			},
		],
		[
			'a match in ten days is only said',
			() => passes({ next: next({ hoursToMatch: 160.4 }) }),
			{ verdict: 'advance' },
			{ S11: [false, '160 h to the next'] },
		],
		[
			'another ladder has advanced today',
			() => passes({ advancesBefore: [{ ladderId: 'cut', hard: false }] }),
			{
				verdict: 'hold',
				decidedBy: 'P8',
				tier: 'performance',
				firmness: 'our setting',
				next: {
					rungId: 'three-point-10',
					passed: true,
					passedSince: '2026-03-12',
					done: ['wall', 'a-run', 'standing-10', 'three-point-10'],
				},
			},
			{ P8: [true, '1 advanced today'] },
			/^Passed, waiting: another ladder moves first, one a session\. It need not be earned again\.$/,
		],
		[
			'and this one has waited longer',
			() => passes({ advancesBefore: [{ ladderId: 'cut', hard: false }] }, { passedSince: '2026-03-01' }),
			{ next: { passedSince: '2026-03-01' } },
			{},
		],
		[
			'where a school allows two, a low one before is none against it',
			() => runIn(two, 'acceleration', start(), ten, ten, { advancesBefore: [{ ladderId: 'cut', hard: false }] }),
			{ verdict: 'advance' },
			{ P8: [false, '1 advanced today', '2 a session, one hard one in 72 h'] },
		],
		[
			'a hard one before is',
			() => runIn(two, 'acceleration', start(), ten, ten, { advancesBefore: [{ ladderId: 'cut', hard: true }] }),
			{ verdict: 'hold', decidedBy: 'P8' },
			{},
			/moves first, 2, one of them hard, a session/,
		],
		[
			'but not against a low rung',
			() =>
				runIn(two, 'skip-rhythm', stateAt('skip-rhythm', 'relaxed-skip'), eye, eye, {
					advancesBefore: [{ ladderId: 'cut', hard: true }],
				}),
			{ verdict: 'advance' },
			{ P8: [false, '1 advanced today'], S6: [false, 'not hard work'], S7: [false, /ramp watches/, '—'] },
		],
		[
			'of two before, one hard, the third waits even where it is low',
			() =>
				runIn(two, 'skip-rhythm', stateAt('skip-rhythm', 'relaxed-skip'), eye, eye, {
					advancesBefore: [
						{ ladderId: 'cut', hard: true },
						{ ladderId: 'shock', hard: false },
					],
				}),
			{ verdict: 'hold', decidedBy: 'P8' },
			{ P8: [true, '2 advanced today'] },
		],
		[
			'of two before, the hard one counts wherever it stands in the list',
			() => {
				const three: School = { ...two, numbers: { ...two.numbers, advancesPerSession: 3 } }
				return runIn(three, 'acceleration', start(), ten, ten, {
					advancesBefore: [
						{ ladderId: 'skip-rhythm', hard: false },
						{ ladderId: 'cut', hard: true },
					],
				})
			},
			{ verdict: 'hold', decidedBy: 'P8' },
			{},
		],
		[
			'another new hard thing within 72 h',
			() => passes({ newRungs: [{ ladderId: 'top-speed', rungId: 'fly-10-20', day: '2026-03-14', hard: true }] }),
			{ verdict: 'hold', decidedBy: 'P8' },
			{ P8: [true, '10 m fly, 20 m run-in is new on Sat 14 Mar'] },
			/^Passed, waiting: three-point start 20 m would be the second new hard thing within 72 h\./,
		],
		[
			'the dose back is no new thing',
			() =>
				run(
					'acceleration',
					start({ dose: { sets: 1, reps: 4 }, easedBy: 'drop-off' }),
					{ ...ten, planned: { sets: 1, reps: 4 }, repsDone: 4, marks: gate(1.9, 1.9, 1.9, 1.9) },
					{ ...ten, planned: { sets: 1, reps: 4 }, repsDone: 4, marks: gate(1.9, 1.9, 1.9, 1.9) },
					{ advancesBefore: [{ ladderId: 'cut', hard: true }], ...worked('2026-03-15') },
				),
			{ verdict: 'advance', decidedBy: 'P1', next: { rungId: 'three-point-10', dose: { sets: 1, reps: 6 } } },
			{ P8: [false, '1 advanced today'], S6: [true, '24 h after maximal sprinting'] },
			/^Back to the full 1×6 of three-point start 10 m: 1\.90 s is 1\.1 % over the usual 1\.88 s, within what a day moves it, twice running\.$/,
		],
	)
	it('a favour for one leg is kept while the advance waits', () => {
		const sided = (left: number, right: number): Exposure['marks'] =>
			[left, left + 0.001, right, right + 0.001].map((value, index) => ({
				kind: 'contact',
				value,
				method: 'mat',
				side: index < 2 ? 'left' : 'right',
			}))
		const at = stateAt('stiffness', 'single-leg-pogo')
		const marks: Partial<Exposure> = { marks: sided(0.15, 0.19), quality: good(9) }
		const level3 = { athlete: athlete({ level: 3 }) }
		const advancesBefore = [{ ladderId: 'cut', hard: true }]
		const free = run('stiffness', at, marks, marks, level3)
		const held = run('stiffness', at, marks, marks, { ...level3, advancesBefore })
		expect([free.verdict, held.verdict]).toEqual(['advance', 'hold'])
		for (const judged of [free, held]) {
			expect(judged.next.favour).toBe('right')
			expectTrace(judged, { LR: [true, /^right is behind by \d+\.\d %$/, 'beyond noise, same side twice, 10 %'] })
		}
		const once = run('stiffness', { ...at, favour: 'left' }, null, marks, level3)
		expect(once.next.favour).toBe('left')
		expectTrace(once, { LR: [false, /, once$/] })
		const even: Partial<Exposure> = { marks: sided(0.15, 0.15), quality: good(9) }
		expect(run('stiffness', { ...at, favour: 'left' }, even, even, level3).next.favour).toBeNull()
		expect(run('stiffness', at, eye, eye, { ...level3, advancesBefore }).next).not.toHaveProperty('favour')
	})
})

describe('spacing, start to start', () => {
	rows(
		[
			'43 h 59 min: the advance waits',
			() => passes({ ...worked('2026-03-14', '21:31'), next: next() }),
			{
				verdict: 'hold',
				decidedBy: 'S6',
				tier: 'caution',
				firmness: 'published',
				next: {
					rungId: 'three-point-10',
					passed: true,
					passedSince: '2026-03-12',
					done: ['wall', 'a-run', 'standing-10', 'three-point-10'],
				},
				cautions: [
					{ rule: 'S6', sentence: /^The next session comes 44 h after maximal sprinting; 48 h, met from 44 is asked/ },
				],
			},
			{ S6: [true, '44 h after maximal sprinting'] },
			/^Passed, waiting: the next session comes 44 h after maximal sprinting, 48 h are asked\./,
		],
		[
			'44 h: it does not',
			() => passes({ ...worked('2026-03-14', '21:30'), next: next() }),
			{ verdict: 'advance', cautions: [] },
			{ S6: [false, 'far enough'] },
		],
		[
			'known to come, it waits as well: a minute short of 44 h before it',
			() => passes({ ...worked('2026-03-18', '13:29'), next: next() }),
			{ verdict: 'hold', decidedBy: 'S6', next: { passed: true } },
			{ S6: [true, '44 h before maximal sprinting'] },
			/^Passed, waiting: the next session comes 44 h before maximal sprinting, 48 h are asked\./,
		],
		[
			'44 h before it: it does not',
			() => passes({ ...worked('2026-03-18', '13:30'), next: next() }),
			{ verdict: 'advance', cautions: [] },
			{ S6: [false, 'far enough'] },
		],
		[
			'what waited before waits since then',
			() => passes({ ...worked('2026-03-15') }, { passedSince: '2026-03-02', done: ['wall', 'a-run', 'standing-10'] }),
			{
				decidedBy: 'S6',
				next: { passedSince: '2026-03-02', done: ['wall', 'a-run', 'standing-10', 'three-point-10'] },
			},
			{},
		],
		[
			'one more like it is only told',
			() => run('acceleration', start(), null, ten, worked('2026-03-15')),
			{ verdict: 'hold', decidedBy: 'P3', tier: 'performance', cautions: [{ rule: 'S6' }] },
			{ S6: [true, '24 h after maximal sprinting'] },
		],
	)
})

describe('the week', () => {
	// Four weeks of 12 starts: the limit is the floor of level 2, 16; 10 done leave room for exactly 6.
	const done = (value: number) => ({
		ramp: starts(['2026-03-02', 12], ['2026-03-11', value]),
		next: next({ day: '2026-03-14' }),
	})
	rows(
		[
			'what fits exactly is written',
			() => passes(done(10)),
			{ verdict: 'advance', next: { rungId: 'three-point-20' } },
			{ S7: [false, '10 done and 6 planned, maximal starts', '16 in the week'] },
		],
		[
			'one more does not: the passed rung waits, and its own dose is cut',
			() => passes(done(11)),
			{
				verdict: 'ease',
				decidedBy: 'S7',
				tier: 'caution',
				firmness: 'our setting',
				next: {
					rungId: 'three-point-10',
					passed: true,
					passedSince: '2026-03-12',
					easedBy: 'ramp',
					dose: { sets: 1, reps: 5 },
					done: ['wall', 'a-run', 'standing-10', 'three-point-10'],
				},
			},
			{ S7: [true, '11 done and 6 planned, maximal starts', '16 in the week'] },
			/^Ease from 1×6 to 1×5: the week has 11 of 16 maximal starts\.$/,
		],
		[
			'a hold that does not fit is cut, and stays what it was',
			() => run('acceleration', start({ passedSince: '2026-03-01' }), null, ten, done(13)),
			{ verdict: 'ease', next: { dose: { sets: 1, reps: 3 }, passed: false, easedBy: 'ramp' } },
			{ S7: [true, '13 done and 6 planned, maximal starts'] },
		],
		[
			'cut for a fall and for the week: the fall is remembered',
			() =>
				run(
					'acceleration',
					start({ dose: { sets: 1, reps: 5 }, easedBy: 'drop-off' }),
					null,
					{ marks: slow.marks!, usual: { gate: usual(1.88) }, planned: { sets: 1, reps: 5 } },
					done(13),
				),
			{ verdict: 'ease', next: { easedBy: 'drop-off', dose: { sets: 1, reps: 3 } } },
			{},
		],
		[
			'where the week is full, even of two reps: leave it out',
			() =>
				run(
					'acceleration',
					start({ dose: { sets: 1, reps: 2 }, easedBy: 'drop-off' }),
					null,
					{ repsDone: 0 },
					done(16),
				),
			{ verdict: 'hold', decidedBy: 'S7', next: { dose: { sets: 1, reps: 2 } }, cautions: [{ rule: 'S7' }] },
			{},
			/The week has 16 of 16 maximal starts: leave it out if you can\.$/,
		],
		[
			'a kept ladder asks two thirds of the week',
			() => run('acceleration', start(), null, ten, { ...done(11), focus: 'kept' }),
			{ verdict: 'hold' },
			{ S7: [false, '11 done and 4 planned, maximal starts'] },
		],
		[
			'what is locked that day fills no week',
			() =>
				run(
					'shock',
					stateAt('shock', 'depth-15'),
					null,
					{ quality: good(10) },
					{
						next: next({ day: '2026-03-14', phase: 'accumulate' }),
						ramp: { ...noRamp, hardContacts: [{ day: '2026-03-11', value: 200, unloading: false }] },
					},
				),
			{ cautions: [] },
			{ S7: [false, 'nothing here that the ramp watches', '—'] },
		],
		[
			'the tightest of several decides',
			// A depth jump: 10 reps, two contacts' worth of nothing else; a cut of 90°: 9 cuts and 9 plants.
			() =>
				run('cut', stateAt('cut', 'cut-90'), null, eye, {
					next: next({ day: '2026-03-14' }),
					ramp: {
						...noRamp,
						sharpCuts: [{ day: '2026-03-11', value: 15, unloading: false }],
						hardContacts: [{ day: '2026-03-11', value: 10, unloading: false }],
					},
				}),
			// Five of nine fit: whole sets, so one of three.
			{ verdict: 'ease', next: { dose: { sets: 1, reps: 3 } } },
			{ S7: [true, '15 done and 9 planned, cuts of 90° and more', '20 in the week'] },
		],
		[
			'and the other way round',
			() =>
				run('cut', stateAt('cut', 'cut-90'), null, eye, {
					next: next({ day: '2026-03-14' }),
					ramp: {
						...noRamp,
						sharpCuts: [{ day: '2026-03-11', value: 5, unloading: false }],
						hardContacts: [{ day: '2026-03-11', value: 38, unloading: false }],
					},
				}),
			{ verdict: 'ease' },
			{ S7: [true, /^38 done and .* contacts of the harder-worked leg$/, '40 in the week'] },
		],
		[
			'each quantity by the level of what it loads: cuts plant, and whoever cuts at level 3 may jump at level 1',
			() =>
				run('cut', stateAt('cut', 'cut-90'), null, eye, {
					next: next({ day: '2026-03-14' }),
					athlete: athlete({ level: 3 }),
					levels: { agility: 3, plyometric: 1 },
					ramp: { ...noRamp, hardContacts: [{ day: '2026-03-11', value: 16, unloading: false }] },
				}),
			{ verdict: 'ease' },
			{ S7: [true, /^16 done and .* contacts of the harder-worked leg$/, '20 in the week'] },
		],
	)
	it('last week’s cut is asked for in full again, and said', () => {
		const cut = start({ dose: { sets: 1, reps: 4 }, easedBy: 'ramp' })
		const room = run('acceleration', cut, null, { ...ten, planned: { sets: 1, reps: 4 }, repsDone: 4 })
		expect(room.next).toMatchObject({ dose: { sets: 1, reps: 6 }, easedBy: null, rungId: 'three-point-10' })
		expect(room.sentence).toMatch(/ The week has room for 1×6 again\.$/)
		const full = run('acceleration', cut, null, ten, done(13))
		expect(full.sentence).not.toContain('again.')
		expect(full.next).toMatchObject({ dose: { sets: 1, reps: 3 }, easedBy: 'ramp' })
		// What moves, or was never cut for the week, or was cut for another reason, says nothing of it.
		for (const judged of [
			run(
				'acceleration',
				cut,
				{ ...ten, planned: { sets: 1, reps: 6 }, repsDone: 6 },
				{ ...ten, planned: { sets: 1, reps: 6 }, repsDone: 6 },
			),
			run('acceleration', start(), null, ten),
			run('acceleration', start({ dose: { sets: 1, reps: 4 }, easedBy: 'drop-off' }), null, {
				marks: gate(1.9, 1.9, 1.9, 1.9),
				usual: { gate: usual(1.88) },
			}),
			run('acceleration', start({ easedBy: 'ramp' }), null, ten),
		])
			expect(judged.sentence).not.toContain('has room')
	})
})

describe('a rep back after a fall', () => {
	const cut = (reps: number) => stateAt('cut', 'cut-90', { dose: { sets: 1, reps }, easedBy: 'drop-off' })
	it.each([
		[7, { sets: 1, reps: 8 }, 'drop-off'],
		[8, { sets: 3, reps: 3 }, null],
	] as const)('%i of 9', (reps, dose, easedBy) => {
		const judged = run('cut', cut(reps), null, { quality: good(reps), repsDone: reps })
		expect(judged).toMatchObject({ verdict: 'hold', next: { dose, easedBy } })
		expect(judged.sentence).toMatch(/ No fall this time: one rep back, \d×\d\.$/)
	})
	it('not when nothing was done, nor with a fall, nor cut for the week', () => {
		expect(run('cut', cut(7), null, { repsDone: 0 }).next.dose.reps).toBe(7)
		const four = start({ dose: { sets: 1, reps: 4 }, easedBy: 'drop-off' })
		const fell = { marks: gate(1.9, 1.89, 2.02, 2.04), usual: { gate: usual(1.9) } }
		expect(run('acceleration', four, null, fell).next.dose.reps).toBe(4)
		expect(run('cut', stateAt('cut', 'cut-90'), null, eye).sentence).not.toContain('one rep back')
	})
})

it('since when somebody is on a rung: as kept, else the first day it was done', () => {
	const at = start()
	const days = (change: Partial<Exposure>) => ({
		exposures: [exposure('a', '2026-03-02', at, change), exposure('s2', '2026-03-12', at, ten)],
	})
	const since = (change: Partial<Exposure>, state: Partial<LadderState> = {}) =>
		run('acceleration', start(state), null, null, days(change)).next.rungSince
	expect(since({})).toBe('2026-03-02')
	expect(since({ repsDone: 0 })).toBe('2026-03-12')
	expect(since({ onRung: false })).toBe('2026-03-12')
	expect(since({ rungId: 'standing-10' })).toBe('2026-03-12')
	expect(since({}, { rungSince: '2026-01-01' })).toBe('2026-01-01')
	expect(run('acceleration', start(), null, null).next).not.toHaveProperty('rungSince')
})

describe('contact on a box', () => {
	// Ten contacts by mat: a day moves them by 2.5 %, a contact by 5 ms, eight degrees of freedom. 146 ms: 4.0 ms under,
	// 0.996 of its 4.0 ms spread, chance 0.83; 147 ms: 0.75 of it, 0.76.
	it('goes up when the chance that the sprint goal is kept is 0.8; the bare mean does not decide', () => {
		const low: School = { ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, boxHeight: 'low' } }
		const at = (ms: number) => {
			const marks: Partial<Exposure> = { marks: mat(...Array<number>(10).fill(ms / 1000)), quality: good(10) }
			return runIn(low, 'shock', stateAt('shock', 'depth-15'), marks, marks, {
				standings: { shock: ['landing-15', 'landing-30', 'pause-15', 'pause-30'] },
			})
		}
		expect(QUALITY_FIRST.numbers.sprintGoalMs).toBe(150)
		expect(at(146).verdict).toBe('advance')
		expect(at(147)).toMatchObject({ verdict: 'hold', next: { rungId: 'depth-15', passed: false } })
		expect(at(147).sentence).toContain('its contact of 147 ms may be over the sprint goal of 150 ms')
		expect(at(150).sentence).toContain('may be over')
		expect(at(151).sentence).toContain('its contact of 151 ms is over the sprint goal of 150 ms')
	})
	it('nor goes it up by way of the landings of the next box; where no higher one is in reach, the ceiling alone is asked', () => {
		const passed = ['landing-15', 'landing-30', 'pause-15', 'pause-30', 'depth-15']
		const at30 = (choice: 'low' | 'climb', highestBoxCm = 75) => {
			const school: School = {
				...QUALITY_FIRST,
				choices: { ...QUALITY_FIRST.choices, boxHeight: choice },
				numbers: { ...QUALITY_FIRST.numbers, highestBoxCm },
			}
			const marks: Partial<Exposure> = { marks: mat(...Array<number>(10).fill(0.165)), quality: good(10) }
			return runIn(school, 'shock', stateAt('shock', 'depth-30', { done: passed }), marks, marks, {
				athlete: athlete({ level: 3 }),
				standings: { shock: passed },
			})
		}
		expect(at30('low')).toMatchObject({ verdict: 'hold', next: { rungId: 'depth-30' } })
		expect(at30('low').sentence).toContain('is over the sprint goal of 150 ms')
		expect(at30('climb')).toMatchObject({ verdict: 'advance', next: { rungId: 'landing-45' } })
		expect(at30('low', 30)).toMatchObject({ verdict: 'advance', next: { rungId: 'double-15' } })
	})
})
