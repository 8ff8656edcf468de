import type { Static, TSchema } from 'typebox'
import { Check } from 'typebox/value'

/** Whether a value keeps to its schema; for where nothing may be compiled at run time, as in a page. */
export const isSound = <S extends TSchema>(schema: S, value: unknown): value is Static<S> => Check(schema, value)
