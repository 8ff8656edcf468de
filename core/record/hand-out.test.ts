import { describe, expect, it } from 'vitest'
import { type LineDone, sayLineDone } from './hand-out'

const LINE: LineDone = {
	what: 'Three-point start 20 m',
	planned: 6,
	done: 6,
	measured: [],
	good: 0,
	notYet: 0,
	poor: 0,
	notes: [],
}
/** Spread of the difference: 0.05 s; one-sided 5 % of Student’s t at 10 degrees of freedom is 1.8125 (published table). */
const USUAL = { value: 3, betweenSd: 0.03, withinSd: 0, standardError: 0.04, freedom: 10, sessions: 8 }
const say = (more: Partial<LineDone>) => sayLineDone({ ...LINE, ...more })
const times = (values: number[], usual: typeof USUAL | null = USUAL) => ({
	measured: [{ kind: 'sprint' as const, side: null, values, usual }],
})

describe('a line in words', () => {
	it('says how much of it was done', () => {
		expect(say({})).toBe('All 6 done.')
		expect(say({ done: 7 })).toBe('All 7 done.')
		expect(say({ done: 4 })).toBe('4 of 6 done.')
		expect(say({ done: 0 })).toBe('Nothing is logged of it.')
		expect(say({ done: 2, planned: 0 })).toBe('2 done.')
		expect(say({ done: 0, planned: 0 })).toBe('Not asked of you.')
	})
	it('says best and mean, and whether that is as usual', () => {
		expect(say(times([3.0, 3.1]))).toBe('All 6 done. Best 3.00 s, on the whole 3.05 s: about as usual.')
		expect(say(times([3.09]))).toBe('All 6 done. 3.09 s: about as usual.')
		expect(say(times([3.092]))).toBe('All 6 done. 3.09 s: below your usual.')
		expect(say(times([2.908]))).toBe('All 6 done. 2.91 s: better than your usual.')
		expect(say(times([2.91]))).toBe('All 6 done. 2.91 s: about as usual.')
		expect(say(times([3.0, 3.1], null))).toBe('All 6 done. Best 3.00 s, on the whole 3.05 s.')
	})
	it('turns for what is better when it is higher, and names the side', () => {
		const heights = (side: string | null, values: number[], usual: typeof USUAL | null) => ({
			measured: [{ kind: 'distance' as const, side, values, usual }],
		})
		expect(say(heights('left', [2.8, 2.9], { ...USUAL, value: 3 }))).toBe(
			'All 6 done. Left: best 2.90 m, on the whole 2.85 m: below your usual.',
		)
		expect(say(heights(null, [3.2], USUAL))).toBe('All 6 done. 3.20 m: better than your usual.')
	})
	it('says how they looked, and what was noted', () => {
		expect(say({ good: 4, notYet: 1, poor: 1, notes: ['Left foot lands late'] })).toBe(
			'All 6 done. How they looked: 4 good, 1 not yet, 1 not good. “Left foot lands late”',
		)
		expect(say({ good: 6 })).toBe('All 6 done. How they looked: 6 good.')
	})
})
