import type { Firmness, Method } from '../vocabulary/words'

export type MarkKind = 'sprint' | 'contact' | 'height' | 'distance'

/**
 * Typical error of one rep by method, used until a squad has its own: seconds for times, metres for
 * lengths [our setting, from memory of the trade]. It holds the timing and the athlete's own scatter.
 */
const DEFAULTS: Record<MarkKind, Partial<Record<Method, number>>> = {
	sprint: { gate: 0.02, 'gate-signal': 0.04, 'gate-hand': 0.07, phone: 0.04, stopwatch: 0.1 },
	contact: { mat: 0.005, 'film-240': 0.006, 'film-120': 0.008 },
	height: { mat: 0.01, reach: 0.02 },
	distance: { tape: 0.05 },
}
export const TYPICAL_ERROR_FIRMNESS: Firmness = 'our setting'

/** A squad's own typical errors on one drill, by kind and method as in "sprint/gate". */
export type OwnErrors = Readonly<Record<string, OwnError>>
/** By drill: a throw of 12 m and a jump of 2 m by one tape do not scatter alike. */
export type SquadErrors = Readonly<Record<string, OwnErrors>>
export interface OwnError {
	/** Of one rep, in the mark's unit, shrunk towards the method's default by how many pairs there are. */
	sd: number
	/** Pairs it comes from: reps of one session and key beside its first. */
	pairs: number
	/** How far a day moves the squad's athletes, percent of the mark, shrunk likewise; absent with too few days. */
	dayPercent?: number
	/** Sessions of one athlete and key beside the first. */
	days?: number
}

/** Fewer pairs say nothing of a squad's own error [our setting]. */
export const FEWEST_PAIRS = 20

/** Typical error of a method for a kind of mark, in the mark's unit: the squad's own where it has one; null when none is known. */
export function typicalErrorOf(kind: MarkKind, method: Method, own?: OwnErrors): number | null {
	return own?.[`${kind}/${method}`]?.sd ?? DEFAULTS[kind][method] ?? null
}

/**
 * A squad's own typical error from the scatter of its reps within sessions, shrunk towards the default: as soon as
 * there are 20 pairs, each weighing as much as one of the default's 20.
 *
 * @param squares sum of squared distances of reps from their session's mean, in the mark's unit squared
 * @param pairs reps beside the first of each session
 * @returns null below 20 pairs, or where the method has no default
 */
export function ownErrorOf(kind: MarkKind, method: Method, squares: number, pairs: number): OwnError | null {
	const usual = DEFAULTS[kind][method]
	if (usual === undefined || pairs < FEWEST_PAIRS) return null
	return { sd: Math.sqrt((FEWEST_PAIRS * usual ** 2 + squares) / (FEWEST_PAIRS + pairs)), pairs }
}

/** The method of a kind that errs least, when it errs less than this one; null when there is none. */
export function finerMethod(kind: MarkKind, method: Method): { name: Method; withinSd: number } | null {
	const own = DEFAULTS[kind][method] ?? Number.POSITIVE_INFINITY
	const [best] = (Object.entries(DEFAULTS[kind]) as [Method, number][]).sort(([, a], [, b]) => a - b)
	return best && best[1] < own ? { name: best[0], withinSd: best[1] } : null
}
