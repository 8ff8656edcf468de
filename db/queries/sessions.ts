import { type SQL, and, asc, desc, eq, gt, isNotNull, isNull, lt, lte, or, sql } from 'drizzle-orm'
import { type SessionEntry, workOf } from '../../core/vocabulary/entry'
import { tuningFromKept } from '../../core/vocabulary/older'
import { among } from '../among'
import { bulkInsert } from '../bulk-insert'
import type { ClubScope } from '../connect'
import { type FoundLine, found, readFound } from '../kept-lines'
import { chunks } from './chunks'
import { mark } from '../schema/log'
import { entry, line, session, sessionAthlete } from '../schema/sessions'
import { squad } from '../schema/squads'

export type SessionRow = typeof session.$inferSelect
/** An entry as it is kept: the sheet's own shape, with its place and the family its levels are of. */
export type EntryRow = SessionEntry &
	Pick<typeof entry.$inferSelect, 'clubId' | 'sessionId' | 'family' | 'position' | 'drillVersion' | 'retired'>
export type LineRow = typeof line.$inferSelect
/** Rows of one statement: many enough, and far from the longest the server takes. */
const AT_ONCE = 500
type New<T extends { clubId: string }> = Omit<T, 'clubId'>

export interface ListedSession extends SessionRow {
	squadName: string
}
const listed = { session, squadName: squad.name }
const ofSquad = and(eq(squad.clubId, session.clubId), eq(squad.id, session.squadId))
/** Who was taken off a list has lines there that are nobody's. */
const isDownFor = and(
	eq(sessionAthlete.clubId, line.clubId),
	eq(sessionAthlete.sessionId, line.sessionId),
	eq(sessionAthlete.athleteId, line.athleteId),
)
const flat = (rows: { session: SessionRow; squadName: string }[]): ListedSession[] =>
	rows.map((row) => ({ ...row.session, squadName: row.squadName }))

