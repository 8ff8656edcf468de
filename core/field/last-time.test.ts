import { expect, it } from 'vitest'
import { lastNoted } from './last-time'

const note = (day: string, text: string) => ({ day, text })

it('what was noted last time is of the newest day alone, each thing once, the newest first', () => {
	expect(lastNoted([])).toBeNull()
	expect(
		lastNoted([
			note('2026-03-05', 'old'),
			note('2026-03-12', 'Pops up'),
			note('2026-03-12', 'Left foot late'),
			note('2026-03-12', 'Pops up'),
		]),
	).toEqual({ day: '2026-03-12', words: ['Pops up (2 times)', 'Left foot late'] })
	expect(lastNoted(['a', 'b', 'c', 'd'].map((text) => note('2026-03-12', text)))?.words).toEqual(['d', 'c', 'b'])
})
