import { type Day, addDays, daysBetween, hoursBetween, isBefore, mondayOf } from '../calendar/day-count'
import { ageInYears } from '../calendar/days'
import { type DoseCount, emptyCount } from '../dose/dose-count'
import { type SparseCount, addSparseInto } from '../dose/sparse-count'
import { type DayDose, type RampQuantity, eachQuantity, rampValue } from '../dose/ramp'
import type { Closure } from '../vocabulary/care'
import type { CutShortReason } from '../vocabulary/event-kinds'
import type { LogEvent } from '../vocabulary/events'
import type { Drill } from '../vocabulary/drill'
import type { Region, Family, Level, Phase, Method, Surface } from '../vocabulary/words'
import type { Ladder } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import { type Stamp, betterOf } from '../marks/keep-session'
import { lineKey, markKey } from '../marks/mark-key'
import { readSlowFall } from '../noise/slow-fall'
import type { MarkKind, OwnErrors, SquadErrors } from '../noise/typical-error'
import { type Measured, ownOf } from '../own/own'
import { type SessionMean, defaultsFrom, usualOf } from '../noise/usual'
import { exposureOf, markEvidence, usualName } from './gather-exposure'
import { AWAY_DAYS } from '../rules/p9-time-away'
import { type OutsideLoad, outsideRamp, outsideWork } from './outside-load'
import {
	type Exposure,
	type LadderState,
	type OpenRestriction,
	type OpenWorry,
	RULES_VERSION,
	type VerdictInput,
	type WorkDay,
} from './types'
import type { WorkKind } from '../vocabulary/words'
import type { PlannedLine } from '../vocabulary/line'
import { NEAR_DAYS, kindsOf } from '../dose/work-kinds'

export interface HistorySession {
	id: string
	day: Day
	startTime: string
	phase: Phase
	surface?: Surface | null
}
/** A line of the sheet, on a ladder or not. */
export interface HistoryLine extends PlannedLine {
	id: string
	entryId: string
	sessionId: string
}
/** What is known of one athlete over the last weeks, over all squads. */
export interface AthleteHistory {
	athleteId: string
	birthDate: Day | null
	massKg: number | null
	/** Sessions the athlete was down for, any order. */
	sessions: HistorySession[]
	/** Lines in force in those sessions. */
	lines: HistoryLine[]
	/** Current events (folded) of those sessions. */
	events: LogEvent[]
	/** What each mark cost, stamped when it came in, by event id; without its zeros, as it is stored. */
	counts: Map<string, SparseCount>
	/** What each mark may be compared with, by event id; a mark without is judged as it stands. */
	stamps: ReadonlyMap<string, Stamp>
	/** Session means by comparison key, from twelve weeks before the first session on. */
	means: ReadonlyMap<string, readonly SessionMean[]>
	/** Matches, practice, gym, before and after the judged session. */
	outside: OutsideLoad[]
	care: CareRecord[]
	/** What was measured of the athlete at the bench; absent where nothing was. */
	measured?: readonly Measured[] | undefined
	/** First days on rungs reached lately, by earlier verdicts. */
	newRungs: VerdictInput['newRungs']
}

/** What stands in the way of an athlete, from a day on and until it ended. */
export type CareRecord = { from: Day; until: Day | null } & (
	| ({ kind: 'restriction' } & Pick<OpenRestriction, 'region' | 'pattern' | 'drillId' | 'setBy'>)
	| { kind: 'known'; region: OpenWorry['region'] }
	| { kind: 'worry'; drillId: string; region: OpenWorry['region'] }
	| { kind: 'illness' }
)
/** Whether a record is open on a day; it ends with the day it was closed. */
export const isOpen = (record: CareRecord, day: Day): boolean =>
	record.from <= day && (record.until === null || record.until > day)

export interface NextSession {
	day: Day
	startTime: string
	phase: Phase
	surface: Surface | null
}
export interface JudgedSession extends HistorySession {
	next: NextSession
}

