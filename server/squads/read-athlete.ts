import { addDays, ageInYears } from '../../core/calendar/days'
import { foldEvents } from '../../core/events/fold'
import { rungOf } from '../../core/library/starter-library'
import { START_NAMES, type Start } from '../../core/library/types'
import { lockOf } from '../../core/progress/locks'
import { entryState } from '../../core/progress/resolve-line'
import type { ClubScope } from '../../db/connect'
import { bestTimesBefore, eventsOfSessions } from '../../db/queries/log'
import { readLibrary } from '../../db/queries/library'
import { readLines, readSession, recentSessionsOf, unstartedFor } from '../../db/queries/sessions'
import { listMembers, listSquads, readAthletes, readLevels, readStates, stateKey } from '../../db/queries/squads'
import { clearancesOf, verdictsOfAthlete } from '../../db/queries/verdicts'
import { readMeasurements } from '../bench/read-measurements'
import { plannedOf, writeLine } from '../sheet/write-lines'

/** An athlete's page as a story: now, numbers, ladders, history, care. Null for a stranger's id. */
export async function readAthletePage(scope: ClubScope, athleteId: string, today: string) {
	const [athlete] = await readAthletes(scope, [athleteId])
	if (!athlete) return null
	const [library, levelOf, states, members, squads] = [await readLibrary(scope), await readLevels(scope, [athleteId]), await readStates(scope, [athleteId]), await listMembers(scope), await listSquads(scope)]
	const own = new Set(members.filter((member) => member.id === athleteId).map((member) => member.squadId))
	const squad = squads.find((candidate) => own.has(candidate.id))
	const school = library.schools[squad?.schoolId ?? 'quality-first']
	if (!school) throw new Error(`school ${squad?.schoolId} is not in the library`)
	const ageYears = athlete.birthDate === null ? null : ageInYears(athlete.birthDate, today)

	const ladders = Object.values(library.ladders).map((ladder) => {
		const known = states.get(stateKey(athleteId, ladder.id))?.state
		const state = known ?? entryState(library, ladder.id)
		const { index, rung } = rungOf(ladder, state.rungId)
		const context = { level: levelOf(athleteId, ladder.family), ageYears, phase: squad?.phase ?? ('accumulate' as const), school }
		return { id: ladder.id, name: ladder.name, family: ladder.family, met: known !== undefined, state, index, rungName: rung.name, rungs: ladder.rungs.map((item) => ({ id: item.id, name: item.name, lock: lockOf(item, context) })) }
	})

	const [next] = await unstartedFor(scope, [athleteId], today)
	const nextSession = next ? await readSession(scope, next.id) : null
	const nextLines = next ? (await readLines(scope, [next.id])).filter((line) => line.athleteId === athleteId) : []
	const events = foldEvents(await eventsOfSessions(scope, (await recentSessionsOf(scope, [athleteId], today, 70)).map((row) => row.session.id)))
	const pains = [...events.current, ...events.conflicts.flat()].flatMap((event) => (event.athleteId === athleteId && event.type === 'observation' && event.kind === 'pain' && !event.void ? [{ id: event.id, at: event.deviceTime, ...event.value }] : []))
	return {
		athlete, ageYears,
		squadNames: squads.filter((candidate) => own.has(candidate.id)).map((candidate) => candidate.name),
		levels: (['sprint', 'agility', 'plyometric', 'throw'] as const).map((family) => ({ family, level: levelOf(athleteId, family) })),
		ladders,
		next: nextSession ? { id: nextSession.id, day: nextSession.day, startTime: nextSession.startTime, squadName: nextSession.squadName, lines: nextLines.filter((line) => line.ladderId !== null).map((line) => ({ id: line.id, words: line.blocked ?? writeLine(plannedOf(line), library), change: line.change })) } : null,
		bests: (await bestTimesBefore(scope, [athleteId], addDays(today, 1))).map((best) => ({ ...best, name: START_NAMES[best.start as Start] ?? 'Sprint' })).sort((a, b) => a.name.localeCompare(b.name) || a.distanceM - b.distanceM),
		verdicts: (await verdictsOfAthlete(scope, athleteId, 60)).filter((row) => row.decided !== 'hold' || row.reason !== null).slice(0, 16).map((row) => ({ id: row.id, day: row.day, ladderName: library.ladders[row.ladderId]?.name ?? row.ladderId, decided: row.decided, sentence: row.sentence, reason: row.reason, painful: row.judgement.decidedBy === 'S1' })),
		pains: pains.sort((a, b) => (a.at < b.at ? 1 : -1)),
		measured: await readMeasurements(scope, athleteId),
		clearances: await clearancesOf(scope, athleteId),
	}
}
