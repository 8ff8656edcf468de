import { describe, expect, it } from 'vitest'
import { checkGround, checkLine, checkOrder } from '../plan/session-checks'
import { weeksSinceUnloading } from '../plan/unloading-due'
import { countLine } from '../dose/count-line'
import { CAPACITY_BASE, JUMP_LADDER, QUALITY_FIRST, RETURN_AND_PROTECT } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { School, SchoolChoices } from '../vocabulary/school'
import { judgeAthlete } from './judge-athlete'
import { proposeLevel } from './level-proposal'
import { factsOf } from '../../tests/support/plain-facts'
import { lockOf } from './locks'
import { readReady } from './ready-check'
import { resolveLine } from './resolve-line'
import type { Exposure, Judgement, LadderState, VerdictInput, VerdictWord } from './types'
import type { RuleId } from '../rules/rule'
import {
	athlete,
	documents,
	exposure,
	gate,
	good,
	input,
	next,
	noRamp,
	pain,
	run,
	runIn,
	stateAt,
	usual,
} from '../../tests/support/verdict-fixture'

/**
 * A coach's cases: situation → verdict → the rule that decided. Each line reads as one would say it on
 * the field; the fixture is a level-2 adult of 70 kg, Thursday 12 March, next session Monday, peaking.
 */

const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const school = (choices: Partial<SchoolChoices>, numbers: Partial<School['numbers']> = {}): School => ({
	...QUALITY_FIRST,
	choices: { ...QUALITY_FIRST.choices, ...choices },
	numbers: { ...QUALITY_FIRST.numbers, ...numbers },
})
const at = (ladder: string, rung: string, change: Partial<LadderState> = {}) => stateAt(ladder, rung, change)
const tape = (...values: number[]): Exposure['marks'] =>
	values.map((value) => ({ kind: 'distance', value, method: 'tape' }))
const contacts = (value: number, flightS: number): Partial<Exposure> => ({
	marks: Array.from({ length: 10 }, () => ({ kind: 'contact', value, method: 'mat', flightS })),
	quality: good(10),
})

const ten: Partial<Exposure> = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } }
const slow: Partial<Exposure> = { marks: gate(2.1, 2.11, 2.1, 2.12, 2.1, 2.11), usual: { gate: usual(1.88) } }
const unsure: Partial<Exposure> = { marks: gate(1.93, 1.94, 1.93, 1.94), usual: { gate: usual(1.88) } }
const falls: Partial<Exposure> = { marks: gate(1.9, 1.89, 1.9, 1.91, 2.02, 2.04), usual: { gate: usual(1.9) } }
const eye: Partial<Exposure> = { quality: good(9) }
/** Eight contacts of one set by film, of three sets of eight that were done. */
const filmed = (ms: number): Partial<Exposure> => ({
	repsDone: 24,
	marks: Array.from({ length: 8 }, () => ({ kind: 'contact' as const, value: ms / 1000, method: 'film-240' as const })),
	quality: good(24),
})
const start = at('acceleration', 'three-point-10')
const depth = { standings: { shock: ['landing-15', 'landing-30', 'pause-15', 'pause-30', 'depth-15'] } }
const weeksAgo = (day: string): Partial<VerdictInput> => ({
	work: [
		{ day, startTime: '17:30', families: ['sprint', 'plyometric', 'agility', 'throw'], kinds: [], outside: false },
	],
})
const nothing: Partial<Exposure> = { repsDone: 0 }
const away = { standings: {} }
const flat = (value: number, id: string, day: string) =>
	exposure(id, day, start, { marks: gate(value, value, value), usual: { gate: usual(1.87) } })
const plateau: Partial<VerdictInput> = {
	focus: 'priority',
	exposures: [
		flat(1.93, 'a', '2026-03-02'),
		flat(1.931, 'b', '2026-03-05'),
		flat(1.929, 's1', '2026-03-09'),
		flat(1.93, 's2', '2026-03-12'),
	],
}
const pogos = at('stiffness', 'single-leg-pogo')
const sided = (left: number, right: number): Partial<Exposure> => ({
	marks: [left, left + 0.001, right, right + 0.001].map((value, index) => ({
		kind: 'contact',
		value,
		method: 'mat',
		side: index < 2 ? 'left' : 'right',
	})),
	quality: good(9),
})

