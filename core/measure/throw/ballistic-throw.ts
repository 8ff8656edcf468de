import { linearRegression } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure-error'
import { STANDARD_GRAVITY } from '../standard-gravity'
import { kineticEnergy } from '../load/energy'

export interface ThrowInput {
	/** From below the hand at release to the landing, above 0 to 150 m. */
	distanceM: number
	/** Of the hand above the landing, 0–4 m. */
	releaseHeightM: number
	/** Above the horizontal, −45 to below 90 degrees. */
	releaseAngleDeg: number
	/** 0.05–30 kg. */
	massKg?: number
}

export interface BallisticThrow {
	releaseSpeedMps: number
	/** Null without a mass. */
	kineticEnergyJ: number | null
	/** Release angle that would carry furthest at this speed and height. */
	bestAngleDeg: number
	/** Distance at that angle. */
	bestDistanceM: number
}

/**
 * Release speed of a throw from its distance, without air: v = √(g d² / (2 cos²θ (d tanθ + h))); and the
 * best angle at that speed and height, tanθ = v / √(v² + 2 g h). Closed-form ballistics. Fair for a
 * medicine ball; not for a disc, which flies on the air and is logged by distance only.
 *
 * @throws MeasureError outside the ranges, or when that angle cannot reach that distance
 * @example ballisticThrow({ distanceM: 10, releaseHeightM: 0, releaseAngleDeg: 45 }).releaseSpeedMps // 9.902…
 */
export function ballisticThrow({ distanceM, releaseHeightM, releaseAngleDeg, massKg }: ThrowInput): BallisticThrow {
	const d = inBounds('distanceM', distanceM, { above: 0, to: 150, unit: 'm' })
	const h = inBounds('releaseHeightM', releaseHeightM, { from: 0, to: 4, unit: 'm' })
	const angle =
		(inBounds('releaseAngleDeg', releaseAngleDeg, { from: -45, below: 90, unit: 'degrees' }) * Math.PI) / 180
	const rise = d * Math.tan(angle) + h
	if (!(rise > 1e-9))
		throw new MeasureError('releaseAngleDeg', releaseAngleDeg, `steep enough to carry ${d} m from a height of ${h} m`)
	const speed = Math.sqrt((STANDARD_GRAVITY * d * d) / (2 * Math.cos(angle) ** 2 * rise))
	if (!(speed <= 60))
		throw new MeasureError(
			'releaseAngleDeg',
			releaseAngleDeg,
			`an angle at which ${d} m needs no more than 60 m/s; this one needs ${speed.toFixed(0)}`,
		)
	const reach = Math.sqrt(speed ** 2 + 2 * STANDARD_GRAVITY * h)
	return {
		releaseSpeedMps: speed,
		kineticEnergyJ:
			massKg === undefined
				? null
				: kineticEnergy(inBounds('massKg', massKg, { from: 0.05, to: 30, unit: 'kg' }), speed),
		bestAngleDeg: (Math.atan(speed / reach) * 180) / Math.PI,
		bestDistanceM: (speed * reach) / STANDARD_GRAVITY,
	}
}

/**
 * What a heavier ball costs: change of release speed per kg, from one athlete's own throws.
 *
 * @param throws at least 3 different masses, kg and m/s above 0
 * @returns slope in (m/s)/kg and the speed read off the line at a mass
 * @throws MeasureError with fewer masses
 */
export function speedAgainstMass(throws: readonly { massKg: number; speedMps: number }[]): {
	slope: number
	speedAt: (massKg: number) => number
} {
	throws.forEach((one, index) => {
		inBounds(`throws[${index}].massKg`, one.massKg, { above: 0, to: 30, unit: 'kg' })
		inBounds(`throws[${index}].speedMps`, one.speedMps, { above: 0, to: 60, unit: 'm/s' })
	})
	const different = new Set(throws.map((one) => one.massKg)).size
	if (different < 3) throw new MeasureError('throws', different, 'at least 3 different masses')
	const line = linearRegression(throws.map((one) => [one.massKg, one.speedMps]))
	return { slope: line.m, speedAt: (massKg) => line.b + line.m * massKg }
}
