import Type, { type Static, type TObject, type TProperties, type TSchema } from 'typebox'

/** `time_505_s` → `time505S`: fields outside the program are written with underscores, inside without. */
export type CamelCase<S extends string> = S extends `${infer Head}_${infer Tail}`
	? `${Head}${Capitalize<CamelCase<Tail>>}`
	: S
export type CamelCased<T> = T extends readonly (infer E)[]
	? CamelCased<E>[]
	: T extends object
		? { [K in keyof T as K extends string ? CamelCase<K> : K]: CamelCased<T[K]> }
		: T

/** One calculation that can be asked for by name: what goes in, what comes out, in SI units unless a name says otherwise. */
export interface Calculation<Input = unknown, Output = Record<string, unknown>> {
	name: string
	title: string
	/** Its fields are written as what is stored writes them, `distanceM`, not `distance_m`. */
	asStored?: true
	/** Shape of the input: names, types, what must be there. Ranges are judged by the measure itself, which names the field. */
	input: TSchema
	output: TSchema
	/**
	 * Takes an input that fits the shape.
	 * @throws MeasureError for a value out of range
	 */
	compute: (input: Input) => Output
}

export function calculation<I extends TProperties, O extends TProperties>(
	name: string,
	title: string,
	input: TObject<I>,
	output: TObject<O>,
	compute: (input: CamelCased<Static<TObject<I>>>) => CamelCased<Static<TObject<O>>>,
): Calculation<Static<TObject<I>>, Static<TObject<O>>> {
	return {
		name,
		title,
		input,
		output,
		compute: (values) =>
			renamed(compute(renamed(values, camelCase) as CamelCased<Static<TObject<I>>>), snakeCase) as Static<TObject<O>>,
	}
}

/** @example camelCase('time_505_s') // 'time505S' */
export const camelCase = (name: string): string =>
	name.replace(/_([a-z0-9])/g, (_, letter: string) => letter.toUpperCase())

/** @example snakeCase('splits[0].timeS') // 'splits[0].time_s' */
export const snakeCase = (name: string): string =>
	name
		.replace(/([a-z])(\d{2,})/g, '$1_$2')
		.replace(/([a-z0-9])([A-Z])/g, '$1_$2')
		.toLowerCase()

function renamed(value: unknown, rename: (name: string) => string): unknown {
	if (Array.isArray(value)) return value.map((item) => renamed(item, rename))
	if (typeof value !== 'object' || value === null) return value
	return Object.fromEntries(
		Object.entries(value)
			.filter(([, item]) => item !== undefined)
			.map(([name, item]) => [rename(name), renamed(item, rename)]),
	)
}

/** A closed object: unknown fields are refused. `oneOf` lists which fields must come together, exactly one of the sets. */
export function fields<P extends TProperties>(properties: P, oneOf?: readonly (readonly string[])[]): TObject<P> {
	const all = Object.keys(properties)
	return Type.Object(properties, {
		additionalProperties: false,
		...(oneOf
			? {
					oneOf: oneOf.map((required) => ({
						required: [...required],
						not: {
							anyOf: all
								.filter((name) => !required.includes(name) && oneOf.some((set) => set.includes(name)))
								.map((name) => ({ required: [name] })),
						},
					})),
				}
			: {}),
	}) as TObject<P>
}

export const numbers = (description?: string) => Type.Array(Type.Number(), description ? { description } : {})
export const number = (description?: string) => Type.Number(description ? { description } : {})
export const maybe = <T extends TSchema>(schema: T) => Type.Union([schema, Type.Null()])
export const choice = <T extends string>(values: readonly T[]) => Type.Unsafe<T>(Type.String({ enum: [...values] }))
export const optional = Type.Optional
export const list = Type.Array
export const warnings = Type.Array(Type.String())
