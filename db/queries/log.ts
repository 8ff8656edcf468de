import { and, count, desc, eq, gte, isNotNull, isNull, ne, notExists, notInArray, or, sql, type SQL } from 'drizzle-orm'
import { alias } from 'drizzle-orm/mysql-core'
import type { SparseCount } from '../../core/dose/sparse-count'
import type { Stamp } from '../../core/marks/keep-session'
import type { LogEvent, Mark } from '../../core/vocabulary/events'
import type { Method } from '../../core/vocabulary/words'
import { among } from '../among'
import { bulkInsertOnce } from '../bulk-insert'
import type { ClubScope } from '../connect'
import { decision, heldCorrection, mark, observation } from '../schema/log'
import { person } from '../schema/people'
import { line } from '../schema/sessions'

export type MarkInsert = Omit<typeof mark.$inferInsert, 'clubId'>
export type ObservationInsert = Omit<typeof observation.$inferInsert, 'clubId'>
export type DecisionInsert = Omit<typeof decision.$inferInsert, 'clubId'>

const TABLES = { mark, observation, decision } as const

/** The content hashes ids were accepted with, in any of the three tables; an id that is new has none. By the primary keys. */
export async function acceptedHashes({ db, clubId }: ClubScope, ids: string[]): Promise<Map<string, string>> {
	if (ids.length === 0) return new Map()
	const of = (table: (typeof TABLES)[keyof typeof TABLES]) =>
		db
			.select({ id: table.id, hash: table.contentHash })
			.from(table)
			.where(and(eq(table.clubId, clubId), among(table.id, ids)))
	const rows = await of(TABLES.mark).unionAll(of(TABLES.observation)).unionAll(of(TABLES.decision))
	return new Map(rows.map(({ id, hash }) => [id, hash]))
}

/** Rows of one kind at once; a row whose id stands already (sent twice, or by two at once) changes nothing. */
export async function insertMarks({ db, clubId }: ClubScope, rows: MarkInsert[]): Promise<void> {
	await bulkInsertOnce(
		db,
		mark,
		rows.map((row) => ({ ...row, clubId })),
	)
}
export async function insertObservations({ db, clubId }: ClubScope, rows: ObservationInsert[]): Promise<void> {
	await bulkInsertOnce(
		db,
		observation,
		rows.map((row) => ({ ...row, clubId })),
	)
}
export async function insertDecisions({ db, clubId }: ClubScope, rows: DecisionInsert[]): Promise<void> {
	await bulkInsertOnce(
		db,
		decision,
		rows.map((row) => ({ ...row, clubId })),
	)
}

/** An event as it is stored, with who wrote it and when it came. */
export type StoredEvent = LogEvent & { authorId: string; receivedAt: string; counts?: SparseCount; stamp?: Stamp }
export type StoredMark = Mark & { authorId: string; receivedAt: string; counts: SparseCount; stamp?: Stamp }

/** What every event has, as it is stored. */
interface EventRow {
	id: string
	sessionId: string
	athleteId: string | null
	deviceId: string
	deviceSeq: number
	deviceTime: Date
	replacesId: string | null
	isVoid: boolean
	kind: string
	value: unknown
	authorId: string
	receivedAt: Date
	entryId: string | null
	lineId: string | null
	setNo?: number | null
	repNo?: number | null
	side?: 'left' | 'right' | null
	piece?: number | null
}

/**
 * A row as the event it was; what it has not is not there. What every event has stands first: behind something spread
 * each name costs as much as the rest of the object, and pages are made of ten thousands of events.
 */
const eventOf = (row: EventRow, type: LogEvent['type']) => ({
	id: row.id,
	sessionId: row.sessionId,
	athleteId: row.athleteId,
	deviceId: row.deviceId,
	deviceSeq: row.deviceSeq,
	deviceTime: row.deviceTime.toISOString(),
	type,
	kind: row.kind,
	value: row.value,
	authorId: row.authorId,
	receivedAt: row.receivedAt.toISOString(),
	...(row.replacesId ? { replacesId: row.replacesId } : null),
	...(row.isVoid ? { void: true } : null),
	...(row.entryId ? { entryId: row.entryId } : null),
	...(row.lineId ? { lineId: row.lineId } : null),
	...(row.setNo ? { setNo: row.setNo } : null),
	...(row.repNo ? { repNo: row.repNo } : null),
	...(row.side ? { side: row.side } : null),
	...(row.piece ? { piece: row.piece } : null),
})