const EXPOSURES_KEPT = 8
const PAIN_DAYS = 28
/** Work further back than this says no more than that it is long ago. */
const WORK_DAYS = 70
const when = (session: Pick<HistorySession, 'day' | 'startTime'>) => session.day + session.startTime

/** What all ladders of one athlete share, worked out once for a judged session. */
export interface Evidence {
	history: AthleteHistory
	/** Up to and with the judged session, oldest first. */
	sessions: HistorySession[]
	linesByLadder: Map<string, HistoryLine[]>
	eventsByEntry: Map<string, LogEvent[]>
	/** Sessions that were ended early, with the entry the athlete was on then. */
	cutShort: Map<string, { entryId: string; reason: CutShortReason }>
	lastSessions: string[]
	pains: VerdictInput['pains']
	/** Answers to "how was it?" of the judged session. */
	answers: NonNullable<VerdictInput['answers']>
	work: WorkDay[]
	/** Counted work, by session. */
	counts: Done['counts']
}

/** What was done in each session of a history: the same for whatever session it is looked at from. */
export interface Done {
	eventsByEntry: Evidence['eventsByEntry']
	/** Counted work, by session. */
	counts: ReadonlyMap<string, DoseCount>
	/** Families and kinds of what was done, by session. */
	work: ReadonlyMap<string, { families: Set<Family>; kinds: Set<WorkKind> }>
}
/** @param counts what each mark cost, by event id; not asked for where only days of work are looked at */
export function doneOf(
	history: Pick<AthleteHistory, 'sessions' | 'lines' | 'events' | 'counts'>,
	drillOf: (id: string, version: number) => Drill,
): Done {
	const ids = new Set(history.sessions.map(({ id }) => id))
	const eventsByEntry = new Map<string, LogEvent[]>()
	const counts = new Map<string, DoseCount>()
	for (const event of history.events) {
		if (!ids.has(event.sessionId)) continue
		if ('entryId' in event && event.entryId) {
			const known = eventsByEntry.get(event.entryId)
			if (known) known.push(event)
			else eventsByEntry.set(event.entryId, [event])
		}
		const count = event.type === 'mark' ? history.counts.get(event.id) : undefined
		if (!count) continue
		const sum = counts.get(event.sessionId) ?? emptyCount()
		addSparseInto(sum, count)
		counts.set(event.sessionId, sum)
	}
	const work = new Map<string, { families: Set<Family>; kinds: Set<WorkKind> }>()
	for (const line of history.lines) {
		if (!ids.has(line.sessionId)) continue
		if (!(eventsByEntry.get(line.entryId) ?? []).some((event) => event.type === 'mark' && event.kind !== 'missed'))
			continue
		const drill = drillOf(line.drillId, line.drillVersion)
		const known = work.get(line.sessionId) ?? { families: new Set<Family>(), kinds: new Set<WorkKind>() }
		known.families.add(drill.family)
		for (const kind of kindsOf(drill, line.parameters)) known.kinds.add(kind)
		work.set(line.sessionId, known)
	}
	return { eventsByEntry, counts, work }
}

const upTo = (
	session: Pick<HistorySession, 'day' | 'startTime'>,
	{ sessions }: Pick<AthleteHistory, 'sessions'>,
): HistorySession[] =>
	sessions.filter((candidate) => when(candidate) <= when(session)).sort((a, b) => (when(a) < when(b) ? -1 : 1))

/** Days of work lately, as they are for a session; later ones are left out. */
export function workFor(
	session: Pick<HistorySession, 'day' | 'startTime'>,
	history: Pick<AthleteHistory, 'sessions' | 'outside'>,
	work: Done['work'],
): WorkDay[] {
	const recent = (day: Day) => daysBetween(day, session.day) <= WORK_DAYS
	return [
		...upTo(session, history)
			.filter((one) => recent(one.day))
			.flatMap((one) => {
				const own = work.get(one.id)
				return own
					? [
							{
								day: one.day,
								startTime: one.startTime,
								families: [...own.families].sort(),
								kinds: [...own.kinds].sort(),
								outside: false,
							},
						]
					: []
			}),
		...history.outside.filter((one) => one.day <= session.day && recent(one.day)).map(outsideWork),
	].sort((a, b) => (isBefore(a, b) ? -1 : 1))
}

