/** Standard gravity, m/s² (3rd CGPM, 1901). */
export const STANDARD_GRAVITY = 9.80665

/**
 * Jump height in metres from flight time: h = g t² / 8. Assumes the same posture at take-off and
 * landing; a landing with bent knees reads too high. Source: Bosco, Luhtanen & Komi 1983.
 *
 * @param flightS seconds, above 0 and below 1.5
 * @throws RangeError outside that range
 * @example heightFromFlightTime(0.5) // 0.3064…
 */
export function heightFromFlightTime(flightS: number): number {
	if (!(flightS > 0 && flightS < 1.5)) throw new RangeError(`flightS: ${flightS} is not above 0 and below 1.5 seconds`)
	return (STANDARD_GRAVITY * flightS ** 2) / 8
}
