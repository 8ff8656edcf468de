import { addDays } from '../../core/calendar/day-count'
import { groupBy } from '../../core/lists/group-by'
import type { ClubScope } from '../../db/connect'
import { firstRepsIn } from '../../db/queries/log'
import { readEntriesById, sessionsBetween } from '../../db/queries/sessions'
import { keptInSessions } from '../by-session'

/** Of one athlete in one session, hardly ever more than one of 500 bytes: a year of eight clubs of forty. */
const MOST_KEPT = 80_000
const firstRepsOf = keptInSessions(MOST_KEPT, firstRepsIn)

export interface FirstRep extends Omit<Awaited<ReturnType<typeof firstRepsIn>>[number], 'entryId'> {
	day: string
}

/** The first sprint of each athlete in each session from a day on and before another, oldest first: what the ready check goes by. */
export async function firstRepsBefore(
	scope: ClubScope,
	athleteIds: string[],
	from: string,
	before: string,
): Promise<FirstRep[]> {
	const sessions = await sessionsBetween(scope, from, addDays(before, -1))
	const kept = await firstRepsOf(scope, athleteIds, sessions)
	const found = sessions.flatMap(({ id, day }) =>
		athleteIds.flatMap((athleteId) => {
			const reps = kept.get(id)!.get(athleteId)!
			return reps.length === 0 ? [] : [{ day, reps }]
		}),
	)
	// Where somebody sprinted on several entries the sheet says which came first, and it may have been put in another order since.
	const several = found.flatMap(({ reps }) => (reps.length > 1 ? reps.map(({ entryId }) => entryId) : []))
	const entries = groupBy(await readEntriesById(scope, [...new Set(several)]), ({ id }) => id)
	const place = (entryId: string) => entries.get(entryId)?.[0]?.position ?? 0
	return found.map(({ day, reps }) => {
		const { entryId: _, ...first } = reps.reduce((a, b) => (place(b.entryId) < place(a.entryId) ? b : a))
		return { day, ...first }
	})
}
