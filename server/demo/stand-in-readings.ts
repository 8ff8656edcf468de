import { timeAtDistance } from '../../core/measure/sprint/sprint-curve'
import type { Reading } from '../../core/devices/schema'
import type { Random } from '../../core/chance/random'
import type { DemoAthlete } from './scenario'

export interface Faults {
	/** Share of beams that see nothing. */
	dropped: number
	/** Share of beams that see an arm after the trunk. */
	doubled: number
}
export const USUAL_FAULTS: Faults = { dropped: 0.03, doubled: 0.12 }

/** Between the first beam and the body that has just set off, s [our setting]. */
const START_COST_S = 0.06
const DOUBLE_AFTER_MS = 60

/**
 * The beams one run breaks, by the athlete's own speed curve with noise: what a set of gates would send.
 *
 * @param startMs when the first beam is broken, ms since 1970 by the device's clock
 * @param beams distances in metres, the first 0
 */
export function beamsOfRun(
	athlete: DemoAthlete,
	startMs: number,
	beams: readonly number[],
	lane: number,
	random: Random,
	faults: Faults = USUAL_FAULTS,
): Reading[] {
	const form = 1 + 0.01 + random.normal(0.008)
	return beams.flatMap((distanceM) => {
		if (distanceM > 0 && random.chance(faults.dropped)) return []
		const after =
			distanceM === 0
				? 0
				: (timeAtDistance(athlete.mss, athlete.tau, distanceM) + START_COST_S) * form + random.normal(0.004)
		const at = Math.round(startMs + after * 1000)
		const reading = (ms: number): Reading => ({
			id: random.uuid(),
			kind: 'beam',
			time: new Date(ms).toISOString(),
			value: { distanceM, lane },
		})
		return random.chance(faults.doubled) ? [reading(at), reading(at + DOUBLE_AFTER_MS)] : [reading(at)]
	})
}

/** A row of hops on a mat, by the athlete's own contact and flight with noise. */
export function hopsOnMat(athlete: DemoAthlete, startMs: number, hops: number, random: Random): Reading[] {
	const readings: Reading[] = []
	let at = startMs
	const change = (feet: 'down' | 'up', ms: number) =>
		readings.push({ id: random.uuid(), kind: 'mat', time: new Date(Math.round(ms)).toISOString(), value: { feet } })
	for (let hop = 0; hop < hops; hop++) {
		change('down', at)
		at += (athlete.contactS + random.normal(0.008)) * 1000
		change('up', at)
		at += (athlete.flightS + random.normal(0.012)) * 1000
	}
	change('down', at)
	change('up', at + 1500)
	return readings
}

/** A throw, by what the athlete's speed says of their power. */
export function throwAtSensor(athlete: DemoAthlete, atMs: number, random: Random): Reading {
	return {
		id: random.uuid(),
		kind: 'ball',
		time: new Date(atMs).toISOString(),
		value: { releaseMps: Math.round((4 + athlete.mss * 0.55 + random.normal(0.3)) * 100) / 100 },
	}
}