/** Index `session_by_day`. */
export async function sessionsBetween({ db, clubId }: ClubScope, from: string, to: string): Promise<ListedSession[]> {
	return flat(
		await db
			.select(listed)
			.from(session)
			.innerJoin(squad, ofSquad)
			.where(and(eq(session.clubId, clubId), sql`${session.day} between ${from} and ${to}`))
			.orderBy(asc(session.day), asc(session.startTime)),
	)
}
/** Sessions that have marks and no decision yet, newest first. */
export async function sessionsToReview({ db, clubId }: ClubScope): Promise<ListedSession[]> {
	return flat(
		await db
			.select(listed)
			.from(session)
			.innerJoin(squad, ofSquad)
			.where(and(eq(session.clubId, clubId), isNull(session.reviewedAt), sql`${session.startedAt} is not null`))
			.orderBy(desc(session.day), desc(session.startTime))
			.limit(20),
	)
}
export async function readSession({ db, clubId }: ClubScope, id: string): Promise<ListedSession | null> {
	const rows = await db
		.select(listed)
		.from(session)
		.innerJoin(squad, ofSquad)
		.where(and(eq(session.clubId, clubId), eq(session.id, id)))
	return flat(rows)[0] ?? null
}
/** Locks the session's row, so that two decisions about it queue up. */
export async function lockSession({ db, clubId }: ClubScope, id: string): Promise<SessionRow | null> {
	const [row] = await db
		.select()
		.from(session)
		.where(and(eq(session.clubId, clubId), eq(session.id, id)))
		.for('update')
	return row ?? null
}
/** Sessions of a squad after another one that nobody has started, soonest first; index `session_by_squad`. */
export async function unstartedAfter({ db, clubId }: ClubScope, after: SessionRow): Promise<SessionRow[]> {
	return db
		.select()
		.from(session)
		.where(
			and(
				eq(session.clubId, clubId),
				eq(session.squadId, after.squadId),
				isNull(session.startedAt),
				or(gt(session.day, after.day), and(eq(session.day, after.day), gt(session.startTime, after.startTime))),
			),
		)
		.orderBy(asc(session.day), asc(session.startTime))
}
/** Sessions near today that nobody has begun and whose lines were written on an earlier day; index `session_by_day`. */
export async function staleSessions({ db, clubId }: ClubScope, from: string, to: string): Promise<SessionRow[]> {
	return db
		.select()
		.from(session)
		.where(
			and(
				eq(session.clubId, clubId),
				isNull(session.startedAt),
				sql`${session.day} between ${from} and ${to}`,
				or(isNull(session.linesFor), lt(session.linesFor, from)),
			),
		)
		.orderBy(asc(session.day), asc(session.startTime))
}
/** Unstarted sessions any of the athletes is down for, from a day on, over all squads. */
export async function unstartedFor(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	from: string,
): Promise<SessionRow[]> {
	if (athleteIds.length === 0) return []
	const rows = await db
		.selectDistinct({ session })
		.from(session)
		.innerJoin(sessionAthlete, and(eq(sessionAthlete.clubId, session.clubId), eq(sessionAthlete.sessionId, session.id)))
		.where(
			and(
				eq(session.clubId, clubId),
				isNull(session.startedAt),
				sql`${session.day} >= ${from}`,
				among(sessionAthlete.athleteId, athleteIds),
			),
		)
		.orderBy(asc(session.day), asc(session.startTime))
	return rows.map((row) => row.session)
}
export async function insertSession({ db, clubId }: ClubScope, ...rows: New<typeof session.$inferInsert>[]) {
	if (rows.length > 0) await db.insert(session).values(rows.map((row) => ({ ...row, clubId })))
}
/** The lines of some sessions are of a day. */
export async function writeLinesFor({ db, clubId }: ClubScope, ids: string[], day: string) {
	if (ids.length > 0)
		await db
			.update(session)
			.set({ linesFor: day })
			.where(and(eq(session.clubId, clubId), among(session.id, ids)))
}
export async function updateSession(
	{ db, clubId }: ClubScope,
	id: string,
	change: Partial<
		Pick<
			SessionRow,
			| 'reviewedAt'
			| 'linesFor'
			| 'title'
			| 'plannedMinutes'
			| 'day'
			| 'startTime'
			| 'place'
			| 'surface'
			| 'role'
			| 'share'
		>
	>,
) {
	await db
		.update(session)
		.set(change)
		.where(and(eq(session.clubId, clubId), eq(session.id, id)))
}
/** Sessions nobody has begun that are held at a place, from a day on. */
export async function unstartedAt({ db, clubId }: ClubScope, place: string, from: string): Promise<SessionRow[]> {
	return db
		.select()
		.from(session)
		.where(
			and(
				eq(session.clubId, clubId),
				isNull(session.startedAt),
				eq(session.place, place),
				sql`${session.day} >= ${from}`,
			),
		)
		.orderBy(asc(session.day), asc(session.startTime))
}
/** Sessions nobody has begun that are held by one clock are held by another from now on. */
export async function moveZone({ db, clubId }: ClubScope, from: string, to: string) {
	await db
		.update(session)
		.set({ timeZone: to })
		.where(and(eq(session.clubId, clubId), eq(session.timeZone, from), isNull(session.startedAt)))
}
/** Freezes the sheet with the first download or mark; later calls change nothing. */
export async function markStarted({ db, clubId }: ClubScope, id: string, at: Date) {
	await db
		.update(session)
		.set({ startedAt: at })
		.where(and(eq(session.clubId, clubId), eq(session.id, id), isNull(session.startedAt)))
}

