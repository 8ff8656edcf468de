import { describe, expect, it } from 'vitest'
import { isOfTheDay } from './of-the-day'

/** Madeira keeps UTC in winter and is an hour ahead of it from the last Sunday of March on. */
const WINTER = { day: '2026-03-12', timeZone: 'Atlantic/Madeira' }
const SUMMER = { day: '2026-07-09', timeZone: 'Atlantic/Madeira' }

describe('somebody who logs only today', () => {
	it.each<[boolean, string]>([
		[false, '2026-03-11T23:59:59.999Z'],
		[true, '2026-03-12T00:00:00.000Z'],
		[true, '2026-03-12T17:40:00.000Z'],
		[true, '2026-03-12T23:59:59.999Z'],
		// The session went on past midnight.
		[true, '2026-03-13T00:00:00.000Z'],
		[true, '2026-03-13T02:59:59.999Z'],
		[false, '2026-03-13T03:00:00.000Z'],
		[false, '2026-03-14T00:10:00.000Z'],
	])('%s: logged at %s, sent the same night', (expected, loggedAt) => {
		expect(isOfTheDay(WINTER, loggedAt, '2026-03-13')).toBe(expected)
	})
	it.each<[boolean, string]>([
		[false, '2026-07-08T22:59:59.999Z'],
		[true, '2026-07-08T23:00:00.000Z'],
		[true, '2026-07-10T01:59:59.999Z'],
		[false, '2026-07-10T02:00:00.000Z'],
	])('%s: logged at %s, where the club is an hour ahead', (expected, loggedAt) => {
		expect(isOfTheDay(SUMMER, loggedAt, '2026-07-10')).toBe(expected)
	})
	it.each<[boolean, string, string]>([
		[false, 'a day before it', '2026-03-11'],
		[true, 'on it', '2026-03-12'],
		[true, 'the morning after', '2026-03-13'],
		[true, 'a week later, as long as a phone keeps it', '2026-03-19'],
		[false, 'a day later still', '2026-03-20'],
	])('%s: it arrives %s', (expected, _, today) => {
		expect(isOfTheDay(WINTER, '2026-03-12T17:40:00.000Z', today)).toBe(expected)
	})
})
