import { byRep } from '../judge/gather-exposure'
import type { LogEvent, Mark } from '../vocabulary/events'
import type { FieldEntry, FieldSheet } from './pack'

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
			marks.set(key, [...(marks.get(key) ?? []), event])
		}
	return entries.flatMap((entry) => {
		const people = athletes.flatMap(({ id, name }) => {
			const own = marks.get(`${entry.id}/${id}`)
			return own ? [{ athleteId: id, name, marks: own.sort(byRep) }] : []
		})
		return people.length > 0 ? [{ entry, people }] : []
	})
}
