import Type, { type TSchema } from 'typebox'
import { EFFORT_ZONES, FAMILIES, INTENSITY_CLASSES, LEVELS, MEASURE_KINDS, PARAMETERS, PATTERNS, REGIONS, type Drill, type Ladder, type Library } from './types'
import { lockOfDrill, plainContext } from '../progress/locks'
import { QUALITY_FIRST } from './schools'

/** Shapes of the documents a club may write itself. Ids are short words; the version is given when one is kept. */

const oneOf = (values: readonly string[]) => Type.String({ enum: [...values] })
const closed = (properties: Record<string, TSchema>) => Type.Object(properties, { additionalProperties: false })
const maybe = Type.Optional
const words = (max: number, min = 1) => Type.String({ minLength: min, maxLength: max, pattern: min > 0 ? '\\S' : '' })
const Id = Type.String({ pattern: '^[a-z0-9][a-z0-9-]{0,39}$' })
const Version = Type.Integer({ minimum: 1 })
const Dose = closed({ sets: Type.Integer({ minimum: 1, maximum: 20 }), reps: Type.Integer({ minimum: 1, maximum: 100 }) })
const numbersOf = (value: TSchema) => closed(Object.fromEntries(PARAMETERS.map((name) => [name, maybe(value)])))
const Parameters = numbersOf(Type.Number({ minimum: 0, maximum: 10_000 }))
const Level = Type.Integer({ minimum: 1, maximum: 3 })
const Feet = oneOf(['both', 'alternating', 'each-leg'])

export const DrillSchema = closed({
	id: Id, version: Version, name: words(80), family: oneOf(FAMILIES), pattern: oneOf(PATTERNS), legs: oneOf(['both', 'one', 'alternating', 'none']), reactive: Type.Boolean(), intensity: oneOf(INTENSITY_CLASSES),
	highAboveCm: maybe(Type.Number({ minimum: 0, maximum: 100 })), start: maybe(oneOf(['standing', 'three-point', 'rolling', 'reaction'])),
	repeatSpeed: maybe(Type.Boolean()), carriesLoad: maybe(Type.Boolean()), oneAtATime: maybe(Type.Boolean()),
	counting: closed({
		contacts: maybe(Type.Union([
			closed({ by: Type.Literal('rep'), feet: Feet, perRep: Type.Integer({ minimum: 1, maximum: 100 }) }),
			closed({ by: Type.Literal('metres'), feet: oneOf(['both', 'alternating']), stepLengthLegLengths: Type.Number({ minimum: 0.2, maximum: 4 }), perStep: Type.Integer({ minimum: 1, maximum: 4 }) }),
		])),
		cuts: maybe(closed({ perRep: Type.Integer({ minimum: 1, maximum: 20 }) })), deadStops: maybe(closed({ perRep: Type.Integer({ minimum: 1, maximum: 20 }) })),
		metres: maybe(closed({ plannedZone: oneOf(EFFORT_ZONES), kind: maybe(oneOf(['resisted', 'assisted', 'curved', 'shuttle'])) })),
		steps: maybe(closed({ stepLengthLegLengths: Type.Number({ minimum: 0.2, maximum: 4 }) })), throws: maybe(closed({ sides: oneOf(['both', 'each-side']) })),
	}),
	measures: Type.Array(oneOf(MEASURE_KINDS), { minItems: 1, uniqueItems: true }),
	defaults: closed({ sets: Type.Integer({ minimum: 1, maximum: 20 }), reps: Type.Integer({ minimum: 1, maximum: 100 }), restS: Type.Integer({ minimum: 0, maximum: 1200 }), repS: Type.Number({ minimum: 0.1, maximum: 3600 }), ...Parameters.properties }),
	doses: closed(Object.fromEntries(LEVELS.map((level) => [String(level), Dose]))),
	ranges: numbersOf(Type.Array(Type.Number({ minimum: 0, maximum: 10_000 }), { minItems: 2, maxItems: 2 })),
	space: closed({ lengthM: Type.Number({ minimum: 0, maximum: 1000 }), widthM: Type.Number({ minimum: 0, maximum: 200 }), runOutM: maybe(Type.Number({ minimum: 0, maximum: 60 })) }),
	regions: closed(Object.fromEntries(REGIONS.map((region) => [region, maybe(Type.Integer({ minimum: 1, maximum: 3 }))]))),
	alternatives: closed(Object.fromEntries(REGIONS.map((region) => [region, maybe(Id)]))),
	cues: Type.Array(words(120), { minItems: 1, maxItems: 8 }), lookFor: Type.Array(words(160), { minItems: 1, maxItems: 8 }),
	faults: Type.Array(closed({ fault: words(120), correction: words(200) }), { minItems: 1, maxItems: 8 }),
	kit: Type.Array(words(60), { maxItems: 12 }), cautions: Type.Array(words(160), { maxItems: 8 }),
})

