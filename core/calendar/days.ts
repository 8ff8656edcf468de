import { Temporal } from 'temporal-polyfill'

/** A local calendar day, "2026-11-23". */
export type Day = string

export const addDays = (day: Day, days: number): Day => Temporal.PlainDate.from(day).add({ days }).toString()
/** Whole days from `from` to `to`; negative when `to` is earlier. */
export const daysBetween = (from: Day, to: Day): number => Temporal.PlainDate.from(from).until(Temporal.PlainDate.from(to), { largestUnit: 'day' }).days
/** 1 Monday … 7 Sunday. */
export const weekday = (day: Day): number => Temporal.PlainDate.from(day).dayOfWeek
/** The Monday of the week a day lies in. */
export const mondayOf = (day: Day): Day => addDays(day, 1 - weekday(day))

/** The first day after `day` that falls on one of the weekdays (1 Monday … 7 Sunday). Throws RangeError when none is given. */
export function nextTrainingDay(day: Day, weekdays: readonly number[]): Day {
	for (let ahead = 1; ahead <= 7; ahead++) {
		const candidate = addDays(day, ahead)
		if (weekdays.includes(weekday(candidate))) return candidate
	}
	throw new RangeError('weekdays: at least one of 1 (Monday) to 7 (Sunday) is expected')
}

/** The calendar day it is at an instant (ISO 8601, UTC) in an IANA time zone. */
export const dayInZone = (instant: string, timeZone: string): Day =>
	Temporal.Instant.from(instant).toZonedDateTimeISO(timeZone).toPlainDate().toString()

/** Whole years between a birth date and a day. */
export const ageInYears = (birthDate: Day, on: Day): number => Temporal.PlainDate.from(birthDate).until(Temporal.PlainDate.from(on), { largestUnit: 'year' }).years

/** "Tuesday 24 November" for people. */
export const longDay = (day: Day, locale = 'en-GB'): string => Temporal.PlainDate.from(day).toLocaleString(locale, { weekday: 'long', day: 'numeric', month: 'long' }).replace(',', '')
export const shortDay = (day: Day, locale = 'en-GB'): string => Temporal.PlainDate.from(day).toLocaleString(locale, { weekday: 'short', day: 'numeric', month: 'short' }).replace(',', '')
