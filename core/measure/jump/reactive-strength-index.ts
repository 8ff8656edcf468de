import { inBounds } from '../measure-error'
import { heightFromFlightTime } from './jump-height'

export const CONTACT_BOUNDS = { above: 0, below: 3, unit: 's' } as const

/**
 * Reactive strength index in m/s: jump height from flight time over contact time. Not the
 * flight-to-contact ratio, which is another number.
 *
 * @param contactTimeS seconds on the ground, above 0 and below 3
 * @param flightTimeS seconds, above 0 and below 1.5
 * @throws MeasureError outside the ranges of contact or flight time
 * @example reactiveStrengthIndex(0.2, 0.5) // 1.532…
 */
export function reactiveStrengthIndex(contactTimeS: number, flightTimeS: number): number {
	inBounds('contactTimeS', contactTimeS, CONTACT_BOUNDS)
	return heightFromFlightTime(flightTimeS) / contactTimeS
}

/**
 * The same for a jump from a standstill: height over the time from the start of the movement to take-off.
 *
 * @param timeToTakeoffS above 0 and below 3 s
 * @param heightM above 0 to 2 m
 * @example modifiedReactiveStrengthIndex(0.35, 0.7) // 0.5
 */
export function modifiedReactiveStrengthIndex(heightM: number, timeToTakeoffS: number): number {
	return (
		inBounds('heightM', heightM, { above: 0, to: 2, unit: 'm' }) /
		inBounds('timeToTakeoffS', timeToTakeoffS, { above: 0, below: 3, unit: 's' })
	)
}
