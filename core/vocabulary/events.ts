import Type, { type Static, type TSchema } from 'typebox'
import { CarriedLoad } from './dose'
import {
	type AthleteId,
	type DeviceId,
	DocumentVersion,
	type DrillId,
	type EntryId,
	type EventId,
	Instant,
	type LineId,
	type SessionId,
	documentIdOf,
	uuidOf,
} from './ids'
import { type BODY_KINDS, CUT_SHORT_REASONS, END_REASONS, LOAD_OFF_REASONS, MISSED_REASONS } from './event-kinds'
import { PlannedLine } from './line'
import { CLOSED as closed, oneOf, written } from './shape'
import { CONTACT_METHODS, LENGTH_METHODS, REGIONS, SIDES, SPRINT_METHODS, SURFACES } from './words'

/** The fields every event of the log carries; club, author and time of receipt are added by the server. */
const common = {
	id: uuidOf<EventId>(),
	sessionId: uuidOf<SessionId>(),
	athleteId: uuidOf<AthleteId>(),
	deviceId: uuidOf<DeviceId>(),
	/** Order on one device: 0, 1, 2 … */
	deviceSeq: Type.Integer({ minimum: 0, maximum: 2_000_000_000 }),
	deviceTime: Instant,
	replacesId: Type.Optional(uuidOf<EventId>()),
	void: Type.Optional(Type.Boolean()),
}
const onLine = {
	...common,
	entryId: uuidOf<EntryId>(),
	lineId: uuidOf<LineId>(),
	setNo: Type.Integer({ minimum: 1, maximum: 50 }),
	repNo: Type.Integer({ minimum: 1, maximum: 200 }),
	side: Type.Optional(oneOf(SIDES)),
	/** Of a complex: which piece, counted from 1. */
	piece: Type.Optional(Type.Integer({ minimum: 1, maximum: 6 })),
}
const onMark = {
	...onLine,
	/** The device run a mark was made from, so that the same beams are never two marks unnoticed. */
	source: Type.Optional(uuidOf<string>()),
	/** Somebody looked at a number that could hardly be, and it is what was seen. */
	kept: Type.Optional(Type.Literal(true)),
	/** Worn while it was done, when it is not what the line says. */
	carried: Type.Optional(CarriedLoad),
	/** Done as another drill than the line's, swapped on the spot: the mark says so itself, whatever arrives first. */
	asDrill: Type.Optional(Type.Object({ drillId: documentIdOf<DrillId>(), drillVersion: DocumentVersion }, closed)),
}
const event = <T extends string, K extends string, B extends TSchema, P extends Record<string, TSchema>>(
	type: T,
	kind: K,
	place: P,
	value: B,
) => Type.Object({ ...place, type: Type.Literal(type), kind: Type.Literal(kind), value }, closed)

/** Seconds are stored to 0.1 ms and metres to 1 mm, so that a decimal column gives back what was typed. */
const Seconds = (maximum: number) => Type.Number({ exclusiveMinimum: 0, maximum, multipleOf: 0.0001 })
const Metres = (maximum: number) => Type.Number({ exclusiveMinimum: 0, maximum, multipleOf: 0.001 })

export const SprintMark = event(
	'mark',
	'sprint',
	onMark,
	Type.Object(
		{
			/** Cumulative times at rising distances; the last is the rep's own mark. */
			splits: Type.Array(Type.Object({ distanceM: Metres(1000), timeS: Seconds(600) }, closed), {
				minItems: 1,
				maxItems: 12,
			}),
			method: oneOf(SPRINT_METHODS),
			/** Along the run, m/s, from behind positive. */
			windMps: Type.Optional(Type.Number({ minimum: -20, maximum: 20, multipleOf: 0.1 })),
		},
		closed,
	),
)
export const ContactMark = event(
	'mark',
	'contact',
	onMark,
	Type.Object(
		{
			contactS: Seconds(3),
			flightS: Type.Number({ exclusiveMinimum: 0, exclusiveMaximum: 1.5, multipleOf: 0.0001 }),
			method: oneOf(CONTACT_METHODS),
		},
		closed,
	),
)
export const HeightMark = event(
	'mark',
	'height',
	onMark,
	Type.Object({ heightM: Metres(2), method: oneOf(LENGTH_METHODS) }, closed),
)
export const DistanceMark = event(
	'mark',
	'distance',
	onMark,
	Type.Object({ distanceM: Metres(150), method: oneOf(LENGTH_METHODS) }, closed),
)
/** Reps done without a measurement: one, or a whole set at once. */
export const DoneMark = event(
	'mark',
	'done',
	onMark,
	Type.Object({ reps: Type.Integer({ minimum: 1, maximum: 200 }) }, closed),
)
/** Speed of a ball at release, from a sensor; counted and shown, not compared with distances. */
export const ReleaseMark = event(
	'mark',
	'release',
	onMark,
	Type.Object(
		{
			speedMps: Type.Number({ exclusiveMinimum: 0, maximum: 60, multipleOf: 0.01 }),
			method: oneOf(['ball-sensor'] as const),
		},
		closed,
	),
)
export const MissedMark = event(
	'mark',
	'missed',
	onMark,
	Type.Object({ reason: Type.Optional(oneOf(MISSED_REASONS)) }, closed),
)

