import { MeasureError, inBounds } from '../measure-error'

/**
 * Target of an assisted sprint: MSS × (1 + p) and the time it makes over a segment at that speed.
 *
 * @param mssMps own top speed, 2–13 m/s
 * @param overspeed share above own top speed, above 0
 * @param segmentM above 0 to 100 m
 * @param cap largest share the school allows
 * @throws MeasureError outside the ranges, or above the cap
 * @example assistedTarget(9, 0.03, 20, 0.05) // { speedMps: 9.27, segmentTimeS: 2.157… }
 */
export function assistedTarget(
	mssMps: number,
	overspeed: number,
	segmentM: number,
	cap: number,
): { speedMps: number; segmentTimeS: number } {
	inBounds('mssMps', mssMps, { from: 2, to: 13, unit: 'm/s' })
	inBounds('segmentM', segmentM, { above: 0, to: 100, unit: 'm' })
	inBounds('overspeed', overspeed, { above: 0, to: 0.3 })
	if (overspeed > cap + 1e-12) throw new MeasureError('overspeed', overspeed, `at most ${cap}, the cap in force`)
	const speedMps = mssMps * (1 + overspeed)
	return { speedMps, segmentTimeS: segmentM / speedMps }
}
