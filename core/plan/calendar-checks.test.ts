import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { addDays } from '../calendar/day-count'
import type { WorkKind } from '../vocabulary/words'
import { type CalendarItem, checkCalendar } from './calendar-checks'

// S6 on the calendar: 48 h between two days of a kind, met from 44 h. S11: no shock within 48 h before a match,
// nothing hard within 36 h after one. Each clash with repairs that are known to work.

type Asked = Omit<Partial<CalendarItem>, 'kinds' | 'shock'> & { kinds?: readonly WorkKind[]; shock?: boolean }
const item = (
	id: string,
	day: string,
	{ athleteIds = ['ada'], kinds = ['maximal-sprint'], shock = false, ...more }: Asked = {},
): CalendarItem => ({
	id,
	day,
	startTime: '18:00',
	athleteIds,
	kinds: new Map(athleteIds.map((one) => [one, kinds])),
	match: false,
	shock: new Set(shock ? athleteIds : []),
	movable: true,
	...more,
})
const match = (day: string, startTime = '18:00'): CalendarItem =>
	item('match', day, { startTime, kinds: [], match: true, movable: false })
const check = (...items: CalendarItem[]) => checkCalendar(items, () => 48, '2026-03-09')
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
	it('are of one athlete: what one does on one day and another on the next is no clash', () => {
		const both = ['ada', 'bo']
		const on = (id: string, day: string, who: string) => ({
			...item(id, day, { athleteIds: both }),
			kinds: new Map([[who, ['maximal-sprint' as const]]]),
		})
		expect(check(on('a', '2026-03-09', 'ada'), on('b', '2026-03-10', 'bo'))).toEqual([])
		expect(check(on('a', '2026-03-09', 'ada'), on('b', '2026-03-10', 'ada'))).toMatchObject([
			{ sentence: '24 h between two days of maximal sprinting; 48 h are asked (1 of 2 athletes)' },
		])
	})
	it('are asked by each athlete’s own schools, whatever another squad of the club asks', () => {
		const spacing: Record<string, number> = { ada: 48, bo: 72 }
		const said = (...athleteIds: string[]) =>
			checkCalendar(
				[item('a', '2026-03-09', { athleteIds }), item('b', '2026-03-11', { athleteIds })],
				(id) => spacing[id]!,
				'2026-03-09',
			).map(({ sentence }) => sentence)
		expect(said('ada')).toEqual([])
		expect(said('bo')).toEqual(['48 h between two days of maximal sprinting; 72 h are asked'])
		expect(said('ada', 'bo')).toEqual(['48 h between two days of maximal sprinting; 72 h are asked (1 of 2 athletes)'])
	})
	it('are told by the largest number of hours that is asked of somebody', () => {
		const athleteIds = ['ada', 'bo']
		const spacing: Record<string, number> = { ada: 48, bo: 72 }
		expect(
			checkCalendar(
				[item('a', '2026-03-09', { athleteIds }), item('b', '2026-03-10', { athleteIds })],
				(id) => spacing[id]!,
				'2026-03-09',
			),
		).toMatchObject([{ sentence: '24 h between two days of maximal sprinting; 72 h are asked' }])
	})
	it.each([
		['2026-03-13', '13:59', 1],
		['2026-03-13', '14:00', 0],
	])('are met from 92 h on where 96 are asked: Monday 18:00 and %s %s', (day, startTime, clashes) => {
		const items = [item('a', '2026-03-09'), item('b', day, { startTime })]
		expect(checkCalendar(items, () => 96, '2026-03-09')).toHaveLength(clashes)
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
		['2026-03-11', '05:59', 'Hard work 36 h after a match; 36 h are asked'],
		['2026-03-11', '06:00', null],
		['2026-03-11', '07:00', null],
		['2026-03-09', '18:00', null],
		['2026-03-10', '10:00', 'Hard work 16 h after a match; 36 h are asked'],
	])('hard work on %s %s after a match on Monday 18:00', (day, startTime, sentence) => {
		const expected = sentence === null ? [] : [sentence]
		for (const shock of [false, true]) {
			// The moment of the match itself is before it.
			if (shock && startTime === '18:00') continue
			const hard = item('a', day, { startTime, shock })
			expect(check(hard, match('2026-03-09')).map((clash) => clash.sentence)).toEqual(expected)
			expect(check(match('2026-03-09'), hard).map((clash) => clash.sentence)).toEqual(expected)
		}
	})
	it('is asked of who plays it and works hard', () => {
		const athleteIds = ['ada', 'bo']
		const game = { ...match('2026-03-14'), athleteIds }
		const shock = { ...item('a', '2026-03-13', { athleteIds, kinds: [] }), shock: new Set(['bo']) }
		expect(check(shock, game)).toMatchObject([
			{ sentence: 'Shock work 24 h before a match; 48 h are asked (1 of 2 athletes)' },
		])
		expect(check(shock, { ...game, athleteIds: ['ada'] })).toEqual([])
		const hard = item('a', '2026-03-15', { athleteIds: ['bo', 'cy'] })
		expect(check(hard, game)).toMatchObject([{ sentence: 'Hard work 24 h after a match; 36 h are asked' }])
		expect(check({ ...hard, kinds: new Map([['cy', ['hard-jumps' as const]]]) }, game)).toEqual([])
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
		expect(clash).toMatchObject({ itemId: 'b', otherId: 'a' })
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
	it('is the later of the two, in whatever order they come, and the later one of a day', () => {
		expect(check(item('b', '2026-03-10'), item('a', '2026-03-09'))).toMatchObject([{ itemId: 'b', otherId: 'a' }])
		const [morning, evening] = [item('a', '2026-03-09', { startTime: '09:00' }), item('b', '2026-03-09')]
		expect(check(morning, evening)).toMatchObject([{ itemId: 'b', otherId: 'a' }])
		expect(check(evening, morning)).toMatchObject([{ itemId: 'b', otherId: 'a' }])
	})
	it('offers a day on which only others train, later days before earlier ones that are as near', () => {
		// Wednesday 18:00, six hours after the other: Friday is far enough, Monday with its 42 h is not.
		const [clash] = checkCalendar(
			[
				item('a', '2026-03-11', { startTime: '12:00', movable: false }),
				item('b', '2026-03-11'),
				item('others', '2026-03-14', { athleteIds: ['cy'] }),
			],
			() => 48,
			'2026-03-02',
		)
		expect(clash).toMatchObject({ itemId: 'b', otherId: 'a' })
		expect(clash?.moveTo).toEqual(['2026-03-13', '2026-03-14', '2026-03-08', '2026-03-15', '2026-03-07'])
	})
	it('offers only moves that really repair: property over random fortnights', () => {
		const anyItem = fc.record({
			offset: fc.nat(13),
			kinds: fc.subarray(['maximal-sprint', 'hard-turns', 'hard-jumps'] as const),
			shock: fc.boolean(),
			match: fc.integer({ min: 0, max: 5 }),
			who: fc.subarray(['a', 'b', 'c'], { minLength: 1 }),
		})
		fc.assert(
			fc.property(fc.array(anyItem, { minLength: 2, maxLength: 8 }), (many) => {
				const items = many.map((one, at) =>
					item(String(at), addDays('2026-12-01', one.offset), {
						kinds: one.kinds,
						shock: one.shock,
						match: one.match === 0,
						movable: one.match !== 0,
						athleteIds: one.who,
					}),
				)
				const clashes = checkCalendar(items, () => 48, '2026-12-01')
				for (const clash of clashes)
					for (const day of clash.moveTo) {
						const after = checkCalendar(
							items.map((one) => (one.id === clash.itemId ? { ...one, day } : one)),
							() => 48,
							'2026-12-01',
						)
						expect(after.some((one) => one.itemId === clash.itemId || one.otherId === clash.itemId)).toBe(false)
						expect(after.length).toBeLessThan(clashes.length)
					}
			}),
			{ seed: 8, numRuns: 300 },
		)
	})
})
