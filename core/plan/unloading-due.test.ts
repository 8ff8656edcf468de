import { expect, it } from 'vitest'
import type { Phase } from '../vocabulary/words'
import { weeksSinceUnloading } from './unloading-due'

// An unloading week is due after the school's number of weeks, even when all is well. 2026-03-09 is a Monday.
const weeks = (...phases: (Phase | null)[]) =>
	phases.flatMap((phase, ago) =>
		phase === null ? [] : [{ day: new Date(Date.UTC(2026, 2, 10 - 7 * ago)).toISOString().slice(0, 10), phase }],
	)
it.each([
	['nothing yet', [], 0],
	['this week', ['accumulate'], 1],
	['three weeks', ['accumulate', 'accumulate', 'intensify'], 3],
	['since the unloading week', ['accumulate', 'accumulate', 'unloading', 'peaking', 'peaking'], 2],
	['an unloading week now', ['unloading', 'accumulate'], 0],
	['nothing yet this week, two before', [null, 'accumulate', 'accumulate', 'unloading'], 2],
	['a missed week starts anew', ['accumulate', null, 'accumulate', 'accumulate'], 1],
	['two weeks missed', [null, null, 'accumulate'], 0],
] as [string, (Phase | null)[], number][])('%s', (_, phases, expected) => {
	expect(weeksSinceUnloading(weeks(...phases), '2026-03-11')).toBe(expected)
})
it('one unloading session makes an unloading week, whichever comes first', () => {
	const days = [
		{ day: '2026-03-03', phase: 'unloading' as const },
		{ day: '2026-03-05', phase: 'accumulate' as const },
		{ day: '2026-03-10', phase: 'accumulate' as const },
	]
	expect(weeksSinceUnloading(days, '2026-03-11')).toBe(1)
	expect(weeksSinceUnloading([...days].reverse(), '2026-03-11')).toBe(1)
})
it('knows nothing of sessions to come', () => {
	expect(weeksSinceUnloading([{ day: '2026-03-12', phase: 'accumulate' }], '2026-03-11')).toBe(0)
})