const Pass = Type.Union([
	closed({ kind: oneOf(['quality', 'contact-ceiling', 'comfort']) }), closed({ kind: Type.Literal('time-within'), percent: Type.Number({ minimum: 0.5, maximum: 10 }) }),
	closed({ kind: Type.Literal('not-below'), of: oneOf(['height', 'distance']) }),
])
const Gate = Type.Union([
	closed({ kind: oneOf(['level', 'depth-phase']) }), closed({ kind: Type.Literal('passed'), ladderId: Id, rungId: Id, rungName: maybe(words(80)) }), closed({ kind: Type.Literal('days-below'), days: Type.Integer({ minimum: 1, maximum: 60 }) }),
	closed({ kind: Type.Literal('school'), question: oneOf(['volume', 'conditioning', 'contrast']), side: Type.String() }),
])
export const LadderSchema = closed({
	id: Id, version: Version, name: words(60), family: oneOf(FAMILIES), about: words(400), path: maybe(Type.Literal('re-entry')),
	rungs: Type.Array(closed({
		id: Id, name: words(80), level: Level, drillId: Id, parameters: Parameters, dose: Dose, restS: Type.Integer({ minimum: 0, maximum: 1200 }), pass: Pass, gates: Type.Array(Gate, { maxItems: 6 }), marksLevel: maybe(Type.Integer({ minimum: 2, maximum: 3 })),
		variations: maybe(Type.Array(closed({ name: words(80), drillId: Id, parameters: Parameters, resistance: maybe(oneOf(['heavy', 'moderate', 'light'])) }), { maxItems: 6 })),
	}), { minItems: 1, maxItems: 30 }),
})

/** What a shape cannot say, by field; empty when the drill is sound beside the rest of the library. */
export function drillProblems(drill: Drill, library: Library): Record<string, string> {
	const problems: Record<string, string> = {}
	for (const [region, id] of Object.entries(drill.alternatives)) {
		const other = library.drills[id]
		if (!other) problems[`alternatives.${region}`] = `“${id}” is not a drill of the library.`
		else if ((other.regions[region as keyof Drill['regions']] ?? 0) > 0) problems[`alternatives.${region}`] = `“${other.name}” loads that region itself.`
	}
	for (const name of PARAMETERS) {
		const [value, range] = [drill.defaults[name], drill.ranges[name]]
		if (range && range[0] > range[1]) problems[`ranges.${name}`] = `“${range[0]}–${range[1]}”: the lower end comes first.`
		else if (value !== undefined && range && (value < range[0] || value > range[1])) problems[`ranges.${name}`] = `“${value}” lies outside ${range[0]}–${range[1]}.`
	}
	// Never more than five rebounds from a box in a set, whoever writes it.
	if (drill.intensity === 'shock' && [drill.defaults, ...Object.values(drill.doses)].some((dose) => dose.reps > 5)) problems['defaults.reps'] = 'Never more than 5 rebounds a set.'
	if (drill.measures.includes('sprint') && !drill.start) problems.start = 'A timed drill says how it starts: unlike starts are never compared.'
	return problems
}

/** What a shape cannot say about a ladder, by field. Rungs that athletes stand on must stay. */
export function ladderProblems(ladder: Ladder, library: Library, before: Ladder | undefined): Record<string, string> {
	const problems: Record<string, string> = {}
	const ids = ladder.rungs.map((rung) => rung.id)
	if (new Set(ids).size < ids.length) problems.rungs = 'Two rungs have the same id.'
	for (const gone of before?.rungs.filter((rung) => !ids.includes(rung.id)) ?? []) problems.rungs = `${gone.name} must stay: athletes may stand on it. Move it, or rename it.`
	ladder.rungs.forEach((rung, index) => {
		const drill = library.drills[rung.drillId]
		const at = (field: string) => `rungs.${index}.${field}`
		if (!drill) {
			problems[at('drillId')] = `“${rung.drillId}” is not a drill of the library.`
			return
		}
		if (rung.level < (ladder.rungs[index - 1]?.level ?? 1)) problems[at('level')] = `Level ${rung.level} after level ${ladder.rungs[index - 1]?.level}: levels never fall upwards.`
		if (drill.intensity === 'shock' && rung.dose.reps > 5) problems[at('reps')] = 'Never more than 5 rebounds a set.'
		if (rung.pass.kind === 'contact-ceiling' && !drill.measures.includes('contact')) problems[at('pass')] = `${drill.name} yields no contact time.`
		if (rung.pass.kind === 'time-within' && !drill.start) problems[at('pass')] = `${drill.name} is not timed.`
		if (rung.pass.kind === 'not-below' && !drill.measures.includes(rung.pass.of)) problems[at('pass')] = `${drill.name} yields no ${rung.pass.of}.`
		for (const gate of rung.gates) {
			const other = gate.kind === 'passed' ? (gate.ladderId === ladder.id ? ladder : library.ladders[gate.ladderId]) : undefined
			if (gate.kind === 'passed' && !other?.rungs.some((one) => one.id === gate.rungId)) problems[at('gates')] = `There is no rung “${gate.rungId}”.`
		}
		// A rebound needs its level gate: nobody may write it away.
		if (lockOfDrill(drill, rung.parameters, plainContext({ level: 1, ageYears: 25, phase: 'peaking', school: QUALITY_FIRST }))?.rule === 'S4' && rung.level < 2) problems[at('level')] = `${drill.name} opens at level 2 and never below.`
	})
	return problems
}
