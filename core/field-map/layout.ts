import { type Polygon, around, beyond, overlap, place } from './geometry'
import { type StationShape, ZONES, type ZoneKind } from './station-shape'
import type { GroundSize, Placement, Point } from './types'

/** An entry's station: what it is called and the ground it needs. */
export interface Station {
	entryId: string
	name: string
	shape: StationShape
	lanes: number
}
export interface PlacedZone {
	entryId: string
	kind: ZoneKind
	polygon: Polygon
}
/** Refused: somebody is in a throw sector, or the station leaves the ground. Said: two stations share ground, which they may at different times. */
export interface MapClash {
	kind: 'sector' | 'outside' | 'shared'
	refused: boolean
	entryIds: string[]
	sentence: string
}

/** Stations snap to whole metres and to turns of fifteen degrees. */
export const GRID_M = 1
export const TURN_DEG = 15
export const snap = ({ entryId, x, y, turnDeg }: Placement): Placement => ({
	entryId,
	x: Math.round(x / GRID_M) * GRID_M,
	y: Math.round(y / GRID_M) * GRID_M,
	turnDeg: (((Math.round(turnDeg / TURN_DEG) * TURN_DEG) % 360) + 360) % 360,
})

export const placedZones = (station: Station, placement: Placement): PlacedZone[] =>
	station.shape.zones.map(({ kind, polygon }) => ({
		entryId: station.entryId,
		kind,
		polygon: polygon.map((point) => place(point, placement, placement.turnDeg)),
	}))

/** Nobody runs, waits or throws here, a ball may. */
const isSector = (zone: PlacedZone) => zone.kind === 'sector'
const metres = (value: number) => `${Math.ceil(value * 10 - 1e-6) / 10} m`

/** What is wrong with where the stations stand, the refused first. */
export function checkLayout(
	stations: readonly Station[],
	placements: readonly Placement[],
	ground: GroundSize,
): MapClash[] {
	const placed = stations.flatMap((station) => {
		const at = placements.find((one) => one.entryId === station.entryId)
		return at ? [{ station, zones: placedZones(station, at) }] : []
	})
	const clashes: MapClash[] = []
	for (const [index, { station, zones }] of placed.entries()) {
		const worst = zones
			.map((zone) => ({ zone, by: beyond(zone.polygon, ground) }))
			.reduce((a, b) => (b.by > a.by + 1e-6 ? b : a))
		if (worst.by > 1e-6)
			clashes.push({
				kind: 'outside',
				refused: true,
				entryIds: [station.entryId],
				sentence: `${station.name}: ${ZONES[worst.zone.kind]} ends ${metres(worst.by)} outside the ground.`,
			})
		for (const other of placed.slice(index + 1)) {
			const crossed = [
				[zones, other.zones, station, other.station],
				[other.zones, zones, other.station, station],
			] as const
			let refused = false
			for (const [walking, throwing, walker, thrower] of crossed) {
				const zone = walking.find(
					(one) => !isSector(one) && throwing.some((two) => isSector(two) && overlap(one.polygon, two.polygon)),
				)
				if (!zone) continue
				refused = true
				clashes.push({
					kind: 'sector',
					refused: true,
					entryIds: [walker.entryId, thrower.entryId],
					sentence: `${walker.name}: ${ZONES[zone.kind]} crosses the throw sector of ${thrower.name}.`,
				})
			}
			if (!refused && zones.some((one) => other.zones.some((two) => overlap(one.polygon, two.polygon))))
				clashes.push({
					kind: 'shared',
					refused: false,
					entryIds: [station.entryId, other.station.entryId],
					sentence: `${station.name} and ${other.station.name} share ground: not at the same time.`,
				})
		}
	}
	return clashes.sort((a, b) => Number(b.refused) - Number(a.refused))
}

/** Why a station cannot be moved to where it was dropped; null when it can. */
export function refusalOf(
	stations: readonly Station[],
	placements: readonly Placement[],
	moved: Placement,
	ground: GroundSize,
): string | null {
	const after = [...placements.filter((one) => one.entryId !== moved.entryId), moved]
	return (
		checkLayout(stations, after, ground).find((clash) => clash.refused && clash.entryIds.includes(moved.entryId))
			?.sentence ?? null
	)
}

const TURNS = [90, 0, 270, 180] as const
/** Stations are placed this far apart where there is room, m [our setting]. */
const GAP_M = 1
/** Looking for room goes in steps of this, m. */
const STEP_M = 2

