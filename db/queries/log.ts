import { and, eq, inArray, lt, min, notExists, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { type SparseCount } from '../../core/dose/sparse-count'
import type { LogEvent } from '../../core/events/schema'
import type { Method } from '../../core/noise/typical-error'
import type { ClubScope } from '../connect'
import { decision, mark, observation } from '../schema/log'
import { session } from '../schema/sessions'

export type MarkInsert = Omit<typeof mark.$inferInsert, 'clubId'>
export type ObservationInsert = Omit<typeof observation.$inferInsert, 'clubId'>
export type DecisionInsert = Omit<typeof decision.$inferInsert, 'clubId'>

const TABLES = { mark, observation, decision } as const

/** The content hash an id was accepted with, in any of the three tables; null when the id is new. */
export async function acceptedHash({ db, clubId }: ClubScope, id: string): Promise<string | null> {
	for (const table of Object.values(TABLES)) {
		const [row] = await db.select({ hash: table.contentHash }).from(table).where(and(eq(table.clubId, clubId), eq(table.id, id)))
		if (row) return row.hash
	}
	return null
}

/** True when the row is new; false when the same id stands already (sent twice, or by two at once). */
export async function insertMark({ db, clubId }: ClubScope, row: MarkInsert): Promise<boolean> {
	const [result] = await db.insert(mark).values({ ...row, clubId }).onDuplicateKeyUpdate({ set: { id: sql`id` } })
	return result.affectedRows === 1
}
export async function insertObservation({ db, clubId }: ClubScope, row: ObservationInsert): Promise<boolean> {
	const [result] = await db.insert(observation).values({ ...row, clubId }).onDuplicateKeyUpdate({ set: { id: sql`id` } })
	return result.affectedRows === 1
}
export async function insertDecision({ db, clubId }: ClubScope, row: DecisionInsert): Promise<boolean> {
	const [result] = await db.insert(decision).values({ ...row, clubId }).onDuplicateKeyUpdate({ set: { id: sql`id` } })
	return result.affectedRows === 1
}

/** An event as it is stored, with who wrote it and when it came. */
export type StoredEvent = LogEvent & { authorId: string; receivedAt: string; counts?: SparseCount }

const base = (row: { id: string; sessionId: string; athleteId: string; deviceId: string; deviceSeq: number; deviceTime: Date; replacesId: string | null; isVoid: boolean; kind: string; value: unknown; authorId: string; receivedAt: Date }) => ({
	id: row.id, sessionId: row.sessionId, athleteId: row.athleteId, deviceId: row.deviceId, deviceSeq: row.deviceSeq,
	deviceTime: row.deviceTime.toISOString(), ...(row.replacesId ? { replacesId: row.replacesId } : {}), ...(row.isVoid ? { void: true } : {}),
	kind: row.kind, value: row.value, authorId: row.authorId, receivedAt: row.receivedAt.toISOString(),
})
const place = (row: { entryId: string | null; lineId: string | null; setNo?: number | null; repNo?: number | null; side?: 'left' | 'right' | null }) => ({
	...(row.entryId ? { entryId: row.entryId } : {}), ...(row.lineId ? { lineId: row.lineId } : {}),
	...(row.setNo ? { setNo: row.setNo } : {}), ...(row.repNo ? { repNo: row.repNo } : {}), ...(row.side ? { side: row.side } : {}),
})

/** All events of some sessions, replaced ones too: the fold decides what stands. Indexes `…_by_session`. */
export async function eventsOfSessions({ db, clubId }: ClubScope, sessionIds: string[]): Promise<StoredEvent[]> {
	if (sessionIds.length === 0) return []
	const marks = await db.select().from(mark).where(and(eq(mark.clubId, clubId), inArray(mark.sessionId, sessionIds)))
	const observations = await db.select().from(observation).where(and(eq(observation.clubId, clubId), inArray(observation.sessionId, sessionIds)))
	const decisions = await db.select().from(decision).where(and(eq(decision.clubId, clubId), inArray(decision.sessionId, sessionIds)))
	return [
		...marks.map((row) => ({ ...base(row), ...place(row), type: 'mark', counts: row.counts })),
		...observations.map((row) => ({ ...base(row), ...place(row), type: 'observation' })),
		...decisions.map((row) => ({ ...base(row), ...place(row), type: 'decision' })),
	] as unknown as StoredEvent[]
}

export interface BestTime {
	athleteId: string
	start: string | null
	distanceM: number
	method: Method
	timeS: number
}
/** Best sprint times before a day, by athlete, start, distance and method; corrected and voided marks are left out. Index `mark_by_athlete`. */
export async function bestTimesBefore({ db, clubId }: ClubScope, athleteIds: string[], day: string): Promise<BestTime[]> {
	if (athleteIds.length === 0) return []
	const later = alias(mark, 'later')
	const rows = await db.select({ athleteId: mark.athleteId, start: mark.start, distanceM: mark.distanceM, method: mark.method, timeS: min(mark.timeS) }).from(mark)
		.innerJoin(session, and(eq(session.clubId, mark.clubId), eq(session.id, mark.sessionId)))
		.where(and(
			eq(mark.clubId, clubId), inArray(mark.athleteId, athleteIds), eq(mark.kind, 'sprint'), eq(mark.isVoid, false), lt(session.day, day),
			notExists(db.select({ one: sql`1` }).from(later).where(and(eq(later.clubId, mark.clubId), eq(later.replacesId, mark.id)))),
		))
		.groupBy(mark.athleteId, mark.start, mark.distanceM, mark.method)
	return rows.flatMap((row) => (row.timeS === null || row.distanceM === null ? [] : [{ athleteId: row.athleteId, start: row.start, distanceM: row.distanceM, method: row.method as Method, timeS: Number(row.timeS) }]))
}
