import type { Dose, Drill, Parameters } from '../library/types'
import { countRep, type RepContext } from './count-rep'
import { type DoseCount, addCounts, emptyCount } from './dose-count'

/** What a planned line costs: every rep of every set, in order. @example 5×2 depth jumps → 20 shock contacts */
export function countLine(drill: Drill, parameters: Parameters, dose: Dose, context: Omit<RepContext, 'repIndex' | 'zone'> = {}): DoseCount {
	let total = emptyCount()
	for (let repIndex = 0; repIndex < dose.sets * dose.reps; repIndex++) {
		total = addCounts(total, countRep(drill, parameters, { ...context, repIndex }))
	}
	return total
}
