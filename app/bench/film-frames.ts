/** Rates that cameras store and film at, frames a second; a measured rate is snapped to one within 1 %. */
const KNOWN_RATES = [
	23.976, 24, 25, 29.97, 30, 48, 50, 59.94, 60, 90, 100, 119.88, 120, 200, 239.76, 240, 300, 480, 600, 960, 1000,
]

/**
 * Stored rate of a film from the times of frames that were shown while it played: the smallest step
 * between two of them is one frame, because a browser leaves frames out but never invents one.
 *
 * @param mediaTimes seconds in the film, in the order shown
 * @returns frames a second; null with fewer than six frames
 */
export function storedRateOf(mediaTimes: readonly number[]): number | null {
	const steps = mediaTimes
		.slice(1)
		.map((time, index) => time - mediaTimes[index]!)
		.filter((step) => step > 1e-4)
		.sort((a, b) => a - b)
	if (steps.length < 5) return null
	// Of the shortest steps the middle one: a single early frame must not make the film look faster.
	const shortest = steps.filter((step) => step < steps[0]! * 1.5)
	const rate = 1 / shortest[Math.floor(shortest.length / 2)]!
	const nearest = KNOWN_RATES.reduce((best, known) =>
		Math.abs(known / rate - 1) < Math.abs(best / rate - 1) ? known : best,
	)
	return Math.abs(nearest / rate - 1) < 0.01 ? nearest : Number(rate.toFixed(2))
}

/** The frame that begins at a time in the film; times are rounded to the container's clock. */
export const frameAt = (mediaTime: number, storedFps: number): number => Math.max(0, Math.round(mediaTime * storedFps))

/** Where to seek so that a frame is shown: its middle, away from both borders. */
export const timeOf = (frame: number, storedFps: number): number => (frame + 0.5) / storedFps

/** What this browser says it can play, for the sentence about a film it cannot. */
export function playableFormats(canPlay: (type: string) => string): string[] {
	const formats: [string, string][] = [
		['MP4 with H.264', 'video/mp4; codecs="avc1.42E01E"'],
		['MP4 with HEVC', 'video/mp4; codecs="hvc1.1.6.L93.B0"'],
		['WebM with VP9', 'video/webm; codecs="vp9"'],
		['WebM with VP8', 'video/webm; codecs="vp8"'],
		['MP4 with AV1', 'video/mp4; codecs="av01.0.04M.08"'],
	]
	return formats.filter(([, type]) => canPlay(type) !== '').map(([name]) => name)
}
