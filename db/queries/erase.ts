import { inArray, and, eq, isNull, ne, notInArray, sql } from 'drizzle-orm'
import type { RowDataPacket } from 'mysql2'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { careEvent, careRecord, ladderMove, outsideLoad, workDay } from '../schema/care'
import { decision, heldCorrection, observation } from '../schema/log'
import { measurement } from '../schema/measurements'
import { athlete, athleteIdentity, deed, invitation, knownDevice, person, signIn } from '../schema/people'
import { takenOff } from '../schema/plan'
import { namedCause, trialAnswer } from '../schema/record'
import { entry, line, session, sessionAthlete } from '../schema/sessions'
import { athleteLevel, ladderState, squadMember } from '../schema/squads'
import { clearance, verdict } from '../schema/verdicts'

/** What stands where a name was. */
export const NAMELESS = 'Somebody erased'
/** Observations that say how a rep was and nothing of a body. */
const OF_REPS = ['quality', 'effort']

/** Who of these was erased; held until the transaction ends, so that nobody is erased between the look and the write. */
export async function erasedAmong({ db, clubId }: ClubScope, ids: string[]): Promise<Set<string>> {
	if (ids.length === 0) return new Set()
	// MariaDB has no FOR SHARE; two batches about one athlete do not wait for each other.
	const [rows] = (await db.execute(
		sql`select id, erased_at is not null as erased from ${athlete} where club_id = ${clubId} and ${among(athlete.id, ids)} lock in share mode`,
	)) as unknown as [{ id: string; erased: number }[]]
	return new Set(rows.flatMap(({ id, erased }) => (erased ? [id] : [])))
}

/**
 * Takes from somebody what makes them somebody: name, birth date, contact and body; everything said of their health; every
 * judgement and every reason that could tell of it; their sign-in and their guardian’s. Marks and what stood on the sheets
 * of past sessions stay, nameless.
 */
export async function eraseAthlete({ db, clubId }: ClubScope, id: string, name: string, now: Date): Promise<void> {
	for (const table of [
		careRecord,
		careEvent,
		clearance,
		decision,
		verdict,
		ladderMove,
		ladderState,
		athleteLevel,
		namedCause,
		trialAnswer,
		outsideLoad,
		workDay,
		measurement,
		squadMember,
	])
		await db.delete(table).where(and(eq(table.clubId, clubId), eq(table.athleteId, id)))
	await db
		.delete(observation)
		.where(and(eq(observation.clubId, clubId), eq(observation.athleteId, id), notInArray(observation.kind, OF_REPS)))
	await db
		.delete(heldCorrection)
		.where(and(eq(heldCorrection.clubId, clubId), sql`json_value(${heldCorrection.event}, '$.athleteId') = ${id}`))
	// Sessions nobody has begun are held without them; what stood on the others tells no reason.
	const ahead = db
		.select({ id: session.id })
		.from(session)
		.where(and(eq(session.clubId, clubId), isNull(session.startedAt)))
	for (const table of [line, sessionAthlete])
		await db
			.delete(table)
			.where(and(eq(table.clubId, clubId), eq(table.athleteId, id), inArray(table.sessionId, ahead)))
	await db
		.update(line)
		.set({ change: null, wouldBe: null, blocked: sql`if(${line.blocked} is null, null, 'no line')` })
		.where(and(eq(line.clubId, clubId), eq(line.athleteId, id)))

	await db.execute(
		sql`update ${entry} set tuning = json_remove(tuning, ${`$.caps."${id}"`}) where club_id = ${clubId} and json_exists(tuning, ${`$.caps."${id}"`})`,
	)
	// What was taken off the calendar and could be brought back holds lines with their reasons.
	await db.execute(sql`delete from ${takenOff} where club_id = ${clubId} and ${takenOff.rows} like ${`%${id}%`}`)

	const people = await db
		.select({ id: person.id })
		.from(person)
		.where(and(eq(person.clubId, clubId), eq(person.athleteId, id)))
	for (const { id: personId } of people) {
		for (const table of [signIn, knownDevice])
			await db.delete(table).where(and(eq(table.clubId, clubId), eq(table.personId, personId)))
		await db
			.update(person)
			.set({ name: NAMELESS, email: `erased-${personId}@invalid`, passwordHash: '-', leftAt: now })
			.where(and(eq(person.clubId, clubId), eq(person.id, personId)))
	}
	await db.delete(invitation).where(and(eq(invitation.clubId, clubId), eq(invitation.athleteId, id)))
	await db
		.update(deed)
		.set({ about: sql`replace(${deed.about}, ${name}, ${NAMELESS})` })
		.where(and(eq(deed.clubId, clubId), ne(deed.about, '')))
	await db
		.update(athleteIdentity)
		.set({ name: NAMELESS, birthDate: null, emergencyContact: null })
		.where(and(eq(athleteIdentity.clubId, clubId), eq(athleteIdentity.athleteId, id)))
	await db
		.update(athlete)
		.set({ erasedAt: now, massKg: null, legLengthMm: null, type: null, awayFrom: null, awayUntil: null })
		.where(and(eq(athlete.clubId, clubId), eq(athlete.id, id)))
}

/** Holds an athlete's row until the transaction ends; false when there is none, or none any more. */
export async function lockAthlete({ db, clubId }: ClubScope, id: string): Promise<boolean> {
	const [row] = await db
		.select({ erasedAt: athlete.erasedAt })
		.from(athlete)
		.where(and(eq(athlete.clubId, clubId), eq(athlete.id, id)))
		.for('update')
	return row !== undefined && row.erasedAt === null
}

/** Rows of every table that are about an athlete, as the database holds them; what the application looks for is written out. */
export async function rowsAbout({ db, clubId }: ClubScope, id: string): Promise<Record<string, RowDataPacket[]>> {
	const [tables] = (await db.execute(
		sql`select distinct table_name as name from information_schema.columns where table_schema = database() and column_name = 'athlete_id' and table_name not in ('invitation', 'person') order by table_name`,
	)) as unknown as [RowDataPacket[]]
	// What is kept compressed is JSON, and comes as text.
	const [packed] = (await db.execute(
		sql`select table_name as tableName, column_name as name from information_schema.columns where table_schema = database() and column_type like '%COMPRESSED%'`,
	)) as unknown as [RowDataPacket[]]
	const found: Record<string, RowDataPacket[]> = {}
	for (const { name } of tables as { name: string }[]) {
		const [rows] = (await db.execute(
			sql`select * from ${sql.identifier(name)} where club_id = ${clubId} and athlete_id = ${id}`,
		)) as unknown as [RowDataPacket[]]
		const texts = packed.filter(({ tableName }) => tableName === name).map((column) => String(column.name))
		for (const row of rows) for (const column of texts) row[column] = JSON.parse(String(row[column]))
		found[name] = rows
	}
	const [own] = (await db.execute(sql`select * from athlete where club_id = ${clubId} and id = ${id}`)) as unknown as [
		RowDataPacket[],
	]
	return { athlete: own, ...found }
}
