import type { Reading } from './read-form'

/** What a finished reading says; null while there is nothing to say. */
export const outputOf = <Output>(reading: Reading<unknown, Output>): Output | null =>
	reading.state === 'done' ? reading.output : null

/** What there is to keep of a reading. */
export const inputsOf = <Input extends Record<string, unknown>>(reading: Reading<Input, unknown>): Input[] =>
	reading.state === 'done' ? [reading.input] : []

export const EMPTY_DRAFT = { values: {}, rows: [] }
