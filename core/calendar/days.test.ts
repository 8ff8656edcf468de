import { expect, it } from 'vitest'
import { addDays, daysBetween, isBefore, mondayOf, monthsBefore, nextTrainingDay, weekday } from './day-count'
import { ageInYears, dayInZone } from './days'

it('counts days across a change of clocks and a leap day', () => {
	expect(addDays('2026-10-24', 2)).toBe('2026-10-26')
	expect(daysBetween('2028-02-28', '2028-03-01')).toBe(2)
	expect(daysBetween('2026-03-01', '2026-02-28')).toBe(-1)
})
it('knows weekdays and Mondays', () => {
	// 1 January 2026 was a Thursday.
	expect(weekday('2026-01-01')).toBe(4)
	expect(mondayOf('2026-01-01')).toBe('2025-12-29')
	expect(mondayOf('2026-01-04')).toBe('2025-12-29')
})
it('finds the next training day, a week on when there is only one', () => {
	expect(nextTrainingDay('2026-01-01', [1, 4])).toBe('2026-01-05')
	expect(nextTrainingDay('2026-01-01', [4])).toBe('2026-01-08')
	expect(() => nextTrainingDay('2026-01-01', [])).toThrow('weekdays: ')
})
it('says which day it is at the club, not at the server', () => {
	expect(dayInZone('2026-06-30T23:30:00Z', 'Pacific/Auckland')).toBe('2026-07-01')
	expect(dayInZone('2026-06-30T03:30:00Z', 'America/Bogota')).toBe('2026-06-29')
})
it('counts whole years', () => {
	expect(ageInYears('2010-05-31', '2026-05-30')).toBe(15)
	expect(ageInYears('2010-05-31', '2026-05-31')).toBe(16)
})
it('goes back by months, to the last day of a shorter one', () => {
	expect(monthsBefore('2026-03-12', 12)).toBe('2025-03-12')
	expect(monthsBefore('2026-03-31', 1)).toBe('2026-02-28')
	expect(monthsBefore('2028-03-30', 1)).toBe('2028-02-29')
	expect(monthsBefore('2026-01-01', 1)).toBe('2025-12-01')
	expect(monthsBefore('2026-12-31', 6)).toBe('2026-06-30')
	expect(monthsBefore('2026-05-09', 60)).toBe('2021-05-09')
})

it.each([
	['2026-03-12', '17:29', true],
	['2026-03-12', '17:30', false],
	['2026-03-12', '17:31', false],
	['2026-03-11', '19:00', true],
	['2026-03-13', '09:00', false],
])('a session of %s, %s is before one of 12 March, 17:30: %s', (day, startTime, before) =>
	expect(isBefore({ day, startTime }, { day: '2026-03-12', startTime: '17:30' })).toBe(before),
)
