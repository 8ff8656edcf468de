import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { unstartedFor } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import { writeLines } from './write-lines'

/** Writes the lines of every unstarted session some athletes are down for anew, from a day on: what is known of them has changed. */
export async function rewriteUpcoming(scope: ClubScope, athleteIds: string[], today: string, now: Date): Promise<void> {
	const upcoming = await unstartedFor(scope, athleteIds, today)
	if (upcoming.length === 0) return
	const library = await readLibrary(scope)
	for (const session of upcoming) {
		const squad = await readSquad(scope, session.squadId)
		if (squad) await writeLines(scope, session, squad, library, now)
	}
}
