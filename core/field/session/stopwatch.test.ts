import { describe, expect, it } from 'vitest'
import { LONGEST_S, STANDING_WATCH, type Watch, assignCrossings, nextTap, tapWatch, timesOf } from './stopwatch'

const T = 1_700_000_000_000
const tapped = (places: number[], runners: number, ...seconds: number[]): Watch =>
	[0, ...seconds].reduce((watch, s) => tapWatch(watch, T + s * 1000, places, runners), STANDING_WATCH)

describe('a stopwatch', () => {
	it('of one athlete is started and stopped: hundredths', () => {
		expect(nextTap(STANDING_WATCH, [20], 1)).toEqual({ kind: 'start' })
		const started = tapped([20], 1)
		expect(nextTap(started, [20], 1)).toEqual({ kind: 'place', distanceM: 20 })
		expect(timesOf(started, [20], 1)).toBeNull()
		const over = tapWatch(started, T + 3124.9, [20], 1)
		expect(timesOf(over, [20], 1)).toEqual([3.12])
		expect(timesOf(tapWatch(started, T + 3125, [20], 1), [20], 1)).toEqual([3.13])
	})
	it('takes a time at each place on the way', () => {
		const way = tapped([10, 20], 1, 1.84)
		expect(nextTap(way, [10, 20], 1)).toEqual({ kind: 'place', distanceM: 20 })
		expect(timesOf(way, [10, 20], 1)).toBeNull()
		expect(timesOf(tapped([10, 20], 1, 1.84, 3.12), [10, 20], 1)).toEqual([1.84, 3.12])
	})
	it('has one finish for each of several who start together, whatever places lie on the way', () => {
		const first = tapped([10, 20], 3, 3.1)
		expect(nextTap(first, [10, 20], 3)).toEqual({ kind: 'crossing', ofRunners: 3, nth: 2 })
		expect(timesOf(tapped([10, 20], 3, 3.1, 3.3), [10, 20], 3)).toBeNull()
		expect(timesOf(tapped([10, 20], 3, 3.1, 3.3, 3.6), [10, 20], 3)).toEqual([3.1, 3.3, 3.6])
	})
	it('takes a trembling thumb for one tap, and no time from a watch left running', () => {
		expect(tapped([20], 1, 0.14).taps).toEqual([])
		expect(tapped([20], 1, 0.15).taps).toEqual([0.15])
		expect(tapped([10, 20], 1, 1.84, 1.98).taps).toEqual([1.84])
		expect(tapped([10, 20], 1, 1.84, 1.99).taps).toEqual([1.84, 1.99])
		// Two who cross together: a twentieth of a second apart.
		expect(tapped([20], 2, 3.1, 3.14).taps).toEqual([3.1])
		expect(tapped([20], 2, 3.1, 3.15).taps).toEqual([3.1, 3.15])
		expect(tapped([20], 2, 0.14).taps).toEqual([])
		expect(tapped([20], 1, -5).taps).toEqual([])
		expect(tapped([20], 1, LONGEST_S).taps).toEqual([600])
		expect(tapped([20], 1, LONGEST_S + 0.01).taps).toEqual([])
	})
	it('starts anew after a run', () => {
		const over = tapped([20], 1, 3.1)
		expect(nextTap(over, [20], 1)).toEqual({ kind: 'start' })
		expect(tapWatch(over, T + 90_000, [20], 1)).toEqual({ startedMs: T + 90_000, taps: [] })
		expect(timesOf(STANDING_WATCH, [20], 1)).toBeNull()
	})
})

describe('whose crossings', () => {
	const times = [3.1, 3.3, 3.6]
	const who = ['a', 'b', 'c']
	it('are named until one is left, who gets the last', () => {
		expect(assignCrossings(times, 20, who, [null, null, null])).toBeNull()
		expect(assignCrossings(times, 20, who, ['c', null, null])).toBeNull()
		expect(assignCrossings(times, 20, who, [])).toBeNull()
		expect(assignCrossings(times, 20, who, ['c', null, 'a'])).toEqual([
			{ athleteId: 'c', splits: [{ distanceM: 20, timeS: 3.1 }] },
			{ athleteId: 'b', splits: [{ distanceM: 20, timeS: 3.3 }] },
			{ athleteId: 'a', splits: [{ distanceM: 20, timeS: 3.6 }] },
		])
		expect(assignCrossings(times, 20, who, ['c', 'b', 'a'])!.map(({ athleteId }) => athleteId)).toEqual(['c', 'b', 'a'])
	})
	it('of somebody who did not start, or named twice, stay open', () => {
		expect(assignCrossings(times, 20, who, ['c', 'c', null])).toBeNull()
		expect(assignCrossings([3.1, 3.3], 20, who, ['c', null])).toBeNull()
	})
})
