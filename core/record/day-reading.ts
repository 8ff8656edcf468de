import { type DayMean, chanceOfFallOver } from '../noise/against-usual'
import type { MarkKind } from '../noise/typical-error'
import type { Usual } from '../noise/usual'
import { betterOf } from '../marks/keep-session'

/** Of days like any other, so many are called flat by chance, and so many good, at most [our setting]. */
export const MOST_FALSE_CALLS = 0.05

/** One key of a day: its reps together, and what was usual before. */
export interface KeyOfDay {
	key: string
	kind: MarkKind
	today: DayMean
	usual: Usual
}
export interface DayReading {
	state: 'flat' | 'good' | 'as usual'
	/** The key that lies farthest out, on the side it was called for. */
	by: { key: string; kind: MarkKind; mean: number; usual: number; worsePercent: number } | null
}

/**
 * Whether a day lies below or above the usual beyond noise, over all keys of it that have a usual: the more keys are
 * looked at, the farther out one of them must lie, so that a day like any other is called in one of twenty at most
 * either way.
 *
 * @param keys full effort, what was set aside left out
 * @returns null without a key that has a usual
 */
export function readDay(keys: readonly KeyOfDay[]): DayReading | null {
	if (keys.length === 0) return null
	const limit = MOST_FALSE_CALLS / keys.length
	const read = keys.map((one) => ({
		...one,
		/** Chance that the athlete was truly worse than usual that day. */
		worse: chanceOfFallOver(one.usual, one.today, 0, betterOf(one.kind)),
	}))
	const [flattest] = [...read].sort((a, b) => b.worse - a.worse)
	const [best] = [...read].sort((a, b) => a.worse - b.worse)
	const flat = flattest!.worse >= 1 - limit
	const good = best!.worse <= limit
	// Below in one thing and above in another: what lies farther out is told.
	const state = flat && (!good || 1 - flattest!.worse <= best!.worse) ? 'flat' : good ? 'good' : 'as usual'
	const called = state === 'flat' ? flattest! : state === 'good' ? best! : null
	return {
		state,
		by: called && {
			key: called.key,
			kind: called.kind,
			mean: called.today.mean,
			usual: called.usual.value,
			worsePercent:
				(100 * (betterOf(called.kind) === 'lower' ? 1 : -1) * (called.today.mean - called.usual.value)) /
				called.usual.value,
		},
	}
}
