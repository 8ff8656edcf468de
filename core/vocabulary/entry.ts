import Type, { type Static } from 'typebox'
import { Aid, CarriedLoad, Dose, Parameters, Pieces, Rest, SideDoses } from './dose'
import { type AthleteId, type DrillId, type EntryId, type LadderId, documentIdOf, uuidOf } from './ids'
import { CLOSED, closed, oneOf, written } from './shape'
import type { Quality } from './words'

const maybe = Type.Optional

/** What a session is dosed by: contacts from moderate up, metres at 95 % effort and more, cuts of 60° and more, throws. */
export const QUANTITIES = ['fastMetres', 'contacts', 'cuts60', 'throws'] as const
export type Quantity = (typeof QUANTITIES)[number]
/** The quality each quantity stands for; an athlete's level in that family decides the range. */
export const QUALITY_OF: Record<Quantity, Quality> = {
	fastMetres: 'sprint',
	contacts: 'plyometric',
	cuts60: 'agility',
	throws: 'throw',
}

/** What one level does of an entry that has another form for each. */
export const Variant = closed({ drillId: documentIdOf<DrillId>(), dose: Dose, parameters: Parameters, rest: Rest })
export type Variant = Static<typeof Variant>
/** One theme, a form for each level in the entry's family; a level without one takes the next lower. */
export const Variants = closed({ 1: maybe(Variant), 2: maybe(Variant), 3: maybe(Variant) })

const Target = Type.Number({ minimum: 0, maximum: 1000 })
/** Each athlete's reps top the session up to the target of their level; `part` of what is missing goes to this entry. */
export const Fill = closed({
	quantity: oneOf(QUANTITIES),
	targets: closed({ 1: Target, 2: Target, 3: Target }),
	part: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
	/** Runs are no longer than this, m: the ground ends there. */
	mostM: maybe(Type.Number({ minimum: 1, maximum: 2000 })),
})

/** At most so many reps for one athlete, and why; 0 leaves the line out. */
export const Cap = closed({ reps: Type.Integer({ minimum: 0, maximum: 1200 }), why: Type.String({ maxLength: 200 }) })
export type Cap = Static<typeof Cap>

/** What an entry asks beyond one drill for all. */
export const EntryTuning = closed({
	variants: maybe(Variants),
	fill: maybe(Fill),
	/** By athlete. */
	caps: maybe(Type.Unsafe<Record<AthleteId, Cap>>(Type.Record(uuidOf(), Cap, CLOSED))),
	/** Nobody stands on a rung whose gate is shut. */
	strict: maybe(Type.Boolean()),
})
export type EntryTuning = Static<typeof EntryTuning>

/** What is asked: how much, how far apart, and of what. The same in an entry, a line, a template and on the phone. */
export const WORK = {
	dose: Dose,
	rest: Rest,
	parameters: Parameters,
	/** Sides that do unlike doses. */
	sides: maybe(SideDoses),
	/**
	 * A complex: its pieces in turn, `dose` counts the rounds, `rest.repsS` lies between pieces and `rest.setsS` between
	 * rounds. Drill and parameters are those of the piece that is judged.
	 */
	pieces: maybe(Pieces),
	carried: maybe(CarriedLoad),
	aid: maybe(Aid),
}

export type Work = Pick<SessionEntry, keyof typeof WORK>
/** The work alone, of whatever carries one. */
export const workOf = ({
	dose,
	rest,
	parameters,
	sides,
	pieces,
	carried,
	aid,
}: { [K in keyof Work]: Work[K] | null }): Work => ({
	dose: dose!,
	rest: rest!,
	parameters: parameters!,
	...(sides ? { sides } : {}),
	...(pieces ? { pieces } : {}),
	...(carried ? { carried } : {}),
	...(aid ? { aid } : {}),
})

/** What of an entry is the same for anybody on any day. */
export const ENTRY = {
	part: written(60),
	/** The drill for everybody; with a ladder, the drill of its first rung, and everybody has their own. */
	drillId: documentIdOf<DrillId>(),
	ladderId: Type.Union([documentIdOf<LadderId>(), Type.Null()]),
	...WORK,
	/** Share of the whole dose. */
	doseFactor: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
	/** Turns side by side, and how many start together on each. */
	lanes: Type.Integer({ minimum: 1, maximum: 6 }),
	together: Type.Integer({ minimum: 1, maximum: 2 }),
}

/** One entry of a session sheet, in the one shape it has from the form to the phone. */
export const SessionEntry = closed({
	id: uuidOf<EntryId>(),
	...ENTRY,
	tuning: Type.Union([EntryTuning, Type.Null()]),
})
export type SessionEntry = Static<typeof SessionEntry>
