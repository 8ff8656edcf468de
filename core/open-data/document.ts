import Type, { type Static, type TSchema } from 'typebox'
import { EVERY, MOST_ITEMS, MOST_TRIES } from '../record/battery'
import { Parameters } from '../vocabulary/dose'
import { ENTRY, EntryTuning, WORK } from '../vocabulary/entry'
import {
	ContactMark,
	DistanceMark,
	DoneMark,
	HeightMark,
	MissedMark,
	ReleaseMark,
	SprintMark,
} from '../vocabulary/events'
import {
	type AthleteId,
	Day,
	DocumentVersion,
	type DrillId,
	type EntryId,
	Instant,
	type LadderId,
	type LineId,
	type RungId,
	type SchoolId,
	type SessionId,
	type SquadId,
	type ThemeId,
	TimeOfDay,
	documentIdOf,
	uuidOf,
} from '../vocabulary/ids'
import { DAY_ROLES } from '../vocabulary/session'
import { closed, oneOf, someOf, written } from '../vocabulary/shape'
import { ATHLETE_TYPES, FAMILIES, LEVELS, METHODS_OF, PHASES, SURFACES } from '../vocabulary/words'

/*
 * A club's work as a document for other programs: who there is, what was planned for whom, what was measured. Ids are
 * those the club keeps, so that the same thing brought in twice is there once. Drills, ladders, schools and themes are
 * cited as the library names them. Nothing of anybody's health is in it.
 */

const maybe = <S extends TSchema>(shape: S) => Type.Union([shape, Type.Null()])

export const OpenSquad = closed({
	id: uuidOf<SquadId>(),
	name: written(200),
	/** 1 Monday … 7 Sunday. */
	trainingDays: Type.Array(Type.Integer({ minimum: 1, maximum: 7 }), { maxItems: 7, uniqueItems: true }),
	startTime: TimeOfDay,
	place: Type.String({ maxLength: 200 }),
	/** Matches and practice are full of hard jumps; absent where they are not. */
	jumpingSport: Type.Optional(Type.Boolean()),
	phase: oneOf(PHASES),
	schoolId: documentIdOf<SchoolId>(),
	schoolVersion: DocumentVersion,
})
export type OpenSquad = Static<typeof OpenSquad>

const Level = Type.Unsafe<(typeof LEVELS)[number]>(Type.Integer({ minimum: 1, maximum: LEVELS.length }))
export const OpenAthlete = closed({
	id: uuidOf<AthleteId>(),
	name: written(200),
	born: maybe(Day),
	legLengthM: maybe(Type.Number({ minimum: 0.4, maximum: 1.3, multipleOf: 0.001 })),
	massKg: maybe(Type.Number({ minimum: 15, maximum: 250, multipleOf: 0.1 })),
	/** How they are built, where it changes what is proposed. */
	type: maybe(oneOf(ATHLETE_TYPES)),
	/** Level by family; a family that is not named has none of its own. */
	levels: someOf(FAMILIES, Level),
	squadIds: Type.Array(uuidOf<SquadId>(), { maxItems: 50, uniqueItems: true }),
	/** Whom to call, and how. */
	contact: maybe(written(200)),
})
export type OpenAthlete = Static<typeof OpenAthlete>

export const OpenSession = closed({
	id: uuidOf<SessionId>(),
	squadId: uuidOf<SquadId>(),
	day: Day,
	startTime: TimeOfDay,
	/** Where it is: an IANA name. */
	timeZone: written(64),
	title: written(200),
	place: Type.String({ maxLength: 200 }),
	surface: maybe(oneOf(SURFACES)),
	phase: oneOf(PHASES),
	plannedMinutes: Type.Integer({ minimum: 1, maximum: 240 }),
	role: oneOf(DAY_ROLES),
	theme: maybe(documentIdOf<ThemeId>()),
	share: Type.Number({ exclusiveMinimum: 0, maximum: 1, multipleOf: 0.01 }),
	/** Null while nobody has begun it. */
	begunAt: maybe(Instant),
	/** Set when every verdict of it has been decided. */
	closedAt: maybe(Instant),
	/** In the order of the queue. */
	athleteIds: Type.Array(uuidOf<AthleteId>(), { maxItems: 200, uniqueItems: true }),
})
export type OpenSession = Static<typeof OpenSession>

