import type { LogEvent } from '../../vocabulary/events'
import { byTime } from '../../events/by-time'
import { sayEvent } from '../say-event'
import type { Write } from './writes'

/** One event a tap left standing, and what stood in its place before; null where nothing did. */
interface Step {
	event: LogEvent
	before: LogEvent | null
}

/** What one tap wrote: taken back as one, and named by its label. */
export interface Move {
	label: string
	/** Never empty. */
	steps: readonly Step[]
}

/** Moves that can still be taken back, newest last. */
export const MOVES_KEPT = 30

/** The move that some writes have made, in their order. */
export function moveOf(label: string, writes: readonly Write[], events: readonly LogEvent[]): Move {
	return {
		label,
		steps: events.map((event, index): Step => {
			const write = writes[index]!
			return { event, before: 'correct' in write ? write.correct : 'takeBack' in write ? write.takeBack : null }
		}),
	}
}

/** The last move with more written about it: a fault, a comfort, another number in the place of its own. */
export function amended(last: Move, more: Move): Move {
	const replaced = new Map(more.steps.flatMap((step) => (step.before ? [[step.before.id, step] as const] : [])))
	const own = new Set(last.steps.map(({ event }) => event.id))
	return {
		label: more.label,
		steps: [
			...last.steps.map(({ event, before }) => ({ event: replaced.get(event.id)?.event ?? event, before })),
			...more.steps.filter(({ before }) => before === null || !own.has(before.id)),
		],
	}
}

/** What takes a move back, newest event first; what somebody has changed since stays as they left it. */
export function undoing({ steps }: Move, current: readonly LogEvent[], all: readonly LogEvent[]): Write[] {
	const stands = new Set(current.map(({ id }) => id))
	const replaced = new Set(all.flatMap(({ replacesId }) => replacesId ?? []))
	return [...steps].reverse().flatMap(({ event, before }): Write[] => {
		// An event that was taken back does not stand; it is restored as long as nobody replaced it again.
		if (event.void ? replaced.has(event.id) : !stands.has(event.id)) return []
		return before ? [{ correct: event, change: asBefore(before, event) }] : [{ takeBack: event }]
	})
}

/** What a correction has to say so that an earlier event stands again as it was. */
export function asBefore(before: LogEvent, event: LogEvent): Partial<LogEvent> {
	const { id: _id, replacesId: _replaces, sessionId: _session, deviceId: _device, deviceSeq: _seq, ...said } = before
	const taken = Object.fromEntries(Object.keys(event).map((key) => [key, undefined]))
	return { ...taken, ...said, deviceTime: before.deviceTime } as Partial<LogEvent>
}

/**
 * What this device wrote last and still stands, as a move: after a reload there is something to take back, too.
 * Events of one tap share their time and follow each other.
 */
export function lastMove(current: readonly LogEvent[], deviceId: string): Move[] {
	const own = current.filter((event) => event.deviceId === deviceId && !event.replacesId).sort(byTime)
	const last = own.at(-1)
	if (!last) return []
	const steps = own.filter((event) => event.deviceTime === last.deviceTime).map((event) => ({ event, before: null }))
	const more = steps.length > 1 ? ` and ${steps.length - 1} more` : ''
	return [{ label: `${sayEvent(steps[0]!.event)}${more}`, steps }]
}
