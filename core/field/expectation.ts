import type { Expectation } from '../measure/read-digits'

/** What digits typed for a mark are expected to mean, in the unit typed: s, ms, cm or m. */
export function expectationOf(
	kind: 'sprint' | 'contact' | 'flight' | 'height' | 'distance',
	distanceM: number | undefined,
	best: number | undefined,
): Expectation {
	if (kind === 'contact') return { low: 80, high: 400, decimals: 0 }
	if (kind === 'flight') return { low: 200, high: 750, decimals: 0 }
	if (kind === 'height') return { low: 10, high: 70, decimals: 1 }
	if (kind === 'distance')
		return best === undefined ? { low: 1, high: 20, decimals: 2 } : { low: best * 0.8, high: best * 1.1, decimals: 2 }
	if (best !== undefined) return { low: best * 0.95, high: best * 1.12, decimals: 2 }
	const metres = distanceM ?? 10
	// A beginner to an expert from a standing start, roughly [our setting].
	return { low: 0.75 + metres / 9.5, high: 1.2 + metres / 6, decimals: 2 }
}
