import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Random } from '../chance/random'
import { STARTER_LIBRARY } from '../library/starter-library'
import {
	CLEAR_S,
	type FlowAthlete,
	type FlowEntry,
	askedRestS,
	flowAdvice,
	flowAthlete,
	simulateEntry,
	simulateFlow,
} from './flow'
import { searchPlans } from './what-if'

const group = (
	count: number,
	turns: number,
	turnS: number,
	restS: number,
	change: Partial<FlowEntry> = {},
): FlowEntry => ({
	id: 'e',
	name: 'Starts',
	lanes: 1,
	together: 1,
	atOnce: false,
	setUpMin: 0,
	athletes: Array.from({ length: count }, (_, index) => ({
		id: `a${index}`,
		turns,
		turnS,
		restS,
		turnsInSet: turns,
		setRestS: restS,
	})),
	...change,
})

const watched = (entry: FlowEntry): FlowEntry => ({
	...entry,
	athletes: entry.athletes.map((athlete) => ({ ...athlete, watched: true })),
})

describe('flow of a group', () => {
	// One lane, A equal athletes, N turns of r seconds (and the clearing c), rest R: a round lasts max(A(r+c), r+R); worked by hand.
	it('is exact with one lane and equal athletes, whether the lane or the rest sets the pace', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 20 }),
				fc.integer({ min: 1, max: 10 }),
				fc.integer({ min: 1, max: 40 }),
				fc.integer({ min: 0, max: 300 }),
				(athletes, turns, turnS, restS) => {
					const round = Math.max(athletes * (turnS + CLEAR_S), turnS + Math.max(restS, CLEAR_S))
					const seconds = (turns - 1) * round + athletes * (turnS + CLEAR_S) - CLEAR_S
					const flow = simulateEntry(group(athletes, turns, turnS, restS))
					expect(flow.minutes * 60).toBeCloseTo(seconds, 6)
					for (const rest of flow.rests) {
						if (turns === 1) expect(rest.realS).toBeNull()
						else expect(rest.realS).toBeCloseTo(round - turnS, 6)
					}
				},
			),
			{ seed: 4, numRuns: 300 },
		)
	})
	it('never gives less rest than was asked, and more lanes never take longer for equal athletes', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 2, max: 24 }),
				fc.integer({ min: 2, max: 8 }),
				fc.integer({ min: 1, max: 30 }),
				fc.integer({ min: 0, max: 240 }),
				fc.integer({ min: 1, max: 4 }),
				(athletes, turns, turnS, restS, lanes) => {
					const flow = simulateEntry(group(athletes, turns, turnS, restS, { lanes }))
					for (const rest of flow.rests) expect(rest.realS!).toBeGreaterThanOrEqual(restS - 1e-9)
					expect(simulateEntry(group(athletes, turns, turnS, restS, { lanes: lanes + 1 })).minutes).toBeLessThanOrEqual(
						flow.minutes + 1e-9,
					)
				},
			),
			{ seed: 5, numRuns: 200 },
		)
	})
	it('counts one at a time where the coach watches each, whatever the lanes', () => {
		expect(simulateEntry(watched(group(6, 3, 10, 60, { lanes: 3 }))).minutes).toBe(
			simulateEntry(group(6, 3, 10, 60)).minutes,
		)
	})
	it('holds up only those the coach watches', () => {
		const mixed = group(6, 3, 20, 60, { lanes: 6 })
		const one = { ...mixed, athletes: mixed.athletes.map((athlete, index) => ({ ...athlete, watched: index < 2 })) }
		expect(
			simulateEntry(one)
				.rests.slice(2)
				.map((rest) => rest.realS),
		).toEqual([60, 60, 60, 60])
	})
	it('lets everybody go side by side where that is how it is done', () => {
		expect(simulateEntry(group(20, 1, 600, 0, { atOnce: true })).minutes).toBe(10)
	})
	// Machine repair model M/M/1 with a finite population: use = 1 − p0, p0 = 1 / Σ N!/(N−k)! (λ/μ)^k.
	// Source: Gross & Harris, Fundamentals of Queueing Theory, finite-source queues (from memory).
	it('agrees with the finite-source queue when turns and rests are exponential', () => {
		const [athletes, serviceS, thinkS] = [6, 20, 90]
		const random = new Random(11)
		const exponential = (mean: number) => -mean * Math.log(1 - random.next())
		const ratio = serviceS / thinkS
		let [sum, term] = [1, 1]
		for (let k = 1; k <= athletes; k++) {
			term *= (athletes - k + 1) * ratio
			sum += term
		}
		const expected = 1 - 1 / sum
		const turns = 6000
		// Clearing the lane belongs to the service; it is drawn with it.
		const flow = simulateEntry(group(athletes, turns, serviceS, thinkS), {
			turnS: () => exponential(serviceS) - CLEAR_S,
			restS: () => exponential(thinkS) + CLEAR_S,
		})
		const busy = flow.use + (athletes * turns * CLEAR_S) / (flow.minutes * 60)
		expect(Math.abs(busy - expected)).toBeLessThan(0.01)
	})
	it('names the narrow place and what would help', () => {
		const crowded = group(12, 6, 8, 60)
		const flow = simulateEntry(crowded)
		expect(flow.bottleneck).toBe('lanes')
		expect(flowAdvice(crowded, flow)).toMatch(/^Add a lane: \d+ min less/)
		expect(simulateEntry(group(3, 6, 5, 120)).bottleneck).toBe('rest')
		expect(
			flowAdvice(watched(group(12, 6, 8, 20, { lanes: 2 })), simulateEntry(watched(group(12, 6, 8, 20, { lanes: 2 })))),
		).toContain('The coach is the narrow place')
	})
	describe('turns a line into turns, the walk back in the rest', () => {
		const drill = STARTER_LIBRARY.drills['three-point-start']!
		const turns = (sets: number, reps: number, distanceM: number | undefined, repsS: number, setsS: number) =>
			flowAthlete('a', { sets, reps }, { distanceM }, { repsS, setsS }, drill, 5)
		it('a rep each, where others go in the rest', () => {
			// 26 m are walked back in 20 s.
			expect(turns(1, 6, 26, 10, 10)).toEqual({ id: 'a', turns: 6, turnS: 5, restS: 20, turnsInSet: 6, setRestS: 20 })
			// 2 sets of 3×150 m: 2 min between reps, 10 between sets.
			expect(turns(2, 3, 150, 120, 600)).toEqual({
				id: 'a',
				turns: 6,
				turnS: 5,
				restS: 120,
				turnsInSet: 3,
				setRestS: 600,
			})
		})
		it('a set each, where its reps follow each other on the spot: up to 15 s between them', () => {
			// Depth jumps 5×2: two of 5 s with 8 s between them, then 2:30.
			expect(turns(5, 2, undefined, 8, 150)).toMatchObject({ turns: 5, turnS: 18, turnsInSet: 1, setRestS: 150 })
			expect(turns(3, 4, undefined, 0, 60)).toMatchObject({ turns: 3, turnS: 20, turnsInSet: 1, setRestS: 60 })
			expect([turns(2, 2, undefined, 15, 60).turns, turns(2, 2, undefined, 16, 60).turns]).toEqual([2, 4])
		})
	})
	it('rests each turn as its place in the set asks', () => {
		const one = (athlete: Partial<FlowAthlete>): FlowEntry => ({
			...group(1, 1, 0, 0),
			athletes: [{ ...group(1, 6, 26, 120).athletes[0]!, ...athlete }],
		})
		// 2 sets of 3×150 m alone: 6 × 26 s, four rests of 120 s and one of 600 s are 1,236 s.
		const runs = simulateEntry(one({ turnsInSet: 3, setRestS: 600 }))
		expect(runs.minutes * 60).toBeCloseTo(1236, 9)
		// (4 × 120 + 600) / 5 = 216 s asked and had.
		expect(runs.rests[0]).toMatchObject({ askedS: 216 })
		expect(runs.rests[0]!.realS).toBeCloseTo(216, 9)
		// Depth jumps 5×2 alone: 5 turns of 18 s, four rests of 150 s.
		const jumps = simulateEntry(one({ turns: 5, turnS: 18, restS: 150, turnsInSet: 1, setRestS: 150 }))
		expect(jumps.minutes * 60).toBeCloseTo(690, 9)
		expect(askedRestS({ ...group(1, 1, 5, 120).athletes[0]! })).toBe(0)
	})
	it('says what is wrong with impossible plans', () => {
		expect(() => simulateEntry(group(2, 2, 5, 5, { lanes: 0 }))).toThrow('lanes: 0')
		expect(() => simulateEntry(group(2, 2, -5, 5))).toThrow('athletes[0]')
	})
})