/**
 * Places the stations: throws first and against an edge of their own, then the long ones, each where it shares
 * no ground; where there is no such place, over another that is used at another time. What fits nowhere is named.
 */
export function autoLayout(
	stations: readonly Station[],
	ground: GroundSize,
): { placements: Placement[]; unplaced: { entryId: string; sentence: string }[] } {
	const reach = ({ shape }: Station) =>
		Math.max(...shape.zones.flatMap((zone) => zone.polygon.map((point) => Math.hypot(point.x, point.y))))
	const throwsFirst = (station: Station) => (station.shape.zones.some((zone) => zone.kind === 'sector') ? 0 : 1)
	const order = [...stations].sort((a, b) => throwsFirst(a) - throwsFirst(b) || reach(b) - reach(a))
	const placements: Placement[] = []
	const taken: (PlacedZone & { wide: Polygon })[] = []
	const unplaced: { entryId: string; sentence: string }[] = []
	for (const station of order) {
		let [alone, shared]: [Placement | null, Placement | null] = [null, null]
		search: for (const turnDeg of TURNS)
			for (let y = 0; y <= ground.widthM; y += STEP_M)
				for (let x = 0; x <= ground.lengthM; x += STEP_M) {
					const placement = { entryId: station.entryId, x, y, turnDeg }
					const zones = placedZones(station, placement)
					if (zones.some((zone) => beyond(zone.polygon, ground) > 1e-6)) continue
					if (
						zones.some((one) =>
							taken.some((two) => isSector(one) !== isSector(two) && overlap(one.polygon, two.polygon)),
						)
					)
						continue
					if (zones.some((one) => taken.some((two) => overlap(one.polygon, two.wide)))) {
						shared ??= placement
						continue
					}
					alone = placement
					break search
				}
		const found = alone ?? shared
		if (!found) {
			unplaced.push({
				entryId: station.entryId,
				sentence: `${station.name} does not fit: ${neededWords(station, ground)}.`,
			})
			continue
		}
		placements.push(found)
		taken.push(...placedZones(station, found).map((zone) => ({ ...zone, wide: around(zone.polygon, GAP_M) })))
	}
	return { placements, unplaced }
}

function neededWords({ shape }: Station, ground: GroundSize): string {
	const points = shape.zones.flatMap((zone) => zone.polygon)
	const [long, wide] = [
		Math.max(...points.map((p) => p.y)) - Math.min(...points.map((p) => p.y)),
		Math.max(...points.map((p) => p.x)) - Math.min(...points.map((p) => p.x)),
	]
	const tooBig = Math.max(long, wide) > Math.max(ground.lengthM, ground.widthM) + 1e-6
	return tooBig
		? `${metres(Math.max(long, wide))} are needed with run-in and run-out, ${metres(Math.max(ground.lengthM, ground.widthM))} are there`
		: `no place is left for ${metres(long)} by ${metres(wide)} clear of the throw sectors`
}

export interface ConeAt extends Point {
	entryId: string
	/** 1 for the first of its station. */
	number: number
}
/** Every cone from the base corner, in decimetres, by station, nearest to the corner first. */
export function coneList(stations: readonly Station[], placements: readonly Placement[]): ConeAt[] {
	return stations.flatMap((station) => {
		const at = placements.find((one) => one.entryId === station.entryId)
		if (!at) return []
		const tenth = (value: number) => Math.round(value * 10) / 10 + 0
		return station.shape.cones
			.map((cone) => place(cone, at, at.turnDeg))
			.map(({ x, y }) => ({ x: tenth(x), y: tenth(y) }))
			.sort((a, b) => a.x - b.x || a.y - b.y)
			.map((point, index) => ({ ...point, entryId: station.entryId, number: index + 1 }))
	})
}

/** What to carry out: cones by their number, other things once for each lane of the station that uses most of them. */
export function kitList(
	stations: readonly Station[],
	placements: readonly Placement[],
): { item: string; count: number }[] {
	const counts = new Map<string, number>()
	for (const station of stations)
		for (const item of station.shape.kit) counts.set(item, Math.max(counts.get(item) ?? 0, station.lanes))
	const cones = coneList(stations, placements).length
	return [
		...(cones > 0 ? [{ item: 'cones', count: cones }] : []),
		...[...counts].map(([item, count]) => ({ item, count })).sort((a, b) => a.item.localeCompare(b.item)),
	]
}
