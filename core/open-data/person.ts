import Type, { type Static } from 'typebox'
import { closed } from '../vocabulary/shape'

/**
 * Everything that is kept about one athlete, as a document of their own: rows by table, as they are kept. Lengths are
 * metres, masses kilograms, times seconds, instants UTC, where a name does not say otherwise.
 */
export const PersonData = closed({
	format: Type.Literal('dromos-person'),
	version: Type.Literal(1),
	/** When it was taken out, UTC. */
	at: Type.String({ format: 'date-time' }),
	club: Type.String(),
	athlete: closed({
		id: Type.String({ format: 'uuid' }),
		name: Type.String(),
		born: Type.Union([Type.String({ format: 'date' }), Type.Null()]),
	}),
	tables: Type.Record(Type.String(), Type.Array(Type.Record(Type.String(), Type.Unknown()))),
})
export type PersonData = Static<typeof PersonData>
