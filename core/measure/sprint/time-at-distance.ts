/**
 * Time in seconds to a distance for the mono-exponential sprint d(t) = MSS (t − TAU (1 − e^(−t/TAU))).
 * Source: Furusawa, Hill & Parkinson 1927. Solved by Newton's method on u + e^(−u) − 1 = d / (MSS·TAU)
 * with u = t / TAU, which rises without bend changes, so that a start from above always converges.
 *
 * @param mssMps maximal sprinting speed, m/s, above 0
 * @param tauS time constant, s, above 0
 * @param distanceM metres, 0 or more
 * @throws RangeError outside those ranges
 * @example timeAtDistance(9, 1.2, 20) // 3.381…
 */
export function timeAtDistance(mssMps: number, tauS: number, distanceM: number): number {
	if (!(mssMps > 0 && Number.isFinite(mssMps))) throw new RangeError(`mssMps: ${mssMps} is not above 0`)
	if (!(tauS > 0 && Number.isFinite(tauS))) throw new RangeError(`tauS: ${tauS} is not above 0`)
	if (!(distanceM >= 0 && Number.isFinite(distanceM))) throw new RangeError(`distanceM: ${distanceM} is not 0 or more`)
	const c = distanceM / (mssMps * tauS)
	if (c === 0) return 0
	// Both bounds lie above the root: u < c + 1, and u + e^(−u) − 1 ≥ u²/2 − u³/6 near 0.
	let u = Math.min(c + 1, Math.sqrt(2 * c) * 1.5 + c / 3)
	for (let i = 0; i < 60; i++) {
		const slope = -Math.expm1(-u)
		const next = u - (u - slope - c) / slope
		if (Math.abs(next - u) <= 1e-14 * u) return next * tauS
		u = next
	}
	return u * tauS
}
