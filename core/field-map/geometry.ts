import type { Point } from './types'

/** Corners in order, m; every shape on the map is convex. */
export type Polygon = readonly Point[]

const rad = (deg: number) => (deg * Math.PI) / 180

/** A point of a station on the ground: turned clockwise by `turnDeg` about the station's start, then put there. */
export function place({ x, y }: Point, at: Point, turnDeg: number): Point {
	const [sin, cos] = [Math.sin(rad(turnDeg)), Math.cos(rad(turnDeg))]
	return { x: at.x + x * cos + y * sin, y: at.y - x * sin + y * cos }
}

/** A rectangle by its left, near, right and far sides. */
export const rectangle = (left: number, near: number, right: number, far: number): Polygon => [
	{ x: left, y: near },
	{ x: right, y: near },
	{ x: right, y: far },
	{ x: left, y: far },
]

/** What a throw may reach: `halfDeg` to both sides of straight ahead, as far as `radiusM`. Convex up to 90 degrees to a side. */
export function sector(at: Point, radiusM: number, halfDeg: number): Polygon {
	const steps = 8
	return [
		at,
		...Array.from({ length: steps + 1 }, (_, step) => {
			const angle = rad(-halfDeg + (2 * halfDeg * step) / steps)
			return { x: at.x + radiusM * Math.sin(angle), y: at.y + radiusM * Math.cos(angle) }
		}),
	]
}

/** The smallest convex shape around some points (Andrew's monotone chain). */
export function hull(points: readonly Point[]): Polygon {
	const sorted = [...points].sort((a, b) => a.x - b.x || a.y - b.y)
	const turn = (o: Point, a: Point, b: Point) => (a.x - o.x) * (b.y - o.y) - (a.y - o.y) * (b.x - o.x)
	const half = (those: readonly Point[]) => {
		const chain: Point[] = []
		for (const point of those) {
			while (chain.length >= 2 && turn(chain.at(-2)!, chain.at(-1)!, point) <= 0) chain.pop()
			chain.push(point)
		}
		chain.pop()
		return chain
	}
	return [...half(sorted), ...half(sorted.reverse())]
}

/** Everything within `byM` of some points, as the hull of squares around them. */
export const around = (points: readonly Point[], byM: number): Polygon =>
	hull(
		points.flatMap(({ x, y }) => [
			{ x: x - byM, y: y - byM },
			{ x: x + byM, y: y - byM },
			{ x: x + byM, y: y + byM },
			{ x: x - byM, y: y + byM },
		]),
	)

const TOUCH_M = 1e-6
/** Whether two convex shapes share ground; touching sides do not. By the separating axes. */
export function overlap(a: Polygon, b: Polygon): boolean {
	for (const polygon of [a, b])
		for (let index = 0; index < polygon.length; index++) {
			const [from, to] = [polygon[index]!, polygon[(index + 1) % polygon.length]!]
			const [nx, ny] = [to.y - from.y, from.x - to.x]
			const length = Math.hypot(nx, ny)
			if (length === 0) continue
			let [lowA, highA, lowB, highB] = [Infinity, -Infinity, Infinity, -Infinity]
			for (const point of a) {
				const at = (point.x * nx + point.y * ny) / length
				lowA = Math.min(lowA, at)
				highA = Math.max(highA, at)
			}
			for (const point of b) {
				const at = (point.x * nx + point.y * ny) / length
				lowB = Math.min(lowB, at)
				highB = Math.max(highB, at)
			}
			if (highA <= lowB + TOUCH_M || highB <= lowA + TOUCH_M) return false
		}
	return true
}

/** How far a shape reaches over the edge of a ground, m; 0 when it lies inside. */
export const beyond = (polygon: Polygon, { lengthM, widthM }: { lengthM: number; widthM: number }): number =>
	Math.max(0, ...polygon.map(({ x, y }) => Math.max(-x, -y, x - lengthM, y - widthM)))
