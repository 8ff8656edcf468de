import { byTime } from '../events/by-time'
import { sayCutShort } from '../field/session/say-cut-short'
import { sayEvent } from '../field/say-event'
import { sayHistory } from '../field/session-marks'
import type { ToldEvent } from '../field/pack'
import { byRep } from '../judge/gather-exposure'
import { placeOf } from '../rules/bars'
import type { LogEvent, Mark } from '../vocabulary/events'
import { type Leg, METHOD_NAMES } from '../vocabulary/words'
import { capital } from '../words/write-numbers'

/** An event that stands, as the record shows it. */
export type Recorded = LogEvent & {
	/** Who logged it, or corrected it last. */
	author: string
	/** Its number can hardly be, and nobody has said that it is what was seen. */
	aside?: boolean
}

export interface DoneRep {
	id: string
	setNo: number
	repNo: number
	side: Leg | null
	/** "3.12 s", "missed" */
	said: string
	/** How it was looked at, and what it was done as where that is another drill. */
	words: string[]
	aside: boolean
	/** When, by what and by whom; with what it was before, where it was corrected. */
	how: string
}
export interface DonePerson {
	athleteId: string
	name: string
	/** Reps the line asks for. */
	planned: number
	reps: DoneRep[]
	/** Notes, grades of whole sets, and what ended it. */
	words: string[]
}
export interface DoneDrill {
	entryId: string
	name: string
	/** Who has a line on it, or did something there. */
	people: DonePerson[]
}
export interface SessionDone {
	/** What held for everybody: ground, wind, an early end, who came and who did not. */
	day: string[]
	drills: DoneDrill[]
	/** What was said of people apart from any drill, by name. */
	people: { name: string; words: string[] }[]
}

interface Sheet {
	entries: readonly { id: string; name: string }[]
	athletes: readonly { id: string; name: string; lines: readonly { entryId: string; planned: number }[] }[]
	/** Names of drills by id: of what was done in place of another, and of what was added. */
	drillName: (drillId: string) => string
	/** What film says of a rep, in words, by the rep's id. */
	filmed?: ReadonlyMap<string, readonly string[]>
}

/**
 * A session as it was done: every mark, grade, report, note and decision that stands, by drill and athlete.
 *
 * @param events that stand, of what whoever asks may read
 * @param all every event of the session: where the history of a mark is
 * @param clock the hour and minute of an instant, as people there read it
 */
export function sessionDone(
	sheet: Sheet,
	events: readonly Recorded[],
	all: readonly ToldEvent[],
	clock: (instant: string) => string,
): SessionDone {
	const nameOf = new Map(sheet.athletes.map(({ id, name }) => [id, name]))
	const sorted = [...events].sort(byTime)
	const ofEntry = (entryId: string) => sorted.filter((event) => 'entryId' in event && event.entryId === entryId)
	return {
		day: sayDay(sheet, sorted, nameOf, clock),
		drills: sheet.entries.map(({ id, name }) => {
			const own = ofEntry(id)
			return {
				entryId: id,
				name,
				people: sheet.athletes.flatMap((athlete): DonePerson[] => {
					const planned = athlete.lines.find((line) => line.entryId === id)?.planned
					const theirs = own.filter((event) => event.athleteId === athlete.id)
					if (planned === undefined && theirs.length === 0) return []
					const marks = theirs.flatMap((event) => (event.type === 'mark' ? [event as Mark & Recorded] : [])).sort(byRep)
					return [
						{
							athleteId: athlete.id,
							name: athlete.name,
							planned: planned ?? 0,
							reps: marks.map((mark) => repOf(mark, theirs, all, sheet, clock)),
							words: theirs.flatMap((event) => sayBeside(event, sheet)),
						},
					]
				}),
			}
		}),
		people: sheet.athletes.flatMap(({ id, name }) => {
			const words = sorted
				.filter(
					(event) => event.athleteId === id && event.type === 'observation' && !('entryId' in event && event.entryId),
				)
				.flatMap((event) => sayApart(event, clock))
			return words.length > 0 ? [{ name, words }] : []
		}),
	}
}

function repOf(
	mark: Mark & Recorded,
	theirs: readonly Recorded[],
	all: readonly ToldEvent[],
	{ drillName, filmed }: Sheet,
	clock: (instant: string) => string,
): DoneRep {
	const about = theirs.filter(
		(event) =>
			event.type === 'observation' &&
			'repNo' in event &&
			event.setNo === mark.setNo &&
			event.repNo === mark.repNo &&
			!(event.kind === 'quality' && event.value.scope === 'set'),
	)
	const method =
		'method' in mark.value
			? `, ${mark.value.method === 'ball-sensor' ? 'ball sensor' : METHOD_NAMES[mark.value.method]}`
			: ''
	return {
		id: mark.id,
		setNo: mark.setNo,
		repNo: mark.repNo,
		side: mark.side ?? null,
		said: sayEvent(mark),
		words: [
			...(mark.asDrill ? [`as ${drillName(mark.asDrill.drillId)}`] : []),
			...about.flatMap((event) => sayLooked(event)),
			...(filmed?.get(mark.id) ?? []).map((words) => `film: ${words}`),
		],
		aside: mark.aside === true,
		how: `${sayHistory(mark, all, '', clock)}${method}${mark.source ? ', by device' : ''}${mark.replacesId ? '' : `, by ${mark.author}`}`,
	}
}