const countedColumns = { athleteId: mark.athleteId, sessionId: mark.sessionId, counts: mark.counts }

/** Corrections of marks in some sessions, and what they correct, for the fold. Indexes `mark_by_session`. */
export async function correctedMarks({ db, clubId }: ClubScope, sessionIds: string[]) {
	if (sessionIds.length === 0) return []
	const columns = { id: mark.id, replacesId: mark.replacesId, void: mark.isVoid, ...countedColumns }
	const inSessions = and(eq(mark.clubId, clubId), among(mark.sessionId, sessionIds))
	const corrections = await db
		.select(columns)
		.from(mark)
		.where(and(inSessions, isNotNull(mark.replacesId)))
	const ids = [...new Set(corrections.flatMap(({ replacesId }) => replacesId ?? []))]
	const targets =
		ids.length === 0
			? []
			: await db
					.select(columns)
					.from(mark)
					.where(and(inSessions, among(mark.id, ids)))
	return [...corrections, ...targets]
}

/**
 * What athletes' marks in some sessions cost, equal ones of a session once with how many they are: a season of a
 * squad is thousands of marks and a few hundred costs. Corrections, and what they correct, are left out.
 *
 * @param corrected ids of those that are left out
 */
export async function countedMarks(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	sessionIds: string[],
	corrected: string[],
) {
	if (athleteIds.length === 0 || sessionIds.length === 0) return []
	return (
		db
			.select({ ...countedColumns, times: count() })
			.from(mark)
			.where(
				and(
					eq(mark.clubId, clubId),
					among(mark.athleteId, athleteIds),
					among(mark.sessionId, sessionIds),
					isNull(mark.replacesId),
					eq(mark.isVoid, false),
					corrected.length === 0 ? undefined : notInArray(mark.id, corrected),
				),
			)
			// A short number first: the server tells long texts apart by it.
			.groupBy(mark.athleteId, mark.sessionId, sql`crc32(${mark.counts})`, mark.counts)
	)
}

/** All events of some sessions, replaced ones too: the fold decides what stands. Indexes `…_by_session`. */
export async function eventsOfSessions(
	{ db, clubId }: ClubScope,
	sessionIds: string[],
	ids?: string[],
): Promise<StoredEvent[]> {
	if (sessionIds.length === 0 || ids?.length === 0) return []
	return readEvents({ db, clubId }, (table) =>
		and(among(table.sessionId, sessionIds), ids ? among(table.id, ids) : undefined),
	)
}
/**
 * What was logged of one athlete in some sessions, with what was said of everybody there, and whatever replaced any of
 * it: a mark that was given to somebody else is nobody's twice. Indexes `…_by_session`, `…_replaces`.
 */
export async function eventsOfAthlete(
	scope: ClubScope,
	athleteId: string,
	sessionIds: string[],
): Promise<StoredEvent[]> {
	if (sessionIds.length === 0) return []
	const own = await readEvents(scope, (table) =>
		and(among(table.sessionId, sessionIds), or(eq(table.athleteId, athleteId), isNull(table.athleteId))),
	)
	if (own.length === 0) return []
	const ids = new Set<string>(own.map(({ id }) => id))
	const replacing = await readEvents(scope, (table) => among(table.replacesId, [...ids]), 'replaces')
	return [...own, ...replacing.filter(({ id }) => !ids.has(id))]
}
/** Events by their ids, wherever they belong. By the primary keys. */
export const eventsById = async (scope: ClubScope, ids: string[]): Promise<StoredEvent[]> =>
	ids.length === 0 ? [] : readEvents(scope, (table) => among(table.id, ids))

