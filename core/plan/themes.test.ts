import { describe, expect, it } from 'vitest'
import { TRAINED, BEGINNER, costOf, plainAthlete, plainRequest } from '../../tests/support/plain-squad'
import { STARTER_LIBRARY } from '../library/starter-library'
import { proposeSession, sayShortfall } from './propose-session'
import { QUALITY_NAMES, quantitiesOf, targetOf } from './targets'
import { THEME_IDS, type ThemeId } from '../vocabulary/session'
import { KEEPING, type Theme, blockThemes, sayTheme, themeOf, themeOn } from './themes'

const library = STARTER_LIBRARY
const squad = [plainAthlete('Ana', 2, TRAINED), plainAthlete('Bo', 1, BEGINNER), plainAthlete('Cy', 3, TRAINED)]
const asked = (theme: ThemeId | null, more: object = {}, target: object = {}) =>
	plainRequest(squad, { minutes: 90, ...more, target: { ...plainRequest(squad).target, theme, ...target } })
const piecesOf = (theme: Theme) => [...theme.pieces, ...Object.values(KEEPING)]

describe('themes', () => {
	it.each(THEME_IDS)('%s names ladders and drills of the library, and at least one piece of its main quality', (id) => {
		const theme = themeOf(id)
		for (const piece of piecesOf(theme))
			if ('ladder' in piece) expect(library.ladders[piece.ladder], piece.ladder).toBeDefined()
			else for (const [, drill] of piece.forms) expect(library.drills[drill], drill).toBeDefined()
		const quantity = { sprint: 'fastMetres', plyometric: 'contacts', agility: 'cuts60', throw: 'throws' }[theme.main]
		expect(theme.pieces.some((piece) => piece.quantity === quantity)).toBe(true)
		expect(theme.second).not.toBe(theme.main)
	})
	it('every ladder that is climbed comes in some theme; rhythm, tissue and capacity belong to other parts of a day', () => {
		const put = new Set(
			THEME_IDS.flatMap((id) => piecesOf(themeOf(id)).flatMap((piece) => ('ladder' in piece ? [piece.ladder] : []))),
		)
		const others = Object.values(library.ladders)
			.filter(({ id, path }) => path === undefined && !put.has(id))
			.map(({ id }) => id)
		expect(others.sort()).toEqual(['capacity', 'skip-rhythm', 'tissue'])
	})
})

describe('targets of a day with a theme', () => {
	// Level 2 by hand from the published ranges: 120–180 m, 80–140 contacts (110 in the middle, 120 at most), 10–20 cuts, 10–30 throws.
	const of = (theme: ThemeId | null, quantity: 'fastMetres' | 'contacts' | 'cuts60' | 'throws', target: object = {}) =>
		targetOf(quantity, 2, asked(theme, {}, target).target)
	it('are the upper end for what it is about, two thirds of the middle for what comes second, two fifths for what is kept', () => {
		expect(of('acceleration', 'fastMetres')).toBe(180)
		expect(of('acceleration', 'contacts')).toBe(Math.round((110 * 2) / 3))
		expect(of('acceleration', 'cuts60')).toBe(4)
		expect(of('acceleration', 'throws')).toBe(6)
		expect(of('turns', 'cuts60')).toBe(20)
	})
	it('take no account of what the block drives on or keeps: the day says', () => {
		for (const target of [{ priority: 'throw' }, { kept: ['sprint'] }])
			expect(of('acceleration', 'fastMetres', target)).toBe(180)
		expect(of(null, 'fastMetres')).toBe(150)
	})
	it('are those of a light or a test day, whatever theme it had', () => {
		expect(of('acceleration', 'fastMetres', { role: 'light' })).toBe(0)
		expect(of('acceleration', 'contacts', { role: 'light' })).toBe(of(null, 'contacts', { role: 'light' }))
		expect(of('acceleration', 'contacts', { role: 'test' })).toBe(0)
	})
	it('fall with the week', () => expect(of('acceleration', 'fastMetres', { share: 0.5 })).toBe(90))
})

describe('a session with a theme', () => {
	it.each(THEME_IDS)('%s: five to eight pieces, warm-up first and the close last', (id) => {
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

it('only a hard day is about something', () => {
	expect(themeOn({ theme: 'turns', role: 'hard' })?.name).toBe('Turns and braking')
	for (const role of ['light', 'tissue', 'test'] as const) expect(themeOn({ theme: 'turns', role })).toBeNull()
	expect([themeOn({ theme: null, role: 'hard' }), themeOn({ role: 'hard' })]).toEqual([null, null])
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
		expect(blockThemes(sessions, 'sprint', ['throw'])).toEqual([
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
		).map((id) => themeOf(id!).main)
		expect(mains).toEqual(['sprint', 'plyometric', 'sprint', 'agility'])
	})
	it('of a block that only drives on one thing have that', () => {
		const all = blockThemes(week(1, 'peaking', 'hard', 'hard'), 'agility', ['sprint', 'plyometric', 'throw'])
		expect(all.map((id) => themeOf(id!).main)).toEqual(['agility', 'agility'])
	})
	it('where sprinting is only kept, too, the others share the days', () => {
		const mains = blockThemes(week(1, 'accumulate', 'hard', 'hard'), null, ['sprint', 'throw']).map(
			(id) => themeOf(id!).main,
		)
		expect(mains).toEqual(['plyometric', 'agility'])
	})
	it('unload as the general work does', () =>
		expect(blockThemes(week(4, 'unloading', 'hard', 'test'), 'sprint', [])).toEqual(['acceleration', null]))
	it('turn from start to speed as the emphasis does', () => {
		const sprints = (phase: 'intensify' | 'peaking') =>
			blockThemes([...week(1, phase, 'hard'), ...week(2, phase, 'hard')], 'sprint', [])
		expect(sprints('intensify')).toEqual(['acceleration', 'top-speed'])
		expect(sprints('peaking')).toEqual(['top-speed', 'acceleration'])
	})
})

it('a theme is said in one line', () => {
	expect(sayTheme('acceleration', QUALITY_NAMES)).toBe(
		'Acceleration first; jumps second; agility and throws only kept.',
	)
})
