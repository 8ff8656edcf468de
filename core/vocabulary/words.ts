/** The field's words. Units stand in the names: M metres, Cm centimetres, S seconds, Kg kilograms, G grams. */

export const FAMILIES = ['prepare', 'sprint', 'agility', 'plyometric', 'throw', 'tissue'] as const
export type Family = (typeof FAMILIES)[number]

/** What a day can be about: the families that are trained for speed and power. */
export const QUALITIES = ['sprint', 'plyometric', 'agility', 'throw'] as const satisfies readonly Family[]
export type Quality = (typeof QUALITIES)[number]

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
	'abdomen',
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
	abdomen: 'abdomen',
	back: 'back',
	shoulder: 'shoulder',
	elbow: 'elbow',
	wrist: 'wrist',
	'neck-head': 'neck or head',
}

/** How an athlete is built, where it changes what is proposed. */
export const ATHLETE_TYPES = ['stiff', 'slow'] as const
export type AthleteType = (typeof ATHLETE_TYPES)[number]
export const TYPE_NAMES: Record<AthleteType, string> = {
	stiff: 'stiff, fast and often hurt',
	slow: 'strong and slow',
}

export const PATTERNS = ['linear', 'lateral', 'rotational'] as const
export type Pattern = (typeof PATTERNS)[number]

export const SIDES = ['left', 'right'] as const
export type Leg = (typeof SIDES)[number]
export const LEVELS = [1, 2, 3] as const
export type Level = (typeof LEVELS)[number]

/** Kinds of hard work that want days between them. */
export const WORK_KINDS = ['maximal-sprint', 'hard-turns', 'hard-jumps', 'maximal-throws'] as const
export type WorkKind = (typeof WORK_KINDS)[number]

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

export const START_NAMES = {
	standing: 'Standing start',
	'three-point': 'Three-point start',
	rolling: 'Flying',
	reaction: 'Start on a call',
	blocks: 'From blocks',
} as const
export type Start = keyof typeof START_NAMES

export const PHASES = ['accumulate', 'intensify', 'peaking', 'unloading'] as const
export type Phase = (typeof PHASES)[number]

/** What is under foot. */
export const SURFACES = ['grass', 'wet-grass', 'track', 'hard-court', 'gravel', 'indoor'] as const
export type Surface = (typeof SURFACES)[number]

/** A gate's clock starts at its first beam, at a signal (the reaction is in the time), or by somebody's hand: three numbers that are not alike. */
export const SPRINT_METHODS = ['gate', 'gate-signal', 'gate-hand', 'phone', 'stopwatch'] as const
export type SprintMethod = (typeof SPRINT_METHODS)[number]
export const CONTACT_METHODS = ['mat', 'film-240', 'film-120'] as const
export type ContactMethod = (typeof CONTACT_METHODS)[number]
export const LENGTH_METHODS = ['tape', 'reach', 'mat'] as const
export type LengthMethod = (typeof LENGTH_METHODS)[number]
/** How each kind of number may have been taken. */
export const METHODS_OF = {
	sprint: SPRINT_METHODS,
	contact: CONTACT_METHODS,
	height: LENGTH_METHODS,
	distance: LENGTH_METHODS,
} as const
export type Method = SprintMethod | ContactMethod | LengthMethod

export const METHOD_NAMES: Record<Method, string> = {
	gate: 'gate',
	'gate-signal': 'gate, started by a signal',
	'gate-hand': 'gate, started by hand',
	phone: 'phone timer',
	stopwatch: 'stopwatch',
	mat: 'contact mat',
	'film-240': 'film, 240 frames a second',
	'film-120': 'film, 120 frames a second',
	tape: 'tape',
	reach: 'reach',
}

/** Beside the regions: what is closed after a blow to the head, chest pain or fainting. */
export const EVERYTHING = 'everything' as const
