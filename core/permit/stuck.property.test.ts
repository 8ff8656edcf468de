import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { TIMES } from '../../tests/support/times'
import { plainFacts, upTo } from '../../tests/support/plain-facts'
import { addDays, daysBetween } from '../calendar/day-count'
import { STARTER_LIBRARY as LIBRARY } from '../library/starter-library'
import type { CareReport, ReturnStand } from '../vocabulary/care'
import { type Family, REGIONS, type Region } from '../vocabulary/words'
import { type Ask, permit } from './permit'
import { type PlainFacts, concludeFor } from './plain-facts'

// Nobody is stuck: from whatever was said, closed, begun or missed, ordinary acts lead back to full training. Those
// acts are: to train what is permitted, to be asked afterwards, to be cleared by a doctor, to be well again, to have
// a worry settled and a hold lifted. Nobody here looks into how the rulebook decides; they only ask it and do.

const START = '2026-03-20'
const RUNS = TIMES * 100
/** Twice-weekly and more; in a year everybody is back, or they are stuck. */
const EVERY_DAYS = 2
const LONGEST_DAYS = 240

const USUAL: readonly { family: Family; asked: Ask }[] = [
	{ family: 'sprint', asked: { drillId: 'three-point-start', parameters: { distanceM: 10 } } },
	{ family: 'agility', asked: { drillId: 'wide-cut', parameters: { angleDeg: 45 } } },
	{ family: 'plyometric', asked: { drillId: 'broad-jump' } },
	{ family: 'throw', asked: { drillId: 'kneeling-chest-push' } },
]
const PASSED = {
	...upTo('acceleration', 'three-point-20'),
	...upTo('cut', 'cut-90'),
	...upTo('bound', 'alternate-bounds'),
	...upTo('throw', 'overhead'),
	...upTo('stiffness', 'pogo'),
	...upTo('brake', 'dead-10'),
	...upTo('shock', 'pause-30'),
}

/** One life: what is on record, and the day. */
interface Life {
	day: string
	reports: CareReport[]
	clearances: PlainFacts['clearances'][number][]
	restrictions: PlainFacts['restrictions'][number][]
	stands: ReturnStand[]
	lastWork: Partial<Record<Family, string>>
}
const factsOf = ({ day, reports, clearances, restrictions, stands, lastWork }: Life) =>
	concludeFor(
		plainFacts({
			day,
			reports,
			clearances,
			restrictions,
			stands,
			lastWork,
			passed: PASSED,
			level: 2,
			phase: 'accumulate',
		}),
		LIBRARY,
	)

/** A training day: what is given is done, its steps are steps, and what was sore and loaded a little is asked about. */
function train(life: Life): boolean {
	const known = factsOf(life)
	const answers = USUAL.map(({ asked }) => permit(known, asked))
	const lines = answers.flatMap((one) => (one.line ? [one.line] : []))
	const loaded = (region: Region) => lines.some((line) => (LIBRARY.drills[line.drillId]!.regions[region] ?? 0) > 0)
	for (const line of lines) life.lastWork[LIBRARY.drills[line.drillId]!.family] = life.day
	for (const { ladder, due, waits } of known.plan.paths) {
		const done = due && !waits && lines.some((line) => line.drillId === due.rung.drillId)
		if (!done) continue
		life.stands = life.stands.filter((one) => one.path !== ladder.id)
		life.stands.push({ path: ladder.id, step: due.rung.id, lastDone: life.day, answers: [0] })
	}
	for (const { region, grade } of known.facts.closures)
		if (grade === 'spare' && region !== 'everything' && loaded(region))
			life.reports.push({ kind: 'pain', region, side: 'both', score: 0, day: life.day, asked: true })
	return answers.every((one) => one.answer === 'yes')
}

/** What a club does about what stands in the way: within a week somebody is seen, rung up or asked. */
function tend(life: Life): void {
	const { facts } = factsOf(life)
	const { day } = life
	const since = (from: string, days: number) => daysBetween(from, day) >= days
	for (const one of facts.closures) {
		if (one.grade === 'everything' && since(one.since, 3))
			life.clearances.push({ region: 'everything', day, by: 'Dr A', role: 'doctor' })
		else if (one.grade === 'closed' && since(one.since, 5))
			life.clearances.push({ region: one.region, day, by: 'Dr A', role: 'physiotherapist' })
		// Where no easy form is left somebody decides.
		else if (one.grade === 'spare' && since(one.since, 14))
			life.clearances.push({ region: one.region, day, by: 'Dr A', role: 'physiotherapist' })
	}
	life.restrictions = life.restrictions.filter((one) => !since(one.since, 10))
	if (facts.unwellSince !== null && since(facts.unwellSince, 2)) life.reports.push({ kind: 'well', day })
	for (const { drillId, since: from } of facts.worries)
		if (since(from, 4)) life.reports.push({ kind: 'settled', drillId, day })
}

