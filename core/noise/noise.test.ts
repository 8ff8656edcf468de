import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { asymmetry } from './asymmetry'
import { dropOffPercent, followDropOff } from './drop-off'
import { pairedTrial } from './paired-trial'
import { probabilityOfPass } from './probability-of-pass'
import { readyReference } from './ready-reference'
import { retestError, smallestWorthwhileChangeOfOne } from './retest-error'

describe('drop-off', () => {
	it('is percent of the best in the mark’s own unit, worse is positive', () => {
		expect(dropOffPercent(3.15, 3, 'lower')).toBeCloseTo(5, 10)
		expect(dropOffPercent(28.5, 30, 'higher')).toBeCloseTo(5, 10)
		expect(dropOffPercent(2.9, 3, 'lower')).toBeLessThan(0)
	})

	it('follows the best so far and finds reps running at or past the limit', () => {
		// 3.00 s best; 3.09 s is 3 % off exactly and counts as reached. Not one, but two running.
		expect(followDropOff([3.05, 3, 3.09, 3.02, 3.1], 'lower', 3, 2)).toMatchObject({
			fallIndex: null,
			lastGoodIndex: 3,
		})
		expect(followDropOff([3.05, 3, 3.09, 3.1], 'lower', 3, 2)).toMatchObject({
			fallIndex: 2,
			best: 3,
			lastGoodIndex: 1,
		})
		expect(followDropOff([3.05, 3, 3.09, 3.02], 'lower', 3, 1)).toMatchObject({ fallIndex: 2, lastGoodIndex: 1 })
		// A best that comes later is not held against what came before.
		expect(followDropOff([3.2, 3], 'lower', 3, 1).percents).toEqual([0, 0])
		// A best that comes later is what later reps are held against; reps before it keep theirs.
		const later = followDropOff([40, 38, 42, 39.9, 39.9], 'higher', 5, 2)
		expect(later.percents.map((one) => Number(one.toFixed(4)))).toEqual([0, 5, 0, 5, 5])
		expect(later).toMatchObject({ best: 42, fallIndex: 3, lastGoodIndex: 2 })
		// Equal to the best is the best; the first of a fall can be the first rep after it.
		expect(followDropOff([3, 3, 3.09, 3.09], 'lower', 3, 2)).toMatchObject({ best: 3, fallIndex: 2, lastGoodIndex: 1 })
		expect(followDropOff([3, 3.09, 3.09], 'lower', 3, 2)).toMatchObject({ fallIndex: 1, lastGoodIndex: 0 })
		expect(followDropOff([3, 3.0899, 3.0899], 'lower', 3, 2).fallIndex).toBeNull()
		expect(() => followDropOff([3], 'lower', 3, 1.5)).toThrow('consecutive')
		expect(() => dropOffPercent(0, 3, 'lower')).toThrow('value')
		expect(() => dropOffPercent(3, 0, 'lower')).toThrow('best')
		expect(() => followDropOff([], 'lower', 3, 2)).toThrow('at least 1')
		expect(() => followDropOff([3], 'lower', 3, 0)).toThrow('consecutive')
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
			const values = [
				...Array.from({ length: pairs }, () => a),
				...Array.from({ length: pairs }, () => -a),
				...(n % 2 ? [0] : []),
			]
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
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 2, max: 4, noNaN: true }), { minLength: 2, maxLength: 8 }),
				fc.double({ min: 2, max: 4, noNaN: true }),
				(values, threshold) => {
					const chance = probabilityOfPass(values, threshold, 'lower', 0.02)!
					expect(probabilityOfPass(values, threshold + 0.05, 'lower', 0.02)!).toBeGreaterThanOrEqual(chance)
					expect(
						probabilityOfPass(
							values.map((value) => -value),
							-threshold,
							'higher',
							0.02,
						)!,
					).toBeCloseTo(chance, 9)
				},
			),
		)
	})
})

