import { inBounds } from '../measure-error'

/**
 * Kinetic energy in joules, ½ m v².
 *
 * @param massKg above 0 to 500 kg
 * @param speedMps from 0 to 100 m/s
 * @example kineticEnergy(1, 6.1) // 18.605
 */
export function kineticEnergy(massKg: number, speedMps: number): number {
	return (
		0.5 *
		inBounds('massKg', massKg, { above: 0, to: 500, unit: 'kg' }) *
		inBounds('speedMps', speedMps, { from: 0, to: 100, unit: 'm/s' }) ** 2
	)
}

/**
 * Moment of inertia in kg m² of a load carried at a distance from the joint, m r².
 *
 * @param massKg above 0 to 500 kg
 * @param radiusM from 0 to 3 m, joint to load
 * @example momentOfInertia(0.4, 0.8) // 0.256
 */
export function momentOfInertia(massKg: number, radiusM: number): number {
	return (
		inBounds('massKg', massKg, { above: 0, to: 500, unit: 'kg' }) *
		inBounds('radiusM', radiusM, { from: 0, to: 3, unit: 'm' }) ** 2
	)
}
