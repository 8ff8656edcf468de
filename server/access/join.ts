import { v7 as newId } from 'uuid'
import { ageInYears } from '../../core/calendar/days'
import { DUPLICATE_KEY, type ClubScope, errorNumber, inTransaction } from '../../db/connect'
import {
	deleteOtherSignIns,
	endPasswordLinks,
	insertClub,
	insertInvitation,
	insertPerson,
	invitationByToken,
	listPeople,
	updatePassword,
	useInvitation,
	writeDeed,
} from '../../db/queries/clubs'
import { installLibrary } from '../../db/queries/library'
import { readAthletes } from '../../db/queries/squads'
import { OF_ONE_ATHLETE, ROLES, type Role } from '../../db/schema/people'
import { database, scopeOf } from '../database'
import { hashPassword } from './password'
import { canonicalAddress, isAddress } from './address'
import { passwordProblem } from './choose-password'
import { type From, type Opened, hashToken, newToken, openSession } from './sign-in'

export type Problems = Record<string, string>
export type Joined = Opened | { problems: Problems }

const INVITATION_DAYS = 14
/** Years from which on nobody else answers for an athlete. */
const OF_AGE = 18

export interface NewPerson {
	name: string
	email: string
	password: string
}

function problemsOf({ name, email, password }: NewPerson, club: string): Problems {
	const problems: Problems = {}
	if (name.trim() === '' || name.length > 200) problems.name = 'A name of up to 200 characters is expected.'
	if (!isAddress(canonicalAddress(email)))
		problems.email = `${email.trim() ? `“${email.trim().slice(0, 60)}” is not an email address` : 'An email address is expected'}, like coach@example.org.`
	const wrong = passwordProblem(password, [canonicalAddress(email), name, club])
	if (wrong) problems.password = wrong
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
export async function makeFirstClub(
	input: NewPerson & { club: string; timeZone: string },
	from: From,
	now: Date,
): Promise<Joined> {
	const problems = problemsOf(input, input.club)
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
				email: canonicalAddress(input.email),
				name: input.name.trim(),
				role: 'coach',
				passwordHash,
				athleteId: null,
				createdAt: now,
			})
			await installLibrary(scope, now)
		})
		return openSession(clubId, personId, from, now)
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
	await writeDeed(scope, { id: newId(), at: now, personId: by, what: 'invited', about: role })
	return { token }
}

export const readInvitation = (token: string, now: Date) => invitationByToken(database().db, hashToken(token), now)

export async function join(token: string, input: NewPerson, from: From, now: Date): Promise<Joined> {
	const found = await readInvitation(token, now)
	if (!found) return { problems: { name: 'This link has been used or has run out. Ask the coach for a new one.' } }
	if (found.invitation.personId !== null) return setByLink(found.invitation, input.password, found.clubName, from, now)
	const problems = problemsOf(input, found.clubName)
	if (Object.keys(problems).length > 0) return { problems }
	const { clubId, id, role, athleteId } = found.invitation
	const personId = newId()
	const passwordHash = await hashPassword(input.password)
	return withFreeAddress(input.email, async () => {
		const first = await inTransaction(database().db, clubId, async (scope) => {
			if (!(await useInvitation(scope, id, now))) return false
			await insertPerson(scope, {
				id: personId,
				email: canonicalAddress(input.email),
				name: input.name.trim(),
				role,
				passwordHash,
				athleteId,
				createdAt: now,
			})
			await writeDeed(scope, { id: newId(), at: now, personId, what: 'joined', about: role })
			return true
		})
		return first
			? openSession(clubId, personId, from, now)
			: { problems: { name: 'Somebody has just used this link. Ask the coach for a new one.' } }
	})
}

const LINK_DAYS = 2
/** A link by which somebody who is here sets a new password; the coach gives it to them. The links before it end. */
export async function linkForPassword(
	scope: ClubScope,
	by: string,
	personId: string,
	now: Date,
): Promise<{ token: string } | null> {
	const person = (await listPeople(scope)).find(({ id, leftAt }) => id === personId && leftAt === null)
	if (!person) return null
	await endPasswordLinks(scope, personId, now)
	const token = newToken()
	await insertInvitation(scope, {
		id: newId(),
		tokenHash: hashToken(token),
		role: person.role,
		athleteId: person.athleteId,
		personId,
		createdBy: by,
		createdAt: now,
		expiresAt: new Date(now.getTime() + LINK_DAYS * 86_400_000),
		usedAt: null,
	})
	await writeDeed(scope, { id: newId(), at: now, personId: by, what: 'password-link', about: person.name })
	return { token }
}

/** The new password of who holds the link; everything they were signed in on ends. */
async function setByLink(
	link: { clubId: string; id: string; personId: string | null },
	password: string,
	club: string,
	from: From,
	now: Date,
): Promise<Joined> {
	const { clubId, id } = link
	const personId = link.personId!
	const person = (await listPeople(scopeOf(clubId))).find((one) => one.id === personId && one.leftAt === null)
	if (!person) return { problems: { password: 'This link no longer stands. Ask the coach for a new one.' } }
	const wrong = passwordProblem(password, [person.email, person.name, club])
	if (wrong) return { problems: { password: wrong } }
	const passwordHash = await hashPassword(password)
	const first = await inTransaction(database().db, clubId, async (scope) => {
		if (!(await useInvitation(scope, id, now))) return false
		await updatePassword(scope, personId, passwordHash)
		await deleteOtherSignIns(scope, personId, '')
		await writeDeed(scope, { id: newId(), at: now, personId, what: 'password-reset' })
		return true
	})
	return first
		? openSession(clubId, personId, from, now)
		: { problems: { password: 'Somebody has just used this link. Ask the coach for a new one.' } }
}

async function withFreeAddress(email: string, work: () => Promise<Joined>): Promise<Joined> {
	try {
		return await work()
	} catch (error) {
		if (errorNumber(error) !== DUPLICATE_KEY) throw error
		return { problems: { email: `“${email.trim()}” signs in already. Use another address, or sign in with it.` } }
	}
}
