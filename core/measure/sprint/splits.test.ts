import { describe, expect, it } from 'vitest'
import { refusedField } from '../../../tests/support/refused-field'
import { assistedTarget } from './assisted-target'
import { effortPercent } from './effort-zone'
import { electronicFromHand } from './hand-timing'
import { resistedLoad, velocityDecrement } from './resisted-load'
import { type SprintSplit, checkSplits } from './splits'

const split = (distanceM: number, timeS: number): SprintSplit => ({ distanceM, timeS })
const refused = (...splits: SprintSplit[]) => refusedField(() => checkSplits(splits, 1))

describe('a list of splits', () => {
	it('is a list of as many as are wanted, and of a hundred at most', () => {
		expect(refusedField(() => checkSplits('10 m' as unknown as SprintSplit[], 1))).toBe('splits')
		const rising = (count: number) => Array.from({ length: count }, (_, at) => split(at + 1, (at + 1) / 5))
		expect(refusedField(() => checkSplits(rising(2), 3))).toBe('splits')
		expect(refusedField(() => checkSplits(rising(3), 3))).toBeNull()
		expect(refusedField(() => checkSplits(rising(100), 3))).toBeNull()
		expect(refusedField(() => checkSplits(rising(101), 3))).toBe('splits')
	})

	it('has distances above 0 to 400 m and times above 0 to 120 s, both rising', () => {
		for (const distanceM of [0, -5, 400.1, Number.NaN, Number.POSITIVE_INFINITY])
			expect(refused(split(distanceM, 60)), `${distanceM} m`).toBe('splits[0].distanceM')
		expect(refused(split(400, 60))).toBeNull()
		for (const timeS of [0, -1, 120.1, Number.NaN])
			expect(refused(split(10, timeS)), `${timeS} s`).toBe('splits[0].timeS')
		expect(refused(split(400, 120))).toBeNull()
		expect(refused(split(10, 2), split(10, 3))).toBe('splits[1].distanceM')
		expect(refused(split(10, 2), split(20, 2))).toBe('splits[1].timeS')
		expect(refused(split(10, 2), split(20, 1.9))).toBe('splits[1].timeS')
	})

	it('has no segment over 20 m/s', () => {
		expect(refused(split(20, 1))).toBeNull()
		expect(refused(split(20, 0.99))).toBe('splits[0].timeS')
	})

	it('goes on: a tenth of a second aside, no segment is below six tenths of the fastest before it', () => {
		// 10 m/s, then 12 m: 6 m/s is two seconds, with the tenth 2.1.
		expect(refused(split(10, 1), split(22, 3.05))).toBeNull()
		expect(refused(split(10, 1), split(22, 3.09))).toBeNull()
		expect(refused(split(10, 1), split(22, 3.11))).toBe('splits[1].timeS')
		// Half a metre in a twentieth of a second says nothing of slowing.
		expect(refused(split(10, 1), split(10.5, 1.05))).toBeNull()
		// The fastest of all before, not the last one: 10, 7 and then 5 m/s.
		expect(refused(split(10, 1), split(24, 3), split(34, 5))).toBe('splits[2].timeS')
	})
})

describe('what is worked out of speeds', () => {
	it('is refused outside of what its page says', () => {
		const assisted = (mssMps: number, overspeed: number, segmentM: number, cap = 0.5) =>
			refusedField(() => assistedTarget(mssMps, overspeed, segmentM, cap))
		expect([assisted(1.99, 0.03, 20), assisted(2, 0.03, 20)]).toEqual(['mssMps', null])
		expect([assisted(13, 0.03, 20), assisted(13.01, 0.03, 20)]).toEqual([null, 'mssMps'])
		expect([assisted(9, 0.03, 0), assisted(9, 0.03, 100), assisted(9, 0.03, 100.1)]).toEqual([
			'segmentM',
			null,
			'segmentM',
		])
		expect([assisted(9, 0, 20), assisted(9, 0.3, 20), assisted(9, 0.31, 20)]).toEqual(['overspeed', null, 'overspeed'])
		expect([assisted(9, 0.05, 20, 0.05), assisted(9, 0.051, 20, 0.05)]).toEqual([null, 'overspeed'])
		expect(refusedField(() => effortPercent(3, 0))).toBe('bestS')
		expect(refusedField(() => effortPercent(0, 3))).toBe('timeS')
		expect(refusedField(() => velocityDecrement(13.1, 13))).toBe('loadedMps')
		expect(refusedField(() => velocityDecrement(6, 13.1))).toBe('freeMps')
		expect(refusedField(() => velocityDecrement(6, 0))).toBe('freeMps')
	})

	it('adds 0.24 s to a hand time over 100 and 200 m, and to no other', () => {
		expect(electronicFromHand(11.1, 100)).toBeCloseTo(11.34, 9)
		expect(electronicFromHand(22.5, 200)).toBeCloseTo(22.74, 9)
		for (const distanceM of [60, 150, 400])
			expect(refusedField(() => electronicFromHand(22.5, distanceM))).toBe('distanceM')
		expect(refusedField(() => electronicFromHand(0, 100))).toBe('timeS')
		expect(refusedField(() => electronicFromHand(120.1, 200))).toBe('timeS')
	})

	it('says of a load whether it lies outside of those that were tried', () => {
		// 9 m/s free, 0.075 m/s a kilogram: 20 kg are a sixth of it, 60 kg a half.
		const runs = [20, 40, 60].map((loadKg) => ({ loadKg, velocityMps: 9 - 0.075 * loadKg }))
		const asked = (share: number) => {
			const { loadKg, extrapolated } = resistedLoad(runs, share)
			return [Number(loadKg.toFixed(6)), extrapolated]
		}
		expect(asked(1 / 6)).toEqual([20, false])
		expect(asked(1 / 2)).toEqual([60, false])
		expect(asked(0.16)).toEqual([19.2, true])
		expect(asked(0.51)).toEqual([61.2, true])
	})
})