export const markEventOf = (row: typeof mark.$inferSelect): StoredMark =>
	({
		counts: row.counts,
		...eventOf(row, 'mark'),
		...(row.kept ? { kept: true } : null),
		...(row.source ? { source: row.source } : null),
		...(row.carried ? { carried: row.carried } : null),
		...(row.asDrillVersion === null ? null : { asDrill: { drillId: row.drillId, drillVersion: row.asDrillVersion } }),
		...(row.markKey ? { stamp: { key: row.markKey, setAside: row.setAside } } : null),
	}) as unknown as StoredMark

/** @param by the index to read by, where the optimizer would choose another */
async function readEvents(
	{ db, clubId }: ClubScope,
	which: (table: (typeof TABLES)[keyof typeof TABLES]) => SQL | undefined,
	by?: 'replaces',
): Promise<StoredEvent[]> {
	const asked = (table: (typeof TABLES)[keyof typeof TABLES]) => and(eq(table.clubId, clubId), which(table))
	// Most rows replace nothing: the optimizer takes that for many with one value, and reads the club.
	const index = (name: keyof typeof TABLES) => (by ? { forceIndex: `${name}_${by}` } : undefined)
	const marks = await db.select().from(mark, index('mark')).where(asked(mark))
	const observations = await db.select().from(observation, index('observation')).where(asked(observation))
	const decisions = await readDecisions({ db, clubId }, which, index('decision'))
	return [
		...marks.map(markEventOf),
		...observations.map((row) => eventOf(row, 'observation')),
		...decisions,
	] as unknown as StoredEvent[]
}
async function readDecisions(
	{ db, clubId }: ClubScope,
	which: (table: typeof decision) => SQL | undefined,
	index?: { forceIndex: string },
): Promise<StoredEvent[]> {
	const rows = await db
		.select()
		.from(decision, index)
		.where(and(eq(decision.clubId, clubId), which(decision)))
	return rows.map((row) => eventOf(row, 'decision')) as unknown as StoredEvent[]
}

/** Weights taken off in a session by some athletes, and whatever replaced it. Index `decision_by_session`. */
export const doneOtherwiseOf = (scope: ClubScope, sessionId: string, athleteIds: string[]): Promise<StoredEvent[]> =>
	readDecisions(scope, (table) =>
		and(
			eq(table.sessionId, sessionId),
			among(table.kind, ['load-off', 'fast-day']),
			among(table.athleteId, athleteIds),
		),
	)

/** Ids of what other devices have added to a session from a moment on; the rows themselves are read only where they are new. Indexes `…_by_session`. */
export async function idsSince(
	{ db, clubId }: ClubScope,
	sessionId: string,
	from: Date,
	exceptDevice: string | null,
): Promise<string[]> {
	const ids: string[] = []
	for (const table of Object.values(TABLES)) {
		const rows = await db
			.select({ id: table.id })
			.from(table)
			.where(
				and(
					eq(table.clubId, clubId),
					eq(table.sessionId, sessionId),
					gte(table.receivedAt, from),
					exceptDevice ? ne(table.deviceId, exceptDevice) : undefined,
				),
			)
		ids.push(...rows.map((row) => row.id))
	}
	return ids
}

/** Something noted of an athlete on a drill: words, or what was wrong with a rep. */
export interface DrillNote {
	sessionId: string
	athleteId: string
	drillId: string
	text: string
}
/** What was noted of athletes on their drills in some sessions, of each in its order; by index `observation_by_athlete`. */
export async function notesIn(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	sessionIds: string[],
): Promise<DrillNote[]> {
	if (athleteIds.length === 0 || sessionIds.length === 0) return []
	const later = alias(observation, 'later')
	const rows = await db
		.select({
			sessionId: observation.sessionId,
			athleteId: observation.athleteId,
			drillId: line.drillId,
			kind: observation.kind,
			value: observation.value,
		})
		.from(observation)
		.innerJoin(line, and(eq(line.clubId, observation.clubId), eq(line.id, observation.lineId)))
		.where(
			and(
				eq(observation.clubId, clubId),
				among(observation.athleteId, athleteIds),
				among(observation.sessionId, sessionIds),
				among(observation.kind, ['note', 'quality']),
				eq(observation.isVoid, false),
				notExists(
					db
						.select({ one: sql`1` })
						.from(later)
						.where(and(eq(later.clubId, clubId), eq(later.replacesId, observation.id))),
				),
			),
		)
		.orderBy(observation.deviceTime)
	return rows.flatMap(({ sessionId, athleteId, drillId, kind, value }): DrillNote[] => {
		const said = value as { text?: string; fault?: string; faults?: string[] }
		const texts = kind === 'note' ? [said.text] : [...(said.faults ?? []), ...(said.fault ? [said.fault] : [])]
		return athleteId === null || drillId === null
			? []
			: texts.flatMap((text) => (text ? [{ sessionId, athleteId, drillId, text }] : []))
	})
}

