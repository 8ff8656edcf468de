import { and, count, desc, eq, gt, isNull, lt, ne, or, sql } from 'drizzle-orm'
import type { Units } from '../../core/words/units'
import { among } from '../among'
import type { ClubScope, Database, Queryable } from '../connect'
import { prepared } from '../prepared'
import {
	type Deed,
	type Role,
	athlete,
	athleteIdentity,
	club,
	deed,
	invitation,
	knownDevice,
	person,
	signIn,
	signInFailure,
} from '../schema/people'

/** Clubs there are; with an address, clubs where somebody signs in with it. The only queries that stand outside a club. */
export async function clubCount(db: Queryable, email: string | null): Promise<number> {
	const [row] =
		email === null
			? await db.select({ n: count() }).from(club)
			: await db.select({ n: count() }).from(person).where(eq(person.email, email))
	return row?.n ?? 0
}

/** Coaches of all clubs who are there: whom a restored installation begins with. */
export async function coachesEverywhere(db: Queryable) {
	return db
		.select({ clubId: person.clubId, clubName: club.name, personId: person.id, name: person.name })
		.from(person)
		.innerJoin(club, eq(club.id, person.clubId))
		.where(and(eq(person.role, 'coach'), isNull(person.leftAt)))
		.orderBy(club.name, person.name)
}

/** By the unique key `person_email`. */
export async function personByEmail(db: Queryable, email: string) {
	const [row] = await db.select().from(person).where(eq(person.email, email))
	return row ?? null
}

/** The person behind a cookie, with the club; null when the session has ended, or nobody used it since `idleSince`. */
export async function personBySignIn(db: Queryable, tokenHash: string, now: Date, idleSince: Date) {
	const [row] = await signedInPerson(db).execute({ tokenHash, now, idleSince })
	return row ?? null
}
const signedInPerson = prepared((db) => {
	const [now, idleSince] = [
		sql.param(sql.placeholder('now'), signIn.expiresAt),
		sql.param(sql.placeholder('idleSince'), signIn.seenAt),
	]
	return db
		.select({
			clubId: person.clubId,
			personId: person.id,
			name: person.name,
			role: person.role,
			athleteId: person.athleteId,
			units: person.units,
			clubName: club.name,
			timeZone: club.timeZone,
			seenAt: signIn.seenAt,
		})
		.from(signIn)
		.innerJoin(person, and(eq(person.clubId, signIn.clubId), eq(person.id, signIn.personId)))
		.innerJoin(club, eq(club.id, person.clubId))
		.where(
			and(
				eq(signIn.tokenHash, sql.placeholder('tokenHash')),
				gt(signIn.expiresAt, now),
				or(gt(signIn.seenAt, idleSince), and(isNull(signIn.seenAt), gt(signIn.createdAt, idleSince))),
				isNull(person.leftAt),
			),
		)
		.prepare()
})

export async function insertSignIn(db: Queryable, row: typeof signIn.$inferInsert) {
	await db.delete(signIn).where(lt(signIn.expiresAt, row.createdAt))
	await db.insert(signIn).values(row)
}
export async function noteSeen(db: Queryable, tokenHash: string, now: Date) {
	await db.update(signIn).set({ seenAt: now }).where(eq(signIn.tokenHash, tokenHash))
}
/** Whether there is one, used lately or not. */
export async function hasSignIn(db: Queryable, tokenHash: string): Promise<boolean> {
	const rows = await db.select({ one: sql`1` }).from(signIn).where(eq(signIn.tokenHash, tokenHash)).limit(1)
	return rows.length > 0
}
export async function deleteSignIn(db: Queryable, tokenHash: string) {
	await db.delete(signIn).where(eq(signIn.tokenHash, tokenHash))
}

/** What failed a day ago says nothing of today. */
const FORGOTTEN_AFTER_MS = 86_400_000
/**
 * Counts a try before it is made, one after the other whoever makes them at once: what is read is what this try was
 * the last of.
 *
 * @param mayTry whether one more may be made after so many that failed
 * @returns what stood before; the try is only counted where it may be made
 */
export async function takeTry(
	db: Database,
	keyHash: string,
	now: Date,
	mayTry: (failures: number, lastFailedAt: Date) => boolean,
): Promise<{ taken: boolean; failures: number; lastFailedAt: Date }> {
	await db.insert(signInFailure).ignore().values({ keyHash, failures: 0, lastFailedAt: now })
	return db.transaction(async (tx) => {
		const [row] = await tx.select().from(signInFailure).where(eq(signInFailure.keyHash, keyHash)).for('update')
		const { failures, lastFailedAt } =
			row && now.getTime() - row.lastFailedAt.getTime() < FORGOTTEN_AFTER_MS ? row : { failures: 0, lastFailedAt: now }
		const taken = failures === 0 || mayTry(failures, lastFailedAt)
		if (taken)
			await tx
				.insert(signInFailure)
				.values({ keyHash, failures: 1, lastFailedAt: now })
				.onDuplicateKeyUpdate({ set: { failures: failures + 1, lastFailedAt: now } })
		return { taken, failures, lastFailedAt }
	})
}
/** The try was right: what failed before it no longer counts. */
export async function forgetTries(db: Queryable, keyHash: string) {
	await db.delete(signInFailure).where(eq(signInFailure.keyHash, keyHash))
}
/** The try was right, those of others from the same place are not. */
export async function giveTryBack(db: Queryable, keyHash: string) {
	await db
		.update(signInFailure)
		.set({ failures: sql`greatest(0, ${signInFailure.failures} - 1)` })
		.where(eq(signInFailure.keyHash, keyHash))
}

