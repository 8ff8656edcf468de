import { expect, it } from 'vitest'
import { type Beside, proposeType } from './athlete-type'

const of = (kind: Beside['kind'], better: number, others: number): Beside => ({
	kind,
	own: 2,
	others: Array.from({ length: others }, (_, index) => (index < better ? 1.9 : 2.1)),
})
const asked = (sprint: [number, number] | null, contact: [number, number] | null, more: object = {}) =>
	proposeType({
		measures: [...(sprint ? [of('sprint', ...sprint)] : []), ...(contact ? [of('contact', ...contact)] : [])],
		closures: 2,
		heaviestKg: null,
		massKg: 80,
		...more,
	})?.type ?? null

it('fast, short on the ground and often closed is stiff', () => {
	expect(asked([2, 6], [2, 6])).toBe('stiff')
	expect(asked([3, 6], [2, 6])).toBeNull()
	expect(asked([2, 6], [3, 6])).toBeNull()
	expect(asked([2, 6], [2, 6], { closures: 1 })).toBeNull()
	expect(asked([2, 6], null)).toBeNull()
})
it('strong for the own mass and among the slow is slow', () => {
	const strong = { heaviestKg: 120, closures: 0 }
	expect(asked([4, 6], null, strong)).toBe('slow')
	expect(asked([3, 6], null, strong)).toBeNull()
	expect(asked([4, 6], null, { ...strong, heaviestKg: 119 })).toBeNull()
	expect(asked([4, 6], null, { ...strong, massKg: null })).toBeNull()
	expect(asked([4, 6], null, { ...strong, heaviestKg: null })).toBeNull()
})
it('a third of fewer than four says nothing', () => {
	expect(asked([0, 4], [0, 4])).toBe('stiff')
	expect(asked([0, 3], [0, 4])).toBeNull()
	expect(asked([3, 3], null, { heaviestKg: 200 })).toBeNull()
})
it('goes by the measure most of the squad has, and says why', () => {
	const measures = [of('sprint', 0, 4), of('sprint', 6, 6)]
	expect(proposeType({ measures, closures: 0, heaviestKg: 130, massKg: 80 })).toEqual({
		type: 'slow',
		why: 'among the slowest third of the squad; lifts 130 kg at 80 kg',
	})
	expect(
		proposeType({ measures: [of('sprint', 0, 6), of('contact', 0, 6)], closures: 3, heaviestKg: null, massKg: null })!
			.why,
	).toBe('among the fastest third of the squad and its shortest contacts; closed 3 times in a year')
})
