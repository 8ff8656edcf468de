import { and, eq } from 'drizzle-orm'
import type { CauseId } from '../../core/record/why'
import type { ClubScope } from '../connect'
import { namedCause } from '../schema/care'
import { session } from '../schema/sessions'

/** What coaches said made days of an athlete flat or good, with the day; by the primary key. */
export async function causesNamed(
	{ db, clubId }: ClubScope,
	athleteId: string,
): Promise<{ sessionId: string; cause: CauseId; day: string }[]> {
	return db
		.select({ sessionId: namedCause.sessionId, cause: namedCause.cause, day: session.day })
		.from(namedCause)
		.innerJoin(session, and(eq(session.clubId, namedCause.clubId), eq(session.id, namedCause.sessionId)))
		.where(and(eq(namedCause.clubId, clubId), eq(namedCause.athleteId, athleteId)))
}
/** Said twice, by two at once, is said once. */
export async function nameCause({ db, clubId }: ClubScope, row: Omit<typeof namedCause.$inferInsert, 'clubId'>) {
	await db
		.insert(namedCause)
		.values({ ...row, clubId })
		.onDuplicateKeyUpdate({ set: { personId: row.personId, at: row.at } })
}
export async function unnameCause(
	{ db, clubId }: ClubScope,
	{ athleteId, sessionId, cause }: { athleteId: string; sessionId: string; cause: CauseId },
) {
	await db
		.delete(namedCause)
		.where(
			and(
				eq(namedCause.clubId, clubId),
				eq(namedCause.athleteId, athleteId),
				eq(namedCause.sessionId, sessionId),
				eq(namedCause.cause, cause),
			),
		)
}
