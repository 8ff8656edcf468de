import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { type Polygon, around, beyond, hull, overlap, place, rectangle, sector } from './geometry'
import { type Station, autoLayout, checkLayout, coneList, kitList, placedZones, refusalOf, snap } from './layout'
import { joinShapes, stationShape } from './station-shape'

const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const shape = (id: string, parameters = {}, lanes = 1, longest: number | null = null) =>
	stationShape(drill(id), { ...drill(id).defaults.parameters, ...parameters }, lanes, longest)!
const station = (id: string, parameters = {}, lanes = 1, longest: number | null = null): Station => ({
	entryId: id,
	name: drill(id).name,
	lanes,
	shape: shape(id, parameters, lanes, longest),
})
const near = (a: { x: number; y: number }, x: number, y: number) => {
	expect(a.x).toBeCloseTo(x, 6)
	expect(a.y).toBeCloseTo(y, 6)
}
const area = (polygon: Polygon) =>
	Math.abs(
		polygon.reduce((sum, { x, y }, index) => {
			const next = polygon[(index + 1) % polygon.length]!
			return sum + x * next.y - next.x * y
		}, 0),
	) / 2
const extent = (polygons: Polygon[]) => {
	const points = polygons.flat()
	return {
		long: Math.max(...points.map((p) => p.y)) - Math.min(...points.map((p) => p.y)),
		wide: Math.max(...points.map((p) => p.x)) - Math.min(...points.map((p) => p.x)),
	}
}
const ALL = Object.values(STARTER_LIBRARY.drills).filter((one) => !['prepare', 'tissue'].includes(one.family))

describe('geometry', () => {
	it('turns clockwise about the start: a right angle sends what lay ahead to the right', () => {
		near(place({ x: 0, y: 10 }, { x: 5, y: 5 }, 90), 15, 5)
		near(place({ x: 2, y: 0 }, { x: 0, y: 0 }, 90), 0, -2)
		near(place({ x: 3, y: 4 }, { x: 1, y: 1 }, 180), -2, -3)
	})
	it('keeps distances whatever the turn: property', () => {
		fc.assert(
			fc.property(
				fc.double({ min: -50, max: 50, noNaN: true }),
				fc.double({ min: -50, max: 50, noNaN: true }),
				fc.integer({ min: 0, max: 360 }),
				(x, y, turn) => {
					const at = place({ x, y }, { x: 7, y: -3 }, turn)
					expect(Math.hypot(at.x - 7, at.y + 3)).toBeCloseTo(Math.hypot(x, y), 8)
				},
			),
		)
	})
	it('has the closed-form area of a sector, r²·θ, less what eight chords leave out', () => {
		const [r, theta] = [20, (2 * 15 * Math.PI) / 180]
		const chords = 8 * 0.5 * r * r * Math.sin(theta / 8)
		expect(area(sector({ x: 0, y: 0 }, r, 15))).toBeCloseTo(chords, 8)
		expect(area(sector({ x: 0, y: 0 }, r, 15))).toBeGreaterThan(0.998 * 0.5 * r * r * theta)
		// The corners of ±15° lie at r·sin 15° to the sides.
		const points = sector({ x: 0, y: 0 }, r, 15)
		near(points[1]!, -r * Math.sin(Math.PI / 12), r * Math.cos(Math.PI / 12))
	})
	it('finds the hull of a square with points inside it', () => {
		expect(area(hull([...rectangle(0, 0, 4, 4), { x: 1, y: 2 }, { x: 3, y: 1 }]))).toBeCloseTo(16, 9)
		expect(
			area(
				around(
					[
						{ x: 0, y: 0 },
						{ x: 10, y: 0 },
					],
					1,
				),
			),
		).toBeCloseTo(24, 9)
	})
	it('says whether shapes share ground, touching sides apart', () => {
		expect(overlap(rectangle(0, 0, 2, 2), rectangle(1, 1, 3, 3))).toBe(true)
		expect(overlap(rectangle(0, 0, 2, 2), rectangle(2, 0, 4, 2))).toBe(false)
		// A cross: no corner of either lies in the other.
		expect(overlap(rectangle(-5, -1, 5, 1), rectangle(-1, -5, 1, 5))).toBe(true)
		expect(beyond(rectangle(-1, 0, 5, 5), { lengthM: 10, widthM: 10 })).toBe(1)
	})
	it('agrees with points drawn at random: two shapes with a common point overlap', () => {
		const box = fc
			.tuple(
				fc.integer({ min: -9, max: 9 }),
				fc.integer({ min: -9, max: 9 }),
				fc.integer({ min: 1, max: 8 }),
				fc.integer({ min: 1, max: 8 }),
				fc.integer({ min: 0, max: 23 }),
			)
			.map(([x, y, w, h, turn]) => ({
				x,
				y,
				turn: turn * 15,
				w,
				h,
				polygon: rectangle(0, 0, w, h).map((point) => place(point, { x, y }, turn * 15)),
			}))
		fc.assert(
			fc.property(box, box, (a, b) => {
				let common = false
				for (let i = 0.5; i < 20 && !common; i++)
					for (let j = 0.5; j < 20 && !common; j++) {
						const point = place({ x: (a.w * i) / 20, y: (a.h * j) / 20 }, a, a.turn)
						// Back into the other's own metres.
						const local = place({ x: point.x - b.x, y: point.y - b.y }, { x: 0, y: 0 }, -b.turn)
						common = local.x > 1e-6 && local.y > 1e-6 && local.x < b.w - 1e-6 && local.y < b.h - 1e-6
					}
				if (common) expect(overlap(a.polygon, b.polygon)).toBe(true)
				expect(overlap(a.polygon, b.polygon)).toBe(overlap(b.polygon, a.polygon))
			}),
			{ numRuns: 300 },
		)
	})
})