export async function isKnownDevice(db: Queryable, tokenHash: string, personId: string): Promise<boolean> {
	const [row] = await db
		.select({ personId: knownDevice.personId })
		.from(knownDevice)
		.where(and(eq(knownDevice.tokenHash, tokenHash), eq(knownDevice.personId, personId)))
	return row !== undefined
}
export async function insertKnownDevice(db: Queryable, row: typeof knownDevice.$inferInsert) {
	await db.insert(knownDevice).ignore().values(row)
}

/** What somebody is signed in on and still may use, newest first. */
export async function signInsOf({ db, clubId }: ClubScope, personId: string, now: Date, idleSince: Date) {
	return db
		.select()
		.from(signIn)
		.where(
			and(
				eq(signIn.clubId, clubId),
				eq(signIn.personId, personId),
				gt(signIn.expiresAt, now),
				or(gt(signIn.seenAt, idleSince), and(isNull(signIn.seenAt), gt(signIn.createdAt, idleSince))),
			),
		)
		.orderBy(desc(signIn.createdAt))
}
/** Ends what somebody is signed in on but for one; browsers that were known are strangers again. */
export async function deleteOtherSignIns({ db, clubId }: ClubScope, personId: string, tokenHash: string) {
	const own = and(eq(signIn.clubId, clubId), eq(signIn.personId, personId))
	await db.delete(signIn).where(and(own, ne(signIn.tokenHash, tokenHash)))
	await db.delete(knownDevice).where(and(eq(knownDevice.clubId, clubId), eq(knownDevice.personId, personId)))
}
export async function updatePassword({ db, clubId }: ClubScope, personId: string, passwordHash: string) {
	await db
		.update(person)
		.set({ passwordHash })
		.where(and(eq(person.clubId, clubId), eq(person.id, personId)))
}
export async function passwordHashOf({ db, clubId }: ClubScope, personId: string): Promise<string | null> {
	const [row] = await db
		.select({ passwordHash: person.passwordHash })
		.from(person)
		.where(and(eq(person.clubId, clubId), eq(person.id, personId)))
	return row?.passwordHash ?? null
}

/** Writes down who did what; rows are never changed. @param about whom or what, by name, and never of anybody's health */
export async function writeDeed(
	{ db, clubId }: ClubScope,
	one: { id: string; at: Date; personId: string; what: Deed; about?: string },
) {
	await db.insert(deed).values({ ...one, about: (one.about ?? '').slice(0, 200), clubId })
}
export async function listDeeds({ db, clubId }: ClubScope, most: number) {
	return db
		.select({ id: deed.id, at: deed.at, what: deed.what, about: deed.about, by: person.name })
		.from(deed)
		.leftJoin(person, and(eq(person.clubId, deed.clubId), eq(person.id, deed.personId)))
		.where(eq(deed.clubId, clubId))
		.orderBy(desc(deed.at), desc(deed.id))
		.limit(most)
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

/** Links for a new password of somebody that are not used yet end. */
export async function endPasswordLinks({ db, clubId }: ClubScope, personId: string, now: Date) {
	await db
		.update(invitation)
		.set({ usedAt: now })
		.where(and(eq(invitation.clubId, clubId), eq(invitation.personId, personId), isNull(invitation.usedAt)))
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
		.where(
			and(
				eq(invitation.clubId, clubId),
				isNull(invitation.usedAt),
				isNull(invitation.personId),
				gt(invitation.expiresAt, now),
			),
		)
		.orderBy(desc(invitation.createdAt))
}
export async function readClub({ db, clubId }: ClubScope) {
	const [row] = await db.select().from(club).where(eq(club.id, clubId))
	if (!row) throw new Error('the club of somebody who is signed in is not there')
	return row
}
export const listClubs = (db: Queryable) => db.select().from(club)
/** The club itself; whoever changes people or club next waits. */
export async function lockClub({ db, clubId }: ClubScope) {
	const [row] = await db.select().from(club).where(eq(club.id, clubId)).for('update')
	return row ?? null
}
export async function updateClub({ db, clubId }: ClubScope, change: Partial<typeof club.$inferInsert>) {
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
		.where(and(eq(person.clubId, clubId), among(person.id, ids)))
	return new Map(rows.map((row) => [row.personId, row]))
}
