import Type, { type Static } from 'typebox'
import { ENTRY, Fill, Variants } from './entry'
import { CLOSED, closed, written } from './shape'

/** A session kept for another day: an open document with drills and doses, and nobody's name in it. */
export const SessionTemplate = Type.Object(
	{
		format: Type.Literal('dromos-session'),
		version: Type.Literal(2),
		name: written(200),
		minutes: Type.Integer({ minimum: 10, maximum: 240 }),
		entries: Type.Array(
			closed({
				...ENTRY,
				tuning: Type.Union([closed({ variants: Type.Optional(Variants), fill: Type.Optional(Fill) }), Type.Null()]),
			}),
			{ minItems: 1, maxItems: 30 },
		),
	},
	{
		...CLOSED,
		$id: 'dromos-session-2',
		title: 'A session kept for another day',
		description:
			'Drills and doses in order. Metres, centimetres, degrees, kilograms, grams and seconds, as the names say.',
	},
)
export type SessionTemplate = Static<typeof SessionTemplate>
