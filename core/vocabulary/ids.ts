import Type from 'typebox'

/**
 * Ids by what they name. One kind is not taken for another; a plain string, as a form or a database
 * gives it, is taken for any of them until its schema has looked at it.
 */
type IdOf<Kind extends string> = string & { readonly __names?: Kind }

export type AthleteId = IdOf<'athlete'>
export type SquadId = IdOf<'squad'>
export type SessionId = IdOf<'session'>
export type EntryId = IdOf<'entry'>
export type LineId = IdOf<'line'>
export type EventId = IdOf<'event'>
export type DeviceId = IdOf<'device'>
export type DrillId = IdOf<'drill'>
export type LadderId = IdOf<'ladder'>
export type RungId = IdOf<'rung'>
export type SchoolId = IdOf<'school'>
export type ThemeId = IdOf<'theme'>

/** Written small, without a prefix: one spelling for one id. */
const UUID = '^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$'
export const uuidOf = <T extends string>() => Type.Unsafe<T>(Type.String({ pattern: UUID }))
/** Short words of a document of the library. */
export const documentIdOf = <T extends string>() =>
	Type.Unsafe<T>(Type.String({ pattern: '^[a-z0-9][a-z0-9-]{0,59}$' }))
export const DocumentVersion = Type.Integer({ minimum: 1, maximum: 1_000_000 })

/** A calendar day, "2026-03-14", and a time of it, "17:30", where the session is. */
export const Day = Type.String({ format: 'date' })
export const TimeOfDay = Type.String({ pattern: '^([01]\\d|2[0-3]):[0-5]\\d$' })
/** A moment anywhere. */
export const Instant = Type.String({ format: 'date-time' })
