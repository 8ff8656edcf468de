import Type from 'typebox'
import { countLine } from '../dose/count-line'
import { type DoseCount, allContacts, loadOfLeg, rangedContacts, totalOf } from '../dose/dose-count'
import { STARTER_LIBRARY } from '../library/starter-library'
import { CUT_CLASSES, EFFORT_ZONES, INTENSITY_CLASSES } from '../vocabulary/words'
import type { Library } from '../vocabulary/library'
import { PARAMETERS } from '../vocabulary/parameters'
import { MeasureError } from '../measure/measure-error'
import { judge } from '../judge/judge'
import { VERDICT_WORDS, type Judgement, type VerdictInput } from '../judge/types'
import { RULE_NAMES } from '../rules/rule'
import { LadderStateSchema, VerdictInputSchema } from '../judge/verdict-input'
import { type Calculation, calculation, choice, fields, list, number, optional } from './calculation'
import { WrongValue } from '../vocabulary/wrong-value'

const Legs = fields({ left: number(), right: number(), both: number() })
const RULES = Object.keys(RULE_NAMES) as (keyof typeof RULE_NAMES)[]
const FIRMNESS = ['published', 'common practice', 'our setting'] as const

/** A document of the library by id; an unknown one is an error that lists what there is. */
function documentOf<K extends keyof Library>(kind: K, id: string): Library[K][string] {
	const found = STARTER_LIBRARY[kind][id]
	if (!found)
		throw new MeasureError(
			kind === 'drills' ? 'drill' : kind.slice(0, -1),
			id,
			`one of ${Object.keys(STARTER_LIBRARY[kind]).join(', ')}`,
		)
	return found as Library[K][string]
}

/**
 * Judges a case outside the interface: the stored input of a verdict gives the same verdict. Names are
 * those of the stored input. `documents` replaces the built-in ladder, school or drills where a club has its own.
 */
export const VERDICT: Calculation<
	{ input: VerdictInput; documents?: Partial<{ ladder: unknown; school: unknown; drills: Record<string, unknown> }> },
	Judgement & Record<string, unknown>
> = {
	name: 'verdict',
	title: 'Verdict on one ladder after one session, from its whole input',
	input: fields({
		input: VerdictInputSchema,
		documents: optional(
			Type.Object(
				{ ladder: optional(Type.Object({})), school: optional(Type.Object({})), drills: optional(Type.Object({})) },
				{
					additionalProperties: false,
					description: 'documents of a club’s own, as exported; the built-in ones otherwise',
				},
			),
		),
	}),
	output: Type.Object(
		{
			verdict: choice(VERDICT_WORDS),
			decidedBy: choice(RULES),
			tier: choice(['block', 'caution', 'performance'] as const),
			sentence: Type.String(),
			firmness: choice(FIRMNESS),
			next: LadderStateSchema,
			instead: Type.Union([Type.String({ description: 'the drill that stands in' }), Type.Null()]),
			cautions: list(fields({ rule: choice(RULES), sentence: Type.String() })),
			trace: list(
				fields({
					rule: choice(RULES),
					question: Type.String(),
					found: Type.String(),
					limit: Type.String(),
					fired: Type.Boolean(),
					firmness: choice(FIRMNESS),
				}),
			),
		},
		{ additionalProperties: false },
	),
	compute: ({ input, documents = {} }) => {
		const own = documents as Partial<{
			ladder: Library['ladders'][string]
			school: Library['schools'][string]
			drills: Library['drills']
		}>
		try {
			return judge(input, {
				ladder: own.ladder ?? documentOf('ladders', input.ladder.id),
				school: own.school ?? documentOf('schools', input.school.id),
				drills: { ...STARTER_LIBRARY.drills, ...own.drills },
				paths: STARTER_LIBRARY.ladders,
			}) as Judgement & Record<string, unknown>
		} catch (error) {
			// What the documents and the input disagree about is a wrong value, said with its field.
			if (!(error instanceof WrongValue)) throw error
			throw new MeasureError(`input.${error.field}`, null, error.reason)
		}
	},
}

