import { describe, expect, it } from 'vitest'
import { DAY, factsOf, concluded as known, plainFacts, upTo } from '../../tests/support/plain-facts'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Drill } from '../vocabulary/drill'
import type { Library } from '../vocabulary/library'
import type { CareReport, Clearance } from '../vocabulary/care'
import type { PlainFacts } from './plain-facts'
import { concludeFor } from './plain-facts'
import { type Ask, permit } from './permit'
import { conclude, isAnswered } from './known'

// What is given instead, and in which order it is looked for; cautions that were answered; how the steps of the way
// back count as work. Written from the pages on care and permission.

type More = Parameters<typeof plainFacts>[0]
const ask = (more: More, asked: Ask, library: Library = STARTER_LIBRARY) =>
	permit(concludeFor(plainFacts(more), library), asked)
const given = (more: More, asked: Ask, library?: Library) => {
	const { answer, line } = ask(more, asked, library)
	return `${answer}${line ? ` ${line.drillId} ${line.parameters.heightCm ?? line.parameters.distanceM ?? ''} ${line.dose.sets}×${line.dose.reps}` : ''}`
}
const hurt = (region: string, score: number, day = '2026-03-19', more: Partial<CareReport> = {}): CareReport =>
	({ kind: 'pain', region, score, day, ...more }) as CareReport
const cleared = (region: string, day: string, more: Partial<Clearance> = {}): Clearance =>
	({ region, day, by: 'Dr A', role: 'doctor', ...more }) as Clearance
const all = Object.fromEntries(
	Object.values(STARTER_LIBRARY.ladders).map((ladder) => [ladder.id, ladder.rungs.map((rung) => rung.id)]),
)
/** The library with one drill changed. */
const withDrill = (id: string, change: Partial<Drill>): Library => ({
	...STARTER_LIBRARY,
	drills: { ...STARTER_LIBRARY.drills, [id]: { ...STARTER_LIBRARY.drills[id]!, ...change } },
})

describe('what stands in', () => {
	it('everything closed: nothing at all, not even low work', () => {
		const head: More = { passed: all, reports: [{ kind: 'head', day: '2026-03-19' }] }
		for (const drillId of ['standing-start', 'calf-hold', 'leg-swings', 'kneeling-chest-push'])
			expect(given(head, { drillId })).toBe('no')
	})
	it('for a worry the alternative of its region first, before a lower rung', () => {
		const worry: More = {
			passed: all,
			reports: [{ kind: 'worry', drillId: 'three-point-start', region: 'back-thigh', day: '2026-03-19' }],
		}
		const named = STARTER_LIBRARY.drills['three-point-start']!.alternatives['back-thigh']!
		expect(ask(worry, { drillId: 'three-point-start' }).line?.drillId).toBe(named)
		expect(ask(worry, { ladderId: 'acceleration', rungId: 'three-point-20' }).line?.drillId).toBe(named)
		expect(ask(worry, { drillId: 'standing-start' }).answer).toBe('yes')
	})
	it('for what hurts a lower rung that spares it, highest first, before any alternative', () => {
		const sore: More = { passed: all, reports: [hurt('back-thigh', 4)] }
		expect(given(sore, { ladderId: 'acceleration', rungId: 'three-point-20' })).toBe('instead a-run 20 3×2')
		const lower: Library = withDrill('a-run', { regions: { 'back-thigh': 2 } })
		expect(given(sore, { ladderId: 'acceleration', rungId: 'three-point-20' }, lower)).toMatch(/^instead wall-drill/)
	})
	it('an alternative spares all that is barred, and is itself permitted', () => {
		const bare: Library = withDrill('kneeling-chest-push', {
			regions: { shoulder: 3 },
			alternatives: { shoulder: 'relaxed-skip', knee: 'leg-swings' },
		})
		const asked: Ask = { drillId: 'kneeling-chest-push' }
		expect(given({ passed: all, reports: [hurt('shoulder', 4)] }, asked, bare)).toMatch(/^instead relaxed-skip/)
		// The named one loads the calf, which is closed too: the next that spares both.
		const both = [hurt('shoulder', 4), hurt('calf', 6)]
		expect(given({ passed: all, reports: both }, asked, bare)).toMatch(/^instead leg-swings/)
		expect(given({ passed: all, reports: [...both, hurt('hip', 6)] }, asked, bare)).toBe('no')
	})
	it('of an alternative that is too much, its highest rung that is permitted', () => {
		const bare: Library = withDrill('kneeling-chest-push', {
			regions: { wrist: 3 },
			alternatives: { wrist: 'three-point-start' },
		})
		// No sprint on record: of its 20 m only the lowest rung is left.
		const facts: More = {
			level: 2,
			passed: upTo('acceleration', 'three-point-20'),
			lastWork: { throw: '2026-03-19' },
			reports: [hurt('wrist', 4)],
		}
		expect(given(facts, { drillId: 'kneeling-chest-push' }, bare)).toMatch(/^instead three-point-start 10/)
	})
	it('a drill nobody holds, or none, is no alternative', () => {
		const bare: Library = withDrill('kneeling-chest-push', {
			regions: { shoulder: 3 },
			alternatives: { shoulder: 'gone' },
		})
		expect(given({ passed: all, reports: [hurt('shoulder', 4)] }, { drillId: 'kneeling-chest-push' }, bare)).toBe('no')
	})
	it('a lower form keeps the asked dose, another drill has its own', () => {
		const dose = { sets: 1, reps: 3 }
		expect(given({ passed: all }, { drillId: 'depth-jump', parameters: { heightCm: 75 }, dose })).toBe(
			'less depth-jump 45 1×3',
		)
		const sore: More = { passed: all, reports: [hurt('back-thigh', 4)] }
		expect(given(sore, { drillId: 'three-point-start', parameters: { distanceM: 20 }, dose })).toBe(
			'instead a-run 20 3×2',
		)
	})
	it('a drill on two ladders goes down its own rungs first', () => {
		expect(
			given(
				{ level: 2, passed: upTo('acceleration', 'three-point-10') },
				{ drillId: 'three-point-start', parameters: { distanceM: 30 } },
			),
		).toBe('less three-point-start 20 1×6')
	})
})

