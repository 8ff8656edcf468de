import { MeasureError, inBounds } from '../measure-error'
import { STANDARD_GRAVITY } from '../standard-gravity'

/** A flight of 1.5 s would be a jump of 2.76 m. */
export const FLIGHT_BOUNDS = { above: 0, below: 1.5, unit: 's' } as const

/**
 * Jump height in metres from flight time: h = g t² / 8. Assumes the same posture at take-off and
 * landing; a landing with bent knees reads too high. Source: Bosco, Luhtanen & Komi 1983.
 *
 * @param flightTimeS seconds, above 0 and below 1.5
 * @throws MeasureError outside that range
 * @example heightFromFlightTime(0.5) // 0.3064…
 */
export function heightFromFlightTime(flightTimeS: number): number {
	return (STANDARD_GRAVITY * inBounds('flightTimeS', flightTimeS, FLIGHT_BOUNDS) ** 2) / 8
}

/**
 * Jump height in metres from the speed at take-off: h = v² / (2 g).
 *
 * @param takeoffVelocityMps above 0 and below 7 m/s
 * @example heightFromTakeoffVelocity(2.5) // 0.3186…
 */
export function heightFromTakeoffVelocity(takeoffVelocityMps: number): number {
	return (
		inBounds('takeoffVelocityMps', takeoffVelocityMps, { above: 0, below: 7, unit: 'm/s' }) ** 2 /
		(2 * STANDARD_GRAVITY)
	)
}

/**
 * Jump height in metres as reach at the top less standing reach.
 *
 * @param reachM above 0 to 5 m, above the standing reach and at most 2 m above it
 * @param standingReachM above 0 to 4 m
 * @example heightFromReach(2.75, 2.3) // 0.45
 */
export function heightFromReach(reachM: number, standingReachM: number): number {
	inBounds('standingReachM', standingReachM, { above: 0, to: 4, unit: 'm' })
	inBounds('reachM', reachM, { above: 0, to: 5, unit: 'm' })
	if (!(reachM > standingReachM && reachM - standingReachM <= 2))
		throw new MeasureError('reachM', reachM, `above the standing reach of ${standingReachM} m, by at most 2 m`)
	return reachM - standingReachM
}
