import type { Drill } from '../vocabulary/drill'
import type { LogEvent } from '../vocabulary/events'

/**
 * Whether a rep of a drill has a side. `each`: its dose is for each leg or throwing side, so that a rep is done left
 * and right, and a mark is of one of them. `plant`: the foot that is planted may be said. Null where no side is asked.
 */
export type Sided = 'each' | 'plant' | null

export function sidedOf({ counting: { contacts, throws, cuts, deadStops } }: Pick<Drill, 'counting'>): Sided {
	if ((contacts?.by === 'rep' && contacts.feet === 'each-leg') || throws?.sides === 'each-side') return 'each'
	return (cuts ?? deadStops)?.perRep === 1 ? 'plant' : null
}

/**
 * Reps an event stands for: a measured rep is one, a set ticked off at once is as many as it says, a missed rep none.
 * Of a dose for each side the mark of one side is half a rep.
 */
export function repsOfMark(event: LogEvent, sided: Sided = null): number {
	if (event.type !== 'mark' || event.kind === 'missed') return 0
	return turnsOfMark(event, sided)
}

/** Turns an event used up of what was planned: a missed one, too. */
export function turnsOfMark(event: Extract<LogEvent, { type: 'mark' }>, sided: Sided = null): number {
	const reps = event.kind === 'done' ? event.value.reps : 1
	return sided === 'each' && event.side !== undefined ? reps / 2 : reps
}
