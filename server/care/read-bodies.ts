import { type Body, bodyOf } from '../../core/field/body-now'
import { concludeFor } from '../../core/permit/plain-facts'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { listMembers, listSquads } from '../../db/queries/squads'
import type { Role } from '../../db/schema/people'
import { may } from '../access/roles'
import { breathe } from '../breathe'
import { NO_MARKS, keptFor } from '../kept'
import { factsOf } from '../facts/read-facts'
import { readRecords } from '../facts/records'
import { type Sheet, knownOf } from '../sheet/read-sheet'

const mostClosed = (a: Body, b: Body) => b.weight - a.weight || a.name.localeCompare(b.name)

/** Everybody whom something closes, spares or leads back on a day, the most closed first; kept as long as nothing changes. */
export const readBodies = (scope: ClubScope, today: string, role: Role): Promise<Body[]> =>
	keptFor(scope, ['bodies', today, role], (scope) => workOutBodies(scope, today, role), NO_MARKS)
async function workOutBodies(scope: ClubScope, today: string, role: Role): Promise<Body[]> {
	const [squads, members, library] = [await listSquads(scope), await listMembers(scope), await readLibrary(scope)]
	const records = await readRecords(scope, [...new Set(members.map(({ id }) => id))], today, today)
	const seen = new Set<string>()
	const bodies: Body[] = []
	for (const squad of squads) {
		if (!library.schools[squad.schoolId]) continue
		const own = members.filter((member) => member.squadId === squad.id && !seen.has(member.id))
		for (const { id } of own) seen.add(id)
		const moment = { day: today, startTime: squad.startTime, phase: squad.phase, surface: null }
		const facts = factsOf(records, moment, squad, library, new Set(own.map((member) => member.id)))
		for (const { id, name } of own) {
			const plain = facts.get(id)
			if (!plain) continue
			await breathe()
			const known = concludeFor(plain, library)
			const body = bodyOf(known, plain.sessions ?? [], today)
			const unwellSince = may(role, 'pain:read') ? known.facts.unwellSince : null
			if (body.weight > 0) bodies.push({ ...body, id, name, squadName: squad.name, unwellSince })
		}
	}
	return bodies.sort(mostClosed)
}

/** Whoever of a sheet is closed, spared or on the way back by now, the most closed first. */
export async function bodiesOf(scope: ClubScope, sheet: Sheet, today: string, role: Role): Promise<Body[]> {
	const known = await knownOf(scope, sheet)
	return sheet.athletes
		.flatMap(({ id, name }): Body[] => {
			const own = known.get(id)
			const body = own && bodyOf(own.concluded, own.plain.sessions ?? [], today)
			if (!body || body.weight === 0) return []
			const unwellSince = may(role, 'pain:read') ? own.concluded.facts.unwellSince : null
			return [{ ...body, id, name, squadName: sheet.session.squadName, unwellSince }]
		})
		.sort(mostClosed)
}

/** Everybody of the club's squads by name, once. */
export async function namesOf(scope: ClubScope): Promise<{ id: string; name: string }[]> {
	return [...new Map((await listMembers(scope)).map(({ id, name }) => [id, { id, name }])).values()]
}
