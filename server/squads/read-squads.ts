import { sayAway } from '../../core/calendar/away'
import { addDays } from '../../core/calendar/day-count'
import { rungOf } from '../../core/library/starter-library'
import { weeksSinceUnloading } from '../../core/plan/unloading-due'
import { concludeFor } from '../../core/permit/plain-facts'
import { overOf } from '../../core/judge/locks'
import { entryState } from '../../core/judge/resolve-line'
import type { ClubScope } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { sessionsBetween } from '../../db/queries/sessions'
import {
	type SquadRow,
	listAthletes,
	listMembers,
	listSquads,
	readLevels,
	readStates,
	stateKey,
} from '../../db/queries/squads'
import { breathe } from '../breathe'
import { NO_MARKS, keptPage } from '../kept'
import { factsOf } from '../facts/read-facts'
import { readRecords } from '../facts/records'
import { versionOf } from '../submissions/take-version'

export interface Standing {
	rungIndex: number
	/** Whether a variation stands in for the rung. */
	substitute: boolean
	/** Why its own rung is over for now: closed, spared, restricted; null when it is not. */
	over: string | null
	/** False until the first verdict: then the first rung is only where they would start. */
	met: boolean
}
export interface RosterRow {
	id: string
	name: string
	level: number
	/** "away until Thu 3 Dec"; null for who is there. */
	away: string | null
	/** One for each of the squad’s ladders, in their order. */
	standings: Standing[]
}

export interface RosterOfSquad {
	squad: SquadRow
	version: number
	schoolName: string
	unloadingDue: number | null
	/** The ladders somebody of the squad has met. */
	ladders: { id: string; name: string; rungs: { id: string; name: string }[] }[]
	athletes: RosterRow[]
}
/** Every squad with its athletes and where each stands on every ladder, and whoever trains with no squad; kept as long as nothing changes. */
export const readSquadsPage = (
	scope: ClubScope,
	today: string,
): Promise<{ roster: RosterOfSquad[]; without: { id: string; name: string }[] }> =>
	keptPage(
		scope,
		['squads', today],
		async (scope) => ({ roster: await readRoster(scope, today), without: await readWithoutSquad(scope) }),
		NO_MARKS,
	)
async function readRoster(scope: ClubScope, today: string): Promise<RosterOfSquad[]> {
	const [squads, members, library] = [await listSquads(scope), await listMembers(scope), await readLibrary(scope)]
	const ids = [...new Set(members.map((member) => member.id))]
	const [levelOf, states] = [await readLevels(scope, ids), await readStates(scope, ids)]
	const held = (await sessionsBetween(scope, addDays(today, -84), today)).filter(
		(session) => session.startedAt !== null,
	)
	const versions = new Map<string, number>()
	for (const { id } of squads) versions.set(id, await versionOf(scope, 'squad', id))
	const records = await readRecords(scope, ids, today, today)
	const concluded = new Map<string, ReturnType<typeof concludeFor>>()
	for (const squad of squads) {
		if (!library.schools[squad.schoolId]) continue
		const moment = { day: today, startTime: squad.startTime, phase: squad.phase, surface: null }
		const of = members.filter((member) => member.squadId === squad.id).map((member) => member.id)
		for (const [id, known] of factsOf(records, moment, squad, library, new Set(of))) {
			concluded.set(`${squad.id}/${id}`, concludeFor(known, library))
			await breathe()
		}
	}
	return squads.map((squad) => {
		const school = library.schools[squad.schoolId]
		const weeks = weeksSinceUnloading(
			held.filter((session) => session.squadId === squad.id),
			today,
		)
		// Only the ladders somebody of the squad has met: twenty columns would say nothing.
		const own = members.filter((member) => member.squadId === squad.id)
		const ladders = Object.values(library.ladders).filter(
			({ id, path }) => path === undefined && own.some((member) => states.has(stateKey(member.id, id))),
		)
		return {
			squad,
			version: versions.get(squad.id) ?? 0,
			schoolName: school?.name ?? squad.schoolId,
			/** Trained weeks since the last unloading one, once the school's number is reached. */
			unloadingDue: school && squad.phase !== 'unloading' && weeks >= school.numbers.weeksToUnloading ? weeks : null,
			ladders: ladders.map(({ id, name, rungs }) => ({
				id,
				name,
				rungs: rungs.map((rung) => ({ id: rung.id, name: rung.name })),
			})),
			athletes: own.map((member) => ({
				id: member.id,
				name: member.name,
				level: levelOf(member.id, 'plyometric'),
				away: sayAway(member.away, today),
				standings: ladders.map((ladder): Standing => {
					const known = states.get(stateKey(member.id, ladder.id))?.state
					const state = known ?? entryState(library, ladder.id)
					const { index, rung } = rungOf(ladder, state.rungId)
					const facts = concluded.get(`${squad.id}/${member.id}`)?.facts
					const over = facts ? overOf(facts, rung) : null
					return { rungIndex: index, substitute: state.substitute !== null, over, met: known !== undefined }
				}),
			})),
		}
	})
}

/** Whoever trains with no squad: everything logged of them is still there. */
export async function readWithoutSquad(scope: ClubScope): Promise<{ id: string; name: string }[]> {
	const members = new Set((await listMembers(scope)).map(({ id }) => id))
	return (await listAthletes(scope)).filter(({ id }) => !members.has(id)).map(({ id, name }) => ({ id, name }))
}