export async function readAttending(
	{ db, clubId }: ClubScope,
	sessionIds: string[],
): Promise<{ sessionId: string; athleteId: string; position: number }[]> {
	if (sessionIds.length === 0) return []
	return db
		.select({
			sessionId: sessionAthlete.sessionId,
			athleteId: sessionAthlete.athleteId,
			position: sessionAthlete.position,
		})
		.from(sessionAthlete)
		.where(and(eq(sessionAthlete.clubId, clubId), among(sessionAthlete.sessionId, sessionIds)))
		.orderBy(asc(sessionAthlete.position))
}
export async function insertAttending(scope: ClubScope, sessionId: string, athleteIds: string[]) {
	await insertAttendingOf(scope, [{ sessionId, athleteIds }])
}
/** The lists of many sessions at once. */
export async function insertAttendingOf(
	{ db, clubId }: ClubScope,
	lists: readonly { sessionId: string; athleteIds: readonly string[] }[],
) {
	const rows = lists.flatMap(({ sessionId, athleteIds }) =>
		athleteIds.map((athleteId, position) => ({ clubId, sessionId, athleteId, position })),
	)
	if (rows.length > 0) await db.insert(sessionAthlete).values(rows)
}
/** One more on the list of a session, at its end; once. */
export async function joinSession({ db, clubId }: ClubScope, sessionId: string, athleteId: string) {
	const [last] = await db
		.select({ position: sql<number>`coalesce(max(${sessionAthlete.position}), -1)` })
		.from(sessionAthlete)
		.where(and(eq(sessionAthlete.clubId, clubId), eq(sessionAthlete.sessionId, sessionId)))
	await db
		.insert(sessionAthlete)
		.values({ clubId, sessionId, athleteId, position: Number(last?.position ?? -1) + 1 })
		.onDuplicateKeyUpdate({ set: { athleteId: sql`athlete_id` } })
}
/** Takes somebody off the list of a session who came with some lines, unless anything else speaks of them there. */
export async function leaveSession(
	{ db, clubId }: ClubScope,
	sessionId: string,
	athleteId: string,
	lineIds: readonly string[],
) {
	const marked = await db
		.select({ id: mark.id })
		.from(mark)
		.where(and(eq(mark.clubId, clubId), eq(mark.sessionId, sessionId), eq(mark.athleteId, athleteId)))
		.limit(1)
	const ofAthlete = and(eq(line.clubId, clubId), eq(line.sessionId, sessionId), eq(line.athleteId, athleteId))
	const lines = await db.select({ id: line.id }).from(line).where(ofAthlete)
	if (marked.length > 0 || lines.some(({ id }) => !lineIds.includes(id))) return
	await db.update(line).set({ current: false }).where(ofAthlete)
	await db
		.delete(sessionAthlete)
		.where(
			and(
				eq(sessionAthlete.clubId, clubId),
				eq(sessionAthlete.sessionId, sessionId),
				eq(sessionAthlete.athleteId, athleteId),
			),
		)
}
/** Takes an entry off a sheet with its lines, unless something was done on it. */
export async function withdrawEntry({ db, clubId }: ClubScope, sessionId: string, entryId: string) {
	const marked = await db
		.select({ id: mark.id })
		.from(mark)
		.where(and(eq(mark.clubId, clubId), eq(mark.sessionId, sessionId), eq(mark.entryId, entryId)))
		.limit(1)
	if (marked.length > 0) return
	await db
		.update(line)
		.set({ current: false })
		.where(and(eq(line.clubId, clubId), eq(line.entryId, entryId)))
	await retireEntries({ db, clubId }, [entryId])
}
/** Takes somebody off the list of a session that has not begun; the lines they had there are nobody's from then on. */
export async function removeAttendee({ db, clubId }: ClubScope, sessionId: string, athleteId: string) {
	await db
		.delete(sessionAthlete)
		.where(
			and(
				eq(sessionAthlete.clubId, clubId),
				eq(sessionAthlete.sessionId, sessionId),
				eq(sessionAthlete.athleteId, athleteId),
			),
		)
}
/** Sessions of a squad that nobody has begun, from a day on, oldest first. */
export async function unstartedOfSquad(
	{ db, clubId }: ClubScope,
	squadId: string,
	from: string,
): Promise<SessionRow[]> {
	return db
		.select()
		.from(session)
		.where(
			and(
				eq(session.clubId, clubId),
				eq(session.squadId, squadId),
				isNull(session.startedAt),
				sql`${session.day} >= ${from}`,
			),
		)
		.orderBy(asc(session.day), asc(session.startTime))
}
export async function removeAttending({ db, clubId }: ClubScope, sessionId: string) {
	await db.delete(sessionAthlete).where(and(eq(sessionAthlete.clubId, clubId), eq(sessionAthlete.sessionId, sessionId)))
}
/** The last sessions an athlete was down for up to a day, newest first; index `attending_by_athlete`. */
export async function recentSessionsOf(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	upTo: string,
	days: number,
): Promise<{ athleteId: string; session: SessionRow }[]> {
	if (athleteIds.length === 0) return []
	return db
		.select({ athleteId: sessionAthlete.athleteId, session })
		.from(sessionAthlete)
		.innerJoin(session, and(eq(session.clubId, sessionAthlete.clubId), eq(session.id, sessionAthlete.sessionId)))
		.where(
			and(
				eq(sessionAthlete.clubId, clubId),
				among(sessionAthlete.athleteId, athleteIds),
				lte(session.day, upTo),
				sql`${session.day} > date_sub(${upTo}, interval ${days} day)`,
			),
		)
		.orderBy(desc(session.day), desc(session.startTime))
}

