import type { Dose, Parameters, Rest } from '../vocabulary/dose'

/** Walking back after a run, metres a second [common practice]. */
export const WALK_BACK_MPS = 1.3
/** Moving the group to the next place and saying what is next, minutes [our setting]. */
export const CHANGE_OVER_MIN = 1.5

/** Seconds an athlete needs to be back at the start after a rep; the walk is part of any rest. */
export const walkBackS = (parameters: Parameters): number =>
	((parameters.distanceM ?? 0) + (parameters.runInM ?? 0)) / WALK_BACK_MPS

/**
 * Minutes one athlete needs for a line: the reps, between them their rest or the walk back, whichever is
 * longer, and the rest between sets. An estimate: it knows nothing of lanes or of the size of the group.
 *
 * @param repS seconds one rep lasts
 * @example estimateMinutes({ sets: 2, reps: 3 }, { distanceM: 150 }, { repsS: 120, setsS: 600 }, 26) // 22.1
 */
export function estimateMinutes({ sets, reps }: Dose, parameters: Parameters, rest: Rest, repS: number): number {
	const back = walkBackS(parameters)
	const seconds =
		sets * reps * repS + sets * (reps - 1) * Math.max(rest.repsS, back) + (sets - 1) * Math.max(rest.setsS, back)
	return seconds / 60 + CHANGE_OVER_MIN
}
