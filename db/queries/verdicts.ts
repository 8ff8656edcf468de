import { and, asc, desc, eq, sql } from 'drizzle-orm'
import { addDays } from '../../core/calendar/day-count'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { clearance, verdict } from '../schema/verdicts'

export type VerdictRow = typeof verdict.$inferSelect

/** Every decision of a session that stands: of what was decided anew the last one. Index `verdict_once`. */
export async function verdictsOfSession(scope: ClubScope, sessionId: string): Promise<VerdictRow[]> {
	return standing(await decisionsOfSession(scope, sessionId))
}
/** Every decision of a session, what was decided anew too, the newest of each athlete and ladder last. */
export async function decisionsOfSession({ db, clubId }: ClubScope, sessionId: string): Promise<VerdictRow[]> {
	return db
		.select()
		.from(verdict)
		.where(and(eq(verdict.clubId, clubId), eq(verdict.sessionId, sessionId)))
		.orderBy(asc(verdict.turn))
}
function standing<T extends { sessionId: string; athleteId: string; ladderId: string; turn: number }>(rows: T[]): T[] {
	const last = new Map<string, T>()
	for (const row of rows) {
		const key = `${row.sessionId}/${row.athleteId}/${row.ladderId}`
		if ((last.get(key)?.turn ?? -1) < row.turn) last.set(key, row)
	}
	return rows.filter((row) => last.get(`${row.sessionId}/${row.athleteId}/${row.ladderId}`) === row)
}
/** The history of an athlete’s moves, newest first; index `verdict_newest`. */
export async function verdictsOfAthlete(
	{ db, clubId }: ClubScope,
	athleteId: string,
	limit: number,
): Promise<VerdictRow[]> {
	return db
		.select()
		.from(verdict)
		.where(and(eq(verdict.clubId, clubId), eq(verdict.athleteId, athleteId)))
		.orderBy(desc(verdict.day), desc(verdict.turn))
		.limit(limit)
}
/** The same without what was judged on: a replay needs that, a page does not. */
export async function decidedOfAthlete({ db, clubId }: ClubScope, athleteId: string, limit: number) {
	return db
		.select({
			id: verdict.id,
			day: verdict.day,
			ladderId: verdict.ladderId,
			decided: verdict.decided,
			judgement: verdict.judgement,
			reason: verdict.reason,
		})
		.from(verdict)
		.where(and(eq(verdict.clubId, clubId), eq(verdict.athleteId, athleteId)))
		.orderBy(desc(verdict.day), desc(verdict.turn))
		.limit(limit)
}
/** So long a verdict explains a line. */
const EXPLAINS_DAYS = 60
/** The newest verdict by athlete and ladder up to each of some days: what explains a line. */
export async function latestVerdicts({ db, clubId }: ClubScope, athleteIds: string[], days: readonly string[]) {
	const [from, to] = [[...days].sort()[0], [...days].sort().at(-1)]
	if (athleteIds.length === 0 || from === undefined || to === undefined) return new Map<string, LatestVerdict[]>()
	const rows = await db
		.select({ id: verdict.id, athleteId: verdict.athleteId, ladderId: verdict.ladderId, day: verdict.day })
		.from(verdict)
		.where(
			and(
				eq(verdict.clubId, clubId),
				among(verdict.athleteId, athleteIds),
				sql`${verdict.day} between ${addDays(from, 1 - EXPLAINS_DAYS)} and ${to}`,
			),
		)
		.orderBy(asc(verdict.day), asc(verdict.decidedAt), asc(verdict.turn))
	const newest = new Map(
		days.map((day) => [
			day,
			[
				...new Map(
					rows
						.filter((row) => row.day <= day && row.day > addDays(day, -EXPLAINS_DAYS))
						.map((row) => [`${row.athleteId}/${row.ladderId}`, row.id]),
				).values(),
			],
		]),
	)
	const whole = new Map(
		(await verdictsById({ db, clubId }, [...new Set([...newest.values()].flat())])).map((row) => [row.id, row]),
	)
	return new Map([...newest].map(([day, ids]) => [day, ids.flatMap((id) => whole.get(id) ?? [])]))
}
export type LatestVerdict = Awaited<ReturnType<typeof verdictsById>>[number]
/** What a decision said, without what it was judged on. */
async function verdictsById({ db, clubId }: ClubScope, ids: string[]) {
	if (ids.length === 0) return []
	return db
		.select({
			id: verdict.id,
			athleteId: verdict.athleteId,
			ladderId: verdict.ladderId,
			decided: verdict.decided,
			sentence: verdict.sentence,
			day: verdict.day,
			judgement: verdict.judgement,
			reason: verdict.reason,
		})
		.from(verdict)
		.where(and(eq(verdict.clubId, clubId), among(verdict.id, ids)))
}
export async function insertVerdicts({ db, clubId }: ClubScope, rows: Omit<typeof verdict.$inferInsert, 'clubId'>[]) {
	if (rows.length > 0) await db.insert(verdict).values(rows.map((row) => ({ ...row, clubId })))
}
export async function insertClearance({ db, clubId }: ClubScope, row: Omit<typeof clearance.$inferInsert, 'clubId'>) {
	await db.insert(clearance).values({ ...row, clubId })
}
export async function clearancesOf({ db, clubId }: ClubScope, athleteId: string) {
	return db
		.select()
		.from(clearance)
		.where(and(eq(clearance.clubId, clubId), eq(clearance.athleteId, athleteId)))
		.orderBy(desc(clearance.recordedAt))
}

/** Rungs reached by verdicts of some athletes lately: what is new to them. */
export async function recentAdvances({ db, clubId }: ClubScope, athleteIds: string[], from: string, to: string) {
	if (athleteIds.length === 0) return []
	const rows = await db
		.select({
			athleteId: verdict.athleteId,
			ladderId: verdict.ladderId,
			sessionId: verdict.sessionId,
			turn: verdict.turn,
			decided: verdict.decided,
			day: verdict.day,
			before: verdict.before,
			after: verdict.after,
		})
		.from(verdict)
		.where(
			and(
				eq(verdict.clubId, clubId),
				among(verdict.athleteId, athleteIds),
				sql`${verdict.day} between ${from} and ${to}`,
			),
		)
	return standing(rows).filter((row) => row.decided === 'advance')
}

/** Where verdicts after some sessions moved whom, the last word of each. Index `verdict_turn`. */
export async function movesOfSessions(
	{ db, clubId }: ClubScope,
	sessionIds: string[],
): Promise<{ athleteId: string; ladderId: string; from: string; to: string }[]> {
	if (sessionIds.length === 0) return []
	const rows = await db
		.select({
			athleteId: verdict.athleteId,
			sessionId: verdict.sessionId,
			ladderId: verdict.ladderId,
			turn: verdict.turn,
			from: sql<string>`json_value(${verdict.before}, '$.rungId')`,
			to: sql<string>`json_value(${verdict.after}, '$.rungId')`,
		})
		.from(verdict)
		.where(and(eq(verdict.clubId, clubId), among(verdict.sessionId, sessionIds)))
	return standing(rows).filter(({ from, to }) => from !== to)
}
