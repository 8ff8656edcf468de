import ical, { ICalCalendarMethod } from 'ical-generator'
import { addDays } from '../../core/calendar/day-count'
import { instantOf } from '../../core/calendar/days'
import type { ClubScope } from '../../db/connect'
import { readSquad } from '../../db/queries/squads'
import { sessionsBetween } from '../../db/queries/sessions'

/** Sessions this far back and ahead are in the file. */
const [DAYS_BACK, DAYS_AHEAD] = [60, 180]

/** A squad's sessions as iCalendar (RFC 5545), times as instants; nothing about anybody in it. Null for a stranger's squad. */
export async function squadCalendar(
	scope: ClubScope,
	squadId: string,
	today: string,
	clubName: string,
	now: Date,
): Promise<{ name: string; text: string } | null> {
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const calendar = ical({
		name: `${squad.name}, ${clubName}`,
		prodId: { company: 'Dromos', product: 'Sessions', language: 'EN' },
		method: ICalCalendarMethod.PUBLISH,
	})
	const sessions = (await sessionsBetween(scope, addDays(today, -DAYS_BACK), addDays(today, DAYS_AHEAD))).filter(
		(session) => session.squadId === squadId,
	)
	for (const session of sessions) {
		const start = instantOf(session.day, session.startTime, session.timeZone)
		calendar.createEvent({
			id: `${session.id}@dromos`,
			stamp: now,
			start,
			end: new Date(start.getTime() + session.plannedMinutes * 60_000),
			summary: `${squad.name}: ${session.title}`,
			location: session.place || null,
			description: `${session.plannedMinutes} minutes, ${session.phase}.`,
		})
	}
	return { name: squad.name, text: calendar.toString() }
}
