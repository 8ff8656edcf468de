import { FPS_BOUNDS, filmDuration, filmStandardError } from '../film/film-duration'
import { inBounds } from '../measure-error'
import { STANDARD_GRAVITY } from '../standard-gravity'
import { FLIGHT_BOUNDS, heightFromFlightTime } from './jump-height'
import { CONTACT_BOUNDS } from './reactive-strength-index'

export interface ReboundInput {
	/** Above 0 and below 3 s. */
	contactTimeS: number
	/** Above 0 and below 1.5 s. */
	flightTimeS: number
	/** 15–200 kg. */
	massKg?: number
	/** Rate the film was taken at, 10–2000; leave out for a mat. */
	fps?: number
}

export interface ReboundError {
	contactTimeS: number
	flightTimeS: number
	heightM: number
	rsiMps: number
}

export interface Rebound {
	heightM: number
	rsiMps: number
	flightContactRatio: number
	/** Null without a body mass. */
	stiffnessKnM: number | null
	/** Standard errors from the film's frames; null without a frame rate. */
	error: ReboundError | null
	warnings: string[]
}

/**
 * Vertical stiffness in N/m of a hop from contact and flight time, the ground force taken as half a sine:
 * K = m π (Tf + Tc) / (Tc² ((Tf + Tc)/π − Tc/4)). Source: Dalleau et al. 2004.
 *
 * @param massKg 15–200 kg
 * @throws MeasureError outside the ranges
 * @example verticalStiffness(70, 0.2, 0.3) // about 25 131
 */
export function verticalStiffness(massKg: number, contactTimeS: number, flightTimeS: number): number {
	const m = inBounds('massKg', massKg, { from: 15, to: 200, unit: 'kg' })
	const tc = inBounds('contactTimeS', contactTimeS, CONTACT_BOUNDS)
	const tf = inBounds('flightTimeS', flightTimeS, FLIGHT_BOUNDS)
	return (m * Math.PI * (tf + tc)) / (tc ** 2 * ((tf + tc) / Math.PI - tc / 4))
}

/**
 * One contact and the flight after it. With a frame rate, the error of the film is carried into the
 * height and the index: contact and flight share the frame of take-off, so a contact read too long makes
 * the flight too short (covariance −1/(12 f²)); left out, the index would look about a fifth too sure.
 *
 * @throws MeasureError outside the ranges of the input
 * @example rebound({ contactTimeS: 0.2, flightTimeS: 0.5, fps: 240 }).rsiMps // 1.532…
 */
export function rebound({ contactTimeS, flightTimeS, massKg, fps }: ReboundInput): Rebound {
	inBounds('contactTimeS', contactTimeS, CONTACT_BOUNDS)
	const heightM = heightFromFlightTime(flightTimeS)
	const rsiMps = heightM / contactTimeS
	const rate = fps === undefined ? null : inBounds('fps', fps, FPS_BOUNDS)
	return {
		heightM,
		rsiMps,
		flightContactRatio: flightTimeS / contactTimeS,
		stiffnessKnM: massKg === undefined ? null : verticalStiffness(massKg, contactTimeS, flightTimeS) / 1000,
		error: rate === null ? null : filmError(contactTimeS, flightTimeS, rsiMps, rate),
		warnings: rate === null ? [] : filmDuration(0, Math.max(1, Math.round(contactTimeS * rate)), rate).warnings,
	}
}

function filmError(tc: number, tf: number, rsi: number, fps: number): ReboundError {
	const se = filmStandardError(fps)
	const covariance = -1 / (12 * fps * fps)
	const byFlight = (2 * rsi) / tf
	const byContact = -rsi / tc
	return {
		contactTimeS: se,
		flightTimeS: se,
		heightM: ((STANDARD_GRAVITY * tf) / 4) * se,
		rsiMps: Math.sqrt((byFlight * se) ** 2 + (byContact * se) ** 2 + 2 * byFlight * byContact * covariance),
	}
}
