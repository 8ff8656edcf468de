import { mean } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure-error'
import { reactiveStrengthIndex } from './reactive-strength-index'

/**
 * Mean reactive strength index of the best hops of a series, in m/s.
 *
 * @param hops contact and flight of each hop, in s
 * @param bestN how many of the best to average, 1 to the number of hops
 * @throws MeasureError naming the hop and the field
 * @example bestHops([{ contactTimeS: 0.2, flightTimeS: 0.5 }, { contactTimeS: 0.2, flightTimeS: 0.4 }], 1) // 1.532…
 */
export function bestHops(hops: readonly { contactTimeS: number; flightTimeS: number }[], bestN: number): number {
	inBounds('bestN', bestN, { from: 1, to: Math.max(hops.length, 1), whole: true, unit: 'hops' })
	if (hops.length === 0) throw new MeasureError('hops', 0, 'at least one hop')
	const indices = hops.map((hop, index) => {
		try {
			return reactiveStrengthIndex(hop.contactTimeS, hop.flightTimeS)
		} catch (error) {
			throw error instanceof MeasureError
				? new MeasureError(`hops[${index}].${error.field}`, error.value, error.expected)
				: error
		}
	})
	return mean(indices.sort((a, b) => b - a).slice(0, bestN))
}
