import type { Dose, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import { type AskedWork, linePartsOf } from '../vocabulary/line-parts'
import { countRep, type RepContext } from './count-rep'
import { type DoseCount, addInto, emptyCount } from './dose-count'

/** What a planned line costs: every rep of every set, in order. @example 5×2 depth jumps → 20 shock contacts */
export function countLine(
	drill: Drill,
	parameters: Parameters,
	dose: Dose,
	context: Omit<RepContext, 'repIndex' | 'zone'> = {},
): DoseCount {
	const total = emptyCount()
	const reps = dose.sets * dose.reps
	// Reps differ only in the leg that plants, and that alternates: two reps stand for all.
	addInto(total, countRep(drill, parameters, { ...context, repIndex: 0 }), Math.ceil(reps / 2))
	if (reps > 1) addInto(total, countRep(drill, parameters, { ...context, repIndex: 1 }), Math.floor(reps / 2))
	return total
}

/**
 * What a line costs, all its pieces together, by the counting convention. A drill nobody knows costs nothing.
 *
 * @param drillOf the drill a line or a piece of it cites
 */
export function countWork(
	line: AskedWork,
	drillOf: (drillId: string) => Drill | null | undefined,
	context: Omit<RepContext, 'repIndex' | 'zone'> = {},
): DoseCount {
	const total = emptyCount()
	for (const part of linePartsOf(line)) {
		const drill = drillOf(part.drillId)
		if (drill) addInto(total, countLine(drill, part.parameters, part.dose, context))
	}
	return total
}
