import { addDays } from '../../core/calendar/day-count'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { lockSession, readAttending, staleSessions, unstartedFor } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import { database, scopeOf } from '../database'
import { readStanding } from '../facts/read-facts'
import { writeLines } from './write-lines'

/** Writes the lines of every unstarted session some athletes are down for anew, from a day on: what is known of them has changed. */
export async function rewriteUpcoming(scope: ClubScope, athleteIds: string[], today: string, now: Date): Promise<void> {
	const upcoming = await unstartedFor(scope, athleteIds, today)
	if (upcoming.length === 0) return
	const library = await readLibrary(scope)
	const attending = await readAttending(
		scope,
		upcoming.map(({ id }) => id),
	)
	const standing = await readStanding(scope, [...new Set(attending.map((row) => row.athleteId))])
	for (const session of upcoming) {
		const squad = await readSquad(scope, session.squadId)
		if (squad) await writeLines(scope, session, squad, library, now, standing)
	}
}

/**
 * Writes the lines of the sessions of today and tomorrow anew when that was last done on an earlier day: time has
 * gone by, and what was planned in between may not have been done. Asked by whoever shows them.
 */
export async function freshenLines(clubId: string, today: string, now: Date): Promise<void> {
	if ((await staleSessions(scopeOf(clubId), today, addDays(today, 1))).length === 0) return
	await inTransaction(database().db, clubId, async (scope) => {
		const library = await readLibrary(scope)
		for (const { id } of await staleSessions(scope, today, addDays(today, 1))) {
			const session = await lockSession(scope, id)
			const squad = session && !session.startedAt ? await readSquad(scope, session.squadId) : null
			if (session && squad) await writeLines(scope, session, squad, library, now)
		}
	})
}
