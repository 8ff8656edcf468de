import { describe, expect, it } from 'vitest'
import { type WeekOf, against, sayWeek, weekOf } from './week'

const QUIET: WeekOf = {
	athleteId: 'a',
	name: 'Ilka Moreau',
	came: 2,
	down: 2,
	amounts: {
		contacts: { done: 100, asked: 100 },
		fastMetres: { done: 120, asked: 120 },
		cuts60: { done: 12, asked: 12 },
		throws: { done: 16, asked: 16 },
	},
	outside: [],
	gap: null,
	comfort: null,
	newThings: [],
	body: { closed: [], spared: [], wayBack: null, read: { worry: null, unwell: false, pain: null } },
	setAside: 0,
	due: [],
}
const contacts = (done: number, asked = 100) => ({ amounts: { ...QUIET.amounts, contacts: { done, asked } } })
const read = (more: Partial<NonNullable<WeekOf['body']['read']>>) => ({
	body: { ...QUIET.body, read: { worry: null, unwell: false, pain: null, ...more } },
})
const gap = (more: object = {}) => ({
	gap: { what: 'Pogo', percent: 12, ahead: 'left' as const, beyond: true, times: 2, ...more },
})
const thought = (more: Partial<WeekOf>) => weekOf([{ ...QUIET, ...more }])[0]!.thought

describe('done against asked', () => {
	it.each([
		['contacts', 115, 100, 'as asked'],
		['contacts', 116, 100, 'over'],
		['contacts', 75, 100, 'as asked'],
		['contacts', 74, 100, 'under'],
		// Of little work a set more or less says nothing: ten contacts, two runs, three turns, three throws.
		['contacts', 30, 20, 'as asked'],
		['contacts', 31, 20, 'over'],
		['fastMetres', 60, 40, 'as asked'],
		['fastMetres', 61, 40, 'over'],
		['fastMetres', 20, 40, 'as asked'],
		['cuts60', 9, 6, 'as asked'],
		['cuts60', 10, 6, 'over'],
		['cuts60', 2, 6, 'under'],
		['throws', 3, 6, 'as asked'],
		['throws', 2, 6, 'under'],
		['contacts', 0, 0, 'nothing asked'],
		['contacts', 10, 0, 'nothing asked'],
		['contacts', 11, 0, 'over'],
	] as const)('%s, %d of %d: %s', (quantity, done, asked, is) => expect(against(quantity, { done, asked })).toBe(is))
})

describe('what is worth a thought', () => {
	it('is nothing where a week went as asked', () => expect(thought({})).toBeNull())
	it.each<[Partial<WeekOf>, string]>([
		[{ body: { ...QUIET.body, closed: ['left knee'] } }, 'closed: left knee; nothing there until cleared'],
		[{ body: { ...QUIET.body, spared: ['left calf', 'back'] } }, 'spare the left calf and the back; ask how it is'],
		[read({ unwell: true }), 'unwell: nothing hard until well again'],
		[read({ worry: 'three-point start' }), 'talk before the next one: three-point start'],
		[read({ pain: { place: 'right calf', score: 3 } }), 'ask about the right calf'],
		[contacts(131), 'over in contacts: less next time'],
		[{ newThings: ['Depth jump 15 cm', 'Back squat'] }, 'two new hard things in one week'],
		[{ comfort: { worst: 3, braking: false } }, 'not at ease when assisted'],
		[{ comfort: { worst: 0, braking: true } }, 'braked when assisted'],
		[{ setAside: 1 }, 'one number to settle'],
		[{ setAside: 2 }, 'two numbers to settle'],
		[gap(), 'right behind by 12.0 %, 2 times'],
		[{ due: ['30 m'] }, '30 m due'],
		[{ body: { ...QUIET.body, wayBack: 'way back, step 4 of 8' } }, 'way back, step 4 of 8'],
		[{ came: 0 }, 'did not come: nothing to make up'],
		[contacts(48), 'under in contacts: nothing to make up'],
	])('%j: %s', (more, words) => expect(thought(more)).toBe(words))
	it.each<Partial<WeekOf>>([
		read({ pain: { place: 'right calf', score: 2 } }),
		{ newThings: ['Depth jump 15 cm'] },
		{ comfort: { worst: 2, braking: false } },
		gap({ times: 1 }),
		gap({ beyond: false }),
		{ came: 0, down: 0 },
	])('not yet: %j', (more) => expect(thought(more)).toBeNull())
	it('puts the body before the work, and both before numbers', () => {
		const rows = weekOf([
			{ ...QUIET, name: 'Quiet' },
			{ ...QUIET, name: 'Under', ...contacts(40) },
			{ ...QUIET, name: 'Aside', setAside: 1 },
			{ ...QUIET, name: 'Over', ...contacts(140) },
			{ ...QUIET, name: 'Worry', ...read({ worry: 'start' }), ...contacts(140) },
			{ ...QUIET, name: 'Closed', body: { ...QUIET.body, closed: ['left knee'] } },
			{ ...QUIET, name: 'Another quiet' },
		])
		expect(rows.map(({ name }) => name)).toEqual([
			...['Closed', 'Worry', 'Over', 'Aside', 'Under', 'Another quiet', 'Quiet'],
		])
	})
	it('calls nobody quiet whose body is not read', () => {
		const words = (more: Partial<WeekOf>) => weekOf([{ ...QUIET, ...more }])[0]!.bodyWords
		expect(words({})).toBe('quiet')
		expect(words({ body: { ...QUIET.body, read: null } })).toBe('')
		expect(words({ body: { closed: ['left knee'], spared: ['back'], wayBack: null, read: null } })).toBe(
			'left knee closed, back spared',
		)
		expect(words({ body: { closed: ['left knee'], spared: [], wayBack: 'step 1 of 5', read: null } })).toBe('way back')
		expect(words(read({ worry: 'start', unwell: true, pain: { place: 'calf', score: 1 } }))).toBe(
			'worry open, unwell, calf 1',
		)
	})
})

describe('the week in a breath', () => {
	const say = (people: Partial<WeekOf>[], sessions = 2) =>
		sayWeek(weekOf(people.map((one) => ({ ...QUIET, ...one }))), sessions)
	it('says who came, and what waits', () => {
		expect(say([{}, {}])).toBe('All two came to all. Nobody is over, nothing is closed.')
		expect(say([{}, { came: 1 }, { down: 0, came: 0 }])).toBe(
			'One of two came to all. Nobody is over, nothing is closed.',
		)
		expect(say([{ ...contacts(140), setAside: 3 }, { body: { ...QUIET.body, closed: ['knee'] } }], 1)).toBe(
			'All two came to it. One is over, one has a region closed or spared, three numbers wait to be settled.',
		)
		expect(say([{}], 0)).toBe('No session was held in this week.')
		expect(say([{ came: 0 }])).toBe('Nobody of one came to all. Nobody is over, nothing is closed.')
	})
})
