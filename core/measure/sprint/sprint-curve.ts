import { inBounds } from '../measure-error'

/**
 * The mono-exponential sprint from a standstill: v(t) = MSS (1 − e^(−t/TAU)),
 * d(t) = MSS (t − TAU (1 − e^(−t/TAU))), a(t) = MSS/TAU · e^(−t/TAU).
 * Source: Furusawa, Hill & Parkinson 1927. It holds for the way up to top speed, not for the fade after it.
 *
 * MSS (maximal sprinting speed, m/s) and TAU (time constant, s) are above 0 and finite; times in s and
 * distances in m are 0 or more. Every function throws MeasureError outside those ranges.
 */

const checkCurve = (mssMps: number, tauS: number) => {
	inBounds('mssMps', mssMps, { above: 0, unit: 'm/s' })
	inBounds('tauS', tauS, { above: 0, unit: 's' })
}

/**
 * Solves u + e^(−u) − 1 = c for u ≥ 0, the sprint in units of TAU and MSS·TAU. Near 0 the left side is
 * u²/2 − u³/6 + …, which a subtraction would cancel: a series in √(2c) is used there. Elsewhere Newton
 * from above, where the function is convex, so that no step can overshoot.
 *
 * @param c 0 or more; not checked, this is the inner loop of every fit
 */
export function solveSprintTime(c: number): number {
	if (c < 1e-5) {
		const r = Math.sqrt(2 * c)
		return r * (1 + r * (1 / 6 + r * (1 / 36 + r / 270)))
	}
	let u = c < 1 ? Math.sqrt(2 * c) * (1 + 0.24 * Math.sqrt(c) + 0.08 * c) : c + 1
	for (let i = 0; i < 50; i++) {
		const fall = 1 - Math.exp(-u)
		const step = (u - fall - c) / fall
		u -= step
		// Newton doubles the digits: after a step this small the next would be below rounding.
		if (Math.abs(step) <= 1e-8 * u) break
	}
	return u
}

/**
 * Seconds from the start to a distance.
 * @example timeAtDistance(9, 1.2, 20) // 3.381…
 */
export function timeAtDistance(mssMps: number, tauS: number, distanceM: number): number {
	checkCurve(mssMps, tauS)
	inBounds('distanceM', distanceM, { from: 0, unit: 'm' })
	return solveSprintTime(distanceM / (mssMps * tauS)) * tauS
}

/**
 * Metres covered after a time.
 * @example distanceAtTime(9, 1.2, 3) // 17.08…
 */
export function distanceAtTime(mssMps: number, tauS: number, timeS: number): number {
	checkCurve(mssMps, tauS)
	const u = inBounds('timeS', timeS, { from: 0, unit: 's' }) / tauS
	// u + expm1(−u) loses digits near 0; its series does not.
	const shape = u < 1e-4 ? (u * u) / 2 - u ** 3 / 6 : u + Math.expm1(-u)
	return mssMps * tauS * shape
}

/**
 * Speed in m/s after a time.
 * @example speedAtTime(9, 1.2, 1.2) // 5.689…
 */
export function speedAtTime(mssMps: number, tauS: number, timeS: number): number {
	checkCurve(mssMps, tauS)
	return -mssMps * Math.expm1(-inBounds('timeS', timeS, { from: 0, unit: 's' }) / tauS)
}
