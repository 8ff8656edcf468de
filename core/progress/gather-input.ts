import { type Day, ageInYears, daysBetween } from '../calendar/days'
import { type DoseCount, addCounts, emptyCount } from '../dose/dose-count'
import { RAMP_NAMES, type DayDose, type RampQuantity, rampValue } from '../dose/ramp'
import type { LogEvent } from '../events/schema'
import { rungOf } from '../library/starter-library'
import type { Drill, Ladder, Level, Phase, School } from '../library/types'
import type { Method } from '../noise/typical-error'
import { exposureOf } from './gather-exposure'
import { type Exposure, type LadderState, type PlannedLine, RULES_VERSION, type VerdictInput } from './types'

export interface HistorySession {
	id: string
	day: Day
	startTime: string
	phase: Phase
}
export interface HistoryLine extends PlannedLine {
	id: string
	entryId: string
	sessionId: string
	ladderId: string
	rungId: string
}
export interface KnownTime {
	start: string | null
	distanceM: number
	method: Method
	timeS: number
}

/** What is known of one athlete over the last weeks, over all squads. */
export interface AthleteHistory {
	athleteId: string
	birthDate: Day | null
	/** Sessions the athlete was down for, any order. */
	sessions: HistorySession[]
	/** Ladder lines in force in those sessions. */
	lines: HistoryLine[]
	/** Current events (folded) of those sessions. */
	events: LogEvent[]
	/** What each mark cost, stamped when it came in, by event id. */
	counts: Map<string, DoseCount>
	/** Best times from before the window the events cover. */
	olderBests: KnownTime[]
}

export interface JudgedSession extends HistorySession {
	nextDay: Day
	nextPhase: Phase
}

const EXPOSURES_KEPT = 8
const PAIN_DAYS = 28
const when = (session: HistorySession) => session.day + session.startTime

/** What all ladders of one athlete share, worked out once for a judged session. */
export interface Evidence {
	athleteId: string
	birthDate: Day | null
	/** Up to and with the judged session, oldest first. */
	sessions: HistorySession[]
	lines: HistoryLine[]
	eventsByEntry: Map<string, LogEvent[]>
	lastSessions: string[]
	pains: VerdictInput['pains']
	ramp: VerdictInput['ramp']
	olderBests: KnownTime[]
}

/** Sorts what is known of an athlete for the judging of one session; later sessions are left out. */
export function evidenceFor(session: HistorySession, history: AthleteHistory): Evidence {
	const sessions = history.sessions.filter((candidate) => when(candidate) <= when(session)).sort((a, b) => (when(a) < when(b) ? -1 : 1))
	const byId = new Map(sessions.map((candidate) => [candidate.id, candidate]))
	const attended = new Set<string>()
	const eventsByEntry = new Map<string, LogEvent[]>()
	const counts = new Map<string, DoseCount>()
	const pains: VerdictInput['pains'] = []
	for (const event of history.events) {
		const at = byId.get(event.sessionId)
		if (!at) continue
		if (event.type !== 'decision') attended.add(at.id)
		if ('entryId' in event && event.entryId) {
			const known = eventsByEntry.get(event.entryId)
			if (known) known.push(event)
			else eventsByEntry.set(event.entryId, [event])
		}
		const count = event.type === 'mark' ? history.counts.get(event.id) : undefined
		if (count) counts.set(at.id, addCounts(counts.get(at.id) ?? emptyCount(), count))
		if (event.type === 'observation' && event.kind === 'pain' && daysBetween(at.day, session.day) <= PAIN_DAYS) {
			const { region, side, score, redFlag } = event.value
			pains.push({ sessionId: at.id, day: at.day, region, side, score, redFlag })
		}
	}
	return {
		athleteId: history.athleteId,
		birthDate: history.birthDate,
		sessions,
		lines: history.lines.filter((line) => byId.has(line.sessionId)),
		eventsByEntry,
		lastSessions: sessions.filter((candidate) => attended.has(candidate.id)).slice(-3).map((candidate) => candidate.id),
		pains: pains.sort((a, b) => a.day.localeCompare(b.day) || a.region.localeCompare(b.region) || a.side.localeCompare(b.side) || a.score - b.score || Number(a.redFlag) - Number(b.redFlag)),
		ramp: Object.fromEntries((Object.keys(RAMP_NAMES) as RampQuantity[]).map((quantity) => [quantity, rampDays(quantity, sessions, counts)])) as VerdictInput['ramp'],
		olderBests: history.olderBests,
	}
}

/** The whole input of one verdict, from what was planned and logged. */
export function gatherInput(session: JudgedSession, ladder: Ladder, state: LadderState, level: Level, school: School, evidence: Evidence, drillOf: (id: string, version: number) => Drill): VerdictInput {
	const exposures: Exposure[] = []
	const own = evidence.lines.filter((line) => line.ladderId === ladder.id)
	for (const at of evidence.sessions) {
		const line = own.find((candidate) => candidate.sessionId === at.id)
		if (!line) continue
		const drill = drillOf(line.drillId, line.drillVersion)
		const rungDrill = rungOf(ladder, line.rungId).rung.drillId
		exposures.push(exposureOf(at, line, drill, rungDrill, evidence.eventsByEntry.get(line.entryId) ?? [], bestBefore(evidence, own, drill, line.parameters.distanceM, at.day)))
	}
	return {
		rulesVersion: RULES_VERSION,
		sessionId: session.id,
		day: session.day,
		nextDay: session.nextDay,
		nextPhase: session.nextPhase,
		athlete: { id: evidence.athleteId, level, ageYears: evidence.birthDate === null ? null : ageInYears(evidence.birthDate, session.day) },
		ladder: { id: ladder.id, version: ladder.version },
		school: { id: school.id, version: school.version },
		state,
		exposures: exposures.slice(-EXPOSURES_KEPT),
		pains: evidence.pains,
		lastSessions: evidence.lastSessions,
		ramp: evidence.ramp,
	}
}

/** Own best before a day over the drill's start and distance, by method. Only lines of the same drill compare. */
function bestBefore(evidence: Evidence, lines: readonly HistoryLine[], drill: Drill, distanceM: number | undefined, day: Day): Exposure['bestBefore'] {
	const best: Partial<Record<Method, number>> = {}
	if (distanceM === undefined || drill.start === undefined) return best
	const offer = (method: Method, timeS: number) => {
		best[method] = Math.min(best[method] ?? Number.POSITIVE_INFINITY, timeS)
	}
	for (const known of evidence.olderBests) if (known.start === drill.start && known.distanceM === distanceM) offer(known.method, known.timeS)
	const dayOf = new Map(evidence.sessions.map((session) => [session.id, session.day]))
	for (const line of lines) {
		if (line.drillId !== drill.id || line.parameters.distanceM !== distanceM || (dayOf.get(line.sessionId) ?? day) >= day) continue
		for (const event of evidence.eventsByEntry.get(line.entryId) ?? []) {
			if (event.type !== 'mark' || event.kind !== 'sprint') continue
			const last = event.value.splits.at(-1)
			if (last?.distanceM === distanceM) offer(event.value.method, last.timeS)
		}
	}
	return best
}

function rampDays(quantity: RampQuantity, sessions: readonly HistorySession[], counts: Map<string, DoseCount>): DayDose[] {
	return sessions.flatMap((session) => {
		const count = counts.get(session.id)
		const value = count ? rampValue(count, quantity) : 0
		return value > 0 ? [{ day: session.day, unloading: session.phase === 'unloading', value }] : []
	})
}
