import { addTo } from '../../core/lists/group-by'
import { and, asc, eq, exists, isNull, notInArray, or, sql } from 'drizzle-orm'
import type { Away } from '../../core/calendar/away'
import type { AthleteType, Family, Level } from '../../core/vocabulary/words'
import type { LadderState } from '../../core/judge/types'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { athlete, athleteIdentity } from '../schema/people'
import { session, sessionAthlete } from '../schema/sessions'
import { athleteLevel, ladderState, squad, squadMember } from '../schema/squads'

export type SquadRow = typeof squad.$inferSelect

export async function listSquads({ db, clubId }: ClubScope): Promise<SquadRow[]> {
	return db.select().from(squad).where(eq(squad.clubId, clubId)).orderBy(asc(squad.name))
}
export async function readSquad({ db, clubId }: ClubScope, id: string): Promise<SquadRow | null> {
	const [row] = await db
		.select()
		.from(squad)
		.where(and(eq(squad.clubId, clubId), eq(squad.id, id)))
	return row ?? null
}
export async function insertSquad({ db, clubId }: ClubScope, row: Omit<typeof squad.$inferInsert, 'clubId'>) {
	await db.insert(squad).values({ ...row, clubId })
}
export async function updateSquad(
	{ db, clubId }: ClubScope,
	id: string,
	change: Partial<Omit<SquadRow, 'id' | 'clubId'>>,
) {
	await db
		.update(squad)
		.set(change)
		.where(and(eq(squad.clubId, clubId), eq(squad.id, id)))
}
export async function updateAthleteMass({ db, clubId }: ClubScope, id: string, massKg: number | null) {
	await db
		.update(athlete)
		.set({ massKg })
		.where(and(eq(athlete.clubId, clubId), eq(athlete.id, id)))
}
export async function updateIdentity(
	{ db, clubId }: ClubScope,
	athleteId: string,
	change: { name: string; birthDate: string | null },
) {
	await db
		.update(athleteIdentity)
		.set(change)
		.where(and(eq(athleteIdentity.clubId, clubId), eq(athleteIdentity.athleteId, athleteId)))
}
export async function updateAthleteType({ db, clubId }: ClubScope, id: string, type: AthleteType | null) {
	await db
		.update(athlete)
		.set({ type })
		.where(and(eq(athlete.clubId, clubId), eq(athlete.id, id)))
}
/** How some athletes are built, those whom anything was said of; for who plans, and nobody else. */
export async function typesOf({ db, clubId }: ClubScope, ids: string[]): Promise<Map<string, AthleteType>> {
	if (ids.length === 0) return new Map()
	const rows = await db
		.select({ id: athlete.id, type: athlete.type })
		.from(athlete)
		.where(and(eq(athlete.clubId, clubId), among(athlete.id, ids)))
	return new Map(rows.flatMap(({ id, type }) => (type === null ? [] : [[id, type] as const])))
}
/** Squads of some athletes, by athlete. */
export async function squadsOf({ db, clubId }: ClubScope, athleteIds: string[]): Promise<Map<string, SquadRow[]>> {
	if (athleteIds.length === 0) return new Map()
	const rows = await db
		.select({ athleteId: squadMember.athleteId, squad })
		.from(squadMember)
		.innerJoin(squad, and(eq(squad.clubId, squadMember.clubId), eq(squad.id, squadMember.squadId)))
		.where(and(eq(squadMember.clubId, clubId), among(squadMember.athleteId, athleteIds)))
	const byAthlete = new Map<string, SquadRow[]>()
	for (const row of rows) addTo(byAthlete, row.athleteId, row.squad)
	return byAthlete
}
export async function addMembers({ db, clubId }: ClubScope, squadId: string, athleteIds: string[], since: string) {
	if (athleteIds.length === 0) return
	await db
		.insert(squadMember)
		.values(athleteIds.map((athleteId) => ({ clubId, squadId, athleteId, since })))
		.onDuplicateKeyUpdate({ set: { athleteId: sql`athlete_id` } })
}

