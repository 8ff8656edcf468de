import type { Mark } from '../vocabulary/events'
import type { Drill } from '../vocabulary/drill'
import type { EffortZone } from '../vocabulary/words'
import type { PlannedLine } from '../vocabulary/line'
import { countRep } from './count-rep'
import { type DoseCount, addCounts, emptyCount } from './dose-count'

/** What a logged mark cost. A voided or missed rep costs nothing; a set ticked off at once costs all its reps. */
export function countMark(
	mark: Mark,
	line: Pick<PlannedLine, 'parameters' | 'dose'>,
	drill: Drill,
	zone: EffortZone | null,
	legLengthM: number | null,
): DoseCount {
	let total = emptyCount()
	if (mark.void || mark.kind === 'missed') return total
	const first = (mark.setNo - 1) * Math.max(1, line.dose.reps) + mark.repNo - 1
	const reps = mark.kind === 'done' ? mark.value.reps : 1
	for (let i = 0; i < reps; i++) {
		total = addCounts(
			total,
			countRep(drill, line.parameters, {
				repIndex: first + i,
				...(mark.side ? { side: mark.side } : {}),
				...(legLengthM ? { legLengthM } : {}),
				...(zone ? { zone } : {}),
			}),
		)
	}
	return total
}
