import type { ClubScope } from '../../db/connect'
import { type DrillNote, notesIn } from '../../db/queries/log'
import { sessionsBetween } from '../../db/queries/sessions'
import { keptInSessions } from '../by-session'

/** Of one athlete in one session, a sentence or two: a year of twenty clubs of forty. */
const MOST_KEPT = 200_000
const notesOf = keptInSessions(MOST_KEPT, notesIn)

/** What was noted of athletes on their drills from one day to another, oldest first. */
export async function notesBetween(
	scope: ClubScope,
	athleteIds: string[],
	from: string,
	to: string,
): Promise<(Omit<DrillNote, 'sessionId'> & { day: string })[]> {
	const sessions = await sessionsBetween(scope, from, to)
	const notes = await notesOf(scope, athleteIds, sessions)
	return sessions.flatMap(({ id, day }) =>
		athleteIds.flatMap((athleteId) =>
			notes
				.get(id)!
				.get(athleteId)!
				.map((note) => ({ day, ...note })),
		),
	)
}