describe('a station from its drill', () => {
	it('has lanes two metres wide, a run-in, and fifteen metres to slow down after a maximal sprint', () => {
		const fly = shape('fly-10', { runInM: 30, distanceM: 10 }, 3)
		expect(extent(fly.zones.map((zone) => zone.polygon))).toEqual({ long: 3 + 30 + 10 + 15, wide: 6 })
		expect(fly.zones.find((zone) => zone.kind === 'run-out')!.polygon[0]!.y).toBe(40)
		expect(fly.pathM).toBe(40)
		// Four cones across for three lanes, at the start, where the zone begins and where it ends.
		expect(fly.cones).toHaveLength(12)
		expect([...new Set(fly.cones.map((cone) => cone.y))]).toEqual([0, 30, 40])
	})
	it('halves the way at the corner of a cut, and leaves both ways out', () => {
		const cut = shape('cut-90', { distanceM: 10, angleDeg: 90 })
		expect(cut.pathM).toBe(10)
		expect(cut.cones).toHaveLength(4)
		near(cut.cones[1]!, 0, 5)
		near(cut.cones[2]!, 5, 5)
		near(cut.cones[3]!, -5, 5)
		const wide = shape('wide-cut', { distanceM: 12, angleDeg: 45 })
		near(wide.cones[2]!, 6 * Math.SQRT1_2, 6 + 6 * Math.SQRT1_2)
		expect(shape('turn-180', { distanceM: 10, angleDeg: 180 }).cones).toHaveLength(2)
	})
	it('runs arcs of π/2·r and π·r, a figure-eight of 4π·r and a serpentine of 2π·r, with two metres free around', () => {
		expect(shape('arc-quarter', { radiusM: 12 }).pathM).toBeCloseTo(6 * Math.PI, 9)
		expect(shape('arc-half', { radiusM: 9 }).pathM).toBeCloseTo(9 * Math.PI, 9)
		expect(shape('figure-eight', { radiusM: 6 }).pathM).toBeCloseTo(24 * Math.PI, 9)
		expect(shape('serpentine', { radiusM: 4 }).pathM).toBeCloseTo(8 * Math.PI, 9)
		const eight = shape('figure-eight', { radiusM: 6 })
		expect(extent(eight.zones.filter((zone) => zone.kind === 'run').map((zone) => zone.polygon)).wide).toBeCloseTo(
			4 * 6 + 2 * 2,
			6,
		)
		// What is drawn is as long as what is said.
		for (const id of ['arc-quarter', 'arc-half', 'figure-half', 'figure-eight', 'serpentine']) {
			const one = shape(id, { radiusM: 9 })
			const drawn = one.paths.reduce(
				(sum, path) =>
					sum +
					path
						.slice(1)
						.reduce((part, point, index) => part + Math.hypot(point.x - path[index]!.x, point.y - path[index]!.y), 0),
				0,
			)
			expect(drawn / one.pathM, id).toBeGreaterThan(0.98)
			expect(drawn / one.pathM, id).toBeLessThanOrEqual(1)
		}
	})
	it('throws into ±15° as far as 1.3 times the longest mark', () => {
		const toss = shape('overhead-throw', {}, 2, 15)
		const sectors = toss.zones.filter((zone) => zone.kind === 'sector')
		expect(sectors).toHaveLength(2)
		expect(Math.max(...sectors[0]!.polygon.map((point) => point.y))).toBeCloseTo(1.3 * 15, 9)
		expect(shape('run-in-throw', { runInM: 10 }).zones.find((zone) => zone.kind === 'stand')!.polygon[0]!.y).toBe(-10)
	})
	it('halves a shuttle, and needs no ground for warming up', () => {
		expect(Math.max(...shape('shuttle-repeat', { distanceM: 40 }).cones.map((cone) => cone.y))).toBe(20)
		expect(shape('shuttle-repeat', { distanceM: 40 }).pathM).toBe(40)
		expect(stationShape(drill('leg-swings'), {}, 1, null)).toBeNull()
	})
	it('gives every drill of the library a place with finite corners, and cones inside its ground', () => {
		for (const one of ALL) {
			const its = stationShape(one, one.defaults.parameters, 2, null)!
			expect(its, one.id).not.toBeNull()
			expect(its.zones.length, one.id).toBeGreaterThan(0)
			for (const { polygon } of its.zones)
				for (const point of polygon) expect(Number.isFinite(point.x) && Number.isFinite(point.y), one.id).toBe(true)
			if (one.counting.metres?.plannedZone === 'maximal' && one.family === 'sprint')
				expect(
					its.zones.some((zone) => zone.kind === 'run-out' && extent([zone.polygon]).long >= 15),
					one.id,
				).toBe(true)
		}
	})
})

