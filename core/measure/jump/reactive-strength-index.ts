import { heightFromFlightTime } from './height-from-flight-time'

/**
 * Reactive strength index in m/s: jump height from flight time over contact time. Not the
 * flight-to-contact ratio, which is another number.
 *
 * @param contactS seconds on the ground, above 0 and below 3
 * @throws RangeError outside the ranges of contact or flight time
 * @example reactiveStrengthIndex(0.2, 0.5) // 1.532…
 */
export function reactiveStrengthIndex(contactS: number, flightS: number): number {
	if (!(contactS > 0 && contactS < 3)) throw new RangeError(`contactS: ${contactS} is not above 0 and below 3 seconds`)
	return heightFromFlightTime(flightS) / contactS
}