describe('less of it', () => {
	const DEPTH: Ask = { drillId: 'depth-jump', parameters: { heightCm: 30 } }
	it('the smallest share alone, whichever order the reasons come in', () => {
		const away = { sprint: '2026-03-12', agility: '2026-03-12', plyometric: '2026-03-12', throw: '2026-03-12' }
		const asked: Ask = { drillId: 'standing-start', parameters: { distanceM: 10 } }
		const full = ask({ passed: all }, asked).line!.dose
		// Intensify leaves 75 %, eight days away 75 %, unloading 60 %.
		expect(ask({ passed: all, lastWork: away, phase: 'unloading' }, asked).findings.map((one) => one.limit)).toEqual([
			'60 % of the dose',
		])
		expect(
			ask({ passed: all, lastWork: { ...away, sprint: '2026-03-01' }, phase: 'intensify' }, asked).findings.map(
				(one) => one.limit,
			),
		).toContain('60 % of the dose')
		expect(full.sets * full.reps).toBeGreaterThan(2)
	})
	it('a session’s rebounds: whole sets go first, then reps', () => {
		// Level 2: 20 shock contacts a session, level 3: 40; a depth jump has two, a double one four.
		const double: Ask = { drillId: 'double-depth-jump', parameters: { heightCm: 15 }, dose: { sets: 2, reps: 5 } }
		expect(given({ level: 3, passed: all }, double)).toBe('yes double-depth-jump 15 2×5')
		expect(given({ level: 3, passed: all }, { ...double, dose: { sets: 3, reps: 5 } })).toBe(
			'less double-depth-jump 15 2×5',
		)
		expect(given({ level: 2, passed: all }, { ...DEPTH, dose: { sets: 5, reps: 5 } })).toBe('less depth-jump 30 2×5')
	})
	describe('the week', () => {
		const jumped = (reps: number): PlainFacts['work'] => [
			{ day: '2026-03-18', drillId: 'broad-jump', parameters: {}, dose: { sets: 1, reps } },
		]
		const starts = (reps: number): PlainFacts['work'] => [
			{ day: '2026-03-17', drillId: 'standing-start', parameters: { distanceM: 10 }, dose: { sets: 1, reps } },
		]
		const asked: Ask = { drillId: 'standing-start', parameters: { distanceM: 10 }, dose: { sets: 1, reps: 6 } }
		// Level 3 may have 24 maximal starts a week without any history [floors of the ramp].
		it.each([
			[18, 'yes standing-start 10 1×6'],
			[19, 'less standing-start 10 1×5'],
			[22, 'less standing-start 10 1×2'],
		])('%i starts done: %s', (done, expected) => {
			const limit = 24
			expect(done + Number(expected.at(-1))).toBeLessThanOrEqual(limit)
			expect(given({ passed: all, work: starts(done) }, asked)).toBe(expected)
		})
		it('a caution, which a name and a reason answer', () => {
			const acknowledged = [{ rule: 'S7' as const, reason: 'a test day', by: 'Marit' }]
			expect(given({ passed: all, work: starts(22), acknowledged }, asked)).toBe('yes standing-start 10 1×6')
		})
		it('is said beside what closes it, and of other work says nothing', () => {
			const shut: More = { passed: all, work: starts(22), ageYears: 25, reports: [{ kind: 'unwell', day: DAY }] }
			expect(ask(shut, asked).findings.map((one) => one.rule)).toEqual(['S3', 'S7'])
			expect(given({ passed: all, work: jumped(60) }, asked)).toBe('yes standing-start 10 1×6')
		})
	})
})

