import { randomUUID } from 'node:crypto'
import { addDays } from '../../core/calendar/day-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { startingAt } from '../../core/judge/resolve-line'
import { readLines } from '../../db/queries/sessions'
import { insertPerson } from '../../db/queries/clubs'
import { writeState } from '../../db/queries/squads'
import { hashPassword } from '../../server/access/password'
import { acceptEvents } from '../../server/log/accept-events'
import { decideVerdicts } from '../../server/review/decide'
import { readReview } from '../../server/review/read-review'
import { createSession } from '../../server/sheet/save-session'
import { type TestClub, makeClub } from './test-club'
import { draftEntry } from './draft-entry'

const PASSWORD = 'a long enough password'

/**
 * A club of its own with six athletes who stand on known rungs, and one session six days ago in
 * which the first athlete fell away at the end. Every number a test asserts on follows from here.
 */
export async function makeSecondClub(): Promise<
	TestClub & { firstSessionId: string; email: string; password: string }
> {
	const now = new Date()
	const today = now.toISOString().slice(0, 10)
	const club = await makeClub('Second club', 6, addDays(today, -1))
	const email = `${randomUUID()}@second.example`
	await insertPerson(club.scope, {
		id: randomUUID(),
		email,
		name: 'Sol',
		role: 'coach',
		passwordHash: await hashPassword(PASSWORD),
		athleteId: null,
		createdAt: now,
	})
	for (const athleteId of club.athletes) {
		for (const [ladderId, rungId] of [
			['acceleration', 'standing-10'],
			['stiffness', 'pogo'],
		] as const) {
			await writeState(club.scope, athleteId, startingAt(STARTER_LIBRARY, ladderId, rungId), '2026-01-01', now)
		}
	}
	const day = addDays(today, -6)
	const saved = await createSession(
		club.coach.clubId,
		'Atlantic/Madeira',
		{
			squadId: club.squadId,
			day,
			startTime: '17:30',
			title: 'Starts',
			place: '',
			surface: null,
			plannedMinutes: 60,
			role: 'hard',
			share: 1,
			athleteIds: club.athletes,
			entries: [draftEntry({ part: 'Acceleration', ladderId: 'acceleration', sets: 1, reps: 5, rest: 90 })],
		},
		now,
	)
	if ('problems' in saved) throw new Error(JSON.stringify(saved.problems))
	const lines = await readLines(club.scope, [saved.sessionId])
	const [first] = club.athletes
	let deviceSeq = 0
	const events = lines.flatMap((line) =>
		(line.athleteId === first ? [1.9, 1.88, 1.89, 1.96, 1.99] : [1.95, 1.94, 1.95, 1.96, 1.95]).map((timeS, rep) => ({
			id: randomUUID(),
			sessionId: saved.sessionId,
			athleteId: line.athleteId,
			entryId: line.entryId,
			lineId: line.id,
			deviceId: club.coach.personId,
			deviceSeq: deviceSeq++,
			deviceTime: now.toISOString(),
			setNo: 1,
			repNo: rep + 1,
			type: 'mark',
			kind: 'sprint',
			value: { splits: [{ distanceM: 10, timeS }], method: 'gate' },
		})),
	)
	await acceptEvents(club.coach, events, now)
	const review = await readReview(club.scope, saved.sessionId)
	// Deciding makes the squad's next session; nobody comes to that one.
	await decideVerdicts(
		club.coach,
		saved.sessionId,
		(review?.rows ?? []).map(({ athleteId, ladderId, inputHash }) => ({ athleteId, ladderId, inputHash })),
		now,
	)
	return { ...club, firstSessionId: saved.sessionId, email, password: PASSWORD }
}
