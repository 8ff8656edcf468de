import { inBounds } from '../measure/measure-error'

/** A time or a contact is better when lower, a height or a distance when higher. */
export type Better = 'lower' | 'higher'

/**
 * Percent by which a rep is worse than the session's best so far, in the mark's own unit; worse is
 * positive, the best itself is 0. A time 5 % slower reads 5, although the speed is 4.76 % lower.
 *
 * @throws MeasureError when a mark is not above 0
 * @example dropOffPercent(3.15, 3.0, 'lower') // 5
 */
export function dropOffPercent(value: number, best: number, better: Better): number {
	inBounds('value', value, { above: 0 })
	inBounds('best', best, { above: 0 })
	return ((better === 'lower' ? value - best : best - value) / best) * 100
}

/** Percent off the best of the reps up to and including each, of marks of one key, in order. @throws MeasureError when one is not above 0 */
export function percentsOffBest(values: readonly number[], better: Better): number[] {
	let best = values[0]!
	return values.map((value) => {
		if (better === 'lower' ? value < best : value > best) best = value
		return dropOffPercent(value, best, better)
	})
}

export interface DropOffRun {
	best: number
	/** One number per rep: percent off the best of the reps up to and including it. */
	percents: number[]
	/** Position, from 0, of the first of the reps running that were all at or past the limit; null when there were none. */
	fallIndex: number | null
	/** Position, from 0, of the last rep within the limit, up to the fall if there was one. */
	lastGoodIndex: number
}

/**
 * Follows reps against the best so far and finds where a number of them running reach a limit. The limit
 * is reached at equality, with a guard for rounding.
 *
 * @param values marks in order, one method, each above 0; at least one
 * @param limitPercent above 0
 * @param consecutive reps running that make a fall, 1 or more
 * @throws MeasureError outside those ranges
 */
export function followDropOff(
	values: readonly number[],
	better: Better,
	limitPercent: number,
	consecutive: number,
): DropOffRun {
	inBounds('values', values.length, { from: 1, unit: 'marks' })
	inBounds('consecutive', consecutive, { from: 1, whole: true })
	const percents = percentsOffBest(values, better)
	const past = percents.map((percent) => percent >= limitPercent - 1e-9)
	const allPast = (from: number) =>
		from >= 0 && from + consecutive <= past.length && past.slice(from, from + consecutive).every(Boolean)
	const fall = past.findIndex((_, index) => allPast(index))
	return {
		best: better === 'lower' ? Math.min(...values) : Math.max(...values),
		percents,
		fallIndex: fall === -1 ? null : fall,
		lastGoodIndex: past.slice(0, fall === -1 ? undefined : fall).lastIndexOf(false),
	}
}
