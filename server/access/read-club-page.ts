import type { ClubScope } from '../../db/connect'
import { DEVICE_KIND_NAMES } from '../../core/devices/schema'
import { listDeeds, listPeople, openInvitations, readClub } from '../../db/queries/clubs'
import { listDevices } from '../../db/queries/devices'
import { listGrounds, listGroundsOff } from '../../db/queries/grounds'
import { listMembers } from '../../db/queries/squads'
import { ROLES } from '../../db/schema/people'
import { readPlaces } from '../care/emergency'
import { todayAt } from '../clock'
import { scopeOf } from '../database'
import { versionOf } from '../submissions/take-version'
import { HEALTH_NOTES_MONTHS, rolesFor } from './change-club'
import { may } from './roles'
import type { SignedIn } from './sign-in'

/** The club's page; people and devices only for whoever may invite. */
export async function readClubPage(who: SignedIn, now: Date) {
	const scope = scopeOf(who.clubId)
	const mayInvite = may(who.role, 'people:write')
	const members = mayInvite ? await listMembers(scope) : []
	const people = mayInvite ? await listPeople(scope) : []
	const invitations = mayInvite ? await openInvitations(scope, now) : []
	const grounds = await listGrounds(scope)
	const nameOf = new Map(members.map(({ id, name }) => [id, name]))
	const devices = mayInvite ? await listDevices(scope) : []
	return {
		club: who.clubName,
		timeZone: who.timeZone,
		name: who.name,
		role: who.role,
		mayInvite,
		version: await versionOf(scope, 'club', who.clubId),
		healthNotesMonths: (await readClub(scope)).healthNotesMonths,
		healthNotesOffered: HEALTH_NOTES_MONTHS,
		people: await Promise.all(
			people.map(async ({ leftAt, athleteId, ...person }) => ({
				...person,
				of: athleteId === null ? null : (nameOf.get(athleteId) ?? null),
				roles: rolesFor(person.role),
				hasLeft: leftAt !== null,
				version: await versionOf(scope, 'person', person.id),
			})),
		),
		invitations: invitations.map(({ id, role, athleteId, expiresAt }) => ({
			id,
			role,
			of: athleteId === null ? null : (nameOf.get(athleteId) ?? null),
			expires: expiresAt.toISOString().slice(0, 10),
		})),
		devices: devices.map(({ id, kind, name, lastSeenAt }) => ({
			id,
			kind: DEVICE_KIND_NAMES[kind],
			name,
			lastSeenAt: lastSeenAt?.toISOString() ?? null,
		})),
		athletes: [...new Map(members.map(({ id, name }) => [id, { id, name }])).values()],
		roles: ROLES,
		grounds: await Promise.all(
			grounds.map(async (ground) => ({ ...ground, version: await versionOf(scope, 'ground', ground.id) })),
		),
		groundsOff: await listGroundsOff(scope),
		places: await readPlaces(scope, todayAt(who.timeZone)),
		mayPlan: may(who.role, 'plan:write'),
	}
}

export type { Deed } from '../../db/schema/people'
/** Deeds that are shown; all of them are kept. */
const MOST_DEEDS = 500
/** Who did what with the club's keys and data, newest first. */
export async function readDeeds(scope: ClubScope) {
	return (await listDeeds(scope, MOST_DEEDS)).map(({ id, at, what, about, by }) => ({
		id,
		at: at.toISOString(),
		what,
		about,
		by: by ?? 'somebody',
	}))
}
