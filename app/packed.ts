import { useMemo } from 'react'

/** What is left of a value that went through JSON: a date is a text, and what JSON has no words for is not there. */
export type AsJson<T> = T extends Date
	? string
	: T extends string | number | boolean | null | undefined
		? T
		: T extends ReadonlyMap<unknown, unknown> | ReadonlySet<unknown> | ((...args: never[]) => unknown)
			? never
			: { [K in keyof T]: AsJson<T[K]> }

/** A value written as JSON. */
export type Packed<T> = string & { readonly of?: T }

const packedOf = new WeakMap<object, string>()

/**
 * Writes what a page shows as one text, once for as long as it is kept: it is the larger part of what a page costs to
 * write it out value by value each time somebody looks.
 *
 * @param value what is kept and shared, which nobody changes
 */
export function pack<T extends object>(value: T): Packed<T> {
	const known = packedOf.get(value)
	if (known !== undefined) return known
	const text = JSON.stringify(value)
	packedOf.set(value, text)
	return text
}

/** What was packed, the same object as long as the text is the same. */
export const usePacked = <T>(packed: Packed<T>): AsJson<T> => useMemo(() => JSON.parse(packed) as AsJson<T>, [packed])
