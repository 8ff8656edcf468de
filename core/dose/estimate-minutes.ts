import type { Dose, Parameters } from '../library/types'

/** Walking back after a run, metres a second [common practice]. */
export const WALK_BACK_MPS = 1.3
/** Moving the group to the next place and saying what is next, minutes [our setting]. */
export const CHANGE_OVER_MIN = 1.5

/**
 * Minutes one athlete needs for a line: the reps, the walk back or the rest after each timed effort,
 * the rest between sets. An estimate: it knows nothing of lanes or of the size of the group.
 *
 * @param restS rest in seconds: between reps when there is one set, between sets otherwise
 * @param repS seconds one rep lasts
 */
export function estimateMinutes(dose: Dose, parameters: Parameters, restS: number, repS: number): number {
	const back = ((parameters.distanceM ?? 0) + (parameters.runInM ?? 0)) / WALK_BACK_MPS
	const breaks = dose.sets > 1 ? dose.sets - 1 : dose.reps - 1
	const seconds = dose.sets * dose.reps * (repS + (dose.sets > 1 ? back : 0)) + breaks * Math.max(restS, back)
	return seconds / 60 + CHANGE_OVER_MIN
}
