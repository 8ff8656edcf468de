import { M_AN_INCH, M_A_FOOT, M_A_YARD } from '../words/units'
import { readNumber } from './read-number'

const METRES = { m: 1, cm: 0.01, mm: 0.001, ft: M_A_FOOT, in: M_AN_INCH, yd: M_A_YARD } as const
type LengthUnit = keyof typeof METRES
const UNITS: readonly [LengthUnit, RegExp][] = [
	['mm', /^mm$/],
	['cm', /^cms?$/],
	['m', /^(m|ms|metres?|meters?)$/],
	['ft', /^('|′|ft|foot|feet)$/],
	['in', /^("|″|''|in|ins|inch|inches)$/],
	['yd', /^(yd|yds|yards?)$/],
]

/**
 * Metres from a length as people write it: "2.45", "2,45 m", "245 cm", "8 ft 2 in", "8' 2\"", "98 in", "40 yd"; to the
 * millimetre. Null for what is none.
 *
 * @param bare the unit of a number that stands alone
 * @example readLength('8 ft 2 in') // 2.489
 */
export function readLength(text: string, bare: LengthUnit = 'm'): number | null {
	const typed = text.trim().toLowerCase()
	const alone = readNumber(typed)
	if (alone !== null) return rounded(alone * METRES[bare])
	const unitOf = (word: string) => UNITS.find(([, words]) => words.test(word))?.[0] ?? null
	const one = /^(.*?\d[.,]?)\s*([^\d\s.,]+?)\.?$/.exec(typed)
	const number = one ? readNumber(one[1]!) : null
	const unit = one ? unitOf(one[2]!) : null
	if (number !== null && unit !== null) return rounded(number * METRES[unit])
	const both = /^(\d+)\s*('|′|ft|foot|feet)\.?\s*(\d+(?:[.,]\d+)?)\s*("|″|''|in|ins|inch|inches)?\.?$/.exec(typed)
	const inches = both ? readNumber(both[3]!) : null
	return both && inches !== null && inches < 12 ? rounded(Number(both[1]) * METRES.ft + inches * METRES.in) : null
}
const rounded = (metres: number) => Math.round(metres * 1000) / 1000
