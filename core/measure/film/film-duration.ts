import { MeasureError, inBounds } from '../measure-error'

export interface FilmDuration {
	durationS: number
	/** 1 / (rate · √6): the difference of two errors each even over one frame. */
	standardErrorS: number
	/** One frame. */
	worstCaseS: number
	warnings: string[]
}

/** Fewer frames than this and a frame more or less decides the result. */
const FEWEST_FRAMES = 5
/** Rates that phones film at, frames a second [common practice, no source]. */
const COMMON_RATES = [60, 120, 240, 480, 960]

export const FPS_BOUNDS = { from: 10, to: 2000, unit: 'frames a second' } as const

/** Standard error in seconds of a duration read between two frames at a rate in frames a second. */
export const filmStandardError = (fps: number): number => 1 / (inBounds('fps', fps, FPS_BOUNDS) * Math.sqrt(6))

/**
 * A duration from two frames of a film. Each frame is off by up to half a frame, evenly; the difference
 * of two such errors, averaged over durations, has a standard error of 1/√6 frame.
 *
 * @param fromFrame, toFrame whole numbers from 0, the second after the first
 * @param fps the rate it was filmed at, 10–2000, whatever rate the file plays at
 * @throws MeasureError outside those ranges
 * @example filmDuration(120, 168, 240).durationS // 0.2
 */
export function filmDuration(fromFrame: number, toFrame: number, fps: number): FilmDuration {
	inBounds('fromFrame', fromFrame, { from: 0, to: 1e8, whole: true })
	inBounds('toFrame', toFrame, { from: 0, to: 1e8, whole: true })
	inBounds('fps', fps, FPS_BOUNDS)
	const frames = toFrame - fromFrame
	if (!(frames > 0)) throw new MeasureError('toFrame', toFrame, `after frame ${fromFrame}`)
	const durationS = frames / fps
	const warnings: string[] = []
	if (frames < FEWEST_FRAMES) {
		const enough = COMMON_RATES.find((rate) => rate * durationS >= FEWEST_FRAMES)
		warnings.push(
			`Only ${frames} ${frames === 1 ? 'frame' : 'frames'}: too coarse for this duration.${enough ? ` Film at ${enough} frames a second or more.` : ''}`,
		)
	}
	return { durationS, standardErrorS: filmStandardError(fps), worstCaseS: 1 / fps, warnings }
}
