import { addDays } from '../../core/calendar/day-count'
import { lockOf } from '../../core/judge/locks'
import { concludeFor } from '../../core/permit/plain-facts'
import { PLACING_DAYS, placeByMarks } from '../../core/roster/place-by-marks'
import { FAMILIES } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import { formsDone } from '../../db/queries/open-data'
import { readLibrary } from '../../db/queries/library'
import { listMembers, readLevels, readSquad, readStates, stateKey } from '../../db/queries/squads'
import { readFacts } from '../facts/read-facts'

/**
 * A squad's athletes against some ladders: where each stands, and which rungs only a clearance, a level or another rung
 * opens. Without a choice the ladders somebody stands on, in a new squad the first of each family. Null for a
 * stranger's id.
 */
export async function readPlacing(scope: ClubScope, squadId: string, chosen: readonly string[], today: string) {
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const library = await readLibrary(scope)
	const members = (await listMembers(scope)).filter((member) => member.squadId === squadId)
	const ids = members.map((member) => member.id)
	const moment = { day: today, startTime: squad.startTime, phase: squad.phase, surface: null }
	const [states, levelOf, done, facts] = [
		await readStates(scope, ids),
		await readLevels(scope, ids),
		await formsDone(scope, ids, addDays(today, -PLACING_DAYS)),
		await readFacts(scope, moment, squad, ids, library, today),
	]
	const all = Object.values(library.ladders)
		.filter((ladder) => ladder.path === undefined)
		.sort((a, b) => FAMILIES.indexOf(a.family) - FAMILIES.indexOf(b.family))
	const met = all.filter((ladder) => ids.some((id) => states.has(stateKey(id, ladder.id))))
	const firsts = FAMILIES.flatMap((family) => all.find((ladder) => ladder.family === family) ?? [])
	const asked = all.filter((ladder) => chosen.includes(ladder.id))
	const ladders = asked.length > 0 ? asked : met.length > 0 ? met : firsts
	return {
		squad: { id: squad.id, name: squad.name },
		all: all.map(({ id, name, family }) => ({ id, name, family })),
		ladders: ladders.map(({ id, name, family, rungs }) => ({
			id,
			name,
			family,
			rungs: rungs.map((rung) => ({ id: rung.id, name: rung.name })),
		})),
		athletes: members.map((member) => {
			const concluded = concludeFor(facts.get(member.id)!, library)
			const closed = Object.fromEntries(
				ladders.map((ladder) => [
					ladder.id,
					ladder.rungs.flatMap((rung) => (lockOf(concluded.facts, rung)?.tier === 'block' ? [rung.id] : [])),
				]),
			)
			return {
				id: member.id,
				name: member.name,
				level: levelOf(member.id, 'plyometric'),
				at: Object.fromEntries(
					ladders.map((ladder) => [ladder.id, states.get(stateKey(member.id, ladder.id))?.state.rungId ?? '']),
				),
				/** Rungs that would be refused as things stand, by ladder. */
				closed,
				/** What they have done lately says it, where nobody has placed them yet. */
				proposed: Object.fromEntries(
					ladders.flatMap((ladder) => {
						if (states.has(stateKey(member.id, ladder.id))) return []
						const found = placeByMarks(
							ladder,
							done.filter(({ athleteId }) => athleteId === member.id),
							closed[ladder.id]!,
						)
						return found ? [[ladder.id, found] as const] : []
					}),
				),
			}
		}),
	}
}
