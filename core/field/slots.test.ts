import { describe, expect, it } from 'vitest'
import { athlete, line } from '../../tests/support/on-the-line'
import { STARTER_LIBRARY } from '../library/starter-library'
import { readDigits } from '../measure/read-digits'
import { expectationOf } from './expectation'
import type { FieldLine } from './pack'
import { expectLabel, expectedAt, gatesFor, questionAbout, showRead, slotsOf, valueOf } from './slots'

// "312" is 3.12 s: the pad knows what is expected. Of the own best 5 % less to 12 % more, of a throw or jump 20 % less to
// 10 % more; without one what beginners to experts do (our setting, no source).

const near = (low: number, high: number, decimals: number) => ({
	low: expect.closeTo(low, 3) as number,
	high: expect.closeTo(high, 3) as number,
	decimals,
})

describe('what a number is expected to be', () => {
	it('is around the own best', () => {
		expect(expectationOf('sprint', 20, 3)).toEqual(near(2.85, 3.36, 2))
		expect(expectationOf('distance', undefined, 10)).toEqual(near(8, 11, 2))
	})
	it('is what people run without one, over ten metres where nothing is said', () => {
		// 0.75 s and 9.5 m/s, 1.2 s and 6 m/s.
		expect(expectationOf('sprint', 20, undefined)).toEqual(near(2.8553, 4.5333, 2))
		expect(expectationOf('sprint', undefined, undefined)).toEqual(near(1.8026, 2.8667, 2))
	})
	it('of a contact, a flight, a height and a way goes by its unit', () => {
		expect(expectationOf('contact', undefined, 90)).toEqual({ low: 80, high: 400, decimals: 0 })
		expect(expectationOf('flight', undefined, 90)).toEqual({ low: 200, high: 750, decimals: 0 })
		expect(expectationOf('height', undefined, 90)).toEqual({ low: 10, high: 70, decimals: 1 })
		expect(expectationOf('distance', undefined, undefined)).toEqual({ low: 1, high: 20, decimals: 2 })
	})
	it.each([
		['sprint', 20, 3, '312', 3.12],
		['sprint', 20, 3, '31', 3.1],
		['sprint', 60, undefined, '815', 8.15],
		['contact', undefined, undefined, '185', 185],
		['flight', undefined, undefined, '512', 512],
		['height', undefined, undefined, '345', 34.5],
		['height', undefined, undefined, '42', 42],
		['distance', undefined, undefined, '251', 2.51],
		['distance', undefined, 12, '1234', 12.34],
	] as const)('reads %s over %s m, best %s, “%s” as %s', (kind, distanceM, best, text, value) => {
		expect(readDigits(text, expectationOf(kind, distanceM, best))).toBe(value)
	})
	it('goes by the best over the whole way, by the own curve on the way, else by what people run', () => {
		const twenty = line()
		const [ten, whole] = slotsOf(twenty, [10])
		// 8 (t − (1 − e^−t)) = 10 m at 2.1313 s, and 20 m at 3.4689 s: solved by hand.
		const curve = { mssMps: 8, tauS: 1 }
		expect(expectedAt(whole!, twenty, 3, curve)).toEqual(near(2.85, 3.36, 2))
		expect(expectedAt(ten!, twenty, 3, curve)).toEqual(near(2.0248, 2.451, 2))
		expect(expectedAt(whole!, twenty, undefined, curve)).toEqual(near(3.2954, 3.9892, 2))
		expect(expectedAt(ten!, twenty, 3, null)).toEqual(near(1.8026, 2.8667, 2))
		const [contact] = slotsOf(line({ logs: 'contact' }))
		expect(expectedAt(contact!, twenty, 3, curve)).toEqual({ low: 80, high: 400, decimals: 0 })
	})
})

describe('the numbers to type', () => {
	it('of a run are its splits in order, the way itself last', () => {
		const over = (distanceM: number | undefined, gates?: number[]) =>
			slotsOf(line({ parameters: distanceM === undefined ? {} : { distanceM } }), gates).map(
				({ name, unit, kind, distanceM: at }) => [name, unit, kind, at],
			)
		expect(over(20)).toEqual([
			['10 m', 's', 'sprint', 10],
			['20 m', 's', 'sprint', 20],
		])
		// A gate at the end or behind it is none on the way.
		expect(over(30, [40, 30, 20, 5]).map(([name]) => name)).toEqual(['5 m', '20 m', '30 m'])
		expect(over(undefined, [5, 10]).map(([name]) => name)).toEqual(['5 m', '10 m'])
		expect(over(36.576, [9.144]).map(([name]) => name)).toEqual(['10 yd', '40 yd'])
	})
	it('of a contact are two, of a height and a way one, of what is ticked off none', () => {
		const of = (logs: FieldLine['logs']) =>
			slotsOf(line({ logs })).map(({ name, unit, kind }) => `${name} ${unit} ${kind}`)
		expect(of('contact')).toEqual(['contact ms contact', 'flight ms flight'])
		expect(of('height')).toEqual(['height cm height'])
		expect(of('distance')).toEqual(['distance m distance'])
		expect(of('done')).toEqual([])
	})
	it('gates stand on the tape of the line: metres of metres, yards of yards', () => {
		// A yard is 0.9144 m.
		expect(gatesFor({ parameters: { distanceM: 40 } }, [10, 20])).toEqual([10, 20])
		expect(gatesFor({ parameters: { distanceM: 36.576 } }, [10, 20])).toEqual([9.144, 18.288])
		expect(gatesFor({ parameters: {} }, [5])).toEqual([5])
	})
	it('are read out as they are typed, and what is expected beside them', () => {
		const [ten] = slotsOf(line(), [10])
		const [height] = slotsOf(line({ logs: 'height' }))
		const [way] = slotsOf(line({ logs: 'distance' }))
		expect([showRead(1.8, ten!), showRead(34.5, height!), showRead(2.4, way!)]).toEqual(['1.80', '34.5', '2.40'])
		expect(expectLabel({ low: 2.86, high: 3.36 }, 's')).toBe('2.9–3.4 s')
		expect(expectLabel({ low: 8.04, high: 10.96 }, 'm')).toBe('8.0–11.0 m')
		expect(expectLabel({ low: 80.4, high: 399.6 }, 'ms')).toBe('80–400 ms')
	})
})