export interface AthleteRow {
	id: string
	name: string
	birthDate: string | null
	legLengthM: number | null
	massKg: number | null
	away: Away | null
}
const athleteColumns = {
	id: athlete.id,
	name: athleteIdentity.name,
	birthDate: athleteIdentity.birthDate,
	legLengthMm: athlete.legLengthMm,
	massKg: athlete.massKg,
	awayFrom: athlete.awayFrom,
	awayUntil: athlete.awayUntil,
}
const identityJoin = and(eq(athleteIdentity.clubId, athlete.clubId), eq(athleteIdentity.athleteId, athlete.id))
const toAthlete = (row: {
	id: string
	name: string
	birthDate: string | null
	legLengthMm: number | null
	massKg: number | null
	awayFrom: string | null
	awayUntil: string | null
}): AthleteRow => ({
	id: row.id,
	name: row.name,
	birthDate: row.birthDate,
	legLengthM: row.legLengthMm === null ? null : row.legLengthMm / 1000,
	massKg: row.massKg,
	away: row.awayFrom === null ? null : { from: row.awayFrom, until: row.awayUntil },
})

/** By the primary key, in the order of the names. */
export async function readAthletes({ db, clubId }: ClubScope, ids: string[]): Promise<AthleteRow[]> {
	if (ids.length === 0) return []
	const rows = await db
		.select(athleteColumns)
		.from(athlete)
		.innerJoin(athleteIdentity, identityJoin)
		.where(and(eq(athlete.clubId, clubId), among(athlete.id, ids)))
		.orderBy(asc(athleteIdentity.name))
	return rows.map(toAthlete)
}

/** Somebody is in these squads from now on, and in no other. */
export async function writeSquads({ db, clubId }: ClubScope, athleteId: string, squadIds: string[], since: string) {
	const own = and(eq(squadMember.clubId, clubId), eq(squadMember.athleteId, athleteId))
	await db.delete(squadMember).where(squadIds.length === 0 ? own : and(own, notInArray(squadMember.squadId, squadIds)))
	for (const squadId of squadIds) await addMembers({ db, clubId }, squadId, [athleteId], since)
}
export async function writeAway({ db, clubId }: ClubScope, id: string, away: Away | null) {
	await db
		.update(athlete)
		.set({ awayFrom: away?.from ?? null, awayUntil: away?.until ?? null })
		.where(and(eq(athlete.clubId, clubId), eq(athlete.id, id)))
}

/** Everybody of the club, in a squad or in none, in the order of the names. */
export async function listAthletes({ db, clubId }: ClubScope): Promise<AthleteRow[]> {
	const rows = await db
		.select(athleteColumns)
		.from(athlete)
		.innerJoin(athleteIdentity, identityJoin)
		.where(and(eq(athlete.clubId, clubId), isNull(athlete.erasedAt)))
		.orderBy(asc(athleteIdentity.name))
	return rows.map(toAthlete)
}

/** Who may come to a session: whoever is in a squad, and whoever was down for a session in the days before one. */
export async function listComing({ db, clubId }: ClubScope, day: string, daysBack: number): Promise<AthleteRow[]> {
	const rows = await db
		.select(athleteColumns)
		.from(athlete)
		.innerJoin(athleteIdentity, identityJoin)
		.where(
			and(
				eq(athlete.clubId, clubId),
				isNull(athlete.erasedAt),
				or(
					exists(
						db
							.select({ one: sql`1` })
							.from(squadMember)
							.where(and(eq(squadMember.clubId, clubId), eq(squadMember.athleteId, athlete.id))),
					),
					exists(
						db
							.select({ one: sql`1` })
							.from(sessionAthlete)
							.innerJoin(
								session,
								and(eq(session.clubId, sessionAthlete.clubId), eq(session.id, sessionAthlete.sessionId)),
							)
							.where(
								and(
									eq(sessionAthlete.clubId, clubId),
									eq(sessionAthlete.athleteId, athlete.id),
									sql`${session.day} between date_sub(${day}, interval ${daysBack} day) and ${day}`,
								),
							),
					),
				),
			),
		)
		.orderBy(asc(athleteIdentity.name))
	return rows.map(toAthlete)
}