/** Sorts what is known of an athlete for the judging of one session; later sessions are left out. */
export function evidenceFor(
	session: HistorySession,
	history: AthleteHistory,
	drillOf: (id: string, version: number) => Drill,
): Evidence {
	const done = doneOf(history, drillOf)
	const sessions = upTo(session, history)
	const byId = new Map(sessions.map((candidate) => [candidate.id, candidate]))
	const attended = new Set<string>()
	const ends = new Map<string, CutShortReason>()
	const last = new Map<string, { entryId: string; at: string }>()
	const pains: VerdictInput['pains'] = []
	const answers: Evidence['answers'] = []
	for (const event of history.events) {
		const at = byId.get(event.sessionId)
		if (!at) continue
		if (event.type !== 'decision') attended.add(at.id)
		if (event.kind === 'cut-short') ends.set(at.id, event.value.reason)
		if (event.type === 'mark' && event.deviceTime >= (last.get(at.id)?.at ?? ''))
			last.set(at.id, { entryId: event.entryId, at: event.deviceTime })
		if (event.type === 'observation' && event.kind === 'pain' && daysBetween(at.day, session.day) <= PAIN_DAYS) {
			const { region, side, score, redFlag } = event.value
			pains.push({ sessionId: at.id, day: at.day, region, side, score, redFlag })
		}
		if (event.type === 'observation' && event.kind === 'quiet' && at.id === session.id) {
			const { region, side, score } = event.value
			answers.push({ region, side, score })
		}
	}
	const linesByLadder = new Map<string, HistoryLine[]>()
	for (const line of history.lines) {
		if (!byId.has(line.sessionId) || line.ladderId === null) continue
		const own = linesByLadder.get(line.ladderId)
		if (own) own.push(line)
		else linesByLadder.set(line.ladderId, [line])
	}
	return {
		work: workFor(session, history, done.work),
		counts: done.counts,
		history,
		sessions,
		linesByLadder,
		eventsByEntry: done.eventsByEntry,
		cutShort: new Map(
			[...ends].flatMap(([id, reason]) => {
				const on = last.get(id)
				return on ? [[id, { entryId: on.entryId, reason }] as const] : []
			}),
		),
		lastSessions: sessions
			.filter((candidate) => attended.has(candidate.id))
			.slice(-3)
			.map((candidate) => candidate.id),
		answers: answers.sort(
			(a, b) => a.region.localeCompare(b.region) || a.side.localeCompare(b.side) || a.score - b.score,
		),
		pains: pains.sort(
			(a, b) =>
				a.day.localeCompare(b.day) ||
				a.region.localeCompare(b.region) ||
				a.side.localeCompare(b.side) ||
				a.score - b.score ||
				Number(a.redFlag) - Number(b.redFlag),
		),
	}
}

export interface GatherContext {
	session: JudgedSession
	ladder: Ladder
	state: LadderState
	level: Level
	school: School
	focus: VerdictInput['focus']
	/** Rungs passed, by ladder. */
	standings: VerdictInput['standings']
	contrastHelps?: boolean
	/** The squad's own typical errors by drill, where it has any. */
	errors?: SquadErrors | undefined
	/** What is closed, spared and noted for the next session, folded over everything that was said. */
	closures: readonly Closure[]
	/** Regions of the way back the athlete is on. */
	returning: readonly Region[]
	levels: Partial<Record<Family, Level>>
}

