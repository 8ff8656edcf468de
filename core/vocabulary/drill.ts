import Type, { type Static } from 'typebox'
import { Dose, Parameters, Ranges, Rest, WornAt } from './dose'
import { DocumentVersion, type DrillId, documentIdOf } from './ids'
import { closed, oneOf, someOf, written } from './shape'
import {
	EFFORT_ZONES,
	FAMILIES,
	INTENSITY_CLASSES,
	MEASURE_KINDS,
	PATTERNS,
	REGIONS,
	START_NAMES,
	type Start,
} from './words'

const maybe = Type.Optional
const StepLength = Type.Number({ minimum: 0.2, maximum: 4 })
const PerRep = (maximum: number) => closed({ perRep: Type.Integer({ minimum: 1, maximum }) })

/**
 * How ground contacts are counted. `both` = one bilateral landing; `alternating` = the starting leg
 * takes the odd one; `each-leg` = the dose is per leg, so that one rep is done left and right.
 */
export const ContactRule = Type.Union([
	closed({
		by: Type.Literal('rep'),
		feet: oneOf(['both', 'alternating', 'each-leg'] as const),
		perRep: Type.Integer({ minimum: 1, maximum: 100 }),
	}),
	closed({
		by: Type.Literal('metres'),
		feet: oneOf(['both', 'alternating'] as const),
		stepLengthLegLengths: StepLength,
		perStep: Type.Integer({ minimum: 1, maximum: 4 }),
	}),
])
export type ContactRule = Static<typeof ContactRule>

export const CountingRules = closed({
	contacts: maybe(ContactRule),
	/** Cuts and dead stops per rep; the planting leg alternates from rep to rep unless the side was logged. */
	cuts: maybe(PerRep(20)),
	deadStops: maybe(PerRep(20)),
	/** Metres run per rep are the line's distance (and its run-in) in this zone unless a time says otherwise. */
	metres: maybe(
		closed({
			plannedZone: oneOf(EFFORT_ZONES),
			kind: maybe(oneOf(['resisted', 'assisted', 'curved', 'shuttle'] as const)),
		}),
	),
	/** Steps of sprints, marches and A-runs: shown apart, never as plyometric contacts. */
	steps: maybe(closed({ stepLengthLegLengths: StepLength })),
	throws: maybe(closed({ sides: oneOf(['both', 'each-side'] as const) })),
})
export type CountingRules = Static<typeof CountingRules>

export const Fault = closed({ fault: written(120), correction: written(200) })
export type Fault = Static<typeof Fault>

/** A drill with everything that is known of it. Immutable: a change is a new version of its id. */
export const Drill = closed({
	id: documentIdOf<DrillId>(),
	version: DocumentVersion,
	name: written(80),
	family: oneOf(FAMILIES),
	pattern: oneOf(PATTERNS),
	legs: oneOf(['both', 'one', 'alternating', 'none'] as const),
	reactive: Type.Boolean(),
	intensity: oneOf(INTENSITY_CLASSES),
	/** A landing from above this height counts one class up (moderate becomes high). */
	highAboveCm: maybe(Type.Number({ minimum: 0, maximum: 100 })),
	counting: CountingRules,
	/** How the rep starts; marks with unlike starts are never compared. */
	start: maybe(oneOf(Object.keys(START_NAMES) as Start[])),
	/** Another drill whose marks this one's may be compared with: the same movement under another name. */
	comparableAs: maybe(documentIdOf<DrillId>()),
	/** Fatigue is read against the school's repeat-speed limit instead of its speed limit. */
	repeatSpeed: maybe(Type.Boolean()),
	/** What beginners do instead, more often, where the school has them do the easy form. */
	easy: maybe(closed({ drillId: documentIdOf<DrillId>(), dose: Dose })),
	/** A weight is worn: never in an unloading week, never twice a day. */
	carriesLoad: maybe(Type.Boolean()),
	/** Where it is worn when nothing else is said. */
	wornAt: maybe(WornAt),
	/** Needs the coach's whole attention: one athlete at a time. */
	oneAtATime: maybe(Type.Boolean()),
	measures: Type.Array(oneOf(MEASURE_KINDS), { minItems: 1, uniqueItems: true }),
	/** What stands where a sheet says nothing; `repS` is how long one rep lasts. */
	defaults: closed({
		dose: Dose,
		rest: Rest,
		parameters: Parameters,
		repS: Type.Number({ minimum: 0.1, maximum: 3600 }),
	}),
	/** Where an athlete of that level starts. */
	doses: closed({ 1: Dose, 2: Dose, 3: Dose }),
	ranges: Ranges,
	/** Metres needed, run-in and run-out included. */
	space: closed({
		lengthM: Type.Number({ minimum: 0, maximum: 1000 }),
		widthM: Type.Number({ minimum: 0, maximum: 200 }),
		runOutM: maybe(Type.Number({ minimum: 0, maximum: 60 })),
	}),
	/** Which regions the drill loads, 1 a little to 3 a lot. */
	regions: someOf(REGIONS, Type.Unsafe<1 | 2 | 3>(Type.Integer({ minimum: 1, maximum: 3 }))),
	/** A drill that spares the region, by region. */
	alternatives: someOf(REGIONS, documentIdOf<DrillId>()),
	cues: Type.Array(written(120), { minItems: 1, maxItems: 8 }),
	lookFor: Type.Array(written(160), { minItems: 1, maxItems: 8 }),
	faults: Type.Array(Fault, { minItems: 1, maxItems: 8 }),
	kit: Type.Array(written(60), { maxItems: 12 }),
	cautions: Type.Array(written(160), { maxItems: 8 }),
})
export type Drill = Static<typeof Drill>
