import tCdf from '@stdlib/stats-base-dists-t-cdf'
import type { Better } from './drop-off'
import type { Usual } from './usual'

/** A chance from here on is clear [our setting]. */
export const CLEAR_CHANCE = 0.8
/** What would settle it is said only under so many more reps [our setting]. */
export const MOST_MORE_REPS = 8

export type Outcome = 'pass' | 'miss' | 'unclear'

/** What would make it clear, if the mean stays where it is. */
export type Settle = { reps: number } | { method: string } | { anotherDay: true }

/** Reps of one day by one key. */
export interface DayMean {
	n: number
	mean: number
}

export interface AgainstUsual {
	outcome: Outcome
	/** How much worse than usual, percent of it; negative is better. */
	fallPercent: number
	/** Chance that the true fall is over the limit, 0–1. */
	probabilityFallOver: number
	settle: Settle | null
}

const worseBy = (mean: number, usual: number, better: Better): number =>
	better === 'lower' ? mean - usual : usual - mean

/** Chance that the true fall is over the limit; the spread holds what a day moves, both sides' reps, and the usual's own error. */
export function chanceOfFallOver(usual: Usual, today: DayMean, percent: number, better: Better): number {
	const spread = Math.sqrt(usual.betweenSd ** 2 + usual.withinSd ** 2 / today.n + usual.standardError ** 2)
	const over = worseBy(today.mean, usual.value, better) - (usual.value * percent) / 100
	if (spread === 0) return over > 0 ? 1 : 0
	return tCdf(over / spread, usual.freedom)
}

export const outcomeOf = (fallOver: number): Outcome =>
	fallOver >= CLEAR_CHANCE ? 'miss' : fallOver <= 1 - CLEAR_CHANCE ? 'pass' : 'unclear'

/**
 * One day against the usual: a pass when the true fall is at most `percent` with a chance of 0.8 or more, a
 * miss when it is over with that chance.
 *
 * @param today reps of that day, n at least 1
 * @param percent above 0: 3 for times, 5 for heights, contacts and throws
 * @param finer a finer method's name and the spreads it would have, to say whether it would settle it
 */
export function againstUsual(
	usual: Usual,
	today: DayMean,
	percent: number,
	better: Better,
	finer: { name: string; withinSd: number } | null = null,
): AgainstUsual {
	const probabilityFallOver = chanceOfFallOver(usual, today, percent, better)
	const outcome = outcomeOf(probabilityFallOver)
	return {
		outcome,
		fallPercent: (100 * worseBy(today.mean, usual.value, better)) / usual.value,
		probabilityFallOver,
		settle: outcome === 'unclear' ? settleOf(usual, today, percent, better, finer) : null,
	}
}

function settleOf(
	usual: Usual,
	today: DayMean,
	percent: number,
	better: Better,
	finer: { name: string; withinSd: number } | null,
): Settle | null {
	const clear = (with_: Usual, n: number) =>
		outcomeOf(chanceOfFallOver(with_, { n, mean: today.mean }, percent, better)) !== 'unclear'
	for (let reps = 1; reps < MOST_MORE_REPS; reps++) if (clear(usual, today.n + reps)) return { reps }
	// The usual keeps its error: it was made by the method of before.
	if (finer && clear({ ...usual, withinSd: finer.withinSd }, today.n)) return { method: finer.name }
	// Two days halve what a day moves.
	const twoDays = { ...usual, betweenSd: usual.betweenSd / Math.SQRT2 }
	return clear(twoDays, 2 * today.n) ? { anotherDay: true } : null
}

/**
 * Chance that the true mean of the day is at or under a ceiling that stays where it is, with the noise of the
 * day and of the reps.
 *
 * @param spreads of the athlete where known
 */
export function chanceUnderCeiling(
	spreads: Pick<Usual, 'betweenSd' | 'withinSd' | 'freedom'>,
	today: DayMean,
	ceiling: number,
): number {
	const spread = Math.sqrt(spreads.betweenSd ** 2 + spreads.withinSd ** 2 / today.n)
	if (spread === 0) return today.mean <= ceiling ? 1 : 0
	return tCdf((ceiling - today.mean) / spread, spreads.freedom)
}

/** What would settle whether a ceiling is met, if the mean stays where it is. */
export function settleUnderCeiling(
	spreads: Pick<Usual, 'betweenSd' | 'withinSd' | 'freedom'>,
	today: DayMean,
	ceiling: number,
): Settle | null {
	const clear = (of: typeof spreads, n: number) =>
		outcomeOf(1 - chanceUnderCeiling(of, { n, mean: today.mean }, ceiling)) !== 'unclear'
	for (let reps = 1; reps < MOST_MORE_REPS; reps++) if (clear(spreads, today.n + reps)) return { reps }
	return clear({ ...spreads, betweenSd: spreads.betweenSd / Math.SQRT2 }, 2 * today.n) ? { anotherDay: true } : null
}