describe('what if', () => {
	const entries = [
		group(12, 6, 8, 60, { id: 'starts', setUpMin: 2 }),
		group(12, 3, 20, 60, { id: 'jumps', setUpMin: 2 }),
		group(12, 4, 10, 30, { id: 'cuts' }),
	]
	it('finds plans that fit the minutes with the fewest changes, and looks at every combination', () => {
		const before = simulateFlow(entries).minutes
		const { plans, looked } = searchPlans(entries, { maxLanes: 3, minutes: before - 6 })
		expect(looked).toBe(2 * 6 ** 3)
		expect(plans).toHaveLength(3)
		expect(plans[0]!.minutes).toBeLessThanOrEqual(before - 6)
		expect(plans[0]!.changes).toBe(1)
		// What it promises is what happens.
		const [plan] = plans
		const again = simulateFlow(entries.map((entry) => ({ ...entry, ...plan!.choices[entry.id] })))
		expect(again.minutes).toBeCloseTo(plan!.minutes, 9)
	})
	it('changes nothing where the plan fits already', () => {
		const { plans } = searchPlans(entries, { maxLanes: 3, minutes: 500 })
		expect(plans[0]!.changes).toBe(0)
	})
	it('ends when it is told to, with what it has', () => {
		const { looked, plans } = searchPlans([...entries, group(12, 5, 12, 45, { id: 'more' })], {
			maxLanes: 4,
			minutes: 10,
			onProgress: () => false,
		})
		expect(looked).toBe(200)
		expect(plans.length).toBeGreaterThan(0)
	})
})
