import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { factsOf, form, upTo } from '../../tests/support/plain-facts'
import { harderThan } from './form'
import { gates, openPlaces, outOfReach } from './s8-gates'

const place = (drillId: string, parameters: Parameters<typeof form>[1] = {}) =>
	form(drillId, parameters).places.map(
		({ ladder, rung, beyond }) => `${ladder.id}/${rung.id}${beyond ? ' and beyond' : ''}`,
	)
const read = (more: Parameters<typeof factsOf>[0], ...asked: Parameters<typeof form>) => {
	const found = gates.read(factsOf(more), form(...asked))
	return found && `${found.tier}: ${found.found}; ${found.limit}`
}
const shut = (...all: Parameters<typeof read>) => read(...all) !== null

describe('where a form stands', () => {
	it.each([
		['depth-jump', { heightCm: 30 }, ['shock/depth-30']],
		['depth-jump', { heightCm: 31 }, ['shock/depth-45']],
		['depth-jump', { heightCm: 10 }, ['shock/depth-15']],
		['depth-jump', { heightCm: 80 }, ['shock/depth-75 and beyond']],
		['three-point-start', { distanceM: 15 }, ['acceleration/three-point-20']],
		['fly-10', { distanceM: 10, runInM: 25 }, ['top-speed/fly-10-30']],
		// Tighter is harder; the length follows from the radius.
		['arc-half', { radiusM: 10, distanceM: 31 }, ['curve/half-9']],
		['arc-half', { radiusM: 12, distanceM: 38 }, ['curve/half-12']],
		['arc-half', { radiusM: 6 }, ['curve/half-9 and beyond']],
		// A variation stands on the rung it varies.
		['resisted-start', { distanceM: 10, resistPercent: 50 }, ['acceleration/standing-10']],
		['shuttle-repeat', {}, ['repeat-speed/shuttle-40', 'capacity/shuttles']],
		['hurdle-hop', {}, []],
		// Return ladders give no gates to others.
		['easy-toss', {}, []],
	] as const)('%s %j', (drillId, parameters, places) => {
		expect(place(drillId, parameters)).toEqual(places)
	})
	it('is harder in any one of its parameters', () => {
		expect(harderThan({ distanceM: 20, runInM: 31 }, { distanceM: 20, runInM: 30 })).toBe(true)
		expect(harderThan({ distanceM: 20, runInM: 30 }, { distanceM: 20, runInM: 30 })).toBe(false)
		expect(harderThan({ minutes: 40 }, { minutes: 20 })).toBe(false)
		expect(harderThan({ loadG: 100 }, {})).toBe(false)
	})
})

describe('level', () => {
	it.each([
		[1, 'three-point-start', { distanceM: 10 }, 'caution: level 1; opens at level 2'],
		[2, 'three-point-start', { distanceM: 20 }, null],
		[2, 'three-point-start', { distanceM: 21 }, 'caution: level 2; opens at level 3'],
		// Harder than its one rung of level 1, and high: one level more.
		[1, 'standing-start', { distanceM: 10 }, null],
		[1, 'standing-start', { distanceM: 11 }, 'caution: level 1; opens at level 2'],
		[2, 'standing-start', { distanceM: 60 }, null],
		// Beyond the hardest there is no level to ask for; a moderate drill asks for none more.
		[3, 'fly-20', { distanceM: 20, runInM: 40 }, null],
		[1, 'mini-bound', { distanceM: 40 }, null],
		// On no ladder: 1 for low and moderate, 2 for high, 3 for shock.
		[1, 'hurdle-hop', {}, 'caution: level 1; opens at level 2'],
		[2, 'hurdle-hop', {}, null],
		[1, 'squat-jump', {}, null],
		[1, 'tempo-run', {}, null],
	] as const)('%i at %s %j', (level, drillId, parameters, found) => {
		expect(read({ level, passed: upTo('acceleration', 'a-run') }, drillId, parameters)).toBe(found)
	})
	it('a rebound on no ladder asks for level 3', () => {
		const library = { ...STARTER_LIBRARY, ladders: {} }
		const bare = { ...form('depth-jump', { heightCm: 30 }), places: [] }
		expect(gates.read({ ...factsOf({ level: 2 }), library }, bare)).toMatchObject({
			tier: 'block',
			limit: 'opens at level 3',
		})
		expect(gates.read({ ...factsOf({ level: 3 }), library }, bare)).toBeNull()
	})
})

