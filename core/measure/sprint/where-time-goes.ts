import type { SprintProfile } from './fit-profile'
import { type SprintSegment, type SprintSplit, checkSplits, segmentsOf } from './splits'

export interface SegmentReading extends SprintSegment {
	/** Seconds slower than the athlete's own fitted curve over the segment; negative is faster. */
	offCurveS: number
	/** Seconds slower than the athlete's own best over the same segment; null when none is known. */
	offBestS: number | null
	/** Slower than the curve by more than timing error explains. */
	weak: boolean
}

/**
 * Where the time goes: each segment against the athlete's own curve and own best segments. A segment is
 * called weak only when it is slower by more than twice the timing error of a segment, which has two
 * beams: 2 · √2 · error of one time.
 *
 * @param timingErrorS error of one split time, s, above 0 (a gate about 0.01)
 * @param best own best seconds by segment, keyed `from–to` in metres as `10-20`
 * @returns one reading a segment, in order
 */
export function whereTimeGoes(
	splits: readonly SprintSplit[],
	profile: Pick<SprintProfile, 'fittedS'>,
	timingErrorS: number,
	best: Readonly<Record<string, number>> = {},
): SegmentReading[] {
	checkSplits(splits, 2)
	const limitS = 2 * Math.SQRT2 * timingErrorS
	return segmentsOf(splits).map((segment, index) => {
		const modelS = profile.fittedS[index]! - (profile.fittedS[index - 1] ?? 0)
		const known = best[`${segment.fromM}-${segment.toM}`]
		const offCurveS = segment.timeS - modelS
		return {
			...segment,
			offCurveS,
			offBestS: known === undefined ? null : segment.timeS - known,
			weak: offCurveS > limitS,
		}
	})
}

const weakest = (readings: readonly SegmentReading[]): SegmentReading | undefined =>
	readings.filter((reading) => reading.weak).sort((a, b) => b.offCurveS - a.offCurveS)[0]

/**
 * The reading in words: the weakest segment, or that none stands out.
 * @example "10–20 m is 0.04 s slower than your own curve."
 */
export function weakPartInWords(readings: readonly SegmentReading[]): string {
	const weak = weakest(readings)
	return weak
		? `${weak.fromM}–${weak.toM} m is ${weak.offCurveS.toFixed(2)} s slower than your own curve.`
		: 'No segment stands out from your own curve by more than timing error.'
}

/** From so far on a start is over and what is lost is lost at speed, m [our setting]. */
const AT_SPEED_FROM_M = 20
/**
 * The ladder whose work the weakest segment asks for: the start's, or that of top speed.
 *
 * @returns null where no segment stands out
 */
export function ladderOfWeakPart(readings: readonly SegmentReading[]): 'acceleration' | 'top-speed' | null {
	const weak = weakest(readings)
	if (!weak) return null
	return weak.fromM < AT_SPEED_FROM_M ? 'acceleration' : 'top-speed'
}
