import { Temporal } from 'temporal-polyfill'
import type { Day } from './day-count'

/** The calendar day it is at an instant (ISO 8601, UTC) in an IANA time zone. */
export const dayInZone = (instant: string, timeZone: string): Day =>
	Temporal.Instant.from(instant).toZonedDateTimeISO(timeZone).toPlainDate().toString()

/** The local time of day it is at an instant in a zone, "17:30". */
export const timeInZone = (instant: string, timeZone: string): string =>
	Temporal.Instant.from(instant).toZonedDateTimeISO(timeZone).toPlainTime().toString({ smallestUnit: 'minute' })

/** The instant a local time of a day is, in a zone. @example instantOf('2026-03-12', '17:30', 'Atlantic/Madeira') // 2026-03-12T17:30:00Z */
export const instantOf = (day: Day, time: string, timeZone: string): Date =>
	new Date(
		Temporal.PlainDate.from(day).toZonedDateTime({ timeZone, plainTime: Temporal.PlainTime.from(time) })
			.epochMilliseconds,
	)
/** Whole years between a birth date and a day. */
export const ageInYears = (birthDate: Day, on: Day): number =>
	Temporal.PlainDate.from(birthDate).until(Temporal.PlainDate.from(on), { largestUnit: 'year' }).years

/** Days as they were written before: writing one takes longer than a rule takes to decide, and a club has few. */
const written = new Map<string, string>()
function write(day: Day, locale: string, length: 'long' | 'short'): string {
	const key = `${day} ${locale} ${length}`
	let words = written.get(key)
	if (words === undefined) {
		words = Temporal.PlainDate.from(day)
			.toLocaleString(locale, { weekday: length, day: 'numeric', month: length })
			.replace(',', '')
		written.set(key, words)
	}
	return words
}

/** "31 May 2009" for people: a day of another year. */
export const longDate = (day: Day, locale = 'en-GB'): string =>
	Temporal.PlainDate.from(day).toLocaleString(locale, { day: 'numeric', month: 'long', year: 'numeric' })
/** "Tuesday 24 November" for people. */
export const longDay = (day: Day, locale = 'en-GB'): string => write(day, locale, 'long')
/** "Tue 24 Nov" for people. */
export const shortDay = (day: Day, locale = 'en-GB'): string => write(day, locale, 'short')

/** "September", or "September 2025" where it is another year's than today's. */
export const monthOf = (day: Day, today: Day, locale = 'en-GB'): string =>
	Temporal.PlainDate.from(day).toLocaleString(locale, {
		month: 'long',
		...(day.slice(0, 4) === today.slice(0, 4) ? {} : { year: 'numeric' }),
	})
