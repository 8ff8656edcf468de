import { expect, it } from 'vitest'
import { addDays } from './day-count'
import { longDate, longDay, monthOf, shortDay } from './say-day'

it('writes days for people', () => {
	// 24 November 2026 was a Tuesday.
	expect(longDay('2026-11-24')).toBe('Tuesday 24 November')
	expect(shortDay('2026-11-24')).toBe('Tue 24 Nov')
	expect(longDate('2009-05-31')).toBe('31 May 2009')
	expect(shortDay('2026-09-06')).toBe('Sun 6 Sept')
	expect(() => shortDay('soon')).toThrow('is not like 2026-11-23')
})
it('names the year of a month only where it is another', () => {
	expect(monthOf('2026-09-30', '2026-11-24')).toBe('September')
	expect(monthOf('2025-09-30', '2026-11-24')).toBe('September 2025')
	expect(monthOf('2027-01-01', '2026-12-31')).toBe('January 2027')
})
it('writes each day of four years as the standard library of the language does', () => {
	const as = (day: string, format: Intl.DateTimeFormatOptions) =>
		new Intl.DateTimeFormat('en-GB', { ...format, timeZone: 'UTC' }).format(new Date(day)).replace(',', '')
	for (let day = '2025-01-01'; day < '2029-01-01'; day = addDays(day, 1)) {
		expect(shortDay(day)).toBe(as(day, { weekday: 'short', day: 'numeric', month: 'short' }))
		expect(longDay(day)).toBe(as(day, { weekday: 'long', day: 'numeric', month: 'long' }))
		expect(longDate(day)).toBe(as(day, { day: 'numeric', month: 'long', year: 'numeric' }))
	}
})
