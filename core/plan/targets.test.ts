import { describe, expect, it } from 'vitest'
import type { Level, Phase, Surface } from '../vocabulary/words'
import { emptyCount } from '../dose/dose-count'
import type { Quantity } from '../vocabulary/entry'
import { type TargetRequest, mostOf, quantitiesOf, rangeOf, targetOf, targetsByLevel } from './targets'

// Contacts a session by level 80–100, 100–120, 120–140 [published: Potach & Chu, in Essentials of Strength
// Training and Conditioning, NSCA]; metres at 95 % and more 60–120, 120–180, 150–240; cuts of 60° and more to
// 10, 20, 30; throws to 20, 30, 40 [our setting].

const plain: TargetRequest = { share: 1, phase: 'accumulate', role: 'hard', priority: null, kept: [], surface: null }
const target = (quantity: Quantity, level: Level, more: Partial<TargetRequest> = {}) =>
	targetOf(quantity, level, { ...plain, ...more })

describe('ranges', () => {
	it.each([
		['contacts', [80, 100], [100, 120], [120, 140]],
		['fastMetres', [60, 120], [120, 180], [150, 240]],
		['cuts60', [0, 10], [0, 20], [0, 30]],
		['throws', [0, 20], [0, 30], [0, 40]],
	] as [Quantity, ...[number, number][]][])('%s', (quantity, ...ranges) => {
		expect(([1, 2, 3] as const).map((level) => [rangeOf(quantity, level).low, rangeOf(quantity, level).high])).toEqual(
			ranges,
		)
	})
	it('contacts alone are published', () => {
		expect(rangeOf('contacts', 1).firmness).toBe('published')
		expect(rangeOf('fastMetres', 1).firmness).toBe('our setting')
	})
})

describe('a whole hard session: the middle of the range', () => {
	it.each([
		['contacts', 90, 110, 130],
		['fastMetres', 90, 150, 200],
		['cuts60', 5, 10, 15],
		['throws', 10, 15, 20],
	] as [Quantity, number, number, number][])('%s', (quantity, ...expected) => {
		expect(Object.values(targetsByLevel(quantity, plain))).toEqual(expected)
	})
	it('the upper end for the priority', () => {
		expect(target('contacts', 2, { priority: 'plyometric' })).toBe(120)
		expect(target('contacts', 2, { priority: 'sprint' })).toBe(110)
		expect(target('fastMetres', 2, { priority: 'sprint' })).toBe(180)
		expect(target('cuts60', 3, { priority: 'agility' })).toBe(30)
		expect(target('throws', 1, { priority: 'throw' })).toBe(20)
	})
	it('two thirds of the middle for what is only kept', () => {
		expect(target('contacts', 1, { kept: ['plyometric'] })).toBe(60)
		expect(target('contacts', 1, { kept: ['sprint'] })).toBe(90)
		expect(target('fastMetres', 2, { kept: ['sprint', 'throw'] })).toBe(100)
	})
})

describe('the week', () => {
	it.each([
		[1, 110],
		[0.83, 91],
		[0.5, 55],
		[0.2, 22],
	])('share %d of it', (share, contacts) => {
		expect(target('contacts', 2, { share })).toBe(contacts)
	})
	it.each([0, -0.1, 1.01, Number.NaN])('a share of %d is none', (share) => {
		expect(() => target('contacts', 2, { share })).toThrow('share: ')
	})
	it.each([
		['accumulate', 110, 150],
		// Contacts fall while the class rises: three quarters, then three fifths; metres stay.
		['intensify', 83, 150],
		['peaking', 66, 150],
		// Never more than three fifths of a full session.
		['unloading', 66, 90],
	] as [Phase, number, number][])('%s', (phase, contacts, metres) => {
		expect(target('contacts', 2, { phase })).toBe(contacts)
		expect(target('fastMetres', 2, { phase })).toBe(metres)
	})
	it('an unloading week that is lighter still stays so', () => {
		expect(target('contacts', 2, { phase: 'unloading', share: 0.5 })).toBe(55)
	})
})

describe('the day', () => {
	it.each([
		['hard', 110, 150, 10, 15],
		['light', 55, 0, 0, 15],
		['tissue', 0, 0, 0, 0],
		['test', 0, 0, 0, 0],
	] as [TargetRequest['role'], number, number, number, number][])('%s', (role, contacts, metres, cuts, throws) => {
		expect([
			target('contacts', 2, { role }),
			target('fastMetres', 2, { role }),
			target('cuts60', 2, { role }),
			target('throws', 2, { role }),
		]).toEqual([contacts, metres, cuts, throws])
	})
})

describe('hard ground leaves four fifths of the contacts, and of nothing else', () => {
	it.each([
		['gravel', 88, 96],
		['hard-court', 88, 96],
		['grass', 110, 120],
		['track', 110, 120],
		['wet-grass', 110, 120],
		['indoor', 110, 120],
		[null, 110, 120],
	] as [Surface | null, number, number][])('%s', (surface, contacts, most) => {
		expect(target('contacts', 2, { surface })).toBe(contacts)
		expect(mostOf('contacts', 2, surface)).toBe(most)
		expect(target('fastMetres', 2, { surface })).toBe(150)
		expect(mostOf('fastMetres', 2, surface)).toBe(180)
		expect(mostOf('throws', 3, surface)).toBe(40)
	})
})

it('metres are whole tens', () => {
	// 150 × 0.83 = 124.5
	expect(target('fastMetres', 2, { share: 0.83 })).toBe(120)
	expect(target('fastMetres', 2, { share: 0.84 })).toBe(130)
})

it('a count holds contacts from moderate up, metres from 95 %, cuts from 60° and throws', () => {
	const count = emptyCount()
	count.contacts.low = { left: 99, right: 99, both: 99 }
	count.contacts.moderate = { left: 1, right: 2, both: 3 }
	count.contacts.high = { left: 4, right: 0, both: 0 }
	count.contacts.shock = { left: 0, right: 0, both: 5 }
	count.metres = { easy: 500, tempo: 400, 'sub-maximal': 300, fast: 20, maximal: 10 }
	count.cuts['30-60'] = { left: 9, right: 9, both: 0 }
	count.cuts['60-90'] = { left: 1, right: 0, both: 0 }
	count.cuts['90-135'] = { left: 0, right: 2, both: 0 }
	count.cuts['135-180'] = { left: 0, right: 0, both: 3 }
	count.throws = { left: 4, right: 4, both: 8 }
	expect(quantitiesOf(count)).toEqual({ contacts: 15, fastMetres: 30, cuts60: 6, throws: 16 })
})
