/** A local calendar day, "2026-11-23". */
export type Day = string

const MS_A_DAY = 86_400_000
/** A club's history names the same few hundred days over and over. */
const MOST_KEPT = 4000
const known = new Map<Day, number>()
/** Days since 1970-01-01. Judging a club asks this a million times, where a calendar object each would cost a second. */
const dayNumber = (day: Day): number => {
	const kept = known.get(day)
	if (kept !== undefined) return kept
	const number = Date.UTC(Number(day.slice(0, 4)), Number(day.slice(5, 7)) - 1, Number(day.slice(8, 10))) / MS_A_DAY
	if (!Number.isFinite(number)) throw new RangeError(`day: ${JSON.stringify(day)} is not like 2026-11-23`)
	if (known.size > MOST_KEPT) known.clear()
	known.set(day, number)
	return number
}
const named = new Map<number, Day>()
const dayOfNumber = (number: number): Day => {
	const kept = named.get(number)
	if (kept !== undefined) return kept
	const day = new Date(number * MS_A_DAY).toISOString().slice(0, 10)
	if (named.size > MOST_KEPT) named.clear()
	named.set(number, day)
	return day
}

/** Whether a text is a day of the calendar, "2026-11-23"; the 31st of February is none. */
export const isDay = (text: unknown): text is Day =>
	typeof text === 'string' && /^\d{4}-\d{2}-\d{2}$/.test(text) && isInCalendar(text)
function isInCalendar(text: string): boolean {
	const at = Date.UTC(Number(text.slice(0, 4)), Number(text.slice(5, 7)) - 1, Number(text.slice(8, 10)))
	// Of a year before 100 the calendar object makes another; nothing here is that old.
	return Number(text.slice(0, 4)) >= 1000 && new Date(at).toISOString().slice(0, 10) === text
}

/** The same day of the month so many months earlier; where that month is too short, its last day. */
export function monthsBefore(day: Day, months: number): Day {
	const month = Number(day.slice(0, 4)) * 12 + Number(day.slice(5, 7)) - 1 - months
	const [year, at] = [Math.floor(month / 12), (month % 12) + 1]
	const last = Number(dayOfNumber(Date.UTC(year, at, 0) / MS_A_DAY).slice(8))
	return [String(year).padStart(4, '0'), at, Math.min(Number(day.slice(8)), last)]
		.map((part) => String(part).padStart(2, '0'))
		.join('-')
}
export const addDays = (day: Day, days: number): Day => dayOfNumber(dayNumber(day) + days)
/** Whole days from `from` to `to`; negative when `to` is earlier. */
export const daysBetween = (from: Day, to: Day): number => dayNumber(to) - dayNumber(from)
/** 1 Monday … 7 Sunday. 1970-01-01 was a Thursday. */
export const weekday = (day: Day): number => ((((dayNumber(day) + 3) % 7) + 7) % 7) + 1
/** The Monday of the week a day lies in. */
export const mondayOf = (day: Day): Day => addDays(day, 1 - weekday(day))
/** Whether one local start comes before another, both "2026-11-23" with "17:30". */
export const isBefore = (one: { day: Day; startTime: string }, other: { day: Day; startTime: string }): boolean =>
	one.day + one.startTime < other.day + other.startTime
/** Hours from one local start to another, both "2026-11-23" with "17:30"; a change of the clocks is not counted. */
export const hoursBetween = (from: { day: Day; startTime: string }, to: { day: Day; startTime: string }): number =>
	daysBetween(from.day, to.day) * 24 + minuteOfDay(to.startTime) / 60 - minuteOfDay(from.startTime) / 60
const minuteOfDay = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5))

/** The first day after `day` that falls on one of the weekdays (1 Monday … 7 Sunday). Throws RangeError when none is given. */
export function nextTrainingDay(day: Day, weekdays: readonly number[]): Day {
	for (let ahead = 1; ahead <= 7; ahead++) {
		const candidate = addDays(day, ahead)
		if (weekdays.includes(weekday(candidate))) return candidate
	}
	throw new RangeError('weekdays: at least one of 1 (Monday) to 7 (Sunday) is expected')
}
