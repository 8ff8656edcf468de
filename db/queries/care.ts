import { and, asc, desc, eq, inArray, isNull, sql } from 'drizzle-orm'
import type { CareRecord } from '../../core/progress/gather-input'
import type { OutsideLoad } from '../../core/progress/outside-load'
import type { ClubScope } from '../connect'
import { acknowledgement, careRecord, ladderMove, outsideLoad } from '../schema/care'

export type CareRow = typeof careRecord.$inferSelect
export type OutsideRow = typeof outsideLoad.$inferSelect

/** All records of some athletes, newest first; index `care_by_athlete`. */
export async function careOf({ db, clubId }: ClubScope, athleteIds: string[]): Promise<CareRow[]> {
	if (athleteIds.length === 0) return []
	return db
		.select()
		.from(careRecord)
		.where(and(eq(careRecord.clubId, clubId), inArray(careRecord.athleteId, athleteIds)))
		.orderBy(desc(careRecord.fromDay), desc(careRecord.recordedAt))
}
export async function insertCare({ db, clubId }: ClubScope, row: Omit<typeof careRecord.$inferInsert, 'clubId'>) {
	await db.insert(careRecord).values({ ...row, clubId })
}
/** Opens a record that an event of the log asks for; the same event again changes nothing. */
export async function insertCareOnce({ db, clubId }: ClubScope, row: Omit<typeof careRecord.$inferInsert, 'clubId'>) {
	await db
		.insert(careRecord)
		.values({ ...row, clubId })
		.onDuplicateKeyUpdate({ set: { id: sql`id` } })
}
/** Ends a record of a kind once; false when there is none or it has ended already. */
export async function endCare(
	{ db, clubId }: ClubScope,
	kind: CareRow['kind'],
	id: string,
	athleteId: string,
	end: Pick<CareRow, 'endedOn' | 'endedBy' | 'endedByRole' | 'endRecordedBy' | 'endRecordedAt'>,
): Promise<boolean> {
	const [result] = await db
		.update(careRecord)
		.set(end)
		.where(
			and(
				eq(careRecord.clubId, clubId),
				eq(careRecord.id, id),
				eq(careRecord.athleteId, athleteId),
				eq(careRecord.kind, kind),
				isNull(careRecord.endedOn),
			),
		)
	return result.affectedRows === 1
}

/** A row as the rules read it. */
export function careRecordOf(row: CareRow): CareRecord {
	const span = { from: row.fromDay, until: row.endedOn }
	if (row.kind === 'restriction')
		return { ...span, kind: 'restriction', region: row.region, pattern: row.pattern, setBy: row.setBy }
	if (row.kind === 'worry' && row.drillId && row.region)
		return { ...span, kind: 'worry', drillId: row.drillId, region: row.region }
	return { ...span, kind: 'illness' }
}

/** What loads some athletes outside, from a day on, matches ahead too; index `outside_by_athlete`. */
export async function outsideOf({ db, clubId }: ClubScope, athleteIds: string[], from: string): Promise<OutsideRow[]> {
	if (athleteIds.length === 0) return []
	return db
		.select()
		.from(outsideLoad)
		.where(
			and(
				eq(outsideLoad.clubId, clubId),
				inArray(outsideLoad.athleteId, athleteIds),
				sql`${outsideLoad.day} >= ${from}`,
				eq(outsideLoad.isVoid, false),
			),
		)
		.orderBy(asc(outsideLoad.day), asc(outsideLoad.startTime))
}
export const outsideLoadOf = ({
	kind,
	day,
	startTime,
	minutes,
	rpe,
	hardRunning,
	hardCutting,
}: OutsideRow): OutsideLoad => ({ kind, day, startTime, minutes, rpe, hardRunning, hardCutting })
/** The same match entered twice is one: the later entry stands. */
export async function writeOutside({ db, clubId }: ClubScope, rows: Omit<typeof outsideLoad.$inferInsert, 'clubId'>[]) {
	for (const row of rows) {
		const { minutes, rpe, hardRunning, hardCutting, isVoid, recordedBy, recordedAt } = row
		await db
			.insert(outsideLoad)
			.values({ ...row, clubId })
			.onDuplicateKeyUpdate({ set: { minutes, rpe, hardRunning, hardCutting, isVoid, recordedBy, recordedAt } })
	}
}
export async function voidOutside({ db, clubId }: ClubScope, id: string, athleteId: string): Promise<boolean> {
	const [result] = await db
		.update(outsideLoad)
		.set({ isVoid: true })
		.where(and(eq(outsideLoad.clubId, clubId), eq(outsideLoad.id, id), eq(outsideLoad.athleteId, athleteId)))
	return result.affectedRows === 1
}

export async function acknowledgementsOf({ db, clubId }: ClubScope, sessionId: string) {
	return db
		.select()
		.from(acknowledgement)
		.where(and(eq(acknowledgement.clubId, clubId), eq(acknowledgement.sessionId, sessionId)))
		.orderBy(asc(acknowledgement.at))
}
export async function insertAcknowledgement(
	{ db, clubId }: ClubScope,
	row: Omit<typeof acknowledgement.$inferInsert, 'clubId'>,
) {
	await db.insert(acknowledgement).values({ ...row, clubId })
}

export async function movesOf({ db, clubId }: ClubScope, athleteId: string) {
	return db
		.select()
		.from(ladderMove)
		.where(and(eq(ladderMove.clubId, clubId), eq(ladderMove.athleteId, athleteId)))
		.orderBy(desc(ladderMove.at))
		.limit(60)
}
export async function insertMove({ db, clubId }: ClubScope, row: Omit<typeof ladderMove.$inferInsert, 'clubId'>) {
	await db.insert(ladderMove).values({ ...row, clubId })
}
