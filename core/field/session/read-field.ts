import { closedByGround } from '../../rules/s10-place'
import type { LogEvent, Mark } from '../../vocabulary/events'
import type { Surface } from '../../vocabulary/words'
import { type Halt, type LineProgress, progressOf } from '../line-progress'
import { likelyDoubles } from '../likely-doubles'
import { drillOn } from '../live-advice'
import { type BodyLimits, closedNow, heardSince, overToday, unwellNow } from '../over-today'
import type { FieldLine, FieldSheet } from '../pack'
import { type QueuePlace, queueOrder } from '../queue-order'
import { type Ask, toAsk } from '../to-ask'
import { withDrills } from './drills-now'
import { withGuests } from './guests'
import { sayCutShort } from './say-cut-short'

/** What a device knows of a session: its own log, what others sent, what the server says of bodies. */
export interface Known {
	sheet: FieldSheet
	/** Every event, replaced ones too. */
	all: readonly LogEvent[]
	/** The events that stand. */
	current: readonly LogEvent[]
	/** What limits each athlete's body, as the server said last. */
	limits: Record<string, BodyLimits>
	/** Pairs that were said to be two reps, and readings that are none. */
	settled: ReadonlySet<string>
	deviceId: string
	/** How many start together, 1 to 3. */
	lanes: number
}

/** Somebody who is to be asked how it was. */
export interface Asked {
	athleteId: string
	ask: Ask
}

/** What that comes to, whoever is on the line. */
export interface Field extends Known {
	away: ReadonlySet<string>
	order: readonly QueuePlace[]
	/** Where a line stands, with what was said of the athlete's body: barred, it is over, and out of the queue. */
	standing: (line: FieldLine, events: readonly LogEvent[]) => LineProgress
	limitsOf: (athleteId: string) => BodyLimits
	asks: readonly Asked[]
	doubles: [Mark, Mark][]
	/** Along the run, m/s; null while nobody has said. */
	windMps: number | null
	surface: Surface | null
	/** Why the session was ended before its plan, in words; null while it was not. */
	cutShort: string | null
	nameOf: (athleteId: string | null) => string
}

/** Reads the events once; nothing here depends on what is shown. */
export function readField(known: Known): Field {
	const { all, current, limits } = known
	const sheet = withDrills(withGuests(known.sheet, all, current), all, current)
	const away = new Set(
		current.flatMap((event) => (event.kind === 'attendance' && !event.value.present ? [event.athleteId] : [])),
	)
	const byAthlete = new Map(
		sheet.athletes.map((athlete): [string, BodyLimits] => {
			const heard = heardSince(athlete.limits ?? {}, limits[athlete.id])
			return [
				athlete.id,
				{
					...heard,
					closures: [...closedNow(athlete, all, sheet.session.day), ...heard.closures],
					easyOnly: heard.easyOnly || unwellNow(athlete.id, current),
				},
			]
		}),
	)
	const limitsOf = (athleteId: string) => byAthlete.get(athleteId) ?? { closures: [], easyOnly: false }
	const conditions = current.flatMap((event) => (event.kind === 'conditions' ? [event] : [])).map(({ value }) => value)
	// Planned for wet grass it was answered when it was planned; what is said on the spot was not.
	const said = conditions.findLast((value) => value.surface !== undefined)?.surface ?? null
	const cut = new Map(
		current.flatMap((event) =>
			event.kind === 'cut-short' ? [[event.athleteId, sayCutShort(event.value.reason)] as const] : [],
		),
	)
	const ended = (athleteId: string): Halt | null => {
		const words = cut.get(athleteId)
		return words === undefined ? null : { by: 'end', words }
	}
	const names = new Map(sheet.athletes.map(({ id, name }) => [id, name]))
	return {
		...known,
		sheet,
		away,
		order: queueOrder(sheet.athletes, all),
		limitsOf,
		standing: (line, events) => {
			const own = limitsOf(line.athleteId)
			const plain = progressOf(line, events)
			const drill = drillOn(plain, sheet)
			const asked = plain.swap ? (drill?.defaults.parameters ?? {}) : plain.line.parameters
			const over = drill ? overToday(own, drill, asked) : null
			const ground = drill ? closedByGround(said, drill, asked) : null
			const halted =
				ended(line.athleteId) ?? (ground === null ? null : ({ by: 'ground', words: `wet grass, ${ground}` } as const))
			return over || halted ? progressOf(line, events, over, halted) : plain
		},
		asks: asksOf({ sheet, current }, away),
		doubles: likelyDoubles(current, sheet.lines, known.settled),
		windMps: conditions.findLast((value) => value.windMps !== undefined)?.windMps ?? null,
		surface: said ?? (sheet.session.surface as Surface | null),
		cutShort: [...cut.values()][0] ?? null,
		nameOf: (athleteId) => names.get(athleteId ?? '') ?? '',
	}
}

function asksOf({ sheet, current }: Pick<Known, 'sheet' | 'current'>, away: ReadonlySet<string>): Asked[] {
	return sheet.athletes
		.filter((athlete) => (athlete.ask ?? []).length > 0 && !away.has(athlete.id))
		.flatMap((athlete): Asked[] => {
			const lines = linesOf(sheet, athlete.id).map((line) => {
				const progress = progressOf(line, ofLine(current, line))
				return { drill: drillOn(progress, sheet), repsDone: progress.repsDone, finished: progress.finished }
			})
			return toAsk(athlete, lines, current).map((ask) => ({ athleteId: athlete.id, ask }))
		})
}

/** The lines an athlete has, those that were closed from the start left out. */
export const linesOf = ({ lines }: Pick<FieldSheet, 'lines'>, athleteId: string): FieldLine[] =>
	lines.filter((line) => line.athleteId === athleteId && line.blocked === null)

/** The events of one entry: what a line's progress is read from. */
export const ofLine = (events: readonly LogEvent[], { entryId }: Pick<FieldLine, 'entryId'>): LogEvent[] =>
	events.filter((event) => 'entryId' in event && event.entryId === entryId)
