import type { Dose } from '../vocabulary/dose'

/** Reps of the whole dose. */
export const repsOf = (dose: Dose): number => dose.sets * dose.reps

/**
 * A smaller dose: sets go before reps, rounded down to whole sets (to reps when there is one set),
 * never under 1 set × 2 reps, and never more than the dose itself [our setting].
 *
 * @param factor above 0, at most 1
 * @throws RangeError when the factor is outside that range
 * @example scaleDose({ sets: 4, reps: 3 }, 0.75) // { sets: 3, reps: 3 }
 * @example scaleDose({ sets: 1, reps: 6 }, 4 / 6) // { sets: 1, reps: 4 }
 */
export function scaleDose(dose: Dose, factor: number): Dose {
	if (!(factor > 0 && factor <= 1)) throw new RangeError(`factor: ${factor} is not above 0 and at most 1`)
	const hair = 1e-9
	const sets = Math.floor(dose.sets * factor + hair)
	if (dose.sets > 1 && sets >= 1 && sets * dose.reps >= 2) return { sets, reps: dose.reps }
	const reps = Math.floor(dose.sets * dose.reps * factor + hair)
	return { sets: 1, reps: Math.min(repsOf(dose), Math.max(2, reps)) }
}
