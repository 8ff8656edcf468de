import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Drill } from '../vocabulary/drill'
import type { Parameters } from '../vocabulary/dose'
import { countLine } from './count-line'
import { countRep, cutClassOf } from './count-rep'
import { addCounts, allContacts, cutsOf, emptyCount, loadOfLeg, metresOf, totalOf } from './dose-count'

const drill = (id: string): Drill => STARTER_LIBRARY.drills[id]!
const anyDrill = fc.constantFrom(...Object.values(STARTER_LIBRARY.drills))
const anyDose = fc.record({ sets: fc.integer({ min: 1, max: 6 }), reps: fc.integer({ min: 1, max: 12 }) })
const anyParameters: fc.Arbitrary<Parameters> = fc.record({
	distanceM: fc.integer({ min: 1, max: 60 }),
	heightCm: fc.constantFrom(15, 30, 45, 60),
	angleDeg: fc.integer({ min: 0, max: 180 }),
	ballKg: fc.integer({ min: 1, max: 5 }),
})

// The convention of the trade as docs/method.md states it (common practice, no source).
describe('counting by the convention', () => {
	it('counts depth jumps 5×2 as 10 jumps and 20 contacts, 3×3 as 18', () => {
		const contacts = (sets: number, reps: number) =>
			allContacts(countLine(drill('depth-jump'), { heightCm: 30 }, { sets, reps }))
		expect(contacts(5, 2)).toEqual({ left: 0, right: 0, both: 20 })
		expect(totalOf(contacts(3, 3))).toBe(18)
	})

	it.each([
		['drop-landing', { heightCm: 30 }, 1],
		['pause-jump', { heightCm: 30 }, 2],
		['pogo', {}, 1],
		['broad-jump', {}, 1],
	])('counts one rep of %s', (id, parameters, both) => {
		expect(allContacts(countRep(drill(id), parameters, { repIndex: 0 }))).toEqual({ left: 0, right: 0, both })
	})

	it('counts a skip as two quick touches on the same foot', () => {
		// 20 m at 1.2 × 0.9 m a skip: 19 skips, 10 on the starting foot and 9 on the other, two touches each.
		expect(allContacts(countRep(drill('relaxed-skip'), { distanceM: 20 }, { repIndex: 0, legLengthM: 0.9 }))).toEqual({
			left: 20,
			right: 18,
			both: 0,
		})
	})

	it('gives the odd bound to the starting leg', () => {
		// 20 m at 2.1 × 0.9 m a bound: ceil(10.58) = 11.
		const from = (startingLeg: 'left' | 'right') =>
			allContacts(countRep(drill('alternate-bounds'), { distanceM: 20 }, { repIndex: 0, legLengthM: 0.9, startingLeg }))
		expect(from('left')).toEqual({ left: 6, right: 5, both: 0 })
		expect(from('right')).toEqual({ left: 5, right: 6, both: 0 })
	})

	it('does not add a step when the distance is a whole number of them', () => {
		const tenSteps = {
			...drill('alternate-bounds'),
			counting: { contacts: { by: 'metres', feet: 'alternating', stepLengthLegLengths: 2, perStep: 1 } },
		} as Drill
		expect(totalOf(allContacts(countRep(tenSteps, { distanceM: 20 }, { repIndex: 0, legLengthM: 1 })))).toBe(10)
	})

	it('takes a dose a leg as a rep on each leg, and one side when one was logged', () => {
		expect(allContacts(countLine(drill('single-leg-pogo'), {}, { sets: 3, reps: 6 }))).toEqual({
			left: 18,
			right: 18,
			both: 0,
		})
		expect(allContacts(countRep(drill('single-leg-pogo'), {}, { repIndex: 0, side: 'right' }))).toEqual({
			left: 0,
			right: 1,
			both: 0,
		})
	})

	it('shows sprint steps apart from contacts', () => {
		const sprint = countRep(drill('three-point-start'), { distanceM: 20 }, { repIndex: 0, legLengthM: 0.9 })
		expect(totalOf(allContacts(sprint))).toBe(0)
		expect(sprint.steps).toBe(15)
		expect(sprint.metres.maximal).toBe(20)
		expect(sprint.maximalStarts).toBe(1)
	})

	it('puts a run in the zone it was run in, and the run-in into easy metres', () => {
		const fly = countRep(drill('fly-10'), { distanceM: 10, runInM: 20 }, { repIndex: 0, zone: 'sub-maximal' })
		expect(fly.metres).toMatchObject({ 'sub-maximal': 10, easy: 20, maximal: 0 })
		expect(fly.maximalStarts).toBe(0)
	})

	it('alternates the planting leg of cuts and sorts them by angle', () => {
		const cuts = countLine(drill('cut-90'), { distanceM: 10, angleDeg: 90 }, { sets: 3, reps: 3 })
		expect(cuts.cuts['90-135']).toEqual({ left: 5, right: 4, both: 0 })
		expect(cutsOf(cuts, ['60-90', '90-135', '135-180'])).toBe(9)
	})

	it.each([
		[0, 'under-30'],
		[29.9, 'under-30'],
		[30, '30-60'],
		[60, '60-90'],
		[89.9, '60-90'],
		[90, '90-135'],
		[135, '135-180'],
		[180, '135-180'],
	])('puts a cut of %d° into %s', (angle, name) => {
		expect(cutClassOf(angle)).toBe(name)
	})

	it('counts throws by side with the kilograms of both', () => {
		const each = countRep(drill('rotational-throw'), { ballKg: 3 }, { repIndex: 0 })
		expect(each.throws).toEqual({ left: 1, right: 1, both: 0 })
		expect(each.throwKg).toBe(6)
	})

	it('counts a landing from above 45 cm as high', () => {
		expect(countRep(drill('drop-landing'), { heightCm: 45 }, { repIndex: 0 }).contacts.moderate.both).toBe(1)
		expect(countRep(drill('drop-landing'), { heightCm: 60 }, { repIndex: 0 }).contacts.high.both).toBe(1)
	})

	it.each([
		[{ distanceM: -1 }, 'distanceM'],
		[{ heightCm: Number.NaN }, 'heightCm'],
		[{ ballKg: Number.POSITIVE_INFINITY }, 'ballKg'],
	])('refuses %j and names it', (parameters, name) => {
		expect(() => countRep(drill('pogo'), parameters, { repIndex: 0 })).toThrow(new RegExp(`^${name}: `))
	})
	it('refuses an angle past about turn', () => {
		expect(() => cutClassOf(181)).toThrow('angleDeg: 181')
	})
})

