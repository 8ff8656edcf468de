import { v7 as newId } from 'uuid'
import { type ClubScope, inTransaction } from '../../db/connect'
import {
	type PersonRow,
	deleteSignInsOf,
	listClubs,
	listPeople,
	lockClub,
	openInvitations,
	updateClub,
	updatePerson,
	useInvitation,
	writeDeed,
} from '../../db/queries/clubs'
import { forgetHealthWords } from '../../db/queries/care'
import { moveZone } from '../../db/queries/sessions'
import { type Deed, OF_ONE_ATHLETE, ROLES, type Role } from '../../db/schema/people'
import { monthsBefore } from '../../core/calendar/day-count'
import { todayAt } from '../clock'
import { database } from '../database'
import { type Described, type Difference, type Meanwhile, differences, takeVersion } from '../submissions/take-version'
import { isTimeZone } from './join'
import type { SignedIn } from './sign-in'

/** What became of a change: overtaken by somebody else's where theirs was not seen. Null for a stranger's id. */
export type ClubChanged =
	| { saved: true }
	| { problem: string }
	| { meanwhile: Meanwhile & { differences: Difference[] } }
	| null

/** Who did what, in the club's record. */
export const noteDeed = (scope: ClubScope, who: Pick<SignedIn, 'personId'>, what: Deed, about: string, at: Date) =>
	writeDeed(scope, { id: newId(), at, personId: who.personId, what, about })

const NAME_LENGTH = 200
/** Roles somebody may be given instead of theirs: an athlete and a guardian stay whose they are. */
export const rolesFor = (role: Role): Role[] =>
	OF_ONE_ATHLETE.has(role) ? [role] : ROLES.filter((one) => !OF_ONE_ATHLETE.has(one))

const isCoach = (one: PersonRow) => one.role === 'coach' && one.leftAt === null
/** Somebody has to be able to let others in. */
const ONE_COACH = 'A club keeps one coach at least: make somebody else a coach first.'

/** Another name or role of somebody who signs in. */
export async function changePerson(
	who: SignedIn,
	personId: string,
	typed: { name: string; role: string },
	seen: number,
	now: Date,
): Promise<ClubChanged> {
	const name = typed.name.trim()
	if (name === '' || name.length > NAME_LENGTH)
		return { problem: `A name of up to ${NAME_LENGTH} characters is expected.` }
	return inTransaction(database().db, who.clubId, async (scope) => {
		// Two coaches who make each other assistants at once queue up here.
		await lockClub(scope)
		const people = await listPeople(scope)
		const person = people.find(({ id }) => id === personId)
		if (!person) return null
		const role = rolesFor(person.role).find((one) => one === typed.role)
		if (!role) return { problem: `“${typed.role.slice(0, 20)}” cannot be the role of ${person.name}.` }
		if (role !== 'coach' && people.every((one) => !isCoach(one) || one.id === personId) && isCoach(person))
			return { problem: ONE_COACH }
		const meanwhile = await takeVersion(scope, who, 'person', personId, seen, now)
		if (meanwhile) {
			const said = (one: { name: string; role: string }): Described => [
				['Name', one.name],
				['Role', one.role],
			]
			return { meanwhile: { ...meanwhile, differences: differences(said(person), said({ name, role })) } }
		}
		await updatePerson(scope, personId, { name, role })
		if (role !== person.role) await noteDeed(scope, who, 'role-changed', `${name}: ${person.role}, now ${role}`, now)
		return { saved: true as const }
	})
}

/**
 * Takes somebody off: they are signed out everywhere at once and sign in no more; what they wrote stays theirs. What a
 * phone of theirs still has is sent by whoever signs in on it next.
 */
export async function takePersonOff(who: SignedIn, personId: string, now: Date): Promise<ClubChanged> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		await lockClub(scope)
		const people = await listPeople(scope)
		const person = people.find(({ id }) => id === personId)
		if (!person) return null
		if (isCoach(person) && people.filter(isCoach).length === 1) return { problem: ONE_COACH }
		await updatePerson(scope, personId, { leftAt: now })
		await deleteSignInsOf(scope, personId)
		await noteDeed(scope, who, 'taken-off', person.name, now)
		return { saved: true as const }
	})
}

