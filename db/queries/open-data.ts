import { and, asc, eq, isNotNull, isNull, ne, sql } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import { tuningFromKept } from '../../core/vocabulary/older'
import type { Family, Level } from '../../core/vocabulary/words'
import { workOf } from '../../core/vocabulary/entry'
import type { Parameters } from '../../core/vocabulary/dose'
import type { Mark } from '../../core/vocabulary/events'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { mark } from '../schema/log'
import { athlete } from '../schema/people'
import { battery, batterySession } from '../schema/record'
import { entry, line, session, sessionAthlete } from '../schema/sessions'
import { athleteLevel, squad } from '../schema/squads'
import { type StoredMark, markEventOf } from './log'
import type { EntryRow, LineRow, SessionRow } from './sessions'

/*
 * What a document of the club's work is made of: everything of a time, taken off sheets or written over since too.
 */

/** Sessions of a time, oldest first; index `session_by_day`. */
export async function sessionsFrom({ db, clubId }: ClubScope, from: string, to: string): Promise<SessionRow[]> {
	return db
		.select()
		.from(session)
		.where(and(eq(session.clubId, clubId), sql`${session.day} between ${from} and ${to}`))
		.orderBy(asc(session.day), asc(session.startTime), asc(session.id))
}
/** Entries of some sessions, retired ones too; index `entry_by_session`. */
export async function allEntriesOf({ db, clubId }: ClubScope, sessionIds: string[]): Promise<EntryRow[]> {
	if (sessionIds.length === 0) return []
	const rows = await db
		.select()
		.from(entry)
		.where(and(eq(entry.clubId, clubId), among(entry.sessionId, sessionIds)))
		.orderBy(asc(entry.sessionId), asc(entry.position), asc(entry.id))
	return rows.map(({ dose, rest, parameters, sides, pieces, carried, aid, tuning, ...row }) => ({
		...row,
		...workOf({ dose, rest, parameters, sides, pieces, carried, aid }),
		tuning: tuningFromKept(tuning, row.family),
	}))
}
/** Every version of the lines of some sessions; index `line_by_session_athlete`. */
export async function allLinesOf({ db, clubId }: ClubScope, sessionIds: string[]): Promise<LineRow[]> {
	if (sessionIds.length === 0) return []
	return db
		.select()
		.from(line)
		.where(and(eq(line.clubId, clubId), among(line.sessionId, sessionIds)))
		.orderBy(asc(line.sessionId), asc(line.entryId), asc(line.athleteId), asc(line.version))
}
/** Marks of some sessions, replaced ones too, for the fold; index `mark_by_session`. */
export async function marksOf({ db, clubId }: ClubScope, sessionIds: string[]): Promise<StoredMark[]> {
	if (sessionIds.length === 0) return []
	const rows = await db
		.select()
		.from(mark)
		.where(and(eq(mark.clubId, clubId), among(mark.sessionId, sessionIds)))
	return rows.map(markEventOf)
}
/** What was measured of some athletes on the days from one to another, and stands; indexes `mark_by_athlete`, `mark_replaces`. */
export async function resultsOf({ db, clubId }: ClubScope, athleteIds: string[], from: string, to: string) {
	if (athleteIds.length === 0) return []
	const later = alias(mark, 'later')
	return db
		.select({
			athleteId: mark.athleteId,
			day: session.day,
			drillId: mark.drillId,
			side: mark.side,
			value: sql<Mark['value']>`${mark.value}`.mapWith(mark.value),
		})
		.from(mark)
		.innerJoin(session, and(eq(session.clubId, mark.clubId), eq(session.id, mark.sessionId)))
		.leftJoin(later, and(eq(later.clubId, mark.clubId), eq(later.replacesId, mark.id)))
		.where(
			and(
				eq(mark.clubId, clubId),
				among(mark.athleteId, athleteIds),
				eq(mark.isVoid, false),
				among(mark.kind, ['sprint', 'contact', 'height', 'distance']),
				isNull(later.id),
				sql`${session.day} between ${from} and ${to}`,
			),
		)
}
/**
 * Every form of a drill some athletes have done from a day on, with the last day of it: what stands, of the line's
 * own drill. Indexes `mark_by_athlete`, `mark_replaces`.
 */
