import { describe, expect, it } from 'vitest'
import { factsOf, upTo } from '../../tests/support/plain-facts'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Facts } from '../rules/facts'
import type { Ladder } from '../vocabulary/ladder'
import { type Lock, firstDaysOf, gateOf, lockOf, nextRung, overOf, passedRungs } from './locks'

// What each rule finds stands beside the rules. Here: which of them is said of a rung, in which words, and
// whether the ladder waits for it or goes on past it.

const ladderOf = (id: string): Ladder => STARTER_LIBRARY.ladders[id]!
const rungOf = (ladderId: string, id: string) => ladderOf(ladderId).rungs.find((rung) => rung.id === id)!
type More = Parameters<typeof factsOf>[0]
/** In a school that uses rebounds all year from any box, with everything passed. */
const everything = Object.fromEntries(
	Object.values(STARTER_LIBRARY.ladders).map((ladder) => [ladder.id, ladder.rungs.map((rung) => rung.id)]),
)
const said = (ladderId: string, rungId: string, more: More = {}) => {
	const lock = lockOf(factsOf({ passed: everything, ...more }), rungOf(ladderId, rungId))
	return lock && `${lock.rule} ${lock.tier}${lock.skip ? ', gone past' : ''}: ${lock.words}`
}

it('an open rung has no lock', () => {
	expect(said('shock', 'depth-15')).toBeNull()
	expect(said('acceleration', 'standing-10')).toBeNull()
})

describe('words and whether the ladder waits', () => {
	it.each([
		[
			'body mass, for good',
			'shock',
			'depth-60',
			{ massKg: 101, school: 'jump-ladder' },
			'S4 block, gone past: no box over 45 cm over 100 kg',
		],
		['age', 'shock', 'depth-15', { ageYears: 15 }, 'S4 block, gone past: land and pause only at level 1 or under 16'],
		[
			'level, which is waited for',
			'shock',
			'depth-15',
			{ level: 1 },
			'S4 block: land and pause only at level 1 or under 16',
		],
		[
			'the own best box, until it is measured anew',
			'shock',
			'depth-45',
			{ own: { bestBox: { heightCm: 30, keepsGoal: true, on: '2026-03-02', how: 'film' } } },
			'BB caution: own best box is 30 cm (film, Mon 2 Mar)',
		],
		['the school’s highest box', 'shock', 'depth-60', {}, 'S8 block, gone past: the school’s highest box is 45 cm'],
		[
			'the phase of rebounds',
			'shock',
			'depth-15',
			{ phase: 'accumulate' },
			'S8 block, gone past: rebounds from a box open in another phase in this school',
		],
		[
			'an unloading week',
			'shock',
			'depth-15',
			{ phase: 'unloading', school: 'capacity-base' },
			'P6 caution, gone past: an unloading week: no rebounds from a box',
		],
		[
			'illness',
			'acceleration',
			'standing-10',
			{ reports: [{ kind: 'unwell', day: '2026-03-19' }] },
			'S3 block: nothing high, shock or maximal until well again',
		],
		['wet grass', 'shock', 'depth-15', { surface: 'wet-grass' }, 'S10 caution: wet grass: no rebounds from a box'],
		[
			'a match behind',
			'acceleration',
			'standing-10',
			{ hoursSinceMatch: 3 },
			'S11 caution: 3 h after a match: nothing high or maximal before 36 h',
		],
		[
			'a restriction',
			'acceleration',
			'standing-10',
			{ restrictions: [{ region: 'back-thigh', since: '2026-03-12' }] },
			'S2 block: back thigh closed by hand since Thu 12 Mar until lifted, or cleared by a health professional',
		],
		[
			'a closure',
			'acceleration',
			'standing-10',
			{ reports: [{ kind: 'pain', region: 'back-thigh', score: 6, day: '2026-03-12' }] },
			'S1 block: back thigh closed since Thu 12 Mar until cleared by a health professional',
		],
	] as [string, string, string, More, string][])('%s', (_name, ladderId, rungId, more, expected) => {
		expect(said(ladderId, rungId, more)).toBe(expected)
	})
	it('what has to be passed before', () => {
		expect(said('shock', 'depth-15', { passed: upTo('shock', 'landing-30') })).toMatch(/^S8 block: opens after /)
	})
	it('what hurts is said before what is closed for good, and that before today', () => {
		const more: More = {
			ageYears: 15,
			surface: 'wet-grass',
			reports: [
				{ kind: 'unwell', day: '2026-03-19' },
				{ kind: 'pain', region: 'knee', score: 6, day: '2026-03-19' },
			],
		}
		expect(said('shock', 'depth-15', more)).toContain('S1 block')
		expect(said('shock', 'depth-15', { ...more, reports: more.reports!.slice(0, 1) })).toContain('S4 block')
		expect(said('shock', 'depth-15', { ...more, reports: more.reports!.slice(0, 1), ageYears: 20 })).toContain(
			'S3 block',
		)
		expect(said('shock', 'depth-15', { ...more, reports: [], ageYears: 20 })).toContain('S10 caution')
	})
	it('a drill the library does not hold locks nothing', () => {
		expect(lockOf(factsOf(), { ...rungOf('shock', 'depth-15'), drillId: 'gone' })).toBeNull()
	})
})

