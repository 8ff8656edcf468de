import { type Day, addDays, isDay } from '../calendar/day-count'

/** What comes first where a date is written in numbers with the year last. */
export type DateOrder = 'day-first' | 'month-first'

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec']
/** A spreadsheet counts from 1 January 1900, and a 29 February 1900 that never was: from March on day 0 is this. */
const SERIAL_FROM = '1899-12-30'
const FEWEST_SERIAL = 3_000
const MOST_SERIAL = 80_000

/** The three parts of a date of numbers with the year last, in the order they stand; null for anything else. */
function inNumbers(text: string): [first: number, second: number, year: string] | null {
	const found = /^(\d{1,2})\s*[./\- ]\s*(\d{1,2})\s*[./\- ]\s*(\d{4}|\d{2})\.?$/.exec(text)
	return found ? [Number(found[1]), Number(found[2]), found[3]!] : null
}

/**
 * Which comes first in a column of dates, by those that can be read in one way only; null where none tells, or where
 * they tell both.
 */
export function orderOf(texts: readonly string[]): DateOrder | null {
	const parts = texts.flatMap((text) => {
		const found = inNumbers(text.trim())
		return found ? [found] : []
	})
	const dayFirst = parts.some(([first]) => first > 12)
	const monthFirst = parts.some(([, second]) => second > 12)
	if (dayFirst === monthFirst) return null
	return dayFirst ? 'day-first' : 'month-first'
}
/** Whether a date means another day in the other order. */
export function isAmbiguous(text: string): boolean {
	const found = inNumbers(text.trim())
	return found !== null && found[0] <= 12 && found[1] <= 12 && found[0] !== found[1]
}

/**
 * A day as people and spreadsheets write it: 2009-05-31, 31.5.2009, 31/05/09, 31 May 2009, May 31, 2009, or the number
 * of a spreadsheet's day. Two digits of a year are the latest such year that is not after today.
 *
 * @returns null for what is no day
 */
export function readDay(text: string, order: DateOrder, today: Day): Day | null {
	const typed = text.trim().toLowerCase()
	const day = (year: number, month: number, date: number): Day | null => {
		const written = [String(year).padStart(4, '0'), String(month).padStart(2, '0'), String(date).padStart(2, '0')]
		return isDay(written.join('-')) ? written.join('-') : null
	}
	const wholeYear = (digits: string): number => {
		if (digits.length === 4) return Number(digits)
		const century = Number(today.slice(0, 2)) * 100
		const year = century + Number(digits)
		return year > Number(today.slice(0, 4)) ? year - 100 : year
	}
	const iso = /^(\d{4})[-./](\d{1,2})[-./](\d{1,2})(t00:00(:00(\.0+)?)?z?| 00:00(:00)?)?$/.exec(typed)
	if (iso) return day(Number(iso[1]), Number(iso[2]), Number(iso[3]))
	const numbers = inNumbers(typed)
	if (numbers) {
		const [first, second, year] = numbers
		const [date, month] = order === 'day-first' ? [first, second] : [second, first]
		return day(wholeYear(year), month, date)
	}
	const named =
		/^(?:(\d{1,2})(?:st|nd|rd|th)?\.?\s+([a-z]{3,9})\.?|([a-z]{3,9})\.?\s+(\d{1,2})(?:st|nd|rd|th)?),?\s+(\d{4}|\d{2})$/.exec(
			typed,
		)
	if (named) {
		const word = (named[2] ?? named[3])!
		const month = MONTHS.findIndex((one) => word.startsWith(one)) + 1
		return month === 0 ? null : day(wholeYear(named[5]!), month, Number(named[1] ?? named[4]))
	}
	if (/^\d{4,5}$/.test(typed) && Number(typed) >= FEWEST_SERIAL && Number(typed) <= MOST_SERIAL)
		return addDays(SERIAL_FROM, Number(typed))
	return null
}
