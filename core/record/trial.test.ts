import { describe, expect, it } from 'vitest'
import { Random } from '../chance/random'
import {
	MOST_PAIRS,
	type TrialPair,
	changePercent,
	drawDays,
	nextCondition,
	pairDays,
	pairSdPercent,
	pairsFor,
	readTrial,
} from './trial'

const pairs = (...differences: number[]): TrialPair[] =>
	differences.map((one) => ({ treatment: one + 0.3, control: 0.3 }))

describe('what a day changed', () => {
	it('is percent of before, better above 0', () => {
		expect(changePercent(3, 2.97, 'lower')).toBeCloseTo(1, 9)
		expect(changePercent(0.4, 0.41, 'higher')).toBeCloseTo(2.5, 9)
		expect(changePercent(0.4, 0.39, 'higher')).toBeCloseTo(-2.5, 9)
		expect(() => changePercent(0, 1, 'lower')).toThrow('before')
		expect(() => changePercent(1, 0, 'lower')).toThrow('after')
	})
	it('scatters by four means of so many reps', () => {
		// 0.65 % a rep, three before and three after, two days: 0.65 · √(4/3).
		expect(pairSdPercent(0.65, 3)).toBeCloseTo(0.65 * Math.sqrt(4 / 3), 9)
		expect(pairSdPercent(0.65, 1)).toBeCloseTo(1.3, 9)
	})
})

describe('how many pairs find a worthwhile effect', () => {
	// The fewest with a power of 0.8 by the noncentral t, SciPy 1.17 (scipy.stats.nct).
	it.each([
		[0.5, 0.025, 6],
		[0.75, 0.025, 9],
		[1, 0.025, 13],
		[1.5, 0.025, 24],
		[2, 0.025, 41],
		[0.75, 0.0125, 10],
		[1, 0.0125, 15],
	])('a spread of %f %%, %f two-sided: from %d', (sd, alpha, fewest) => {
		const asked = pairsFor(sd, 1, alpha)
		expect(asked).toBe(fewest)
		// Twice the spread and twice the effect are the same question.
		expect(pairsFor(2 * sd, 2, alpha)).toBe(asked)
	})
	it('asks nobody for more than sixty, nor for fewer than four', () => {
		expect(pairsFor(10, 1, 0.025)).toBe(MOST_PAIRS)
		expect(pairsFor(0.01, 1, 0.025)).toBe(4)
		expect(() => pairsFor(0, 1, 0.025)).toThrow('sdPct')
		expect(() => pairsFor(1, 0, 0.025)).toThrow('worthwhilePct')
	})
})