export const QualityObservation = event(
	'observation',
	'quality',
	{ ...onLine },
	Type.Object(
		{
			grade: oneOf(['good', 'not-yet', 'poor'] as const),
			scope: oneOf(['rep', 'set'] as const),
			fault: Type.Optional(Type.String({ maxLength: 200 })),
			/** More than one, from the drill's list or in words. */
			faults: Type.Optional(Type.Array(Type.String({ minLength: 1, maxLength: 200 }), { minItems: 1, maxItems: 8 })),
		},
		closed,
	),
)
export const PainObservation = event(
	'observation',
	'pain',
	{ ...common, entryId: Type.Optional(uuidOf<EntryId>()), lineId: Type.Optional(uuidOf<LineId>()) },
	Type.Object(
		{
			region: oneOf(REGIONS),
			side: oneOf(['left', 'right', 'both'] as const),
			score: Type.Integer({ minimum: 0, maximum: 10 }),
			moment: oneOf(['before', 'during', 'next-day'] as const),
			/** Sharp pain, giving way, locking, numbness; with the head: any blow. */
			redFlag: Type.Boolean(),
			note: Type.Optional(Type.String({ maxLength: 500 })),
		},
		closed,
	),
)

/** What has no region: a blow to the head, a chest that hurts or a faint, fever. */
const ofTheWhole = <K extends 'head' | 'chest' | 'unwell'>(kind: K) =>
	event(
		'observation',
		kind,
		{ ...common, entryId: Type.Optional(uuidOf<EntryId>()), lineId: Type.Optional(uuidOf<LineId>()) },
		Type.Object({ note: Type.Optional(Type.String({ maxLength: 500 })) }, closed),
	)
/** Any blow to the head, strong pain of head or neck: everything is closed until a doctor has cleared it. */
export const HeadObservation = ofTheWhole('head')
/** Chest pain, fainting, breath that does not settle: everything is closed until a doctor has cleared it. */
export const ChestObservation = ofTheWhole('chest')
/** Unwell or feverish: it opens a care record that stays until somebody says "well". */
export const UnwellObservation = ofTheWhole('unwell')

/** Asked how a region was after work on it, and the answer: 0 is quiet. */
export const QuietObservation = event(
	'observation',
	'quiet',
	{ ...common, entryId: Type.Optional(uuidOf<EntryId>()), lineId: Type.Optional(uuidOf<LineId>()) },
	Type.Object(
		{
			region: oneOf(REGIONS),
			side: oneOf(['left', 'right', 'both'] as const),
			score: Type.Integer({ minimum: 0, maximum: 10 }),
			note: Type.Optional(Type.String({ maxLength: 500 })),
		},
		closed,
	),
)
/** Words about the session, an athlete in it, a drill they did or one rep of it. */
export const NoteObservation = event(
	'observation',
	'note',
	{
		...common,
		athleteId: Type.Union([uuidOf<AthleteId>(), Type.Null()]),
		entryId: Type.Optional(uuidOf<EntryId>()),
		lineId: Type.Optional(uuidOf<LineId>()),
		setNo: Type.Optional(Type.Integer({ minimum: 1, maximum: 50 })),
		repNo: Type.Optional(Type.Integer({ minimum: 1, maximum: 200 })),
	},
	Type.Object({ about: oneOf(['session', 'athlete', 'drill', 'rep'] as const), text: written(1000) }, closed),
)

