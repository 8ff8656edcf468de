import { type Day, ageInYears } from '../calendar/days'
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
const inOrder = (a: HistorySession, b: HistorySession) => (a.day + a.startTime < b.day + b.startTime ? -1 : 1)

/** The whole input of one verdict, from what was planned and logged. */
export function gatherInput(
	session: JudgedSession,
	ladder: Ladder,
	state: LadderState,
	level: Level,
	school: School,
	history: AthleteHistory,
	drillOf: (id: string, version: number) => Drill,
): VerdictInput {
	const upTo = history.sessions.filter((candidate) => candidate.day + candidate.startTime <= session.day + session.startTime).sort(inOrder)
	const sessionById = new Map(upTo.map((candidate) => [candidate.id, candidate]))
	const attended = upTo.filter((candidate) => history.events.some((event) => event.sessionId === candidate.id && event.type !== 'decision'))

	const exposures: Exposure[] = []
	for (const at of upTo) {
		const line = history.lines.find((candidate) => candidate.sessionId === at.id && candidate.ladderId === ladder.id)
		if (!line) continue
		const rungDrill = rungOf(ladder, line.rungId).rung.drillId
		const drill = drillOf(line.drillId, line.drillVersion)
		const events = history.events.filter((event) => 'entryId' in event && event.entryId === line.entryId)
		exposures.push(exposureOf(at, line, drill, rungDrill, events, bestBefore(history, sessionById, drill, line.parameters.distanceM, at.day)))
	}
	const pains = history.events.flatMap((event) => {
		const at = sessionById.get(event.sessionId)
		if (!at || event.type !== 'observation' || event.kind !== 'pain') return []
		const { region, side, score, redFlag } = event.value
		return [{ sessionId: at.id, day: at.day, region, side, score, redFlag }]
	}).filter((pain) => daysAgo(pain.day, session.day) <= PAIN_DAYS).sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.score - b.score))

	return {
		rulesVersion: RULES_VERSION,
		sessionId: session.id,
		day: session.day,
		nextDay: session.nextDay,
		nextPhase: session.nextPhase,
		athlete: { id: history.athleteId, level, ageYears: history.birthDate === null ? null : ageInYears(history.birthDate, session.day) },
		ladder: { id: ladder.id, version: ladder.version },
		school: { id: school.id, version: school.version },
		state,
		exposures: exposures.slice(-EXPOSURES_KEPT),
		pains,
		lastSessions: attended.slice(-3).map((candidate) => candidate.id),
		ramp: rampDays(history, sessionById),
	}
}

const daysAgo = (day: Day, now: Day) => (Date.parse(now) - Date.parse(day)) / 86_400_000

/** Own best before a day over the drill's start and distance, by method. */
function bestBefore(history: AthleteHistory, sessions: Map<string, HistorySession>, drill: Drill, distanceM: number | undefined, day: Day): Exposure['bestBefore'] {
	const best: Partial<Record<Method, number>> = {}
	if (distanceM === undefined || drill.start === undefined) return best
	const offer = (method: Method, timeS: number) => {
		best[method] = Math.min(best[method] ?? Number.POSITIVE_INFINITY, timeS)
	}
	for (const known of history.olderBests) if (known.start === drill.start && known.distanceM === distanceM) offer(known.method, known.timeS)
	const startByEntry = new Map(history.lines.map((line) => [line.entryId, line]))
	for (const event of history.events) {
		if (event.type !== 'mark' || event.kind !== 'sprint') continue
		const at = sessions.get(event.sessionId)
		const line = startByEntry.get(event.entryId)
		const last = event.value.splits.at(-1)
		// Only ladder lines tell the start here; the same drill is the same start.
		if (!at || !last || at.day >= day || last.distanceM !== distanceM || line?.drillId !== drill.id) continue
		offer(event.value.method, last.timeS)
	}
	return best
}

function rampDays(history: AthleteHistory, sessions: Map<string, HistorySession>): Record<RampQuantity, DayDose[]> {
	const bySession = new Map<string, DoseCount>()
	for (const event of history.events) {
		const count = history.counts.get(event.id)
		if (event.type === 'mark' && count && sessions.has(event.sessionId)) bySession.set(event.sessionId, addCounts(bySession.get(event.sessionId) ?? emptyCount(), count))
	}
	const read = (quantity: RampQuantity): DayDose[] =>
		[...bySession].flatMap(([id, count]) => {
			const at = sessions.get(id)
			const value = rampValue(count, quantity)
			return at && value > 0 ? [{ day: at.day, unloading: at.phase === 'unloading', value }] : []
		}).sort((a, b) => (a.day < b.day ? -1 : 1))
	return Object.fromEntries((Object.keys(RAMP_NAMES) as RampQuantity[]).map((quantity) => [quantity, read(quantity)])) as Record<RampQuantity, DayDose[]>
}
