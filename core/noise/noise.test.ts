import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { dropOffPercent, readDropOff } from './drop-off'
import { probabilityOfPass } from './probability-of-pass'
import { typicalErrorOf } from './typical-error'

describe('drop-off', () => {
	it('is percent of the best in the mark’s own unit, worse is positive', () => {
		expect(dropOffPercent(3.15, 3, 'lower')).toBeCloseTo(5, 10)
		expect(dropOffPercent(28.5, 30, 'higher')).toBeCloseTo(5, 10)
		expect(dropOffPercent(2.9, 3, 'lower')).toBeLessThan(0)
	})

	it('suggests the end after two reps running at the limit, not after one', () => {
		// 3.00 s best; 3.09 s is 3 % off exactly and counts as reached.
		expect(readDropOff([3.05, 3, 3.09], 'lower', 3, 0.02)).toMatchObject({ endTheSet: false, repsBeforeFall: null })
		expect(readDropOff([3.05, 3, 3.09, 3.02, 3.1], 'lower', 3, 0.02)).toMatchObject({ endTheSet: false })
		const ended = readDropOff([3.05, 3, 3.09, 3.1], 'lower', 3, 0.02)
		expect(ended).toMatchObject({ endTheSet: true, repsBeforeFall: 2, best: 3, bestIndex: 1 })
		expect(ended?.limitPercent).toBe(3)
	})

	it('compares with the best so far, not with one that came later', () => {
		expect(readDropOff([3.2, 3], 'lower', 3, 0.02)?.percents).toEqual([0, 0])
	})

	it('widens the limit to three typical errors of the method', () => {
		// 3 × 0.04 s on a best of 3.00 s is 4 %.
		expect(readDropOff([3, 3.1, 3.1], 'lower', 3, 0.04)).toMatchObject({ limitPercent: 4, endTheSet: false })
		expect(readDropOff([3, 3.12, 3.13], 'lower', 3, 0.04)?.endTheSet).toBe(true)
	})

	it('makes no suggestion when the timing is too coarse', () => {
		expect(readDropOff([3, 3.6, 3.7], 'lower', 3, typicalErrorOf('sprint', 'stopwatch'))).toMatchObject({ tooCoarse: true, endTheSet: false, repsBeforeFall: null })
		expect(readDropOff([3, 3.6, 3.7], 'lower', 3, null)?.tooCoarse).toBe(true)
	})

	it('says nothing of no reps, and refuses a mark of 0', () => {
		expect(readDropOff([], 'lower', 3, 0.02)).toBeNull()
		expect(() => readDropOff([0, 3], 'lower', 3, 0.02)).toThrow('above 0')
	})

	it('never ends a set on reps that only get better', () => {
		fc.assert(fc.property(fc.uniqueArray(fc.double({ min: 1, max: 10, noNaN: true }), { minLength: 1, maxLength: 10 }), (values) => {
			const rising = [...values].sort((a, b) => b - a)
			expect(readDropOff(rising, 'lower', 3, 0.02)?.endTheSet).toBe(false)
			expect(readDropOff([...rising].reverse(), 'higher', 3, 0.02)?.endTheSet).toBe(false)
		}))
	})
})

describe('probability of a pass', () => {
	it('is one half when the mean meets the threshold exactly', () => {
		expect(probabilityOfPass([3, 3.1], 3.05, 'lower', 0.02)).toBeCloseTo(0.5, 10)
		expect(probabilityOfPass([3.05], 3.05, 'lower', 0.02)).toBeCloseTo(0.5, 10)
	})

	it('agrees with the table of Student’s t', () => {
		// NIST/SEMATECH e-Handbook of Statistical Methods, 1.3.6.7.2: t(0.95; 4) = 2.132, t(0.90; 9) = 1.383.
		const at = (n: number, t: number) => {
			// n values with mean 0 and sample SD 1: ±a in pairs (and a 0 when n is odd).
			const pairs = Math.floor(n / 2)
			const a = Math.sqrt((n - 1) / (2 * pairs))
			const values = [...Array.from({ length: pairs }, () => a), ...Array.from({ length: pairs }, () => -a), ...(n % 2 ? [0] : [])]
			return probabilityOfPass(values, t / Math.sqrt(n), 'lower', null)
		}
		expect(at(5, 2.132)).toBeCloseTo(0.95, 3)
		expect(at(10, 1.383)).toBeCloseTo(0.9, 3)
	})

	it('agrees with the standard normal for one rep', () => {
		// Standard normal table: Φ(1.645) = 0.950.
		expect(probabilityOfPass([3], 3 + 1.645 * 0.02, 'lower', 0.02)).toBeCloseTo(0.95, 3)
	})

	it('never trusts a spread smaller than the typical error', () => {
		const tight = probabilityOfPass([3, 3, 3], 3.01, 'lower', 0.02)
		expect(tight).toBeGreaterThan(0.5)
		expect(tight).toBeLessThan(0.9)
		expect(probabilityOfPass([3, 3, 3], 3.01, 'lower', null)).toBe(1)
	})

	it('says so when it does not know', () => {
		expect(probabilityOfPass([], 3, 'lower', 0.02)).toBeNull()
		expect(probabilityOfPass([3], 3, 'lower', null)).toBeNull()
	})

	it('rises with an easier threshold, and mirrors for higher marks', () => {
		fc.assert(fc.property(fc.array(fc.double({ min: 2, max: 4, noNaN: true }), { minLength: 2, maxLength: 8 }), fc.double({ min: 2, max: 4, noNaN: true }), (values, threshold) => {
			const chance = probabilityOfPass(values, threshold, 'lower', 0.02)!
			expect(probabilityOfPass(values, threshold + 0.05, 'lower', 0.02)!).toBeGreaterThanOrEqual(chance)
			expect(probabilityOfPass(values.map((value) => -value), -threshold, 'higher', 0.02)!).toBeCloseTo(chance, 9)
		}))
	})
})
