import { describe, expect, it } from 'vitest'
import { TRAINED, BEGINNER, costOf, plainAthlete, plainRequest } from '../../tests/support/plain-squad'
import { STARTER_LIBRARY } from '../library/starter-library'
import { proposeSession, sayShortfall } from './propose-session'
import { QUALITY_NAMES, quantitiesOf, targetOf } from './targets'
import { themeProblems } from '../judge/document-problems'
import type { Theme } from '../vocabulary/theme'
import { blockThemes, sayTheme, themeOn, themesFor } from './themes'

const library = STARTER_LIBRARY
const { themes } = library
const of = (id: string): Theme => themes[id]!
const HARD = themesFor(themes, 'hard').map(({ id }) => id)
const squad = [plainAthlete('Ana', 2, TRAINED), plainAthlete('Bo', 1, BEGINNER), plainAthlete('Cy', 3, TRAINED)]
const asked = (theme: string | null, more: object = {}, target: object = {}) =>
	plainRequest(squad, {
		minutes: 90,
		...more,
		target: { ...plainRequest(squad).target, theme: theme === null ? null : of(theme), ...target },
	})
const piecesOf = ({ opening, pieces, kept, closing }: Theme) => [...opening, ...pieces, ...kept, ...closing]

describe('themes', () => {
	it.each(Object.keys(themes))('%s is sound beside the library', (id) =>
		expect(themeProblems(of(id), library)).toEqual({}),
	)
	it('every ladder that is climbed comes in some theme; capacity belongs to other parts of a day', () => {
		const put = new Set(
			Object.values(themes).flatMap((theme) =>
				piecesOf(theme).flatMap((piece) => ('ladderId' in piece ? [piece.ladderId] : [])),
			),
		)
		const others = Object.values(library.ladders)
			.filter(({ id, path }) => path === undefined && !put.has(id))
			.map(({ id }) => id)
		expect(others).toEqual(['capacity'])
	})
	it('are asked for by quality, each in the order a block gives them days, then by name', () => {
		expect(themesFor(themes, 'hard').map(({ id }) => id)).toEqual([
			'mixed',
			...['acceleration', 'top-speed', 'carried', 'heavy-and-free', 'one-rep', 'faster-than-alone', 'repeat-speed'],
			...['rebound', 'stiffness', 'bounds', 'sideways', 'take-off'],
			...['turns', 'curves', 'throws'],
		])
		expect([themesFor(themes, 'tissue'), themesFor(themes, 'test')].map((all) => all.map(({ id }) => id))).toEqual([
			['tendon'],
			['tests'],
		])
		expect(themesFor(themes, 'light').map(({ id }) => id)).toEqual(['easy', 'return'])
	})
})