/** Index `entry_by_session`. */
export async function readEntries({ db, clubId }: ClubScope, sessionIds: string[]): Promise<EntryRow[]> {
	if (sessionIds.length === 0) return []
	const rows = await db
		.select()
		.from(entry)
		.where(and(eq(entry.clubId, clubId), among(entry.sessionId, sessionIds), eq(entry.retired, false)))
		.orderBy(asc(entry.position))
	return rows.map(({ dose, rest, parameters, sides, pieces, carried, aid, tuning, ...row }) => ({
		...row,
		...workOf({ dose, rest, parameters, sides, pieces, carried, aid }),
		tuning: tuningFromKept(tuning, row.family),
	}))
}
/** Whose some entries are and where on the sheet, those that were taken off it too; by the primary key. */
export async function readEntriesById(
	{ db, clubId }: ClubScope,
	ids: string[],
): Promise<Pick<EntryRow, 'id' | 'sessionId' | 'position'>[]> {
	if (ids.length === 0) return []
	return db
		.select({ id: entry.id, sessionId: entry.sessionId, position: entry.position })
		.from(entry)
		.where(and(eq(entry.clubId, clubId), among(entry.id, ids)))
}
export async function insertEntries({ db, clubId }: ClubScope, rows: New<EntryRow>[]) {
	for (const some of chunks(rows, AT_ONCE)) await db.insert(entry).values(some.map((row) => ({ ...row, clubId })))
}
/** How the group flows through an entry; it changes nobody's line. */
export async function writeEntryLanes(
	{ db, clubId }: ClubScope,
	sessionId: string,
	id: string,
	lanes: number,
	together: number,
) {
	await db
		.update(entry)
		.set({ lanes, together })
		.where(and(eq(entry.clubId, clubId), eq(entry.sessionId, sessionId), eq(entry.id, id)))
}
/** What an entry of a session nobody has begun asks for; its lines are written anew after it. */
export async function updateEntry(
	{ db, clubId }: ClubScope,
	id: string,
	change: Partial<Pick<EntryRow, 'position' | 'doseFactor' | 'tuning'>>,
) {
	await db
		.update(entry)
		.set(change)
		.where(and(eq(entry.clubId, clubId), eq(entry.id, id)))
}
export async function retireEntries({ db, clubId }: ClubScope, ids: string[]) {
	if (ids.length > 0)
		await db
			.update(entry)
			.set({ retired: true })
			.where(and(eq(entry.clubId, clubId), among(entry.id, ids)))
}

