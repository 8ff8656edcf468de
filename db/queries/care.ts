import { type SQL, and, asc, desc, eq, gte, inArray, isNull, lte, ne, or, sql } from 'drizzle-orm'
import type { CareRecord } from '../../core/judge/gather-input'
import { BODY_KINDS } from '../../core/vocabulary/event-kinds'
import { EVERYTHING, type Family } from '../../core/vocabulary/words'
import type { OutsideLoad } from '../../core/judge/outside-load'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { acknowledgement, careEvent, careRecord, ladderMove, outsideLoad, workDay } from '../schema/care'
import { heldCorrection, observation } from '../schema/log'
import { entry, line, session, sessionAthlete } from '../schema/sessions'
import { clearance } from '../schema/verdicts'

export type CareRow = typeof careRecord.$inferSelect
export type OutsideRow = typeof outsideLoad.$inferSelect

/** All records of some athletes, newest first; index `care_by_athlete`. */
export async function careOf({ db, clubId }: ClubScope, athleteIds: string[]): Promise<CareRow[]> {
	if (athleteIds.length === 0) return []
	return db
		.select()
		.from(careRecord)
		.where(and(eq(careRecord.clubId, clubId), among(careRecord.athleteId, athleteIds)))
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
		return {
			...span,
			kind: 'restriction',
			region: row.region,
			pattern: row.pattern,
			...(row.drillId ? { drillId: row.drillId } : {}),
			setBy: row.setBy,
		}
	const region = row.region === EVERYTHING ? null : row.region
	if (row.kind === 'worry' && row.drillId && region) return { ...span, kind: 'worry', drillId: row.drillId, region }
	if (row.kind === 'known' && region) return { ...span, kind: 'known', region }
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
				among(outsideLoad.athleteId, athleteIds),
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
	hardJumping,
	lifts,
}: OutsideRow): OutsideLoad => ({
	kind,
	day,
	startTime,
	minutes,
	rpe,
	hardRunning,
	hardCutting,
	...(hardJumping ? { hardJumping } : {}),
	...(lifts ? { lifts } : {}),
})
/** The same match entered twice is one: the later entry stands. */
export async function writeOutside({ db, clubId }: ClubScope, rows: Omit<typeof outsideLoad.$inferInsert, 'clubId'>[]) {
	for (const row of rows) {
		const { minutes, rpe, hardRunning, hardCutting, hardJumping, lifts, isVoid, recordedBy, recordedAt } = row
		await db
			.insert(outsideLoad)
			.values({ ...row, clubId })
			.onDuplicateKeyUpdate({
				set: { minutes, rpe, hardRunning, hardCutting, hardJumping, lifts, isVoid, recordedBy, recordedAt },
			})
	}
}
/** @param by whose entries alone may be taken back; anybody's where it is null */
export async function voidOutside(
	{ db, clubId }: ClubScope,
	id: string,
	athleteId: string,
	by: string | null,
): Promise<boolean> {
	const [result] = await db
		.update(outsideLoad)
		.set({ isVoid: true })
		.where(
			and(
				eq(outsideLoad.clubId, clubId),
				eq(outsideLoad.id, id),
				eq(outsideLoad.athleteId, athleteId),
				by === null ? undefined : eq(outsideLoad.recordedBy, by),
			),
		)
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

/** What was said away from a log, of some athletes; index `care_event_by_athlete`. */
export async function careEventsOf({ db, clubId }: ClubScope, athleteIds: string[]) {
	if (athleteIds.length === 0) return []
	return db
		.select()
		.from(careEvent)
		.where(and(eq(careEvent.clubId, clubId), among(careEvent.athleteId, athleteIds), eq(careEvent.isVoid, false)))
}
export type CareEventRow = typeof careEvent.$inferSelect
/** What was said of one athlete at the desk since a day, what was taken back too; index `care_event_by_athlete`. */
export async function deskReportsOf({ db, clubId }: ClubScope, athleteId: string, since: string) {
	return db
		.select()
		.from(careEvent)
		.where(and(eq(careEvent.clubId, clubId), eq(careEvent.athleteId, athleteId), gte(careEvent.day, since)))
}
/** One of them, and whoever puts it right next waits. */
export async function deskReport({ db, clubId }: ClubScope, id: string): Promise<CareEventRow | null> {
	const [row] = await db
		.select()
		.from(careEvent)
		.where(and(eq(careEvent.clubId, clubId), eq(careEvent.id, id)))
		.for('update')
	return row ?? null
}
export async function withdrawCareEvent(
	{ db, clubId }: ClubScope,
	id: string,
	end: Pick<CareEventRow, 'isVoid' | 'withdrawnBy' | 'withdrawnAt' | 'withdrawnReason'>,
) {
	await db
		.update(careEvent)
		.set(end)
		.where(and(eq(careEvent.clubId, clubId), eq(careEvent.id, id)))
}
export async function insertCareEvent({ db, clubId }: ClubScope, row: Omit<typeof careEvent.$inferInsert, 'clubId'>) {
	await db.insert(careEvent).values({ ...row, clubId })
}
/** Clearances of some athletes. */
export async function clearancesOfAll({ db, clubId }: ClubScope, athleteIds: string[]) {
	if (athleteIds.length === 0) return []
	return db
		.select()
		.from(clearance)
		.where(and(eq(clearance.clubId, clubId), among(clearance.athleteId, athleteIds)))
}

/** What the fold of closures reads of the log. */
const FOLDED = ['pain', 'head', 'chest', 'quiet'] as const
type FoldedKind = (typeof FOLDED)[number]
type BodyKind = (typeof BODY_KINDS)[number]

/**
 * Reports and answers in the log, of some athletes, with the day of their session; replaced ones too, for the fold,
 * and what moved them to another athlete. Indexes `observation_by_athlete`, `observation_replaces`.
 */
export async function bodyReportsOf<K extends BodyKind = FoldedKind>(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	kinds: readonly K[] = FOLDED as unknown as readonly K[],
) {
	if (athleteIds.length === 0) return []
	// Most rows replace nothing: told of an index or not, the optimizer takes that for many with one value, and reads the club.
	const rows = (which: SQL | undefined, forceIndex: string) =>
		db
			.select({
				id: observation.id,
				athleteId: observation.athleteId,
				replacesId: observation.replacesId,
				void: observation.isVoid,
				kind: observation.kind,
				value: observation.value,
				deviceId: observation.deviceId,
				deviceTime: observation.deviceTime,
				authorId: observation.authorId,
				day: session.day,
			})
			.from(observation, { forceIndex })
			.innerJoin(session, and(eq(session.clubId, observation.clubId), eq(session.id, observation.sessionId)))
			.where(and(eq(observation.clubId, clubId), among(observation.kind, [...kinds]), which))
	const own = await rows(among(observation.athleteId, athleteIds), 'observation_by_athlete')
	if (own.length === 0) return []
	const ids = new Set(own.map((row) => row.id))
	const moved = await rows(among(observation.replacesId, [...ids]), 'observation_replaces')
	return [...own, ...moved.filter((row) => !ids.has(row.id))].map((row) => ({
		...row,
		kind: row.kind as K,
		deviceTime: row.deviceTime.toISOString(),
	}))
}

/** The last day of work of each family before a day, and up to and with it; by the primary key. */
export async function lastWorkOf({ db, clubId }: ClubScope, athleteIds: string[], before: string) {
	if (athleteIds.length === 0) return []
	return db
		.select({
			athleteId: workDay.athleteId,
			family: workDay.family,
			day: sql<string | null>`max(case when ${workDay.day} < ${before} then ${workDay.day} end)`,
			upTo: sql<string>`max(${workDay.day})`,
		})
		.from(workDay)
		.where(and(eq(workDay.clubId, clubId), among(workDay.athleteId, athleteIds), sql`${workDay.day} <= ${before}`))
		.groupBy(workDay.athleteId, workDay.family)
}

const workedBetween = (clubId: string, athleteIds: string[], from: string, to: string) =>
	and(eq(workDay.clubId, clubId), among(workDay.athleteId, athleteIds), sql`${workDay.day} between ${from} and ${to}`)
/** Days on which some athletes worked, of a span with its ends: on a day nothing is known of those after it. */
export async function workDaysBetween({ db, clubId }: ClubScope, athleteIds: string[], from: string, to: string) {
	if (athleteIds.length === 0) return []
	return db
		.selectDistinct({ athleteId: workDay.athleteId, day: workDay.day })
		.from(workDay)
		.where(workedBetween(clubId, athleteIds, from, to))
}

/** What some athletes worked at on the days of a span with its ends. */
export async function familiesWorkedBetween({ db, clubId }: ClubScope, athleteIds: string[], from: string, to: string) {
	if (athleteIds.length === 0) return []
	return db
		.select({ athleteId: workDay.athleteId, family: workDay.family, day: workDay.day })
		.from(workDay)
		.where(workedBetween(clubId, athleteIds, from, to))
}

/**
 * Makes the days of work of some athletes on some days anew from the marks that stand. Its order and indexes are named:
 * right after many rows were written the server knows nothing of them and would read the club for each mark. Both are
 * read as they are committed, not as this transaction found them: another one may log of the same day.
 *
 * @returns whether they are others now
 */
export async function keepWorkDays({ db, clubId }: ClubScope, athleteIds: string[], days: string[]): Promise<boolean> {
	if (athleteIds.length === 0 || days.length === 0) return false
	const those = and(eq(workDay.clubId, clubId), among(workDay.athleteId, athleteIds), among(workDay.day, days))
	// The family of what was done, whichever version of the drill it was.
	const [done] = (await db.execute(sql`select w.athlete_id as athleteId, w.day,
			(select max(json_value(content, '$.family')) from library_document
				where club_id = ${clubId} and kind = 'drill' and id = w.drill_id) as family
		from (select straight_join distinct m.athlete_id, m.drill_id, s.day
			from session s
			join mark m force index (mark_by_session) on m.club_id = s.club_id and m.session_id = s.id
			left join mark r force index (mark_replaces) on r.club_id = m.club_id and r.replaces_id = m.id
			where s.club_id = ${clubId} and s.day in ${days} and m.athlete_id in ${athleteIds}
				and m.kind <> 'missed' and m.is_void = 0 and r.id is null
			lock in share mode) w`)) as unknown as [{ athleteId: string; day: string; family: Family | null }[]]
	const keyOf = ({ athleteId, family, day }: { athleteId: string; family: string; day: string }) =>
		`${athleteId}/${family}/${day}`
	const now = new Map(
		done.flatMap(({ family, ...row }) => (family === null ? [] : [[keyOf({ ...row, family }), { ...row, family }]])),
	)
	const kept = (await db
		.select({ athleteId: workDay.athleteId, family: workDay.family, day: workDay.day })
		.from(workDay)
		.where(those)
		.for('update')) as { athleteId: string; family: Family; day: string }[]
	if (kept.length === now.size && kept.every((row) => now.has(keyOf(row)))) return false
	await db.delete(workDay).where(those)
	if (now.size > 0) await db.insert(workDay).values([...now.values()].map((row) => ({ ...row, clubId })))
	return true
}

/**
 * Adds days of work that new marks show, without looking at what was logged before: nothing new takes one away. Marks that
 * were missed, that correct something or that may have been corrected are no new ones (`keepWorkDays`).
 *
 * @returns whether there is one more now
 */
export async function addWorkDays(
	{ db, clubId }: ClubScope,
	done: readonly { athleteId: string; drillId: string; day: string }[],
): Promise<boolean> {
	if (done.length === 0) return false
	const drillIds = [...new Set(done.map(({ drillId }) => drillId))]
	// Whichever version of the drill it was, as `keepWorkDays` has it.
	const [drills] = (await db.execute(sql`select id, max(json_value(content, '$.family')) as family from library_document
		where club_id = ${clubId} and kind = 'drill' and id in ${drillIds} group by id`)) as unknown as [
		{ id: string; family: Family | null }[],
	]
	const families = new Map(drills.map(({ id, family }) => [id, family]))
	const rows = done.flatMap(({ athleteId, drillId, day }) => {
		const family = families.get(drillId)
		return family ? [{ clubId, athleteId, family, day }] : []
	})
	if (rows.length === 0) return false
	const [result] = await db
		.insert(workDay)
		.values(rows)
		.onDuplicateKeyUpdate({ set: { day: sql`${workDay.day}` } })
	return result.affectedRows > 0
}

/** Days before a day, from another one on, on which sessions nobody has begun ask for a family: work that is to be done. */
export async function plannedWorkBefore({ db, clubId }: ClubScope, athleteIds: string[], from: string, before: string) {
	if (athleteIds.length === 0 || before <= from) return []
	return db
		.selectDistinct({ athleteId: sessionAthlete.athleteId, family: entry.family, day: session.day })
		.from(sessionAthlete)
		.innerJoin(session, and(eq(session.clubId, sessionAthlete.clubId), eq(session.id, sessionAthlete.sessionId)))
		.innerJoin(entry, and(eq(entry.clubId, session.clubId), eq(entry.sessionId, session.id)))
		.where(
			and(
				eq(sessionAthlete.clubId, clubId),
				among(sessionAthlete.athleteId, athleteIds),
				isNull(session.startedAt),
				eq(entry.retired, false),
				sql`${session.day} >= ${from} and ${session.day} < ${before}`,
			),
		)
}

/**
 * The sessions of a span of days in which some athletes wear a weight: where it was done, and where a session nobody has
 * begun asks for it from `today` on.
 */
export async function loadsWornBetween(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	from: string,
	to: string,
	today: string,
) {
	if (athleteIds.length === 0) return []
	return db
		.selectDistinct({
			athleteId: line.athleteId,
			sessionId: session.id,
			day: session.day,
			startTime: session.startTime,
		})
		.from(session)
		.innerJoin(line, and(eq(line.clubId, session.clubId), eq(line.sessionId, session.id)))
		.where(
			and(
				eq(session.clubId, clubId),
				sql`${session.day} between ${from} and ${to}`,
				among(line.athleteId, athleteIds),
				isNull(line.blocked),
				sql`json_value(${line.parameters}, '$.loadG') > 0`,
				or(
					and(
						isNull(session.startedAt),
						eq(line.current, true),
						sql`${session.day} >= ${today}`,
						// Who was taken off a list has lines there that are nobody's.
						sql`exists (select 1 from session_athlete a where a.club_id = ${clubId}
							and a.session_id = ${session.id} and a.athlete_id = ${line.athleteId})`,
					),
					sql`exists (select 1 from mark m left join mark r on r.club_id = m.club_id and r.replaces_id = m.id
						where m.club_id = ${clubId} and m.session_id = ${session.id} and m.athlete_id = ${line.athleteId}
						and m.line_id = ${line.id} and m.kind <> 'missed' and m.is_void = 0 and r.id is null)`,
				),
			),
		)
}

/**
 * Takes away the words typed about somebody's health up to a day; what was said by taps and numbers stays, because rules
 * ask for it. Of a record that is open the words stay: they are why somebody is kept from something.
 */
export async function forgetHealthWords({ db, clubId }: ClubScope, upTo: string): Promise<void> {
	await db
		.update(careEvent)
		.set({ note: '', withdrawnReason: sql`if(${careEvent.withdrawnReason} is null, null, '')` })
		.where(
			and(
				eq(careEvent.clubId, clubId),
				lte(careEvent.day, upTo),
				sql`(${careEvent.note} <> '' or ${careEvent.withdrawnReason} <> '')`,
			),
		)
	await db
		.update(careRecord)
		.set({ note: '' })
		.where(and(eq(careRecord.clubId, clubId), lte(careRecord.endedOn, upTo), ne(careRecord.note, '')))
	const sessions = db
		.select({ id: session.id })
		.from(session)
		.where(and(eq(session.clubId, clubId), lte(session.day, upTo)))
	const kinds: readonly string[] = BODY_KINDS
	await db
		.update(observation)
		.set({ value: sql`json_remove(${observation.value}, '$.note')` })
		.where(
			and(
				eq(observation.clubId, clubId),
				among(observation.kind, kinds),
				inArray(observation.sessionId, sessions),
				sql`json_exists(${observation.value}, '$.note')`,
			),
		)
	await db
		.update(heldCorrection)
		.set({ event: sql`json_remove(${heldCorrection.event}, '$.value.note')` })
		.where(
			and(
				eq(heldCorrection.clubId, clubId),
				inArray(heldCorrection.sessionId, sessions),
				sql`json_value(${heldCorrection.event}, '$.type') = 'observation'`,
				among(sql`json_value(${heldCorrection.event}, '$.kind')`, kinds),
				sql`json_exists(${heldCorrection.event}, '$.value.note')`,
			),
		)
}
