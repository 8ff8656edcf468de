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