/** The whole input of one verdict, from what was planned and logged. */
export function gatherInput(
	{
		session,
		ladder,
		state,
		level,
		school,
		focus,
		standings,
		contrastHelps = false,
		errors,
		closures,
		returning,
		levels,
	}: GatherContext,
	evidence: Evidence,
	drillOf: (id: string, version: number) => Drill,
): VerdictInput {
	const { history } = evidence
	const exposures: Exposure[] = []
	const own = evidence.linesByLadder.get(ladder.id) ?? []
	const lineOf = new Map(own.map((line) => [line.sessionId, line]))
	const family = evidence.work.filter((work) => work.families.includes(ladder.family))
	for (const at of evidence.sessions.filter((one) => lineOf.has(one.id)).slice(-EXPOSURES_KEPT)) {
		const line = lineOf.get(at.id)!
		const drill = drillOf(line.drillId, line.drillVersion)
		const rungDrill = ladder.rungs.find((rung) => rung.id === line.rungId)?.drillId ?? null
		const last = family.filter((work) => work.day < at.day).at(-1)
		const firstDayBack = last !== undefined && daysBetween(last.day, at.day) > AWAY_DAYS.none
		const events = evidence.eventsByEntry.get(line.entryId) ?? []
		const likes = likenessOf(line, drill, at)
		const isLike = (event: LogEvent) => {
			const stamp = history.stamps.get(event.id)
			return !stamp || (!stamp.setAside && stamp.key === likes([event])[0]?.key)
		}
		const usual = usualBefore(history, likes(events), at.day, errors?.[drill.id])
		// What somebody had left behind before the session was ended, the end did not take from them.
		const cut = evidence.cutShort.get(at.id)
		const cutShort = cut?.entryId === line.entryId ? cut.reason : null
		const exposure = exposureOf(at, line, drill, rungDrill, events, usual, isLike, firstDayBack, cutShort)
		exposures.push(
			exposure.marks.length > 0 ? { ...exposure, like: lineKey(drill, line.parameters, howOf(line, at)) } : exposure,
		)
	}
	const latest = lineOf.get(session.id)
	const slowFall = latest
		? slowFallOf(
				history,
				likenessOf(
					latest,
					drillOf(latest.drillId, latest.drillVersion),
					session,
				)(evidence.eventsByEntry.get(latest.entryId) ?? []),
				session.day,
				errors?.[latest.drillId],
			)
		: null
	const { next, day } = session
	const open = history.care.filter((record) => isOpen(record, next.day))
	const onRung = errors?.[ladder.rungs.find((rung) => rung.id === state.rungId)?.drillId ?? '']
	const { bestBox } = ownOf(history.measured ?? [], school.numbers.sprintGoalMs / 1000, next.day)
	const accepted = open.flatMap((record) => (record.kind === 'known' ? [record.region] : []))
	return {
		rulesVersion: RULES_VERSION,
		sessionId: session.id,
		day,
		startTime: session.startTime,
		next: {
			day: next.day,
			startTime: next.startTime,
			phase: next.phase,
			surface: next.surface,
			...matchesAround(history.outside, next),
		},
		athlete: {
			id: history.athleteId,
			level,
			ageYears: history.birthDate === null ? null : ageInYears(history.birthDate, next.day),
			massKg: history.massKg,
			unwell: open.some((record) => record.kind === 'illness'),
			contrastHelps,
		},
		ladder: { id: ladder.id, version: ladder.version },
		school: { id: school.id, version: school.version },
		state,
		focus,
		standings,
		exposures,
		restrictions: open.flatMap((record) =>
			record.kind === 'restriction'
				? [
						{
							region: record.region,
							pattern: record.pattern,
							...(record.drillId ? { drillId: record.drillId } : {}),
							since: record.from,
							setBy: record.setBy,
						},
					]
				: [],
		),
		worries: open.flatMap((record) =>
			record.kind === 'worry' ? [{ drillId: record.drillId, region: record.region, since: record.from }] : [],
		),
		pains: evidence.pains,
		...(accepted.length > 0 ? { accepted } : {}),
		// Only who is asked has answers: whoever nothing is to be asked of is judged as before.
		...(returning.length > 0 ? { returning: [...returning].sort() } : {}),
		...(evidence.answers.length > 0 ? { answers: evidence.answers } : {}),
		closures: [...closures],
		levels,
		...(slowFall ? { slowFall } : {}),
		...(bestBox ? { bestBox } : {}),
		...(onRung ? { errors: onRung } : {}),
		lastSessions: evidence.lastSessions,
		work: [
			...evidence.work.slice(-20),
			// What is known to come outside near the next session is as near to it.
			...history.outside.filter((one) => one.day > day && one.day <= addDays(next.day, NEAR_DAYS)).map(outsideWork),
		],
		newRungs: history.newRungs,
		advancesBefore: [],
		// What is known to come in the week of the next session takes its share of that week.
		ramp: eachQuantity((quantity) => [
			...rampDays(quantity, evidence.sessions, evidence.counts),
			...outsideRamp(quantity, history.outside, addDays(mondayOf(next.day), 6)),
		]),
	}
}

