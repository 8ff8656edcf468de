import { addDays } from '../../core/calendar/day-count'
import { sayReport, saySaid } from '../../core/care/say-report'
import { BODY_KINDS } from '../../core/vocabulary/event-kinds'
import type { BodyEvent } from '../../core/vocabulary/events'
import type { ClubScope } from '../../db/connect'
import { authorsById } from '../../db/queries/clubs'
import { bodyReportsOf, deskReportsOf } from '../../db/queries/care'

/** One report as the care page lists it, with what became of it. */
export interface SaidReport {
	id: string
	/** In the log of a session, or at the desk. */
	from: 'log' | 'desk'
	day: string
	words: string
	by: string
	authorId: string
	withdrawn: { by: string; reason: string } | null
}

/** How far back reports are listed, days. */
export const LISTED_DAYS = 70

/** Everything that was said of one athlete's body lately, whatever became of it, the newest first. */
export async function readReports(scope: ClubScope, athleteId: string, today: string): Promise<SaidReport[]> {
	const since = addDays(today, -LISTED_DAYS)
	const logged = (await bodyReportsOf(scope, [athleteId], BODY_KINDS)).filter((row) => row.day >= since)
	const after = new Map(logged.flatMap((event) => (event.replacesId ? [[event.replacesId, event] as const] : [])))
	const desk = await deskReportsOf(scope, athleteId, since)
	const people = await authorsById(scope, [
		...new Set([
			...logged.map((event) => event.authorId),
			...desk.flatMap((row) => [row.authorId, ...(row.withdrawnBy ? [row.withdrawnBy] : [])]),
		]),
	])
	const nameOf = (id: string) => people.get(id)?.name ?? 'somebody who has left'
	const inLog = logged.flatMap((event): SaidReport[] => {
		const next = after.get(event.id)
		// What was put right is listed as it stands; what was taken back, as it was said.
		if (event.void || event.athleteId !== athleteId || (next && !next.void && next.athleteId === athleteId)) return []
		const reason = next?.void ? (next.value as { note?: string }).note : undefined
		return [
			{
				id: event.id,
				from: 'log',
				day: event.day,
				words: sayReport(event as unknown as BodyEvent),
				by: nameOf(event.authorId),
				authorId: event.authorId,
				withdrawn: next
					? {
							by: nameOf(next.authorId),
							reason: reason ?? (next.void ? 'taken back on the field' : 'it was another athlete’s'),
						}
					: null,
			},
		]
	})
	const atDesk = desk.map(
		(row): SaidReport => ({
			id: row.id,
			from: 'desk',
			day: row.day,
			words: saySaid(row),
			by: nameOf(row.authorId),
			authorId: row.authorId,
			withdrawn: row.withdrawnBy ? { by: nameOf(row.withdrawnBy), reason: row.withdrawnReason ?? '' } : null,
		}),
	)
	return [...inLog, ...atDesk].sort((a, b) => (a.day < b.day ? 1 : a.day > b.day ? -1 : 0))
}
