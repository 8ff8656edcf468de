import type { Level } from '../../core/vocabulary/words'
import { gateOf, overOf, passedRungs } from '../../core/judge/locks'
import { rungOf } from '../../core/library/starter-library'
import { entryState } from '../../core/judge/resolve-line'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { listMembers, readLevels, readSquad, readStates, stateKey } from '../../db/queries/squads'
import { concludeFor } from '../../core/permit/plain-facts'
import { readFacts } from '../facts/read-facts'
import { versionOf } from '../submissions/take-version'

/** A squad on one ladder: who stands on which rung, and what each rung asks that nobody, or not everybody, has. Null for a stranger's id. */
export async function readSquadLadder(scope: ClubScope, squadId: string, ladderId: string | undefined, today: string) {
	const squad = await readSquad(scope, squadId)
	if (!squad) return null
	const library = await readLibrary(scope)
	const school = library.schools[squad.schoolId]
	if (!school) throw new Error(`school ${squad.schoolId} is not in the library`)
	const members = (await listMembers(scope)).filter((member) => member.squadId === squadId)
	const ids = members.map((member) => member.id)
	const day = { day: today, startTime: squad.startTime, phase: squad.phase, surface: null }
	const [states, levelOf, facts] = [
		await readStates(scope, ids),
		await readLevels(scope, ids),
		await readFacts(scope, day, squad, ids, library, today),
	]
	const all = Object.values(library.ladders).filter((ladder) => ladder.path === undefined)
	const met = (id: string) => members.filter((member) => states.has(stateKey(member.id, id))).length
	const chosen = all.find((ladder) => ladder.id === ladderId) ?? [...all].sort((a, b) => met(b.id) - met(a.id))[0]!
	const athletes = members.map((member) => {
		const state = states.get(stateKey(member.id, chosen.id))?.state ?? null
		const at = state ?? entryState(library, chosen.id)
		const level: Level = levelOf(member.id, chosen.family)
		const concluded = concludeFor(facts.get(member.id)!, library)
		const over = overOf(concluded.facts, rungOf(chosen, at.rungId).rung)
		return {
			id: member.id,
			name: member.name,
			level,
			met: state !== null,
			rungId: at.rungId,
			passed: passedRungs(at, chosen),
			waiting: at.passed,
			state:
				over !== null
					? over
					: at.reentry
						? 'on the way back'
						: at.substitute
							? 'on a variation'
							: at.back
								? `${at.back.percent} % after time away`
								: null,
			locks: Object.fromEntries(chosen.rungs.map((rung) => [rung.id, gateOf(concluded.facts, rung)?.words ?? null])),
		}
	})
	return {
		squad,
		version: await versionOf(scope, 'squad', squad.id),
		school: { id: school.id, name: school.name },
		focus: squad.focus?.[chosen.id] ?? null,
		ladders: all.map((ladder) => ({ id: ladder.id, name: ladder.name, family: ladder.family, met: met(ladder.id) })),
		ladder: chosen,
		athletes,
	}
}
