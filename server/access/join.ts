import { v7 as newId } from 'uuid'
import { ageInYears } from '../../core/calendar/days'
import { DUPLICATE_KEY, type ClubScope, errorNumber, inTransaction } from '../../db/connect'
import { insertClub, insertInvitation, insertPerson, invitationByToken, useInvitation } from '../../db/queries/clubs'
import { installLibrary } from '../../db/queries/library'
import { readAthletes } from '../../db/queries/squads'
import { OF_ONE_ATHLETE, ROLES, type Role } from '../../db/schema/people'
import { database } from '../database'
import { hashPassword } from './password'
import { hashToken, newToken, normalEmail, openSession } from './sign-in'

export type Problems = Record<string, string>
export type Joined = { token: string; expiresAt: Date } | { problems: Problems }

const INVITATION_DAYS = 14
/** Years from which on nobody else answers for an athlete. */
const OF_AGE = 18
export const MIN_PASSWORD = 10

export interface NewPerson {
	name: string
	email: string
	password: string
}

function problemsOf({ name, email, password }: NewPerson): Problems {
	const problems: Problems = {}
	if (name.trim() === '' || name.length > 200) problems.name = 'A name of up to 200 characters is expected.'
	if (!/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(email.trim()) || email.length > 254)
		problems.email = `${email.trim() ? `“${email.trim()}” is not an email address` : 'An email address is expected'}, like coach@example.org.`
	if (password.length < MIN_PASSWORD)
		problems.password = `${password.length} characters are too few; ${MIN_PASSWORD} or more are expected.`
	if (password.length > 200) problems.password = 'At most 200 characters are expected.'
	return problems
}

export const isTimeZone = (zone: string): boolean => {
	try {
		return new Intl.DateTimeFormat('en', { timeZone: zone }).resolvedOptions().timeZone !== ''
	} catch {
		return false
	}
}

/** The first club on a new installation, with its first coach. */
export async function makeFirstClub(input: NewPerson & { club: string; timeZone: string }, now: Date): Promise<Joined> {
	const problems = problemsOf(input)
	if (input.club.trim() === '' || input.club.length > 200) problems.club = 'A name of up to 200 characters is expected.'
	if (!isTimeZone(input.timeZone))
		problems.timeZone = `“${input.timeZone}” is not a time zone; one like Europe/Lisbon is expected.`
	if (Object.keys(problems).length > 0) return { problems }
	const clubId = newId()
	const personId = newId()
	const passwordHash = await hashPassword(input.password)
	return withFreeAddress(input.email, async () => {
		await inTransaction(database().db, clubId, async (scope) => {
			await insertClub(scope.db, { id: clubId, name: input.club.trim(), timeZone: input.timeZone, createdAt: now })
			await insertPerson(scope, {
				id: personId,
				email: normalEmail(input.email),
				name: input.name.trim(),
				role: 'coach',
				passwordHash,
				athleteId: null,
				createdAt: now,
			})
			await installLibrary(scope, now)
		})
		return openSession(clubId, personId, now)
	})
}

/** A link for one person and one role, good for two weeks and one use. Only a hash of it is kept. */
export async function invite(
	scope: ClubScope,
	by: string,
	role: string,
	athleteId: string | null,
	now: Date,
): Promise<{ token: string } | { problems: Problems }> {
	if (!ROLES.includes(role as Role)) return { problems: { role: `“${role}” is not a role.` } }
	if (OF_ONE_ATHLETE.has(role)) {
		const [known] = athleteId ? await readAthletes(scope, [athleteId]) : []
		if (!known) return { problems: { athleteId: 'Pick the athlete this link is for.' } }
		if (
			role === 'guardian' &&
			(known.birthDate === null || ageInYears(known.birthDate, now.toISOString().slice(0, 10)) >= OF_AGE)
		)
			return { problems: { athleteId: 'A guardian is for an athlete under 18 whose birth date is known.' } }
	}
	const token = newToken()
	await insertInvitation(scope, {
		id: newId(),
		tokenHash: hashToken(token),
		role: role as Role,
		athleteId: OF_ONE_ATHLETE.has(role) ? athleteId : null,
		createdBy: by,
		createdAt: now,
		expiresAt: new Date(now.getTime() + INVITATION_DAYS * 86_400_000),
		usedAt: null,
	})
	return { token }
}

export const readInvitation = (token: string, now: Date) => invitationByToken(database().db, hashToken(token), now)

export async function join(token: string, input: NewPerson, now: Date): Promise<Joined> {
	const found = await readInvitation(token, now)
	if (!found) return { problems: { name: 'This link has been used or has run out. Ask the coach for a new one.' } }
	const problems = problemsOf(input)
	if (Object.keys(problems).length > 0) return { problems }
	const { clubId, id, role, athleteId } = found.invitation
	const personId = newId()
	const passwordHash = await hashPassword(input.password)
	return withFreeAddress(input.email, async () => {
		const first = await inTransaction(database().db, clubId, async (scope) => {
			if (!(await useInvitation(scope, id, now))) return false
			await insertPerson(scope, {
				id: personId,
				email: normalEmail(input.email),
				name: input.name.trim(),
				role,
				passwordHash,
				athleteId,
				createdAt: now,
			})
			return true
		})
		return first
			? openSession(clubId, personId, now)
			: { problems: { name: 'Somebody has just used this link. Ask the coach for a new one.' } }
	})
}

async function withFreeAddress(email: string, work: () => Promise<Joined>): Promise<Joined> {
	try {
		return await work()
	} catch (error) {
		if (errorNumber(error) !== DUPLICATE_KEY) throw error
		return { problems: { email: `“${email.trim()}” signs in already. Use another address, or sign in with it.` } }
	}
}
