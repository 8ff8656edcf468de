import type { Closure } from '../../core/vocabulary/care'
import { EVERYTHING } from '../../core/vocabulary/care'
import type { Body } from '../../core/care/body'
import { concludeFor } from '../../core/permit/plain-facts'
import { placeOf } from '../../core/rules/bars'
import { weightOf } from '../../core/field/over-today'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { listMembers, listSquads } from '../../db/queries/squads'
import type { Role } from '../../db/schema/people'
import { may } from '../access/roles'
import { factsOf, readRecords } from '../facts/read-facts'
import { limitsOf } from '../field/read-pack'

/** Everybody whom something closes, spares or leads back on a day, the most closed first. */
export async function readBodies(scope: ClubScope, today: string, role: Role): Promise<Body[]> {
	const [squads, members, library] = [await listSquads(scope), await listMembers(scope), await readLibrary(scope)]
	const records = await readRecords(scope, [...new Set(members.map(({ id }) => id))], today, today)
	const seen = new Set<string>()
	const bodies: { weight: number; body: Body }[] = []
	for (const squad of squads) {
		if (!library.schools[squad.schoolId]) continue
		const own = members.filter((member) => member.squadId === squad.id && !seen.has(member.id))
		for (const { id } of own) seen.add(id)
		const moment = { day: today, startTime: squad.startTime, phase: squad.phase, surface: null }
		const facts = factsOf(records, moment, squad, library, new Set(own.map((member) => member.id)))
		for (const { id, name } of own) {
			const known = facts.get(id)
			if (!known) continue
			const concluded = concludeFor(known, library)
			const { facts: now, plan } = concluded
			const limits = limitsOf(concluded)
			const of = (grade: Closure['grade']) =>
				now.closures.filter((one) => one.grade === grade && one.region !== EVERYTHING)
			const body: Body = {
				id,
				name,
				squadName: squad.name,
				everythingSince: now.closures.find((one) => one.region === EVERYTHING)?.since ?? null,
				closed: of('closed').map((one) => ({ place: placeOf(one), since: one.since })),
				spared: of('spare').map((one) => ({
					place: placeOf(one),
					since: one.since,
					ask: (known.sessions ?? []).some((day) => day > one.since && day <= today),
				})),
				shut: (limits.shut ?? []).map(({ words }) => words),
				back: plan.paths.flatMap(({ due, repeats }) => (due ? [{ step: due.rung.name, repeats }] : [])),
				unwellSince: may(role, 'pain:read') ? now.unwellSince : null,
			}
			const weight = 2 * weightOf({ ...limits, easyOnly: body.unwellSince !== null }) + (body.back.length > 0 ? 1 : 0)
			if (weight > 0) bodies.push({ weight, body })
		}
	}
	return bodies.sort((a, b) => b.weight - a.weight || a.body.name.localeCompare(b.body.name)).map(({ body }) => body)
}

/** Everybody of the club's squads by name, once. */
export async function namesOf(scope: ClubScope): Promise<{ id: string; name: string }[]> {
	return [...new Map((await listMembers(scope)).map(({ id, name }) => [id, { id, name }])).values()]
}
