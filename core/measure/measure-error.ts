/** Input that cannot be a measurement: which field, the value given, what is expected instead. */
export class MeasureError extends RangeError {
	constructor(
		/** Path of the field in the input, such as `splits[2].timeS`. */
		readonly field: string,
		readonly value: unknown,
		readonly expected: string,
	) {
		super(`${field}: ${show(value)} given, expected ${expected}`)
		this.name = 'MeasureError'
	}
}

/** Bounds of a number; `above` and `below` exclude the bound itself, `from` and `to` include it. */
export interface Bounds {
	above?: number
	from?: number
	below?: number
	to?: number
	/** Unit in words or symbols, for the message. */
	unit?: string
	whole?: boolean
}

/**
 * Gives the number back when it lies within bounds. NaN, infinity, text and missing values are refused.
 *
 * @throws MeasureError naming the field, the value and the bounds
 * @example inBounds('contactS', 0.2, { above: 0, below: 3, unit: 's' }) // 0.2
 */
export function inBounds(field: string, value: unknown, bounds: Bounds): number {
	const { above = -Infinity, from = -Infinity, below = Infinity, to = Infinity, whole = false } = bounds
	if (
		typeof value === 'number' &&
		Number.isFinite(value) &&
		value > above &&
		value >= from &&
		value < below &&
		value <= to &&
		(!whole || Number.isInteger(value))
	)
		return value
	throw new MeasureError(field, value, inWords(bounds))
}

function inWords({ above, from, below, to, unit, whole }: Bounds): string {
	const parts = [
		above === undefined ? null : `above ${above}`,
		from === undefined ? null : `at least ${from}`,
		below === undefined ? null : `below ${below}`,
		to === undefined ? null : `at most ${to}`,
	].filter((part) => part !== null)
	const range = parts.length === 0 ? '' : ` ${parts.join(' and ')}`
	return `a ${whole ? 'whole ' : ''}number${range}${unit ? ` ${unit}` : ''}`
}

function show(value: unknown): string {
	if (typeof value === 'number' || value === undefined) return String(value)
	return JSON.stringify(value) ?? String(value)
}
