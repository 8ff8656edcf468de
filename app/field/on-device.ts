import type { EventAnswer, LogEvent } from '#core/vocabulary/events'
import { type Kept, settled } from './device-store'

/** What is on this device, and the events of it that count: what was refused does not. */
export interface OnDevice {
	rows: readonly Kept[]
	events: readonly LogEvent[]
}
export const NOTHING: OnDevice = { rows: [], events: [] }

/**
 * Other rows on the device. The events are the same list as before while they are the same: that one has arrived
 * changes nothing that is made of them, and nothing is made again for it.
 */
export function withRows(before: OnDevice, rows: readonly Kept[]): OnDevice {
	const events = rows.filter((row) => row.status !== 'refused').map((row) => row.event)
	const isSame = events.length === before.events.length && events.every((event, at) => event === before.events[at])
	return { rows, events: isSame ? before.events : events }
}

/** Rows with how they were answered. */
export function answered(rows: readonly Kept[], answers: readonly EventAnswer[]): Kept[] {
	const byId = new Map(answers.map((answer) => [answer.id, answer]))
	return rows.map((row) => {
		const answer = byId.get(row.event.id)
		return answer ? { ...row, ...settled(answer) } : row
	})
}
