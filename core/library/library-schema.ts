import Type, { type TSchema } from 'typebox'
import {
	EFFORT_ZONES,
	FAMILIES,
	INTENSITY_CLASSES,
	LEVELS,
	MEASURE_KINDS,
	PARAMETERS,
	PATTERNS,
	REGIONS,
} from './types'

/** Shapes of the documents a club may write itself. Ids are short words; the version is given when one is kept. */

const oneOf = (values: readonly string[]) => Type.String({ enum: [...values] })
const closed = (properties: Record<string, TSchema>) => Type.Object(properties, { additionalProperties: false })
const maybe = Type.Optional
const words = (max: number, min = 1) => Type.String({ minLength: min, maxLength: max, pattern: min > 0 ? '\\S' : '' })
const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9-]{0,39}$' })
const Version = Type.Integer({ minimum: 1 })
const Dose = closed({
	sets: Type.Integer({ minimum: 1, maximum: 20 }),
	reps: Type.Integer({ minimum: 1, maximum: 100 }),
})
const numbersOf = (value: TSchema) => closed(Object.fromEntries(PARAMETERS.map((name) => [name, maybe(value)])))
const Parameters = numbersOf(Type.Number({ minimum: 0, maximum: 10_000 }))
const Level = Type.Integer({ minimum: 1, maximum: 3 })
const Feet = oneOf(['both', 'alternating', 'each-leg'])

export const DrillSchema = closed({
	id: Id,
	version: Version,
	name: words(80),
	family: oneOf(FAMILIES),
	pattern: oneOf(PATTERNS),
	legs: oneOf(['both', 'one', 'alternating', 'none']),
	reactive: Type.Boolean(),
	intensity: oneOf(INTENSITY_CLASSES),
	highAboveCm: maybe(Type.Number({ minimum: 0, maximum: 100 })),
	start: maybe(oneOf(['standing', 'three-point', 'rolling', 'reaction'])),
	repeatSpeed: maybe(Type.Boolean()),
	carriesLoad: maybe(Type.Boolean()),
	oneAtATime: maybe(Type.Boolean()),
	counting: closed({
		contacts: maybe(
			Type.Union([
				closed({ by: Type.Literal('rep'), feet: Feet, perRep: Type.Integer({ minimum: 1, maximum: 100 }) }),
				closed({
					by: Type.Literal('metres'),
					feet: oneOf(['both', 'alternating']),
					stepLengthLegLengths: Type.Number({ minimum: 0.2, maximum: 4 }),
					perStep: Type.Integer({ minimum: 1, maximum: 4 }),
				}),
			]),
		),
		cuts: maybe(closed({ perRep: Type.Integer({ minimum: 1, maximum: 20 }) })),
		deadStops: maybe(closed({ perRep: Type.Integer({ minimum: 1, maximum: 20 }) })),
		metres: maybe(
			closed({ plannedZone: oneOf(EFFORT_ZONES), kind: maybe(oneOf(['resisted', 'assisted', 'curved', 'shuttle'])) }),
		),
		steps: maybe(closed({ stepLengthLegLengths: Type.Number({ minimum: 0.2, maximum: 4 }) })),
		throws: maybe(closed({ sides: oneOf(['both', 'each-side']) })),
	}),
	measures: Type.Array(oneOf(MEASURE_KINDS), { minItems: 1, uniqueItems: true }),
	defaults: closed({
		sets: Type.Integer({ minimum: 1, maximum: 20 }),
		reps: Type.Integer({ minimum: 1, maximum: 100 }),
		restS: Type.Integer({ minimum: 0, maximum: 1200 }),
		repS: Type.Number({ minimum: 0.1, maximum: 3600 }),
		...Parameters.properties,
	}),
	doses: closed(Object.fromEntries(LEVELS.map((level) => [String(level), Dose]))),
	ranges: numbersOf(Type.Array(Type.Number({ minimum: 0, maximum: 10_000 }), { minItems: 2, maxItems: 2 })),
	space: closed({
		lengthM: Type.Number({ minimum: 0, maximum: 1000 }),
		widthM: Type.Number({ minimum: 0, maximum: 200 }),
		runOutM: maybe(Type.Number({ minimum: 0, maximum: 60 })),
	}),
	regions: closed(
		Object.fromEntries(REGIONS.map((region) => [region, maybe(Type.Integer({ minimum: 1, maximum: 3 }))])),
	),
	alternatives: closed(Object.fromEntries(REGIONS.map((region) => [region, maybe(Id)]))),
	cues: Type.Array(words(120), { minItems: 1, maxItems: 8 }),
	lookFor: Type.Array(words(160), { minItems: 1, maxItems: 8 }),
	faults: Type.Array(closed({ fault: words(120), correction: words(200) }), { minItems: 1, maxItems: 8 }),
	kit: Type.Array(words(60), { maxItems: 12 }),
	cautions: Type.Array(words(160), { maxItems: 8 }),
})

const Pass = Type.Union([
	closed({ kind: oneOf(['quality', 'contact-ceiling', 'comfort']) }),
	closed({ kind: Type.Literal('time-within'), percent: Type.Number({ minimum: 0.5, maximum: 10 }) }),
	closed({ kind: Type.Literal('not-below'), of: oneOf(['height', 'distance']) }),
])
const Gate = Type.Union([
	closed({ kind: oneOf(['level', 'depth-phase']) }),
	closed({ kind: Type.Literal('passed'), ladderId: Id, rungId: Id, rungName: maybe(words(80)) }),
	closed({ kind: Type.Literal('days-below'), days: Type.Integer({ minimum: 1, maximum: 60 }) }),
	closed({
		kind: Type.Literal('school'),
		question: oneOf(['volume', 'conditioning', 'contrast']),
		side: Type.String(),
	}),
])
export const LadderSchema = closed({
	id: Id,
	version: Version,
	name: words(60),
	family: oneOf(FAMILIES),
	about: words(400),
	path: maybe(Type.Literal('re-entry')),
	rungs: Type.Array(
		closed({
			id: Id,
			name: words(80),
			level: Level,
			drillId: Id,
			parameters: Parameters,
			dose: Dose,
			restS: Type.Integer({ minimum: 0, maximum: 1200 }),
			pass: Pass,
			gates: Type.Array(Gate, { maxItems: 6 }),
			marksLevel: maybe(Type.Integer({ minimum: 2, maximum: 3 })),
			variations: maybe(
				Type.Array(
					closed({
						name: words(80),
						drillId: Id,
						parameters: Parameters,
						resistance: maybe(oneOf(['heavy', 'moderate', 'light'])),
					}),
					{ maxItems: 6 },
				),
			),
		}),
		{ minItems: 1, maxItems: 30 },
	),
})
