import { and, count, desc, eq, gt, inArray, isNull, lt } from 'drizzle-orm'
import type { Units } from '../../core/words/units'
import type { ClubScope, Queryable } from '../connect'
import { type Role, athlete, athleteIdentity, club, invitation, person, signIn, signInFailure } from '../schema/people'

/** Clubs there are; with an address, clubs where somebody signs in with it. The only queries that stand outside a club. */
export async function clubCount(db: Queryable, email: string | null): Promise<number> {
	const [row] =
		email === null
			? await db.select({ n: count() }).from(club)
			: await db.select({ n: count() }).from(person).where(eq(person.email, email))
	return row?.n ?? 0
}

/** By the unique key `person_email`. */
export async function personByEmail(db: Queryable, email: string) {
	const [row] = await db.select().from(person).where(eq(person.email, email))
	return row ?? null
}

/** The person behind a cookie, with the club; null when the session has ended. */
export async function personBySignIn(db: Queryable, tokenHash: string, now: Date) {
	const [row] = await db
		.select({
			clubId: person.clubId,
			personId: person.id,
			name: person.name,
			role: person.role,
			athleteId: person.athleteId,
			units: person.units,
			clubName: club.name,
			timeZone: club.timeZone,
		})
		.from(signIn)
		.innerJoin(person, and(eq(person.clubId, signIn.clubId), eq(person.id, signIn.personId)))
		.innerJoin(club, eq(club.id, person.clubId))
		.where(and(eq(signIn.tokenHash, tokenHash), gt(signIn.expiresAt, now), isNull(person.leftAt)))
	return row ?? null
}

export async function insertSignIn(db: Queryable, row: typeof signIn.$inferInsert) {
	await db.delete(signIn).where(lt(signIn.expiresAt, row.createdAt))
	await db.insert(signIn).values(row)
}
export async function deleteSignIn(db: Queryable, tokenHash: string) {
	await db.delete(signIn).where(eq(signIn.tokenHash, tokenHash))
}

export async function readFailures(db: Queryable, keyHash: string) {
	const [row] = await db.select().from(signInFailure).where(eq(signInFailure.keyHash, keyHash))
	return row ?? null
}
export async function writeFailures(db: Queryable, keyHash: string, failures: number, lastFailedAt: Date) {
	if (failures === 0) await db.delete(signInFailure).where(eq(signInFailure.keyHash, keyHash))
	else
		await db
			.insert(signInFailure)
			.values({ keyHash, failures, lastFailedAt })
			.onDuplicateKeyUpdate({ set: { failures, lastFailedAt } })
}

export async function invitationByToken(db: Queryable, tokenHash: string, now: Date) {
	const [row] = await db
		.select({ invitation, clubName: club.name })
		.from(invitation)
		.innerJoin(club, eq(club.id, invitation.clubId))
		.where(and(eq(invitation.tokenHash, tokenHash), isNull(invitation.usedAt), gt(invitation.expiresAt, now)))
	return row ?? null
}

export async function insertClub(db: Queryable, row: typeof club.$inferInsert) {
	await db.insert(club).values(row)
}
export async function insertPerson({ db, clubId }: ClubScope, row: Omit<typeof person.$inferInsert, 'clubId'>) {
	await db.insert(person).values({ ...row, clubId })
}
export async function insertInvitation({ db, clubId }: ClubScope, row: Omit<typeof invitation.$inferInsert, 'clubId'>) {
	await db.insert(invitation).values({ ...row, clubId })
}
/** True when this call used it up: two people with one link cannot both join. */
export async function useInvitation({ db, clubId }: ClubScope, id: string, now: Date): Promise<boolean> {
	const [result] = await db
		.update(invitation)
		.set({ usedAt: now })
		.where(and(eq(invitation.clubId, clubId), eq(invitation.id, id), isNull(invitation.usedAt)))
	return result.affectedRows === 1
}

export interface PersonRow {
	id: string
	name: string
	email: string
	role: Role
	/** Of whom, where they are an athlete or answer for one. */
	athleteId: string | null
	/** Null while they are there. */
	leftAt: Date | null
}
export async function listPeople({ db, clubId }: ClubScope): Promise<PersonRow[]> {
	return db
		.select({
			id: person.id,
			name: person.name,
			email: person.email,
			role: person.role,
			athleteId: person.athleteId,
			leftAt: person.leftAt,
		})
		.from(person)
		.where(eq(person.clubId, clubId))
		.orderBy(person.name)
}
export async function updatePerson(
	{ db, clubId }: ClubScope,
	id: string,
	change: Partial<{ name: string; role: Role; leftAt: Date | null; units: Units }>,
) {
	await db
		.update(person)
		.set(change)
		.where(and(eq(person.clubId, clubId), eq(person.id, id)))
}
/** Ends everything somebody is signed in on. */
export async function deleteSignInsOf({ db, clubId }: ClubScope, personId: string) {
	await db.delete(signIn).where(and(eq(signIn.clubId, clubId), eq(signIn.personId, personId)))
}
/** Links that were made and not used, and have not run out, newest first. */
export async function openInvitations({ db, clubId }: ClubScope, now: Date) {
	return db
		.select({
			id: invitation.id,
			role: invitation.role,
			athleteId: invitation.athleteId,
			expiresAt: invitation.expiresAt,
		})
		.from(invitation)
		.where(and(eq(invitation.clubId, clubId), isNull(invitation.usedAt), gt(invitation.expiresAt, now)))
		.orderBy(desc(invitation.createdAt))
}
/** The club itself; whoever changes people or club next waits. */
export async function lockClub({ db, clubId }: ClubScope) {
	const [row] = await db.select().from(club).where(eq(club.id, clubId)).for('update')
	return row ?? null
}
export async function updateClub({ db, clubId }: ClubScope, change: { name: string; timeZone: string }) {
	await db.update(club).set(change).where(eq(club.id, clubId))
}

export interface NewAthlete {
	id: string
	name: string
	birthDate: string | null
	legLengthMm: number | null
	massKg?: number | null
	emergencyContact?: string | null
	createdAt: Date
}
export async function insertAthletes({ db, clubId }: ClubScope, rows: NewAthlete[]) {
	if (rows.length === 0) return
	await db.insert(athlete).values(
		rows.map(({ id, legLengthMm, massKg, createdAt }) => ({
			clubId,
			id,
			legLengthMm,
			massKg: massKg ?? null,
			createdAt,
		})),
	)
	await db.insert(athleteIdentity).values(
		rows.map(({ id, name, birthDate, emergencyContact }) => ({
			clubId,
			athleteId: id,
			name,
			birthDate,
			emergencyContact: emergencyContact ?? null,
		})),
	)
}

/** Who wrote something, as far as it decides what may be done with it. */
export interface Author {
	personId: string
	name: string
	role: Role
	athleteId: string | null
}
export async function authorsById({ db, clubId }: ClubScope, ids: string[]): Promise<Map<string, Author>> {
	if (ids.length === 0) return new Map()
	const rows = await db
		.select({ personId: person.id, name: person.name, role: person.role, athleteId: person.athleteId })
		.from(person)
		.where(and(eq(person.clubId, clubId), inArray(person.id, ids)))
	return new Map(rows.map((row) => [row.personId, row]))
}
