import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Theme } from '../vocabulary/theme'
import type { Drill } from '../vocabulary/drill'
import type { Ladder, Rung } from '../vocabulary/ladder'
import { drillProblems, ladderProblems, themeProblems } from './document-problems'

// What a shape cannot say: a stand-in that loads what it is to spare, bounds the wrong way round, six rebounds a set,
// a timed drill without a start; a rung without its drill, its mark, its gate or its level.

const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const of = (id: string, change: Partial<Drill>) => drillProblems({ ...drill(id), ...change }, STARTER_LIBRARY)
const ladderOf = (id: string): Ladder => STARTER_LIBRARY.ladders[id]!
const withRung = (id: string, index: number, change: Partial<Rung>, before?: Ladder) => {
	const ladder = ladderOf(id)
	return ladderProblems(
		{ ...ladder, rungs: ladder.rungs.map((rung, at) => (at === index ? { ...rung, ...change } : rung)) },
		STARTER_LIBRARY,
		before,
	)
}

it('the library itself is sound', () => {
	for (const one of Object.values(STARTER_LIBRARY.drills))
		expect(drillProblems(one, STARTER_LIBRARY), one.id).toEqual({})
	for (const one of Object.values(STARTER_LIBRARY.ladders))
		expect(ladderProblems(one, STARTER_LIBRARY, one), one.id).toEqual({})
})

describe('a drill', () => {
	it('its stand-ins are of the library and spare what they stand in for', () => {
		expect(of('pogo', { alternatives: { calf: 'nope' } })).toEqual({
			'alternatives.calf': '“nope” is not a drill of the library.',
		})
		expect(of('pogo', { alternatives: { calf: 'relaxed-skip' } })).toEqual({
			'alternatives.calf': `“${drill('relaxed-skip').name}” loads that region itself.`,
		})
		expect(of('pogo', { alternatives: { calf: 'seated-chest-push' } })).toEqual({})
	})
	const range = (value: number | undefined, from: number, to: number) =>
		of('broad-jump', {
			ranges: { distanceM: [from, to] },
			defaults: { ...drill('broad-jump').defaults, parameters: value === undefined ? {} : { distanceM: value } },
		})['ranges.distanceM']
	it.each([
		[10, 5, 20, undefined],
		[5, 5, 20, undefined],
		[20, 5, 20, undefined],
		[4.9, 5, 20, '“4.9” lies outside 5–20.'],
		[20.1, 5, 20, '“20.1” lies outside 5–20.'],
		[undefined, 5, 20, undefined],
		[10, 20, 5, '“20–5”: the lower end comes first.'],
		[10, 10, 10, undefined],
	] as [number | undefined, number, number, string | undefined][])('%s of %d–%d: %s', (value, from, to, problem) => {
		expect(range(value, from, to)).toBe(problem)
	})
	it('a value without bounds has none', () => {
		expect(of('broad-jump', { ranges: {} })).toEqual({})
	})
	it('never more than 5 rebounds a set, at no level', () => {
		const { defaults } = drill('depth-jump')
		const dose = (reps: number) => ({
			defaults: { ...defaults, dose: { sets: 1, reps } },
			doses: drill('broad-jump').doses,
		})
		expect(of('depth-jump', dose(5))).toEqual({})
		expect(of('depth-jump', dose(6))).toEqual({ 'defaults.dose.reps': 'Never more than 5 rebounds a set.' })
		expect(
			of('depth-jump', { ...dose(5), doses: { ...drill('depth-jump').doses, 3: { sets: 1, reps: 6 } } }),
		).toHaveProperty('defaults.dose.reps')
		expect(of('pogo', { defaults: { ...drill('pogo').defaults, dose: { sets: 1, reps: 60 } } })).toEqual({})
	})
	it('a timed one says how it starts', () => {
		const { start: _start, ...rest } = drill('standing-start')
		expect(drillProblems(rest as Drill, STARTER_LIBRARY)).toEqual({
			start: 'A timed drill says how it starts: unlike starts are never compared.',
		})
		expect(drillProblems({ ...rest, measures: ['quality'] } as Drill, STARTER_LIBRARY)).toEqual({})
	})
})