function sayLooked(event: LogEvent): string[] {
	if (event.kind === 'quality') return [[sayEvent(event), ...(event.value.faults ?? [])].join(', ')]
	if (event.kind === 'note') return [`“${event.value.text}”`]
	return event.kind === 'comfort' ? [sayEvent(event)] : []
}

/** What stands beside somebody's reps of a drill. */
function sayBeside(event: LogEvent, { drillName }: Sheet): string[] {
	switch (event.kind) {
		case 'quality':
			return event.value.scope === 'set' ? [`set ${event.setNo} ${sayLooked(event)[0]}`] : []
		case 'note':
			return event.value.about === 'rep' ? [] : sayLooked(event)
		case 'end-set':
			return [`ended: ${ENDED[event.value.reason]}`]
		case 'load-off':
			return ['weight off']
		case 'swap':
			return [`${drillName(event.value.drillId)} instead`]
		case 'fast-day':
			return ['fast day taken']
		case 'pain':
			return [`${placeOf(event.value)} ${event.value.score} of 10${event.value.redFlag ? ', red flag' : ''}`]
		case 'head':
		case 'chest':
		case 'unwell':
		case 'worry':
			return [sayEvent(event)]
		default:
			return []
	}
}
const ENDED = {
	'drop-off': 'it fell off',
	'good-day': 'a good day',
	coach: 'the coach',
	weather: 'the weather',
	pain: 'pain',
	refusal: 'would not go on',
} as const

/** What was said of somebody apart from a drill. */
function sayApart(event: LogEvent, clock: (instant: string) => string): string[] {
	switch (event.kind) {
		case 'effort':
			return [`effort ${event.value.rpe} of 10 over ${event.value.minutes} min`]
		case 'note':
			return event.value.about === 'session' ? [] : sayLooked(event)
		case 'quiet':
			return [`asked: ${placeOf(event.value)} ${event.value.score} of 10`]
		default: {
			const [said] = sayBeside(event, { entries: [], athletes: [], drillName: String })
			return said === undefined ? [] : [`${said}, ${clock(event.deviceTime)}`]
		}
	}
}

function sayDay(
	{ drillName }: Sheet,
	events: readonly Recorded[],
	nameOf: ReadonlyMap<string, string>,
	clock: (instant: string) => string,
): string[] {
	const name = (athleteId: string | null) => nameOf.get(athleteId ?? '') ?? 'somebody'
	const away = events.flatMap((event) =>
		event.kind === 'attendance' && !event.value.present ? [name(event.athleteId)] : [],
	)
	const came = events.flatMap((event) => (event.kind === 'guest' ? [name(event.athleteId)] : []))
	return [
		...events.flatMap((event): string[] => {
			if (event.kind === 'conditions') return sayConditions(event, clock)
			if (event.kind === 'further')
				return [
					`${drillName(event.value.drillId)} added at ${clock(event.deviceTime)} for ${event.value.lines.length}.`,
				]
			if (event.kind === 'drill-order') return [`Drills in another order from ${clock(event.deviceTime)}.`]
			return event.kind === 'note' && event.value.about === 'session' ? [`“${event.value.text}”, ${event.author}.`] : []
		}),
		...sayEnd(events, clock),
		...(came.length > 0 ? [`Came without being on the list: ${came.join(', ')}.`] : []),
		...(away.length > 0 ? [`Not there to the end: ${away.join(', ')}.`] : []),
	]
}

const sayConditions = (
	{ value, deviceTime }: Extract<LogEvent, { kind: 'conditions' }>,
	clock: (instant: string) => string,
): string[] => [
	value.surface === undefined
		? `Wind ${value.windMps ?? 0} m/s from ${clock(deviceTime)}.`
		: `${capital(value.surface.replace('-', ' '))} from ${clock(deviceTime)}.`,
]
function sayEnd(events: readonly LogEvent[], clock: (instant: string) => string): string[] {
	const ends = events.flatMap((event) => (event.kind === 'cut-short' ? [event] : []))
	const [end] = ends
	return end ? [`Ended early for ${ends.length} at ${clock(end.deviceTime)}: ${sayCutShort(end.value.reason)}.`] : []
}

/**
 * What turned a session while it went on: wind and ground, and that it ended early; nothing about anybody.
 *
 * @param events that stand, in any order
 */
export function sayTurns(events: readonly LogEvent[], clock: (instant: string) => string): string[] {
	const sorted = [...events].sort(byTime)
	return [
		...sorted.flatMap((event) => (event.kind === 'conditions' ? sayConditions(event, clock) : [])),
		...sayEnd(sorted, clock),
	]
}
