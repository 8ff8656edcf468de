import { MeasureError, inBounds } from '../measure-error'
import { writeDistance } from '../../words/units'

/** A cumulative time at a distance, both from the same starting point. */
export interface SprintSplit {
	distanceM: number
	timeS: number
}

export interface SprintSegment {
	fromM: number
	toM: number
	timeS: number
	/** Mean speed over the segment. */
	speedMps: number
}

/** No segment of a person's sprint is faster: the best 10 m ever run are near 12.4 m/s, and a short segment carries timing error on top. */
const IMPOSSIBLE_MPS = 20
/** A sprint that slows to this share of its earlier speed was broken off or mistyped. */
const BROKEN_OFF_SHARE = 0.6
const START: SprintSplit = { distanceM: 0, timeS: 0 }

/**
 * Checks a list of splits: distances above 0 to 400 m and times above 0 to 120 s, both rising, no segment
 * faster than a person or so slow that the sprint was broken off.
 *
 * @throws MeasureError naming the split and the field
 */
export function checkSplits(splits: readonly SprintSplit[], atLeast: number): void {
	if (!Array.isArray(splits)) throw new MeasureError('splits', splits, 'a list of splits')
	if (splits.length < atLeast || splits.length > 100)
		throw new MeasureError('splits', splits.length, `${atLeast} to 100 splits`)
	let fastest = 0
	for (const [index, { distanceM, timeS }] of splits.entries()) {
		const before = splits[index - 1] ?? START
		// Names are put together only for a refusal: this stands before every fit.
		if (!(Number.isFinite(distanceM) && distanceM > 0 && distanceM <= 400))
			inBounds(`splits[${index}].distanceM`, distanceM, { above: 0, to: 400, unit: 'm' })
		if (!(Number.isFinite(timeS) && timeS > 0 && timeS <= 120))
			inBounds(`splits[${index}].timeS`, timeS, { above: 0, to: 120, unit: 's' })
		if (!(distanceM > before.distanceM))
			throw new MeasureError(
				`splits[${index}].distanceM`,
				distanceM,
				`more than ${writeDistance(before.distanceM)}, the split before`,
			)
		if (!(timeS > before.timeS))
			throw new MeasureError(`splits[${index}].timeS`, timeS, `more than ${before.timeS} s, the split before`)
		const speed = (distanceM - before.distanceM) / (timeS - before.timeS)
		if (speed > IMPOSSIBLE_MPS)
			throw new MeasureError(
				`splits[${index}].timeS`,
				timeS,
				`a time a person can run: ${before.distanceM}–${distanceM} m would be at ${speed.toFixed(1)} m/s`,
			)
		// A tenth of a second of slack: over a short segment timing error alone can look like slowing.
		const slowest = (distanceM - before.distanceM) / (timeS - before.timeS - 0.1)
		if (slowest > 0 && slowest < BROKEN_OFF_SHARE * fastest) {
			throw new MeasureError(
				`splits[${index}].timeS`,
				timeS,
				`a sprint that goes on: ${before.distanceM}–${distanceM} m at ${speed.toFixed(1)} m/s follows ${fastest.toFixed(1)} m/s`,
			)
		}
		fastest = Math.max(fastest, speed)
	}
}

/**
 * Mean speed of each segment between splits, the first from the start.
 *
 * @throws MeasureError on splits that do not rise
 * @example splitSegments([{ distanceM: 10, timeS: 2 }, { distanceM: 20, timeS: 3.25 }]) // 5 m/s, then 8 m/s
 */
export function splitSegments(splits: readonly SprintSplit[]): SprintSegment[] {
	checkSplits(splits, 1)
	return segmentsOf(splits)
}

/** As splitSegments, for splits already checked. */
export function segmentsOf(splits: readonly SprintSplit[]): SprintSegment[] {
	return splits.map(({ distanceM, timeS }, index) => {
		const before = splits[index - 1] ?? START
		const seconds = timeS - before.timeS
		return {
			fromM: before.distanceM,
			toM: distanceM,
			timeS: seconds,
			speedMps: (distanceM - before.distanceM) / seconds,
		}
	})
}

/**
 * The fly: the last segment, after a run-in.
 *
 * @throws MeasureError with fewer than two splits
 * @example flySegment([{ distanceM: 20, timeS: 3 }, { distanceM: 30, timeS: 4 }]).speedMps // 10
 */
export function flySegment(splits: readonly SprintSplit[]): SprintSegment {
	checkSplits(splits, 2)
	return segmentsOf(splits).at(-1)!
}
