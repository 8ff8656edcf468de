import { addDays } from '../../core/calendar/day-count'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { type SessionRow, lockSession, staleSessions, unstartedFor } from '../../db/queries/sessions'
import { listSquads } from '../../db/queries/squads'
import { database, scopeOf } from '../database'
import { type SquadSession, writeSheets } from './write-lines'

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
	const sheets = await withSquads(scope, upcoming)
	await writeSheets(scope, sheets, await readLibrary(scope), now, new Set(athleteIds))
}

/** Sessions with the squads they are of. */
export async function withSquads(scope: ClubScope, sessions: readonly SessionRow[]): Promise<SquadSession[]> {
	const squads = new Map((await listSquads(scope)).map((squad) => [squad.id, squad]))
	return sessions.flatMap((session) => {
		const squad = squads.get(session.squadId)
		return squad ? [{ session, squad }] : []
	})
}

/**
 * Writes the lines of the sessions of today and tomorrow anew when that was last done on an earlier day: time has
 * gone by, and what was planned in between may not have been done. Asked by whoever shows them.
 */
export async function freshenLines(clubId: string, today: string, now: Date): Promise<void> {
	if ((await staleSessions(scopeOf(clubId), today, addDays(today, 1))).length === 0) return
	await inTransaction(database().db, clubId, async (scope) => {
		const stale: SessionRow[] = []
		for (const { id } of await staleSessions(scope, today, addDays(today, 1))) {
			const session = await lockSession(scope, id)
			if (session && !session.startedAt) stale.push(session)
		}
		await writeSheets(scope, await withSquads(scope, stale), await readLibrary(scope), now)
	})
}
