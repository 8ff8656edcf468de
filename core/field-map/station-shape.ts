import type { Drill } from '../vocabulary/drill'
import type { Parameters } from '../vocabulary/dose'
import {
	arcPath,
	cutPath,
	figureEightPath,
	serpentinePath,
	shuttlePath,
	straightPath,
} from '../measure/agility/running-path'
import { type Polygon, around, rectangle, sector } from './geometry'
import type { Point } from './types'

/** What a part of a station's ground is for. People are in all of them but the sector. */
export const ZONES = {
	queue: 'where they wait',
	run: 'the lane',
	'run-in': 'the run-in',
	'run-out': 'the run-out',
	stand: 'where they jump or throw',
	sector: 'the throw sector',
} as const
export type ZoneKind = keyof typeof ZONES
export interface Zone {
	kind: ZoneKind
	polygon: Polygon
}
/** A station in its own metres: the middle of its start line is 0, 0 and one runs towards y. */
export interface StationShape {
	zones: Zone[]
	cones: Point[]
	/** Lines to draw: where one runs. */
	paths: Point[][]
	/** What one rep runs, m; 0 where nobody runs. */
	pathM: number
	/** For one lane of it, beside the cones. */
	kit: string[]
}

/** A lane's width, and the ground somebody needs who jumps on the spot, m [our setting]. */
const LANE_M = 2
const SPOT_M = { widthM: 2.5, depthM: 3 } as const
/** Room for who waits behind a start, m [our setting]. */
const QUEUE_M = 3
/** To slow down after work that is not maximal, m [our setting]; after a maximal sprint 15, as the drill says. */
const SLOW_DOWN_M = 5
/** People drift outwards on a bend: this much is left free around it, m [our setting]. */
const CURVE_M = 2
/** Throws go this far to either side, and this much further than the longest one known [our setting]. */
const SECTOR_HALF_DEG = 15
const SECTOR_REACH = 1.3
/** A throw nobody has measured yet, m [our setting]. */
const UNKNOWN_THROW_M = 12
/** Throwers side by side stand this far apart, m [our setting]. */
const THROWERS_M = 3

/** How far the curved drills turn, degrees, or how many half circles they join. */
const CURVES: Record<string, { arcDeg?: number; halfCircles?: number; eight?: boolean }> = {
	'arc-quarter': { arcDeg: 90 },
	'arc-half': { arcDeg: 180 },
	'figure-half': { halfCircles: 2 },
	'figure-eight': { eight: true },
	serpentine: { halfCircles: 2 },
}
const CURVE_STEPS = 24

/** Cones and spots a drill's kit does not count apart. */
const COUNTED = ['cones', 'tape', 'gates or timer']

/**
 * A drill's ground from its parameters.
 *
 * @param lanes side by side, 1 or more
 * @param longestThrowM the longest throw known of anybody there, m; null when none is
 * @returns null for what needs no place of its own: warming up, holds, the bike
 */
export function stationShape(
	drill: Drill,
	parameters: Parameters,
	lanes: number,
	longestThrowM: number | null,
): StationShape | null {
	if (drill.family === 'prepare' || drill.family === 'tissue') return null
	const kit = drill.kit.filter((item) => !COUNTED.includes(item))
	const distanceM = parameters.distanceM ?? 0
	if (drill.family === 'throw') return throwing(parameters.runInM ?? 0, lanes, longestThrowM ?? UNKNOWN_THROW_M, kit)
	const curve = CURVES[drill.id]
	if (curve && parameters.radiusM) return bend(curve, parameters.radiusM, kit)
	if (drill.counting.metres?.kind === 'shuttle' && distanceM > 0) {
		const { cones } = shuttlePath(distanceM / 2, 2)
		return lane({ distanceM: cones[1]!.y, runInM: 0, runOutM: SLOW_DOWN_M, lanes, pathM: distanceM, kit })
	}
	if (drill.family === 'agility' && (parameters.angleDeg ?? 0) >= 15 && drill.counting.cuts && distanceM > 0)
		return cut(distanceM, parameters.angleDeg!, lanes, drill.intensity === 'high' ? SLOW_DOWN_M : 0, kit)
	if (distanceM > 0)
		return lane({
			distanceM,
			runInM: parameters.runInM ?? 0,
			runOutM: drill.space.runOutM ?? (drill.family === 'plyometric' && drill.intensity === 'low' ? 0 : SLOW_DOWN_M),
			lanes,
			pathM: straightPath(distanceM).lengthM + (parameters.runInM ?? 0),
			kit,
		})
	return spots(lanes, kit)
}