describe('laws of counting', () => {
	it('counts a line as the sum of its reps, whatever the drill', () => {
		fc.assert(
			fc.property(anyDrill, anyParameters, anyDose, (one, parameters, dose) => {
				let byHand = emptyCount()
				for (let repIndex = dose.sets * dose.reps - 1; repIndex >= 0; repIndex--)
					byHand = addCounts(countRep(one, parameters, { repIndex }), byHand)
				expect(countLine(one, parameters, dose)).toEqual(byHand)
			}),
		)
	})

	it('never counts less for one more rep, and splits every total into left, right and both', () => {
		fc.assert(
			fc.property(anyDrill, anyParameters, anyDose, (one, parameters, dose) => {
				const less = countLine(one, parameters, dose)
				const more = countLine(one, parameters, { ...dose, reps: dose.reps + 1 })
				expect(totalOf(allContacts(more))).toBeGreaterThanOrEqual(totalOf(allContacts(less)))
				expect(metresOf(more)).toBeGreaterThanOrEqual(metresOf(less))
				const contacts = allContacts(less)
				expect(loadOfLeg(contacts, 'left') + loadOfLeg(contacts, 'right')).toBe(totalOf(contacts) + contacts.both)
			}),
		)
	})

	it('mirrors when the starting leg changes', () => {
		fc.assert(
			fc.property(anyDrill, anyParameters, anyDose, (one, parameters, dose) => {
				const left = allContacts(countLine(one, parameters, dose, { startingLeg: 'left' }))
				const right = allContacts(countLine(one, parameters, dose, { startingLeg: 'right' }))
				expect([right.right, right.left, right.both]).toEqual([left.left, left.right, left.both])
			}),
		)
	})
})
