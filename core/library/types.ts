/** The field's vocabulary as types. Units stand in the names: M metres, Cm centimetres, S seconds, Kg kilograms, G grams. */

export const FAMILIES = ['prepare', 'sprint', 'agility', 'plyometric', 'throw', 'tissue'] as const
export type Family = (typeof FAMILIES)[number]

export const INTENSITY_CLASSES = ['low', 'moderate', 'high', 'shock'] as const
export type IntensityClass = (typeof INTENSITY_CLASSES)[number]

export const REGIONS = [
	'foot',
	'ankle',
	'shin',
	'calf',
	'knee',
	'front-thigh',
	'back-thigh',
	'groin',
	'hip',
	'back',
	'shoulder',
	'elbow',
	'wrist',
	'neck-head',
] as const
export type Region = (typeof REGIONS)[number]

export const REGION_NAMES: Record<Region, string> = {
	foot: 'foot',
	ankle: 'ankle',
	shin: 'shin',
	calf: 'calf or Achilles',
	knee: 'knee',
	'front-thigh': 'front thigh',
	'back-thigh': 'back thigh',
	groin: 'groin',
	hip: 'hip',
	back: 'back',
	shoulder: 'shoulder',
	elbow: 'elbow',
	wrist: 'wrist',
	'neck-head': 'neck or head',
}

export const PATTERNS = ['linear', 'lateral', 'rotational'] as const
export type Pattern = (typeof PATTERNS)[number]

export type Leg = 'left' | 'right'
export const LEVELS = [1, 2, 3] as const
export type Level = (typeof LEVELS)[number]

/** Share of own best speed over the same distance, start and method: <75, 75–<90, 90–<95, 95–<98, ≥98 %. */
export const EFFORT_ZONES = ['easy', 'tempo', 'sub-maximal', 'fast', 'maximal'] as const
export type EffortZone = (typeof EFFORT_ZONES)[number]

/** Change of direction in degrees: 0 is straight on, 180 is about turn. */
export const CUT_CLASSES = ['under-30', '30-60', '60-90', '90-135', '135-180'] as const
export type CutClass = (typeof CUT_CLASSES)[number]

/** How firm a rule or a number is; shown in words wherever it appears. */
export type Firmness = 'published' | 'common practice' | 'our setting'

/** What one rep of a drill yields when it is measured; 'quality' means it is judged by eye alone. */
export const MEASURE_KINDS = ['sprint', 'contact', 'height', 'distance', 'quality'] as const
export type MeasureKind = (typeof MEASURE_KINDS)[number]

/** Sets × reps, as coaches write it. */
export interface Dose {
	sets: number
	reps: number
}

/**
 * What makes one variation of a drill. `assistPercent` is speed over own MSS, `resistPercent` speed lost
 * to the load, `effortPercent` share of own best, `loadG` a weight worn.
 */
export const PARAMETERS = [
	'distanceM',
	'heightCm',
	'angleDeg',
	'ballKg',
	'runInM',
	'radiusM',
	'approachSteps',
	'assistPercent',
	'resistPercent',
	'effortPercent',
	'loadG',
	'minutes',
] as const
export type ParameterName = (typeof PARAMETERS)[number]
/** Only the ones a drill uses are set. */
export type Parameters = { [K in ParameterName]?: number | undefined }

/**
 * How ground contacts are counted. `both` = one bilateral landing; `alternating` = the starting leg
 * takes the odd one; `each-leg` = the dose is per leg, so that one rep is done left and right.
 */
export type ContactRule =
	| { by: 'rep'; feet: 'both' | 'alternating' | 'each-leg'; perRep: number }
	| { by: 'metres'; feet: 'both' | 'alternating'; stepLengthLegLengths: number; perStep: number }

export interface CountingRules {
	contacts?: ContactRule
	/** Cuts and dead stops per rep; the planting leg alternates from rep to rep unless the side was logged. */
	cuts?: { perRep: number }
	deadStops?: { perRep: number }
	/** Metres run per rep are the line's distance (and its run-in) in this zone unless a time says otherwise. */
	metres?: { plannedZone: EffortZone; kind?: 'resisted' | 'assisted' | 'curved' | 'shuttle' }
	/** Steps of sprints, marches and A-runs: shown apart, never as plyometric contacts. */
	steps?: { stepLengthLegLengths: number }
	throws?: { sides: 'both' | 'each-side' }
}

export const START_NAMES = {
	standing: 'Standing start',
	'three-point': 'Three-point start',
	rolling: 'Flying',
	reaction: 'Start on a call',
} as const
export type Start = keyof typeof START_NAMES

export interface Fault {
	fault: string
	correction: string
}

