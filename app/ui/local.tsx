import { createContext, use } from 'react'
import { writeTimeOfDay } from '#core/calendar/time-of-day'
import { readDay } from '#core/roster/read-date'

/** How days and times are written by whoever looks at the page. */
export interface Local {
	order: 'day-first' | 'month-first' | 'year-first'
	separator: string
	twelveHours: boolean
	/** 1 Monday to 7 Sunday. */
	firstWeekday: number
}

const LocalContext = createContext<Local>({
	order: 'day-first',
	separator: '/',
	twelveHours: false,
	firstWeekday: 1,
})
export const LocalProvider = LocalContext

/** Two digits of a year lie in the past but for these: what is planned is planned soon. */
const YEARS_AHEAD = 10

export function useLocal() {
	const local = use(LocalContext)
	return {
		...local,
		/** "17:30" as it is said there. */
		time: (time: string) => writeTimeOfDay(time, local.twelveHours),
		/** A day as it is typed there: "27/11/2026". @param day "2026-11-27" */
		writeDay: (day: string) => {
			const [year, month, date] = day.split('-')
			const parts =
				local.order === 'year-first'
					? [year, month, date]
					: local.order === 'month-first'
						? [month, date, year]
						: [date, month, year]
			return parts.join(local.separator)
		},
		/** The day that was typed, in whatever form; null for none. */
		readDay: (text: string) =>
			readDay(
				text,
				local.order === 'month-first' ? 'month-first' : 'day-first',
				`${new Date().getFullYear() + YEARS_AHEAD}-12-31`,
			),
	}
}