describe('what is asked before a number is kept', () => {
	const start = STARTER_LIBRARY.drills['three-point-start']!
	const ask = (
		reads: (number | null)[],
		own: Partial<FieldLine> = {},
		best?: number,
		drill: Parameters<typeof questionAbout>[1] = start,
	) => questionAbout(line(own), drill, athlete.level, 'gate', slotsOf(line(own), [10]), reads, best)
	const usual = { usuals: { gate: 3 } }

	it('is what was meant, of a number that can hardly be: 2.02 for 3.02', () => {
		expect(ask([1.85, 2.02], usual)).toEqual({
			words: '2.02 s can hardly be: the usual is 3.00 s.',
			aside: true,
			likely: { label: '3.02 s', reads: [1.85, 3.02] },
		})
	})
	it('is nothing from 85 % to 130 % of the usual', () => {
		// Of 3 s: 2.55 s and 3.9 s.
		expect([ask([1.5, 2.55], usual), ask([1.9, 3.9], usual)]).toEqual([null, null])
		expect(ask([1.5, 2.54], usual)?.aside).toBe(true)
		expect(ask([1.9, 3.91], usual)?.aside).toBe(true)
	})
	it('is of another method’s usual nothing: what the level can do says it', () => {
		expect(ask([1.85, 2.02], { usuals: { stopwatch: 3 } })?.words).toBe('2.02 s can hardly be.')
		expect(ask([1.85, 2.9], { usuals: { stopwatch: 3.6 } })).toBeNull()
	})
	it('is a surprise that can be, kept when it is saved again', () => {
		expect(ask([1.6, 2.7], usual, 3)).toEqual({
			words: '2.7 s for 20 m would be the best by 0.3 s.',
			aside: false,
			likely: null,
		})
	})
	it('is the point left out of a jump, 182 for 1.82, and a contact of 15 ms', () => {
		const jump = STARTER_LIBRARY.drills['broad-jump']!
		expect(ask([182], { logs: 'distance', parameters: {} }, undefined, jump)).toMatchObject({
			words: '182.00 m can hardly be.',
			aside: true,
			likely: { label: '1.82 m', reads: [1.82] },
		})
		const drop = STARTER_LIBRARY.drills['drop-jump']!
		expect(ask([15, 450], { logs: 'contact', parameters: {} }, undefined, drop)).toMatchObject({
			words: '15 ms can hardly be.',
			likely: { label: '150 ms', reads: [150, 450] },
		})
		expect(ask([150, 450], { logs: 'contact', parameters: {} }, undefined, drop)).toBeNull()
		const high = ask([345], { logs: 'height', parameters: {} }, undefined, drop)
		expect(high).toMatchObject({ words: '345 cm can hardly be.', likely: { label: '34.5 cm', reads: [34.5] } })
	})
	it('is nothing of what is not typed, or of what nobody knows, but that it surprises', () => {
		expect(ask([null, null], usual)).toBeNull()
		expect(
			questionAbout(line(usual), undefined, athlete.level, 'gate', slotsOf(line()), [1.85, 2.02], undefined),
		).toBeNull()
		expect(questionAbout(line(usual), undefined, athlete.level, 'gate', slotsOf(line()), [1.85, 2.02], 3)?.words).toBe(
			'2.02 s for 20 m would be the best by 0.98 s.',
		)
	})
})

describe('what is kept of the numbers', () => {
	const methods = { sprint: 'gate', contact: 'mat', height: 'reach', distance: 'tape' }
	const kept = (logs: FieldLine['logs'], reads: (number | null)[], wind?: number) =>
		valueOf({ logs }, slotsOf(line({ logs }), [10]), reads, methods, wind)
	it('is in seconds and metres, each by its method', () => {
		expect(kept('contact', [146, 512])).toEqual({
			kind: 'contact',
			value: { contactS: 0.146, flightS: 0.512, method: 'mat' },
		})
		expect(kept('contact', [146, null]).value).toMatchObject({ flightS: 0 })
		expect(kept('height', [34.5])).toEqual({ kind: 'height', value: { heightM: 0.345, method: 'reach' } })
		expect(kept('distance', [2.41])).toEqual({ kind: 'distance', value: { distanceM: 2.41, method: 'tape' } })
	})
	it('of a run are the splits that were typed, with the wind where it was read', () => {
		expect(kept('sprint', [null, 3.12])).toEqual({
			kind: 'sprint',
			value: { splits: [{ distanceM: 20, timeS: 3.12 }], method: 'gate' },
		})
		expect(kept('sprint', [1.84, 3.12], 0)).toEqual({
			kind: 'sprint',
			value: {
				splits: [
					{ distanceM: 10, timeS: 1.84 },
					{ distanceM: 20, timeS: 3.12 },
				],
				method: 'gate',
				windMps: 0,
			},
		})
	})
})
