import { describe, expect, it } from 'vitest'
import { QUALITY_FIRST } from '../library/schools'
import { type CalendarItem, checkCalendar } from './calendar-checks'

// S6 on the calendar: 48 h between two days of a kind, met from 44 h. S11: no shock within 48 h before a match,
// nothing hard within 36 h after one. Each clash with repairs that are known to work.

const item = (id: string, day: string, more: Partial<CalendarItem> = {}): CalendarItem => ({
	id,
	day,
	startTime: '18:00',
	athleteIds: ['ada'],
	kinds: ['maximal-sprint'],
	match: false,
	shock: false,
	movable: true,
	...more,
})
const match = (day: string, startTime = '18:00'): CalendarItem =>
	item('match', day, { startTime, kinds: [], match: true, movable: false })
const check = (...items: CalendarItem[]) => checkCalendar(items, QUALITY_FIRST, '2026-03-09')
// Monday 9 March to Sunday 15 March.

describe('two days of one kind', () => {
	it.each([
		['2026-03-11', '13:59', 43 + 59 / 60],
		['2026-03-11', '14:00', null],
		['2026-03-10', '18:00', 24],
		['2026-03-12', '18:00', null],
	])('Monday 18:00 and %s %s', (day, startTime, hours) => {
		const clashes = check(item('a', '2026-03-09'), item('b', day, { startTime }))
		if (hours === null) expect(clashes).toEqual([])
		else
			expect(clashes).toMatchObject([
				{
					rule: 'S6',
					itemId: 'b',
					otherId: 'a',
					sentence: `${Math.round(hours)} h between two days of maximal sprinting; 48 h are asked`,
					ease: true,
				},
			])
	})
	it('clash only in a kind they share, and only for somebody they share', () => {
		expect(check(item('a', '2026-03-09'), item('b', '2026-03-10', { kinds: ['hard-jumps'] }))).toEqual([])
		expect(check(item('a', '2026-03-09'), item('b', '2026-03-10', { athleteIds: ['bo'] }))).toEqual([])
		expect(check(item('a', '2026-03-09'), item('b', '2026-03-10', { athleteIds: ['bo', 'ada'] }))).toHaveLength(1)
		expect(
			check(
				item('a', '2026-03-09', { kinds: ['hard-turns', 'hard-jumps'] }),
				item('b', '2026-03-10', { kinds: ['hard-jumps'] }),
			),
		).toMatchObject([{ sentence: '24 h between two days of high and shock jumps; 48 h are asked' }])
	})
	it('the very same start is one session', () => {
		expect(check(item('a', '2026-03-09'), item('b', '2026-03-09'))).toEqual([])
	})
})

describe('around a match', () => {
	it.each([
		['2026-03-12', '18:00', null],
		['2026-03-12', '18:30', 'Shock work 48 h before a match; 48 h are asked'],
		['2026-03-12', '17:00', null],
		['2026-03-13', '18:00', 'Shock work 24 h before a match; 48 h are asked'],
		['2026-03-14', '18:00', 'Shock work 0 h before a match; 48 h are asked'],
	])('shock work on %s %s before a match on Saturday 18:00', (day, startTime, sentence) => {
		const clashes = check(item('a', day, { startTime, shock: true, kinds: ['hard-jumps'] }), match('2026-03-14'))
		expect(clashes.map((clash) => clash.sentence)).toEqual(sentence === null ? [] : [sentence])
	})
	it('other hard work before a match is no clash', () => {
		expect(check(item('a', '2026-03-13'), match('2026-03-14'))).toEqual([])
	})
	it.each([
		['2026-03-11', '05:00', 'Hard work 35 h after a match; 36 h are asked'],
		['2026-03-11', '07:00', null],
		['2026-03-10', '10:00', 'Hard work 16 h after a match; 36 h are asked'],
	])('hard work on %s %s after a match on Monday 18:00', (day, startTime, sentence) => {
		const clashes = check(item('a', day, { startTime }), match('2026-03-09'))
		expect(clashes.map((clash) => clash.sentence)).toEqual(sentence === null ? [] : [sentence])
	})
	it('easy work after a match is no clash, and two matches are none', () => {
		expect(check(item('a', '2026-03-10', { kinds: [] }), match('2026-03-09'))).toEqual([])
		expect(check(match('2026-03-09'), { ...match('2026-03-10'), id: 'other' })).toEqual([])
	})
})

describe('what repairs it', () => {
	it('moves the later of two that can move, nearest days first, onto no day with work and none that clashes', () => {
		// Monday and Tuesday clash; Wednesday would still be 48 h from Monday: fine. Thursday is taken.
		const [clash] = check(item('a', '2026-03-09'), item('b', '2026-03-10'), item('c', '2026-03-14', { kinds: [] }))
		expect(clash).toMatchObject({ itemId: 'b', otherId: 'a', ease: true })
		expect(clash?.moveTo).toEqual(['2026-03-11', '2026-03-12', '2026-03-13'])
	})
	it('moves the earlier when the later has begun, and never before the first day', () => {
		const [clash] = check(item('a', '2026-03-11'), item('b', '2026-03-12', { movable: false }))
		expect(clash).toMatchObject({ itemId: 'a', otherId: 'b' })
		// Wednesday back by one and two days, not before Monday; forward only from Saturday on, two days after Thursday.
		expect(clash?.moveTo).toEqual(['2026-03-10', '2026-03-09', '2026-03-14', '2026-03-15'])
	})
	it('says nothing when neither can move', () => {
		expect(check(item('a', '2026-03-11', { movable: false }), item('b', '2026-03-12', { movable: false }))).toEqual([])
	})
	it('leaves out no hard work where that would not end it', () => {
		// A session without hard kinds but with shock still clashes before a match; easing takes both out.
		expect(check(item('a', '2026-03-13', { kinds: [], shock: true }), match('2026-03-14'))[0]?.ease).toBe(true)
	})
})
