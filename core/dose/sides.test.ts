import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { LogEvent } from '../vocabulary/events'
import { repsOfMark, sidedOf, turnsOfMark } from './sides'

const of = (id: string) => sidedOf(STARTER_LIBRARY.drills[id]!)
const mark = (change: object) =>
	({ type: 'mark', kind: 'distance', value: {}, ...change }) as Extract<LogEvent, { type: 'mark' }>

describe('the sides of a rep', () => {
	it('are asked where the dose is for each leg or throwing side', () => {
		expect(['single-leg-pogo', 'single-leg-hops', 'step-in-throw'].map(of)).toEqual(['each', 'each', 'each'])
	})
	it('are not asked of two legs, alternating steps, throws with both arms; of one cut the planted foot may be said', () => {
		expect(['broad-jump', 'pogo', 'three-point-start'].map(of)).toEqual([null, null, null])
		expect(sidedOf({ counting: { cuts: { perRep: 1 } } } as never)).toBe('plant')
		expect(sidedOf({ counting: { deadStops: { perRep: 1 } } } as never)).toBe('plant')
		expect(sidedOf({ counting: { cuts: { perRep: 2 } } } as never)).toBeNull()
		expect(sidedOf({ counting: { throws: { sides: 'both' } } } as never)).toBeNull()
		expect(sidedOf({ counting: { contacts: { by: 'metres', feet: 'alternating' } } } as never)).toBeNull()
	})
	it('make half a rep each; a set ticked off is of both', () => {
		expect(repsOfMark(mark({ side: 'left' }), 'each')).toBe(0.5)
		expect(repsOfMark(mark({}), 'each')).toBe(1)
		expect(repsOfMark(mark({ side: 'left' }), 'plant')).toBe(1)
		expect(repsOfMark(mark({ side: 'left' }))).toBe(1)
		expect(repsOfMark(mark({ kind: 'done', value: { reps: 6 } }), 'each')).toBe(6)
		expect(repsOfMark(mark({ kind: 'missed', side: 'left' }), 'each')).toBe(0)
		expect(turnsOfMark(mark({ kind: 'missed', side: 'left' }), 'each')).toBe(0.5)
		expect(turnsOfMark(mark({ kind: 'missed' }))).toBe(1)
	})
})
