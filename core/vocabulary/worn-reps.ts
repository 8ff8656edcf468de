import type { CarriedLoad, Dose, Parameters, WornAt } from './dose'
import type { Drill } from './drill'

/** Share of the reps of a line a weight is worn on [common practice, no source]. */
export const WORN_SHARE = { low: 0.5, high: 0.7 } as const

/**
 * On which reps of a line a weight is worn, counted from 1: the first is free, to have something to hold it against,
 * and so is the last. Null where there are too few reps to wear it and to finish without.
 *
 * @example wornReps({ sets: 4, reps: 2 }) // from 2 to 6: five of eight
 */
export function wornReps(dose: Dose): { from: number; to: number } | null {
	const reps = dose.sets * dose.reps
	const worn = Math.min(Math.floor(reps * WORN_SHARE.high + 1e-9), reps - 2)
	return worn / reps >= WORN_SHARE.low ? { from: 2, to: worn + 1 } : null
}

/** Whether a rep is done without the weight the line has. Lines of before, which say no place on the body, were worn throughout. */
export function isFreeRep(
	{ carried, dose }: { carried?: CarriedLoad | null | undefined; dose: Dose },
	{ setNo, repNo }: { setNo: number; repNo: number },
): boolean {
	if (!carried) return false
	const worn = wornReps(dose)
	const rep = (setNo - 1) * dose.reps + repNo
	return worn === null || rep < worn.from || rep > worn.to
}

/** The weight of a drill that has one, where its rung or the drill itself has it worn; null where none is, or nothing says where. */
export function wornOn(
	drill: Pick<Drill, 'carriesLoad' | 'wornAt'>,
	{ loadG }: Parameters,
	at: WornAt | undefined = drill.wornAt,
): CarriedLoad | null {
	return drill.carriesLoad && loadG && at ? { ...at, grams: loadG } : null
}
