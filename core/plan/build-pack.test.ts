import { describe, expect, it } from 'vitest'
import { emptyCount } from '../dose/dose-count'
import type { DayDose, RampQuantity } from '../dose/ramp'
import type { Level } from '../vocabulary/words'
import { type PlannedDay, isBefore, roomsOn } from './build-pack'

// S7 on a day ahead. Level 2 may start 16 times in a week whatever came before, and more than that by the ramp's
// percentage over the mean of the last trained weeks. Monday 9 March to Sunday 15 March.

const none: Record<RampQuantity, DayDose[]> = { hardContacts: [], sharpCuts: [], maximalStarts: [], fastMetres: [] }
const did = (day: string, value: number) => ({ ...none, maximalStarts: [{ day, unloading: false, value }] })
const planned = (day: string, maximalStarts: number, more: Partial<PlannedDay> = {}): PlannedDay => ({
	day,
	startTime: '17:30',
	phase: 'accumulate',
	count: { ...emptyCount(), maximalStarts },
	...more,
})
const starts = (day: string, those: PlannedDay[], done: Record<RampQuantity, DayDose[]> = none, level: Level = 2) =>
	roomsOn({ day, startTime: '17:30' }, done, those, () => level, 15).maximalStarts

describe('what the week’s ramp leaves a session', () => {
	it.each([
		['nothing else in the week', [], 16],
		['less what is planned before it', [planned('2026-03-10', 6)], 10],
		['less what is planned after it, to the Sunday', [planned('2026-03-15', 6)], 10],
		['not what is planned the Monday after', [planned('2026-03-16', 6)], 16],
		['less both', [planned('2026-03-10', 6), planned('2026-03-15', 7)], 3],
		['nothing, never less', [planned('2026-03-10', 10), planned('2026-03-15', 10)], 0],
		['less what is planned that morning', [planned('2026-03-12', 6, { startTime: '09:00' })], 10],
		['less what is planned that evening', [planned('2026-03-12', 6, { startTime: '19:00' })], 10],
	])('%s', (_, those, left) => expect(starts('2026-03-12', those)).toBe(left))

	it('an excess before it counts as no more than was left', () => {
		// 30 of 16 in the week before make a week of 16: 15 % more are 18.4; of 30 they would be 34.5.
		expect(starts('2026-03-12', [planned('2026-03-03', 30)])).toBeCloseTo(18.4)
		expect(starts('2026-03-12', [planned('2026-03-03', 16)])).toBeCloseTo(18.4)
		// Two of that week together, whatever order they stand in.
		for (const those of [
			[planned('2026-03-02', 10), planned('2026-03-05', 10)],
			[planned('2026-03-05', 10), planned('2026-03-02', 10)],
		])
			expect(starts('2026-03-12', those)).toBeCloseTo(18.4)
	})
	it('an unloading week ahead is none of those it grows from', () => {
		const week = did('2026-02-23', 20)
		expect(starts('2026-03-12', [planned('2026-03-03', 4, { phase: 'unloading' })], week)).toBeCloseTo(23)
		expect(starts('2026-03-12', [planned('2026-03-03', 4)], week)).toBe(16)
	})
	it('each quantity by the level of its own family', () => {
		const levels = { plyometric: 1, agility: 2, sprint: 3 } as const
		const rooms = roomsOn(
			{ day: '2026-03-12', startTime: '17:30' },
			none,
			[],
			(family) => levels[family as keyof typeof levels],
			15,
		)
		expect(rooms).toEqual({ hardContacts: 20, sharpCuts: 20, maximalStarts: 24, fastMetres: 180 })
	})
	it('what was done is left as it is handed in', () => {
		const done = did('2026-03-09', 2)
		expect(starts('2026-03-12', [planned('2026-03-10', 6)], done)).toBe(8)
		expect(done.maximalStarts).toHaveLength(1)
	})
})

it.each([
	['2026-03-12', '17:29', true],
	['2026-03-12', '17:30', false],
	['2026-03-12', '17:31', false],
	['2026-03-11', '19:00', true],
	['2026-03-13', '09:00', false],
])('a session of %s, %s is before one of 12 March, 17:30: %s', (day, startTime, before) =>
	expect(isBefore({ day, startTime }, { day: '2026-03-12', startTime: '17:30' })).toBe(before),
)
