import Type, { type Static } from 'typebox'
import { type DrillId, documentIdOf } from './ids'
import { PARAMETERS, PARAMETER_BOUNDS, type ParameterName } from './parameters'
import { closed, oneOf, someOf, written } from './shape'
import { SIDES } from './words'

/** How much, how far apart, and of what: what a line asks, piece by piece. Every bound stands here and nowhere else. */

export const Sets = Type.Integer({ minimum: 1, maximum: 20 })
export const Reps = Type.Integer({ minimum: 1, maximum: 100 })
/** Sets × reps, as coaches write it. */
export const Dose = closed({ sets: Sets, reps: Reps })
export type Dose = Static<typeof Dose>

export const RestSeconds = Type.Integer({ minimum: 0, maximum: 1800 })
/** Rest in seconds between two reps of a set, and between two sets; 0 is straight on. */
export const Rest = closed({ repsS: RestSeconds, setsS: RestSeconds })
export type Rest = Static<typeof Rest>
export const NO_REST: Rest = { repsS: 0, setsS: 0 }

const numberFrom = ([minimum, maximum]: readonly [number, number]) => Type.Number({ minimum, maximum })
/** Only the ones a drill uses are set. */
export type Parameters = { [K in ParameterName]?: number | undefined }
export const Parameters = Type.Unsafe<Parameters>(
	closed(Object.fromEntries(PARAMETERS.map((name) => [name, Type.Optional(numberFrom(PARAMETER_BOUNDS[name]))]))),
)
/** What a drill lets be set, and between which bounds. A parameter without a range is not used. */
export const Ranges = someOf(
	PARAMETERS,
	Type.Unsafe<readonly [number, number]>(
		Type.Array(Type.Number({ minimum: 0, maximum: 10_000 }), { minItems: 2, maxItems: 2 }),
	),
)
export type Ranges = { [K in ParameterName]?: readonly [number, number] | undefined }

/** A dose for each side of the body; a side without one does nothing. Left and right together are the line's total. */
export const SideDoses = closed({ left: Type.Optional(Dose), right: Type.Optional(Dose) })
export type SideDoses = Static<typeof SideDoses>

export const LOAD_SEGMENTS = ['trunk', 'thigh', 'shank', 'foot', 'upper-arm', 'forearm', 'hand'] as const
/** Where on the segment a weight lies. */
export const LOAD_ASPECTS = ['front', 'back', 'inner', 'outer', 'around'] as const
const WORN = {
	segment: oneOf(LOAD_SEGMENTS),
	side: Type.Optional(oneOf(SIDES)),
	aspect: Type.Optional(oneOf(LOAD_ASPECTS)),
	/** Distance of its centre from the joint nearer the trunk, cm. */
	fromJointCm: Type.Optional(Type.Number({ minimum: 0, maximum: 60 })),
}
/** Where a weight is worn and how far from the joint above it. On the trunk there is no joint to measure from. */
export const WornAt = closed(WORN)
export type WornAt = Static<typeof WornAt>
/** A weight worn: where, how much, and what for. */
export const CarriedLoad = closed({
	...WORN,
	/** On each limb that wears one. */
	grams: Type.Number({ minimum: 10, maximum: 6000 }),
	purpose: Type.Optional(written(120)),
})
export type CarriedLoad = Static<typeof CarriedLoad>

/** What helps or holds the athlete: a pull ahead, a sled or a rope behind, a band. */
export const Aid = closed({
	kind: oneOf(['assisted', 'sled', 'rope', 'band'] as const),
	/** Kilograms on a sled; the setting of a rope as its maker numbers it. */
	kg: Type.Optional(Type.Number({ minimum: 0, maximum: 300 })),
	setting: Type.Optional(Type.Number({ minimum: 0, maximum: 100 })),
})
export type Aid = Static<typeof Aid>

/** One piece of a complex, done in its turn in every round. */
export const Piece = closed({
	drillId: documentIdOf<DrillId>(),
	/** In one round. */
	reps: Reps,
	parameters: Parameters,
	/** Between the reps of the piece. */
	rest: Rest,
	/** Verdicts look at this piece. */
	judged: Type.Boolean(),
})
export type Piece = Static<typeof Piece>
export const Pieces = Type.Array(Piece, { minItems: 2, maxItems: 6 })
