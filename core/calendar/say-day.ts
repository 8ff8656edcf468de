import { type Day, weekday } from './day-count'

// Written out: what the browser's calendars are asked through is many times the size of every page.
/** Monday first, "Mon". */
export const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'] as const
const LONG_WEEKDAYS = ['Monday', 'Tuesday', 'Wednesday', 'Thursday', 'Friday', 'Saturday', 'Sunday']
const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sept', 'Oct', 'Nov', 'Dec']
const LONG_MONTHS = [
	...['January', 'February', 'March', 'April', 'May', 'June'],
	...['July', 'August', 'September', 'October', 'November', 'December'],
]

const yearOf = (day: Day): string => day.slice(0, 4)
const monthIn = (day: Day, names: readonly string[]): string => names[Number(day.slice(5, 7)) - 1]!
const dateIn = (day: Day, months: readonly string[]): string => `${Number(day.slice(8, 10))} ${monthIn(day, months)}`

/** "31 May 2009" for people: a day of another year. */
export const longDate = (day: Day): string => `${dateIn(day, LONG_MONTHS)} ${yearOf(day)}`
/** "Tuesday 24 November" for people. @throws RangeError when it is no day */
export const longDay = (day: Day): string => `${LONG_WEEKDAYS[weekday(day) - 1]!} ${dateIn(day, LONG_MONTHS)}`
/** "Tue 24 Nov" for people. @throws RangeError when it is no day */
export const shortDay = (day: Day): string => `${WEEKDAYS[weekday(day) - 1]!} ${dateIn(day, MONTHS)}`
/** "September", or "September 2025" where it is another year's than today's. */
export const monthOf = (day: Day, today: Day): string =>
	monthIn(day, LONG_MONTHS) + (yearOf(day) === yearOf(today) ? '' : ` ${yearOf(day)}`)
