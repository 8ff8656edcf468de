import { describe, expect, it } from 'vitest'
import { MeasureError } from '../measure-error'
import { distanceAtTime, solveSprintTime, speedAtTime, timeAtDistance } from './sprint-curve'

// v(t) = MSS (1 − e^(−t/TAU)), Furusawa, Hill & Parkinson 1927. In units of TAU and MSS·TAU the way is
// c = u + e^(−u) − 1, whose Taylor series u²/2! − u³/3! + u⁴/4! − … loses no digits near 0.

const wayOf = (u: number): number => {
	let [sum, term] = [0, -u]
	for (let k = 2; k < 60; k++) {
		term *= -u / k
		sum += term
	}
	return sum
}

describe('the time to a distance', () => {
	it.each([1e-6, 1e-4, 1e-3, 4.4e-3, 4.5e-3, 0.1, 0.9, 1.4, 2.5, 4])(
		'%f of the time constant is found again from its way, to ten digits',
		(u) => expect(solveSprintTime(wayOf(u)) / u).toBeCloseTo(1, 10),
	)
	it('far out grows by what is run at top speed', () => {
		expect(solveSprintTime(100)).toBeCloseTo(101, 10)
		expect(solveSprintTime(0)).toBe(0)
	})
	it('at 9 m/s and 1.2 s, 20 m, is the time at which 20 m are covered', () => {
		const timeS = timeAtDistance(9, 1.2, 20)
		expect(9 * (timeS - 1.2 * (1 - Math.exp(-timeS / 1.2)))).toBeCloseTo(20, 9)
	})
})

describe('where somebody is, and how fast', () => {
	it('after 3 s at 9 m/s and 1.2 s: 9 (3 − 1.2 (1 − e^(−2.5))) m', () =>
		expect(distanceAtTime(9, 1.2, 3)).toBeCloseTo(9 * (3 - 1.2 * (1 - 0.0820849986238988)), 9))
	it('right after the start is half of the acceleration times the square of the time, less a third of it each TAU', () => {
		// MSS/TAU is the acceleration at the start: 7.5 m/s².
		for (const timeS of [1e-9, 1e-6, 1e-5, 1.1e-4, 1.3e-4])
			expect(distanceAtTime(9, 1.2, timeS) / (3.75 * timeS ** 2 * (1 - timeS / 3.6))).toBeCloseTo(1, 8)
		expect(distanceAtTime(9, 1.2, 0)).toBe(0)
	})
	it('after TAU runs 1 − 1/e of top speed, after no time not at all', () => {
		expect(speedAtTime(9, 1.2, 1.2)).toBeCloseTo(9 * 0.632120558828558, 12)
		expect(speedAtTime(9, 1.2, 0)).toBe(0)
		expect(speedAtTime(9, 1.2, 60)).toBeCloseTo(9, 9)
	})
})

describe('what no sprint has is refused', () => {
	it.each([
		['no top speed', () => timeAtDistance(0, 1.2, 20), 'mssMps'],
		['no time constant', () => timeAtDistance(9, 0, 20), 'tauS'],
		['a distance behind the start', () => timeAtDistance(9, 1.2, -0.1), 'distanceM'],
		['no top speed, on the way', () => distanceAtTime(-9, 1.2, 3), 'mssMps'],
		['a time before the start', () => distanceAtTime(9, 1.2, -0.1), 'timeS'],
		['a speed before the start', () => speedAtTime(9, 1.2, -0.1), 'timeS'],
		['a speed without a time constant', () => speedAtTime(9, 0, 1), 'tauS'],
		['a time without end', () => speedAtTime(9, 1.2, Number.POSITIVE_INFINITY), 'timeS'],
	])('%s', (_, work, field) => {
		expect(work).toThrow(MeasureError)
		expect(work).toThrow(field)
	})
})
