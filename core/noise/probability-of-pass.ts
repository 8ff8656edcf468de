import normalCdf from '@stdlib/stats-base-dists-normal-cdf'
import tCdf from '@stdlib/stats-base-dists-t-cdf'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import type { Better } from './drop-off'

/**
 * Chance that the athlete's true mean meets a threshold, given the reps seen. Student's t with
 * n − 1 degrees of freedom and SD = max(sample SD, typical error); with one rep, normal with the
 * typical error. Equality counts as met. Null is the honest "not enough to say".
 *
 * @param values marks of one method, in the threshold's unit
 * @param typicalError in the same unit, above 0; null when unknown
 * @example probabilityOfPass([3.0, 3.1], 3.05, 'lower', 0.02) // 0.5
 */
export function probabilityOfPass(
	values: readonly number[],
	threshold: number,
	better: Better,
	typicalError: number | null,
): number | null {
	const n = values.length
	if (n === 0 || !Number.isFinite(threshold)) return null
	const average = mean([...values])
	const margin = better === 'lower' ? threshold - average : average - threshold
	if (n === 1) return typicalError === null ? null : normalCdf(margin, 0, typicalError)
	const sd = Math.max(sampleStandardDeviation([...values]), typicalError ?? 0)
	if (sd === 0) return margin >= 0 ? 1 : 0
	return tCdf((margin * Math.sqrt(n)) / sd, n - 1)
}
