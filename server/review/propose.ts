import { addDays, nextTrainingDay } from '../../core/calendar/days'
import { fromSparse } from '../../core/dose/sparse-count'
import { foldEvents } from '../../core/events/fold'
import type { Library, Phase } from '../../core/library/types'
import { type AthleteHistory, type Evidence, evidenceFor, gatherInput } from '../../core/progress/gather-input'
import { judge } from '../../core/progress/judge'
import { entryState } from '../../core/progress/resolve-line'
import type { Documents, Judgement, VerdictInput } from '../../core/progress/types'
import type { ClubScope } from '../../db/connect'
import { type StoredEvent, bestTimesBefore, eventsOfSessions } from '../../db/queries/log'
import { hashOf, readDrills } from '../../db/queries/library'
import { type SessionRow, ladderLinesOf, readAttending, recentSessionsOf, unstartedAfter } from '../../db/queries/sessions'
import { type SquadRow, readAthletes, readLevels, readStates, stateKey } from '../../db/queries/squads'
import { plannedOf } from '../sheet/write-lines'

/** Weeks of history a verdict looks at: the four weeks of the ramp with room for an unloading week and one missed. */
const WINDOW_DAYS = 56

export interface Proposal {
	athleteId: string
	ladderId: string
	judgement: Judgement
	input: VerdictInput
	inputHash: string
}

/** Documents an input cites. */
export const documentsOf = (library: Library, ladderId: string, schoolId: string): Documents => {
	const [ladder, school] = [library.ladders[ladderId], library.schools[schoolId]]
	if (!ladder || !school) throw new Error(`ladder ${ladderId} or school ${schoolId} is not in the library`)
	return { ladder, school, drills: library.drills }
}

/** A verdict for every athlete and ladder on the session's sheet, from what is known now. Nothing is written. */
export async function proposeVerdicts(scope: ClubScope, session: SessionRow, squad: SquadRow, library: Library): Promise<Proposal[]> {
	const from = addDays(session.day, -WINDOW_DAYS)
	const sheet = (await ladderLinesOf(scope, (await readAttending(scope, [session.id])).map((row) => row.athleteId), session.day, session.day)).filter((row) => row.session.id === session.id)
	const athleteIds = [...new Set(sheet.map((row) => row.line.athleteId))]
	const evidences = new Map([...(await readHistories(scope, athleteIds, from, session.day))].map(([id, history]): [string, Evidence] => [id, evidenceFor(session, history)]))
	const [levelOf, states] = [await readLevels(scope, athleteIds), await readStates(scope, athleteIds)]
	const drills = await readDrills(scope, Object.keys(library.drills))
	const drillOf = (id: string, version: number) => {
		const drill = drills.get(`${id}/${version}`)
		if (!drill) throw new Error(`drill ${id} version ${version} is not in the library`)
		return drill
	}
	const next = await nextSessionDay(scope, session, squad)
	const judged = { id: session.id, day: session.day, startTime: session.startTime, phase: session.phase, nextDay: next.day, nextPhase: next.phase }
	return sheet.flatMap(({ line }) => {
		const evidence = evidences.get(line.athleteId)
		if (!line.ladderId || !evidence) return []
		const documents = documentsOf(library, line.ladderId, squad.schoolId)
		const state = states.get(stateKey(line.athleteId, line.ladderId))?.state ?? entryState(library, line.ladderId)
		const input = gatherInput(judged, documents.ladder, state, levelOf(line.athleteId, documents.ladder.family), documents.school, evidence, drillOf)
		return [{ athleteId: line.athleteId, ladderId: line.ladderId, judgement: judge(input, documents), input, inputHash: hashOf(input) }]
	})
}

async function nextSessionDay(scope: ClubScope, session: SessionRow, squad: SquadRow): Promise<{ day: string; phase: Phase }> {
	const [next] = await unstartedAfter(scope, session)
	if (next) return { day: next.day, phase: next.phase }
	return { day: nextTrainingDay(session.day, squad.trainingDays.length > 0 ? squad.trainingDays : [1, 2, 3, 4, 5, 6, 7]), phase: squad.phase }
}

async function readHistories(scope: ClubScope, athleteIds: string[], from: string, to: string): Promise<Map<string, AthleteHistory>> {
	const [athletes, recent, lines, bests] = [
		await readAthletes(scope, athleteIds),
		await recentSessionsOf(scope, athleteIds, to, WINDOW_DAYS),
		await ladderLinesOf(scope, athleteIds, from, to),
		await bestTimesBefore(scope, athleteIds, from),
	]
	const { current, conflicts } = foldEvents(await eventsOfSessions(scope, [...new Set(recent.map((row) => row.session.id))]))
	const byAthlete = new Map<string, StoredEvent[]>(athleteIds.map((id) => [id, []]))
	for (const event of [...current, ...conflicts.flatMap(worstPain)]) byAthlete.get(event.athleteId)?.push(event)
	return new Map(athletes.map((athlete) => {
		const own = byAthlete.get(athlete.id) ?? []
		return [athlete.id, {
			athleteId: athlete.id,
			birthDate: athlete.birthDate,
			sessions: recent.filter((row) => row.athleteId === athlete.id).map(({ session }) => session),
			lines: lines.flatMap(({ line }) => {
				const planned = plannedOf(line)
				return line.athleteId === athlete.id && planned && line.ladderId && line.rungId ? [{ ...planned, id: line.id, entryId: line.entryId, sessionId: line.sessionId, ladderId: line.ladderId, rungId: line.rungId }] : []
			}),
			events: own,
			counts: new Map(own.flatMap((event) => (event.counts ? [[event.id, fromSparse(event.counts)] as const] : []))),
			olderBests: bests.filter((best) => best.athleteId === athlete.id),
		}]
	}))
}

/** Contradicting corrections are no evidence, but of two pain reports the worse one counts. */
function worstPain(heads: StoredEvent[]): StoredEvent[] {
	const pains = heads.filter((event) => event.type === 'observation' && event.kind === 'pain' && !event.void)
	const score = (event: StoredEvent) => (event.kind === 'pain' ? event.value.score : -1)
	return pains.sort((a, b) => score(b) - score(a)).slice(0, 1)
}
