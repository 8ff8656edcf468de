import type { Firmness, Method } from '../vocabulary/words'

export type MarkKind = 'sprint' | 'contact' | 'height' | 'distance'

/**
 * Typical error of one rep by method, used until a squad has its own: seconds for times, metres for
 * lengths [our setting, from memory of the trade]. It holds the timing and the athlete's own scatter.
 */
const DEFAULTS: Record<MarkKind, Partial<Record<Method, number>>> = {
	sprint: { gate: 0.02, phone: 0.04, stopwatch: 0.1 },
	contact: { mat: 0.005, 'film-240': 0.006, 'film-120': 0.008 },
	height: { mat: 0.01, reach: 0.02 },
	distance: { tape: 0.05 },
}
export const TYPICAL_ERROR_FIRMNESS: Firmness = 'our setting'

/** Typical error of a method for a kind of mark, in the mark's own unit; null when none is known. */
export function typicalErrorOf(kind: MarkKind, method: Method): number | null {
	return DEFAULTS[kind][method] ?? null
}

/** The method of a kind that errs least, when it errs less than this one; null when there is none. */
export function finerMethod(kind: MarkKind, method: Method): { name: Method; withinSd: number } | null {
	const own = DEFAULTS[kind][method] ?? Number.POSITIVE_INFINITY
	const [best] = (Object.entries(DEFAULTS[kind]) as [Method, number][]).sort(([, a], [, b]) => a - b)
	return best && best[1] < own ? { name: best[0], withinSd: best[1] } : null
}