export interface Drill {
	id: string
	version: number
	name: string
	family: Family
	pattern: Pattern
	legs: 'both' | 'one' | 'alternating' | 'none'
	reactive: boolean
	intensity: IntensityClass
	/** A landing from above this height counts one class up (moderate becomes high). */
	highAboveCm?: number
	counting: CountingRules
	/** How the rep starts; marks with unlike starts are never compared. */
	start?: Start
	/** Fatigue is read against the school's repeat-speed limit instead of its speed limit. */
	repeatSpeed?: boolean
	/** A weight is worn: never in an unloading week, never twice a day. */
	carriesLoad?: boolean
	/** Needs the coach's whole attention: one athlete at a time. */
	oneAtATime?: boolean
	measures: MeasureKind[]
	defaults: Dose & Parameters & { restS: number; repS: number }
	/** Where an athlete of that level starts. */
	doses: Record<Level, Dose>
	/** What may be set, and between which bounds. A parameter without a range is not used. */
	ranges: { [K in ParameterName]?: readonly [number, number] }
	/** Metres needed, run-in and run-out included. */
	space: { lengthM: number; widthM: number; runOutM?: number }
	/** Which regions the drill loads, 1 a little to 3 a lot. */
	regions: Partial<Record<Region, 1 | 2 | 3>>
	/** A drill that spares the region, by region. */
	alternatives: Partial<Record<Region, string>>
	cues: string[]
	lookFor: string[]
	faults: Fault[]
	kit: string[]
	cautions: string[]
}

/** What a rung asks before the next one opens. */
export type PassCriterion =
	| { kind: 'quality' }
	/** The mean time stays within `percent` of the athlete's own best known before the session. */
	| { kind: 'time-within'; percent: number }
	/** Mean contact time at or below the school's ceiling for the athlete's level; by the school's choice the rebound must also be kept. */
	| { kind: 'contact-ceiling' }
	/** Mean height or distance not below the one of the rung before, within noise. */
	| { kind: 'not-below'; of: 'height' | 'distance' }
	/** Comfort reported 2 of 5 or better, no braking seen. */
	| { kind: 'comfort' }

/** What must hold before a rung opens. */
export type Gate =
	| { kind: 'level' }
	/** Rebounds from a box open in the phases the school says. */
	| { kind: 'depth-phase' }
	| { kind: 'passed'; ladderId: string; rungId: string; rungName?: string | undefined }
	/** Days since the athlete came to the rung below. */
	| { kind: 'days-below'; days: number }
	/** Open only when the school takes this side of a question. */
	| { kind: 'school'; question: 'volume' | 'conditioning' | 'contrast'; side: string }

export const PHASES = ['accumulate', 'intensify', 'peaking', 'unloading'] as const
export type Phase = (typeof PHASES)[number]

/** What a rung may be exchanged for when it has stood still: same rung, another variation. */
export interface Variation {
	name: string
	drillId: string
	parameters: Parameters
	/** Heavy, moderate and light pulls are ordered by the school's resistance question. */
	resistance?: 'heavy' | 'moderate' | 'light'
}

export interface Rung {
	id: string
	name: string
	level: Level
	drillId: string
	parameters: Parameters
	dose: Dose
	restS: number
	pass: PassCriterion
	gates: Gate[]
	/** Passing this rung on every ladder of the family that the club uses proposes the level. */
	marksLevel?: 2 | 3
	variations?: Variation[]
}

export interface Ladder {
	id: string
	version: number
	name: string
	family: Family
	/** What it trains and when to leave it, in a sentence or two. */
	about: string
	/** A re-entry path is walked after a lay-off or an injury, never chosen for a session. */
	path?: 're-entry'
	rungs: Rung[]
}

/** The questions good coaches answer differently; each side is explained in `schools.ts`. */
export interface SchoolChoices {
	boxHeight: 'climb' | 'low'
	depthJumps: 'peaking' | 'peaking-and-intensify' | 'all-year' | 'never'
	boxJudgement: 'shortest-contact' | 'rebound-under-ceiling'
	volume: 'skill' | 'capacity'
	conditioning: 'shuttles' | 'long-runs'
	leftRight: 'close' | 'leave'
	variety: 'same' | 'rotate'
	contrast: 'own-trial' | 'use'
	resistance: 'heavy-to-light' | 'light-only'
	goodDay: 'stop' | 'finish'
}

/** The numbers a squad follows; bounds in `schools.ts`. */
export interface SchoolNumbers {
	passCeilingLevel2Ms: number
	passCeilingLevel3Ms: number
	sprintGoalMs: number
	highestBoxCm: number
	dropOffSpeedPercent: number
	dropOffRepeatPercent: number
	dropOffJumpPercent: number
	rampPercent: number
	spacingH: number
	weeksToUnloading: number
	assistedCapPercent: number
	carriedSpeedLossPercent: number
	ballSpeedLossPercent: number
	advancesPerSession: number
}

/** The bundle of choices and numbers a squad follows, where good coaches disagree. Immutable: a change is a new version. */
export interface School {
	id: string
	version: number
	name: string
	about: string
	choices: SchoolChoices
	numbers: SchoolNumbers
	/** A hard part at the end of the session. */
	finisher: boolean
	/** On a fast day the field screen offers one rehearsal and one full rep. */
	fastDayOffer: boolean
}

export interface Library {
	drills: Record<string, Drill>
	ladders: Record<string, Ladder>
	schools: Record<string, School>
}

/** One athlete's line on a session sheet, as it stands. */
export interface PlannedLine {
	drillId: string
	drillVersion: number
	ladderId: string | null
	rungId: string | null
	dose: Dose
	parameters: Parameters
	restS: number
}
