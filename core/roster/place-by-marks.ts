import type { Day } from '../calendar/day-count'
import type { Parameters } from '../vocabulary/dose'
import type { Ladder } from '../vocabulary/ladder'

/** A form of a drill somebody has done, and when last. */
export interface DoneForm {
	drillId: string
	parameters: Parameters
	day: Day
}

/** Days back that say where somebody stands now; after eight weeks away everybody begins lower anyway [our setting]. */
export const PLACING_DAYS = 56

/**
 * The highest rung somebody has done lately in the very form it asks for; null where there is none. A proposal for who
 * places them, and never a placing: that it was done says nothing of how well.
 *
 * @param closed rungs that would be refused
 */
export function placeByMarks(
	ladder: Pick<Ladder, 'rungs'>,
	done: readonly DoneForm[],
	closed: readonly string[],
): { rungId: string; day: Day } | null {
	for (const rung of [...ladder.rungs].reverse()) {
		if (closed.includes(rung.id)) continue
		const days = done
			.filter(
				({ drillId, parameters }) =>
					drillId === rung.drillId &&
					Object.entries(rung.parameters).every(([name, value]) => parameters[name as keyof Parameters] === value),
			)
			.map(({ day }) => day)
			.sort()
		if (days.length > 0) return { rungId: rung.id, day: days.at(-1)! }
	}
	return null
}