describe('error of a test', () => {
	it('follows from the differences', () => {
		// By hand: differences 0.1, −0.1, 0.1, −0.1; SD 0.11547; typical error 0.081650; grand mean 5.
		const read = retestError([4, 5.1, 4.9, 6], [4.1, 5, 5, 5.9])
		expect(read.typicalError).toBeCloseTo(0.08165, 5)
		expect(read.meanChange).toBeCloseTo(0, 12)
		expect(read.cvPct).toBeCloseTo(1.633, 3)
		expect(read.mdc).toBeCloseTo(1.96 * Math.SQRT2 * 0.08165, 4)
		expect(read.warnings[0]).toContain('Only 4 athletes')
	})
	it('takes the worthwhile change from the spread between athletes', () => {
		expect(retestError([4, 5, 6], [4, 5, 6])).toMatchObject({ typicalError: 0, mdc: 0 })
		expect(retestError([4, 5, 6], [4, 5, 6]).swc).toBeCloseTo(0.2, 12)
		expect(smallestWorthwhileChangeOfOne([4, 5, 6])).toBeCloseTo(0.3, 12)
	})
	it('scales with the unit, and the percent does not', () => {
		fc.assert(
			fc.property(
				fc.array(fc.tuple(fc.double({ min: 1, max: 9, noNaN: true }), fc.double({ min: 1, max: 9, noNaN: true })), {
					minLength: 2,
					maxLength: 20,
				}),
				(pairs) => {
					const [a, b] = [
						retestError(
							pairs.map((p) => p[0]),
							pairs.map((p) => p[1]),
						),
						retestError(
							pairs.map((p) => p[0] * 100),
							pairs.map((p) => p[1] * 100),
						),
					]
					expect(b.typicalError).toBeCloseTo(a.typicalError * 100, 6)
					expect(b.cvPct!).toBeCloseTo(a.cvPct!, 8)
				},
			),
		)
	})
	it('refuses rounds that do not pair', () => {
		expect(() => retestError([1], [1])).toThrow('test: 1')
		expect(() => retestError([1, 2], [1])).toThrow('retest: 1')
		expect(() => retestError([1, Number.NaN], [1, 2])).toThrow('test[1]: NaN')
		expect(retestError([-1, 1], [1, -1]).cvPct).toBeNull()
	})
})

describe('asymmetry', () => {
	it('is a share of the stronger side, whichever way is better', () => {
		expect(asymmetry([{ left: [2], right: [1.8] }], 'higher', 4)).toMatchObject({
			stronger: 'left',
			real: true,
			consistent: null,
		})
		expect(asymmetry([{ left: [2], right: [1.8] }], 'higher', 4).gapPct).toBeCloseTo(10, 10)
		expect(asymmetry([{ left: [2.2], right: [2] }], 'lower', 12)).toMatchObject({ stronger: 'right', real: false })
	})
	it('mirrors with the sides', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 1, max: 3, noNaN: true }), { minLength: 1, maxLength: 4 }),
				fc.array(fc.double({ min: 1, max: 3, noNaN: true }), { minLength: 1, maxLength: 4 }),
				(left, right) => {
					const [one, other] = [
						asymmetry([{ left, right }], 'lower'),
						asymmetry([{ left: right, right: left }], 'lower'),
					]
					expect(other.gapPct).toBe(one.gapPct)
					expect(other.stronger).toBe(one.stronger === 'left' ? 'right' : one.stronger === 'right' ? 'left' : null)
				},
			),
		)
	})
	it('counts only on the same side every time, and above the test’s own scatter', () => {
		const day = (left: number[], right: number[]) => ({ left, right })
		expect(asymmetry([day([2, 2.02], [1.8, 1.82]), day([2, 2.02], [1.7, 1.72])], 'higher')).toMatchObject({
			real: true,
			consistent: true,
		})
		expect(asymmetry([day([1.8, 1.82], [2, 2.02]), day([2, 2.02], [1.7, 1.72])], 'higher').consistent).toBe(false)
		expect(asymmetry([day([2, 3], [2.1, 2.9])], 'higher').real).toBe(false)
		expect(asymmetry([day([2], [1.9])], 'higher')).toMatchObject({ real: null, cvPct: null })
		expect(asymmetry([day([2], [2])], 'higher', 3)).toMatchObject({ gapPct: 0, stronger: null })
	})
	it('names what is missing', () => {
		expect(() => asymmetry([{ left: [], right: [1] }], 'higher')).toThrow('tests[0].left: 0')
		expect(() => asymmetry([{ left: [1], right: [0] }], 'higher')).toThrow('tests[0].right[0]: 0')
	})
})