/** Current lines, of everybody or of some; index `line_by_session_athlete`. */
export async function readLines(
	{ db, clubId }: ClubScope,
	sessionIds: string[],
	only?: readonly string[],
): Promise<LineRow[]> {
	if (sessionIds.length === 0 || only?.length === 0) return []
	return readFound(
		{ db, clubId },
		await db
			.select(found)
			.from(line)
			.where(
				and(
					eq(line.clubId, clubId),
					among(line.sessionId, sessionIds),
					eq(line.current, true),
					only ? among(line.athleteId, [...only]) : undefined,
				),
			),
	)
}
export async function readLinesById({ db, clubId }: ClubScope, ids: string[]): Promise<LineRow[]> {
	if (ids.length === 0) return []
	return db
		.select()
		.from(line)
		.where(and(eq(line.clubId, clubId), among(line.id, [...new Set(ids)])))
}
/** Puts the version that was done in force, and its entry back on the sheet: what was done decides, not what was planned later. */
export async function putInForce({ db, clubId }: ClubScope, done: LineRow) {
	await db
		.update(line)
		.set({ current: sql`${line.id} = ${done.id}` })
		.where(and(eq(line.clubId, clubId), eq(line.entryId, done.entryId), eq(line.athleteId, done.athleteId)))
	await db
		.update(entry)
		.set({ retired: false })
		.where(and(eq(entry.clubId, clubId), eq(entry.id, done.entryId)))
}
/** Current lines of athletes in sessions of a span of days, oldest first; index `line_by_athlete`. */
export async function linesOf(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	from: string,
	to: string,
): Promise<HeldLine[]> {
	if (athleteIds.length === 0) return []
	const lines = await db
		.select(found)
		.from(line)
		.innerJoin(session, and(eq(session.clubId, line.clubId), eq(session.id, line.sessionId)))
		.innerJoin(sessionAthlete, isDownFor)
		.where(
			and(
				eq(line.clubId, clubId),
				among(line.athleteId, athleteIds),
				eq(line.current, true),
				sql`${session.day} >= ${from}`,
				lt(session.day, sql`date_add(${to}, interval 1 day)`),
			),
		)
		.orderBy(asc(session.day), asc(session.startTime))
	return withSessions({ db, clubId }, lines)
}
/** Lines that were found, each with its session, in their order. */
async function withSessions({ db, clubId }: ClubScope, lines: readonly FoundLine[]): Promise<HeldLine[]> {
	if (lines.length === 0) return []
	const rows = await readFound({ db, clubId }, lines)
	const sessions = await db
		.select()
		.from(session)
		.where(and(eq(session.clubId, clubId), among(session.id, [...new Set(rows.map((row) => row.sessionId))])))
	const byId = new Map(sessions.map((row) => [row.id, row]))
	return rows.flatMap((row) => {
		const of = byId.get(row.sessionId)
		return of ? [{ line: row, session: of }] : []
	})
}
/** The last line of each ladder and each drill that stood on a session that was held, by athlete; index `line_by_athlete`. */
export const lastLinesOf = (
	scope: ClubScope,
	athleteIds: string[],
	from: string,
	before: string,
): Promise<HeldLine[]> =>
	newestOf(scope, athleteIds, from, before, sql`coalesce(${line.ladderId}, ${line.drillId})`, isNotNull(line.drillId))
/** The last line of each ladder on a session that was held, blocked ones too, by athlete; index `line_by_athlete`. */
export const lastOnLadders = (
	scope: ClubScope,
	athleteIds: string[],
	from: string,
	before: string,
): Promise<HeldLine[]> => newestOf(scope, athleteIds, from, before, sql`${line.ladderId}`, isNotNull(line.ladderId))

