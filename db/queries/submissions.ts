import { and, eq, lt } from 'drizzle-orm'
import { type ClubScope, DUPLICATE_KEY, errorNumber } from '../connect'
import { type RecordKind, recordVersion, submission } from '../schema/submissions'

export type SubmissionRow = typeof submission.$inferSelect

/** Takes a submission on; false when somebody has it in hand, or had. */
export async function beginSubmission({ db, clubId }: ClubScope, hash: string, at: Date): Promise<boolean> {
	try {
		await db.insert(submission).values({ clubId, hash, at })
		return true
	} catch (error) {
		if (errorNumber(error) === DUPLICATE_KEY) return false
		throw error
	}
}
export async function answerSubmission(
	{ db, clubId }: ClubScope,
	hash: string,
	answer: Required<Pick<SubmissionRow, 'status' | 'headers' | 'body'>>,
): Promise<void> {
	await db
		.update(submission)
		.set(answer)
		.where(and(eq(submission.clubId, clubId), eq(submission.hash, hash)))
}
export async function readSubmission({ db, clubId }: ClubScope, hash: string): Promise<SubmissionRow | null> {
	const [row] = await db
		.select()
		.from(submission)
		.where(and(eq(submission.clubId, clubId), eq(submission.hash, hash)))
	return row ?? null
}
export async function dropSubmission({ db, clubId }: ClubScope, hash: string): Promise<void> {
	await db.delete(submission).where(and(eq(submission.clubId, clubId), eq(submission.hash, hash)))
}
/** Index `submission_by_time`. */
export async function forgetSubmissions({ db, clubId }: ClubScope, before: Date): Promise<void> {
	await db.delete(submission).where(and(eq(submission.clubId, clubId), lt(submission.at, before)))
}

const record = (clubId: string, kind: RecordKind, id: string) =>
	and(eq(recordVersion.clubId, clubId), eq(recordVersion.kind, kind), eq(recordVersion.recordId, id))
type VersionRow = typeof recordVersion.$inferSelect

export async function readVersion({ db, clubId }: ClubScope, kind: RecordKind, id: string): Promise<VersionRow | null> {
	const [row] = await db
		.select()
		.from(recordVersion)
		.where(record(clubId, kind, id))
	return row ?? null
}
/** The same, and whoever asks for it next waits until this transaction is over. */
export async function lockVersion({ db, clubId }: ClubScope, kind: RecordKind, id: string): Promise<VersionRow | null> {
	const [row] = await db
		.select()
		.from(recordVersion)
		.where(record(clubId, kind, id))
		.for('update')
	return row ?? null
}
export async function writeVersion(
	{ db, clubId }: ClubScope,
	kind: RecordKind,
	recordId: string,
	version: number,
	changedBy: string,
	changedAt: Date,
): Promise<void> {
	await db
		.insert(recordVersion)
		.values({ clubId, kind, recordId, version, changedBy, changedAt })
		.onDuplicateKeyUpdate({ set: { version, changedBy, changedAt } })
}
