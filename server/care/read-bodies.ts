import type { Closure } from '../../core/vocabulary/care'
import { EVERYTHING } from '../../core/vocabulary/care'
import type { Body } from '../../core/care/body'
import { concludeFor } from '../../core/permit/plain-facts'
import { placeOf } from '../../core/rules/bars'
import { REGION_NAMES } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { listMembers, listSquads } from '../../db/queries/squads'
import type { Role } from '../../db/schema/people'
import { may } from '../access/roles'
import { readFacts } from '../facts/read-facts'

/** Everybody whom something closes, spares or leads back on a day, the most closed first. */
export async function readBodies(scope: ClubScope, today: string, role: Role): Promise<Body[]> {
	const [squads, members, library] = [await listSquads(scope), await listMembers(scope), await readLibrary(scope)]
	const seen = new Set<string>()
	const bodies: Body[] = []
	for (const squad of squads) {
		if (!library.schools[squad.schoolId]) continue
		const own = members.filter((member) => member.squadId === squad.id && !seen.has(member.id))
		for (const { id } of own) seen.add(id)
		const moment = { day: today, startTime: squad.startTime, phase: squad.phase, surface: null }
		const facts = await readFacts(
			scope,
			moment,
			squad,
			own.map((member) => member.id),
			library,
			today,
		)
		for (const { id, name } of own) {
			const known = facts.get(id)
			if (!known) continue
			const { facts: now, plan } = concludeFor(known, library)
			const of = (grade: Closure['grade']) =>
				now.closures.filter((one) => one.grade === grade && one.region !== EVERYTHING)
			const body: Body = {
				id,
				name,
				squadName: squad.name,
				everythingSince: now.closures.find((one) => one.region === EVERYTHING)?.since ?? null,
				closed: [
					...of('closed').map((one) => ({ place: placeOf(one), since: one.since })),
					...now.restrictions
						.filter(({ region }) => region && !of('closed').some((one) => one.region === region))
						.map(({ region, since }) => ({ place: REGION_NAMES[region!], since })),
				],
				spared: of('spare').map((one) => ({
					place: placeOf(one),
					since: one.since,
					ask: (known.sessions ?? []).some((day) => day > one.since && day <= today),
				})),
				patterns: now.restrictions.flatMap(({ pattern }) => (pattern ? [`${pattern} work`] : [])),
				back: plan.paths.flatMap(({ due }) => (due ? [due.rung.name] : [])),
				unwellSince: may(role, 'pain:read') ? now.unwellSince : null,
			}
			if (weight(body) > 0) bodies.push(body)
		}
	}
	return bodies.sort((a, b) => weight(b) - weight(a) || a.name.localeCompare(b.name))
}

const weight = (body: Body): number =>
	body.everythingSince !== null
		? 5
		: body.closed.length + body.patterns.length > 0
			? 4
			: body.unwellSince !== null
				? 3
				: body.spared.length > 0
					? 2
					: body.back.length > 0
						? 1
						: 0
