import { MeasureError, inBounds } from '../measure-error'

/** A place on the picture, in its own pixels, y downwards. */
export interface PicturePoint {
	x: number
	y: number
}
/** Joints of the side nearer the camera, as they are clicked on one frame. */
export interface Joints {
	shoulder: PicturePoint
	hip: PicturePoint
	knee: PicturePoint
	ankle: PicturePoint
	/** Which way the athlete runs across the picture. */
	runs: 'left' | 'right'
}
/** Angles in degrees. */
export interface Posture {
	/** Hip to shoulder from the vertical; above 0 leans the way they run. −180 to 180. */
	trunkDeg: number
	/** Ankle to knee from the vertical; above 0 the knee is ahead of the ankle. −180 to 180. */
	shinDeg: number
	/** Between thigh and shank; 180 is a straight leg. 0 to 180. */
	kneeDeg: number
	/** What a click that is off turns each of the two slopes by. */
	errorDeg: { trunkDeg: number; shinDeg: number }
}

/** How far off a joint is clicked, pixels [our setting]. */
const CLICK_PX = 3
/** Shorter than this a limb's slope is mostly how it was clicked, pixels. */
const SHORTEST_PX = 15

const degrees = (radians: number) => (radians * 180) / Math.PI
const between = (from: PicturePoint, to: PicturePoint) => ({ x: to.x - from.x, y: to.y - from.y })
const lengthOf = ({ x, y }: PicturePoint) => Math.hypot(x, y)

/**
 * Trunk, shin and knee of one frame, such as at touchdown, from four joints in a picture taken from the side. Angles are
 * of the picture: a camera that does not look across the lane shortens what lies along it.
 *
 * @throws MeasureError for a point that is no number, or a limb too short on the picture to have a slope
 * @example upright on a vertical shin: trunkDeg 0, shinDeg 0, kneeDeg 180
 */
export function readPosture({ shoulder, hip, knee, ankle, runs }: Joints): Posture {
	for (const [name, point] of Object.entries({ shoulder, hip, knee, ankle }))
		for (const at of [point.x, point.y]) inBounds(name, at, { from: -100_000, to: 100_000, unit: 'px' })
	const [trunk, thigh, shank] = [between(hip, shoulder), between(knee, hip), between(ankle, knee)]
	const limbs = { shoulder: trunk, hip: thigh, knee: shank }
	for (const [name, limb] of Object.entries(limbs))
		if (lengthOf(limb) < SHORTEST_PX)
			throw new MeasureError(name, Math.round(lengthOf(limb)), `a limb at least ${SHORTEST_PX} pixels long`)
	const ahead = runs === 'right' ? 1 : -1
	// Upwards is against y; nothing across is 0, never −0.
	const fromVertical = ({ x, y }: PicturePoint) => degrees(Math.atan2(ahead * x + 0, -y))
	const cosine = -(thigh.x * shank.x + thigh.y * shank.y) / (lengthOf(thigh) * lengthOf(shank))
	const clicked = (limb: PicturePoint) => degrees(Math.atan((Math.SQRT2 * CLICK_PX) / lengthOf(limb)))
	return {
		trunkDeg: fromVertical(trunk),
		shinDeg: fromVertical(shank),
		kneeDeg: degrees(Math.acos(Math.max(-1, Math.min(1, cosine)))),
		errorDeg: { trunkDeg: clicked(trunk), shinDeg: clicked(shank) },
	}
}

/** "trunk 34°, shin 12°, knee 141°" */
export const sayPosture = ({
	trunkDeg,
	shinDeg,
	kneeDeg,
}: Pick<Posture, 'trunkDeg' | 'shinDeg' | 'kneeDeg'>): string => {
	const slope = (value: number) => `${Math.round(value) < 0 ? '−' : ''}${Math.abs(Math.round(value))}°`
	return `trunk ${slope(trunkDeg)}, shin ${slope(shinDeg)}, knee ${Math.round(kneeDeg)}°`
}
