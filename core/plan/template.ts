import Type, { type Static } from 'typebox'
import { PARAMETERS } from '../library/types'
import { QUANTITIES } from './targets'

const closed = { additionalProperties: false }
const Dose = Type.Object(
	{ sets: Type.Integer({ minimum: 1, maximum: 20 }), reps: Type.Integer({ minimum: 1, maximum: 60 }) },
	closed,
)
const Parameters = Type.Object(
	Object.fromEntries(PARAMETERS.map((name) => [name, Type.Optional(Type.Number({ minimum: 0, maximum: 6000 }))])),
	closed,
)
const RestS = Type.Integer({ minimum: 0, maximum: 1200 })
const Variant = Type.Object(
	{ drillId: Type.String({ minLength: 1, maxLength: 40 }), dose: Dose, parameters: Parameters, restS: RestS },
	closed,
)
const byLevel = <T extends Type.TSchema>(one: T) => Type.Object({ 1: one, 2: one, 3: one }, closed)
const Target = Type.Number({ minimum: 0, maximum: 1000 })

/** One theme in a form for each level, and topping up to a target. */
export const VariantsSchema = Type.Object(
	{ 1: Type.Optional(Variant), 2: Type.Optional(Variant), 3: Type.Optional(Variant) },
	closed,
)
export const FillSchema = Type.Object(
	{
		quantity: Type.Enum([...QUANTITIES]),
		targets: byLevel(Target),
		part: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
	},
	closed,
)

/** A session kept for another day: an open document with drills and doses, and nobody's name in it. */
export const SessionTemplateSchema = Type.Object(
	{
		format: Type.Literal('dromos-session'),
		version: Type.Literal(1),
		name: Type.String({ minLength: 1, maxLength: 200, pattern: '\\S' }),
		minutes: Type.Integer({ minimum: 10, maximum: 240 }),
		entries: Type.Array(
			Type.Object(
				{
					part: Type.String({ minLength: 1, maxLength: 60, pattern: '\\S' }),
					/** A drill, or a ladder on which everybody has their own rung. */
					drillId: Type.Optional(Type.String({ minLength: 1, maxLength: 40 })),
					ladderId: Type.Optional(Type.String({ minLength: 1, maxLength: 40 })),
					dose: Dose,
					parameters: Parameters,
					restS: RestS,
					/** Share of the whole dose. */
					doseFactor: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
					lanes: Type.Integer({ minimum: 1, maximum: 6 }),
					together: Type.Integer({ minimum: 1, maximum: 2 }),
					variants: Type.Optional(VariantsSchema),
					fill: Type.Optional(FillSchema),
				},
				closed,
			),
			{ minItems: 1, maxItems: 30 },
		),
	},
	{
		...closed,
		$id: 'dromos-session-1',
		title: 'A session kept for another day',
		description:
			'Drills and doses in order. Metres, centimetres, degrees, kilograms, grams and seconds, as the names say.',
	},
)
export type SessionTemplate = Static<typeof SessionTemplateSchema>