describe('prerequisites', () => {
	it('of a rebound are a block, of the rest a caution', () => {
		expect(read({ passed: upTo('shock', 'landing-30') }, 'depth-jump', { heightCm: 15 })).toBe(
			'block: Pause jump 15 cm is not passed; opens after pause jump 15 cm',
		)
		expect(read({ passed: {} }, 'dribble', { distanceM: 20 })).toBe(
			'caution: A-run 20 m is not passed; opens after A-run 20 m',
		)
	})
	it('hold above: what opens the first dribble opens the fly, and the rung below is none', () => {
		expect(shut({ passed: {} }, 'fly-10', { distanceM: 10, runInM: 20 })).toBe(true)
		expect(shut({ passed: upTo('acceleration', 'a-run') }, 'fly-10', { distanceM: 10, runInM: 20 })).toBe(false)
	})
	it('hold round what cannot be reached: the double at 15 cm in a school of 45 cm, for whom all below is passed', () => {
		const passed = { shock: upTo('shock', 'depth-45').shock! }
		expect(shut({ passed }, 'double-depth-jump', { heightCm: 15 })).toBe(false)
		// Where 75 cm is allowed the boxes below it are not gone round.
		expect(shut({ passed, school: 'jump-ladder' }, 'double-depth-jump', { heightCm: 15 })).toBe(true)
		expect(shut({ passed, school: 'jump-ladder', massKg: 104 }, 'double-depth-jump', { heightCm: 15 })).toBe(false)
	})
	it.each([
		[{ cut: ['wide'] }, true],
		[{ cut: ['wide'], brake: ['stop-10'] }, true],
		[{ cut: ['wide'], brake: ['dead-10'] }, true],
		[{ cut: ['wide'], brake: ['stop-10', 'dead-10'] }, false],
	])('a turn of 180° in a shuttle asks for the stops: %j', (passed, fires) => {
		expect(shut({ passed }, 'shuttle-repeat', { distanceM: 20, angleDeg: 180 })).toBe(fires)
	})
	it('a turn of less does not', () => {
		expect(shut({ passed: {} }, 'backpedal-turn', { angleDeg: 179 })).toBe(false)
		expect(shut({ passed: {} }, 'backpedal-turn', { angleDeg: 180 })).toBe(true)
	})
	it.each([
		[undefined, true],
		['2026-03-07', true],
		['2026-03-06', false],
	])('14 days on the rung below, come to on %s', (day, fires) => {
		const passed = { ...upTo('top-speed', 'fly-20-30'), ...upTo('acceleration', 'a-run'), assisted: ['assist-5'] }
		const newRungs = day ? [{ day, ladderId: 'assisted', rungId: 'assist-5' }] : []
		expect(shut({ passed, newRungs }, 'assisted-fly', { assistPercent: 10 })).toBe(fires)
	})
	it('a passed rung asks for no days', () => {
		const passed = {
			...upTo('top-speed', 'fly-20-30'),
			...upTo('acceleration', 'a-run'),
			assisted: ['assist-5', 'assist-10'],
		}
		expect(shut({ passed }, 'assisted-fly', { assistPercent: 10 })).toBe(false)
	})
	it('days of another rung, or after the day, are none', () => {
		const passed = { ...upTo('top-speed', 'fly-20-30'), ...upTo('acceleration', 'a-run'), assisted: ['assist-5'] }
		const came = (day: string, rungId: string) => ({ passed, newRungs: [{ day, ladderId: 'assisted', rungId }] })
		expect(read(came('2026-03-01', 'assist-10'), 'assisted-fly', { assistPercent: 10 })).toContain('are not known')
		expect(read(came('2026-03-21', 'assist-5'), 'assisted-fly', { assistPercent: 10 })).toContain('are not known')
		expect(read(came('2026-03-10', 'assist-5'), 'assisted-fly', { assistPercent: 10 })).toBe(
			'block: 10 days on the rung below; opens after 14 days on the rung below, 10 so far',
		)
	})
})