describe('drop-off of a given run', () => {
	it('needs as many reps running as asked', () => {
		expect(followDropOff([3, 3.1, 3.2, 3.3], 'lower', 3, 3)).toMatchObject({
			fallIndex: 1,
			lastGoodIndex: 0,
		})
		expect(followDropOff([3, 3.1, 3, 3.1], 'lower', 3, 2)).toMatchObject({ fallIndex: null, lastGoodIndex: 2 })
		expect(followDropOff([3, 3.09], 'lower', 3, 1)).toMatchObject({ fallIndex: 1 })
		expect(() => followDropOff([], 'lower', 3, 2)).toThrow('values: 0')
	})
})

describe('ready reference', () => {
	it('is the median of first reps with a robust spread', () => {
		const reps = [3, 3.02, 2.98, 3.04, 2.96, 3.01, 2.99, 4.5]
		// One bad day moves it little: median 3.005, deviations' median 0.02, spread 0.0297 (all by hand).
		const reference = readyReference(reps, 0.01)!
		expect(reference.median).toBeCloseTo(3.005, 10)
		expect(reference.sd).toBeCloseTo(0.0297, 3)
		expect(readyReference(reps, 0.05)!.sd).toBe(0.05)
		expect(readyReference(reps.slice(1), 0.01)).toBeNull()
		expect(() => readyReference([0], 0.01)).toThrow('firstReps[0]: 0')
	})
})

describe('trial with a control', () => {
	const of = (...differences: number[]) => pairedTrial(differences.map((trial) => ({ trial, control: 0 })))
	it('has the interval of Student’s t', () => {
		// e-Handbook 1.3.6.7.2: t(0.975; 4) = 2.776. Differences 1 … 5: mean 3, SD 1.5811, half 1.963.
		const { difference, interval, answered } = of(1, 2, 3, 4, 5)
		expect(difference).toBe(3)
		expect(interval![0]).toBeCloseTo(3 - 1.963, 3)
		expect(answered).toBe(true)
	})
	it('gives no answer across zero or from a few', () => {
		expect(of(-2, -1, 0, 1, 3).sentence).toContain('the interval holds 0')
		expect(of(1, 1.1).sentence).toBe('No answer yet: 2 of 5 athletes.')
		expect(of(1)).toMatchObject({ interval: null, answered: false })
		expect(() => pairedTrial([])).toThrow('at least one athlete')
		// The control day's change is taken off: 3 − 1, 5 − 2, 4 − 0.
		expect(pairedTrial([3, 5, 4].map((trial, at) => ({ trial, control: [1, 2, 0][at]! })))).toMatchObject({
			n: 3,
			difference: 3,
		})
		// Two athletes have an interval: t(0.975, 1) = 12.7062 times √2 / √2.
		expect(of(1, 3).interval![1]).toBeCloseTo(2 + 12.7062, 3)
		expect(of(1).interval).toBeNull()
		// Five alike are answered either way; an interval that begins at 0 is none.
		expect(of(-1, -1.1, -0.9, -1, -1).answered).toBe(true)
		expect(of(0, 0, 0, 0, 0)).toMatchObject({ answered: false, interval: [0, 0] })
		expect(() => pairedTrial([{ trial: Number.NaN, control: 0 }])).toThrow('changes[0].trial')
		expect(() => pairedTrial([{ trial: 0, control: Number.POSITIVE_INFINITY }])).toThrow('changes[0].control')
	})
})
