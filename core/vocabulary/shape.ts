import Type, { type TOptional, type TSchema } from 'typebox'

/** How the schemas of the vocabulary are written. A schema is the type: `Static<typeof X>`. */

/** No property that is not named. */
export const CLOSED = { additionalProperties: false } as const
export const closed = <P extends Record<string, TSchema>>(properties: P) => Type.Object(properties, CLOSED)
export const oneOf = <T extends string>(values: readonly T[]) => Type.Unsafe<T>(Type.String({ enum: [...values] }))
/** Something written, at most `max` characters; blanks alone are nothing. */
export const written = (max: number) => Type.String({ minLength: 1, maxLength: max, pattern: '\\S' })

/** The same shape under each of a list of names, every one of them optional. */
export const someOf = <K extends string, S extends TSchema>(names: readonly K[], shape: S) =>
	closed(Object.fromEntries(names.map((name) => [name, Type.Optional(shape)])) as Record<K, TOptional<S>>)