describe('answered', () => {
	it.each([
		['a reason', 'Marit', true],
		[' ', 'Marit', false],
		['a reason', ' ', false],
		['', '', false],
	])('reason “%s” by “%s”: %s', (reason, by, expected) => {
		expect(isAnswered([{ rule: 'S6', reason, by }], 'S6')).toBe(expected)
		expect(isAnswered([{ rule: 'S6', reason, by }], 'S7')).toBe(false)
	})
})

describe('what is concluded', () => {
	it('a restriction of a later day is none yet', () => {
		const facts = factsOf({
			restrictions: [
				{ region: 'knee', since: DAY },
				{ region: 'hip', since: '2026-03-21' },
			],
		})
		expect(facts.restrictions.map((one) => one.region)).toEqual(['knee'])
	})
	// Away is counted over steps of the way back too: they are work of their path's families.
	it.each([
		['re-entry-run', '2026-03-18', 'sprint', '2026-03-18'],
		['re-entry-run', '2026-03-18', 'agility', '2026-03-18'],
		['re-entry-run', '2026-03-18', 'plyometric', '2026-03-10'],
		['re-entry-land', '2026-03-18', 'plyometric', '2026-03-18'],
		['re-entry-throw', '2026-03-18', 'throw', '2026-03-18'],
		['re-entry-run', '2026-03-01', 'sprint', '2026-03-10'],
		['no-such-path', '2026-03-18', 'sprint', '2026-03-10'],
		['re-entry-run', null, 'sprint', '2026-03-10'],
	] as const)('a step of %s on %s: last %s work %s', (path, lastDone, family, expected) => {
		const lastWork = { sprint: '2026-03-10', agility: '2026-03-10', plyometric: '2026-03-10', throw: '2026-03-10' }
		const facts = factsOf({ lastWork, stands: [{ path, step: 'walk', lastDone }] })
		expect(facts.lastWork[family]).toBe(expected)
	})
	it('a step is the only work there is where nothing else is on record', () => {
		expect(
			factsOf({ lastWork: {}, stands: [{ path: 're-entry-run', step: 'walk', lastDone: '2026-03-18' }] }).lastWork
				.sprint,
		).toBe('2026-03-18')
	})
	it('on the way back a step that the athlete’s own gates refused before is left out', () => {
		const back: More = {
			level: 1,
			passed: {},
			reports: [hurt('knee', 8, '2026-03-01')],
			clearances: [cleared('knee', '2026-03-10')],
		}
		const steps = (level: 1 | 3) =>
			known({ ...back, level, passed: level === 3 ? all : {} }).plan.paths.map(({ ladder }) => ladder.id)
		expect(steps(1)).toEqual(['re-entry-land', 're-entry-run'])
		// The full sprint at level 1 and with nothing passed: a 90° cut waited for level 2, so the step after one foot is none.
		const due = (step: string, level: 1 | 3) =>
			known({
				...back,
				level,
				passed: level === 3 ? all : {},
				stands: [{ path: 're-entry-land', step, lastDone: '2026-03-17', answers: [0] }],
			}).plan.paths.find(({ ladder }) => ladder.id === 're-entry-land')?.due?.rung.id ?? 'done'
		const ids = STARTER_LIBRARY.ladders['re-entry-land']!.rungs.map((rung) => rung.id)
		expect(due(ids.at(-2)!, 3)).toBe(ids.at(-1))
		expect(due(ids.at(-2)!, 1)).toBe('done')
	})
	it('a region spared on the way back holds the step to one that is not high', () => {
		const run = (reports: CareReport[]) =>
			concludeFor(
				plainFacts({
					passed: all,
					reports: [hurt('back-thigh', 8, '2026-03-01'), ...reports],
					clearances: [cleared('back-thigh', '2026-03-05')],
					stands: [{ path: 're-entry-run', step: 'run-95', lastDone: '2026-03-16' }],
				}),
				STARTER_LIBRARY,
			).plan.paths[0]!.due!.rung
		const high = run([])
		expect(high.id).toBe('run-95')
		const easy = run([hurt('back-thigh', 3, '2026-03-16')])
		expect((easy.parameters.effortPercent ?? 0) < (high.parameters.effortPercent ?? 0)).toBe(true)
		expect(run([hurt('back-thigh', 1, '2026-03-16')]).id).toBe('run-95')
	})
	it('throws at nothing it is given', () => {
		expect(() => conclude({ ...plainFacts(), library: STARTER_LIBRARY, levelOf: () => 1 })).not.toThrow()
	})
})

