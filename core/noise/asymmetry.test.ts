import { describe, expect, it } from 'vitest'
import { asymmetry } from './asymmetry'
import { retestError, smallestWorthwhileChangeOfOne } from './retest-error'
import { METHOD_NAMES } from '../vocabulary/words'
import { finerMethod, ownErrorOf, typicalErrorOf } from './typical-error'

// Gap = (stronger − weaker) / stronger × 100, by the mean of the day's trials; real when larger than the test's
// own CV, a pattern when on the same side again. Source: Exell et al. 2012; Bishop et al. 2021.

describe('the gap', () => {
	it.each([
		// Higher is better: distances and heights.
		['higher', [2], [1.8], 'left', 10],
		['higher', [1.8], [2], 'right', 10],
		['higher', [2], [2], null, 0],
		['higher', [1.9, 2.1], [1.7, 1.9], 'left', 10],
		// Lower is better: times and contacts. The stronger side is the shorter one and the measure of the gap.
		['lower', [2], [2.2], 'left', 10],
		['lower', [2.2], [2], 'right', 10],
		['lower', [0.2], [0.25], 'left', 25],
	] as ['higher' | 'lower', number[], number[], 'left' | 'right' | null, number][])(
		'%s is better, %j against %j: %s by %d %%',
		(better, left, right, stronger, gapPct) => {
			const found = asymmetry([{ left, right }], better, 5)
			expect(found.stronger).toBe(stronger)
			expect(found.gapPct).toBeCloseTo(gapPct, 9)
		},
	)
	it('is the latest day’s; every day stands beside it', () => {
		const found = asymmetry(
			[
				{ left: [2], right: [1.6] },
				{ left: [2], right: [1.9] },
			],
			'higher',
			4,
		)
		expect(found.gapPct).toBeCloseTo(5, 9)
		expect(found.byDay.map((day) => Math.round(day.gapPct))).toEqual([20, 5])
	})
})

describe('real: larger than the test’s own CV', () => {
	it.each([
		[9.99, true],
		[10.01, false],
		[4, true],
		[100, false],
	])('a gap of 10 %% against a CV of %d %%: %s', (cv, real) => {
		expect(asymmetry([{ left: [2], right: [1.8] }], 'higher', cv)).toMatchObject({ real, cvPct: cv })
	})
	it('without a CV and with one trial a side it is not known, and said so', () => {
		const found = asymmetry([{ left: [2], right: [1.8] }], 'higher')
		expect(found).toMatchObject({ real: null, cvPct: null })
		expect(found.warnings.join()).toContain('own error is not known')
	})
	it('the CV comes from repeated trials of one side, pooled', () => {
		// Left 9, 11 (mean 10, variance 2), right 18, 22 (mean 20, variance 8): √((2/100 + 8/400) / 2) = 14.1 %.
		const found = asymmetry([{ left: [9, 11], right: [18, 22] }], 'higher')
		expect(found.cvPct).toBeCloseTo(14.142136, 5)
		expect(found.warnings.join()).not.toContain('own error')
		// One side alone was repeated: √(2/100) = 14.1 % of it.
		expect(asymmetry([{ left: [9, 11], right: [20] }], 'higher').cvPct).toBeCloseTo(14.142136, 5)
		// Three trials weigh twice as much as two: left 9, 10, 11 (variance 1, two degrees), right 18, 22.
		expect(asymmetry([{ left: [9, 10, 11], right: [18, 22] }], 'higher').cvPct).toBeCloseTo(
			100 * Math.sqrt((2 / 100 + 8 / 400) / 3),
			6,
		)
	})
})

describe('a pattern: the same side again', () => {
	const day = (left: number, right: number) => ({ left: [left], right: [right] })
	it.each([
		[[day(2, 1.8)], null],
		[[day(2, 1.8), day(2, 1.9)], true],
		[[day(2, 1.8), day(1.8, 2)], false],
		[[day(1.8, 2), day(1.7, 2), day(1.9, 2)], true],
		[[day(1.8, 2), day(2, 2), day(1.9, 2)], false],
		[[day(1.8, 2), day(2, 2)], false],
	] as [{ left: number[]; right: number[] }[], boolean | null][])('%j: %s', (days, consistent) => {
		const found = asymmetry(days, 'higher', 4)
		expect(found.consistent).toBe(consistent)
		expect(found.warnings.join().includes('One test day')).toBe(days.length === 1)
	})
})

describe('what cannot be', () => {
	it.each([
		[() => asymmetry([], 'higher', 4), 'tests'],
		[() => asymmetry([{ left: [], right: [1] }], 'higher', 4), 'tests[0].left'],
		[() => asymmetry([{ left: [1], right: [] }], 'higher', 4), 'tests[0].right'],
		[() => asymmetry([{ left: [0], right: [1] }], 'higher', 4), 'tests[0].left[0]'],
		[() => asymmetry([{ left: [1], right: [1, -1] }], 'higher', 4), 'tests[0].right[1]'],
		[() => asymmetry([{ left: [1], right: [1] }], 'higher', 0), 'cvPct'],
		[() => asymmetry([{ left: [1], right: [1] }], 'higher', 101), 'cvPct'],
		[() => asymmetry([{ left: [1], right: [1] }], 'sideways' as 'higher', 4), 'better'],
	])('%s names %s', (call, field) => {
		expect(call).toThrow(field)
	})
})

