import { mean } from 'simple-statistics'
import type { Day } from '../calendar/day-count'
import type { Method } from '../vocabulary/words'
import type { Better } from './drop-off'
import type { MarkKind } from './typical-error'
import { type DefaultSpreads, type SessionMean, spreadsOf } from './usual'

/** Sessions now, left out between, and before [our setting]. */
const NOW = 4
const BETWEEN = 4
const BEFORE = 8
/** Beyond so many standard errors, and over this share [our setting]. */
const ERRORS = 3
const LEAST_PERCENT = 2

export interface SlowFall {
	/** Fall of the last four sessions against the eight, percent. */
	percent: number
	standardErrors: number
	now: number
	before: number
	fallen: boolean
}

/**
 * A fall the usual drifts along with: the last four sessions against eight earlier ones, with four left out
 * between, beyond three standard errors and over 2 %.
 *
 * @param sessions one key's, any order
 * @param upTo the last day looked at
 * @returns null below sixteen sessions
 */
export function readSlowFall(
	sessions: readonly SessionMean[],
	upTo: Day,
	kind: MarkKind,
	method: Method,
	better: Better,
	defaults: DefaultSpreads = {},
): SlowFall | null {
	const all = sessions
		.filter((one) => one.unusual !== true && one.day <= upTo)
		.sort((a, b) => (a.day < b.day ? -1 : 1))
		.slice(-(NOW + BETWEEN + BEFORE))
	if (all.length < NOW + BETWEEN + BEFORE) return null
	const [earlier, late] = [all.slice(0, BEFORE), all.slice(-NOW)]
	const [before, now] = [mean(earlier.map((one) => one.mean)), mean(late.map((one) => one.mean))]
	// Each window's own scatter, so that the fall itself does not widen what it is held against.
	const spreads = spreadsOf(earlier, before, kind, method, defaults)
	const ofOneMean = spreads.betweenSd ** 2 + spreads.withinSd ** 2 * mean(all.map((one) => 1 / one.n))
	const error = Math.sqrt(ofOneMean * (1 / NOW + 1 / BEFORE))
	const fall = better === 'lower' ? now - before : before - now
	const percent = (100 * fall) / before
	return {
		percent,
		standardErrors: error === 0 ? (fall > 0 ? Number.POSITIVE_INFINITY : 0) : fall / error,
		now,
		before,
		fallen: fall > ERRORS * error && percent > LEAST_PERCENT + 1e-9,
	}
}