/** Lets somebody in again who was taken off, with the password they had. */
export async function bringPersonBack(who: SignedIn, personId: string, now: Date): Promise<ClubChanged> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		await lockClub(scope)
		const person = (await listPeople(scope)).find(({ id }) => id === personId)
		if (!person) return null
		await updatePerson(scope, personId, { leftAt: null })
		await noteDeed(scope, who, 'let-in', person.name, now)
		return { saved: true as const }
	})
}

/** Makes a link that was sent to the wrong one worth nothing. */
export async function withdrawInvitation(who: SignedIn, id: string, now: Date): Promise<ClubChanged> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const open = (await openInvitations(scope, now)).some((one) => one.id === id)
		if (!open || !(await useInvitation(scope, id, now)))
			return { problem: 'This link has been used or has run out meanwhile.' }
		await noteDeed(scope, who, 'link-withdrawn', '', now)
		return { saved: true as const }
	})
}

/**
 * The club's name, and the clock its days are counted by. Sessions nobody has begun that were to be held by the old
 * clock are held at the same time of day by the new one; what was held stays when it was.
 */
export async function changeClub(
	who: SignedIn,
	typed: { name: string; timeZone: string },
	seen: number,
	now: Date,
): Promise<ClubChanged> {
	const [name, timeZone] = [typed.name.trim(), typed.timeZone.trim()]
	if (name === '' || name.length > NAME_LENGTH)
		return { problem: `A name of up to ${NAME_LENGTH} characters is expected.` }
	if (!isTimeZone(timeZone)) return { problem: `“${timeZone}” is not a time zone; one like Europe/Lisbon is expected.` }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const before = await lockClub(scope)
		if (!before) return null
		const meanwhile = await takeVersion(scope, who, 'club', who.clubId, seen, now)
		if (meanwhile) {
			const said = (one: { name: string; timeZone: string }): Described => [
				['Name', one.name],
				['Time zone', one.timeZone],
			]
			return { meanwhile: { ...meanwhile, differences: differences(said(before), said({ name, timeZone })) } }
		}
		await updateClub(scope, { name, timeZone })
		if (timeZone !== before.timeZone) await moveZone(scope, before.timeZone, timeZone)
		return { saved: true as const }
	})
}

/** Months after which words about somebody's health go by themselves; null keeps them. */
export const HEALTH_NOTES_MONTHS = [null, 6, 12, 24, 36, 60] as const
const sayMonths = (months: number | null) => (months === null ? 'until somebody is erased' : `${months} months`)

/** How long the words are kept; what is too old by the new number goes at once. */
export async function keepHealthNotes(who: SignedIn, typed: string, seen: number, now: Date): Promise<ClubChanged> {
	const months = HEALTH_NOTES_MONTHS.find((one) => String(one ?? '') === typed)
	if (months === undefined) return { problem: 'One of the lengths on offer is expected.' }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const before = await lockClub(scope)
		if (!before) return null
		const meanwhile = await takeVersion(scope, who, 'club', who.clubId, seen, now)
		if (meanwhile) {
			const said = (one: number | null): Described => [['Words about health are kept', sayMonths(one)]]
			return { meanwhile: { ...meanwhile, differences: differences(said(before.healthNotesMonths), said(months)) } }
		}
		await updateClub(scope, { healthNotesMonths: months })
		if (months !== before.healthNotesMonths) await noteDeed(scope, who, 'notes-kept', sayMonths(months), now)
		await forgetIn(scope, { ...before, healthNotesMonths: months }, now)
		return { saved: true as const }
	})
}

async function forgetIn(
	scope: ClubScope,
	club: { timeZone: string; healthNotesMonths: number | null },
	now: Date,
): Promise<void> {
	if (club.healthNotesMonths !== null)
		await forgetHealthWords(scope, monthsBefore(todayAt(club.timeZone, now), club.healthNotesMonths))
}

/** In every club, what has become too old since yesterday. */
export async function forgetHealthNotes(now: Date): Promise<void> {
	for (const club of await listClubs(database().db))
		if (club.healthNotesMonths !== null)
			await inTransaction(database().db, club.id, (scope) => forgetIn(scope, club, now))
}
