import { describe, expect, it } from 'vitest'
import { QUALITY_FIRST } from '../library/schools'
import type { School } from '../vocabulary/school'
import type { ReadyReference } from '../noise/ready-reference'
import { readReady } from './ready-check'

// P5: acts only when the first two reps both lie beyond 1 robust SD on the same side. Slow: trim a third, hold
// top speed. Fast: planned reps; at a new best one rehearsal, one full rep, then the part closes. Our setting.

const usual = { median: 1.9, sd: 0.03 } as ReadyReference
const stopping: School = {
	...QUALITY_FIRST,
	fastDayOffer: true,
	choices: { ...QUALITY_FIRST.choices, goodDay: 'stop' },
}
const finishing: School = { ...stopping, choices: { ...stopping.choices, goodDay: 'finish' } }
const read = (reps: number[], best: number | null = 1.8, school = stopping) => readReady(reps, usual, best, school)

describe('two reps against the usual 1.90 ± 0.03 s', () => {
	it.each([
		[[1.94, 1.94], 'slow'],
		[[1.931, 1.931], 'slow'],
		[[1.929, 1.94], 'as usual'],
		[[1.94, 1.929], 'as usual'],
		[[1.87, 1.95], 'as usual'],
		[[1.95, 1.86], 'as usual'],
		[[1.9, 1.9], 'as usual'],
		[[1.86, 1.86], 'fast'],
		[[1.869, 1.869], 'fast'],
		[[1.871, 1.86], 'as usual'],
		[[1.86, 1.871], 'as usual'],
		[[1.95], 'as usual'],
		[[], 'as usual'],
	] as [number[], string][])('%j: %s', (reps, state) => {
		expect(read(reps).state).toBe(state)
	})
	it('only the first two count', () => {
		expect(read([1.95, 1.95, 1.7, 1.7]).state).toBe('slow')
	})
})

it('slow: two thirds of the reps stay, top speed holds, nothing is offered', () => {
	expect(read([1.95, 1.96])).toMatchObject({ share: 2 / 3, holdTopSpeed: true, offer: false })
	expect(read([1.95, 1.96]).sentence).toBe(
		'Slow today, twice: 1.95 s and 1.96 s, usual 1.90 s ± 0.03. A third less, top speed holds.',
	)
})
describe('fast: the planned reps', () => {
	it.each([
		['no best known', null, stopping, false],
		['not better than the best', 1.84, stopping, false],
		['as good as the best', 1.85, stopping, false],
		['better than the best', 1.86, stopping, true],
		['better than the best, in a school that finishes the plan', 1.86, finishing, false],
		['better than the best, in a school without the offer', 1.86, { ...stopping, fastDayOffer: false }, false],
	] as [string, number | null, School, boolean][])('%s', (_, best, school, offer) => {
		expect(read([1.86, 1.85], best, school)).toMatchObject({ state: 'fast', share: 1, holdTopSpeed: false, offer })
	})
	it('says what is offered, or that the plan stands', () => {
		expect(read([1.86, 1.85], 1.86).sentence).toContain('one rehearsal at 90–95 %, one full rep, then close this part')
		expect(read([1.86, 1.85], 1.8).sentence).toContain('Planned reps.')
	})
})
it('without a usual it says so and changes nothing', () => {
	expect(readReady([1.5, 1.5], null, 1.8, stopping)).toMatchObject({ state: 'no usual yet', share: 1, offer: false })
})
it('a time that cannot be is refused by its place', () => {
	expect(() => read([1.9, 0])).toThrow('reps[1]')
})
