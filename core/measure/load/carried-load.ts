import { inBounds } from '../measure-error'
import { momentOfInertia } from './energy'

export interface CarriedLoad {
	/** On one limb, above 0 to 20 kg. */
	massKg: number
	/** Joint to load, 0–1.5 m. */
	radiusM: number
	/** Time over the same distance with the load, above 0 to 120 s; left out when not run. */
	timeS?: number
}

export interface CarriedLoadReading {
	/** Added about the joint; 0 without a load. */
	addedInertiaKgm2: number
	/** Speed lost against the run without load, percent; null when not run. */
	slowerPct: number | null
}

/**
 * Compares loads worn on a limb: the moment of inertia each adds about the joint (a load further out
 * counts with the square of its distance), and what it cost against the athlete's own run without one.
 *
 * @param freeTimeS time without load over the same distance, above 0 to 120 s; left out when not run
 * @throws MeasureError naming the load and the field
 * @example compareCarriedLoads([{ massKg: 0.4, radiusM: 0.8, timeS: 3.1 }], 3).at(0) // 0.256 kg m², 3.2 % slower
 */
export function compareCarriedLoads(loads: readonly CarriedLoad[], freeTimeS?: number): CarriedLoadReading[] {
	const free = freeTimeS === undefined ? null : inBounds('freeTimeS', freeTimeS, { above: 0, to: 120, unit: 's' })
	inBounds('loads', loads.length, { from: 1, to: 50, unit: 'loads' })
	return loads.map(({ massKg, radiusM, timeS }, index) => {
		inBounds(`loads[${index}].massKg`, massKg, { above: 0, to: 20, unit: 'kg' })
		inBounds(`loads[${index}].radiusM`, radiusM, { from: 0, to: 1.5, unit: 'm' })
		const time = timeS === undefined ? null : inBounds(`loads[${index}].timeS`, timeS, { above: 0, to: 120, unit: 's' })
		return {
			addedInertiaKgm2: momentOfInertia(massKg, radiusM),
			slowerPct: time === null || free === null ? null : (1 - free / time) * 100,
		}
	})
}
