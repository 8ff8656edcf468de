import { mean } from 'simple-statistics'
import { type Day, addDays, daysBetween } from '../calendar/day-count'
import type { Method } from '../vocabulary/words'
import type { Better } from './drop-off'
import { FEWEST_PAIRS, type MarkKind, type OwnErrors, typicalErrorOf } from './typical-error'

/** What one session says of one comparison key, as it is kept: recomputed whole, never added to. */
export interface SessionMean {
	day: Day
	/** Marks of full effort, at least 1. */
	n: number
	/** In the mark's unit. */
	mean: number
	/** Sum of squared distances from the mean. */
	squares: number
	best: number
	/** The first day after time away, or an unloading week: a record, but not usual. */
	unusual?: boolean
}

/** What an athlete's sessions by one key usually come to, and how far chance moves them; all in the mark's unit. */
export interface Usual {
	value: number
	/** SD between the true values of two days. */
	betweenSd: number
	/** SD of one rep around its day. */
	withinSd: number
	/** Of `value`. */
	standardError: number
	/** Degrees of freedom of the spreads. */
	freedom: number
	/** Sessions it is made of, 2–8. */
	sessions: number
}

/** Spreads to shrink towards, in the mark's unit: the squad's where they are known, else the method's. */
export interface DefaultSpreads {
	betweenSd?: number | undefined
	/** Instead of `betweenSd`, percent of the mark. */
	betweenPercent?: number | undefined
	withinSd?: number | undefined
}

/** Sessions and weeks that make the usual [our setting]. */
export const USUAL_SESSIONS = 8
export const USUAL_DAYS = 84
/** Fewer sessions make no usual. */
export const FEWEST_SESSIONS = 2
/** From so many sessions on, the highest and the lowest are left out [our setting]. */
const TRIMMED_FROM = 5
/** The default spread weighs as much as this many degrees of freedom [our setting]. */
const PRIOR_WEIGHT = 8
/** Day to day, percent of the mark [our setting, from memory of the trade]. */
export const BETWEEN_PERCENT: Record<MarkKind, number> = { sprint: 1, contact: 2.5, height: 2.5, distance: 2.5 }

/**
 * How far a day moves a squad's athletes, percent of the mark, from the scatter of their session means, shrunk towards
 * the default: as soon as there are 20 days, which then weigh as one of the default's 20 each.
 *
 * @param ofMeans mean squared distance of session means from their athlete's mean, as a share of it squared
 * @param ofReps what of it is left of the reps' own scatter, likewise
 * @param days sessions of one athlete and key beside the first
 * @returns null below 20 days
 */
export function ownDayPercent(kind: MarkKind, ofMeans: number, ofReps: number, days: number): number | null {
	if (days < FEWEST_PAIRS) return null
	const own = Math.max(0, ofMeans - ofReps) * 100 ** 2
	return Math.sqrt((FEWEST_PAIRS * BETWEEN_PERCENT[kind] ** 2 + days * own) / (FEWEST_PAIRS + days))
}

/** What an athlete's own spreads are shrunk towards: the squad's, where it has its own. */
export const defaultsFrom = (errors: OwnErrors | undefined, kind: MarkKind, method: Method): DefaultSpreads => {
	const own = errors?.[`${kind}/${method}`]
	return own ? { withinSd: own.sd, betweenPercent: own.dayPercent } : {}
}

/**
 * Variance of the mean of k without its highest and lowest, over that of the plain mean, from normal
 * order statistics.
 */
const TRIMMED_VARIANCE: Readonly<Record<number, number>> = { 5: 1.134, 6: 1.099, 7: 1.08, 8: 1.07 }

/** Marks of one session and key as they are kept. Marks are in one unit, each above 0; null without any. */
export function sessionMeanOf(
	session: { day: Day; unusual?: boolean },
	marks: readonly number[],
	better: Better,
): SessionMean | null {
	if (marks.length === 0) return null
	const average = mean([...marks])
	return {
		day: session.day,
		n: marks.length,
		mean: average,
		squares: marks.reduce((sum, mark) => sum + (mark - average) ** 2, 0),
		best: better === 'lower' ? Math.min(...marks) : Math.max(...marks),
		...(session.unusual ? { unusual: true } : {}),
	}
}