type Case = [situation: string, judgement: () => Judgement, verdict: VerdictWord, rule: RuleId, words?: string]
const CASES: Case[] = [
	// Safety
	[
		'back of the thigh 2 of 10, for the first time',
		() => run('acceleration', start, null, ten, { pains: [pain({ score: 2 })] }),
		'hold',
		'P3',
		'One more like it',
	],
	[
		'back of the thigh 2 of 10, third session running',
		() =>
			run('acceleration', start, ten, ten, {
				pains: [
					['s0', '2026-03-05'],
					['s1', '2026-03-09'],
					['s2', '2026-03-12'],
				].map(([sessionId, day]) => pain({ sessionId: sessionId!, day: day!, score: 2 })),
			}),
		'swap',
		'S1',
		'third session running',
	],
	[
		'back of the thigh 4 of 10 in the sprints',
		() => run('acceleration', start, ten, ten, { pains: [pain({ score: 4 })] }),
		'swap',
		'S1',
		'Swap for A-run',
	],
	[
		'back of the thigh 6 of 10',
		() => run('acceleration', start, ten, ten, { pains: [pain({ score: 6 })] }),
		'stop',
		'S1',
		'closed until cleared',
	],
	[
		'knee gave way, said to hurt 1 of 10',
		() => run('cut', at('cut', 'cut-90'), eye, eye, { pains: [pain({ region: 'knee', score: 1, redFlag: true })] }),
		'stop',
		'S1',
		'giving way',
	],
	[
		'a blow to the head, on a ladder that does not load it',
		() =>
			run('stiffness', at('stiffness', 'pogo'), eye, eye, {
				pains: [pain({ region: 'neck-head', score: 2, redFlag: true })],
			}),
		'stop',
		'S1',
		'professional help',
	],
	[
		'a sore back, and a sore wrist that the throw loads little: what stands in spares both',
		() =>
			run('throw', at('throw', 'overhead'), eye, eye, {
				pains: [pain({ region: 'back', side: 'both', score: 3 }), pain({ region: 'wrist', score: 4 })],
			}),
		'swap',
		'S1',
		'Swap for chest push standing',
	],
	[
		'the same wrist alone: loaded a little, by moderate work',
		() => run('throw', at('throw', 'overhead'), eye, eye, { pains: [pain({ region: 'wrist', score: 4 })] }),
		'hold',
		'P3',
		'two distances',
	],
	[
		'wrist 4 of 10, on the sprint ladder',
		() => run('acceleration', start, ten, ten, { pains: [pain({ region: 'wrist', score: 4 })] }),
		'advance',
		'P1',
	],
	[
		'closed since last week, perfect marks',
		() =>
			run('acceleration', start, ten, ten, { closures: [{ region: 'knee', grade: 'closed', since: '2026-03-05' }] }),
		'stop',
		'S1',
		'Closed until cleared: knee, since Thu 5 Mar',
	],
	[
		'the physio has restricted the ankle',
		() =>
			run('cut', at('cut', 'cut-90'), eye, eye, {
				restrictions: [{ region: 'ankle', pattern: null, since: '2026-03-10', setBy: 'H. Brekke' }],
			}),
		'swap',
		'S2',
		'by H. Brekke',
	],
	[
		'no lateral work, by the physio: what moves straight stands in',
		() =>
			run('cut', at('cut', 'cut-90'), eye, eye, {
				restrictions: [{ region: null, pattern: 'lateral', since: '2026-03-10', setBy: 'H. Brekke' }],
			}),
		'swap',
		'S2',
		'Wall drill and march stands in',
	],
	[
		'spared since last week, the easy form done, nobody asked',
		() =>
			run(
				'acceleration',
				at('acceleration', 'three-point-20'),
				ten,
				{ onRung: false, repsDone: 8 },
				{
					closures: [{ region: 'back-thigh', grade: 'spare', since: '2026-03-05' }],
				},
			),
		'swap',
		'S1',
		'stands in',
	],
	[
		'feverish, two passes',
		() => run('acceleration', start, ten, ten, { athlete: athlete({ unwell: true }) }),
		'hold',
		'S3',
		'unwell',
	],
	[
		'15 years old, landings passed: the rebound waits',
		() => run('shock', at('shock', 'pause-30'), eye, eye, { athlete: athlete({ ageYears: 15 }), ...away }),
		'hold',
		'S4',
		'under 16',
	],
	[
		'birth date unknown: the rebound waits',
		() => run('shock', at('shock', 'pause-30'), eye, eye, { athlete: athlete({ ageYears: null }), ...away }),
		'hold',
		'S4',
		'until the birth date is known',
	],
	[
		'over 100 kg, next would be a 60 cm box: the ladder goes round it',
		() =>
			runIn(
				JUMP_LADDER,
				'shock',
				at('shock', 'depth-45', {
					done: ['landing-15', 'landing-30', 'landing-45', 'pause-15', 'pause-30', 'pause-45', 'depth-15', 'depth-30'],
				}),
				contacts(0.17, 0.5),
				contacts(0.17, 0.5),
				{ athlete: athlete({ level: 3, massKg: 108 }) },
			),
		'advance',
		'P1',
		'double depth jump 15 cm',
	],
	[
		'passed, but another squad sprints them again tomorrow',
		() =>
			run('acceleration', start, ten, ten, {
				next: next({ day: '2026-03-13' }),
				work: [
					{ day: '2026-03-12', startTime: '17:30', families: ['sprint'], kinds: ['maximal-sprint'], outside: false },
				],
			}),
		'hold',
		'S6',
		'24 h after maximal sprinting',
	],
	[
		'the same, two days later',
		() =>
			run('acceleration', start, ten, ten, {
				next: next({ day: '2026-03-14' }),
				work: [
					{ day: '2026-03-12', startTime: '17:30', families: ['sprint'], kinds: ['maximal-sprint'], outside: false },
				],
			}),
		'advance',
		'P1',
	],
	[
		'twelve starts already this week, limit sixteen',
		() =>
			run('acceleration', start, null, ten, {
				next: next({ day: '2026-03-14' }),
				ramp: {
					...noRamp,
					maximalStarts: [
						{ day: '2026-03-02', value: 12, unloading: false },
						{ day: '2026-03-11', value: 12, unloading: false },
					],
				},
			}),
		'ease',
		'S7',
		'12 of 16 maximal starts',
	],
	[
		'90° cuts wait for the single-leg dead stop',
		() => run('cut', at('cut', 'sharp-wide'), eye, eye, { standings: { brake: ['slow-10', 'stop-5', 'stop-10'] } }),
		'hold',
		'S8',
		'opens after single-leg dead stop, 10 m',
	],
	[
		'a worry about the hamstring in standing starts',
		() =>
			run('acceleration', at('acceleration', 'standing-10'), ten, ten, {
				worries: [{ drillId: 'standing-start', region: 'back-thigh', since: '2026-03-01' }],
			}),
		'swap',
		'S9',
		'worry',
	],
	[
		'passed, but Monday is on wet grass',
		() =>
			run('react', at('react', 'point-and-go'), eye, eye, {
				next: next({ surface: 'wet-grass' }),
				standings: { cut: ['wide', 'sharp-wide', 'cut-90'] },
			}),
		'hold',
		'S10',
		'wet grass',
	],
	[
		'passed, but a match comes the day after',
		() => run('acceleration', start, ten, ten, { next: next({ hoursToMatch: 22 }) }),
		'hold',
		'S11',
		'no shock and no new hard rung within 48 h',
	],
	// Performance
	['one clear pass', () => run('acceleration', start, null, ten), 'hold', 'P3', 'One more like it'],
	['two clear passes', () => run('acceleration', start, ten, ten), 'advance', 'P1', 'three-point start 20 m'],
	[
		'two passes, the coach ended the second set early',
		() => run('acceleration', start, ten, { ...ten, marks: gate(1.9, 1.9, 1.91), repsDone: 3, endReason: 'coach' }),
		'advance',
		'P1',
	],
	[
		'two passes, the second cut short by refusal',
		() => run('acceleration', start, ten, { ...ten, marks: gate(1.9, 1.9, 1.91), repsDone: 3, endReason: 'refusal' }),
		'hold',
		'P3',
		'3 of 6',
	],
	['clearly slower, once', () => run('acceleration', start, ten, slow), 'hold', 'P2', 'Twice running would ease it'],
	['clearly slower, twice', () => run('acceleration', start, slow, slow), 'ease', 'P2', 'standing start 10 m'],
	[
		'knees in on half the cuts, twice',
		() =>
			run(
				'cut',
				at('cut', 'cut-90'),
				{ quality: { good: 4, notYet: 0, poor: 5, setTaps: 3 } },
				{ quality: { good: 4, notYet: 0, poor: 5, setTaps: 3 } },
			),
		'ease',
		'P2',
	],
	['times between pass and miss', () => run('acceleration', start, ten, unsure), 'hold', 'P3', 'Not enough to say'],
	['nobody logged anything', () => run('acceleration', start, ten, nothing), 'hold', 'P3', 'nothing was logged'],
	[
		'one rep, by stopwatch',
		() =>
			run('acceleration', start, ten, {
				marks: [{ kind: 'sprint', value: 1.9, method: 'stopwatch' }],
				repsDone: 6,
				usual: { gate: usual(1.88) },
			}),
		'hold',
		'P3',
		'one more session measured this way',
	],
	['fades from rep 5, twice', () => run('acceleration', start, falls, falls), 'ease', 'P4', 'from 6 to 4 reps'],
	[
		'the ball slows past the limit',
		() => run('throw', at('throw', 'rotational'), null, { marks: tape(10, 10.1, 10, 7.6, 7.5), quality: good(6) }),
		'ease',
		'P4',
		'2 kg ball',
	],
	[
		'a heavy body’s ball slows past the limit',
		() =>
			run(
				'throw',
				at('throw', 'rotational'),
				null,
				{
					marks: tape(10, 10.1, 10, 7.6, 7.5),
					quality: good(6),
				},
				{ athlete: athlete({ massKg: 95 }) },
			),
		'ease',
		'P4',
		'4 kg ball',
	],
	[
		'one set of pogos filmed at 240 frames, the others ticked off',
		() => run('stiffness', at('stiffness', 'pogo-for-height'), filmed(230), filmed(230)),
		'advance',
		'P1',
		'mean 230 ms of 8',
	],
	[
		// A day moves 2.5 % of 246 ms, 6.2 ms; eight contacts of 6 ms 2.1 ms: 4 ms under the ceiling are 0.6 of it.
		'the same, too near the ceiling for a film',
		() => run('stiffness', at('stiffness', 'pogo-for-height'), filmed(246), filmed(246)),
		'hold',
		'P3',
		'Not enough to say',
	],
	[
		'the same, over the ceiling twice',
		() => run('stiffness', at('stiffness', 'pogo-for-height'), filmed(262), filmed(262)),
		'ease',
		'P2',
		'mean 262 ms of 8',
	],
	[
		'pause jumps pass below a rebound that the own best box does not reach',
		() =>
			run('shock', at('shock', 'pause-30'), eye, eye, {
				...depth,
				athlete: athlete({ level: 3 }),
				bestBox: { heightCm: 10, keepsGoal: true, on: '2026-03-02', how: 'contact mat' },
			}),
		'hold',
		'BB',
		'Passed, waiting: Depth jump 15 cm: own best box is 10 cm (contact mat, Mon 2 Mar)',
	],
	[
		'four flat exposures, same rung until passed',
		() => runIn(school({ variety: 'same' }), 'acceleration', start, null, null, plateau),
		'hold',
		'P7',
		'Proposed, not written',
	],
	[
		'two ladders pass on one day',
		() =>
			judgeAthlete([input('acceleration', start, ten, ten), input('cut', at('cut', 'sharp-wide'), eye, eye)], (one) =>
				documents(one.ladder.id),
			)[1]!.judgement,
		'hold',
		'P8',
		'another ladder moves first',
	],
	['a kept ladder passes', () => run('acceleration', start, ten, ten, { focus: 'kept' }), 'hold', 'P8', 'kept'],
	['ten days away', () => run('acceleration', start, null, nothing, weeksAgo('2026-03-05')), 'hold', 'P9', '75 %'],
	[
		'three weeks away',
		() => run('acceleration', start, null, nothing, weeksAgo('2026-02-23')),
		'ease',
		'P9',
		'standing start 10 m at 60 %',
	],
	[
		'six weeks away',
		() => run('acceleration', start, null, nothing, weeksAgo('2026-01-29')),
		're-enter',
		'P9',
		'walk through',
	],
	[
		'first day back, best marks of the year',
		() =>
			run(
				'acceleration',
				at('acceleration', 'three-point-10', { back: { percent: 60, since: null, stage: 'long' } }),
				ten,
				{ ...ten, firstDayBack: true },
				weeksAgo('2026-02-23'),
			),
		'hold',
		'P9',
		'says nothing either way',
	],
	[
		'a week later: the next share',
		() =>
			run(
				'acceleration',
				at('acceleration', 'three-point-10', { back: { percent: 60, since: '2026-03-09', stage: 'long' } }),
				null,
				ten,
				weeksAgo('2026-03-09'),
			),
		'hold',
		'P9',
		'now at 75 %',
	],
	[
		'on the way back at 70 %, no discomfort',
		() =>
			run(
				'acceleration',
				at('acceleration', 'three-point-10', {
					reentry: { pathId: 're-entry-run', rungId: 'run-70', since: '2026-03-09' },
				}),
				null,
				{ onRung: false, planned: { sets: 1, reps: 5 }, repsDone: 5 },
			),
		're-enter',
		'RE',
		'80 %',
	],
	[
		'on the way back at 70 %, discomfort of 1',
		() =>
			run(
				'acceleration',
				at('acceleration', 'three-point-10', {
					reentry: { pathId: 're-entry-run', rungId: 'run-70', since: '2026-03-09' },
				}),
				null,
				{ onRung: false, planned: { sets: 1, reps: 5 }, repsDone: 5 },
				{ pains: [pain({ score: 1 })] },
			),
		're-enter',
		'RE',
		'Repeat',
	],
	[
		'the last step of the way back is done',
		() =>
			run(
				'acceleration',
				at('acceleration', 'three-point-20', {
					reentry: { pathId: 're-entry-run', rungId: 'run-100', since: '2026-03-09' },
				}),
				null,
				{ onRung: false, planned: { sets: 1, reps: 4 }, repsDone: 4 },
			),
		'ease',
		'RE',
		'two rungs below',
	],
	[
		'a pull of 10 % felt bad',
		() =>
			run(
				'assisted',
				at('assisted', 'assist-10'),
				null,
				{ comfort: { worst: 4, braking: false }, quality: good(3) },
				{ athlete: athlete({ level: 3 }) },
			),
		'ease',
		'P10',
		'assisted, 5 % over, and stay',
	],
	[
		'comfortable, but the foot brakes in front',
		() =>
			run(
				'assisted',
				at('assisted', 'assist-10'),
				null,
				{ comfort: { worst: 0, braking: true }, quality: good(3) },
				{ athlete: athlete({ level: 3 }) },
			),
		'ease',
		'P10',
		'braking',
	],
	[
		'the limb weight came off for lost speed',
		() =>
			run(
				'carried-load',
				at('carried-load', 'run-250'),
				null,
				{ loadOff: 'speed-loss' },
				{ athlete: athlete({ level: 3 }) },
			),
		'ease',
		'P11',
		'building run, 100 g',
	],
	// Schools, each switch on both sides
	[
		'box passed at 168 ms, stay low',
		() =>
			runIn(
				school({ boxHeight: 'low' }),
				'shock',
				at('shock', 'depth-15'),
				contacts(0.168, 0.45),
				contacts(0.168, 0.45),
				depth,
			),
		'hold',
		'P1',
		'over the sprint goal',
	],
	[
		'box passed at 168 ms, climb',
		() =>
			runIn(
				school({ boxHeight: 'climb' }),
				'shock',
				at('shock', 'depth-15'),
				contacts(0.168, 0.45),
				contacts(0.168, 0.45),
				depth,
			),
		'advance',
		'P1',
		'depth jump 30 cm',
	],
	[
		'pauses passed in intensify, depth jumps in peaking',
		() =>
			runIn(school({ depthJumps: 'peaking' }), 'shock', at('shock', 'pause-30'), eye, eye, {
				...away,
				next: next({ phase: 'intensify' }),
			}),
		'advance',
		'P1',
		'drop landing 45 cm',
	],
	[
		'pauses passed in intensify, depth jumps in intensify too',
		() =>
			runIn(school({ depthJumps: 'peaking-and-intensify' }), 'shock', at('shock', 'pause-30'), eye, eye, {
				...away,
				next: next({ phase: 'intensify' }),
			}),
		'advance',
		'P1',
		'depth jump 15 cm',
	],
	[
		'pauses passed in accumulate, a little all year',
		() =>
			runIn(school({ depthJumps: 'all-year' }), 'shock', at('shock', 'pause-30'), eye, eye, {
				...away,
				next: next({ phase: 'accumulate' }),
			}),
		'advance',
		'P1',
		'depth jump 15 cm',
	],
	[
		'pauses passed in peaking, never',
		() => runIn(RETURN_AND_PROTECT, 'shock', at('shock', 'pause-30'), eye, eye, away),
		'hold',
		'P1',
		'the top that is open now',
	],
	[
		'short contact, rebound lost, shortest wins',
		() =>
			runIn(
				school({ boxJudgement: 'shortest-contact' }),
				'shock',
				at('shock', 'depth-15'),
				contacts(0.145, 0.5),
				contacts(0.14, 0.4),
				depth,
			),
		'advance',
		'P1',
	],
	[
		'short contact, rebound lost, rebound under a ceiling',
		() =>
			runIn(
				school({ boxJudgement: 'rebound-under-ceiling' }),
				'shock',
				at('shock', 'depth-15'),
				contacts(0.145, 0.5),
				contacts(0.14, 0.4),
				depth,
			),
		'hold',
		'P3',
		'rebound has fallen',
	],
	[
		'easy runs and carries passed, skill dose',
		() =>
			runIn(
				school({ volume: 'skill', conditioning: 'long-runs' }),
				'capacity',
				at('capacity', 'hard-200'),
				{ ...ten, planned: { sets: 1, reps: 4 } },
				{ ...ten, planned: { sets: 1, reps: 4 } },
			),
		'hold',
		'P1',
		'top that is open',
	],
	[
		'the same, capacity',
		() =>
			runIn(
				CAPACITY_BASE,
				'capacity',
				at('capacity', 'hard-200'),
				{ ...ten, planned: { sets: 1, reps: 4 } },
				{ ...ten, planned: { sets: 1, reps: 4 } },
			),
		'advance',
		'P1',
		'hard run 300 m',
	],
	[
		'rope passed, conditioning by shuttles',
		() =>
			runIn(school({ conditioning: 'shuttles' }), 'capacity', at('capacity', 'rope'), eye, eye, {
				standings: { cut: ['wide'], brake: ['stop-10', 'dead-10'] },
			}),
		'advance',
		'P1',
		'short shuttles',
	],
	[
		'rope passed, conditioning by long runs',
		() =>
			runIn(school({ conditioning: 'long-runs' }), 'capacity', at('capacity', 'rope'), eye, eye, {
				standings: { cut: ['wide'], brake: ['stop-10', 'dead-10'] },
			}),
		'advance',
		'P1',
		'hard run 200 m',
	],
	[
		'right foot 15 % slower off the ground twice, close the gap',
		() =>
			runIn(school({ leftRight: 'close' }), 'stiffness', pogos, sided(0.165, 0.19), sided(0.165, 0.19), {
				athlete: athlete({ level: 3 }),
			}),
		'advance',
		'P1',
		'moves to the right',
	],
	[
		'the same, leave it',
		() =>
			runIn(school({ leftRight: 'leave' }), 'stiffness', pogos, sided(0.165, 0.19), sided(0.165, 0.19), {
				athlete: athlete({ level: 3 }),
			}),
		'advance',
		'P1',
		'leaves such a gap alone',
	],
	[
		'four flat exposures, rotate',
		() => runIn(school({ variety: 'rotate' }), 'acceleration', start, null, null, plateau),
		'swap',
		'P7',
		'resisted start, light',
	],
	[
		'four flat exposures in accumulate, heavy to light',
		() =>
			runIn(school({ variety: 'rotate', resistance: 'heavy-to-light' }), 'acceleration', start, null, null, {
				...plateau,
				next: next({ phase: 'accumulate' }),
			}),
		'swap',
		'P7',
		'heavy',
	],
	[
		'four flat exposures in accumulate, light only',
		() =>
			runIn(school({ variety: 'rotate', resistance: 'light-only' }), 'acceleration', start, null, null, {
				...plateau,
				next: next({ phase: 'accumulate' }),
			}),
		'swap',
		'P7',
		'light',
	],
	[
		'a very good day ended early, stop at the peak',
		() =>
			runIn(school({ goodDay: 'stop' }), 'acceleration', start, ten, {
				...ten,
				marks: gate(1.85, 1.86, 1.86),
				repsDone: 3,
				endReason: 'good-day',
			}),
		'advance',
		'P1',
	],
	[
		'a very good day ended early, finish the plan',
		() =>
			runIn(school({ goodDay: 'finish' }), 'acceleration', start, ten, {
				...ten,
				marks: gate(1.85, 1.86, 1.86),
				repsDone: 3,
				endReason: 'good-day',
			}),
		'hold',
		'P3',
		'3 of 6',
	],
	[
		'5 % passed in comfort, cap 10 %',
		() =>
			runIn(
				school({ assisted: 'to-10' }),
				'assisted',
				at('assisted', 'assist-5', { rungSince: '2026-02-20' }),
				{ comfort: { worst: 1, braking: false }, quality: good(3) },
				{ comfort: { worst: 1, braking: false }, quality: good(3) },
				{ athlete: athlete({ level: 3 }), standings: { 'top-speed': ['fly-10-20'] } },
			),
		'advance',
		'P1',
		'10 % over',
	],
	[
		'5 % passed in comfort, one week on it',
		() =>
			runIn(
				school({ assisted: 'to-10' }),
				'assisted',
				at('assisted', 'assist-5', { rungSince: '2026-03-09' }),
				{ comfort: { worst: 1, braking: false }, quality: good(3) },
				{ comfort: { worst: 1, braking: false }, quality: good(3) },
				{ athlete: athlete({ level: 3 }), standings: { 'top-speed': ['fly-10-20'] } },
			),
		'hold',
		'S8',
		'7 so far',
	],
	[
		'10 % passed in comfort, cap 10 %',
		() =>
			runIn(
				school({ assisted: 'to-10' }),
				'assisted',
				at('assisted', 'assist-10', { rungSince: '2026-02-20' }),
				{ comfort: { worst: 1, braking: false }, quality: good(3) },
				{ comfort: { worst: 1, braking: false }, quality: good(3) },
				{ athlete: athlete({ level: 3 }) },
			),
		'hold',
		'P1',
		'top that is open',
	],
]