/** The middle of each of some lanes. */
const middles = (lanes: number, widthM: number): number[] =>
	Array.from({ length: lanes }, (_, index) => (index - (lanes - 1) / 2) * widthM)

function lane({
	distanceM,
	runInM,
	runOutM,
	lanes,
	pathM,
	kit,
}: {
	distanceM: number
	runInM: number
	runOutM: number
	lanes: number
	pathM: number
	kit: string[]
}): StationShape {
	const half = (lanes * LANE_M) / 2
	const far = runInM + distanceM
	const rows = [0, ...(runInM > 0 ? [runInM] : []), far]
	return {
		zones: [
			{ kind: 'queue', polygon: rectangle(-half, -QUEUE_M, half, 0) },
			...(runInM > 0 ? [{ kind: 'run-in' as const, polygon: rectangle(-half, 0, half, runInM) }] : []),
			{ kind: 'run', polygon: rectangle(-half, runInM, half, far) },
			...(runOutM > 0 ? [{ kind: 'run-out' as const, polygon: rectangle(-half, far, half, far + runOutM) }] : []),
		],
		// A line of cones across at every mark: one between two lanes serves both.
		cones: rows.flatMap((y) => Array.from({ length: lanes + 1 }, (_, index) => ({ x: -half + index * LANE_M, y }))),
		paths: middles(lanes, LANE_M).map((x) => [
			{ x, y: 0 },
			{ x, y: far },
		]),
		pathM,
		kit,
	}
}

function cut(distanceM: number, angleDeg: number, lanes: number, slowM: number, kit: string[]): StationShape {
	// The corner halves the way, and the way out lies to both sides: the planting leg alternates.
	const path = cutPath(distanceM / 2, angleDeg, distanceM / 2)
	const [, corner, out] = path.cones as [Point, Point, Point]
	const [dx, dy] = [(out.x - corner.x) / (distanceM / 2), (out.y - corner.y) / (distanceM / 2)]
	const slow = { x: out.x + dx * slowM, y: out.y + dy * slowM }
	const mirrored = ({ x, y }: Point): Point => ({ x: -x, y })
	const turnsBack = angleDeg > 135
	const width = Math.max(LANE_M, 2 * Math.abs(slow.x) + LANE_M)
	const shapes = middles(lanes, width).map((x) => {
		const at = (point: Point): Point => ({ x: point.x + x, y: point.y })
		return {
			zones: [
				{ kind: 'queue' as const, polygon: rectangle(x - LANE_M / 2, -QUEUE_M, x + LANE_M / 2, 0) },
				{ kind: 'run' as const, polygon: around([{ x: 0, y: 0 }, corner].map(at), LANE_M / 2) },
				{ kind: 'run' as const, polygon: around([corner, out, mirrored(out)].map(at), LANE_M / 2) },
				...(slowM > 0 && !turnsBack
					? [out, mirrored(out)].map((end) => ({
							kind: 'run-out' as const,
							polygon: around([end, end === out ? slow : mirrored(slow)].map(at), LANE_M / 2),
						}))
					: []),
			],
			cones: [{ x: 0, y: 0 }, corner, ...(turnsBack ? [] : [out, mirrored(out)])].map(at),
			paths: [[{ x: 0, y: 0 }, corner, out].map(at), [corner, mirrored(out)].map(at)],
		}
	})
	return {
		zones: shapes.flatMap((one) => one.zones),
		cones: shapes.flatMap((one) => one.cones),
		paths: shapes.flatMap((one) => one.paths),
		pathM: path.lengthM,
		kit,
	}
}