/** A movement the athlete does not trust; it opens a care record that stays until somebody settles it. */
export const WorryObservation = event(
	'observation',
	'worry',
	{ ...common, entryId: uuidOf<EntryId>(), lineId: uuidOf<LineId>() },
	Type.Object({ region: oneOf(REGIONS), note: Type.Optional(Type.String({ maxLength: 500 })) }, closed),
)
/** After a pulled run: comfort 0 easy to 5 bad, and whether the foot braked in front. */
export const ComfortObservation = event(
	'observation',
	'comfort',
	{ ...onLine },
	Type.Object({ worst: Type.Integer({ minimum: 0, maximum: 5 }), braking: Type.Boolean() }, closed),
)
/** The whole session as the athlete felt it, 0–10, and how long it was. */
export const EffortObservation = event(
	'observation',
	'effort',
	common,
	Type.Object(
		{
			rpe: Type.Number({ minimum: 0, maximum: 10, multipleOf: 0.5 }),
			minutes: Type.Integer({ minimum: 1, maximum: 600 }),
		},
		closed,
	),
)

export const EndSetDecision = event(
	'decision',
	'end-set',
	{ ...common, entryId: uuidOf<EntryId>(), lineId: uuidOf<LineId>() },
	Type.Object({ reason: oneOf(END_REASONS) }, closed),
)
/** A carried load taken off. */
export const LoadOffDecision = event(
	'decision',
	'load-off',
	{ ...common, entryId: uuidOf<EntryId>(), lineId: uuidOf<LineId>() },
	Type.Object({ reason: oneOf(LOAD_OFF_REASONS) }, closed),
)
export const AttendanceDecision = event(
	'decision',
	'attendance',
	common,
	Type.Object({ present: Type.Boolean() }, closed),
)

/** Somebody who was not on the list and trains along: an athlete of the club, or a guest the phone gives an id and a name. */
export const GuestDecision = event(
	'decision',
	'guest',
	common,
	Type.Object(
		{
			/** Of somebody the club does not know yet. */
			name: Type.Optional(written(200)),
			/** The lines that were shown, under the ids that marks on them name. */
			lines: Type.Optional(
				Type.Array(
					Type.Object({ entryId: uuidOf<EntryId>(), lineId: uuidOf<LineId>(), planned: PlannedLine }, closed),
					{ maxItems: 30 },
				),
			),
		},
		closed,
	),
)
/** A drill that was not planned, for those it is for: on the sheet from now on, after one that is there. */
export const FurtherDecision = event(
	'decision',
	'further',
	{ ...common, athleteId: Type.Null() },
	Type.Object(
		{
			/** Of the new entry. */
			entryId: uuidOf<EntryId>(),
			/** The drill it follows; null is the beginning. */
			after: Type.Union([uuidOf<EntryId>(), Type.Null()]),
			drillId: documentIdOf<DrillId>(),
			drillVersion: DocumentVersion,
			lines: Type.Array(
				Type.Object({ athleteId: uuidOf<AthleteId>(), lineId: uuidOf<LineId>(), planned: PlannedLine }, closed),
				{ minItems: 1, maxItems: 100 },
			),
		},
		closed,
	),
)
/** The order the drills of a session are done in from now on, whatever was planned. */
export const DrillOrderDecision = event(
	'decision',
	'drill-order',
	{ ...common, athleteId: Type.Null() },
	Type.Object({ entryIds: Type.Array(uuidOf<EntryId>(), { minItems: 1, maxItems: 60, uniqueItems: true }) }, closed),
)
/** A piece of a complex left out this time, or done in another place. */
export const PieceDecision = event(
	'decision',
	'piece',
	{ ...common, entryId: uuidOf<EntryId>(), lineId: uuidOf<LineId>() },
	Type.Object(
		{
			piece: Type.Integer({ minimum: 1, maximum: 6 }),
			/** Its new place, counted from 1; null leaves it out. */
			place: Type.Union([Type.Integer({ minimum: 1, maximum: 6 }), Type.Null()]),
		},
		closed,
	),
)

/** Another drill for this athlete here and now; the line stays as it was planned. */
export const SwapDecision = event(
	'decision',
	'swap',
	{ ...common, entryId: uuidOf<EntryId>(), lineId: uuidOf<LineId>() },
	Type.Object({ drillId: documentIdOf<DrillId>(), drillVersion: DocumentVersion }, closed),
)
/** A new best on a fast day: the coach takes one rehearsal and one full rep, then the part is closed. */
export const FastDayDecision = event(
	'decision',
	'fast-day',
	{ ...common, entryId: uuidOf<EntryId>(), lineId: uuidOf<LineId>() },
	Type.Object({}, closed),
)
/** Where somebody stands in the queue: group 0 is everybody's, the position orders within it. */
export const QueueDecision = event(
	'decision',
	'queue',
	common,
	Type.Object(
		{ group: Type.Integer({ minimum: 0, maximum: 9 }), position: Type.Number({ minimum: -100_000, maximum: 100_000 }) },
		closed,
	),
)
/** The session ended before its plan, with what was left of the day for this athlete. */
export const CutShortDecision = event(
	'decision',
	'cut-short',
	common,
	Type.Object(
		{
			reason: oneOf(CUT_SHORT_REASONS),
			left: Type.Object(
				{
					reps: Type.Integer({ minimum: 0, maximum: 10_000 }),
					contacts: Type.Integer({ minimum: 0, maximum: 10_000 }),
					fastMetres: Type.Integer({ minimum: 0, maximum: 10_000 }),
				},
				closed,
			),
		},
		closed,
	),
)
/** Wind and ground of the whole session; it names no athlete. */
export const ConditionsDecision = event(
	'decision',
	'conditions',
	{ ...common, athleteId: Type.Null() },
	Type.Object(
		{
			windMps: Type.Optional(Type.Number({ minimum: -20, maximum: 20, multipleOf: 0.1 })),
			surface: Type.Optional(oneOf(SURFACES)),
		},
		closed,
	),
)