/** The sessions that make the usual of a day: the last eight before it, of twelve weeks. */
const usualSessions = (sessions: readonly SessionMean[], day: Day): SessionMean[] =>
	sessions
		.filter((one) => one.unusual !== true && one.day < day && daysBetween(one.day, day) <= USUAL_DAYS)
		.sort((a, b) => (a.day < b.day ? -1 : 1))
		.slice(-USUAL_SESSIONS)

const withoutExtremes = (values: readonly number[]): number[] =>
	values.length < TRIMMED_FROM ? [...values] : [...values].sort((a, b) => a - b).slice(1, -1)

/** Own variance and what it is held against, weighed by their freedom. */
const shrunk = (own: number, freedom: number, prior: number): number =>
	(PRIOR_WEIGHT * prior + freedom * own) / (PRIOR_WEIGHT + freedom)

/** The spreads of an athlete's sessions by one key, shrunk towards the defaults. */
export function spreadsOf(
	sessions: readonly SessionMean[],
	around: number,
	kind: MarkKind,
	method: Method,
	defaults: DefaultSpreads = {},
): { betweenSd: number; withinSd: number; freedom: number } {
	const priorWithin = (defaults.withinSd ?? typicalErrorOf(kind, method) ?? 0) ** 2
	const priorBetween = (defaults.betweenSd ?? (around * (defaults.betweenPercent ?? BETWEEN_PERCENT[kind])) / 100) ** 2
	const reps = sessions.reduce((sum, one) => sum + one.n - 1, 0)
	const squares = sessions.reduce((sum, one) => sum + one.squares, 0)
	const within = shrunk(reps === 0 ? 0 : squares / reps, reps, priorWithin)
	const freedom = Math.max(0, sessions.length - 1)
	const average = sessions.length === 0 ? 0 : mean(sessions.map((one) => one.mean))
	const ofMeans = freedom === 0 ? 0 : sessions.reduce((sum, one) => sum + (one.mean - average) ** 2, 0) / freedom
	// The means scatter by the day and by what is left of the reps' scatter; only the day's part is wanted.
	const between = Math.max(0, ofMeans - within * repsShare(sessions))
	return {
		betweenSd: Math.sqrt(shrunk(between, freedom, priorBetween)),
		withinSd: Math.sqrt(within),
		freedom: PRIOR_WEIGHT + freedom,
	}
}
const repsShare = (sessions: readonly SessionMean[]): number =>
	sessions.length === 0 ? 0 : mean(sessions.map((one) => 1 / one.n))

/**
 * The usual of a key on a day: the mean of the athlete's session means over the last sessions before it, from
 * five on without the highest and the lowest, with the spread between days and within a day.
 *
 * @param sessions one key's, any order; each above 0
 * @returns null below two sessions
 */
export function usualOf(
	sessions: readonly SessionMean[],
	day: Day,
	kind: MarkKind,
	method: Method,
	defaults: DefaultSpreads = {},
): Usual | null {
	const used = usualSessions(sessions, day)
	if (used.length < FEWEST_SESSIONS) return null
	const value = mean(withoutExtremes(used.map((one) => one.mean)))
	const spreads = spreadsOf(used, value, kind, method, defaults)
	const ofOneMean = spreads.betweenSd ** 2 + spreads.withinSd ** 2 * repsShare(used)
	return {
		value,
		...spreads,
		standardError: Math.sqrt((ofOneMean * (TRIMMED_VARIANCE[used.length] ?? 1)) / used.length),
		sessions: used.length,
	}
}

/** Days of a season [our setting]. */
const SEASON_DAYS = 182

/** Personal and season best before a day, as records; null without a session. */
export function bestsOf(
	sessions: readonly SessionMean[],
	day: Day,
	better: Better,
): { best: number | null; seasonBest: number | null } {
	const before = sessions.filter((one) => one.day < day)
	const of = (some: readonly SessionMean[]) =>
		some.length === 0 ? null : (better === 'lower' ? Math.min : Math.max)(...some.map((one) => one.best))
	const from = addDays(day, -SEASON_DAYS)
	return { best: of(before), seasonBest: of(before.filter((one) => one.day >= from)) }
}
