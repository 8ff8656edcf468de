import { DEVICE_KIND_NAMES } from '../../core/devices/schema'
import { listPeople } from '../../db/queries/clubs'
import { listDevices } from '../../db/queries/devices'
import { listGrounds } from '../../db/queries/grounds'
import { listMembers } from '../../db/queries/squads'
import { ROLES } from '../../db/schema/people'
import { readPlaces } from '../care/emergency'
import { todayAt } from '../clock'
import { scopeOf } from '../database'
import { may } from './roles'
import type { SignedIn } from './sign-in'

/** The club's page; people and devices only for whoever may invite. */
export async function readClubPage(who: SignedIn) {
	const scope = scopeOf(who.clubId)
	const mayInvite = may(who.role, 'people:write')
	const members = mayInvite ? await listMembers(scope) : []
	const devices = mayInvite ? await listDevices(scope) : []
	return {
		club: who.clubName,
		timeZone: who.timeZone,
		name: who.name,
		role: who.role,
		mayInvite,
		people: mayInvite ? await listPeople(scope) : [],
		devices: devices.map(({ id, kind, name, lastSeenAt }) => ({
			id,
			kind: DEVICE_KIND_NAMES[kind],
			name,
			lastSeenAt: lastSeenAt?.toISOString() ?? null,
		})),
		athletes: [...new Map(members.map(({ id, name }) => [id, { id, name }])).values()],
		roles: ROLES,
		grounds: await listGrounds(scope),
		places: await readPlaces(scope, todayAt(who.timeZone)),
		mayPlan: may(who.role, 'plan:write'),
	}
}
