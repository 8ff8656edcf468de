import { describe, expect, it } from 'vitest'
import { readTimeOfDay, writeTimeOfDay } from './time-of-day'

describe('a time of day', () => {
	it.each([
		['17:30', '17:30'],
		[' 17.30 ', '17:30'],
		['17h30', '17:30'],
		['1730', '17:30'],
		['930', '09:30'],
		['9', '09:00'],
		['0:05', '00:05'],
		['23:59', '23:59'],
		// Twelve at noon is pm, twelve at night am.
		['5:30 pm', '17:30'],
		['5pm', '17:00'],
		['5 P.M.', '17:00'],
		['12 am', '00:00'],
		['12:15 pm', '12:15'],
	])('%j is %s', (text, time) => expect(readTimeOfDay(text)).toBe(time))
	it.each(['', '24:00', '17:60', '13 pm', '0 am', '5:3', 'noon', '17:30:00', '-1', '12345'])('%j is none', (text) =>
		expect(readTimeOfDay(text)).toBeNull(),
	)
	it.each([
		['00:05', '12:05 am'],
		['11:59', '11:59 am'],
		['12:00', '12:00 pm'],
		['17:30', '5:30 pm'],
	])('%s by twelve hours is %s', (time, words) => {
		expect(writeTimeOfDay(time, true)).toBe(words)
		expect(writeTimeOfDay(time, false)).toBe(time)
	})
	it('comes back as it was, every minute of the day, both ways', () => {
		for (let minute = 0; minute < 1440; minute++) {
			const time = `${String(Math.floor(minute / 60)).padStart(2, '0')}:${String(minute % 60).padStart(2, '0')}`
			for (const twelve of [true, false]) expect(readTimeOfDay(writeTimeOfDay(time, twelve))).toBe(time)
		}
	})
})
