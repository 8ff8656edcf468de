import { addDays } from '../../core/calendar/day-count'
import type { Library } from '../../core/vocabulary/library'
import type { School } from '../../core/vocabulary/school'
import { evidenceFor, gatherInput } from '../../core/judge/gather-input'
import { judgeAthlete } from '../../core/judge/judge-athlete'
import { entryState } from '../../core/judge/resolve-line'
import { stricterOf } from '../../core/judge/stricter'
import type { Judgement, VerdictInput } from '../../core/judge/types'
import type { ClubScope } from '../../db/connect'
import { hashOf, readLibrary } from '../../db/queries/library'
import { type SessionRow, readAttending, readLines, readSession } from '../../db/queries/sessions'
import { type SquadRow, readLevels, readSquad, readStates, squadsOf, stateKey } from '../../db/queries/squads'
import { type VerdictRow, verdictsOfSession } from '../../db/queries/verdicts'
import { concludeFor } from '../../core/permit/plain-facts'
import { type Changes, changesUpTo } from '../../db/noted-writes'
import { breathe } from '../breathe'
import { groupBy } from '../../core/lists/group-by'
import { keptFor, mendKept } from '../kept'
import { readErrors } from '../marks/read-errors'
import { careDayOf } from '../facts/facts-on'
import { readFacts } from '../facts/read-facts'
import { returningOf } from '../../core/care/return-plan'
import { documentsOf, drillsAsCited, nextSessionOf, readHistories, standingsOf } from './gather'

export interface Proposal {
	athleteId: string
	ladderId: string
	judgement: Judgement
	input: VerdictInput
	inputHash: string
	/** Nothing of the athlete was logged in the whole session. */
	absent: boolean
}

/** Whether what is known now leads elsewhere than what was decided on. */
export const differs = (row: VerdictRow, { judgement }: Proposal): boolean =>
	row.proposed !== judgement.verdict ||
	row.judgement.next.rungId !== judgement.next.rungId ||
	row.judgement.decidedBy !== judgement.decidedBy

/**
 * A verdict for every athlete and ladder on the session's sheet, from what is known now. Nothing is
 * written. What has been decided is judged on the state it was decided on, so that late evidence shows.
 *
 * @param only athletes whose verdicts are asked for; everybody's on the sheet where it is not said
 * @param school another school than the squad's, to see what would change
 */
export async function proposeVerdicts(
	scope: ClubScope,
	session: SessionRow,
	squad: SquadRow,
	library: Library,
	{ only, school }: { only?: ReadonlySet<string>; school?: School } = {},
): Promise<Proposal[]> {
	const sheet = (await linesToJudge(scope, session.id)).filter(({ athleteId }) => only?.has(athleteId) ?? true)
	const athleteIds = [...new Set(sheet.map((line) => line.athleteId))]
	const drillOf = await drillsAsCited(scope, library)
	const histories = await readHistories(scope, athleteIds, session.day, library)
	const [levelOf, states, squads, decided, errors] = [
		await readLevels(scope, athleteIds),
		await readStates(scope, athleteIds),
		await squadsOf(scope, athleteIds),
		await verdictsOfSession(scope, session.id),
		await readErrors(scope, squad.id, session.day),
	]
	const before = new Map(decided.map((row) => [stateKey(row.athleteId, row.ladderId), row.before]))
	// What this session has decided already must not change what it proposes for the rest.
	const asJudged = new Map([...states].map(([key, row]) => [key, { state: before.get(key) ?? row.state }]))
	const standings = standingsOf(asJudged, library)
	const judged = {
		id: session.id,
		day: session.day,
		startTime: session.startTime,
		phase: session.phase,
		next: await nextSessionOf(scope, session, squad),
	}
	const facts = await readFacts(
		scope,
		{ ...judged.next, day: careDayOf(session.day, judged.next.day) },
		squad,
		athleteIds,
		library,
		session.day,
	)
	const withSchool: Library = school ? { ...library, schools: { ...library.schools, [school.id]: school } } : library
	const schoolId = school?.id ?? squad.schoolId

	const proposals: Proposal[] = []
	for (const athleteId of athleteIds) {
		const history = histories.get(athleteId)
		if (!history) continue
		await breathe()
		const known = facts.get(athleteId)!
		const concluded = concludeFor(known, library)
		const evidence = evidenceFor(session, history, drillOf)
		const own = withSchool.schools[schoolId]
		if (!own) throw new Error(`school ${schoolId} is not in the library`)
		const safety = stricterOf(
			own,
			(squads.get(athleteId) ?? []).flatMap((one) =>
				one.id === squad.id ? [] : (withSchool.schools[one.schoolId] ?? []),
			),
		)
		const absent = !history.events.some((event) => event.sessionId === session.id && event.type === 'mark')
		const ladders = [...new Set(sheet.filter((line) => line.athleteId === athleteId).map((line) => line.ladderId))]
		const inputs = ladders.map((ladderId) => {
			const { ladder } = documentsOf(withSchool, ladderId, schoolId)
			const state =
				before.get(stateKey(athleteId, ladderId)) ??
				asJudged.get(stateKey(athleteId, ladderId))?.state ??
				entryState(library, ladderId)
			const input = gatherInput(
				{
					session: judged,
					ladder,
					state,
					level: levelOf(athleteId, ladder.family),
					school: own,
					focus: squad.focus?.[ladderId] ?? null,
					standings: standings.get(athleteId) ?? {},
					contrastHelps: concluded.facts.contrastHelps,
					closures: concluded.facts.closures,
					returning: returningOf(concluded.plan),
					levels: known.levels,
					errors,
				},
				evidence,
				drillOf,
			)
			// What this very session has already moved is no reason against itself.
			return {
				...input,
				...(safety ? { safety } : {}),
				newRungs: input.newRungs.filter(
					(one) => !decided.some((row) => row.athleteId === athleteId && row.ladderId === one.ladderId),
				),
				advancesBefore: [],
			}
		})
		for (const { input, judgement } of judgeAthlete(inputs, (input) =>
			documentsOf(withSchool, input.ladder.id, schoolId),
		))
			proposals.push({
				athleteId,
				ladderId: input.ladder.id,
				judgement,
				input,
				inputHash: hashOf(input),
				absent,
			})
	}
	return proposals
}