describe('a ladder', () => {
	it('its ids are its own, and rungs athletes stand on stay', () => {
		const ladder = ladderOf('cut')
		const twice = { ...ladder, rungs: [...ladder.rungs, ladder.rungs[0]!] }
		expect(ladderProblems(twice, STARTER_LIBRARY, undefined).rungs).toBe('Two rungs have the same id.')
		const gone = { ...ladder, rungs: ladder.rungs.slice(1) }
		expect(ladderProblems(gone, STARTER_LIBRARY, ladder).rungs).toBe(
			`${ladder.rungs[0]!.name} must stay: athletes may stand on it. Move it, or rename it.`,
		)
		expect(ladderProblems(gone, STARTER_LIBRARY, undefined)).toEqual({})
	})
	it('a rung of an unknown drill is named, and nothing else is said of it', () => {
		expect(withRung('cut', 1, { drillId: 'nope' as Rung['drillId'], level: 1 })).toEqual({
			'rungs.1.drillId': '“nope” is not a drill of the library.',
		})
	})
	it('levels never fall upwards; the first may be any', () => {
		expect(withRung('cut', 4, { level: 1 })).toEqual({
			'rungs.4.level': 'Level 1 after level 2: levels never fall upwards.',
		})
		expect(withRung('cut', 4, { level: 2 })).toEqual({})
		expect(withRung('brake', 0, { level: 1 })).toEqual({})
	})
	it('never more than 5 rebounds a set', () => {
		const at = ladderOf('shock').rungs.findIndex((rung) => rung.id === 'depth-15')
		expect(withRung('shock', at, { dose: { sets: 1, reps: 6 } })).toEqual({
			[`rungs.${at}.reps`]: 'Never more than 5 rebounds a set.',
		})
		expect(withRung('shock', at, { dose: { sets: 1, reps: 5 } })).toEqual({})
		expect(withRung('stiffness', 2, { dose: { sets: 1, reps: 60 } })).toEqual({})
	})
	it.each([
		[{ kind: 'contact-ceiling' }, 'yields no contact time.'],
		[{ kind: 'time-within', percent: 3 }, 'is not timed.'],
		[{ kind: 'not-below', of: 'height' }, 'yields no height.'],
	] as [Rung['pass'], string][])('a criterion its drill yields: %j', (pass, words) => {
		const { name } = drill('wide-cut')
		expect(withRung('cut', 0, { pass })).toEqual({ 'rungs.0.pass': `${name} ${words}` })
	})
	it('and those it does yield are sound', () => {
		const timed = ladderOf('acceleration').rungs.findIndex((rung) => rung.id === 'standing-10')
		expect(withRung('acceleration', timed, { pass: { kind: 'time-within', percent: 2 } })).toEqual({})
		const boxed = ladderOf('shock').rungs.findIndex((rung) => rung.id === 'depth-15')
		expect(withRung('shock', boxed, { pass: { kind: 'contact-ceiling' } })).toEqual({})
		const thrown = ladderOf('throw').rungs.findIndex((rung) => rung.id === 'overhead')
		expect(withRung('throw', thrown, { pass: { kind: 'not-below', of: 'distance' } })).toEqual({})
	})
	it('the drill of a rung is the one piece of its complex that is judged', () => {
		const [pull, free] = ladderOf('contrast').rungs[0]!.pieces!
		const own = 'The drill of the rung is the one piece of its complex that is judged.'
		expect(withRung('contrast', 0, { pieces: [pull!, free!] })).toEqual({})
		expect(withRung('contrast', 0, { pieces: [pull!, { ...free!, judged: false }] })).toEqual({ 'rungs.0.pieces': own })
		expect(withRung('contrast', 0, { pieces: [{ ...pull!, judged: true }, free!] })).toEqual({ 'rungs.0.pieces': own })
		expect(withRung('contrast', 0, { pieces: [pull!, { ...free!, drillId: 'pogo' as never }] })).toEqual({
			'rungs.0.pieces': own,
		})
		expect(withRung('contrast', 0, { pieces: [{ ...pull!, drillId: 'nope' as never }, free!] })).toEqual({
			'rungs.0.pieces': 'A piece names a drill that is not in the library.',
		})
	})
	it('a gate leads to a rung there is, on its own ladder or another', () => {
		const gate = (ladderId: string, rungId: string) =>
			withRung('cut', 1, { gates: [{ kind: 'passed', ladderId, rungId }] } as unknown as Partial<Rung>)
		expect(gate('cut', 'wide')).toEqual({})
		expect(gate('brake', 'stop-5')).toEqual({})
		for (const [ladderId, rungId] of [
			['cut', 'nope'],
			['brake', 'nope'],
			['nope', 'wide'],
		] as const)
			expect(gate(ladderId, rungId)).toEqual({ 'rungs.1.gates': `There is no rung “${rungId}”.` })
		expect(withRung('cut', 1, { gates: [{ kind: 'days-below', days: 3 }] })).toEqual({})
	})
	it('a rebound from a box opens at level 2 and never below', () => {
		const at = ladderOf('shock').rungs.findIndex((rung) => rung.id === 'depth-15')
		expect(withRung('shock', at, { level: 1 })).toEqual({
			[`rungs.${at}.level`]: `${drill('depth-jump').name} opens at level 2 and never below.`,
		})
		expect(withRung('shock', 2, { level: 1 })).toEqual({})
	})
})

