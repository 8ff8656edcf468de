import type { LogEvent } from '../vocabulary/events'
import type { Sided } from '../dose/sides'
import type { CarriedLoad, Dose, Parameters, Rest, SideDoses } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Level, Region, Method } from '../vocabulary/words'
import type { PlannedLine } from '../vocabulary/line'
import type { School } from '../vocabulary/school'
import type { Units } from '../words/units'
import type { BodyLimits, SayLimit } from './over-today'
import type { Ask } from './to-ask'
import type { ReadyReference } from '../noise/ready-reference'
import type { OwnErrors } from '../noise/typical-error'

/** One piece of a complex as the field needs it: what of a line is its drill's. */
export interface FieldPiece
	extends Pick<
		FieldLine,
		| 'words'
		| 'drillName'
		| 'drillId'
		| 'drillVersion'
		| 'logs'
		| 'family'
		| 'parameters'
		| 'sided'
		| 'target'
		| 'own'
		| 'lastTime'
		| 'errors'
		| 'bests'
		| 'usuals'
		| 'cautions'
		| 'cues'
		| 'lookFor'
		| 'dropOffPercent'
	> {
	/** In one round, and the rest between them. */
	reps: number
	rest: Rest
	judged: boolean
}

/** One athlete's line as the field needs it; the version it was downloaded in is its id. */
export interface FieldLine {
	id: string
	entryId: string
	athleteId: string
	words: string
	drillName: string
	drillId: string
	drillVersion: number
	/** The kind of number a rep yields; 'done' is ticked off and judged by eye. */
	logs: 'sprint' | 'contact' | 'height' | 'distance' | 'done'
	family: Drill['family']
	dose: Dose
	parameters: Parameters
	rest: Rest
	/** Whether a rep has a side; absent in packs of before. */
	sided?: Sided
	/** Sides that do unlike doses. */
	sides?: SideDoses | undefined
	/** A complex: its pieces in turn; what stands beside them is of the piece whose turn it is, at first of the judged one. */
	pieces?: FieldPiece[]
	/** A weight worn on the middle reps: see `wornReps`. */
	carried?: CarriedLoad
	target: string
	/** What of the line comes from the athlete's own measurements, in sentences; absent in packs of before. */
	own?: string[]
	/** What was noted of the athlete on this drill the last time; absent where nothing was, and in packs of before. */
	lastTime?: { day: string; words: string[] }
	/** The squad's own typical errors on the line's drill, by kind and method; absent in packs of before and where there are none. */
	errors?: OwnErrors
	/** Own best and usual of marks made as the line says, by method, in the mark's unit; the usual is absent in packs of before. */
	bests: Partial<Record<Method, number>>
	usuals?: Partial<Record<Method, number>>
	/** Of a plain run, what its first metres are held against, by `firstMetresOf`; absent in packs of before. */
	firstMetres?: string
	cautions: string[]
	cues: string[]
	lookFor: string[]
	blocked: string | null
	/** Why this line is over for the athlete since the sheet was frozen; null while it stands. */
	over: string | null
	/** What the school lets the marks of this line fall by before the set ends. */
	dropOffPercent: number
}
/** What an athlete who is not on the sheet would do on an entry. */
export interface GuestLine {
	entryId: string
	planned: PlannedLine
}
/** Somebody of the club who is not on the sheet, and may come all the same. */
export interface FieldOther extends FieldAthlete {
	lines: GuestLine[]
}
export interface FieldEntry {
	id: string
	part: string
	name: string
	/** Begun so many minutes after the athlete's last rep on any of those entries: the wait of a trial. */
	waits?: { minutes: number; after: string[] }
}
export interface FieldAthlete {
	id: string
	name: string
	level: Level
	legLengthM: number | null
	/** Whom to call in an emergency; opened by a report that closes. Absent in packs of before. */
	contact?: string | null
	/** "left knee": what to spare, in words; no more than that reaches the field. */
	spare: string[]
	/** Drills of the pack that are not for this athlete today. */
	barred: string[]
	/** What is closed and spared as the pack was made, and whether only easy work was left: what comes later is told apart. */
	limits?: BodyLimits
	/** The lowest scores that would close or spare a region now, where they are lower than for everybody; absent in packs of before. */
	sayLimits?: SayLimit[]
	/** What the athlete is asked about after work on it; absent in packs of before. */
	ask?: Ask[]
	/** Movements the athlete does not trust. */
	worries: { drillId: string; region: Region }[]
	/** The athlete's own speed curve from bests by gates; null when there are too few. */
	curve: { mssMps: number; tauS: number } | null
	/** What the first sprint of a session usually is, by `firstMetresOf` (absent in packs of before), distance and method. */
	usual: { firstMetres?: string; distanceM: number; method: Method; reference: ReadyReference }[]
}
export interface FieldSheet {
	session: {
		id: string
		title: string
		squadName: string
		day: string
		startTime: string
		place: string
		/** Where help has to come to; absent in packs of before. */
		address?: string | null
		surface: string | null
		minutes: number
	}
	entries: FieldEntry[]
	athletes: FieldAthlete[]
	lines: FieldLine[]
	/** Drills of the lines and of everything that may stand in for them, by "id/version". */
	drills: Record<string, Drill>
	/** What may stand in for a drill here, by drill id: "id/version" of each. */
	standIns: Record<string, string[]>
	school: School
	/** Who else of the club may come; in packs of sessions that are near, absent in packs of before. */
	others?: FieldOther[]
	/** What somebody nobody knows may do; as `others`. */
	stranger?: Pick<FieldOther, 'barred' | 'lines'>
}

/** An event as a device is told it. */
export type ToldEvent = LogEvent & {
	/** Who corrected something or took it back, by name; absent of what was logged first. It is no part of the log. */
	by?: string
}
/** A session whole, as a device keeps it. */
export interface Pack {
	sheet: FieldSheet
	events: ToldEvent[]
}
/** What a device asks for when it can reach the server. */
export interface PackAnswer {
	/** `units` is absent in answers kept from before. */
	person: { id: string; name: string; role: string; clubName: string; units?: Units }
	serverNow: string
	today: string
	packs: Pack[]
}
