import { expect, it } from 'vitest'
import { DAY, factsOf, form } from '../../tests/support/plain-facts'
import { addDays } from '../calendar/day-count'
import { carriedOften } from './p11-carried'

const run = form('carried-run', { distanceM: 30, loadG: 100 })
const read = (days: readonly number[], asked = run) => {
	const found = carriedOften.read(factsOf({ loadsOn: days.map((day) => addDays(DAY, day)) }), asked)
	return found && `${found.tier}: ${found.found}; ${found.limit}`
}
// Once a day; three or four days of any seven (common practice, no source).
it.each([
	[[], null],
	[[0], 'block: a weight is worn that day already; once a day'],
	[[-1], null],
	[[1], null],
	[[-6, -4, -2], null],
	[[-6, -4, -2, -1], 'caution: a weight is worn on 4 other days of seven; 4 days in seven'],
	[[-7, -4, -2, -1], null],
	[[-3, -1, 1, 3], 'caution: a weight is worn on 4 other days of seven; 4 days in seven'],
	// No seven days hold these four and the day itself.
	[[-4, -2, 1, 3], null],
	[[-3, -1, 2, 4], null],
	[[1, 2, 3, 6], 'caution: a weight is worn on 4 other days of seven; 4 days in seven'],
	[[1, 2, 3, 7], null],
	// A day is one day, however many sessions it has.
	[[-1, -1, -1, -1], null],
] as const)('worn on days %j before and after', (days, expected) => {
	expect(read(days)).toBe(expected)
})
it('speaks of nothing that is not worn', () => {
	expect(read([0], form('build-run', { distanceM: 30 }))).toBeNull()
	expect(read([0], form('carried-run', { distanceM: 30, loadG: 0 }))).toBeNull()
})
it('is silent where nothing is known', () => {
	expect(carriedOften.read(factsOf({}), run)).toBeNull()
})