describe('the recipe of a session', () => {
	const wrong = (change: Partial<Theme>, id = 'acceleration') =>
		themeProblems({ ...STARTER_LIBRARY.themes[id]!, ...change }, STARTER_LIBRARY)
	const starts = {
		part: 'Starts',
		forms: [{ level: 1 as const, drillId: 'standing-start' }],
		quantity: 'fastMetres' as const,
	}
	it('names drills and ladders there are, and no way back', () => {
		expect(wrong({ pieces: [starts, { part: 'A', ladderId: 'gone', quantity: null }] })).toEqual({
			'pieces.1': '“gone” is not a ladder of the library.',
		})
		expect(wrong({ opening: [{ part: 'A', drillId: 'gone' }] })).toEqual({
			'opening.0': '“gone” is not a drill of the library.',
		})
		expect(wrong({ closing: [{ ...starts, forms: [{ level: 1 as const, drillId: 'gone' }] }] })).toHaveProperty([
			'closing.0',
		])
		const back = Object.values(STARTER_LIBRARY.ladders).find(({ path }) => path !== undefined)!
		expect(wrong({ kept: [{ part: 'A', ladderId: back.id, quantity: null }] })['kept.0']).toMatch(/is a way back/)
	})
	it('has one form for a level, the lowest first', () => {
		const forms = (...levels: (1 | 2 | 3)[]) =>
			wrong({ pieces: [{ ...starts, forms: levels.map((level) => ({ level, drillId: 'standing-start' })) }] })
		expect(forms(1, 2, 3)).toEqual({})
		expect(forms(2)).toEqual({})
		expect(forms(2, 1)).toHaveProperty(['pieces.0'])
		expect(forms(1, 1)).toHaveProperty(['pieces.0'])
		expect(forms(1, 2, 2)).toHaveProperty(['pieces.0'])
		// Those of level 3 take turns.
		expect(forms(1, 3, 3)).toEqual({})
		expect(forms(3, 3, 1)).toHaveProperty(['pieces.0'])
	})
	it('never asks for more than five rebounds a set', () => {
		const rebounds = (reps: number) =>
			wrong({ pieces: [starts, { part: 'A', drillId: 'depth-jump', dose: { sets: 2, reps } }] })
		expect(rebounds(5)).toEqual({})
		expect(rebounds(6)).toEqual({ 'pieces.1': 'Never more than 5 rebounds a set.' })
	})
	it('of a hard day is about one quality, another at most second, and has a piece for the first', () => {
		expect(wrong({ main: null })).toHaveProperty('main')
		expect(wrong({ second: 'sprint' })).toHaveProperty('second')
		expect(wrong({ second: null })).toEqual({})
		expect(wrong({ main: 'throw', second: null })).toEqual({
			pieces: 'No piece is there for what the day is about.',
		})
		expect(wrong({ pieces: [{ part: 'A', ladderId: 'acceleration', quantity: null }] })).toHaveProperty('pieces')
	})
	it('of another day is about nothing, keeps nothing and has no turn in a block', () => {
		expect(wrong({ main: 'sprint' }, 'tests')).toHaveProperty('main')
		expect(wrong({ second: 'sprint' }, 'tendon')).toHaveProperty('main')
		expect(wrong({ kept: [{ part: 'A', ladderId: 'cut', quantity: null }] }, 'tests')).toHaveProperty('kept')
		expect(wrong({ inBlock: { peaking: 1 } }, 'tests')).toHaveProperty('inBlock')
	})
})
