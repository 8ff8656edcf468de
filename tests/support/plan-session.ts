import type { SessionEntry } from '../../core/vocabulary/entry'
import { createSession } from '../../server/sheet/save-session'
import { NOW, type TestClub } from './test-club'

/** A session of the whole club on a day, made as the form makes it, with everybody's lines; its id. */
export async function planSession(
	club: TestClub,
	day: string,
	entries: SessionEntry[],
	{ place = '', startTime = '17:30', at = NOW }: { place?: string; startTime?: string; at?: Date } = {},
): Promise<string> {
	const made = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day,
			startTime,
			title: 'Work',
			place,
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries,
		},
		at,
	)
	if (!('sessionId' in made)) throw new Error(`no session on ${day}: ${JSON.stringify(made)}`)
	return made.sessionId
}