/** A sprint that was the first rep of an entry. */
export interface FirstRep {
	athleteId: string
	sessionId: string
	entryId: string
	start: string | null
	/** What the rep may be compared with. */
	key: string | null
	method: Method
	splits: { distanceM: number; timeS: number }[]
}
/** The first sprint of each athlete on each entry of some sessions; index `mark_times`. */
export async function firstRepsIn(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	sessionIds: string[],
): Promise<FirstRep[]> {
	if (athleteIds.length === 0 || sessionIds.length === 0) return []
	const later = alias(mark, 'later')
	const rows = await db
		.select({
			athleteId: mark.athleteId,
			sessionId: mark.sessionId,
			entryId: mark.entryId,
			start: mark.start,
			key: mark.markKey,
			method: mark.method,
			value: mark.value,
		})
		// Left to itself the optimizer reads all that was logged in those sessions, four times as long.
		.from(mark, { forceIndex: 'mark_times' })
		.where(
			and(
				eq(mark.clubId, clubId),
				among(mark.athleteId, athleteIds),
				eq(mark.kind, 'sprint'),
				eq(mark.isVoid, false),
				eq(mark.setNo, 1),
				eq(mark.repNo, 1),
				eq(mark.setAside, false),
				among(mark.sessionId, sessionIds),
				notExists(
					db
						.select({ one: sql`1` })
						.from(later)
						.where(and(eq(later.clubId, clubId), eq(later.replacesId, mark.id))),
				),
			),
		)
	return rows.map((row) => ({
		athleteId: row.athleteId,
		sessionId: row.sessionId,
		entryId: row.entryId,
		start: row.start,
		key: row.key,
		method: row.method as Method,
		splits: (row.value as { splits: FirstRep['splits'] }).splits,
	}))
}

export type HeldRow = typeof heldCorrection.$inferSelect
/** Corrections that wait for some events, or that stand among the held ones themselves. Index `held_by_target`. */
export async function heldAbout({ db, clubId }: ClubScope, ids: string[]): Promise<HeldRow[]> {
	if (ids.length === 0) return []
	return db
		.select()
		.from(heldCorrection)
		.where(
			and(eq(heldCorrection.clubId, clubId), or(among(heldCorrection.replacesId, ids), among(heldCorrection.id, ids))),
		)
}
export async function holdCorrections({ db, clubId }: ClubScope, rows: Omit<HeldRow, 'clubId'>[]): Promise<void> {
	if (rows.length > 0)
		await db
			.insert(heldCorrection)
			.values(rows.map((row) => ({ ...row, clubId })))
			.onDuplicateKeyUpdate({ set: { refused: sql`values(refused)` } })
}
export async function releaseCorrections({ db, clubId }: ClubScope, ids: string[]): Promise<void> {
	if (ids.length > 0)
		await db.delete(heldCorrection).where(and(eq(heldCorrection.clubId, clubId), among(heldCorrection.id, ids)))
}
/** What of a session was not taken or still waits, with who sent it; newest first. Index `held_by_session`. */
export async function heldOfSession(
	{ db, clubId }: ClubScope,
	sessionId: string,
): Promise<(HeldRow & { author: string })[]> {
	const rows = await db
		.select({ held: heldCorrection, author: person.name })
		.from(heldCorrection)
		.innerJoin(person, and(eq(person.clubId, heldCorrection.clubId), eq(person.id, heldCorrection.authorId)))
		.where(and(eq(heldCorrection.clubId, clubId), eq(heldCorrection.sessionId, sessionId)))
		.orderBy(desc(heldCorrection.receivedAt))
	return rows.map(({ held, author }) => ({ ...held, author }))
}