describe('a recipe a club has changed', () => {
	const own = (change: Partial<Theme>): Theme => ({ ...of('acceleration'), version: 1001, ...change })
	const proposed = (theme: Theme) =>
		proposeSession(plainRequest(squad, { minutes: 90, target: { ...plainRequest(squad).target, theme } })).entries
	it('is what the session is made of: its warm-up, pieces, what it keeps and its close', () => {
		const entries = proposed(
			own({
				opening: [{ part: 'Ramp', drillId: 'leg-swings', dose: { sets: 1, reps: 14 } }],
				pieces: [{ part: 'Go', forms: [{ level: 1, drillId: 'standing-start' }], quantity: 'fastMetres' }],
				kept: [{ part: 'Turns', ladderId: 'cut', quantity: 'cuts60' }],
				closing: [],
			}),
		)
		expect(entries.map(({ part, drillId, ladderId }) => [part, ladderId ?? drillId])).toEqual([
			['Ramp', 'leg-swings'],
			['Go', 'standing-start'],
			['Turns', 'cut'],
		])
		expect(entries[0]!.dose).toEqual({ sets: 1, reps: 14 })
		// Half of what the rung asks keeps a quality.
		expect(entries[2]!.doseFactor).toBe(0.5)
	})
	it('says only what it keeps', () => {
		expect(sayTheme(own({ kept: [] }), QUALITY_NAMES)).toBe('Acceleration first; jumps second.')
		expect(sayTheme(own({ second: null }), QUALITY_NAMES)).toBe('Acceleration first; agility and throws only kept.')
		expect(sayTheme(of('tests'), QUALITY_NAMES)).toBe('Tests.')
	})
	it('with no second quality gives what is left two fifths of its middle', () => {
		const request = { ...plainRequest(squad).target, theme: own({ second: null }) }
		// Level 2: 80 to 140 contacts, 110 in the middle.
		expect(targetOf('contacts', 2, request)).toBe(44)
	})
	it('of tests or tendon work is what those days are made of', () => {
		const change = (role: 'test' | 'tissue', pieces: Theme['pieces']) => {
			const theme: Theme = { ...of(role === 'test' ? 'tests' : 'tendon'), id: 'own', pieces }
			const request = plainRequest(squad, { target: { ...plainRequest(squad).target, role, theme } })
			return proposeSession(request).entries.map(({ part, drillId }) => [part, drillId])
		}
		expect(change('tissue', [{ part: 'Holds', drillId: 'bridge-hold' }])).toEqual([['Holds', 'bridge-hold']])
		expect(change('test', [{ part: 'Trial', drillId: 'broad-jump' }]).slice(3)).toEqual([
			['Trial', 'broad-jump'],
			['Close', 'easy-close'],
		])
	})
	it('has its turn in a block where it says so, and none where it does not', () => {
		const days = [1, 2].map((week) => ({ week, phase: 'accumulate' as const, role: 'hard' as const }))
		const mine: Theme = { ...of('acceleration'), id: 'mine', name: 'Mine' }
		const turns = (inBlock: Theme['inBlock']) =>
			blockThemes(days, 'sprint', [], { ...themes, mine: { ...mine, inBlock } })
		expect(turns({})).toEqual(['acceleration', 'acceleration'])
		expect(turns({ accumulate: 2 })).toEqual(['acceleration', 'mine'])
		expect(turns({ peaking: 1 })).toEqual(['acceleration', 'acceleration'])
		// Nobody's turn: a day for everything a little.
		expect(blockThemes(days, 'sprint', [], {})).toEqual([null, null])
	})
})

describe('forms that take turns at level 3', () => {
	// Week by week, by the school: 2026-03-02 is a Monday.
	const forward = (variety: 'same' | 'rotate', day: string) => {
		const plain = asked('acceleration')
		const { school } = plain.context
		const { entries } = proposeSession({
			...plain,
			context: { ...plain.context, day, school: { ...school, choices: { ...school.choices, variety } } },
		})
		const { variants } = entries.find(({ part }) => part === 'Jumps forward')!.tuning!
		return [1, 2, 3].map((level) => variants![level as 1 | 2 | 3]!.drillId)
	}
	const WEEKS = ['2026-03-02', '2026-03-08', '2026-03-09', '2026-03-16']
	it('change with the week where the school rotates, for nobody below level 3', () => {
		const all = WEEKS.map((day) => forward('rotate', day))
		expect(all.map(([one, two]) => [one, two])).toEqual(WEEKS.map(() => ['broad-jump', 'repeated-broad-jump']))
		const thirds = all.map(([, , three]) => three)
		expect(new Set(thirds)).toEqual(new Set(['repeated-broad-jump', 'bunny-hop']))
		expect([thirds[1], thirds[3]]).toEqual([thirds[0], thirds[0]])
		expect(thirds[2]).not.toBe(thirds[0])
	})
	it('stay the first where it keeps to one', () =>
		expect(WEEKS.map((day) => forward('same', day)[2])).toEqual(WEEKS.map(() => 'repeated-broad-jump')))
})

describe('a recipe that asks less than a full day', () => {
	it('asks its share of every target', () => {
		// Level 2: 180 m is the most of a day, a quarter of it 45, in tens 50 (common rounding of a half upward).
		expect(targetOf('fastMetres', 2, asked('one-rep').target)).toBe(50)
		// A light day asks half the middle of 80 to 140 contacts, a return day half of that.
		expect(targetOf('contacts', 2, asked('easy', {}, { role: 'light' }).target)).toBe(55)
		expect(targetOf('contacts', 2, asked('return', {}, { role: 'light' }).target)).toBe(28)
	})
	it('runs one rehearsal and one full rep', () => {
		const { entries } = proposeSession(asked('one-rep'))
		const runs = entries.filter(({ family }) => family === 'sprint').map(({ part, dose }) => [part, dose])
		expect(runs).toEqual([
			['Rehearsal', { sets: 1, reps: 1 }],
			['One rep', { sets: 1, reps: 1 }],
		])
	})
})