type HeldLine = { line: LineRow; session: SessionRow }
async function newestOf(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	from: string,
	before: string,
	kind: SQL,
	which: SQL,
): Promise<HeldLine[]> {
	if (athleteIds.length === 0) return []
	const ranked = db
		.select({
			id: line.id,
			rank: sql<number>`row_number() over (partition by ${line.athleteId}, ${kind} order by ${session.day} desc, ${session.startTime} desc)`.as(
				'rank_of_line',
			),
		})
		.from(line)
		.innerJoin(session, and(eq(session.clubId, line.clubId), eq(session.id, line.sessionId)))
		.innerJoin(sessionAthlete, isDownFor)
		.where(
			and(
				eq(line.clubId, clubId),
				among(line.athleteId, athleteIds),
				eq(line.current, true),
				which,
				isNotNull(session.startedAt),
				sql`${session.day} >= ${from}`,
				lt(session.day, before),
			),
		)
		.as('ranked')
	return withSessions(
		{ db, clubId },
		await db
			.select(found)
			.from(ranked)
			.innerJoin(line, and(eq(line.clubId, clubId), eq(line.id, ranked.id)))
			.where(eq(ranked.rank, 1)),
	)
}
/** Lines that are known by their ids already, each after the versions its athlete has; one that stands goes on standing. */
export async function insertFurtherLines({ db, clubId }: ClubScope, rows: LineRow[]) {
	for (const row of rows) {
		const of = and(eq(line.clubId, clubId), eq(line.entryId, row.entryId), eq(line.athleteId, row.athleteId))
		const [last] = await db
			.select({ version: sql<number>`coalesce(max(${line.version}), 0)` })
			.from(line)
			.where(of)
		await db.update(line).set({ current: false }).where(of)
		await db.insert(line).values({ ...row, clubId, version: Number(last?.version ?? 0) + 1 })
	}
}
/** Writes new versions; the versions they follow stop being current. */
export async function insertLines(
	{ db, clubId }: ClubScope,
	rows: New<typeof line.$inferInsert>[],
	superseded: string[] = [],
) {
	if (superseded.length > 0)
		await db
			.update(line)
			.set({ current: false })
			.where(and(eq(line.clubId, clubId), among(line.id, superseded)))
	for (const some of chunks(rows, AT_ONCE))
		await bulkInsert(
			db,
			line,
			some.map((row) => ({ ...row, clubId })),
		)
}
export async function writeWouldBe({ db, clubId }: ClubScope, lineId: string, wouldBe: string | null) {
	await db
		.update(line)
		.set({ wouldBe })
		.where(and(eq(line.clubId, clubId), eq(line.id, lineId)))
}
/** The squad's latest session, begun or not, whose parts a block repeats; index `session_by_squad`. */
export async function lastOfSquad({ db, clubId }: ClubScope, squadId: string): Promise<SessionRow | null> {
	const [row] = await db
		.select()
		.from(session)
		.where(and(eq(session.clubId, clubId), eq(session.squadId, squadId)))
		.orderBy(desc(session.day), desc(session.startTime))
		.limit(1)
	return row ?? null
}
/** Every session that has begun, oldest first. */
export async function startedSessions({ db, clubId }: ClubScope): Promise<{ id: string; day: string }[]> {
	return db
		.select({ id: session.id, day: session.day })
		.from(session)
		.where(and(eq(session.clubId, clubId), isNotNull(session.startedAt)))
		.orderBy(asc(session.day), asc(session.startTime))
}
/** The squad's latest session that has begun; index `session_by_squad`. */
export async function lastStartedSession({ db, clubId }: ClubScope, squadId: string): Promise<SessionRow | null> {
	const [row] = await db
		.select()
		.from(session)
		.where(and(eq(session.clubId, clubId), eq(session.squadId, squadId), sql`${session.startedAt} is not null`))
		.orderBy(desc(session.day), desc(session.startTime))
		.limit(1)
	return row ?? null
}
