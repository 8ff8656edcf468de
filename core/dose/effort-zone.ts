import type { EffortZone } from '../library/types'

/**
 * Effort as percent of own best speed over the same distance, start and method: <75 easy, 75–<90
 * tempo, 90–<95 sub-maximal, 95–<98 fast, ≥98 maximal [our setting].
 *
 * @throws RangeError when a time is not above 0
 * @example effortZone(3.2, 3.0) // 'sub-maximal' (93.75 %)
 */
export function effortZone(timeS: number, bestS: number): EffortZone {
	if (!(timeS > 0)) throw new RangeError(`timeS: ${timeS} is not above 0`)
	if (!(bestS > 0)) throw new RangeError(`bestS: ${bestS} is not above 0`)
	const percent = (bestS / timeS) * 100 + 1e-9
	if (percent < 75) return 'easy'
	if (percent < 90) return 'tempo'
	if (percent < 95) return 'sub-maximal'
	return percent < 98 ? 'fast' : 'maximal'
}
