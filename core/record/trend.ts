import tQuantile from '@stdlib/stats-base-dists-t-quantile'
import { mean } from 'simple-statistics'
import type { Day } from '../calendar/day-count'
import { monthOf, shortDay } from '../calendar/say-day'
import { betterOf } from '../marks/keep-session'
import type { Better } from '../noise/drop-off'
import type { MarkKind } from '../noise/typical-error'
import { type DefaultSpreads, type SessionMean, spreadsOf, usualOf } from '../noise/usual'
import type { Method } from '../vocabulary/words'
import { writeMark } from '../words/write-numbers'

/** Sessions at either end that are held against each other, and the fewest [our setting]. */
export const TREND_SESSIONS = 4
export const FEWEST_AT_AN_END = 2
/** Of the interval. */
const CONFIDENCE = 0.95

/** What a span of sessions by one key changed. */
export interface Change {
	/** Last sessions against the first, in the mark's unit; above 0 is better, whichever way that is. */
	gain: number
	/** Interval of the gain, 95 %. */
	low: number
	high: number
	/** The interval does not hold 0. */
	beyond: boolean
	/** Day of the first session that was held against the last. */
	since: Day
	/** Sessions at each end, 2–4. */
	sessions: number
}

const usualOnly = (sessions: readonly SessionMean[]): SessionMean[] =>
	sessions.filter((one) => one.unusual !== true).sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
const repsShare = (sessions: readonly SessionMean[]): number => mean(sessions.map((one) => 1 / one.n))

/**
 * The last up to four sessions of a span against its first, by Student's t: a change is one only when its 95 %
 * interval does not hold 0. First days back and unloading weeks are left out. The spread between days and within a
 * day is each end's own, shrunk towards the defaults, so that the change itself does not widen it.
 *
 * @param sessions one key's, any order, each above 0
 * @returns null below four sessions: two at either end
 */
export function changeOf(
	sessions: readonly SessionMean[],
	kind: MarkKind,
	method: Method,
	defaults: DefaultSpreads = {},
): Change | null {
	const all = usualOnly(sessions)
	const count = Math.min(TREND_SESSIONS, Math.floor(all.length / 2))
	if (count < FEWEST_AT_AN_END) return null
	const [first, last] = [all.slice(0, count), all.slice(-count)]
	const [before, now] = [first, last].map((some) => mean(some.map((one) => one.mean))) as [number, number]
	const spreads = [
		spreadsOf(first, before, kind, method, defaults),
		spreadsOf(last, now, kind, method, defaults),
	] as const
	const variance = [first, last].reduce(
		(sum, some, end) => sum + (spreads[end]!.betweenSd ** 2 + spreads[end]!.withinSd ** 2 * repsShare(some)) / count,
		0,
	)
	// The defaults are one piece of knowledge, not two: they count once.
	const freedom = spreads[0].freedom + count - 1
	const half = tQuantile((1 + CONFIDENCE) / 2, freedom) * Math.sqrt(variance)
	const gain = betterOf(kind) === 'lower' ? before - now : now - before
	const [low, high] = [gain - half, gain + half]
	return { gain, low, high, beyond: low > 0 || high < 0, since: first[0]!.day, sessions: count }
}

const BETTER_WORD: Record<MarkKind, [better: string, worse: string]> = {
	sprint: ['faster', 'slower'],
	contact: ['shorter', 'longer'],
	height: ['higher', 'lower'],
	distance: ['farther', 'less far'],
}
/** "faster", or "slower". */
export const changeWord = (kind: MarkKind, better: boolean): string => BETTER_WORD[kind][better ? 0 : 1]
/** "since September", or "since Tue 24 Nov" within the same month. */
const saySince = (since: Day, today: Day): string =>
	since.slice(0, 7) === today.slice(0, 7) ? `since ${shortDay(since)}` : `since ${monthOf(since, today)}`

/** A change in words, without its measure. @example "faster by 0.09 s since September, beyond noise" and "0.06 to 0.12 s" */
export function sayChange(change: Change, kind: MarkKind, today: Day): { words: string; interval: string } {
	const size = (value: number) => writeMark({ kind, value: Math.abs(value) })
	const [better, worse] = BETTER_WORD[kind]
	const since = saySince(change.since, today)
	if (!change.beyond) {
		// "−0.02 to 0.05 s": the sign says better or worse.
		const signed = (value: number) => `${value < 0 ? '−' : ''}${size(value)}`
		return {
			words: `no change beyond noise ${since}`,
			interval: `${signed(change.low)} to ${signed(change.high)} ${better}`,
		}
	}
	const ends = [Math.abs(change.low), Math.abs(change.high)].sort((a, b) => a - b)
	return {
		words: `${change.gain > 0 ? better : worse} by ${size(change.gain)} ${since}, beyond noise`,
		interval: `${size(ends[0]!)} to ${size(ends[1]!)}`,
	}
}

/** One session of one key as a point of its picture; numbers in the mark's unit. */
export interface TrendPoint {
	sessionId: string
	day: Day
	mean: number
	best: number
	n: number
	/** What was usual before that day, and how far a day moves it either way; null before there was a usual. */
	usual: number | null
	low: number | null
	high: number | null
	/** Better than everything before it, of at least one session. */
	record: boolean
	/** First day back or unloading: shown, and no part of the usual. */
	unusual: boolean
}

/**
 * The points of one key's picture, oldest first, each with the usual as it was before that day: a point is never held
 * against itself.
 *
 * @param sessions one key's, any order, all there are: the first ones shown need those before them
 * @param from the first day shown
 */
export function trendPoints(
	sessions: readonly (SessionMean & { sessionId: string })[],
	from: Day,
	kind: MarkKind,
	method: Method,
	defaults: DefaultSpreads = {},
): TrendPoint[] {
	const all = [...sessions].sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : 0))
	const better: Better = betterOf(kind)
	let best: number | null = null
	return all.flatMap((one): TrendPoint[] => {
		const record = best !== null && (better === 'lower' ? one.best < best : one.best > best)
		best = best === null ? one.best : better === 'lower' ? Math.min(best, one.best) : Math.max(best, one.best)
		if (one.day < from) return []
		const usual = usualOf(all, one.day, kind, method, defaults)
		// What a day moves: the day itself and the reps it is the mean of.
		const moves = usual && Math.sqrt(usual.betweenSd ** 2 + usual.withinSd ** 2 / one.n)
		return [
			{
				sessionId: one.sessionId,
				day: one.day,
				mean: one.mean,
				best: one.best,
				n: one.n,
				usual: usual?.value ?? null,
				low: usual ? usual.value - moves! : null,
				high: usual ? usual.value + moves! : null,
				record,
				unusual: one.unusual === true,
			},
		]
	})
}

/** Left against right of one session, percent of the stronger side; above 0 where the left is ahead. */
export interface GapPoint {
	day: Day
	percent: number
}
/** The gap between two sides' sessions of the same days, oldest first. */
export function gapPoints(left: readonly TrendPoint[], right: readonly TrendPoint[], kind: MarkKind): GapPoint[] {
	const ofSession = new Map(right.map((one) => [one.sessionId, one]))
	return left.flatMap((one): GapPoint[] => {
		const other = ofSession.get(one.sessionId)
		if (!other) return []
		const lower = betterOf(kind) === 'lower'
		const stronger = lower ? Math.min(one.mean, other.mean) : Math.max(one.mean, other.mean)
		const ahead = lower ? other.mean - one.mean : one.mean - other.mean
		return [{ day: one.day, percent: (100 * ahead) / stronger }]
	})
}
