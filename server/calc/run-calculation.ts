import type { ErrorObject } from 'ajv'
import { type Calculation, snakeCase } from '../../core/calc/calculation'
import { MeasureError } from '../../core/measure/measure-error'
import { type ShapeCheck, shapeCheck } from '../check-shape'

/** What was wrong with which field: `shape` when the input does not fit the schema, `value` when a number cannot be a measurement. */
export interface CalculationError {
	kind: 'shape' | 'value'
	field: string
	value: unknown
	expected: string
	message: string
}

export type CalculationAnswer = { output: Record<string, unknown> } | { error: CalculationError }

const checks = new Map<string, ShapeCheck<unknown>>()

/** Runs one calculation on parsed JSON. What does not fit the schema is never computed. */
export function runCalculation(one: Calculation, input: unknown): CalculationAnswer {
	const check = checks.get(one.name) ?? shapeCheck(one.input)
	checks.set(one.name, check)
	if (!check(input)) return { error: shapeError(check.errors?.at(-1), input) }
	try {
		return { output: one.compute(input) }
	} catch (error) {
		if (!(error instanceof MeasureError)) throw error
		const field = one.asStored ? error.field : snakeCase(error.field)
		return {
			error: {
				kind: 'value',
				field,
				value: error.value,
				expected: error.expected,
				message: `${field}: ${error.message.slice(error.field.length + 2)}`,
			},
		}
	}
}

export function shapeError(error: ErrorObject | undefined, input: unknown): CalculationError {
	const steps = (error?.instancePath ?? '').split('/').slice(1)
	const path = steps.reduce(
		(text, step) => (/^\d+$/.test(step) ? `${text}[${step}]` : `${text}${text ? '.' : ''}${step}`),
		'',
	)
	const value = steps.reduce<unknown>((at, step) => (at as Record<string, unknown> | undefined)?.[step], input)
	const { keyword = '', message = 'another shape' } = error ?? {}
	const params: Record<string, unknown> = error?.params ?? {}
	const under = (name: unknown) => `${path}${path ? '.' : ''}${String(name)}`
	// Beyond the largest number JSON text reads as infinity, which JSON itself cannot say back.
	const shown = (given: unknown) =>
		typeof given === 'number' && !Number.isFinite(given) ? String(given) : (given ?? null)
	const answer = (field: string, given: unknown, expected: string): CalculationError => ({
		kind: 'shape',
		field,
		value: shown(given),
		expected,
		message: `${field || 'input'}: expected ${expected}`,
	})
	if (keyword === 'required') return answer(under(params.missingProperty), null, 'a value: this field is required')
	if (keyword === 'additionalProperties')
		return answer(
			under(params.additionalProperty),
			(value as Record<string, unknown>)[params.additionalProperty as string],
			'no such field',
		)
	if (keyword === 'oneOf') {
		const sets = error?.schema as { required: string[] }[]
		return answer(path, value, `exactly one of: ${sets.map((set) => set.required.join(' with ')).join('; ')}`)
	}
	if (keyword === 'enum') return answer(path, value, `one of ${(params.allowedValues as string[]).join(', ')}`)
	if (keyword === 'type') return answer(path, value, `a ${String(params.type)}`)
	return answer(path, value, message)
}
