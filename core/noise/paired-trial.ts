import tQuantile from '@stdlib/stats-base-dists-t-quantile'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure/measure-error'

/** One athlete's change under both conditions: each is their own control. */
export interface PairedChange {
	/** After − before, with the warm-up or drill on trial. */
	trial: number
	/** After − before, on the control day. */
	control: number
}

export interface PairedTrial {
	n: number
	/** Mean of trial − control. */
	difference: number
	/** 95 % interval by Student's t; null with fewer than two athletes. */
	interval: [number, number] | null
	answered: boolean
	sentence: string
}

const FEWEST = 5

/**
 * Did it make a difference to these athletes? Differences against each athlete's own control, with an
 * interval. No answer while the interval holds 0 or fewer than five took part. It says nothing about
 * other people or the long run.
 *
 * @param changes one an athlete, in the test's unit
 * @throws MeasureError when a value is not a number
 */
export function pairedTrial(changes: readonly PairedChange[]): PairedTrial {
	changes.forEach((change, index) => {
		inBounds(`changes[${index}].trial`, change.trial, {})
		inBounds(`changes[${index}].control`, change.control, {})
	})
	if (changes.length === 0) throw new MeasureError('changes', 0, 'at least one athlete')
	const n = changes.length
	const differences = changes.map((change) => change.trial - change.control)
	const difference = mean(differences)
	const half = n < 2 ? null : (tQuantile(0.975, n - 1) * sampleStandardDeviation(differences)) / Math.sqrt(n)
	const interval: [number, number] | null = half === null ? null : [difference - half, difference + half]
	const answered = n >= FEWEST && interval !== null && (interval[0] > 0 || interval[1] < 0)
	const sentence = answered
		? `Over ${n} athletes the difference is real for them; nothing is said of others or of the long run.`
		: n < FEWEST
			? `No answer yet: ${n} of ${FEWEST} athletes.`
			: 'No answer yet: the interval holds 0.'
	return { n, difference, interval, answered, sentence }
}