const GRASS = { lengthM: 100, widthM: 60 }
const YARD = { lengthM: 40, widthM: 18 }

describe('where stations stand', () => {
	const throws = station('overhead-throw', {}, 1, 20)
	const starts = station('three-point-start', { distanceM: 20 }, 2)
	it('refuses a lane through a throw sector, with the names of both', () => {
		// The sector opens to the right from 10, 30: at x = 25 it is 15·tan 15° = 4 m to each side.
		const at = { entryId: throws.entryId, x: 10, y: 30, turnDeg: 90 }
		expect(refusalOf([throws, starts], [at], { entryId: starts.entryId, x: 25, y: 4, turnDeg: 0 }, GRASS)).toBe(
			'Three-point start: the run-out crosses the throw sector of Overhead backward throw.',
		)
		expect(refusalOf([throws, starts], [at], { entryId: starts.entryId, x: 25, y: 20, turnDeg: 0 }, GRASS)).toBe(
			'Three-point start: the lane crosses the throw sector of Overhead backward throw.',
		)
		expect(refusalOf([throws, starts], [at], { entryId: starts.entryId, x: 6, y: 15, turnDeg: 0 }, GRASS)).toBeNull()
	})
	it('refuses a run-out that leaves the ground, and says by how much', () => {
		expect(refusalOf([starts], [], { entryId: starts.entryId, x: 70, y: 30, turnDeg: 90 }, GRASS)).toBe(
			'Three-point start: the run-out ends 5 m outside the ground.',
		)
		expect(refusalOf([starts], [], { entryId: starts.entryId, x: 65, y: 30, turnDeg: 90 }, GRASS)).toBeNull()
	})
	it('says shared ground without refusing it: parts follow one another', () => {
		const jumps = station('broad-jump', {}, 2)
		const clashes = checkLayout(
			[starts, jumps],
			[
				{ entryId: starts.entryId, x: 10, y: 30, turnDeg: 90 },
				{ entryId: jumps.entryId, x: 20, y: 30, turnDeg: 0 },
			],
			GRASS,
		)
		expect(clashes).toMatchObject([{ kind: 'shared', refused: false }])
	})
	it('snaps to whole metres and turns of fifteen degrees', () => {
		expect(snap({ entryId: 'a', x: 10.4, y: 3.6, turnDeg: -20 })).toEqual({ entryId: 'a', x: 10, y: 4, turnDeg: 345 })
	})
	it('places a whole session on grass with nothing refused and nothing shared', () => {
		const all = [
			starts,
			throws,
			station('fly-20', {}, 1),
			station('cut-90', {}, 2),
			station('broad-jump', {}, 3),
			station('alternate-bounds', {}, 2),
			station('depth-jump', {}, 1),
		]
		const { placements, unplaced } = autoLayout(all, GRASS)
		expect(unplaced).toEqual([])
		expect(checkLayout(all, placements, GRASS)).toEqual([])
	})
	it('on a small yard says what does not fit and why, and keeps the rest', () => {
		const { placements, unplaced } = autoLayout(
			[station('fly-20', {}, 1), station('broad-jump', {}, 3), station('three-point-start', { distanceM: 10 }, 2)],
			YARD,
		)
		expect(unplaced).toEqual([
			{
				entryId: 'fly-20',
				sentence: 'Flying 20 m does not fit: 68 m are needed with run-in and run-out, 40 m are there.',
			},
		])
		expect(placements.map((one) => one.entryId).sort()).toEqual(['broad-jump', 'three-point-start'])
	})
	it('never places anything refused, whatever the session: property', () => {
		fc.assert(
			fc.property(
				fc.uniqueArray(fc.constantFrom(...ALL.map((one) => one.id)), { minLength: 1, maxLength: 6 }),
				fc.integer({ min: 1, max: 4 }),
				fc.integer({ min: 15, max: 110 }),
				fc.integer({ min: 10, max: 70 }),
				(ids, lanes, lengthM, widthM) => {
					const stations = ids.map((id) => station(id, {}, lanes, 18))
					const { placements, unplaced } = autoLayout(stations, { lengthM, widthM })
					expect(checkLayout(stations, placements, { lengthM, widthM }).filter((clash) => clash.refused)).toEqual([])
					expect(placements.length + unplaced.length).toBe(stations.length)
					for (const zone of placements.flatMap((at) =>
						placedZones(stations.find((one) => one.entryId === at.entryId)!, at),
					))
						expect(beyond(zone.polygon, { lengthM, widthM })).toBeLessThan(1e-6)
				},
			),
			{ numRuns: 60, seed: 12 },
		)
	})
	it('lists cones from the base corner, and the kit to carry', () => {
		const at = [{ entryId: starts.entryId, x: 10, y: 20, turnDeg: 90 }]
		// Two lanes to the right: three cones across at the start and twenty metres on.
		expect(coneList([starts], at).map(({ x, y }) => [x, y])).toEqual([
			[10, 18],
			[10, 20],
			[10, 22],
			[30, 18],
			[30, 20],
			[30, 22],
		])
		expect(kitList([starts, station('box-jump', {}, 3)], at)).toEqual([
			{ item: 'cones', count: 6 },
			{ item: 'box', count: 3 },
		])
	})
	it('joins a ladder’s rungs on one station: marks at ten and at twenty metres, each cone once', () => {
		const joined = joinShapes([
			shape('standing-start', { distanceM: 10 }, 2),
			shape('three-point-start', { distanceM: 20 }, 2),
		])
		expect(joined.cones).toHaveLength(9)
		expect(joined.pathM).toBe(20)
	})
})
