import { describe, expect, it } from 'vitest'
import { Random } from '../chance/random'
import { type SessionMean, usualOf } from '../noise/usual'
import { type KeyOfDay, readDay } from './day-reading'

/** A usual of 3.00 s whose spreads are plain: the day 0.03 s, a rep 0.02 s, itself known. */
const USUAL = { value: 3, betweenSd: 0.03, withinSd: 0, standardError: 0.04, freedom: 10, sessions: 8 }
const key = (mean: number, name = 'a', more: Partial<KeyOfDay> = {}): KeyOfDay => ({
	key: name,
	kind: 'sprint',
	today: { n: 3, mean },
	usual: USUAL,
	...more,
})

describe('a day against the usual', () => {
	// Spread of the difference: 0.05 s. One-sided 5 % of Student's t at 10 degrees of freedom is 1.8125 (published table).
	it('is flat, or good, from where chance alone would bring one day of twenty', () => {
		expect(readDay([key(3 + 0.05 * 1.81)])!.state).toBe('as usual')
		expect(readDay([key(3 + 0.05 * 1.82)])!.state).toBe('flat')
		expect(readDay([key(3 - 0.05 * 1.81)])!.state).toBe('as usual')
		expect(readDay([key(3 - 0.05 * 1.82)])!.state).toBe('good')
	})
	// 2.5 % of Student's t at 10 degrees of freedom: 2.2281.
	it('asks more of each key the more there are', () => {
		expect(readDay([key(3 + 0.05 * 2.22), key(3, 'b')])!.state).toBe('as usual')
		expect(readDay([key(3 + 0.05 * 2.23), key(3, 'b')])!.state).toBe('flat')
	})
	it('turns for heights and throws', () => {
		expect(readDay([key(2.8, 'a', { kind: 'height' })])!.state).toBe('flat')
		expect(readDay([key(3.2, 'a', { kind: 'distance' })])!.state).toBe('good')
	})
	it('names the key that lies farthest out, and by how much', () => {
		expect(readDay([key(3.15, 'a'), key(3.3, 'b')])!.by).toMatchObject({ key: 'b', mean: 3.3, usual: 3 })
		expect(readDay([key(3.15, 'a'), key(3.3, 'b')])!.by!.worsePercent).toBeCloseTo(10, 9)
		expect(readDay([key(2.7, 'a', { kind: 'height' })])!.by!.worsePercent).toBeCloseTo(10, 9)
		expect(readDay([key(3.02)])!.by).toBeNull()
		// Slower at one thing and better at another: what lies farther out is told.
		expect(readDay([key(3.2, 'a'), key(2.6, 'b')])).toMatchObject({ state: 'good', by: { key: 'b' } })
		expect(readDay([key(3.4, 'a'), key(2.8, 'b')])).toMatchObject({ state: 'flat', by: { key: 'a' } })
	})
	it('says nothing without a usual', () => expect(readDay([])).toBeNull())
	/** 3,000 days of athletes whose days move by 0.5 and 1 %, four keys each, usual of eight sessions before, seed 7. */
	it.each([0.5, 1])('calls few days that are like any other: %f %% from day to day', (spreadPercent) => {
		const random = new Random(7)
		const calls = { flat: 0, good: 0, 'as usual': 0 }
		const one = (mean: number, index: number): SessionMean => {
			const today = mean * (1 + random.normal(spreadPercent / 100))
			const reps = [0, 1, 2].map(() => today + random.normal(0.02))
			const average = (reps[0]! + reps[1]! + reps[2]!) / 3
			return {
				day: `2026-03-${String(index + 1).padStart(2, '0')}`,
				n: 3,
				mean: average,
				squares: reps.reduce((sum, rep) => sum + (rep - average) ** 2, 0),
				best: Math.min(...reps),
			}
		}
		for (let i = 0; i < 3000; i++)
			calls[
				readDay(
					[2, 3, 4, 5].map((mean): KeyOfDay => {
						const before = Array.from({ length: 8 }, (_, index) => one(mean, index))
						return {
							key: `${mean}`,
							kind: 'sprint',
							today: one(mean, 9),
							usual: usualOf(before, '2026-03-10', 'sprint', 'gate')!,
						}
					}),
				)!.state
			]++
		expect(calls.flat / 3000).toBeLessThanOrEqual(0.05)
		expect(calls.good / 3000).toBeLessThanOrEqual(0.05)
	})
})
