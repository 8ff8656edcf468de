import type { LogEvent } from '../vocabulary/events'
import { byTime } from '../events/by-time'
import type { FieldAthlete } from './pack'

export interface QueuePlace {
	athleteId: string
	/** 0 is everybody's group; a coach who splits the squad uses 1 and up. */
	group: number
	position: number
}

/**
 * Where everybody stands: the sheet's order, then what was moved by hand. Two phones that move the same
 * athlete do not contradict each other: the later move stands.
 *
 * @param events any order, those taken back left out
 */
export function queueOrder(athletes: readonly Pick<FieldAthlete, 'id'>[], events: readonly LogEvent[]): QueuePlace[] {
	const moves = events
		.flatMap((event) => (event.type === 'decision' && event.kind === 'queue' && !event.void ? [event] : []))
		.sort(byTime)
	const last = new Map(moves.map((event) => [event.athleteId, event.value]))
	return athletes
		.map(
			({ id }, index): QueuePlace => ({
				athleteId: id,
				group: last.get(id)?.group ?? 0,
				position: last.get(id)?.position ?? index,
			}),
		)
		.sort((a, b) => a.position - b.position || (a.athleteId < b.athleteId ? -1 : 1))
}

/** A position between two neighbours, so that one move is one event. @example positionAt(places, 0) // before everybody */
export function positionAt(others: readonly QueuePlace[], index: number): number {
	const at = Math.max(0, Math.min(others.length, index))
	const [before, after] = [others[at - 1]?.position, others[at]?.position]
	if (before === undefined) return (after ?? 1) - 1
	return after === undefined ? before + 1 : (before + after) / 2
}
