import { mean, sampleStandardDeviation } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure/measure-error'

export interface RetestError {
	/** SD of the differences / √2, in the test's unit. */
	typicalError: number
	/** Mean of retest − test: learning or fatigue between the two. */
	meanChange: number
	/** Typical error as percent of the grand mean; null when that is 0. */
	cvPct: number | null
	/** Smallest worthwhile change: 0.2 × SD between the athletes' means. */
	swc: number
	/** Minimal detectable change: 1.96 · √2 · typical error. */
	mdc: number
	n: number
	warnings: string[]
}

/** Fewer athletes than this and the typical error is itself uncertain by a third and more. */
const FEW_ATHLETES = 10

/**
 * Error of a test from two rounds with the same athletes in the same order. Source: Hopkins 2000, 2004.
 * The CV is typical error over grand mean; other definitions differ.
 *
 * @param test, retest one number an athlete, the same length, at least 2; |value| below 10 000
 * @throws MeasureError outside those ranges
 */
export function retestError(test: readonly number[], retest: readonly number[]): RetestError {
	if (test.length < 2) throw new MeasureError('test', test.length, 'at least 2 athletes')
	if (retest.length !== test.length)
		throw new MeasureError('retest', retest.length, `${test.length} values, one for each of the test`)
	test.forEach((value, index) => inBounds(`test[${index}]`, value, { above: -10_000, below: 10_000 }))
	retest.forEach((value, index) => inBounds(`retest[${index}]`, value, { above: -10_000, below: 10_000 }))
	const differences = test.map((value, index) => retest[index]! - value)
	const means = test.map((value, index) => (retest[index]! + value) / 2)
	const typicalError = sampleStandardDeviation(differences) / Math.SQRT2
	const grand = mean(means)
	const warnings: string[] = []
	if (test.length < FEW_ATHLETES)
		warnings.push(`Only ${test.length} athletes: the error itself is uncertain. ${FEW_ATHLETES} or more are better.`)
	if (grand === 0) warnings.push('The mean is 0, so a percent of it is not defined.')
	return {
		typicalError,
		meanChange: mean(differences),
		cvPct: grand === 0 ? null : (typicalError / Math.abs(grand)) * 100,
		swc: 0.2 * sampleStandardDeviation(means),
		mdc: 1.96 * Math.SQRT2 * typicalError,
		n: test.length,
		warnings,
	}
}

/**
 * Smallest worthwhile change of one athlete: 0.3 × the SD of their own results. Source: Hopkins 2004.
 * @param values at least 2 of the athlete's own results, one method
 */
export function smallestWorthwhileChangeOfOne(values: readonly number[]): number {
	if (values.length < 2) throw new MeasureError('values', values.length, 'at least 2 values')
	values.forEach((value, index) => inBounds(`values[${index}]`, value, {}))
	return 0.3 * sampleStandardDeviation([...values])
}
