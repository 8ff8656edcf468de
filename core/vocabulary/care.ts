import Type, { type Static } from 'typebox'
import { Day, type DrillId, documentIdOf } from './ids'
import { closed, oneOf, written } from './shape'
import { EVERYTHING, PATTERNS, REGIONS } from './words'

/** What is said of an athlete's body, and who may say that it is well again. */

const maybe = Type.Optional

export const REPORT_KINDS = ['pain', 'soreness', 'head', 'chest', 'unwell', 'well', 'worry', 'settled'] as const
export type ReportKind = (typeof REPORT_KINDS)[number]
export const REPORT_SIDES = ['left', 'right', 'both'] as const
export type ReportSide = (typeof REPORT_SIDES)[number]
export const REPORT_MOMENTS = ['before', 'during', 'next-day'] as const

/** One report, as it stands after corrections. Its day is the session's; without one the day it was made on. */
export const CareReport = closed({
	kind: oneOf(REPORT_KINDS),
	/** Of pain and soreness. */
	region: maybe(oneOf(REGIONS)),
	/** Absent for what has no sides, or where it was not said: both. */
	side: maybe(oneOf(REPORT_SIDES)),
	/** 0 none to 10. */
	score: maybe(Type.Integer({ minimum: 0, maximum: 10 })),
	/** Sharp pain, giving way, locking, numbness. */
	redFlag: maybe(Type.Boolean()),
	moment: maybe(oneOf(REPORT_MOMENTS)),
	day: Day,
	/** The movement a worry is about. */
	drillId: maybe(documentIdOf<DrillId>()),
	/** The answer to "how was it?" after an easy form or a step of the way back: up to 1 it is no new report. */
	asked: maybe(Type.Boolean()),
})
export type CareReport = Static<typeof CareReport>

export const CLEARING_ROLES = ['doctor', 'physiotherapist', 'clinician', 'coach', 'guardian', 'athlete'] as const
export type ClearingRole = (typeof CLEARING_ROLES)[number]

/** Who said that a region, or everything, is well again. */
export const Clearance = closed({
	region: oneOf([...REGIONS, EVERYTHING] as const),
	/** Absent or both: both sides of the region. */
	side: maybe(oneOf(REPORT_SIDES)),
	day: Day,
	by: written(200),
	role: oneOf(CLEARING_ROLES),
	/** Whether what it ends was an injury; absent it counts as one after a red flag or a 7 or more. */
	injury: maybe(Type.Boolean()),
})
export type Clearance = Static<typeof Clearance>

/** Closed by hand: a region, everything, a kind of movement or one drill. It stands until it is no longer listed. */
export const Restriction = closed({
	region: maybe(oneOf([...REGIONS, EVERYTHING] as const)),
	pattern: maybe(oneOf(PATTERNS)),
	drillId: maybe(documentIdOf<DrillId>()),
	since: Day,
})
export type Restriction = Static<typeof Restriction>

/** A region, or everything, that was closed by hand and opened by hand again; by nobody's clearance. */
export interface Lift {
	region: Restriction['region'] & string
	since: string
	/** The first day it was open again. */
	until: string
}

/** Lowest first. */
export const GRADES = ['noted', 'spare', 'closed', 'everything'] as const
export type Grade = (typeof GRADES)[number]

/** What is noted, spared or closed on a day, and since when. */
export const Closure = closed({
	region: oneOf([...REGIONS, EVERYTHING] as const),
	side: maybe(oneOf(REPORT_SIDES)),
	grade: oneOf(GRADES),
	since: Day,
})
export type Closure = Static<typeof Closure>

/** Where somebody stands on one path of the way back: the step last written. */
export const ReturnStand = closed({
	/** Id of a return ladder. */
	path: Type.String({ minLength: 1, maxLength: 60 }),
	/** Id of its step that was written last: with answers it was done, without it is still due. */
	step: Type.String({ minLength: 1, maxLength: 60 }),
	/** The day a step was done last. */
	lastDone: maybe(Type.Union([Day, Type.Null()])),
	/** 0–10 in each region of the path, asked after the step. */
	answers: maybe(Type.Union([Type.Array(Type.Integer({ minimum: 0, maximum: 10 }), { maxItems: 30 }), Type.Null()])),
	/** How often it was repeated for a small pain. */
	repeats: maybe(Type.Integer({ minimum: 0, maximum: 1000 })),
})
export type ReturnStand = Static<typeof ReturnStand>