/** Hours to the next match and since the last one, start to start; null when there is none within a week. */
export function matchesAround(
	outside: readonly OutsideLoad[],
	at: { day: Day; startTime: string },
): { hoursToMatch: number | null; hoursSinceMatch: number | null } {
	const hours = outside
		.filter((one) => one.kind === 'match' || one.kind === 'tournament')
		.map((one) => hoursBetween(at, one))
		.filter((value) => Math.abs(value) <= 168)
	const [ahead, behind] = [hours.filter((value) => value > 0), hours.filter((value) => value <= 0)]
	return {
		hoursToMatch: ahead.length > 0 ? Math.min(...ahead) : null,
		hoursSinceMatch: behind.length > 0 ? -Math.max(...behind) : null,
	}
}

/** How the marks of a line were taken: one for each method and side. */
interface Like {
	name: string
	key: string
	kind: MarkKind
	method: Method
}
/** What the marks of a line may be compared with, had they been made as the line says. */
/** What line and ground say of how a mark was made. */
const howOf = (line: HistoryLine, at: HistorySession) => ({
	surface: at.surface ?? null,
	carried: line.carried,
	aid: line.aid,
})
const likenessOf =
	(line: HistoryLine, drill: Drill, at: HistorySession) =>
	(events: readonly LogEvent[]): Like[] => {
		const likes = new Map<string, Like>()
		for (const event of events) {
			const mark = markEvidence(event, line.parameters.distanceM)
			if (!mark) continue
			const name = usualName(mark)
			if (likes.has(name)) continue
			const key = markKey(drill, line.parameters, {
				kind: mark.kind,
				method: mark.method,
				side: mark.side,
				...howOf(line, at),
			})
			likes.set(name, { name, key, kind: mark.kind, method: mark.method })
		}
		return [...likes.values()]
	}

function usualBefore(
	history: AthleteHistory,
	likes: readonly Like[],
	day: Day,
	errors: OwnErrors | undefined,
): NonNullable<Exposure['usual']> {
	return Object.fromEntries(
		likes.flatMap(({ name, key, kind, method }) => {
			const usual = usualOf(history.means.get(key) ?? [], day, kind, method, defaultsFrom(errors, kind, method))
			return usual ? [[name, usual] as const] : []
		}),
	)
}

/** The worst of the keys of the judged line; a side has its own. */
function slowFallOf(
	history: AthleteHistory,
	likes: readonly Like[],
	day: Day,
	errors: OwnErrors | undefined,
): VerdictInput['slowFall'] | null {
	const [worst] = likes
		.flatMap(({ key, kind, method }) => {
			const fall = readSlowFall(
				history.means.get(key) ?? [],
				day,
				kind,
				method,
				betterOf(kind),
				defaultsFrom(errors, kind, method),
			)
			return fall ? [{ kind, percent: fall.percent, fallen: fall.fallen }] : []
		})
		.sort((a, b) => Number(b.fallen) - Number(a.fallen) || b.percent - a.percent)
	return worst ?? null
}

function rampDays(
	quantity: RampQuantity,
	sessions: readonly HistorySession[],
	counts: ReadonlyMap<string, DoseCount>,
): DayDose[] {
	return sessions.flatMap((session) => {
		const count = counts.get(session.id)
		const value = count ? rampValue(count, quantity) : 0
		return value > 0 ? [{ day: session.day, unloading: session.phase === 'unloading', value }] : []
	})
}