/** One schema per event; the key is `type/kind`. Whatever crosses the border is checked against these and nothing else. */
export const EVENT_SCHEMAS = {
	'mark/sprint': SprintMark,
	'mark/contact': ContactMark,
	'mark/height': HeightMark,
	'mark/distance': DistanceMark,
	'mark/done': DoneMark,
	'mark/release': ReleaseMark,
	'mark/missed': MissedMark,
	'observation/quality': QualityObservation,
	'observation/pain': PainObservation,
	'observation/head': HeadObservation,
	'observation/chest': ChestObservation,
	'observation/unwell': UnwellObservation,
	'observation/quiet': QuietObservation,
	'observation/note': NoteObservation,
	'observation/worry': WorryObservation,
	'observation/comfort': ComfortObservation,
	'observation/effort': EffortObservation,
	'decision/end-set': EndSetDecision,
	'decision/load-off': LoadOffDecision,
	'decision/attendance': AttendanceDecision,
	'decision/guest': GuestDecision,
	'decision/further': FurtherDecision,
	'decision/drill-order': DrillOrderDecision,
	'decision/piece': PieceDecision,
	'decision/swap': SwapDecision,
	'decision/fast-day': FastDayDecision,
	'decision/queue': QueueDecision,
	'decision/cut-short': CutShortDecision,
	'decision/conditions': ConditionsDecision,
} as const

export type EventKey = keyof typeof EVENT_SCHEMAS

/** Who beside its author may correct an event or take it back: who logs that session, who has the care of athletes, the athlete it is about. */
export type Corrector = 'logs' | 'care' | 'own'
/** Declared beside each kind. A correction is of the same type and session, and by its author or one of these. */
export const CORRECTED_BY: Record<EventKey, readonly Corrector[]> = {
	'mark/sprint': ['logs'],
	'mark/contact': ['logs'],
	'mark/height': ['logs'],
	'mark/distance': ['logs'],
	'mark/done': ['logs'],
	'mark/release': ['logs'],
	'mark/missed': ['logs'],
	'observation/quality': ['logs'],
	// A report closes and opens: whoever made it, and who has the care.
	'observation/pain': ['care'],
	'observation/head': ['care'],
	'observation/chest': ['care'],
	'observation/unwell': ['care'],
	'observation/quiet': ['care'],
	'observation/note': ['logs'],
	// A worry is settled by the athlete, too.
	'observation/worry': ['care', 'own'],
	'observation/comfort': ['logs'],
	'observation/effort': ['logs', 'own'],
	'decision/end-set': ['logs'],
	'decision/load-off': ['logs'],
	'decision/attendance': ['logs'],
	'decision/guest': ['logs'],
	'decision/further': ['logs'],
	'decision/drill-order': ['logs'],
	'decision/piece': ['logs'],
	'decision/swap': ['logs'],
	'decision/fast-day': ['logs'],
	'decision/queue': ['logs'],
	'decision/cut-short': ['logs'],
	'decision/conditions': ['logs'],
}
export type LogEvent = { [K in EventKey]: Static<(typeof EVENT_SCHEMAS)[K]> }[EventKey]
export type Mark = Extract<LogEvent, { type: 'mark' }>
export type Observation = Extract<LogEvent, { type: 'observation' }>
export type Decision = Extract<LogEvent, { type: 'decision' }>

export type BodyEvent = Extract<Observation, { kind: (typeof BODY_KINDS)[number] }>

/** The answer to one event of a batch. */
export type EventAnswer =
	| { id: string; outcome: 'accepted' | 'replayed' }
	| { id: string; outcome: 'refused'; field: string; reason: string }