it('a ladder shows its gates whatever hurts; what hurts is said apart', () => {
	const hurt: More = { level: 1, reports: [{ kind: 'pain', region: 'knee', score: 6, day: '2026-03-19' }] }
	const [facts, rung] = [factsOf({ passed: everything, ...hurt }), rungOf('shock', 'depth-15')]
	expect(gateOf(facts, rung)).toMatchObject({ rule: 'S4' })
	expect(overOf(facts, rung)).toBe('knee closed since Thu 19 Mar until cleared by a health professional')
	const wrist = factsOf({
		passed: everything,
		reports: [{ kind: 'pain', region: 'wrist', score: 6, day: '2026-03-19' }],
	})
	expect(overOf(wrist, rung)).toBeNull()
	const held = factsOf({ passed: everything, restrictions: [{ region: 'knee', since: '2026-03-12' }] })
	expect(overOf(held, rung)).toContain('closed by hand since Thu 12 Mar')
	expect(gateOf(held, rung)).toBeNull()
	expect(overOf(factsOf({ passed: everything, level: 1 }), rung)).toBeNull()
})

describe('what is passed, and what comes next', () => {
	const ladder = ladderOf('stiffness')
	const ids = ladder.rungs.map((rung) => rung.id)
	const state = (more: object) => ({ rungId: ids[2]!, passed: false, ...more }) as Parameters<typeof passedRungs>[0]
	const withPassed = (passed: string[], more: More = {}): Facts =>
		factsOf({ passed: { ...everything, stiffness: passed }, ...more })
	it('all below the rung where nothing was kept, with the rung once it is passed', () => {
		expect(passedRungs(state({}), ladder)).toEqual(ids.slice(0, 2))
		expect(passedRungs(state({ passed: true }), ladder)).toEqual(ids.slice(0, 3))
	})
	it('as kept, with the rung itself once it is passed, and once only', () => {
		expect(passedRungs(state({ done: [ids[0]] }), ladder)).toEqual([ids[0]])
		expect(passedRungs(state({ done: [ids[0]], passed: true }), ladder)).toEqual([ids[0], ids[2]])
		expect(passedRungs(state({ done: [ids[0], ids[2]], passed: true }), ladder)).toEqual([ids[0], ids[2]])
	})
	it('next is the lowest rung not passed, with why it is shut; none at the top', () => {
		expect(nextRung(withPassed(ids.slice(0, 3)), ladder, state({ passed: true }))).toMatchObject({
			rung: { id: ids[3] },
			lock: null,
		})
		expect(nextRung(withPassed(ids.slice(1)), ladder, state({ done: ids.slice(1), passed: true }))?.rung.id).toBe(
			ids[0],
		)
		expect(nextRung(withPassed(ids), ladder, state({ done: ids }))).toBeNull()
		const shut = ladder.rungs.findIndex((rung) => rung.level > 1)
		const below = state({ rungId: ids[shut - 1], passed: true })
		expect(nextRung(withPassed(ids.slice(0, shut), { level: 1 }), ladder, below)?.lock).toMatchObject({
			rule: 'S8',
			words: `opens at level ${ladder.rungs[shut]!.level}`,
		} satisfies Partial<Lock>)
	})
	// Nobody waits for what is out of reach: at 104 kg the ladder goes round every box over 45 cm.
	it('goes round what cannot be reached, and the rung above it needs no days on it', () => {
		const shock = ladderOf('shock')
		const reach = shock.rungs.filter((rung) => (rung.parameters.heightCm ?? 0) <= 45)
		const facts = factsOf({
			massKg: 104,
			school: 'jump-ladder',
			passed: { ...everything, shock: reach.map((rung) => rung.id) },
		})
		const done = reach.map((rung) => rung.id)
		expect(nextRung(facts, shock, state({ rungId: done.at(-1)!, done, passed: true }) as never)).toBeNull()
	})
})

describe('the first days on a rung that are known', () => {
	const shock = ladderOf('shock')
	const state = (more: object) =>
		({ ladderId: 'shock', rungId: 'depth-30', passed: false, ...more }) as Parameters<typeof firstDaysOf>[0]
	const days = (more: object) => firstDaysOf(state(more), shock).map((one) => `${one.rungId} ${one.day}`)
	it('of who was put on it: its own day', () => {
		expect(days({ rungSince: '2026-03-05' })).toContain('depth-30 2026-03-05')
		expect(days({ rungSince: null }).some((one) => one.startsWith('depth-30'))).toBe(false)
	})
	it('the rungs below are older by what the rung asks, or long ago where nobody knows', () => {
		// 10 % and more ask two weeks on the pull below; other rungs ask no days.
		const assisted = ladderOf('assisted')
		const at = (rungId: string, rungSince: string | null) =>
			firstDaysOf({ ...state({ rungSince }), ladderId: 'assisted', rungId }, assisted)
		expect(at('assist-15', '2026-03-20')).toEqual([
			{ day: '2026-03-20', ladderId: 'assisted', rungId: 'assist-15' },
			{ day: '2026-03-06', ladderId: 'assisted', rungId: 'assist-5' },
			{ day: '2026-03-06', ladderId: 'assisted', rungId: 'assist-10' },
		])
		const unknown = at('assist-10', null)
		expect(unknown.map((one) => one.rungId)).toEqual(['assist-5'])
		for (const one of unknown) expect(one.day < '2020-01-01').toBe(true)
		expect(at('assist-5', '2026-03-20')).toHaveLength(1)
	})
	it('a rung the ladder does not have says nothing', () => {
		expect(firstDaysOf({ ...state({ rungSince: null }), rungId: 'gone' }, shock)).toEqual([])
	})
})

it('a gate is shown with its rule and words alone, whatever is closed by hand', () => {
	const held = factsOf({ passed: everything, restrictions: [{ region: 'knee', since: '2026-03-12' }] })
	expect(gateOf(held, rungOf('shock', 'depth-15'))).toBeNull()
	expect(gateOf(held, rungOf('stiffness', 'pogo'))).toBeNull()
})
