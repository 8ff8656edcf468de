import type { LogEvent, Mark } from '../../vocabulary/events'
import type { Drill } from '../../vocabulary/drill'
import { type LineProgress, isNext, nextInQueue } from '../line-progress'
import { type Advice, drillOn, liveAdvice } from '../live-advice'
import type { FieldAthlete, FieldEntry, FieldSheet } from '../pack'
import { type Move, lastMove } from './moves'
import { type Asked, type Field, ofLine } from './read-field'
import type { Tap } from './taps'

/** What whoever holds the phone chose, beside what is logged. */
export interface Cursor {
	entryId: string
	/** On the line; null for whoever is next. */
	athleteId: string | null
	/** 0 shows everybody. */
	group: number
	/** What can be taken back, newest last; null before the first tap, when it is what the device wrote last. */
	moves: readonly Move[] | null
	/** A tap that is about several athletes, and waits for a second one. */
	asking: { tap: Tap; words: string } | null
	/** Asks put off: athlete, region, side. */
	later: readonly string[]
	/** Whose report was just kept; its event is null where the report is an answer that was noted. */
	hurt: { athleteId: string; event: LogEvent | null } | null
}

/** Where a phone stands when it opens a session: at the first drill that is more than preparation. */
export function opened({ entries, lines }: Pick<FieldSheet, 'entries' | 'lines'>): Cursor {
	const working = entries.find(({ id }) => lines.some((line) => line.entryId === id && line.family !== 'prepare'))
	return {
		entryId: (working ?? entries[0])?.id ?? '',
		athleteId: null,
		group: 0,
		moves: null,
		asking: null,
		later: [],
		hurt: null,
	}
}

/** Somebody on the line, and what a tap there is about. */
export interface OnLine {
	progress: LineProgress
	athlete: FieldAthlete
	/** What is done: the line's drill, or the one swapped in. */
	drill: Drill | undefined
	/** Whether a number is taken. A drill swapped in is judged by eye: its numbers are another drill's. */
	measured: boolean
	advice: Advice
}

/** All that is drawn. */
export interface Stand extends Field {
	cursor: Cursor
	/** What can be taken back, newest last. */
	moves: readonly Move[]
	/** Everybody with a line on the entry who is here, in order. */
	everybody: readonly LineProgress[]
	/** Of them the group that is shown. */
	queue: readonly LineProgress[]
	/** Null where nobody has a line here. */
	shown: OnLine | null
	/** Who starts together, lane by lane. */
	onLine: readonly LineProgress[]
	/** Asks that were not put off. */
	asks: readonly Asked[]
	/** The last mark of this phone on this entry: what a rating belongs to. */
	lastRep: Mark | null
	/** What Undo would take back; null when there is nothing. */
	undoLabel: string | null
}

/** What is shown where a phone stands. */
export function standOf(field: Field, at: Cursor): Stand {
	const { sheet, current, order, away } = field
	// A drill that was added and taken back again is nowhere.
	const cursor = sheet.entries.some(({ id }) => id === at.entryId) ? at : { ...at, entryId: opened(sheet).entryId }
	const events = ofLine(current, cursor)
	const byAthlete = new Map<string, LogEvent[]>()
	for (const event of events) {
		if (!event.athleteId) continue
		const own = byAthlete.get(event.athleteId)
		if (own) own.push(event)
		else byAthlete.set(event.athleteId, [event])
	}
	const lines = new Map(
		sheet.lines.flatMap((line) =>
			line.entryId === cursor.entryId && line.blocked === null ? [[line.athleteId, line] as const] : [],
		),
	)
	const entry = sheet.entries.find(({ id }) => id === cursor.entryId)
	const everybody = order.flatMap(({ athleteId }): LineProgress[] => {
		const line = lines.get(athleteId)
		return line && !away.has(athleteId)
			? [waiting(entry, field.standing(line, byAthlete.get(athleteId) ?? []), current)]
			: []
	})
	const groups = new Map(order.map(({ athleteId, group }) => [athleteId, group]))
	const queue =
		cursor.group === 0 ? everybody : everybody.filter(({ line }) => groups.get(line.athleteId) === cursor.group)
	const shown = queue.find(({ line }) => line.athleteId === cursor.athleteId) ?? queue.find(isNext) ?? queue[0] ?? null
	const moves = cursor.moves ?? lastMove(current, field.deviceId)
	const last = moves.at(-1)
	return {
		...field,
		cursor,
		moves,
		everybody,
		queue,
		shown: shown && onLineOf(field, shown),
		onLine: lineUp(queue, shown, field.lanes),
		asks: field.asks.filter((one) => !cursor.later.includes(askKey(one))),
		lastRep:
			last?.steps
				.map(({ event }) => event)
				.find((event): event is Mark => event.type === 'mark' && event.entryId === cursor.entryId && !event.void) ??
			null,
		undoLabel: last?.label ?? null,
	}
}

