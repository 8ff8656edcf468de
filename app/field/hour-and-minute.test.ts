import { expect, it } from 'vitest'
import { hourAndMinute, sayStart, weekdayAndTime, withSeconds } from './hour-and-minute'

/** A quarter to six in the evening of a Monday, and four minutes past midnight, by the clock of the machine. */
const evening = new Date(2026, 10, 30, 17, 45)
const night = new Date(2026, 10, 30, 0, 4)

it('a session’s time and that of a mark are written the same way, as the device writes times', () => {
	expect([sayStart('17:30', false), hourAndMinute(evening.toISOString(), false)]).toEqual(['17:30', '17:45'])
	expect([sayStart('17:30', true), hourAndMinute(evening.toISOString(), true)]).toEqual(['5:30 pm', '5:45 pm'])
	expect([hourAndMinute(night.getTime(), false), hourAndMinute(night.getTime(), true)]).toEqual(['00:04', '12:04 am'])
})
it('the day of the week is an English one', () => {
	expect(weekdayAndTime(evening.getTime(), false)).toBe('Mon 17:45')
	expect(weekdayAndTime(evening.getTime(), true)).toBe('Mon 5:45 pm')
})
it('a run is told by its second', () => {
	const run = new Date(2026, 10, 30, 17, 45, 7).getTime()
	expect([withSeconds(run, false), withSeconds(run, true)]).toEqual(['17:45:07', '5:45:07 pm'])
})
