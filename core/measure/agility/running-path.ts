import { inBounds } from '../measure-error'

/** Where a cone stands, in metres from the start; x to the right, y forwards. */
export interface Cone {
	x: number
	y: number
}

export interface RunningPath {
	lengthM: number
	cones: Cone[]
}

const SIDE = { above: 0, to: 400, unit: 'm' } as const
const along = (points: readonly Cone[]) =>
	points
		.slice(1)
		.reduce((sum, point, index) => sum + Math.hypot(point.x - points[index]!.x, point.y - points[index]!.y), 0)

/** Each drill path from its parameters: length of the line to run, and where the cones stand. Lengths in m, angles in degrees; MeasureError outside the ranges. */

/** @example straightPath(30).lengthM // 30 */
export function straightPath(lengthM: number): RunningPath {
	inBounds('lengthM', lengthM, SIDE)
	return {
		lengthM,
		cones: [
			{ x: 0, y: 0 },
			{ x: 0, y: lengthM },
		],
	}
}

/** A run-in, a change of direction of 0 (straight on) to 180 degrees (about turn) to the right, a run-out. */
export function cutPath(runInM: number, cutDeg: number, runOutM: number): RunningPath {
	inBounds('runInM', runInM, SIDE)
	inBounds('runOutM', runOutM, SIDE)
	const turn = (inBounds('cutDeg', cutDeg, { from: 0, to: 180, unit: 'degrees' }) * Math.PI) / 180
	return {
		lengthM: runInM + runOutM,
		cones: [
			{ x: 0, y: 0 },
			{ x: 0, y: runInM },
			{ x: runOutM * Math.sin(turn), y: runInM + runOutM * Math.cos(turn) },
		],
	}
}

/** Part of a circle to the right; cones at the start, the middle and the end. */
export function arcPath(radiusM: number, arcDeg: number): RunningPath {
	inBounds('radiusM', radiusM, SIDE)
	const angle = (inBounds('arcDeg', arcDeg, { above: 0, to: 360, unit: 'degrees' }) * Math.PI) / 180
	const at = (part: number): Cone => ({ x: radiusM * (1 - Math.cos(part)), y: radiusM * Math.sin(part) })
	return { lengthM: radiusM * angle, cones: [at(0), at(angle / 2), at(angle)] }
}

/** Two circles that touch, run one after the other: 4 π r. Cones at their centres and where they touch. */
export function figureEightPath(radiusM: number): RunningPath {
	inBounds('radiusM', radiusM, SIDE)
	return {
		lengthM: 4 * Math.PI * radiusM,
		cones: [
			{ x: 0, y: 0 },
			{ x: -radiusM, y: 0 },
			{ x: radiusM, y: 0 },
		],
	}
}

/** Half circles to either side of a line, n π r. A cone at the centre of each. */
export function serpentinePath(radiusM: number, halfCircles: number): RunningPath {
	inBounds('radiusM', radiusM, SIDE)
	inBounds('halfCircles', halfCircles, { from: 1, to: 50, whole: true })
	return {
		lengthM: halfCircles * Math.PI * radiusM,
		cones: Array.from({ length: halfCircles }, (_, index) => ({ x: 0, y: radiusM * (2 * index + 1) })),
	}
}

/** There and back between two lines, a number of lengths. */
export function shuttlePath(lengthM: number, lengths: number): RunningPath {
	inBounds('lengthM', lengthM, SIDE)
	inBounds('lengths', lengths, { from: 1, to: 50, whole: true })
	return {
		lengthM: lengthM * lengths,
		cones: [
			{ x: 0, y: 0 },
			{ x: 0, y: lengthM },
		],
	}
}

/** Once round a rectangle. */
export function boxPath(widthM: number, depthM: number): RunningPath {
	inBounds('widthM', widthM, SIDE)
	inBounds('depthM', depthM, SIDE)
	const cones = [
		{ x: 0, y: 0 },
		{ x: 0, y: depthM },
		{ x: widthM, y: depthM },
		{ x: widthM, y: 0 },
	]
	return { lengthM: 2 * (widthM + depthM), cones }
}

/** T: up the stem, to one arm, to the other, back to the middle, down: 2 · stem + 4 · arm. */
export function tPath(stemM: number, armM: number): RunningPath {
	inBounds('stemM', stemM, SIDE)
	inBounds('armM', armM, SIDE)
	return {
		lengthM: 2 * stemM + 4 * armM,
		cones: [
			{ x: 0, y: 0 },
			{ x: 0, y: stemM },
			{ x: -armM, y: stemM },
			{ x: armM, y: stemM },
		],
	}
}

/** L: up one leg, out along the other, and back the same way. */
export function lPath(legM: number, sideM: number): RunningPath {
	inBounds('legM', legM, SIDE)
	inBounds('sideM', sideM, SIDE)
	return {
		lengthM: 2 * (legM + sideM),
		cones: [
			{ x: 0, y: 0 },
			{ x: 0, y: legM },
			{ x: sideM, y: legM },
		],
	}
}

/** Zig-zag: straight legs between cones on two lines a width apart, forwards by a step each. */
export function zigZagPath(stepM: number, widthM: number, legs: number): RunningPath {
	inBounds('stepM', stepM, SIDE)
	inBounds('widthM', widthM, SIDE)
	inBounds('legs', legs, { from: 1, to: 50, whole: true })
	const cones = Array.from({ length: legs + 1 }, (_, index) => ({ x: index % 2 ? widthM : 0, y: index * stepM }))
	return { lengthM: along(cones), cones }
}