const PARAMETER_FIELDS = {
	distance_m: 'distanceM',
	height_cm: 'heightCm',
	angle_deg: 'angleDeg',
	ball_kg: 'ballKg',
	run_in_m: 'runInM',
	radius_m: 'radiusM',
} as const

export const CONTACTS = calculation(
	'contacts',
	'What a line costs: contacts by leg and class, cuts, metres, throws',
	fields({
		drill: Type.String({ description: 'id in the library' }),
		sets: number('1–50, whole'),
		reps: number('1–200, whole'),
		...(Object.fromEntries(
			Object.keys(PARAMETER_FIELDS).map((name) => [name, optional(number('the drill’s own when left out'))]),
		) as Record<keyof typeof PARAMETER_FIELDS, ReturnType<typeof optional<ReturnType<typeof number>>>>),
		starting_leg: optional(choice(['left', 'right'] as const)),
		side: optional(choice(['left', 'right'] as const)),
		leg_length_m: optional(number('0.4–1.4')),
	}),
	fields({
		contacts: fields(
			Object.fromEntries(INTENSITY_CLASSES.map((name) => [name, Legs])) as Record<
				(typeof INTENSITY_CLASSES)[number],
				typeof Legs
			>,
		),
		total: number('all classes'),
		ranged: number('moderate, high and shock: what the published range speaks of'),
		left_load: number('own and both'),
		right_load: number('own and both'),
		cuts: Type.Record(choice(CUT_CLASSES), Legs),
		dead_stops: Legs,
		metres: Type.Record(choice(EFFORT_ZONES), number()),
		fast_metres: number('estimate: above 90 % of top speed'),
		steps: number(),
		maximal_starts: number(),
		throws: Legs,
		throw_kg: number(),
	}) as never,
	(values) => {
		const given = values as unknown as {
			drill: string
			sets: number
			reps: number
			startingLeg?: 'left' | 'right'
			side?: 'left' | 'right'
			legLengthM?: number
		} & Record<string, number | undefined>
		const drill = documentOf('drills', given.drill)
		for (const [name, high] of [
			['sets', 50],
			['reps', 200],
		] as const)
			if (!Number.isInteger(given[name]) || given[name] < 1 || given[name] > high)
				throw new MeasureError(name, given[name], `a whole number from 1 to ${high}`)
		if (given.legLengthM !== undefined && !(given.legLengthM >= 0.4 && given.legLengthM <= 1.4))
			throw new MeasureError('legLengthM', given.legLengthM, 'from 0.4 to 1.4')
		const parameters = Object.fromEntries(
			PARAMETERS.flatMap((name) => {
				const value = given[name] ?? drill.defaults.parameters[name]
				return value === undefined ? [] : [[name, value]]
			}),
		)
		for (const [name, value] of Object.entries(parameters)) {
			if (!(value >= 0 && value <= 10_000)) throw new MeasureError(name, value, 'from 0 to 10 000')
			if (name === 'angleDeg' && value > 180) throw new MeasureError(name, value, 'from 0 to 180')
		}
		const count: DoseCount = countLine(
			drill,
			parameters,
			{ sets: given.sets, reps: given.reps },
			{
				...(given.startingLeg ? { startingLeg: given.startingLeg } : {}),
				...(given.side ? { side: given.side } : {}),
				...(given.legLengthM ? { legLengthM: given.legLengthM } : {}),
			},
		)
		const all = allContacts(count)
		return {
			...count,
			total: totalOf(all),
			ranged: totalOf(rangedContacts(count)),
			leftLoad: loadOfLeg(all, 'left'),
			rightLoad: loadOfLeg(all, 'right'),
		} as never
	},
)

export const PROGRESS_CALCULATIONS = [VERDICT, CONTACTS]