describe('several ladders', () => {
	it('any one of them opens it: shuttles where the school conditions another way', () => {
		const passed = { cut: ['wide'], brake: ['stop-10', 'dead-10'] }
		const facts = factsOf({ passed, school: 'capacity-base' })
		expect(gates.read(facts, form('shuttle-repeat'))).toBeNull()
		expect(openPlaces(facts, form('shuttle-repeat')).map(({ ladder }) => ladder.id)).toEqual(['repeat-speed'])
	})
})

describe('what schools close', () => {
	it.each([
		['quality-first', 45, null],
		['quality-first', 46, 'block: 46 cm; the school’s highest box is 45 cm'],
		['jump-ladder', 75, null],
		['return-and-protect', 31, 'block: 31 cm; the school’s highest box is 30 cm'],
	])('%s, a landing from %i cm', (school, heightCm, found) => {
		expect(
			read({ school, level: 3, massKg: 70, passed: upTo('shock', 'double-45') }, 'drop-landing', { heightCm }),
		).toBe(found)
	})
	it('the pull', () => {
		const passed = {
			...upTo('top-speed', 'fly-20-30'),
			...upTo('acceleration', 'a-run'),
			...upTo('assisted', 'assist-20'),
		}
		expect(shut({ passed }, 'assisted-fly', { assistPercent: 10 })).toBe(false)
		expect(read({ passed }, 'assisted-fly', { assistPercent: 11 })).toContain('the school’s cap is 10 %')
		expect(read({ passed, school: 'jump-ladder' }, 'assisted-fly', { assistPercent: 5 })).toContain(
			'uses no assisted speed',
		)
	})
	it('the stricter of two squads: number and phase', () => {
		const schools = [STARTER_LIBRARY.schools['jump-ladder']!, STARTER_LIBRARY.schools['quality-first']!] as never
		const passed = upTo('shock', 'double-45')
		expect(read({ schools, passed }, 'drop-landing', { heightCm: 60 })).toContain('45 cm')
		expect(read({ schools, passed, phase: 'intensify' }, 'depth-jump', { heightCm: 30 })).toContain(
			'the phase is intensify',
		)
		expect(shut({ schools, passed, phase: 'peaking' }, 'depth-jump', { heightCm: 30 })).toBe(false)
	})
	it('rebounds for good', () => {
		expect(
			read({ school: 'return-and-protect', passed: upTo('shock', 'double-45') }, 'depth-jump', { heightCm: 15 }),
		).toBe('block: a rebound from a box; the school uses no rebounds from a box')
	})
	it('the side of a question: contrast by the session’s school, or the athlete’s own trial', () => {
		const passed = upTo('acceleration', 'three-point-20')
		expect(read({ passed }, 'contrast-start', { distanceM: 10 })).toContain('own trial')
		expect(shut({ passed, contrastHelps: true }, 'contrast-start', { distanceM: 10, resistPercent: 50 })).toBe(false)
		expect(read({ passed }, 'hard-run', { distanceM: 200 })).toContain('conditions another way')
		// Shuttles are out of reach there: what they ask for is not waited for.
		expect(shut({ passed, school: 'capacity-base' }, 'hard-run', { distanceM: 300 })).toBe(false)
	})
})

describe('out of reach', () => {
	const rung = (ladderId: string, rungId: string) =>
		STARTER_LIBRARY.ladders[ladderId]!.rungs.find((one) => one.id === rungId)!
	it.each([
		['shock', 'landing-45', {}, false],
		['shock', 'pause-60', {}, true],
		['shock', 'pause-60', { school: 'jump-ladder' }, false],
		['shock', 'pause-60', { school: 'jump-ladder', massKg: 104 }, true],
		['shock', 'depth-15', { ageYears: 15 }, true],
		['shock', 'depth-15', { ageYears: 16 }, false],
		// A phase passes, a level is earned.
		['shock', 'depth-15', { phase: 'accumulate' as const, level: 1 as const }, false],
		['assisted', 'assist-15', {}, true],
		['assisted', 'assist-5', { ageYears: 14 }, true],
		['capacity', 'hard-200', {}, true],
	])('%s/%s for %j: %s', (ladderId, rungId, more, out) => {
		expect(outOfReach(factsOf(more), rung(ladderId, rungId))).toBe(out)
	})
	it('a rung of a drill the library has lost', () => {
		expect(outOfReach(factsOf(), { ...rung('shock', 'depth-15'), drillId: 'gone' })).toBe(true)
	})
})
