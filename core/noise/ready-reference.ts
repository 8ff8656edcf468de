import { median, medianAbsoluteDeviation } from 'simple-statistics'
import { inBounds } from '../measure/measure-error'

export interface ReadyReference {
	/** Median of the first reps. */
	median: number
	/** 1.4826 × median absolute deviation, never under the typical error. */
	sd: number
	n: number
}

/** Of a normal distribution, SD / median absolute deviation. */
const NORMAL_MAD = 1.4826
export const FEWEST_FIRST_REPS = 8

/**
 * What an athlete's first rep usually is, for the ready check: from the first reps of the last sessions,
 * same distance, start and method. A first rep is compared with first reps, not with bests.
 *
 * @param firstReps above 0, one a session
 * @param typicalError of the method, same unit, above 0
 * @returns null with fewer than 8
 * @throws MeasureError when a value is not above 0
 */
export function readyReference(firstReps: readonly number[], typicalError: number): ReadyReference | null {
	inBounds('typicalError', typicalError, { above: 0 })
	firstReps.forEach((value, index) => inBounds(`firstReps[${index}]`, value, { above: 0 }))
	if (firstReps.length < FEWEST_FIRST_REPS) return null
	const values = [...firstReps]
	return {
		median: median(values),
		sd: Math.max(NORMAL_MAD * medianAbsoluteDeviation(values), typicalError),
		n: values.length,
	}
}