/** One thing a session asks for, the same for all; lines say what of it is whose. */
export const OpenEntry = closed({
	id: uuidOf<EntryId>(),
	sessionId: uuidOf<SessionId>(),
	/** From 0, in the order of the session. */
	position: Type.Integer({ minimum: 0, maximum: 1000 }),
	family: oneOf(FAMILIES),
	drillVersion: DocumentVersion,
	...ENTRY,
	tuning: maybe(EntryTuning),
	/** Taken off the sheet. */
	off: Type.Boolean(),
})
export type OpenEntry = Static<typeof OpenEntry>

/** One version of what one athlete was given; marks cite the one they were done under. */
export const OpenLine = closed({
	id: uuidOf<LineId>(),
	sessionId: uuidOf<SessionId>(),
	entryId: uuidOf<EntryId>(),
	athleteId: uuidOf<AthleteId>(),
	version: Type.Integer({ minimum: 1, maximum: 100_000 }),
	/** The newest version. */
	current: Type.Boolean(),
	/** Written by a person over what was proposed. */
	handSet: Type.Boolean(),
	/** Why no line may be written; drill, ladder and rung are then null. */
	blocked: maybe(written(200)),
	drillId: maybe(documentIdOf<DrillId>()),
	drillVersion: maybe(DocumentVersion),
	ladderId: maybe(documentIdOf<LadderId>()),
	rungId: maybe(documentIdOf<RungId>()),
	...WORK,
	/** 0×0 where there is no drill. */
	dose: closed({ sets: Type.Integer({ minimum: 0, maximum: 20 }), reps: Type.Integer({ minimum: 0, maximum: 100 }) }),
	/** What changed against the line before, and why. */
	change: maybe(Type.Unsafe<object>(Type.Object({}))),
	/** For a line set by hand: what would have been written. */
	wouldBe: maybe(written(200)),
	writtenAt: Instant,
})
export type OpenLine = Static<typeof OpenLine>

/** A mark that stands, as docs/events.md has it. */
export const OpenMark = Type.Union([
	SprintMark,
	ContactMark,
	HeightMark,
	DistanceMark,
	DoneMark,
	ReleaseMark,
	MissedMark,
])
export type OpenMark = Static<typeof OpenMark>

const Method = oneOf([...new Set(Object.values(METHODS_OF).flat())])
export const OpenTest = closed({
	id: uuidOf<string>(),
	squadId: uuidOf<SquadId>(),
	name: written(80),
	every: oneOf(EVERY),
	items: Type.Array(
		closed({
			drillId: documentIdOf<DrillId>(),
			parameters: Parameters,
			kind: oneOf(['sprint', 'contact', 'height', 'distance'] as const),
			method: Method,
			tries: Type.Integer({ minimum: 1, maximum: MOST_TRIES }),
			use: oneOf(['best', 'mean'] as const),
			restS: Type.Integer({ minimum: 0, maximum: 1800 }),
		}),
		{ minItems: 1, maxItems: MOST_ITEMS },
	),
	/** Sessions in which it is done: what is measured there that it asks for is its result. */
	sessionIds: Type.Array(uuidOf<SessionId>(), { maxItems: 5000, uniqueItems: true }),
	/** Taken off the squad's page. */
	off: Type.Boolean(),
})
export type OpenTest = Static<typeof OpenTest>

/** What a document holds, in the order it is brought in: each kind names only those before it. */
export const OPEN_KINDS = ['squads', 'athletes', 'sessions', 'entries', 'lines', 'tests', 'marks'] as const
export type OpenKind = (typeof OPEN_KINDS)[number]
export const OPEN_SHAPES = {
	squads: OpenSquad,
	athletes: OpenAthlete,
	sessions: OpenSession,
	entries: OpenEntry,
	lines: OpenLine,
	tests: OpenTest,
	marks: OpenMark,
} satisfies Record<OpenKind, TSchema>

export const OPEN_FORMAT = 'dromos-data'
export interface OpenRecords {
	squads: OpenSquad[]
	athletes: OpenAthlete[]
	sessions: OpenSession[]
	entries: OpenEntry[]
	lines: OpenLine[]
	tests: OpenTest[]
	marks: OpenMark[]
}
/** The whole, as JSON. A kind that is left out is empty. */
export const OpenData = closed({
	format: Type.Literal(OPEN_FORMAT),
	version: Type.Literal(1),
	...(Object.fromEntries(
		OPEN_KINDS.map((kind) => [kind, Type.Optional(Type.Array(OPEN_SHAPES[kind]))]),
	) as unknown as Record<OpenKind, TSchema>),
})
export const noRecords = (): OpenRecords => ({
	squads: [],
	athletes: [],
	sessions: [],
	entries: [],
	lines: [],
	tests: [],
	marks: [],
})