/** Lines on ladders of whoever is down for a session: each athlete and ladder of them gets a verdict. */
export async function linesToJudge(
	scope: ClubScope,
	sessionId: string,
): Promise<{ athleteId: string; ladderId: string }[]> {
	const attending = new Set((await readAttending(scope, [sessionId])).map((row) => row.athleteId))
	return (await readLines(scope, [sessionId])).flatMap(({ athleteId, ladderId }) =>
		ladderId !== null && attending.has(athleteId) ? [{ athleteId, ladderId }] : [],
	)
}

/** What was said and done up to the morning after belongs to the judging of a session, and what is worn up to six days from then. */
const LOOKS_AHEAD_DAYS = 7
const upToOf = (day: string) => ({ day: addDays(day, LOOKS_AHEAD_DAYS), marks: addDays(day, 1) })
const nameOf = (session: { id: string; day: string }) => ['proposals', session.id, session.day]

/** What is proposed for a session, kept until something it goes by changes; none for a stranger’s id. Frozen. */
export const readProposals = (scope: ClubScope, sessionId: string, day: string): Promise<Proposal[]> =>
	keptFor(
		scope,
		nameOf({ id: sessionId, day }),
		async (scope) => {
			const session = await readSession(scope, sessionId)
			const squad = session?.day === day ? await readSquad(scope, session.squadId) : null
			return session && squad ? proposeVerdicts(scope, session, squad, await readLibrary(scope)) : []
		},
		upToOf(day),
	)

/** How often anything had changed that proposals of a session go by. */
export const changesOfProposals = (scope: ClubScope, day: string): Promise<Changes> =>
	changesUpTo(scope.db, scope.clubId, upToOf(day).day, upToOf(day).marks)

/**
 * After a decision about some athletes: what is proposed for the others goes by nothing that was decided, and stands.
 *
 * @param before `changesOfProposals`, as the decision saw it
 */
export function keepOtherProposals(
	scope: ClubScope,
	session: SessionRow,
	decided: ReadonlySet<string>,
	before: Changes,
): void {
	mendKept<Proposal[]>(scope, nameOf(session), before, async (all) => {
		const squad = await readSquad(scope, session.squadId)
		if (!squad) return []
		const library = await readLibrary(scope)
		const anew = groupBy(
			await proposeVerdicts(scope, session, squad, library, { only: decided }),
			({ athleteId }) => athleteId,
		)
		// In the order in which they stood.
		const athletes = [...new Set(all.map(({ athleteId }) => athleteId))]
		const stood = groupBy(all, ({ athleteId }) => athleteId)
		return athletes.flatMap((id) => (decided.has(id) ? (anew.get(id) ?? []) : stood.get(id)!))
	})
}
