import { byTime } from '../events/by-time'
import { byRep } from '../judge/gather-exposure'
import type { LogEvent, Mark } from '../vocabulary/events'
import type { FieldEntry, FieldSheet, ToldEvent } from './pack'
import { sayEvent } from './say-event'

/** What was logged of one entry, by athlete. */
export interface EntryMarks {
	entry: FieldEntry
	people: { athleteId: string; name: string; marks: Mark[] }[]
}

/**
 * Every mark of a session that stands, by entry and athlete in the order of the sheet, reps in theirs; entries and
 * athletes without a mark are left out, and so is who is not on the sheet.
 *
 * @param events that stand
 */
export function marksOfSession(
	{ entries, athletes }: Pick<FieldSheet, 'entries' | 'athletes'>,
	events: readonly LogEvent[],
): EntryMarks[] {
	const marks = new Map<string, Mark[]>()
	for (const event of events)
		if (event.type === 'mark') {
			const key = `${event.entryId}/${event.athleteId}`
			const own = marks.get(key)
			if (own) own.push(event)
			else marks.set(key, [event])
		}
	return entries.flatMap((entry) => {
		const people = athletes.flatMap(({ id, name }) => {
			const own = marks.get(`${entry.id}/${id}`)
			return own ? [{ athleteId: id, name, marks: own.sort(byRep) }] : []
		})
		return people.length > 0 ? [{ entry, people }] : []
	})
}

/** A mark that was taken back, and stays so. */
export interface TakenBack {
	/** What took it back. */
	event: Mark & { by?: string }
	/** What stood before. */
	before: Mark
}

/** Marks that were taken back, newest first. @param all every event of the session */
export function takenBack(all: readonly ToldEvent[]): TakenBack[] {
	const replaced = new Set(all.flatMap(({ replacesId }) => replacesId ?? []))
	const byId = new Map(all.map((event) => [event.id, event]))
	return all
		.flatMap((event): TakenBack[] => {
			if (event.type !== 'mark' || !event.void || replaced.has(event.id)) return []
			const before = byId.get(event.replacesId ?? ('' as never))
			return before?.type === 'mark' ? [{ event, before }] : []
		})
		.sort((a, b) => byTime(b.event, a.event))
}

/**
 * A mark with everything it replaced, oldest first, in words: "17:42 3.12 s → 17:50 3.21 s, by Ines Marlow".
 *
 * @param clock the hour and minute of an instant, as people there read it
 */
export function sayHistory(
	mark: ToldEvent,
	all: readonly ToldEvent[],
	deviceId: string,
	clock: (instant: string) => string,
): string {
	const byId = new Map(all.map((event) => [event.id, event]))
	const chain = [mark]
	for (
		let before = byId.get(mark.replacesId!);
		before && !chain.includes(before);
		before = byId.get(before.replacesId!)
	)
		chain.unshift(before)
	return chain.map((event) => `${clock(event.deviceTime)} ${sayEvent(event)}${sayWho(event, deviceId)}`).join(' → ')
}
const sayWho = ({ replacesId, by, deviceId }: ToldEvent, own: string) =>
	replacesId === undefined ? '' : by !== undefined ? `, by ${by}` : deviceId === own ? ', on this phone' : ''
