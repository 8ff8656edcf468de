import { addDays } from '../../core/calendar/day-count'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { lockSession, staleSessions, unstartedFor } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import { database, scopeOf } from '../database'
import { readStanding } from '../facts/read-facts'
import { writeLines } from './write-lines'

/**
 * Writes the lines of some athletes anew in every unstarted session they are down for, from a day on: what is known
 * of them has changed.
 *
 * @param but a session that stays as it is
 */
export async function rewriteUpcoming(
	scope: ClubScope,
	athleteIds: string[],
	today: string,
	now: Date,
	but: string | null = null,
): Promise<void> {
	const upcoming = (await unstartedFor(scope, athleteIds, today)).filter(({ id }) => id !== but)
	if (upcoming.length === 0) return
	const library = await readLibrary(scope)
	const only = new Set(athleteIds)
	const standing = await readStanding(scope, [...only])
	for (const session of upcoming) {
		const squad = await readSquad(scope, session.squadId)
		if (squad) await writeLines(scope, session, squad, library, now, { standing, only })
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
