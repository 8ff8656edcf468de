import type { Surface } from '../vocabulary/words'

/** A point on the ground, m: x to the right, y away from the base corner. */
export interface Point {
	x: number
	y: number
}
/** A ground as it is paced out, its base corner bottom left. */
export interface GroundSize {
	lengthM: number
	widthM: number
}
export interface Ground extends GroundSize {
	id: string
	name: string
	surface: Surface
}
/** Where an entry's station stands: its start line's middle, and which way one runs, degrees clockwise from straight away. */
export interface Placement {
	entryId: string
	x: number
	y: number
	turnDeg: number
}
