import type { Firmness } from '../library/types'

export const SPRINT_METHODS = ['gate', 'phone', 'stopwatch'] as const
export type SprintMethod = (typeof SPRINT_METHODS)[number]
export const CONTACT_METHODS = ['mat', 'film-240', 'film-120'] as const
export type ContactMethod = (typeof CONTACT_METHODS)[number]
export const LENGTH_METHODS = ['tape', 'reach', 'mat'] as const
export type LengthMethod = (typeof LENGTH_METHODS)[number]
export type Method = SprintMethod | ContactMethod | LengthMethod

export const METHOD_NAMES: Record<Method, string> = {
	gate: 'gate',
	phone: 'phone timer',
	stopwatch: 'stopwatch',
	mat: 'contact mat',
	'film-240': 'film, 240 frames a second',
	'film-120': 'film, 120 frames a second',
	tape: 'tape',
	reach: 'reach',
}

/**
 * Typical error of one rep by method, used until a squad has its own: seconds for times, metres for
 * lengths [our setting, from memory of the trade]. It holds the timing and the athlete's own scatter.
 */
const DEFAULTS: Record<'sprint' | 'contact' | 'height' | 'distance', Partial<Record<Method, number>>> = {
	sprint: { gate: 0.02, phone: 0.04, stopwatch: 0.1 },
	contact: { mat: 0.005, 'film-240': 0.006, 'film-120': 0.008 },
	height: { mat: 0.01, reach: 0.02 },
	distance: { tape: 0.05 },
}
export const TYPICAL_ERROR_FIRMNESS: Firmness = 'our setting'

/** Typical error of a method for a kind of mark, in the mark's own unit; null when none is known. */
export function typicalErrorOf(kind: 'sprint' | 'contact' | 'height' | 'distance', method: Method): number | null {
	return DEFAULTS[kind][method] ?? null
}
