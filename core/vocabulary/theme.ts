import Type, { type Static } from 'typebox'
import { Dose, Parameters, Rest } from './dose'
import { QUANTITIES } from './entry'
import { DocumentVersion, type DrillId, type LadderId, type ThemeId, documentIdOf } from './ids'
import { closed, oneOf, written } from './shape'
import { type Level, PHASES, QUALITIES } from './words'

const maybe = Type.Optional
const quantity = oneOf(QUANTITIES)
const PART = written(40)

/** A ladder: everybody's own rung. The quantity is what the piece is there for; null where it is there for itself. */
export const LadderPiece = closed({
	part: PART,
	ladderId: documentIdOf<LadderId>(),
	quantity: Type.Union([quantity, Type.Null()]),
})
/**
 * A drill in a form for each level, dosed up to the target; a level without one takes the next lower. Level 3 may have
 * several, which take turns week by week where the school rotates.
 */
export const FilledPiece = closed({
	part: PART,
	forms: Type.Array(
		closed({
			level: Type.Unsafe<Level>(Type.Integer({ minimum: 1, maximum: 3 })),
			drillId: documentIdOf<DrillId>(),
		}),
		{ minItems: 1, maxItems: 5 },
	),
	quantity,
})
/** One drill for everybody; what is not said is the drill's own. */
export const DrillPiece = closed({
	part: PART,
	drillId: documentIdOf<DrillId>(),
	dose: maybe(Dose),
	parameters: maybe(Parameters),
	rest: maybe(Rest),
	/** What it is there for, where it is what the day is about. */
	quantity: maybe(quantity),
})
export const ThemePiece = Type.Union([LadderPiece, FilledPiece, DrillPiece])
export type LadderPiece = Static<typeof LadderPiece>
export type FilledPiece = Static<typeof FilledPiece>
export type DrillPiece = Static<typeof DrillPiece>
export type ThemePiece = Static<typeof ThemePiece>

export const THEME_ROLES = ['hard', 'light', 'tissue', 'test'] as const
const pieces = (minItems: number) => Type.Array(ThemePiece, { minItems, maxItems: 10 })
/** When a theme has its turn in a phase of a block, the lowest first. */
const Turn = maybe(Type.Integer({ minimum: 1, maximum: 9 }))

/** The recipe of a session with one main quality, at most one second, and the rest kept in a few minutes. Immutable: a change is a new version. */
export const Theme = closed({
	id: documentIdOf<ThemeId>(),
	version: DocumentVersion,
	/** "Acceleration" */
	name: written(60),
	/** What it is for, in a sentence or two. */
	about: written(400),
	role: oneOf(THEME_ROLES),
	/** Of a hard day; null on the others, and on a hard day for everything a little. */
	main: Type.Union([oneOf(QUALITIES), Type.Null()]),
	second: Type.Union([oneOf(QUALITIES), Type.Null()]),
	/** Of what a full day of its kind would ask; 1 where nothing is said. */
	share: maybe(Type.Number({ minimum: 0.05, maximum: 1 })),
	/** What prepares; a ladder in it is left out when minutes are short. */
	opening: pieces(0),
	/** What the day is about and its second quality, in the order they are done. */
	pieces: pieces(1),
	/** What keeps the other qualities, the first to go when minutes are short. */
	kept: Type.Array(LadderPiece, { maxItems: 4 }),
	closing: pieces(0),
	/** In which phases a block gives it a day; without any it is only asked for. */
	inBlock: closed({ [PHASES[0]]: Turn, [PHASES[1]]: Turn, [PHASES[2]]: Turn }),
})
export type Theme = Static<typeof Theme>
