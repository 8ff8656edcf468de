import { describe, expect, it } from 'vitest'
import { line, rep } from '../../tests/support/on-the-line'
import type { Mark } from '../vocabulary/events'
import { retyped, slotsOfMark, typedOf } from './typed-mark'

// A start by gates with a split at 10 m, wind and all; what is typed anew changes the numbers and nothing else.
const start = rep(1, 1.84, 3.12, {
	value: {
		splits: [
			{ distanceM: 10, timeS: 1.84 },
			{ distanceM: 20, timeS: 3.12 },
		],
		method: 'gate',
		windMps: -1.2,
	},
} as Partial<Mark>)
const of = (kind: string, value: object) => ({ ...rep(1, 1, 2), kind, value }) as unknown as Mark
const typed = (logs: 'contact' | 'height' | 'distance', mark: Mark) =>
	slotsOfMark(line({ logs }), mark).map((slot) => typedOf(mark, slot))

describe('a mark that is typed anew', () => {
	it('has the numbers it was made of, in the units they are typed in', () => {
		const slots = slotsOfMark(line(), start)
		expect(slots.map((slot) => [slot.name, typedOf(start, slot)])).toEqual([
			['10 m', '1.84'],
			['20 m', '3.12'],
		])
		expect(typed('contact', of('contact', { contactS: 0.146, flightS: 0.512, method: 'mat' }))).toEqual(['146', '512'])
		expect(typed('height', of('height', { heightM: 0.345, method: 'mat' }))).toEqual(['34.5'])
		expect(typed('distance', of('distance', { distanceM: 2.4, method: 'tape' }))).toEqual(['2.40'])
		// Ticked off, or of another kind than the line's: nothing is typed.
		expect(slotsOfMark(line(), of('done', { reps: 1 }))).toEqual([])
	})
	it('keeps the splits it has, its method and its wind', () => {
		expect(retyped(line(), start, ['185', '3,21'])).toEqual({
			kind: 'sprint',
			value: {
				splits: [
					{ distanceM: 10, timeS: 1.85 },
					{ distanceM: 20, timeS: 3.21 },
				],
				method: 'gate',
				windMps: -1.2,
			},
		})
		const still = { ...start, value: { ...start.value, windMps: undefined } } as unknown as Mark
		expect(retyped(line(), still, ['185', '321'])!.value).not.toHaveProperty('windMps')
		expect(retyped(line({ logs: 'distance' }), of('distance', { distanceM: 2.4, method: 'reach' }), ['251'])).toEqual({
			kind: 'distance',
			value: { distanceM: 2.51, method: 'reach' },
		})
	})
	it('is not where a number is missing or none, or the mark has none', () => {
		for (const texts of [[], ['185'], ['', '321'], ['185', 'fast']]) expect(retyped(line(), start, texts)).toBeNull()
		expect(retyped(line(), of('done', { reps: 1 }), ['1'])).toBeNull()
	})
})
