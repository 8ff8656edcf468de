import Type, { type Static } from 'typebox'
import { SessionEntry } from './entry'
import { type AthleteId, Day, type SquadId, type ThemeId, TimeOfDay, documentIdOf, uuidOf } from './ids'
import { closed, oneOf, written } from './shape'
import { SURFACES } from './words'

/** What a training day is for. Hard days carry the targets; a light day has technique and throws; a tissue day slow tendon work; a test day the tests. */
export const DAY_ROLES = ['hard', 'light', 'tissue', 'test'] as const
export type DayRole = (typeof DAY_ROLES)[number]

/** A session as it is planned: when, who, and what in which order. The form holds it, sends it and shows it. */
export const SessionDraft = closed({
	squadId: uuidOf<SquadId>(),
	day: Day,
	startTime: TimeOfDay,
	title: written(200),
	place: Type.String({ maxLength: 200 }),
	/** What is under foot; null when nobody has said so. */
	surface: Type.Union([oneOf(SURFACES), Type.Null()]),
	plannedMinutes: Type.Integer({ minimum: 10, maximum: 240 }),
	role: oneOf(DAY_ROLES),
	/** What a hard day is about, of the library's; without one it is for everything a little. */
	theme: Type.Optional(Type.Union([documentIdOf<ThemeId>(), Type.Null()])),
	/** Share of the block's heaviest week; a session made alone is a whole one. */
	share: Type.Number({ exclusiveMinimum: 0, maximum: 1 }),
	athleteIds: Type.Array(uuidOf<AthleteId>(), { minItems: 1, maxItems: 60, uniqueItems: true }),
	entries: Type.Array(SessionEntry, { minItems: 1, maxItems: 30 }),
})
export type SessionDraft = Static<typeof SessionDraft>