describe('an athlete’s trial', () => {
	// Student 1908, the sleep of ten patients under two drugs (from memory): hours gained more with the second.
	const STUDENT = [1.2, 2.4, 1.3, 1.3, 0, 1, 1.8, 0.8, 4.6, 1.4]
	it('reads Student’s ten differences as he did: a mean of 1.58, plainly above 0', () => {
		// A spread of 1.23 against a worthwhile 2.5 asks for fewer than ten pairs.
		const read = readTrial(pairs(...STUDENT), 'height', 1.23)
		expect(read.difference).toBeCloseTo(1.58, 9)
		expect(read.answer).toBe('helps')
		const all = readTrial(pairs(...STUDENT), 'height', 2.05)
		// 95 % of the ten: 0.70 to 2.46 (published with every statistics package); the first look asks for 97.5 %.
		expect(all.confidence).toBeCloseTo(97.5, 9)
		// SciPy 1.17: t(0.9875, 9) = 2.6850 · 1.2300 / √10 = 1.0443.
		expect(all.interval![0]).toBeCloseTo(1.58 - 1.04434, 4)
		expect(all.interval![1]).toBeCloseTo(1.58 + 1.04434, 4)
		expect(all.sentence).toBe('Helps: 0.5 % to 2.6 % better with it than without, over 10 pairs of days.')
		expect(readTrial(pairs(...STUDENT.map((one) => -one)), 'height', 2.05).sentence).toBe(
			'Makes it worse: −2.6 % to −0.5 % with it, over 10 pairs of days.',
		)
	})
	it('says nothing before the announced number is there, and how many are left', () => {
		const before = readTrial([], 'sprint', 0.75)
		expect(before).toMatchObject({ pairs: 0, difference: null, interval: null, answer: 'no answer yet', more: 9 })
		expect(before.sentence).toBe('No answer yet: no pair of days, about 9 more.')
		// Plain as it may look.
		const early = readTrial(pairs(2, 2.1, 1.9, 2, 2.1), 'sprint', 0.75)
		expect(early).toMatchObject({ pairs: 5, answer: 'no answer yet', interval: null })
		// Nine were announced, and five are there.
		expect(early.more).toBe(4)
		expect(early.sentence).toBe('No answer yet: 5 pairs of days, about 4 more.')
		expect(readTrial(pairs(1), 'sprint', 0.75).sentence).toBe('No answer yet: 1 pair of days, about 8 more.')
	})
	it('helps where the interval leaves 0 out, makes it worse the other way, and does not where what is worth it is left out', () => {
		const nine = [0.2, -0.3, 0.4, -0.1, 0, 0.3, -0.4, 0.1, -0.2]
		const shifted = (by: number) => readTrial(pairs(...nine.map((one) => one + by)), 'sprint', 0.75)
		expect(shifted(1).answer).toBe('helps')
		expect(shifted(-1).answer).toBe('makes it worse')
		expect(shifted(0).answer).toBe('does not')
		expect(shifted(0).sentence).toMatch(
			/^Does not: with it −0\.\d % to 0\.\d %; 1\.0 % would be worth it\. Over 9 pairs of days\.$/,
		)
		expect(shifted(1).sentence).toMatch(
			/^Helps: 0\.\d % to 1\.\d % better with it than without, over 9 pairs of days\.$/,
		)
	})
	it('asks for more where what is seen scatters more than was thought', () => {
		const wild = [3, -3, 2.5, -2, 3, -2.5, 2, -3, 2.8]
		const read = readTrial(pairs(...wild), 'sprint', 0.75)
		expect(read).toMatchObject({ answer: 'no answer yet', interval: null })
		expect(read.more).toBeGreaterThan(10)
	})
	it('is overturned by what comes after', () => {
		const first = [1.2, 0.7, 1.4, 0.9, 1, 1.3, 0.6, 1.1, 0.8]
		expect(readTrial(pairs(...first), 'sprint', 0.75).answer).toBe('helps')
		const later = [-1.2, -0.7, -1.4, -0.9, -1, -1.3, -0.6, -1.1, -0.8, -1]
		expect(readTrial(pairs(...first, ...later, ...later), 'sprint', 0.75).answer).not.toBe('helps')
	})
	it('shares what it may err among its outcomes: two ask for more than one', () => {
		expect(readTrial([], 'sprint', 0.75, 2).more).toBeGreaterThan(readTrial([], 'sprint', 0.75, 1).more)
		expect(() => readTrial([], 'sprint', 0.75, 0)).toThrow('outcomes')
	})
})

/**
 * Trials as they would be run, seed 8, 2,000 each: raw reps of two days with their own day's form, a spread of reps the
 * analysis does not know (its default is 0.65 %), looked at after every pair until it answers or has gone on for three
 * times what was announced at first.
 */
describe('simulated trials', () => {
	const REPS = 3
	const prior = pairSdPercent(0.65, REPS)
	function run(random: Random, effect: number, repPercent: number) {
		const announced = readTrial([], 'sprint', prior).more
		const kept: TrialPair[] = []
		const mean = (able: number) => {
			let sum = 0
			for (let rep = 0; rep < REPS; rep++) sum += able * (1 + random.normal(repPercent / 100))
			return sum / REPS
		}
		const day = (gain: number) => {
			const able = 3.1 * (1 + random.normal(0.01))
			return changePercent(mean(able), mean(able * (1 - gain / 100)), 'lower')
		}
		let asked = announced
		while (kept.length < 3 * announced) {
			kept.push({ treatment: day(effect), control: day(0) })
			const read = readTrial(kept, 'sprint', prior)
			if (read.interval !== null) return { ...read, asked }
			asked = read.pairs + read.more
		}
		return { ...readTrial(kept, 'sprint', prior), asked }
	}
	it.each([0.5, 0.65, 0.8])('without an effect, reps scattering by %f %%: “helps” in at most 5 %%', (repPercent) => {
		const random = new Random(8)
		let helps = 0
		for (let i = 0; i < 2000; i++) if (run(random, 0, repPercent).answer === 'helps') helps++
		expect(helps / 2000).toBeLessThanOrEqual(0.05)
	})
	it.each([0.5, 0.65, 0.8])(
		'with an effect of one smallest worthwhile change, reps scattering by %f %%: found with what was announced in 80 %%',
		(repPercent) => {
			const random = new Random(8)
			let found = 0
			for (let i = 0; i < 2000; i++) {
				const read = run(random, 1, repPercent)
				if (read.answer === 'helps' && read.pairs <= read.asked) found++
			}
			expect(found / 2000).toBeGreaterThanOrEqual(0.8)
		},
	)
	it('looked at for ever without an effect, says “helps” at some time in at most 5 %', () => {
		const random = new Random(9)
		let ever = 0
		for (let i = 0; i < 400; i++) {
			const kept: TrialPair[] = []
			let said = false
			for (let pair = 0; pair < 40 && !said; pair++) {
				kept.push({ treatment: random.normal(0.53), control: random.normal(0.53) })
				said = readTrial(kept, 'sprint', prior).answer === 'helps'
			}
			if (said) ever++
		}
		expect(ever / 400).toBeLessThanOrEqual(0.05)
	})
})

