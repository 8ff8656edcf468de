import { describe, expect, it } from 'vitest'
import { line, rep } from '../../tests/support/on-the-line'
import type { Mark } from '../vocabulary/events'
import type { Units } from '../words/units'
import { asksFor, readTyped, retyped, slotsOfMark, typedOf } from './typed-mark'

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
const typed = (logs: 'contact' | 'height' | 'distance', mark: Mark, units: Units = 'metric') =>
	slotsOfMark(line({ logs }), mark).map((slot) => typedOf(mark, slot, units))

describe('a mark that is typed anew', () => {
	it('has the numbers it was made of, in the units they are typed in', () => {
		const slots = slotsOfMark(line(), start)
		expect(slots.map((slot) => [slot.name, typedOf(start, slot, 'metric')])).toEqual([
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
		expect(retyped(line(), start, ['185', '3,21'], 'metric')).toEqual({
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
		expect(retyped(line(), still, ['185', '321'], 'metric')!.value).not.toHaveProperty('windMps')
		expect(
			retyped(line({ logs: 'distance' }), of('distance', { distanceM: 2.4, method: 'reach' }), ['251'], 'metric'),
		).toEqual({
			kind: 'distance',
			value: { distanceM: 2.51, method: 'reach' },
		})
	})
	it('is not where a number is missing or none, or the mark has none', () => {
		for (const texts of [[], ['185'], ['', '321'], ['185', 'fast']])
			expect(retyped(line(), start, texts, 'metric')).toBeNull()
		expect(retyped(line(), of('done', { reps: 1 }), ['1'], 'metric')).toBeNull()
	})
})

describe('typed in feet, inches and pounds', () => {
	const throwIt = of('distance', { distanceM: 2.489, method: 'tape' })
	const jump = of('height', { heightM: 0.381, method: 'mat' })
	it('shows what it was made of', () => {
		expect(typed('distance', throwIt, 'imperial')).toEqual(['8 ft 2 in'])
		expect(typed('height', jump, 'imperial')).toEqual(['15'])
		const [contact, flight] = typed(
			'contact',
			of('contact', { contactS: 0.146, flightS: 0.512, method: 'mat' }),
			'imperial',
		)
		expect([contact, flight]).toEqual(['146', '512'])
	})
	it('asks for it in words', () => {
		const asked = (logs: 'height' | 'distance' | 'contact', mark: Mark, units: Units) =>
			slotsOfMark(line({ logs }), mark).map((slot) => asksFor(slot, units))
		expect(asked('height', jump, 'imperial')).toEqual(['height, in'])
		expect(asked('distance', throwIt, 'imperial')).toEqual(['distance, ft and in'])
		expect(asked('distance', throwIt, 'metric')).toEqual(['distance, m'])
	})
	it('keeps metres', () => {
		const retype = (mark: Mark, logs: 'height' | 'distance', text: string) =>
			(retyped(line({ logs }), mark, [text], 'imperial') as { value: object } | null)?.value ?? null
		expect(retype(throwIt, 'distance', `8' 3"`)).toEqual({ distanceM: 2.515, method: 'tape' })
		expect(retype(throwIt, 'distance', '2.51 m')).toEqual({ distanceM: 2.51, method: 'tape' })
		expect(retype(jump, 'height', '16')).toEqual({ heightM: 0.406, method: 'mat' })
		expect(retype(jump, 'height', 'high')).toBeNull()
	})
	it('metric digits go by what is expected, and a unit is heard there too', () => {
		const [height] = slotsOfMark(line({ logs: 'height' }), jump)
		expect(readTyped('345', height!, line({ logs: 'height' }), 'metric')).toBe(34.5)
		expect(readTyped('15 in', height!, line({ logs: 'height' }), 'metric')).toBe(38.1)
	})
})

describe('splits of forty yards', () => {
	const at = (yards: number, timeS: number) => ({ distanceM: Number((yards * 0.9144).toFixed(3)), timeS })
	const forty = { ...start, value: { splits: [at(10, 1.75), at(40, 5.1)], method: 'gate' } } as unknown as Mark
	it('are named and typed as they were laid out', () => {
		const yards = line({ parameters: { distanceM: 36.576 } })
		expect(slotsOfMark(yards, forty).map((slot) => [slot.name, typedOf(forty, slot, 'metric')])).toEqual([
			['10 yd', '1.75'],
			['40 yd', '5.10'],
		])
	})
})
