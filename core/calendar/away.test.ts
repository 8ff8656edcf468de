import { describe, expect, it } from 'vitest'
import { isAway, sayAway } from './away'

describe('away', () => {
	const fortnight = { from: '2026-12-03', until: '2026-12-16' }
	const open = { from: '2026-12-03', until: null }
	it('is from the first day to the last, both of them', () => {
		expect(['2026-12-02', '2026-12-03', '2026-12-16', '2026-12-17'].map((day) => isAway(fortnight, day))).toEqual([
			false,
			true,
			true,
			false,
		])
	})
	it('without a last day goes on; nobody is away who was not said to be', () => {
		expect(isAway(open, '2027-12-03')).toBe(true)
		expect(isAway(open, '2026-12-02')).toBe(false)
		expect(isAway(null, '2026-12-03')).toBe(false)
	})
	it('is said while it lasts or lies ahead', () => {
		expect(sayAway(fortnight, '2026-12-01')).toBe('away from Thu 3 Dec to Wed 16 Dec')
		expect(sayAway(fortnight, '2026-12-03')).toBe('away until Wed 16 Dec')
		expect(sayAway(fortnight, '2026-12-16')).toBe('away until Wed 16 Dec')
		expect(sayAway(fortnight, '2026-12-17')).toBeNull()
		expect(sayAway(open, '2026-12-02')).toBe('away from Thu 3 Dec')
		expect(sayAway(open, '2026-12-03')).toBe('away')
		expect(sayAway(null, '2026-12-03')).toBeNull()
	})
})
