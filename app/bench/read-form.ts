import type { Calculation } from '#core/calc/calculation'
import { snakeCase } from '#core/calc/calculation'
import { MeasureError } from '#core/measure/measure-error'
import { readLength } from '#core/measure/read-length'
import { readMass } from '#core/measure/read-mass'
import { readNumber } from '#core/measure/read-number'

/** One box to type into. The value goes to the calculation in SI units, whatever unit the box is in. */
export interface FieldSpec {
	/** Where it goes in the calculation's input: `mass_kg`, or `left.time_505_s`. */
	key: string
	label: string
	unit: string
	/** What is typed times this is the SI value: 0.01 for centimetres. */
	scale?: number
	optional?: boolean
	hint?: string
}

export interface FormSpec {
	fields: readonly FieldSpec[]
	/** A table of rows, such as splits; `key` is the list in the input. */
	rows?: { key: string; columns: readonly FieldSpec[]; label: string; atLeast: number }
	/** Fixed parts of the input, and choices that are not numbers. */
	fixed?: Readonly<Record<string, unknown>>
}

export interface Draft {
	values: Record<string, string>
	rows: Record<string, string>[]
}

export type Reading<Input = Record<string, unknown>, Output = Record<string, unknown>> =
	| { state: 'incomplete'; problems: Record<string, string> }
	| { state: 'done'; input: Input; output: Output; problems: Record<string, never> }

const LENGTHS = ['m', 'cm'] as const
const MASSES = ['kg', 'g'] as const
/** A typed unit counts, "8 ft 2 in" or "142 lb"; a number alone is in the box's own. */
function readIn(text: string, unit: string): number | null {
	const alone = readNumber(text)
	if (alone !== null) return alone
	const length = LENGTHS.find((one) => one === unit)
	const metres = length ? readLength(text, length) : null
	if (metres !== null) return length === 'cm' ? Number((metres * 100).toFixed(1)) : metres
	const mass = MASSES.find((one) => one === unit)
	const kg = mass ? readMass(text, mass) : null
	return kg !== null && mass === 'g' ? Number((kg * 1000).toFixed(0)) : kg
}

/**
 * A number as people type it, with a comma or a point, and with its unit if they like. Null for nothing typed, NaN for
 * what cannot be read.
 *
 * @param unit of the box
 */
export function readTyped(text: string | undefined, unit = ''): number | null {
	const typed = (text ?? '').trim()
	return typed === '' ? null : (readIn(typed, unit) ?? Number.NaN)
}

/** Key of a box in the problems: a field's own key, or `rows[2].time_s` for the third row shown. */
const cell = (row: number, key: string) => `rows[${row}].${key}`

/**
 * Reads what is typed and computes. Nothing is said about boxes that are still empty; what cannot be
 * read, or cannot be a measurement, is said at its box. Rows left wholly empty do not count.
 */
export function readForm<Input, Output>(
	spec: FormSpec,
	draft: Draft,
	one: Pick<Calculation<Input, Output>, 'compute'>,
): Reading<Input, Output> {
	const problems: Record<string, string> = {}
	const input = structuredClone(spec.fixed ?? {}) as Record<string, unknown>
	let missing = false
	const take = (field: FieldSpec, text: string | undefined, into: Record<string, unknown>, at: string) => {
		const value = readTyped(text, field.unit)
		if (value === null) missing ||= !field.optional
		else if (Number.isNaN(value)) problems[at] = `${text?.trim()} is not a number.`
		else put(into, field.key, field.scale === undefined ? value : Number((value * field.scale).toPrecision(12)))
	}
	for (const field of spec.fields) take(field, draft.values[field.key], input, field.key)
	/** Which shown row each row of the input came from. */
	const shown: number[] = []
	if (spec.rows) {
		const { key, columns, atLeast } = spec.rows
		const list: Record<string, unknown>[] = []
		draft.rows.forEach((row, index) => {
			if (columns.every((column) => (row[column.key] ?? '').trim() === '')) return
			const values: Record<string, unknown> = {}
			for (const column of columns) take(column, row[column.key], values, cell(index, column.key))
			list.push(values)
			shown.push(index)
		})
		missing ||= list.length < atLeast
		input[key] = list
	}
	if (missing || Object.keys(problems).length > 0) return { state: 'incomplete', problems }
	try {
		// Every box of the form writes a field of the calculation's own shape.
		const fitting = input as Input
		return { state: 'done', input: fitting, output: one.compute(fitting), problems: {} }
	} catch (error) {
		if (!(error instanceof MeasureError)) throw error
		const path = snakeCase(error.field)
		const inRow = spec.rows && new RegExp(`^${spec.rows.key}\\[(\\d+)\\]\\.(.+)$`).exec(path)
		const at = inRow ? cell(shown[Number(inRow[1])] ?? 0, inRow[2]!) : path
		return { state: 'incomplete', problems: { [hasBox(spec, at) ? at : '']: `Expected ${error.expected}.` } }
	}
}

const hasBox = (spec: FormSpec, at: string) => at.startsWith('rows[') || spec.fields.some((field) => field.key === at)

function put(into: Record<string, unknown>, key: string, value: number): void {
	const [head, ...rest] = key.split('.')
	if (rest.length === 0) into[head!] = value
	else put((into[head!] ??= {}) as Record<string, unknown>, rest.join('.'), value)
}

/**
 * Cells of pasted text: lines of a table copied from a sheet (tabs), or typed with semicolons or blanks.
 * A decimal comma stays one, because a comma alone never parts two cells.
 */
export function readPasted(text: string): string[][] {
	return text
		.trim()
		.split(/\r?\n/)
		.map((line) =>
			line
				.trim()
				.split(/\t|;|\s{2,}| (?=[\d.,−-])/)
				.map((part) => part.trim())
				.filter((part) => part !== ''),
		)
}