describe('a day for everything a little', () => {
	const parts = (more: object, target: object = {}) => [
		...new Set(proposeSession(asked('mixed', { minutes: 240, ...more }, target)).entries.map(({ part }) => part)),
	]
	it('goes by the block: its priority first, throws last', () => {
		const middle = (priority: string) => parts({}, { priority }).slice(2, -1)
		expect(middle('sprint')).toEqual(['Acceleration', 'Jumps', 'Stops', 'Cuts', 'Throws'])
		expect(middle('agility').slice(0, 2)).toEqual(['Stops', 'Cuts'])
		expect(middle('throw').at(-1)).toBe('Throws')
	})
	it('brings in the ladders the block drives on, before what tops their quality up', () => {
		const { entries } = proposeSession(asked('mixed', { minutes: 240, priorityLadders: ['top-speed', 'cut'] }))
		const speed = entries.findIndex(({ ladderId }) => ladderId === 'top-speed')
		expect(entries[speed + 1]!.tuning?.fill?.quantity).toBe('fastMetres')
		expect(entries.filter(({ ladderId }) => ladderId === 'cut')).toHaveLength(1)
	})
})

describe('targets of a day with a theme', () => {
	// Level 2 by hand from the published ranges: 120–180 m, 80–140 contacts (110 in the middle, 120 at most), 10–20 cuts, 10–30 throws.
	const asks = (theme: string | null, quantity: 'fastMetres' | 'contacts' | 'cuts60' | 'throws', target: object = {}) =>
		targetOf(quantity, 2, asked(theme, {}, target).target)
	it('are the upper end for what it is about, two thirds of the middle for what comes second, two fifths for what is kept', () => {
		expect(asks('acceleration', 'fastMetres')).toBe(180)
		expect(asks('acceleration', 'contacts')).toBe(Math.round((110 * 2) / 3))
		expect(asks('acceleration', 'cuts60')).toBe(4)
		expect(asks('acceleration', 'throws')).toBe(6)
		expect(asks('turns', 'cuts60')).toBe(20)
	})
	it('take no account of what the block drives on or keeps: the day says', () => {
		for (const target of [{ priority: 'throw' }, { kept: ['sprint'] }])
			expect(asks('acceleration', 'fastMetres', target)).toBe(180)
		expect(asks(null, 'fastMetres')).toBe(150)
	})
	it('are those of a light or a test day, whatever theme it had', () => {
		expect(asks('acceleration', 'fastMetres', { role: 'light' })).toBe(0)
		expect(asks('acceleration', 'contacts', { role: 'light' })).toBe(asks(null, 'contacts', { role: 'light' }))
		expect(asks('acceleration', 'contacts', { role: 'test' })).toBe(0)
	})
	it('fall with the week', () => expect(asks('acceleration', 'fastMetres', { share: 0.5 })).toBe(90))
})

describe('a session with a theme', () => {
	it.each(HARD)('%s: five to eight pieces, warm-up first and the close last', (id) => {
		const { entries } = proposeSession(asked(id))
		const parts = [...new Set(entries.map(({ part }) => part))]
		expect(parts.length).toBeGreaterThanOrEqual(5)
		expect(parts.length).toBeLessThanOrEqual(8)
		expect([parts[0], parts.at(-1)]).toEqual(['Warm-up', 'Close'])
	})
	it('reaches what the day is about at every level, in the ranges as published: 180, 120 and 240 m', () => {
		const proposal = proposeSession(asked('acceleration'))
		expect(squad.map((one) => quantitiesOf(costOf(proposal, one)).fastMetres)).toEqual([180, 120, 240])
	})
	it('in little time everything else shrinks first: what is kept, then what comes second', () => {
		const metres = (minutes: number) =>
			squad.map((one) => quantitiesOf(costOf(proposeSession(asked('acceleration', { minutes })), one)).fastMetres)
		expect(metres(50)).toEqual([180, 120, 240])
		const short = proposeSession(asked('acceleration', { minutes: 50 }))
		expect(short.minutes).toBeLessThanOrEqual(50)
		expect(short.entries.some(({ part }) => part.endsWith(', kept'))).toBe(false)
		expect(short.entries.at(-1)!.part).toBe('Close')
		// What was left out for time is said to be.
		const said = short.shortfalls.map((one) => sayShortfall(one, (id) => id)).join(' ')
		expect(said).toMatch(/Throws: Ana, Bo, Cy 0 of .*: the minutes\./)
		expect(said).not.toMatch(/Sprint/)
	})
	it('does nothing to a light day or to tests', () => {
		for (const role of ['light', 'tissue', 'test'] as const)
			expect(proposeSession(asked('acceleration', {}, { role })).entries.map(({ part }) => part)).toEqual(
				proposeSession(asked(null, {}, { role })).entries.map(({ part }) => part),
			)
	})
})

