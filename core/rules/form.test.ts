import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Parameters } from '../vocabulary/dose'
import type { Ladder, Rung } from '../vocabulary/ladder'
import { formOf } from './form'

// A drill carries the gates of its rung wherever it is asked for: between two rungs the harder one's, harder than all of
// them the hardest's. A tighter curve is harder, its length follows from it; a ball is the athlete's, not the rung's.

const DRILL = STARTER_LIBRARY.drills['standing-start']!
const pattern = STARTER_LIBRARY.ladders.acceleration!
/** A ladder of one drill's rungs with these parameters, lowest first. */
const ladderOf = (...rungs: Parameters[]): Ladder => ({
	...pattern,
	rungs: rungs.map(
		(parameters, index): Rung => ({
			...pattern.rungs[0]!,
			id: `rung-${index}`,
			drillId: DRILL.id,
			variations: [],
			parameters,
		}),
	),
})
const placed = (ladder: Ladder, asked: Parameters) => {
	const drill = { ...DRILL, defaults: { ...DRILL.defaults, parameters: {} } }
	const [place] = formOf(drill, asked, { ladders: { one: ladder } }).places
	return place ? `${place.rung.id}${place.beyond ? ', beyond' : ''}` : null
}

describe('where a form of a drill stands', () => {
	const metres = ladderOf({ distanceM: 10 }, { distanceM: 20 }, { distanceM: 30 })
	it.each([
		[5, 'rung-0'],
		[10, 'rung-0'],
		[10.1, 'rung-1'],
		[20, 'rung-1'],
		[30, 'rung-2'],
		[30.1, 'rung-2, beyond'],
	])('%s m of rungs of 10, 20 and 30 m', (distanceM, where) => {
		expect(placed(metres, { distanceM })).toBe(where)
	})
	it('the tighter curve is the harder one, however long the run', () => {
		const curves = ladderOf({ radiusM: 12, distanceM: 19 }, { radiusM: 9, distanceM: 14 })
		expect(placed(curves, { radiusM: 12, distanceM: 100 })).toBe('rung-0')
		expect(placed(curves, { radiusM: 11.9, distanceM: 5 })).toBe('rung-1')
		expect(placed(curves, { radiusM: 8.9, distanceM: 5 })).toBe('rung-1, beyond')
	})
	it('what else a curve asks still counts', () => {
		const curve = ladderOf({ radiusM: 9, distanceM: 40, effortPercent: 90 })
		expect(placed(curve, { radiusM: 9, distanceM: 80, effortPercent: 90 })).toBe('rung-0')
		expect(placed(curve, { radiusM: 9, distanceM: 40, effortPercent: 91 })).toBe('rung-0, beyond')
	})
	it('a ball may be two kilograms over the rung’s, for a heavier body, and no more', () => {
		const ball = ladderOf({ ballKg: 3 })
		expect(placed(ball, { ballKg: 5 })).toBe('rung-0')
		expect(placed(ball, { ballKg: 5.01 })).toBe('rung-0, beyond')
	})
	it('minutes make nothing harder, nor does what the rung says nothing of', () => {
		expect(placed(ladderOf({ minutes: 10 }), { minutes: 40 })).toBe('rung-0')
		expect(placed(ladderOf({}), { distanceM: 200 })).toBe('rung-0')
		expect(placed(ladderOf({ distanceM: 20 }), {})).toBe('rung-0')
	})
	it('as a variation of a rung, too; on a way back it has no place', () => {
		const [first] = ladderOf({ distanceM: 20 }).rungs
		const varied: Ladder = {
			...pattern,
			rungs: [
				{
					...first!,
					drillId: 'pogo',
					variations: [{ ...first!, drillId: DRILL.id, parameters: { distanceM: 15 } } as never],
				},
			],
		}
		expect(placed(varied, { distanceM: 15 })).toBe('rung-0')
		expect(placed(varied, { distanceM: 16 })).toBe('rung-0, beyond')
		const back = Object.values(STARTER_LIBRARY.ladders).find(({ path }) => path !== undefined)!
		expect(placed({ ...back, rungs: ladderOf({ distanceM: 20 }).rungs }, { distanceM: 20 })).toBeNull()
		expect(placed({ ...pattern, rungs: [{ ...first!, drillId: 'pogo' }] }, { distanceM: 20 })).toBeNull()
	})
})

describe('what a form is', () => {
	const of = (drill: Partial<typeof DRILL>, asked: Parameters = {}) =>
		formOf({ ...DRILL, defaults: { ...DRILL.defaults, parameters: {} }, ...drill }, asked, { ladders: {} })
	it('steps off a box: a rebound from a height, or a drill that is high by itself', () => {
		expect(of({ intensity: 'shock' }, { heightCm: 30 })).toMatchObject({ shock: true, boxed: true })
		expect(of({ intensity: 'shock' })).toMatchObject({ shock: true, boxed: false })
		expect(of({ intensity: 'low' }, { heightCm: 30 })).toMatchObject({ shock: false, boxed: false })
		expect(of({ intensity: 'low', highAboveCm: 60 })).toMatchObject({ shock: false, boxed: true })
	})
	it('is assisted where its metres are', () => {
		expect(of({ counting: { metres: { plannedZone: 'maximal', kind: 'assisted' } } as never }).assisted).toBe(true)
		expect(of({ counting: { metres: { plannedZone: 'maximal', kind: 'free' } } as never }).assisted).toBe(false)
		expect(of({ counting: {} as never }).assisted).toBe(false)
	})
	it('asked again with the same parameters in another order it is the same', () => {
		const drill = { ...DRILL }
		const first = formOf(drill, { distanceM: 20, effortPercent: 90 }, STARTER_LIBRARY)
		expect(formOf(drill, { effortPercent: 90, distanceM: 20 }, STARTER_LIBRARY)).toBe(first)
		expect(formOf(drill, { distanceM: 20 }, STARTER_LIBRARY)).not.toBe(first)
		expect(formOf({ ...DRILL }, { distanceM: 20, effortPercent: 90 }, STARTER_LIBRARY)).not.toBe(first)
	})
})
