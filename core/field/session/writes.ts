import { isOfBody } from '../../vocabulary/event-kinds'
import type { LogEvent } from '../../vocabulary/events'

type Distribute<T> = T extends LogEvent ? Omit<T, 'id' | 'sessionId' | 'deviceId' | 'deviceSeq' | 'deviceTime'> : never
/** What a tap knows of an event; the device adds id, session, its own name, its order and the time. */
export type Draft = Distribute<LogEvent>

/** One thing to write: something new, another value in the place of an event, or an event taken back. */
export type Write =
	/** `at` is when it was, where that is not when it was tapped. */
	{ add: Draft; at?: string | undefined } | { correct: LogEvent; change: Partial<LogEvent> } | { takeBack: LogEvent }

/** What the device adds to a write. */
export type Stamp = Pick<LogEvent, 'id' | 'sessionId' | 'deviceId' | 'deviceSeq' | 'deviceTime'>

/**
 * The event a write becomes. Nothing is changed in place: a correction and a taking back name what they replace.
 *
 * @example stampWrite({ takeBack: mark }, stamp) // the mark again, void, under a new id
 */
export function stampWrite(write: Write, { sessionId, ...stamp }: Stamp): LogEvent {
	if ('add' in write) return whole({ ...write.add, sessionId, ...stamp, deviceTime: write.at ?? stamp.deviceTime })
	if ('takeBack' in write)
		return whole({ ...write.takeBack, ...stamp, sessionId, replacesId: write.takeBack.id, void: true })
	const { correct: event, change } = write
	return whole({
		...event,
		...change,
		...stamp,
		sessionId,
		replacesId: event.id,
		// The time stays the rep's own: a correction does not begin the rest anew. Of a report it decides whether it was a slip.
		deviceTime: isOfBody(event) ? stamp.deviceTime : (change.deviceTime ?? event.deviceTime),
	})
}

/** Without the fields a change took off, and without who wrote what it is made from: an event names only what it says. */
const whole = (event: object): LogEvent =>
	Object.fromEntries(Object.entries(event).filter(([name, value]) => value !== undefined && name !== 'by')) as LogEvent