/** Everybody of the club with the squads they are in; by the primary key of `squad_member`. */
export async function listMembers({ db, clubId }: ClubScope): Promise<(AthleteRow & { squadId: string })[]> {
	const rows = await db
		.select({ ...athleteColumns, squadId: squadMember.squadId })
		.from(squadMember)
		.innerJoin(athlete, and(eq(athlete.clubId, squadMember.clubId), eq(athlete.id, squadMember.athleteId)))
		.innerJoin(athleteIdentity, identityJoin)
		.where(eq(squadMember.clubId, clubId))
		.orderBy(asc(athleteIdentity.name))
	return rows.map((row) => ({ ...toAthlete(row), squadId: row.squadId }))
}

/** Levels by athlete and family; what has no row is level 1. */
export async function readLevels(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
): Promise<(athleteId: string, family: Family) => Level> {
	const rows =
		athleteIds.length === 0
			? []
			: await db
					.select()
					.from(athleteLevel)
					.where(and(eq(athleteLevel.clubId, clubId), among(athleteLevel.athleteId, athleteIds)))
	const byKey = new Map(rows.map((row) => [`${row.athleteId}/${row.family}`, row.level]))
	return (athleteId, family) => byKey.get(`${athleteId}/${family}`) ?? 1
}
export async function writeLevel({ db, clubId }: ClubScope, athleteId: string, family: Family, level: Level) {
	await db.insert(athleteLevel).values({ clubId, athleteId, family, level }).onDuplicateKeyUpdate({ set: { level } })
}

/** States by athlete and ladder; `forUpdate` locks the rows until the transaction ends. */
export async function readStates(
	{ db, clubId }: ClubScope,
	athleteIds: string[],
	forUpdate = false,
): Promise<Map<string, { state: LadderState; asOf: string; trainedOn: string | null }>> {
	if (athleteIds.length === 0) return new Map()
	const query = db
		.select()
		.from(ladderState)
		.where(and(eq(ladderState.clubId, clubId), among(ladderState.athleteId, athleteIds)))
	const rows = forUpdate ? await query.for('update') : await query
	return new Map(
		rows.map(({ athleteId, ladderId, state, asOf, trainedOn }) => [
			stateKey(athleteId, ladderId),
			{ state, asOf, trainedOn },
		]),
	)
}
export const stateKey = (athleteId: string, ladderId: string): string => `${athleteId}/${ladderId}`

export interface WrittenState {
	athleteId: string
	state: LadderState
	asOf: string
	/** With a placing by hand: the day last trained. The first that was said stands, so that no later placing shortens time away. */
	trainedOn?: string | null
}
/** Writes states, of one athlete and ladder the last of them. */
export async function writeStates({ db, clubId }: ClubScope, states: readonly WrittenState[], updatedAt: Date) {
	if (states.length === 0) return
	await db
		.insert(ladderState)
		.values(
			states.map(({ athleteId, state, asOf, trainedOn = null }) => ({
				clubId,
				athleteId,
				ladderId: state.ladderId,
				state,
				asOf,
				updatedAt,
				trainedOn,
			})),
		)
		.onDuplicateKeyUpdate({
			set: {
				state: sql`values(state)`,
				asOf: sql`values(as_of)`,
				updatedAt: sql`values(updated_at)`,
				trainedOn: sql`coalesce(${ladderState.trainedOn}, values(trained_on))`,
			},
		})
}

/** Writes one. */
export const writeState = (
	scope: ClubScope,
	athleteId: string,
	state: LadderState,
	asOf: string,
	updatedAt: Date,
	trainedOn: string | null = null,
): Promise<void> => writeStates(scope, [{ athleteId, state, asOf, trainedOn }], updatedAt)
