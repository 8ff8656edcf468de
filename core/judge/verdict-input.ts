import Type, { type Static, type TSchema } from 'typebox'
import type { OwnErrors } from '../noise/typical-error'
import { Closure } from '../vocabulary/care'
import { END_REASONS } from '../vocabulary/event-kinds'
import { SchoolChoices } from '../vocabulary/school'
import {
	EVERYTHING,
	FAMILIES,
	type Family,
	PATTERNS,
	PHASES,
	REGIONS,
	CONTACT_METHODS,
	LENGTH_METHODS,
	SPRINT_METHODS,
	type Method,
	SURFACES,
	WORK_KINDS,
} from '../vocabulary/words'

/**
 * Everything a verdict is made from, as a schema: it is stored whole with every verdict, so that the
 * same input can be judged again anywhere and come out the same. Documents are cited by id and version.
 */

const oneOf = <T extends string>(values: readonly T[]) => Type.Unsafe<T>(Type.String({ enum: [...values] }))
const closed = <P extends Record<string, TSchema>>(properties: P, say: { description?: string } = {}) =>
	Type.Object(properties, { additionalProperties: false, ...say })
const orNull = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])
const maybe = Type.Optional
const list = Type.Array
const Count = Type.Integer({ minimum: 0, maximum: 100_000 })
const Id = Type.String({ minLength: 1, maxLength: 60 })
const Day = Type.String({ pattern: '^\\d{4}-\\d{2}-\\d{2}$', description: 'local calendar day' })
const Time = Type.String({ pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' })
const Dose = closed({
	sets: Type.Integer({ minimum: 1, maximum: 50 }),
	reps: Type.Integer({ minimum: 1, maximum: 200 }),
})
const Leg = oneOf(['left', 'right'] as const)
const Region = oneOf(REGIONS)
const Phase = oneOf(PHASES)
const Level = Type.Unsafe<1 | 2 | 3>(Type.Integer({ minimum: 1, maximum: 3 }))
const METHODS: readonly Method[] = [...new Set<Method>([...SPRINT_METHODS, ...CONTACT_METHODS, ...LENGTH_METHODS])]

/** Where an athlete stands on one ladder; it belongs to the athlete, over all squads. */
export const LadderStateSchema = closed({
	ladderId: Id,
	rungId: Id,
	dose: Dose,
	closed: maybe(
		orNull(
			closed({ region: Region, since: Day }, { description: 'of inputs before rules version 4: closed until cleared' }),
		),
	),
	substitute: orNull(
		closed(
			{ drillId: Id, since: Day, region: maybe(Region), cause: maybe(Type.String({ maxLength: 20 })) },
			{ description: 'another variation of the rung, after a plateau; region and cause only before rules version 4' },
		),
	),
	passed: Type.Boolean({ description: 'the rung is passed and waits; it need not be earned again' }),
	easedBy: orNull(oneOf(['drop-off', 'ramp'] as const)),
	done: maybe(list(Id, { description: 'rungs passed; absent: all below the rung' })),
	rungSince: maybe(orNull(Day)),
	passedSince: maybe(orNull(Day)),
	back: maybe(
		orNull(
			closed({
				percent: Type.Unsafe<60 | 75 | 90>(Type.Integer({ enum: [60, 75, 90] })),
				since: orNull(Day),
				stage: oneOf(['short', 'long', 'path'] as const),
			}),
		),
	),
	reentry: maybe(
		orNull(
			closed({
				pathId: Id,
				rungId: Id,
				since: Day,
				repeats: maybe(Type.Integer({ minimum: 0, description: 'how often the step was repeated for a small pain' })),
			}),
		),
	),
	favour: maybe(orNull(Leg)),
	stay: maybe(Type.Boolean({ description: 'an assisted run that stays at the last comfortable pull' })),
	ballKg: maybe(orNull(Type.Number({ minimum: 0.5, maximum: 10 }))),
})

const Mark = closed({
	kind: oneOf(['sprint', 'contact', 'height', 'distance'] as const),
	value: Type.Number({ exclusiveMinimum: 0, description: 's for sprint and contact, m for height and distance' }),
	method: oneOf(METHODS),
	flightS: maybe(Type.Number({ exclusiveMinimum: 0 })),
	side: maybe(Leg),
})

const UsualSchema = closed({
	value: Type.Number({ exclusiveMinimum: 0 }),
	betweenSd: Type.Number({ minimum: 0 }),
	withinSd: Type.Number({ minimum: 0 }),
	standardError: Type.Number({ minimum: 0 }),
	freedom: Type.Number({ exclusiveMinimum: 0 }),
	sessions: Type.Integer({ minimum: 2, maximum: 8 }),
})
export type Usual = Static<typeof UsualSchema>

export const ExposureSchema = closed({
	sessionId: Id,
	day: Day,
	rungId: Type.String({ maxLength: 60 }),
	onRung: Type.Boolean({ description: 'false when an alternative stood in for the rung' }),
	phase: maybe(Phase),
	planned: Dose,
	repsDone: Count,
	endReason: orNull(oneOf(END_REASONS)),
	marks: list(Mark),
	like: maybe(
		Type.String({
			maxLength: 200,
			description:
				'what the marks may be compared with, beside kind, side and method: drill, start, form, aid, load, effort and ground; absent without marks, and in inputs before rules version 9',
		}),
	),
	quality: closed({ good: Count, notYet: Count, poor: Count, setTaps: Count }),
	bestBefore: maybe(
		Type.Unsafe<Partial<Record<Method, number>>>(
			Type.Object(
				{},
				{
					additionalProperties: Type.Number({ exclusiveMinimum: 0 }),
					description: 'of inputs before rules version 7: best times by method, which nothing is held against any more',
				},
			),
		),
	),
	usual: maybe(
		Type.Unsafe<Record<string, Usual>>(
			Type.Object(
				{},
				{
					additionalProperties: UsualSchema,
					description:
						'the usual before that day of marks taken likewise, by method, or method and side as in "mat/left"',
				},
			),
		),
	),
	firstDayBack: maybe(Type.Boolean({ description: 'the first day after more than a week away: no evidence' })),
	comfort: maybe(orNull(closed({ worst: Type.Integer({ minimum: 0, maximum: 5 }), braking: Type.Boolean() }))),
	loadOff: maybe(orNull(oneOf(['speed-loss', 'movement'] as const))),
})

const Pain = closed({
	sessionId: Id,
	day: Day,
	region: Region,
	side: oneOf(['left', 'right', 'both'] as const),
	score: Type.Integer({ minimum: 0, maximum: 10 }),
	redFlag: Type.Boolean(),
})
const Restriction = closed({
	region: orNull(oneOf([...REGIONS, EVERYTHING] as const)),
	pattern: orNull(oneOf(PATTERNS)),
	drillId: maybe(Id),
	since: Day,
	setBy: Type.String(),
})
const Worry = closed({ drillId: Id, region: Region, since: Day })
const Work = closed({
	day: Day,
	startTime: Time,
	families: list(oneOf(FAMILIES)),
	kinds: list(oneOf(WORK_KINDS)),
	outside: Type.Boolean(),
})
const RampDay = closed({ day: Day, unloading: Type.Boolean(), value: Type.Number({ minimum: 0 }) })

export const VerdictInputSchema = closed({
	rulesVersion: Type.Integer({ minimum: 1 }),
	sessionId: Id,
	day: Day,
	startTime: Time,
	next: closed({
		day: Day,
		startTime: Time,
		phase: Phase,
		surface: orNull(oneOf(SURFACES)),
		hoursToMatch: orNull(Type.Number()),
		hoursSinceMatch: orNull(Type.Number()),
	}),
	athlete: closed({
		id: Id,
		level: Level,
		ageYears: orNull(Type.Integer({ minimum: 0, maximum: 120 })),
		massKg: orNull(Type.Number({ minimum: 15, maximum: 250 })),
		unwell: Type.Boolean(),
		contrastHelps: Type.Boolean(),
	}),
	ladder: closed({ id: Id, version: Type.Integer({ minimum: 1 }) }),
	school: closed({ id: Id, version: Type.Integer({ minimum: 1 }) }),
	safety: maybe(
		closed(
			{
				rampPercent: Type.Number(),
				spacingH: Type.Number(),
				highestBoxCm: Type.Number(),
				assistedCapPercent: Type.Number(),
				depthJumps: maybe(SchoolChoices.properties.depthJumps),
			},
			{ description: 'the strictest of all an athlete’s squads; depthJumps absent in inputs before rules version 10' },
		),
	),
	state: LadderStateSchema,
	focus: orNull(oneOf(['priority', 'kept'] as const)),
	exposures: list(ExposureSchema, { description: 'this ladder, oldest first, the judged session last' }),
	standings: Type.Unsafe<Record<string, string[]>>(
		Type.Object({}, { additionalProperties: list(Id), description: 'rungs passed, by ladder' }),
	),
	restrictions: list(Restriction),
	worries: list(Worry),
	pains: list(Pain, { description: 'the last four weeks, any region' }),
	answers: maybe(
		list(
			closed({
				region: Region,
				side: oneOf(['left', 'right', 'both'] as const),
				score: Type.Integer({ minimum: 0, maximum: 10 }),
			}),
			{ description: 'how it was, asked in the judged session after the easy form or a step' },
		),
	),
	returning: maybe(
		list(Region, { description: 'regions of a way back, each asked about after a step; absent: nobody asks' }),
	),
	accepted: maybe(
		list(Region, { description: 'regions in which a health professional accepts a discomfort of 1 or 2' }),
	),
	closures: maybe(
		list(Closure, {
			description: 'what is closed, spared and noted for the next session; absent: as the pains say, nothing cleared',
		}),
	),
	levels: maybe(
		Type.Unsafe<Partial<Record<Family, 1 | 2 | 3>>>(
			Type.Object({}, { additionalProperties: Level, description: 'levels by family; absent: as in the ladder’s' }),
		),
	),
	slowFall: maybe(
		closed(
			{
				kind: oneOf(['sprint', 'contact', 'height', 'distance'] as const),
				percent: Type.Number(),
				fallen: Type.Boolean(),
			},
			{ description: 'the last four sessions by the judged key against eight earlier ones; absent below sixteen' },
		),
	),
	bestBox: maybe(
		closed(
			{
				heightCm: Type.Integer({ minimum: 0, maximum: 150 }),
				keepsGoal: Type.Boolean(),
				on: Day,
				how: Type.String({ maxLength: 40 }),
			},
			{ description: 'the athlete’s own best box as measured; absent: none was' },
		),
	),
	errors: maybe(
		Type.Unsafe<OwnErrors>(
			Type.Object(
				{},
				{
					additionalProperties: closed({
						sd: Type.Number({ exclusiveMinimum: 0 }),
						pairs: Type.Integer({ minimum: 20 }),
						dayPercent: maybe(Type.Number({ minimum: 0 })),
						days: maybe(Type.Integer({ minimum: 20 })),
					}),
					description:
						'the squad’s own typical errors on the rung’s drill in the mark’s unit, by kind and method as in "sprint/gate"',
				},
			),
		),
	),
	lastSessions: list(Id, { description: 'the last three, the judged one last' }),
	work: list(Work, {
		description:
			'what was done, in sessions and outside, oldest first; then what is known to come outside near the next session',
	}),
	newRungs: list(closed({ ladderId: Id, rungId: Id, day: Day, hard: Type.Boolean() }), {
		description: 'first days on rungs reached lately',
	}),
	advancesBefore: list(closed({ ladderId: Id, hard: Type.Boolean() }), {
		description: 'already advanced by this session',
	}),
	ramp: closed({
		hardContacts: list(RampDay),
		sharpCuts: list(RampDay),
		maximalStarts: list(RampDay),
		fastMetres: list(RampDay),
	}),
})

export type LadderState = Static<typeof LadderStateSchema>
export type MarkEvidence = Static<typeof Mark>
export type Exposure = Static<typeof ExposureSchema>
export type PainReport = Static<typeof Pain>
export type OpenRestriction = Static<typeof Restriction>
export type OpenWorry = Static<typeof Worry>
export type WorkDay = Static<typeof Work>
export type VerdictInput = Static<typeof VerdictInputSchema>
