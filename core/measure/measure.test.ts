import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { heightFromFlightTime } from './jump/jump-height'
import { reactiveStrengthIndex } from './jump/reactive-strength-index'
import { readDigits } from './read-digits'
import { timeAtDistance } from './sprint/sprint-curve'

describe('jump height from flight time', () => {
	it('agrees with free fall', () => {
		// Closed form: half the flight is a fall from the height, h = g (t/2)² / 2; 0.5 s gives 0.30646 m.
		expect(heightFromFlightTime(0.5)).toBeCloseTo(0.5 * 9.80665 * 0.25 ** 2, 12)
		expect(heightFromFlightTime(0.5)).toBeCloseTo(0.30646, 5)
	})
	it.each([0, -0.1, 1.5, Number.NaN])('refuses %d s', (flight) => {
		expect(() => heightFromFlightTime(flight)).toThrow('flightTimeS: ')
	})
	it('divides by contact for the reactive strength index', () => {
		expect(reactiveStrengthIndex(0.2, 0.5)).toBeCloseTo(1.5323, 4)
		expect(() => reactiveStrengthIndex(0, 0.5)).toThrow('contactTimeS: ')
	})
})

describe('time at a distance', () => {
	it('inverts the distance of the mono-exponential sprint', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 3, max: 13, noNaN: true }),
				fc.double({ min: 0.5, max: 2, noNaN: true }),
				fc.double({ min: 1e-6, max: 400, noNaN: true }),
				(mss, tau, distance) => {
					const t = timeAtDistance(mss, tau, distance)
					// d(t) by numerical integration of v(t) = MSS (1 − e^(−t/TAU)), Simpson's rule: another way to the same distance.
					const n = 400
					const h = t / n
					let sum = 0
					for (let i = 0; i <= n; i++)
						sum += (i === 0 || i === n ? 1 : i % 2 ? 4 : 2) * -mss * Math.expm1((-i * h) / tau)
					expect((sum * h) / 3 / distance).toBeCloseTo(1, 5)
				},
			),
		)
	})
	it('starts at 0 and refuses what cannot be run', () => {
		expect(timeAtDistance(9, 1.2, 0)).toBe(0)
		expect(() => timeAtDistance(0, 1.2, 10)).toThrow('mssMps: 0')
		expect(() => timeAtDistance(9, Number.NaN, 10)).toThrow('tauS: NaN')
		expect(() => timeAtDistance(9, 1.2, -1)).toThrow('distanceM: -1')
	})
})

describe('digits of the number pad', () => {
	const sprint = { low: 2.9, high: 3.4, decimals: 2 }
	it.each([
		['312', 3.12],
		['31', 3.1],
		['3.12', 3.12],
		['3,12', 3.12],
		['3', 3],
		['3125', 3.125],
		['.5', 0.5],
		['12.', 12],
	])('reads %s as %d s where three seconds are expected', (text, value) => {
		expect(readDigits(text, sprint)).toBe(value)
	})
	it('reads the same digits by what is expected', () => {
		expect(readDigits('185', { low: 1.7, high: 2.1, decimals: 2 })).toBe(1.85)
		expect(readDigits('146', { low: 80, high: 400, decimals: 0 })).toBe(146)
		expect(readDigits('1180', { low: 8, high: 14, decimals: 2 })).toBe(11.8)
		expect(readDigits('345', { low: 10, high: 70, decimals: 1 })).toBe(34.5)
	})
	it('falls back on the usual decimals when nothing plausible can be read', () => {
		expect(readDigits('999', sprint)).toBe(9.99)
	})
	it.each(['', 'abc', '3.1.2', '0', '-3', '1e9'])('reads nothing from %j', (text) => {
		expect(readDigits(text, sprint)).toBeNull()
	})
	it('never changes the digits themselves', () => {
		fc.assert(
			fc.property(fc.integer({ min: 1, max: 99_999 }), (digits) => {
				const value = readDigits(String(digits), sprint)!
				expect([0, 1, 2, 3].some((places) => Math.abs(value * 10 ** places - digits) < 1e-6)).toBe(true)
			}),
		)
	})
})