export async function formsDone({ db, clubId }: ClubScope, athleteIds: string[], from: string) {
	if (athleteIds.length === 0) return []
	const later = alias(mark, 'later')
	return db
		.select({
			athleteId: mark.athleteId,
			drillId: mark.drillId,
			parameters: sql<Parameters>`${line.parameters}`.mapWith(line.parameters),
			day: sql<string>`max(${session.day})`.mapWith(session.day),
		})
		.from(mark)
		.innerJoin(session, and(eq(session.clubId, mark.clubId), eq(session.id, mark.sessionId)))
		.innerJoin(line, and(eq(line.clubId, mark.clubId), eq(line.id, mark.lineId)))
		.leftJoin(later, and(eq(later.clubId, mark.clubId), eq(later.replacesId, mark.id)))
		.where(
			and(
				eq(mark.clubId, clubId),
				among(mark.athleteId, athleteIds),
				eq(mark.isVoid, false),
				isNull(later.id),
				isNull(mark.asDrillVersion),
				ne(mark.kind, 'missed'),
				sql`${session.day} >= ${from}`,
			),
		)
		.groupBy(mark.athleteId, mark.drillId, line.parameters)
}
/** Levels that were written down. */
export async function allLevels({
	db,
	clubId,
}: ClubScope): Promise<{ athleteId: string; family: Family; level: Level }[]> {
	return db
		.select({ athleteId: athleteLevel.athleteId, family: athleteLevel.family, level: athleteLevel.level })
		.from(athleteLevel)
		.where(eq(athleteLevel.clubId, clubId))
}
export const allBatteries = async ({ db, clubId }: ClubScope) =>
	db.select().from(battery).where(eq(battery.clubId, clubId)).orderBy(asc(battery.madeAt), asc(battery.id))
export const allBatterySessions = async ({ db, clubId }: ClubScope) =>
	db
		.select({ batteryId: batterySession.batteryId, sessionId: batterySession.sessionId })
		.from(batterySession)
		.where(eq(batterySession.clubId, clubId))
		.orderBy(asc(batterySession.sessionId))

const TABLES = {
	squads: squad,
	athletes: athlete,
	sessions: session,
	entries: entry,
	lines: line,
	tests: battery,
	marks: mark,
}
/** Which of some ids the club has, by the primary keys. */
export async function idsThere(
	{ db, clubId }: ClubScope,
	kind: keyof typeof TABLES,
	ids: readonly string[],
): Promise<Set<string>> {
	const table = TABLES[kind]
	const there = new Set<string>()
	for (let from = 0; from < ids.length; from += 1000)
		for (const { id } of await db
			.select({ id: table.id })
			.from(table)
			.where(and(eq(table.clubId, clubId), among(table.id, ids.slice(from, from + 1000)))))
			there.add(id)
	return there
}
/** Which of some sessions have begun; by the primary key. */
export async function begunSessions({ db, clubId }: ClubScope, ids: readonly string[]): Promise<Set<string>> {
	const begun = new Set<string>()
	for (let from = 0; from < ids.length; from += 1000)
		for (const { id } of await db
			.select({ id: session.id })
			.from(session)
			.where(
				and(eq(session.clubId, clubId), among(session.id, ids.slice(from, from + 1000)), isNotNull(session.startedAt)),
			))
			begun.add(id)
	return begun
}
/** Who is down for some sessions, as "session/athlete"; by the primary key. */
export async function attendingKeys({ db, clubId }: ClubScope, sessionIds: readonly string[]): Promise<Set<string>> {
	const keys = new Set<string>()
	for (let from = 0; from < sessionIds.length; from += 1000)
		for (const row of await db
			.select({ sessionId: sessionAthlete.sessionId, athleteId: sessionAthlete.athleteId })
			.from(sessionAthlete)
			.where(
				and(eq(sessionAthlete.clubId, clubId), among(sessionAthlete.sessionId, sessionIds.slice(from, from + 1000))),
			))
			keys.add(`${row.sessionId}/${row.athleteId}`)
	return keys
}