/** Days until everything usual is done in full again; null when it never is. */
function back(life: Life): number | null {
	for (let days = 0; days <= LONGEST_DAYS; days += EVERY_DAYS) {
		if (train(life)) return days
		tend(life)
		life.day = addDays(life.day, EVERY_DAYS)
	}
	return null
}

const ago = fc.integer({ min: 0, max: 40 }).map((n) => addDays(START, -n))
const report: fc.Arbitrary<CareReport> = fc.oneof(
	{
		weight: 10,
		arbitrary: fc.record({
			kind: fc.constant('pain' as const),
			region: fc.constantFrom(...REGIONS),
			side: fc.constantFrom('left' as const, 'right' as const, 'both' as const),
			score: fc.integer({ min: 0, max: 10 }),
			redFlag: fc.nat(5).map((n) => n === 0),
			day: ago,
			asked: fc.boolean(),
		}),
	},
	{ weight: 1, arbitrary: ago.map((day): CareReport => ({ kind: 'head', day })) },
	{ weight: 1, arbitrary: ago.map((day): CareReport => ({ kind: 'chest', day })) },
	{ weight: 1, arbitrary: ago.map((day): CareReport => ({ kind: 'unwell', day })) },
	{
		weight: 2,
		arbitrary: fc.record({
			kind: fc.constant('worry' as const),
			drillId: fc.constantFrom('three-point-start', 'broad-jump', 'wide-cut', 'kneeling-chest-push'),
			region: fc.constantFrom('knee' as const, 'back' as const),
			day: ago,
		}),
	},
)
const paths = Object.values(LIBRARY.ladders).filter((ladder) => ladder.path)
const stand: fc.Arbitrary<ReturnStand> = fc.constantFrom(...paths).chain((path) =>
	fc.record({
		path: fc.constant(path.id),
		step: fc.constantFrom(...path.rungs.map((rung) => rung.id)),
		lastDone: fc.option(ago),
		answers: fc.option(fc.array(fc.integer({ min: 0, max: 6 }), { maxLength: 2 }), { nil: undefined }),
	}),
)
const life: fc.Arbitrary<Life> = fc.record({
	day: fc.constant(START),
	reports: fc.array(report, { maxLength: 5 }),
	clearances: fc.array(
		fc.record({
			region: fc.constantFrom(...REGIONS, 'everything' as const),
			day: ago,
			by: fc.constant('Dr A'),
			role: fc.constantFrom('doctor' as const, 'physiotherapist' as const, 'coach' as const),
		}),
		{ maxLength: 2 },
	),
	restrictions: fc.array(
		fc.oneof(
			fc.record({ region: fc.constantFrom(...REGIONS), since: ago }),
			fc.record({ pattern: fc.constantFrom('lateral' as const, 'linear' as const), since: ago }),
		),
		{ maxLength: 1 },
	),
	stands: fc.uniqueArray(stand, { maxLength: 3, selector: (one) => one.path }),
	lastWork: fc.record({ sprint: ago, agility: ago, plyometric: ago, throw: ago }, { requiredKeys: [] }),
})

describe('nobody is stuck', () => {
	it('from every state ordinary acts lead back to full training', () => {
		const days: number[] = []
		fc.assert(
			fc.property(life, (one) => {
				const start = structuredClone(one)
				const took = back(one)
				if (took === null)
					throw new Error(
						`${JSON.stringify(start)} ends at ${JSON.stringify(USUAL.map(({ asked }) => permit(factsOf(one), asked).findings))}`,
					)
				days.push(took)
			}),
			{ numRuns: RUNS, seed: 13 },
		)
		// The states are no easy ones: most take weeks.
		expect(days.filter((one) => one >= 14).length).toBeGreaterThan(days.length / 2)
	}, 120_000)

	it.each([
		['somebody new, of whom nothing is known', {}],
		['a guest of 14 who was never measured', { ageYears: 14 }],
		['the one member of a club, back after a year', { ageYears: 40, massKg: 85, lastWork: { sprint: '2025-03-20' } }],
	] as const)('%s trains today, in every family', (_name, more) => {
		const known = concludeFor(
			plainFacts({ ageYears: null, massKg: null, level: 1, lastWork: {}, phase: 'accumulate', ...more }),
			LIBRARY,
		)
		for (const ladderId of ['acceleration', 'cut', 'shock', 'throw'])
			expect(permit(known, { ladderId }).line, ladderId).not.toBeNull()
	})
})