function bend({ arcDeg, halfCircles, eight }: (typeof CURVES)[string], radiusM: number, kit: string[]): StationShape {
	const { lengthM, cones } = eight
		? figureEightPath(radiusM)
		: halfCircles
			? serpentinePath(radiusM, halfCircles)
			: arcPath(radiusM, arcDeg!)
	const circle = (centre: Point, fromDeg: number, byDeg: number): Point[] =>
		Array.from({ length: CURVE_STEPS + 1 }, (_, step) => {
			const angle = ((fromDeg + (byDeg * step) / CURVE_STEPS) * Math.PI) / 180
			return { x: centre.x + radiusM * Math.sin(angle), y: centre.y + radiusM * Math.cos(angle) }
		})
	const paths = eight
		? [circle({ x: -radiusM, y: 0 }, 90, 360), circle({ x: radiusM, y: 0 }, -90, -360)]
		: halfCircles
			? Array.from({ length: halfCircles }, (_, index) =>
					circle({ x: 0, y: radiusM * (2 * index + 1) }, 180, index % 2 === 0 ? 180 : -180),
				)
			: [circle({ x: radiusM, y: 0 }, -90, arcDeg!)]
	return {
		zones: [
			{ kind: 'queue', polygon: rectangle(-LANE_M / 2, -QUEUE_M, LANE_M / 2, 0) },
			{ kind: 'run', polygon: around(paths.flat(), CURVE_M) },
		],
		cones,
		paths,
		pathM: lengthM,
		kit,
	}
}

function throwing(runInM: number, lanes: number, longestM: number, kit: string[]): StationShape {
	const half = (lanes * THROWERS_M) / 2
	return {
		zones: [
			{ kind: 'queue', polygon: rectangle(-half, -QUEUE_M - runInM, half, -runInM) },
			{ kind: 'stand', polygon: rectangle(-half, -runInM, half, 0.01) },
			...middles(lanes, THROWERS_M).map(
				(x): Zone => ({ kind: 'sector', polygon: sector({ x, y: 0 }, SECTOR_REACH * longestM, SECTOR_HALF_DEG) }),
			),
		],
		cones: middles(lanes, THROWERS_M).flatMap((x) => [
			{ x: x - 0.5, y: 0 },
			{ x: x + 0.5, y: 0 },
		]),
		paths: middles(lanes, THROWERS_M).map((x) => [
			{ x, y: -runInM },
			{ x, y: SECTOR_REACH * longestM },
		]),
		pathM: runInM,
		kit,
	}
}

function spots(lanes: number, kit: string[]): StationShape {
	const half = (lanes * SPOT_M.widthM) / 2
	return {
		zones: [
			{ kind: 'queue', polygon: rectangle(-half, -QUEUE_M, half, 0) },
			{ kind: 'stand', polygon: rectangle(-half, 0, half, SPOT_M.depthM) },
		],
		cones: [
			{ x: -half, y: 0 },
			{ x: half, y: 0 },
			{ x: half, y: SPOT_M.depthM },
			{ x: -half, y: SPOT_M.depthM },
		],
		paths: [],
		pathM: 0,
		kit,
	}
}

/** Some drills on one station, as a ladder has them: all their ground, and every cone once. */
export function joinShapes(shapes: readonly StationShape[]): StationShape {
	const cones = new Map(
		shapes.flatMap((shape) => shape.cones.map((cone) => [`${cone.x.toFixed(2)}/${cone.y.toFixed(2)}`, cone] as const)),
	)
	const zones = new Map(shapes.flatMap((shape) => shape.zones.map((zone) => [JSON.stringify(zone), zone] as const)))
	return {
		zones: [...zones.values()],
		cones: [...cones.values()],
		paths: shapes.flatMap((shape) => shape.paths),
		pathM: Math.max(0, ...shapes.map((shape) => shape.pathM)),
		kit: [...new Set(shapes.flatMap((shape) => shape.kit))],
	}
}
