import type { Library } from '../../core/vocabulary/library'
import { type School, assistedCap } from '../../core/vocabulary/school'
import { evidenceFor, gatherInput } from '../../core/judge/gather-input'
import { judgeAthlete } from '../../core/judge/judge-athlete'
import { entryState } from '../../core/judge/resolve-line'
import type { Judgement, VerdictInput } from '../../core/judge/types'
import type { ClubScope } from '../../db/connect'
import { hashOf } from '../../db/queries/library'
import { type SessionRow, readAttending, readLines } from '../../db/queries/sessions'
import { type SquadRow, readLevels, readStates, squadsOf, stateKey } from '../../db/queries/squads'
import { type VerdictRow, verdictsOfSession } from '../../db/queries/verdicts'
import { concludeFor } from '../../core/permit/plain-facts'
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
 * @param school another school than the squad's, to see what would change
 */
export async function proposeVerdicts(
	scope: ClubScope,
	session: SessionRow,
	squad: SquadRow,
	library: Library,
	school?: School,
): Promise<Proposal[]> {
	const attending = (await readAttending(scope, [session.id])).map((row) => row.athleteId)
	const sheet = (await readLines(scope, [session.id])).filter(
		(line) => line.ladderId !== null && attending.includes(line.athleteId),
	)
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

	return athleteIds.flatMap((athleteId) => {
		const history = histories.get(athleteId)
		if (!history) return []
		const known = facts.get(athleteId)!
		const concluded = concludeFor(known, library)
		const evidence = evidenceFor(session, history, drillOf)
		const own = withSchool.schools[schoolId]
		if (!own) throw new Error(`school ${schoolId} is not in the library`)
		const safety = stricter(
			own,
			(squads.get(athleteId) ?? []).filter((one) => one.id !== squad.id).map((one) => withSchool.schools[one.schoolId]),
		)
		const absent = !history.events.some((event) => event.sessionId === session.id && event.type === 'mark')
		const ladders = [...new Set(sheet.filter((line) => line.athleteId === athleteId).map((line) => line.ladderId!))]
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
				...safety,
				newRungs: input.newRungs.filter(
					(one) => !decided.some((row) => row.athleteId === athleteId && row.ladderId === one.ladderId),
				),
				advancesBefore: [],
			}
		})
		return judgeAthlete(inputs, (input) => documentsOf(withSchool, input.ladder.id, schoolId)).map(
			({ input, judgement }): Proposal => ({
				athleteId,
				ladderId: input.ladder.id,
				judgement,
				input,
				inputHash: hashOf(input),
				absent,
			}),
		)
	})
}

/** An athlete in two squads: the session's school for performance, the stricter number of all their schools for safety. */
function stricter(own: School, all: (School | undefined)[]): Partial<Pick<VerdictInput, 'safety'>> {
	const others = all.filter((one) => one !== undefined && one.id !== own.id) as School[]
	if (others.length === 0) return {}
	const numbers = [own, ...others].map((one) => one.numbers)
	const least = (name: 'rampPercent' | 'highestBoxCm') => Math.min(...numbers.map((one) => one[name]))
	return {
		safety: {
			rampPercent: least('rampPercent'),
			spacingH: Math.max(...numbers.map((one) => one.spacingH)),
			highestBoxCm: least('highestBoxCm'),
			assistedCapPercent: assistedCap([own, ...others]),
		},
	}
}
