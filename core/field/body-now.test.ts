import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Concluded } from '../permit/known'
import type { Closure } from '../vocabulary/care'
import { EVERYTHING } from '../vocabulary/words'
import { asksOf, bodyOf, limitsOf } from './body-now'

// How it stands with a body, for everybody who plans or logs: places and grades, no cause and no number.

const DAY = '2026-03-12'
const closure = (region: string, grade: Closure['grade'], more: object = {}) =>
	({ region, side: 'left', grade, since: '2026-03-10', ...more }) as Closure
const path = (due: string | null, repeats = 0) => ({ due: due === null ? null : { rung: { name: due } }, repeats })
const known = (facts: object = {}, plan: object = {}) =>
	({
		facts: { closures: [], restrictions: [], unwellSince: null, library: STARTER_LIBRARY, ...facts },
		plan: { regions: new Set(), everything: false, paths: [], ...plan },
		acknowledged: [],
	}) as unknown as Concluded

describe('what limits an athlete', () => {
	it('is what is closed and spared; what was only noted limits nothing', () => {
		const [knee, hip] = [closure('knee', 'closed'), closure('hip', 'spare')]
		expect(limitsOf(known({ closures: [knee, closure('foot', 'noted'), hip] }))).toEqual({
			closures: [knee, hip],
			shut: [],
			easyOnly: false,
		})
	})
	it('is what was closed by hand without a region: a kind of movement, a drill, in words', () => {
		expect(
			limitsOf(
				known({
					restrictions: [
						{ region: 'knee', pattern: null, drillId: null, since: '2026-03-01' },
						{ region: null, pattern: 'jump', drillId: null, since: '2026-03-01' },
						{ region: null, pattern: null, drillId: 'pogo', since: '2026-03-01' },
					],
				}),
			).shut,
		).toEqual([
			{ words: 'jump work', pattern: 'jump' },
			{ words: 'pogo', drillId: 'pogo' },
		])
	})
	it('is easy work alone while unwell', () => {
		expect(limitsOf(known({ unwellSince: '2026-03-11' })).easyOnly).toBe(true)
	})
})

describe('what an athlete is asked about after the work', () => {
	it('is what was to be spared before the day, with its side', () => {
		expect(
			asksOf(known({ closures: [closure('knee', 'spare'), closure('hip', 'spare', { side: undefined })] }), DAY),
		).toEqual([
			{ region: 'knee', side: 'left' },
			{ region: 'hip', side: 'both' },
		])
	})
	it('is not what was said that very day, what is closed, noted, or everything', () => {
		for (const one of [
			closure('knee', 'spare', { since: DAY }),
			closure('knee', 'spare', { since: '2026-03-13' }),
			closure('knee', 'closed'),
			closure('knee', 'noted'),
			closure(EVERYTHING, 'spare'),
		])
			expect(asksOf(known({ closures: [one] }), DAY), JSON.stringify(one)).toEqual([])
		expect(asksOf(known({ closures: [closure('knee', 'spare', { since: '2026-03-11' })] }), DAY)).toHaveLength(1)
	})
	it('is what is on the way back while a step is due, each place once', () => {
		const back = { regions: new Set(['knee', 'hip']), paths: [path('Easy jog')] }
		expect(asksOf(known({ closures: [closure('knee', 'spare')] }, back), DAY)).toEqual([
			{ region: 'knee', side: 'left' },
			{ region: 'hip', side: 'both' },
		])
		expect(asksOf(known({}, { ...back, paths: [path(null)] }), DAY)).toEqual([])
	})
	it('is the head after anything, after head or chest', () => {
		const back = { regions: new Set(['knee']), everything: true, paths: [path('Walk')] }
		expect(asksOf(known({}, back), DAY)).toEqual([
			{ region: 'knee', side: 'both' },
			{ region: 'neck-head', side: 'both', afterAnything: true },
		])
		expect(asksOf(known({}, { ...back, everything: false, regions: new Set(['neck-head']) }), DAY)).toEqual([
			{ region: 'neck-head', side: 'both' },
		])
	})
})

describe('how it stands with a body', () => {
	it('of nothing', () => {
		expect(bodyOf(known(), [], DAY)).toEqual({
			everythingSince: null,
			closed: [],
			spared: [],
			shut: [],
			easyOnly: false,
			back: [],
			weight: 0,
		})
	})
	it('names places, since when, and whether anybody could have asked since', () => {
		const closures = [closure('knee', 'closed', { since: '2026-03-08' }), closure('hip', 'spare')]
		const asked = (...worked: string[]) => bodyOf(known({ closures }), worked, DAY).spared[0]!.ask
		expect(bodyOf(known({ closures }), [], DAY)).toMatchObject({
			closed: [{ place: 'left knee', since: '2026-03-08' }],
			spared: [{ place: 'left hip', since: '2026-03-10', ask: false }],
			weight: 8,
		})
		// Work of the day it was said, or of a day to come, is no occasion to ask.
		expect([asked('2026-03-10'), asked('2026-03-11'), asked(DAY), asked('2026-03-13')]).toEqual([
			false,
			true,
			true,
			false,
		])
	})
	it('of everything says since when, and names no place', () => {
		const all = closure(EVERYTHING, 'everything', { side: undefined })
		expect(bodyOf(known({ closures: [closure('knee', 'closed'), all] }), [], DAY)).toMatchObject({
			everythingSince: '2026-03-10',
			closed: [{ place: 'left knee' }],
			weight: 10,
		})
	})
	it('with steps of the way back weighs more than the same without', () => {
		const back = { paths: [path('Easy jog', 2), path(null)] }
		expect(bodyOf(known({}, back), [], DAY)).toMatchObject({ back: [{ step: 'Easy jog', repeats: 2 }], weight: 1 })
		expect(bodyOf(known({ unwellSince: DAY }, back), [], DAY)).toMatchObject({ easyOnly: true, weight: 7 })
		expect(bodyOf(known({ restrictions: [{ region: null, pattern: 'jump', drillId: null }] }), [], DAY)).toMatchObject({
			shut: ['jump work'],
			weight: 8,
		})
	})
})
