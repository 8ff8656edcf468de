export interface Expectation {
	/** Lowest and highest value that would surprise nobody, in the unit typed. */
	low: number
	high: number
	/** Decimals the unit is usually written with, used when the range does not decide. */
	decimals: number
}

/**
 * What digits typed without a decimal point mean: "312" is 3.12 where about three seconds are
 * expected. A typed point or comma is taken as it stands. Null when nothing readable was typed.
 *
 * @example readDigits('312', { low: 2.9, high: 3.4, decimals: 2 }) // 3.12
 * @example readDigits('31', { low: 2.9, high: 3.4, decimals: 2 }) // 3.1
 */
export function readDigits(text: string, expected: Expectation): number | null {
	const typed = text.trim().replace(',', '.')
	if (!/^\d{1,7}$|^\d*\.\d+$|^\d+\.$/.test(typed)) return null
	if (typed.includes('.')) return Number(typed)
	const digits = Number(typed)
	if (digits === 0) return null
	const scale = (places: number) => Number((digits / 10 ** places).toFixed(places))
	// The placing nearest to the middle of what is expected, on a ratio scale; only if it is a plausible one.
	const middle = Math.sqrt(expected.low * expected.high)
	const distance = (value: number) => Math.abs(Math.log(value / middle))
	const placings = [0, 1, 2, 3].filter((places) => places < typed.length || places <= expected.decimals).map(scale)
	const nearest = placings.reduce((a, b) => (distance(b) < distance(a) ? b : a))
	const plausible = nearest >= expected.low / 2 && nearest <= expected.high * 2
	return plausible ? nearest : scale(expected.decimals)
}