it('a day has the recipe that is asked for, its own kind alone; where none is, the first of its kind, on a hard day the one for everything', () => {
	expect(themeOn(themes, { theme: 'turns', role: 'hard' })?.name).toBe('Turns and braking')
	expect(themeOn(themes, { theme: 'turns', role: 'light' })?.id).toBe('easy')
	expect(themeOn(themes, { theme: 'turns', role: 'tissue' })?.id).toBe('tendon')
	expect(themeOn(themes, { role: 'test' })?.id).toBe('tests')
	const other = { ...of('tests'), id: 'more', name: 'A throw only' }
	expect(themeOn({ ...themes, other }, { theme: 'other', role: 'test' })?.name).toBe('A throw only')
	// A theme that is no more, or never was.
	for (const theme of ['gone', 'constructor', null]) expect(themeOn(themes, { theme, role: 'hard' })?.id).toBe('mixed')
	expect(themeOn({ turns: of('turns') }, { role: 'hard' })).toBeNull()
	expect(themeOn({}, { role: 'test' })).toBeNull()
})

describe('the days of a block', () => {
	const week = (number: number, phase: 'accumulate' | 'intensify' | 'peaking' | 'unloading', ...roles: string[]) =>
		roles.map((role) => ({ week: number, phase, role: role as 'hard' }))
	it('begin each week with what the block drives on; the others take turns, what is kept has no day', () => {
		const sessions = [
			...week(1, 'accumulate', 'hard', 'light', 'hard'),
			...week(2, 'accumulate', 'hard', 'light', 'hard'),
			...week(3, 'intensify', 'hard', 'tissue', 'hard'),
		]
		expect(blockThemes(sessions, 'sprint', ['throw'], themes)).toEqual([
			'acceleration',
			null,
			'stiffness',
			'acceleration',
			null,
			'turns',
			'acceleration',
			null,
			// The second day of jumps.
			'bounds',
		])
	})
	it('without a priority begin with sprinting; the others have their turn', () => {
		const mains = blockThemes(
			[...week(1, 'accumulate', 'hard', 'hard'), ...week(2, 'accumulate', 'hard', 'hard')],
			null,
			[],
			themes,
		).map((id) => of(id!).main)
		expect(mains).toEqual(['sprint', 'plyometric', 'sprint', 'agility'])
	})
	it('of a block that only drives on one thing have that', () => {
		const all = blockThemes(week(1, 'peaking', 'hard', 'hard'), 'agility', ['sprint', 'plyometric', 'throw'], themes)
		expect(all.map((id) => of(id!).main)).toEqual(['agility', 'agility'])
	})
	it('where sprinting is only kept, too, the others share the days', () => {
		const mains = blockThemes(week(1, 'accumulate', 'hard', 'hard'), null, ['sprint', 'throw'], themes).map(
			(id) => of(id!).main,
		)
		expect(mains).toEqual(['plyometric', 'agility'])
	})
	it('unload as the general work does', () =>
		expect(blockThemes(week(4, 'unloading', 'hard', 'test'), 'sprint', [], themes)).toEqual(['acceleration', null]))
	it('turn from start to speed as the emphasis does', () => {
		const sprints = (phase: 'intensify' | 'peaking') =>
			blockThemes([...week(1, phase, 'hard'), ...week(2, phase, 'hard')], 'sprint', [], themes)
		expect(sprints('intensify')).toEqual(['acceleration', 'top-speed'])
		expect(sprints('peaking')).toEqual(['top-speed', 'acceleration'])
	})
})

it('a theme is said in one line', () => {
	expect(sayTheme(of('acceleration'), QUALITY_NAMES)).toBe(
		'Acceleration first; jumps second; agility and throws only kept.',
	)
})
