import { describe, expect, it } from 'vitest'
import { emptyCount } from '../dose/dose-count'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { School } from '../vocabulary/school'
import type { Surface, Level } from '../vocabulary/words'
import { factsOf } from '../../tests/support/plain-facts'
import type { WorkDay } from '../judge/types'
import type { WorkKind } from '../vocabulary/words'
import { type CheckedEntry, checkGround, checkLine, checkOrder } from './session-checks'

const entry = (id: string, sets = 3, reps = 3): CheckedEntry => ({
	entryId: id,
	drill: STARTER_LIBRARY.drills[id]!,
	parameters: STARTER_LIBRARY.drills[id]!.defaults.parameters,
	dose: { sets, reps },
})
const repeated = Object.values(STARTER_LIBRARY.drills).find((one) => one.repeatSpeed)!.id

// S5, caution: shock and maximal work only early in a session, never after throws to fatigue or conditioning.
describe('S5, order', () => {
	const named = (...entries: CheckedEntry[]) => checkOrder(entries).map((caution) => caution.entryId)
	it('fast work and rebounds after conditioning are said, before it not', () => {
		expect(named(entry('standing-start'), entry(repeated))).toEqual([])
		expect(named(entry(repeated), entry('standing-start'), entry('depth-jump'))).toEqual([
			'standing-start',
			'depth-jump',
		])
	})
	it('easy work after it is not said, more conditioning neither', () => {
		expect(named(entry(repeated), entry('pogo'), entry('relaxed-skip'), entry(repeated))).toEqual([])
	})
	it.each([
		[4, 5, []],
		[3, 7, ['standing-start']],
	])('%d×%d throws before a start', (sets, reps, expected) => {
		expect(named(entry('overhead-throw', sets, reps), entry('standing-start'))).toEqual(expected)
	})
	it('throws of several drills add up: 20 are fresh, 21 are not', () => {
		expect(named(entry('overhead-throw', 2, 5), entry('overhead-throw', 2, 5), entry('standing-start'))).toEqual([])
		expect(named(entry('overhead-throw', 2, 5), entry('overhead-throw', 1, 11), entry('standing-start'))).toEqual([
			'standing-start',
		])
	})
	it('throws after throws are not held against each other', () => {
		expect(named(entry('overhead-throw', 5, 5), entry('overhead-throw', 5, 5))).toEqual([])
	})
	it('names what came before', () => {
		expect(checkOrder([entry('overhead-throw', 5, 5), entry('standing-start')])[0]).toMatchObject({
			rule: 'S5',
			sentence: 'Standing start comes after 25 throws: shock and maximal work belong early, while fresh.',
		})
	})
})

// S10: on hard ground four fifths of the contacts are allowed; counts never change.
describe('S10, hard ground', () => {
	const contacts = (both: number) => {
		const count = emptyCount()
		count.contacts.moderate = { left: 0, right: 0, both }
		return count
	}
	it.each([
		[1, 80, false],
		[1, 81, true],
		[2, 96, false],
		[2, 97, true],
		[3, 112, false],
		[3, 113, true],
	] as [Level, number, boolean][])('level %d: %d contacts', (level, planned, tooMany) => {
		for (const surface of ['gravel', 'hard-court'] as const)
			expect(checkGround(contacts(planned), level, surface)).toHaveLength(tooMany ? 1 : 0)
		for (const surface of ['grass', 'wet-grass', 'track', 'indoor', null] as (Surface | null)[])
			expect(checkGround(contacts(planned), level, surface)).toEqual([])
	})
	it('low contacts are not counted', () => {
		const count = contacts(80)
		count.contacts.low = { left: 300, right: 300, both: 0 }
		expect(checkGround(count, 1, 'gravel')).toEqual([])
	})
	it('says how many and where', () => {
		expect(checkGround(contacts(90), 1, 'gravel')[0]?.sentence).toBe(
			'90 contacts on gravel: 80 are allowed there, four fifths of the usual.',
		)
		expect(checkGround(contacts(90), 1, 'hard-court')[0]?.sentence).toContain('on a hard court')
	})
})

// S6 and S11 for one line; tendon work at least 6 h from fast work.
describe('a line on its day', () => {
	const at = { day: '2026-03-12', startTime: '18:00' }
	const context = factsOf({ day: at.day })
	const work = (day: string, startTime: string, ...kinds: WorkKind[]): WorkDay => ({
		day,
		startTime,
		kinds,
		families: [],
		outside: false,
	})
	const rules = (id: string, ...days: WorkDay[]) =>
		checkLine(entry(id), at, days, context).map((caution) => caution.rule)
	it.each([
		['standing-start', work('2026-03-11', '18:00', 'maximal-sprint'), ['S6']],
		['standing-start', work('2026-03-10', '22:00', 'maximal-sprint'), []],
		['standing-start', work('2026-03-11', '18:00', 'hard-jumps'), []],
		['depth-jump', work('2026-03-11', '18:00', 'hard-jumps'), ['S6']],
		['pogo', work('2026-03-12', '12:00', 'hard-jumps', 'maximal-sprint'), []],
		['calf-hold', work('2026-03-12', '12:01', 'maximal-sprint'), ['S6']],
		['calf-hold', work('2026-03-12', '12:00', 'maximal-sprint'), []],
		['calf-hold', work('2026-03-12', '23:59', 'maximal-sprint'), ['S6']],
		['calf-hold', work('2026-03-12', '14:00', 'hard-jumps'), []],
	] as [string, WorkDay, string[]][])('%s against %j', (id, day, expected) => {
		expect(rules(id, day)).toEqual(expected)
	})
	it('a match near it is said by its own rule', () => {
		const near = { ...context, hoursToMatch: 30 }
		expect(checkLine(entry('depth-jump'), at, [], near)).toMatchObject([
			{ rule: 'S11', sentence: 'Depth jump: 30 h to a match: no shock and no new hard rung within 48 h.' },
		])
	})
	it('what the sheet leaves out anyway is not said again', () => {
		expect(checkLine(entry('depth-jump'), at, [], { ...context, ageYears: 12 })).toEqual([])
	})
	it('says how many hours lie between', () => {
		const [caution] = checkLine(entry('standing-start'), at, [work('2026-03-11', '18:00', 'maximal-sprint')], context)
		expect(caution?.sentence).toBe('Standing start: 24 h from other maximal sprinting, 48 h are asked.')
	})
	it('who is in two squads is asked what the stricter one asks, whichever trains', () => {
		const strict = { ...QUALITY_FIRST, numbers: { ...QUALITY_FIRST.numbers, spacingH: 72 } }
		const fifty = [work('2026-03-10', '16:00', 'maximal-sprint')]
		const said = (...schools: [School, ...School[]]) =>
			checkLine(entry('standing-start'), at, fifty, { ...context, schools }).map(({ sentence }) => sentence)
		const asked = ['Standing start: 50 h from other maximal sprinting, 72 h are asked.']
		expect(said(QUALITY_FIRST)).toEqual([])
		expect(said(strict)).toEqual(asked)
		expect(said(QUALITY_FIRST, strict)).toEqual(asked)
		expect(said(strict, QUALITY_FIRST)).toEqual(asked)
	})
})
