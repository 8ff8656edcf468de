import { type Database, inTransaction } from '../../db/connect'
import { keepWorkDays } from '../../db/queries/care'
import { listClubs } from '../../db/queries/clubs'
import { athletesMarked, keptOfSession } from '../../db/queries/marks'
import { startedSessions } from '../../db/queries/sessions'
import { keepMarks } from './keep-marks'

export interface Rebuilt {
	sessions: number
	/** Sessions of which something was kept otherwise than the log says. */
	different: { clubId: string; sessionId: string; day: string }[]
}

/**
 * Makes everything that is kept of the logs of all clubs anew: days of work, keys of marks and what is set aside, and
 * the means of sessions. A transaction for each session, in the order of their days, because later means look at earlier
 * ones; the application may go on meanwhile.
 */
export async function rebuildKept(db: Database): Promise<Rebuilt> {
	const rebuilt: Rebuilt = { sessions: 0, different: [] }
	for (const { id: clubId } of await listClubs(db))
		for (const { id, day } of await startedSessions({ db, clubId })) {
			const isSame = await inTransaction(db, clubId, async (scope) => {
				const athletes = await athletesMarked(scope, id)
				const before = await keptOfSession(scope, id, day, athletes)
				await keepWorkDays(scope, athletes, [day])
				await keepMarks(scope, id, athletes)
				return before === (await keptOfSession(scope, id, day, athletes))
			})
			rebuilt.sessions += 1
			if (!isSame) rebuilt.different.push({ clubId, sessionId: id, day })
		}
	return rebuilt
}