describe('a coach’s cases', () => {
	it.each(CASES)('%s', (_situation, judgement, verdict, rule, words) => {
		const { verdict: word, decidedBy, sentence } = judgement()
		expect([word, decidedBy], sentence).toEqual([verdict, rule])
		if (words) expect(sentence).toContain(words)
	})

	it('has forty and more, and every rule of the verdict decides at least one', () => {
		const rules = new Set(CASES.map(([, , , rule]) => rule))
		expect(CASES.length).toBeGreaterThanOrEqual(40)
		// S5 orders a session, P5 a day, P6 a dose, P12 a level: their cases stand below. LR adds to a verdict.
		for (const rule of [
			'S1',
			'S2',
			'S3',
			'S4',
			'S6',
			'S7',
			'S8',
			'S9',
			'S10',
			'S11',
			'P1',
			'P2',
			'P3',
			'P4',
			'P7',
			'P8',
			'P9',
			'P10',
			'P11',
			'RE',
		] as const)
			expect(rules, rule).toContain(rule)
	})
})

describe('cases of a session, a day, a week and a level', () => {
	const entry = (id: string, change = {}) => ({
		entryId: id,
		drill: drill(id),
		parameters: drill(id).defaults.parameters,
		dose: { sets: 3, reps: 3 },
		...change,
	})
	const everything = Object.fromEntries(
		Object.values(STARTER_LIBRARY.ladders).map((ladder) => [ladder.id, ladder.rungs.map((rung) => rung.id)]),
	)
	const known = { level: 2, day: '2026-03-12', passed: everything } as const
	const plain = factsOf(known)

	it.each([
		['depth jumps after shuttles → caution, S5', ['shuttle-repeat', 'depth-jump'], ['S5']],
		['depth jumps before shuttles → nothing', ['depth-jump', 'shuttle-repeat'], []],
		[
			'starts after many throws → caution, S5',
			['overhead-throw', 'underhand-throw', 'rotational-throw', 'standing-start'],
			['S5'],
		],
	])('%s', (_name, ids, rules) => {
		const many = { dose: { sets: 3, reps: 3 } }
		expect(checkOrder(ids.map((id) => entry(id, many))).map((caution) => caution.rule)).toEqual(rules)
	})

	it('120 contacts on gravel → four fifths allowed, S10; on grass nothing', () => {
		const count = countLine(drill('broad-jump'), {}, { sets: 12, reps: 10 })
		expect(checkGround(count, 2, 'gravel')[0]).toMatchObject({
			rule: 'S10',
			sentence: expect.stringContaining('96 are allowed'),
		})
		expect(checkGround(count, 2, 'grass')).toEqual([])
	})

	it('maximal starts 24 h after another squad’s → caution, S6; tissue work 4 h after a fast session too', () => {
		const work = [
			{
				day: '2026-03-11',
				startTime: '17:30',
				families: ['sprint' as const],
				kinds: ['maximal-sprint' as const],
				outside: false,
			},
		]
		expect(checkLine(entry('standing-start'), { day: '2026-03-12', startTime: '17:30' }, work, plain)[0]).toMatchObject(
			{ rule: 'S6' },
		)
		expect(checkLine(entry('standing-start'), { day: '2026-03-13', startTime: '13:30' }, work, plain)).toEqual([])
		expect(
			checkLine(entry('standing-start'), { day: '2026-03-13', startTime: '13:30' }, work, {
				...plain,
				schools: [RETURN_AND_PROTECT],
			})[0],
		).toMatchObject({ rule: 'S6' })
		expect(
			checkLine(entry('calf-hold'), { day: '2026-03-11', startTime: '21:30' }, work, plain)[0]?.sentence,
		).toContain('at least 6 h')
		expect(checkLine(entry('calf-hold'), { day: '2026-03-11', startTime: '23:30' }, work, plain)).toEqual([])
	})

	it('the day after a match → nothing hard on the line, S11', () => {
		const state = stateAt('acceleration', 'three-point-20')
		const line = resolveLine(
			{
				drillId: '',
				ladderId: 'acceleration',
				dose: { sets: 1, reps: 1 },
				parameters: {},
				rest: { repsS: 0, setsS: 0 },
				doseFactor: 1,
			},
			state,
			STARTER_LIBRARY,
			factsOf({ ...known, hoursSinceMatch: 20 }),
		)
		expect(line).toMatchObject({ drillId: 'a-run', note: expect.stringContaining('after a match') })
	})

	it.each([
		['slow twice → a third less, top speed holds, P5', [1.99, 2.0], 'slow', 2 / 3, false],
		['slow once → as usual', [1.99, 1.9], 'as usual', 1, false],
		['fast twice, a new best → the offer, P5', [1.82, 1.83], 'fast', 1, true],
	] as const)('%s', (_name, reps, state, share, offer) => {
		expect(readReady(reps, { median: 1.9, sd: 0.03, n: 9 }, 1.84, QUALITY_FIRST)).toMatchObject({ state, share, offer })
	})
	it('fast twice in a school that finishes the plan → planned reps', () => {
		expect(readReady([1.82, 1.83], { median: 1.9, sd: 0.03, n: 9 }, 1.84, CAPACITY_BASE)).toMatchObject({
			state: 'fast',
			offer: false,
		})
		expect(readReady([1.82, 1.83], null, 1.84, QUALITY_FIRST).state).toBe('no usual yet')
	})

	it.each([
		['intensify → 75 %, P6', 'intensify', 'three-point-20', { sets: 1, reps: 4 }],
		['unloading → 60 %, P6', 'unloading', 'three-point-20', { sets: 1, reps: 3 }],
		['peaking → the full dose', 'peaking', 'three-point-20', { sets: 1, reps: 6 }],
	] as const)('%s', (_name, phase, rung, dose) => {
		expect(
			resolveLine(
				{
					drillId: '',
					ladderId: 'acceleration',
					dose: { sets: 1, reps: 1 },
					parameters: {},
					rest: { repsS: 0, setsS: 0 },
					doseFactor: 1,
				},
				stateAt('acceleration', rung),
				STARTER_LIBRARY,
				factsOf({ ...known, phase }),
			),
		).toMatchObject({ dose })
	})
	it('two reasons for less → the smaller share, never both', () => {
		const state = stateAt('acceleration', 'three-point-20', {
			back: { percent: 60, since: '2026-03-01', stage: 'long' },
		})
		expect(
			resolveLine(
				{
					drillId: '',
					ladderId: 'acceleration',
					dose: { sets: 1, reps: 1 },
					parameters: {},
					rest: { repsS: 0, setsS: 0 },
					doseFactor: 1,
				},
				state,
				STARTER_LIBRARY,
				factsOf({ ...known, phase: 'intensify' }),
				true,
			),
		).toMatchObject({ dose: { sets: 1, reps: 3 } })
	})
	it('five trained weeks → unloading is due in a school of four', () => {
		const sessions = [0, 1, 2, 3, 4].map((week) => ({
			day: `2026-03-${String(2 + week * 7).padStart(2, '0')}`,
			phase: 'accumulate' as const,
		}))
		expect(weeksSinceUnloading(sessions, '2026-03-31')).toBe(5)
		expect(weeksSinceUnloading([...sessions, { day: '2026-03-16', phase: 'unloading' as const }], '2026-03-31')).toBe(2)
	})

	it('landings and pauses at 30 cm and two-foot pogo passed → level 2 is proposed, P12', () => {
		const used = ['shock', 'stiffness'].map((id) => STARTER_LIBRARY.ladders[id]!)
		const passed = {
			shock: ['landing-15', 'landing-30', 'pause-15', 'pause-30'],
			stiffness: ['calf-hold', 'step-and-stick', 'pogo'],
		}
		const beginner = (more: object) => factsOf({ level: 1, passed: { ...passed, ...more } })
		expect(proposeLevel('plyometric', 1, used, beginner({}))).toMatchObject({
			level: 2,
			because: ['Pause jump 30 cm', 'Two-foot pogo'],
		})
		expect(proposeLevel('plyometric', 1, used, beginner({ stiffness: ['calf-hold'] }))).toBeNull()
	})

	it('a gate before a rebound is a block, one before a cut a caution', () => {
		const shut = factsOf({ level: 1 })
		const lock = (ladder: string, rung: string) =>
			lockOf(shut, STARTER_LIBRARY.ladders[ladder]!.rungs.find((one) => one.id === rung)!)
		expect([lock('shock', 'depth-15')?.tier, lock('assisted', 'assist-5')?.tier, lock('cut', 'cut-90')?.tier]).toEqual([
			'block',
			'block',
			'caution',
		])
	})
})
