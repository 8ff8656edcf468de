import type { EffortZone } from '../../vocabulary/words'
import { inBounds } from '../measure-error'

/**
 * Effort as percent of own best speed over the same distance, start and method.
 *
 * @param timeS this rep, s, above 0
 * @param bestS own best, s, above 0
 * @throws MeasureError when a time is not above 0
 * @example effortPercent(3.2, 3.0) // 93.75
 */
export function effortPercent(timeS: number, bestS: number): number {
	return (inBounds('bestS', bestS, { above: 0, unit: 's' }) / inBounds('timeS', timeS, { above: 0, unit: 's' })) * 100
}

/**
 * Zone of an effort: <75 % easy, 75–<90 tempo, 90–<95 sub-maximal, 95–<98 fast, ≥98 maximal [our setting].
 *
 * @throws MeasureError when a time is not above 0
 * @example effortZone(3.2, 3.0) // 'sub-maximal' (93.75 %)
 */
export function effortZone(timeS: number, bestS: number): EffortZone {
	const percent = effortPercent(timeS, bestS) + 1e-9
	if (percent < 75) return 'easy'
	if (percent < 90) return 'tempo'
	if (percent < 95) return 'sub-maximal'
	return percent < 98 ? 'fast' : 'maximal'
}