/** Before the first rep of what waits for something else, the clock runs from the last rep of that. */
function waiting(entry: FieldEntry | undefined, progress: LineProgress, current: readonly LogEvent[]): LineProgress {
	if (!entry?.waits || progress.lastAt !== null) return progress
	const { minutes, after: before } = entry.waits
	const times = current.flatMap((event) =>
		event.type === 'mark' && event.athleteId === progress.line.athleteId && before.includes(event.entryId)
			? [Date.parse(event.deviceTime)]
			: [],
	)
	return times.length === 0 ? progress : { ...progress, lastAt: Math.max(...times), restS: 60 * minutes }
}

function onLineOf({ sheet, current }: Field, progress: LineProgress): OnLine {
	const athlete = sheet.athletes.find(({ id }) => id === progress.line.athleteId)!
	return {
		progress,
		athlete,
		drill: drillOn(progress, sheet),
		measured: progress.line.logs !== 'done' && progress.swap === null,
		advice: liveAdvice(progress, athlete, sheet, current),
	}
}

/**
 * Somebody on the entry that is shown, whoever is on the line: what is said of them stays theirs when the line has moved
 * on or they have left the queue. Null where they have no line here.
 */
export function lineOn(stand: Stand, athleteId: string): OnLine | null {
	const { sheet, cursor, current } = stand
	const line = sheet.lines.find((one) => one.entryId === cursor.entryId && one.athleteId === athleteId)
	return line ? onLineOf(stand, stand.standing(line, ofLine(current, line))) : null
}

/** The next ones to start together: whoever is shown, and those after who still have reps. */
function lineUp(queue: readonly LineProgress[], shown: LineProgress | null, lanes: number): LineProgress[] {
	if (!shown) return []
	const open = queue.filter((progress) => isNext(progress) || progress === shown)
	const start = Math.floor(open.indexOf(shown) / lanes) * lanes
	return open.slice(start, start + lanes)
}

/** Who comes after somebody has done what was written; the same athlete where nobody else has reps left. */
export function after(stand: Stand, athleteId: string, written: readonly LogEvent[]): string {
	const replaced = new Set(written.flatMap(({ replacesId }) => replacesId ?? []))
	const now = [...stand.current.filter(({ id }) => !replaced.has(id)), ...written.filter((event) => !event.void)]
	const wrote = new Set<string | null>([athleteId, ...written.map((event) => event.athleteId)])
	const queue = stand.queue.map((progress) =>
		wrote.has(progress.line.athleteId) ? stand.standing(progress.line, ofLine(now, progress.line)) : progress,
	)
	return nextInQueue(queue, athleteId) ?? athleteId
}

export const askKey = ({ athleteId, ask }: Asked): string => `${athleteId}/${ask.region}/${ask.side}`

/** One drill of the session, and how far everybody is with it. */
export interface DrillOfSession {
	entry: FieldEntry
	/** Who is here and has a line on it, and how many of them have nothing left to do there. */
	people: number
	done: number
	/** Nobody has anything left to do on it. */
	over: boolean
}

/** The drills in the order they are done. */
export function drillsOfSession({ sheet, current, away, standing }: Field): DrillOfSession[] {
	return sheet.entries.map((entry) => {
		const events = ofLine(current, { entryId: entry.id })
		const lines = sheet.lines.filter(
			(line) => line.entryId === entry.id && line.blocked === null && !away.has(line.athleteId),
		)
		const done = lines.filter((line) => !isNext(standing(line, events))).length
		return { entry, people: lines.length, done, over: done === lines.length }
	})
}
