import Ajv, { type ErrorObject, type ValidateFunction } from 'ajv'
import addFormats from 'ajv-formats'

/** Whether a value has a schema's shape; what was wrong with the value asked last stands in `errors`. */
export interface ShapeCheck<T> {
	(value: unknown): value is T
	readonly errors: ErrorObject[] | null
}

const common = {
	verbose: true,
	/** Values to the millionth: 0.1 + 0.2 is still a multiple of 0.1. */
	multipleOfPrecision: 6,
	/** Ours are schemas (the tests ask): compiling the schema of schemas took the first mark after a start 0.2 s. */
	meta: false,
	validateSchema: false,
} as const
const compilers = { first: new Ajv({ ...common, allErrors: false }), all: new Ajv({ ...common, allErrors: true }) }
for (const ajv of Object.values(compilers)) addFormats(ajv)

/**
 * A check of a JSON Schema, compiled when it is first asked: a start that compiled them all took half a
 * second longer.
 *
 * @param report the first thing that is wrong, or all of them, as a form wants
 */
export function shapeCheck<T>(schema: object, report: 'first' | 'all' = 'first'): ShapeCheck<T> {
	let compiled: ValidateFunction<T> | undefined
	const check = (value: unknown): value is T => {
		compiled ??= compilers[report].compile<T>(schema)
		return compiled(value)
	}
	return Object.defineProperty(check, 'errors', { get: () => compiled?.errors ?? null }) as unknown as ShapeCheck<T>
}
