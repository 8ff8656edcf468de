import { describe, expect, it } from 'vitest'
import { emptyCount } from '../dose/dose-count'
import { familyLoads, fortnightOf, sayOutside } from './fortnight'

const NONE = { sessions: [], outside: [], body: [], notes: [], bench: [], moves: [] }

describe('fourteen days', () => {
	it('end with the day they are asked for, oldest first', () => {
		const days = fortnightOf('2026-03-12', NONE)
		expect([days.length, days[0]!.day, days[13]!.day]).toEqual([14, '2026-02-27', '2026-03-12'])
	})
	it('have on each day what was on it, and nothing from outside of them', () => {
		const days = fortnightOf('2026-03-12', {
			...NONE,
			outside: [
				{ day: '2026-02-26', what: 'before' },
				{ day: '2026-02-27', what: 'first' },
				{ day: '2026-03-12', what: 'last' },
				{ day: '2026-03-13', what: 'after' },
			],
			notes: [{ day: '2026-03-12', what: 'late' }],
			bench: [{ day: '2026-03-11', what: 'Top speed: 8.41 m/s' }],
			body: [{ day: '2026-03-12', what: 'left calf 2' }],
			moves: [{ day: '2026-03-12', what: { verdict: 'advance', words: 'Acceleration' } }],
		})
		expect(days.flatMap(({ outside }) => outside)).toEqual(['first', 'last'])
		expect(days[13]).toMatchObject({ notes: ['late'], body: ['left calf 2'], moves: [{ verdict: 'advance' }] })
		expect(days[12]).toMatchObject({ notes: [], body: [], bench: ['Top speed: 8.41 m/s'], moves: [] })
		expect(days[13]!.bench).toEqual([])
	})
})

it('a load is told in the unit its coaches count it in, what is none left out', () => {
	const count = emptyCount()
	expect(familyLoads(count)).toEqual([])
	count.contacts.low.both = 10
	count.contacts.shock.left = 4
	count.metres = { easy: 100, tempo: 50, 'sub-maximal': 20, fast: 40, maximal: 60 }
	count.cuts['under-30'].both = 1
	count.cuts['90-135'].right = 6
	count.throws.both = 8
	expect(familyLoads(count).map(({ family, words, amount }) => [family, words, amount])).toEqual([
		['sprint', '120 m at 90 % or more', 120],
		['plyometric', '4 contacts, 10 low contacts', 14],
		['agility', '7 cuts', 7],
		['throw', '8 throws', 8],
	])
})

it('what came from outside is said in a line', () => {
	const load = { day: '2026-03-12', startTime: '15:00', hardRunning: false, hardCutting: false }
	expect(sayOutside({ ...load, kind: 'match', minutes: 90, rpe: 7 })).toBe('Match, 90 min, effort 7')
	const lifts = [
		{ exercise: 'Back squat', kg: 100, reps: 5, isNew: true },
		{ exercise: 'Plank', kg: null, reps: null, isNew: false },
	]
	expect(sayOutside({ ...load, kind: 'gym', minutes: 60, rpe: null, lifts })).toBe(
		'Gym, 60 min, Back squat 100 kg × 5, first time, Plank',
	)
})
