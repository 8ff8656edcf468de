/** The field's vocabulary as types. Units stand in the names: M metres, Cm centimetres, S seconds, Kg kilograms. */

export const FAMILIES = ['prepare', 'sprint', 'agility', 'plyometric', 'throw', 'tissue'] as const
export type Family = (typeof FAMILIES)[number]

export const INTENSITY_CLASSES = ['low', 'moderate', 'high', 'shock'] as const
export type IntensityClass = (typeof INTENSITY_CLASSES)[number]

export const REGIONS = [
	'foot', 'ankle', 'shin', 'calf', 'knee', 'front-thigh', 'back-thigh', 'groin',
	'hip', 'back', 'shoulder', 'elbow', 'wrist', 'neck-head',
] as const
export type Region = (typeof REGIONS)[number]

export const REGION_NAMES: Record<Region, string> = {
	foot: 'foot', ankle: 'ankle', shin: 'shin', calf: 'calf or Achilles', knee: 'knee', 'front-thigh': 'front thigh',
	'back-thigh': 'back thigh', groin: 'groin', hip: 'hip', back: 'back', shoulder: 'shoulder', elbow: 'elbow',
	wrist: 'wrist', 'neck-head': 'neck or head',
}

export type Leg = 'left' | 'right'
export type Level = 1 | 2 | 3

/** Share of own best speed over the same distance, start and method: <75, 75–<90, 90–<95, 95–<98, ≥98 %. */
export const EFFORT_ZONES = ['easy', 'tempo', 'sub-maximal', 'fast', 'maximal'] as const
export type EffortZone = (typeof EFFORT_ZONES)[number]

/** Change of direction in degrees: 0 is straight on, 180 is about turn. */
export const CUT_CLASSES = ['under-30', '30-60', '60-90', '90-135', '135-180'] as const
export type CutClass = (typeof CUT_CLASSES)[number]

/** How firm a rule or a number is; shown in words wherever it appears. */
export type Firmness = 'published' | 'common practice' | 'our setting'

/** What one rep of a drill yields when it is measured; 'quality' means it is judged by eye alone. */
export type MeasureKind = 'sprint' | 'contact' | 'height' | 'distance' | 'quality'

/** Sets × reps, as coaches write it. */
export interface Dose {
	sets: number
	reps: number
}

/** What makes one variation of a drill: only the fields that drill uses are set. */
export interface Parameters {
	distanceM?: number
	heightCm?: number
	angleDeg?: number
	ballKg?: number
	runInM?: number
}

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
	metres?: { plannedZone: EffortZone }
	/** Steps of sprints, marches and A-runs: shown apart, never as plyometric contacts. */
	steps?: { stepLengthLegLengths: number }
	throws?: { sides: 'both' | 'each-side' }
}

export const START_NAMES = { standing: 'Standing start', 'three-point': 'Three-point start', rolling: 'Flying', reaction: 'Start on a call' } as const
export type Start = keyof typeof START_NAMES

export interface Drill {
	id: string
	version: number
	name: string
	family: Family
	pattern: 'linear' | 'lateral' | 'rotational'
	legs: 'both' | 'one' | 'alternating' | 'none'
	reactive: boolean
	intensity: IntensityClass
	/** A landing from above this height counts one class up (moderate becomes high). */
	highAboveCm?: number
	counting: CountingRules
	/** How the rep starts; marks with unlike starts are never compared. */
	start?: Start
	measures: MeasureKind[]
	defaults: Dose & Parameters & { restS: number; repS: number }
	/** Which regions the drill loads, 1 a little to 3 a lot. */
	regions: Partial<Record<Region, 1 | 2 | 3>>
	/** A drill that spares the region, by region. */
	alternatives: Partial<Record<Region, string>>
	cues: string[]
	lookFor: string[]
	faults: { fault: string; correction: string }[]
	kit: string[]
	cautions: string[]
}

/** What a rung asks before the next one opens. */
export type PassCriterion =
	| { kind: 'quality' }
	/** The mean time stays within `percent` of the athlete's own best known before the session. */
	| { kind: 'time-within'; percent: number }
	/** Mean contact time at or below the school's ceiling for the athlete's level. */
	| { kind: 'contact-ceiling' }

export type Gate =
	| { kind: 'level' }
	| { kind: 'phase'; phases: Phase[] }

export const PHASES = ['accumulate', 'intensify', 'peaking', 'unloading'] as const
export type Phase = (typeof PHASES)[number]

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
}

export interface Ladder {
	id: string
	version: number
	name: string
	family: Family
	rungs: Rung[]
}

/** The bundle of numbers a squad follows, where good coaches disagree. Immutable: a change is a new version. */
export interface School {
	id: string
	version: number
	name: string
	passCeilingMs: { level2: number; level3: number }
	highestBoxCm: number
	depthJumpPhases: Phase[]
	dropOffPercent: { speed: number; repeatSpeed: number; jumpHeight: number; contact: number }
	rampPercent: number
	advancesPerSession: number
}

export interface Library {
	drills: Record<string, Drill>
	ladders: Record<string, Ladder>
	schools: Record<string, School>
}