describe('the step of the way back', () => {
	/** Cleared after an injury of the back thigh, the step at 60 % due. */
	const onTheWay = (more: More = {}): More => ({
		passed: all,
		reports: [hurt('back-thigh', 8, '2026-03-01'), ...(more.reports ?? [])],
		clearances: [cleared('back-thigh', '2026-03-05')],
		stands: [{ path: 're-entry-run', step: 'run-60', lastDone: '2026-03-18' }],
		...(more.restrictions ? { restrictions: more.restrictions } : {}),
	})
	const STEP: Ask = { drillId: 'build-run', parameters: { effortPercent: 60, distanceM: 30, runInM: 15 } }
	it('may load what is spared on its own path, a little or much, and nothing else that is sore', () => {
		expect(ask(onTheWay(), STEP).answer).toBe('yes')
		expect(ask(onTheWay({ reports: [hurt('back-thigh', 3, '2026-03-19')] }), STEP).answer).toBe('yes')
		expect(ask(onTheWay({ reports: [hurt('back-thigh', 6, '2026-03-19')] }), STEP).answer).not.toBe('yes')
		expect(ask(onTheWay({ reports: [{ kind: 'head', day: '2026-03-19' }] }), STEP).answer).toBe('no')
		expect(ask(onTheWay({ restrictions: [{ region: 'back-thigh', since: '2026-03-19' }] }), STEP).answer).not.toBe(
			'yes',
		)
		expect(ask(onTheWay({ reports: [hurt('back-thigh', 2, '2026-03-19')] }), STEP).answer).toBe('yes')
	})
	it('is not asked for time away nor gates, and what else is asked is told which step is due', () => {
		const { findings } = ask(onTheWay(), { drillId: 'standing-start' })
		expect(findings.filter((one) => one.rule === 'RE').map((one) => [one.tier, one.found, one.limit])).toEqual([
			['block', 'on the way back: back to running, run at 60 %', 'the step that is due, and low work'],
		])
		expect(ask({ ...onTheWay(), lastWork: {} }, STEP).findings).toEqual([])
	})
	it('at its end: two rungs below the highest passed, 60, 75, 90 % by weeks, then all of it', () => {
		const after = (days: number, rungId: string) =>
			given(
				{
					...onTheWay(),
					passed: upTo('acceleration', 'three-point-30'),
					stands: [
						{
							path: 're-entry-run',
							step: STARTER_LIBRARY.ladders['re-entry-run']!.rungs.at(-1)!.id,
							lastDone: new Date(Date.UTC(2026, 2, 20 - days)).toISOString().slice(0, 10),
							answers: [0],
						},
					],
				},
				{ ladderId: 'acceleration', rungId },
			)
		// Two below three-point 30 m is three-point 10 m, 1×6 in full.
		expect(after(3, 'three-point-10')).toBe('less three-point-start 10 1×3')
		expect(after(8, 'three-point-10')).toBe('less three-point-start 10 1×4')
		expect(after(15, 'three-point-10')).toBe('less three-point-start 10 1×5')
		expect(after(22, 'three-point-10')).toBe('yes three-point-start 10 1×6')
		expect(after(3, 'three-point-20')).toBe('less three-point-start 10 1×3')
		expect(after(22, 'three-point-30')).toBe('yes three-point-start 30 1×5')
	})
})

it('a worry looks for the alternative of its own region before those of what is sore', () => {
	const library: Library = withDrill('kneeling-chest-push', {
		alternatives: { knee: 'leg-swings', wrist: 'relaxed-skip' },
	})
	const worry = (region: string): More => ({
		passed: all,
		reports: [
			{ kind: 'worry', drillId: 'kneeling-chest-push', region, day: '2026-03-19' } as CareReport,
			hurt('elbow', 3),
		],
	})
	expect(given(worry('wrist'), { drillId: 'kneeling-chest-push' }, library)).toMatch(/^instead relaxed-skip/)
	expect(given(worry('knee'), { drillId: 'kneeling-chest-push' }, library)).toMatch(/^instead leg-swings/)
})