// Typical error = SD of the differences / √2; CV = that over the grand mean; smallest worthwhile change = 0.2 × SD
// between the athletes; minimal detectable change = 1.96 · √2 · typical error. Source: Hopkins 2000, 2004.
describe('error of a test from two rounds', () => {
	it('worked by hand: differences 1, −1, 1, −1', () => {
		// SD of the differences 1.1547; / √2 = 0.8165. Means 10.5, 19.5, 30.5, 39.5, grand mean 25.
		const found = retestError([10, 20, 30, 40], [11, 19, 31, 39])
		expect(found.typicalError).toBeCloseTo(0.816497, 5)
		expect(found.meanChange).toBe(0)
		expect(found.cvPct).toBeCloseTo(3.265986, 5)
		expect(found.mdc).toBeCloseTo(2.263215, 4)
		// Squares about 25: 210.25, 30.25, 30.25, 210.25; SD √(481 / 3) = 12.6623, a fifth of it.
		expect(found.swc).toBeCloseTo(2.532456, 5)
		expect(found.n).toBe(4)
	})
	it('the worked example of Weir 2005 (J Strength Cond Res 19:231–240, eight lifters, two trials): SEM 7.6, MD 21', () => {
		// Data and results from memory of the paper. Mean square error 57.1 of the differences −6, 4, −18, 9, −12, −3, −9, 13.
		const found = retestError([146, 148, 170, 90, 157, 156, 176, 205], [140, 152, 152, 99, 145, 153, 167, 218])
		expect(found.typicalError).toBeCloseTo(7.6, 1)
		expect(found.typicalError ** 2).toBeCloseTo(57.1, 1)
		expect(Math.round(found.mdc)).toBe(21)
	})
	it('learning between the rounds is said apart and is no error', () => {
		const found = retestError([10, 20, 30], [12, 22, 32])
		expect(found.meanChange).toBe(2)
		expect(found.typicalError).toBe(0)
	})
	it.each([
		[9, true],
		[10, false],
	])('%d athletes', (n, few) => {
		const rounds = Array.from({ length: n }, (_, index) => 10 + index)
		expect(retestError(rounds, [...rounds]).warnings.some((words) => words.startsWith('Only'))).toBe(few)
	})
	it('a mean of 0 has no percent', () => {
		expect(retestError([-1, 1], [-1, 1])).toMatchObject({ cvPct: null })
	})
	it.each([
		[[1], [1], 'test'],
		[[1, 2], [1], 'retest'],
		[[1, Number.NaN], [1, 2], 'test[1]'],
		[[1, 2], [10_000, 2], 'retest[0]'],
	])('%j and %j: %s', (test, retest, field) => {
		expect(() => retestError(test, retest)).toThrow(field)
	})
	it('one athlete’s own: 0.3 × the SD of their results', () => {
		expect(smallestWorthwhileChangeOfOne([1, 3])).toBeCloseTo(0.424264, 5)
		expect(() => smallestWorthwhileChangeOfOne([1])).toThrow('values')
	})
})

it('the typical error of a method, until a squad has its own [our setting, from memory]', () => {
	expect(['gate', 'phone', 'stopwatch'].map((method) => typicalErrorOf('sprint', method as 'gate'))).toEqual([
		0.02, 0.04, 0.1,
	])
	expect(['mat', 'film-240', 'film-120'].map((method) => typicalErrorOf('contact', method as 'mat'))).toEqual([
		0.005, 0.006, 0.008,
	])
	expect(typicalErrorOf('height', 'mat')).toBe(0.01)
	expect(typicalErrorOf('height', 'reach')).toBe(0.02)
	expect(typicalErrorOf('distance', 'tape')).toBe(0.05)
	expect(typicalErrorOf('sprint', 'mat')).toBeNull()
	expect(typicalErrorOf('distance', 'gate')).toBeNull()
	expect(Object.values(METHOD_NAMES).every((name) => name.length > 2)).toBe(true)
})

describe('a squad’s own typical error', () => {
	it('stands in from 20 pairs on, shrunk towards the default by their number', () => {
		expect(ownErrorOf('sprint', 'gate', 1, 19)).toBeNull()
		// 20 pairs of 0.04 s against 20 of the default's 0.02 s: √((0.0016 + 0.0004) / 2).
		expect(ownErrorOf('sprint', 'gate', 20 * 0.04 ** 2, 20)).toEqual({ sd: expect.closeTo(0.0316228, 6), pairs: 20 })
		// With 380 pairs it is nearly their own: √((380 · 0.0016 + 20 · 0.0004) / 400).
		expect(ownErrorOf('sprint', 'gate', 380 * 0.04 ** 2, 380)!.sd).toBeCloseTo(0.039243, 6)
		expect(ownErrorOf('height', 'tape', 1, 100)).toBeNull()
	})
	it('is read by kind and method; what it does not hold has the default', () => {
		const own = { 'sprint/gate': { sd: 0.03, pairs: 40 } }
		expect(typicalErrorOf('sprint', 'gate', own)).toBe(0.03)
		expect(typicalErrorOf('sprint', 'phone', own)).toBe(0.04)
		expect(typicalErrorOf('contact', 'gate', own)).toBeNull()
		expect(typicalErrorOf('sprint', 'gate', {})).toBe(0.02)
	})
})

it('the finer method of a kind is the one that errs least, where another errs more', () => {
	expect(finerMethod('sprint', 'stopwatch')).toEqual({ name: 'gate', withinSd: 0.02 })
	expect(finerMethod('sprint', 'phone')).toEqual({ name: 'gate', withinSd: 0.02 })
	expect(finerMethod('sprint', 'gate')).toBeNull()
	expect(finerMethod('contact', 'film-120')).toEqual({ name: 'mat', withinSd: 0.005 })
	expect(finerMethod('height', 'reach')).toEqual({ name: 'mat', withinSd: 0.01 })
	expect(finerMethod('distance', 'tape')).toBeNull()
	// A method that has no error of its own is coarser than any that has.
	expect(finerMethod('height', 'film-240')).toEqual({ name: 'mat', withinSd: 0.01 })
})