describe('the order of days', () => {
	it('has one of each in every pair, half of the pairs begun with each', () => {
		for (const seed of [1, 2, 3, 99]) {
			const days = drawDays(8, seed)
			expect(days).toHaveLength(16)
			const firsts = days.filter((_, index) => index % 2 === 0)
			for (let pair = 0; pair < 8; pair++) expect(new Set(days.slice(2 * pair, 2 * pair + 2)).size).toBe(2)
			expect(firsts.filter((one) => one === 'treatment')).toHaveLength(4)
		}
	})
	it('is the same for the same seed, and not for all seeds', () => {
		expect(drawDays(8, 5)).toEqual(drawDays(8, 5))
		expect(new Set([1, 2, 3, 4, 5, 6].map((seed) => drawDays(8, seed).join())).size).toBeGreaterThan(3)
	})
	it('of an odd number begins oftener with either, by chance', () => {
		const begun = [...Array(40).keys()].map(
			(seed) => drawDays(5, seed).filter((one, index) => index % 2 === 0 && one === 'treatment').length,
		)
		expect(new Set(begun)).toEqual(new Set([2, 3]))
	})
})

describe('an athlete’s next day', () => {
	const plan = { pairs: 3, seed: 5 }
	const order = (athlete: string, days = 6) =>
		Array.from({ length: days }, (_, done) => nextCondition(plan, athlete, done))
	it('follows the order drawn for them: a day with and one without in every pair', () => {
		for (const athlete of ['a', 'b', 'c'])
			for (let pair = 0; pair < 3; pair++) expect(new Set(order(athlete).slice(2 * pair, 2 * pair + 2)).size).toBe(2)
		expect(order('a')).toEqual(order('a'))
	})
	it('is not everybody’s alike, and goes on past what was announced', () => {
		expect(
			new Set(['a', 'b', 'c', 'd', 'e', 'f', 'g', 'h'].map((athlete) => order(athlete).join())).size,
		).toBeGreaterThan(2)
		const long = order('a', 12)
		for (let pair = 0; pair < 6; pair++) expect(new Set(long.slice(2 * pair, 2 * pair + 2)).size).toBe(2)
	})
})

describe('pairs of days', () => {
	const day = (on: string, condition: 'treatment' | 'control', before: number, at5?: number) => ({
		day: on,
		condition,
		before,
		after: (at5 === undefined ? {} : { 5: at5 }) as Record<string, number>,
	})
	it('put the first with beside the first without, whatever order they came in', () => {
		const days = [
			day('2026-03-09', 'control', 3, 3.03),
			day('2026-03-02', 'treatment', 3, 2.97),
			day('2026-03-05', 'control', 3, 3),
			day('2026-03-12', 'treatment', 3, 2.94),
			day('2026-03-16', 'treatment', 3, 2.7),
		]
		expect(
			pairDays(days, 5, 'lower').map(({ treatment, control }) => [treatment.toFixed(3), control.toFixed(3)]),
		).toEqual([
			['1.000', '0.000'],
			['2.000', '-1.000'],
		])
		expect(pairDays(days, 10, 'lower')).toEqual([])
		expect(pairDays([day('2026-03-02', 'treatment', 3), day('2026-03-05', 'control', 3, 3)], 5, 'lower')).toEqual([])
	})
})
