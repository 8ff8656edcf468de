import { foldEvents } from '../../core/events/fold'
import type { FieldAthlete, FieldLine, FieldSheet } from '../../core/field/pack'
import { type Pressed, landed, press } from '../../core/field/session/press'
import { type Known, readField } from '../../core/field/session/read-field'
import { type Cursor, type Stand, opened, standOf } from '../../core/field/session/stand'
import type { Tap } from '../../core/field/session/taps'
import { stampWrite } from '../../core/field/session/writes'
import { QUALITY_FIRST } from '../../core/library/schools'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { Parameters } from '../../core/vocabulary/dose'
import type { LogEvent } from '../../core/vocabulary/events'

const uuid = (group: number, n: number) =>
	`${group.toString(16).padStart(8, '0')}-0000-7000-8000-${n.toString(16).padStart(12, '0')}`
export const SESSION = uuid(1, 1)
export const ATHLETES = ['Ilka Moreau', 'Amaru Fenn', 'Tove Brandt', 'Noor Castell'].map((name, index) => ({
	id: uuid(2, index),
	name,
}))
export const ENTRIES = [
	{ name: 'Starts', drillId: 'three-point-start', logs: 'sprint', parameters: { distanceM: 20 }, reps: 4 },
	{ name: 'Rebounds', drillId: 'depth-jump', logs: 'contact', parameters: { heightCm: 30 }, reps: 3 },
	{ name: 'Broad jumps', drillId: 'broad-jump', logs: 'distance', parameters: {}, reps: 3 },
	{ name: 'Pogos', drillId: 'pogo', logs: 'done', parameters: {}, reps: 8 },
].map((entry, index) => ({ ...entry, id: uuid(3, index) }))
const START = Date.UTC(2026, 2, 12, 18)

/** A line of one of the four athletes, by the numbers of entry and athlete. */
export function lineOf(entry: number, athlete: number, change: Partial<FieldLine> = {}): FieldLine {
	const of = ENTRIES[entry]!
	const drill = STARTER_LIBRARY.drills[of.drillId]!
	return {
		id: uuid(4, entry * 100 + athlete),
		entryId: of.id,
		athleteId: ATHLETES[athlete]!.id,
		words: of.name,
		drillName: drill.name,
		drillId: drill.id,
		drillVersion: drill.version,
		logs: of.logs as FieldLine['logs'],
		family: drill.family,
		dose: { sets: 1, reps: of.reps },
		parameters: of.parameters as Parameters,
		rest: { repsS: 120, setsS: 120 },
		target: '',
		bests: {},
		cautions: [],
		cues: [],
		lookFor: [],
		blocked: null,
		over: null,
		dropOffPercent: 3,
		...change,
	}
}

/** Four athletes, four drills; everybody has a line on each. */
export function fourBySheet(athlete: Partial<FieldAthlete> = {}, line: Partial<FieldLine> = {}): FieldSheet {
	const lines = ENTRIES.flatMap((_, entry) => ATHLETES.map((_one, index) => lineOf(entry, index, line)))
	const standIns = { 'depth-jump': ['pause-jump', 'broad-jump'], 'three-point-start': ['pogo'] }
	const used = [...new Set([...ENTRIES.map(({ drillId }) => drillId), ...Object.values(standIns).flat()])]
	const drillOf = (id: string) => STARTER_LIBRARY.drills[id]!
	return {
		session: {
			id: SESSION,
			title: 'Speed',
			squadName: 'Open',
			day: '2026-03-12',
			startTime: '18:00',
			place: 'Sea field',
			surface: 'grass',
			minutes: 90,
		},
		entries: ENTRIES.map(({ id, name }) => ({ id, name, part: name })),
		athletes: ATHLETES.map(({ id, name }) => ({
			id,
			name,
			level: 2,
			legLengthM: null,
			spare: [],
			barred: [],
			worries: [],
			curve: null,
			usual: [],
			...athlete,
		})),
		lines,
		drills: Object.fromEntries(used.map((id) => [`${id}/${drillOf(id).version}`, drillOf(id)])),
		standIns: Object.fromEntries(
			Object.entries(standIns).map(([id, others]) => [id, others.map((one) => `${one}/${drillOf(one).version}`)]),
		),
		school: QUALITY_FIRST,
	}
}

/** A tap as a thumb makes it: whom it is about, and which rep, is what the screen shows. */
export type Touch = Tap extends infer One
	? One extends { athleteId: string } | { rep: unknown }
		? Omit<One, 'athleteId' | 'rep'> & { athleteId?: string }
		: One
	: never

const OF_WHOM: ReadonlySet<string> = new Set([
	'mark',
	'missed',
	'untimed',
	'reps',
	'advice',
	'worry',
	'report',
	'swap',
	'end',
])

let ids = 0
/** A phone whose store is an array: what a device adds to a tap, and nothing else. */
export class Phone {
	readonly own: LogEvent[] = []
	private cursor: Cursor
	private seconds = 0
	/** What the server said of bodies last. */
	limits: Known['limits'] = {}
	lanes = 1

	constructor(
		readonly sheet: FieldSheet,
		readonly deviceId = uuid(5, 1),
		/** The log all phones share; each hears the others at once. */
		readonly all: LogEvent[] = [],
	) {
		this.cursor = opened(sheet)
	}

	get current(): LogEvent[] {
		return foldEvents(this.all).current
	}
	get stand(): Stand {
		const { sheet, all, current, limits, lanes, deviceId } = this
		return standOf(readField({ sheet, all, current, limits, settled: new Set(), lanes, deviceId }), this.cursor)
	}
	get name(): string {
		return this.stand.shown?.athlete.name ?? ''
	}

	/** A tap on what is shown now; null where the screen does not offer it. */
	private seen(touch: Touch): Tap | null {
		const { shown, lastRep } = this.stand
		if ('about' in touch && touch.about === 'rep' && lastRep === null) return null
		if (OF_WHOM.has(touch.tap) && shown === null && !('athleteId' in touch)) return null
		return { athleteId: shown?.athlete.id, rep: lastRep, ...touch } as Tap
	}
	/** What a tap would write now. */
	pressed(touch: Touch): Pressed {
		return press(this.stand, this.seen(touch)!)
	}
	tap(touch: Touch): LogEvent[] {
		const stand = this.stand
		const tap = this.seen(touch)
		if (!tap) return []
		const pressed = press(stand, tap)
		this.seconds += 20
		const deviceTime = new Date(START + this.seconds * 1000).toISOString()
		const events = pressed.writes.map((write) =>
			stampWrite(write, {
				id: uuid(9, ids++) as never,
				sessionId: SESSION as never,
				deviceId: this.deviceId as never,
				deviceSeq: this.own.length,
				deviceTime,
			}),
		)
		// The order on a device counts on, also within one tap.
		events.forEach((event, index) => Object.assign(event, { deviceSeq: this.own.length + index }))
		this.own.push(...events)
		this.all.push(...events)
		this.cursor = landed(stand, pressed, events)
		return events
	}
	/** Goes to an entry by its number. */
	at(entry: number): this {
		const from = this.sheet.entries.findIndex(({ id }) => id === this.cursor.entryId)
		this.tap({ tap: 'entry', by: entry - from })
		return this
	}
}
