import Type, { type Static } from 'typebox'
import { Dose, Parameters, Pieces, Rest, WornAt } from './dose'
import { DocumentVersion, type DrillId, type LadderId, type RungId, documentIdOf } from './ids'
import { closed, oneOf, written } from './shape'
import { FAMILIES, type Level } from './words'

const maybe = Type.Optional

/** What a rung asks before the next one opens. */
export const PassCriterion = Type.Union([
	closed({ kind: Type.Literal('quality') }),
	/** The mean time stays within `percent` of the athlete's usual before the session. */
	closed({ kind: Type.Literal('time-within'), percent: Type.Number({ minimum: 0.5, maximum: 10 }) }),
	/** Mean contact time at or below the school's ceiling for the athlete's level; by the school's choice the rebound must also be kept. */
	closed({ kind: Type.Literal('contact-ceiling') }),
	/** Mean height or distance not below the one of the rung before, within noise. */
	closed({ kind: Type.Literal('not-below'), of: oneOf(['height', 'distance'] as const) }),
	/** Comfort reported 2 of 5 or better, no braking seen. */
	closed({ kind: Type.Literal('comfort') }),
])
export type PassCriterion = Static<typeof PassCriterion>

/** What must hold before a rung opens. */
export const Gate = Type.Union([
	closed({ kind: Type.Literal('level') }),
	/** Rebounds from a box open in the phases the school says. */
	closed({ kind: Type.Literal('depth-phase') }),
	closed({
		kind: Type.Literal('passed'),
		ladderId: documentIdOf<LadderId>(),
		rungId: documentIdOf<RungId>(),
		rungName: maybe(written(80)),
	}),
	/** Days since the athlete came to the rung below. */
	closed({ kind: Type.Literal('days-below'), days: Type.Integer({ minimum: 1, maximum: 60 }) }),
	/** Open only when the school takes this side of a question, or trains this take-off. */
	closed({
		kind: Type.Literal('school'),
		question: oneOf(['volume', 'conditioning', 'contrast', 'returnPulls', 'plants'] as const),
		side: Type.String(),
	}),
])
export type Gate = Static<typeof Gate>

/** What a rung may be exchanged for when it has stood still: same rung, another variation. */
export const Variation = closed({
	name: written(80),
	drillId: documentIdOf<DrillId>(),
	parameters: Parameters,
	/** Heavy, moderate and light pulls are ordered by the school's resistance question. */
	resistance: maybe(oneOf(['heavy', 'moderate', 'light'] as const)),
})
export type Variation = Static<typeof Variation>

export const Rung = closed({
	id: documentIdOf<RungId>(),
	name: written(80),
	level: Type.Unsafe<Level>(Type.Integer({ minimum: 1, maximum: 3 })),
	drillId: documentIdOf<DrillId>(),
	parameters: Parameters,
	dose: Dose,
	rest: Rest,
	/** Easier and harder weeks by turns, counted from the day somebody came to the rung; the hardest is the rung's own. */
	turns: maybe(Type.Array(closed({ name: written(40), parameters: Parameters }), { minItems: 2, maxItems: 4 })),
	/** A complex: drill and parameters are those of the piece that is judged. */
	pieces: maybe(Pieces),
	/** Where a weight is worn on this rung. */
	wornAt: maybe(WornAt),
	pass: PassCriterion,
	gates: Type.Array(Gate, { maxItems: 6 }),
	/** Passing this rung on every ladder of the family that the club uses proposes the level. */
	marksLevel: maybe(Type.Unsafe<2 | 3>(Type.Integer({ minimum: 2, maximum: 3 }))),
	variations: maybe(Type.Array(Variation, { maxItems: 6 })),
})
export type Rung = Static<typeof Rung>

/** Rungs in order. Immutable: a change is a new version of its id, and rungs keep theirs. */
export const Ladder = closed({
	id: documentIdOf<LadderId>(),
	version: DocumentVersion,
	name: written(60),
	family: oneOf(FAMILIES),
	/** What it trains and when to leave it, in a sentence or two. */
	about: written(400),
	/** A re-entry path is walked after a lay-off or an injury, never chosen for a session. */
	path: maybe(Type.Literal('re-entry')),
	rungs: Type.Array(Rung, { minItems: 1, maxItems: 30 }),
})
export type Ladder = Static<typeof Ladder>
