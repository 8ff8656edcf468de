import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { countLine } from './count-line'
import { type DoseCount, type LegCount, emptyCount } from './dose-count'
import { type DayDose, RAMP_FLOORS, RAMP_NAMES, planInto, readRamp, rampValue } from './ramp'

// S7: week ≤ max(floor, (1 + ramp) × mean of the last four trained weeks, or as many as exist), leaving out
// unloading weeks and weeks missed. Week: Monday to Sunday for planning, the last seven days on the field;
// the stricter is shown. Our setting, all of it. 2026-03-09 is a Monday.

const on = (day: string, value: number, unloading = false): DayDose => ({ day, value, unloading })
const legs = (left: number, right: number, both = 0): LegCount => ({ left, right, both })

describe('what is watched', () => {
	const count = (change: (count: DoseCount) => void): DoseCount => {
		const made = emptyCount()
		change(made)
		return made
	}
	it.each([
		['low contacts are not', count((c) => (c.contacts.low = legs(50, 50, 50))), 0],
		['moderate contacts are not', count((c) => (c.contacts.moderate = legs(50, 50, 50))), 0],
		['high contacts are, a leg with its own and both', count((c) => (c.contacts.high = legs(3, 5, 10))), 15],
		['shock contacts are', count((c) => (c.contacts.shock = legs(0, 0, 20))), 20],
		[
			'high and shock go together',
			count((c) => {
				c.contacts.high = legs(4, 0, 0)
				c.contacts.shock = legs(0, 0, 20)
			}),
			24,
		],
		['cuts under 60° are not', count((c) => (c.cuts['30-60'] = legs(9, 9))), 0],
		['cuts under 30° are not', count((c) => (c.cuts['under-30'] = legs(9, 9))), 0],
		['cuts from 60° enter on the leg that plants', count((c) => (c.cuts['60-90'] = legs(2, 7))), 7],
		['cuts from 90° do', count((c) => (c.cuts['90-135'] = legs(8, 1))), 8],
		['cuts from 135° do', count((c) => (c.cuts['135-180'] = legs(1, 6))), 6],
		['dead stops do', count((c) => (c.deadStops = legs(5, 3))), 5],
		['dead stops do, on the right too', count((c) => (c.deadStops = legs(3, 5))), 5],
		['cuts from 60° enter on the left too', count((c) => (c.cuts['60-90'] = legs(7, 2))), 7],
		['cuts from 90° enter on the right too', count((c) => (c.cuts['90-135'] = legs(1, 8))), 8],
		['cuts from 135° enter on the left too', count((c) => (c.cuts['135-180'] = legs(6, 1))), 6],
		[
			'all on one leg, then the harder-worked leg is taken: left 10 + 4 + 3 + 2 + 1 against right 12',
			count((c) => {
				c.contacts.high = legs(10, 12)
				c.cuts['60-90'] = legs(4, 0)
				c.cuts['90-135'] = legs(3, 0)
				c.cuts['135-180'] = legs(2, 0)
				c.deadStops = legs(1, 0)
			}),
			20,
		],
		[
			'the right when it is the harder-worked one: 12 + 1 + 2 + 3 + 4 against left 15',
			count((c) => {
				c.contacts.high = legs(15, 12)
				c.cuts['60-90'] = legs(0, 1)
				c.cuts['90-135'] = legs(0, 2)
				c.cuts['135-180'] = legs(0, 3)
				c.deadStops = legs(0, 4)
			}),
			22,
		],
	])('hard contacts of the harder-worked leg: %s', (_, given, value) => {
		expect(rampValue(given, 'hardContacts')).toBe(value)
	})
	it('nine cuts of 90° by turns plant five times on the harder-worked leg', () => {
		const cuts = countLine(STARTER_LIBRARY.drills['cut-90']!, { distanceM: 10, angleDeg: 90 }, { sets: 3, reps: 3 })
		expect(rampValue(cuts, 'hardContacts')).toBe(5)
		expect(rampValue(cuts, 'sharpCuts')).toBe(9)
	})
	it('sharp cuts are those of 90° and more, on both legs together', () => {
		const given = count((c) => {
			c.cuts['60-90'] = legs(40, 40)
			c.cuts['90-135'] = legs(2, 3)
			c.cuts['135-180'] = legs(4, 0, 1)
		})
		expect(rampValue(given, 'sharpCuts')).toBe(10)
	})
	it('maximal starts and fast metres are taken as they were counted', () => {
		const given = count((c) => {
			c.maximalStarts = 7
			c.fastMetres = 130
			c.contacts.shock = legs(9, 9, 9)
		})
		expect(rampValue(given, 'maximalStarts')).toBe(7)
		expect(rampValue(given, 'fastMetres')).toBe(130)
	})
	it('floors: level 1 20 contacts, 10 cuts, 60 m; level 2 40, 20, 120; level 3 60, 30, 180', () => {
		expect(([1, 2, 3] as const).map((level) => RAMP_FLOORS[level])).toMatchObject([
			{ hardContacts: 20, sharpCuts: 10, fastMetres: 60 },
			{ hardContacts: 40, sharpCuts: 20, fastMetres: 120 },
			{ hardContacts: 60, sharpCuts: 30, fastMetres: 180 },
		])
		// Two sessions of an acceleration rung's own dose: 6, 8 and 12 starts each.
		expect(([1, 2, 3] as const).map((level) => RAMP_FLOORS[level].maximalStarts)).toEqual([12, 16, 24])
	})
	it('is named as a coach would', () => {
		expect(Object.values(RAMP_NAMES).every((name) => name.length > 10)).toBe(true)
	})
})

describe('the limit', () => {
	// Four weeks of 40, 44, 50, 54: mean 47. A week before them of 1,000 is the fifth and forgotten.
	const four = [on('2026-02-09', 40), on('2026-02-16', 44), on('2026-02-23', 50), on('2026-03-02', 54)]
	it.each([
		[5, 49.35],
		[15, 54.05],
		[20, 56.4],
	])('is %d %% over the mean of the last four trained weeks', (percent, limit) => {
		const reading = readRamp([on('2026-02-02', 1000), ...four], '2026-03-12', 10, percent)
		expect(reading.mean).toBe(47)
		expect(reading.limit).toBeCloseTo(limit, 9)
	})
	it('takes the newest four in whatever order the days come', () => {
		const oldest = on('2026-02-02', 1000)
		for (let at = 0; at <= four.length; at++)
			expect(readRamp([...four.slice(0, at), oldest, ...four.slice(at)], '2026-03-12', 10, 15).mean).toBe(47)
	})
	it('adds up the days of a week', () => {
		expect(readRamp([on('2026-03-02', 10), on('2026-03-05', 20), on('2026-03-08', 6)], '2026-03-12', 1, 15).mean).toBe(
			36,
		)
	})
	it('takes as many weeks as exist: one, two, three', () => {
		expect(readRamp(four.slice(3), '2026-03-12', 1, 15).mean).toBe(54)
		expect(readRamp(four.slice(2), '2026-03-12', 1, 15).mean).toBe(52)
		expect(readRamp(four.slice(1), '2026-03-12', 1, 15).mean).toBeCloseTo(49.333333, 5)
	})
	it('leaves an unloading week out, whichever of its days says so', () => {
		for (const week of [
			[on('2026-03-02', 5, true), on('2026-03-05', 5)],
			[on('2026-03-02', 5), on('2026-03-05', 5, true)],
		])
			expect(readRamp([on('2026-02-23', 50), ...week], '2026-03-12', 1, 15).mean).toBe(50)
	})
	it('leaves a missed week out, and one in which nothing of this was done', () => {
		expect(readRamp([on('2026-02-16', 50), on('2026-03-02', 0)], '2026-03-12', 1, 15).mean).toBe(50)
	})
	it('is the floor without history, and while it is the higher of the two', () => {
		expect(readRamp([], '2026-03-12', 20, 15)).toEqual({ done: 0, mean: null, limit: 20, room: 20 })
		// 1.15 × 20 = 23
		expect(readRamp([on('2026-03-02', 20)], '2026-03-12', 22.9, 15).limit).toBeCloseTo(23, 9)
		expect(readRamp([on('2026-03-02', 20)], '2026-03-12', 23.1, 15).limit).toBe(23.1)
	})
	it('forgets what lies more than twelve weeks behind the week of the day', () => {
		// Twelve weeks before Monday 9 March is Monday 15 December.
		expect(readRamp([on('2025-12-15', 30)], '2026-03-12', 1, 15).mean).toBe(30)
		expect(readRamp([on('2025-12-14', 30)], '2026-03-12', 1, 15).mean).toBeNull()
	})
	it.each([
		['Friday, the day after', '2026-03-13', 12],
		['Sunday of the same week', '2026-03-15', 12],
		['the Monday after', '2026-03-16', 0],
	])('what is known of %s: the week is whole, the next one is another', (_, day, done) => {
		const reading = { done, mean: null, limit: 20, room: 20 - done }
		expect(readRamp([on(day, 12)], '2026-03-12', 20, 15)).toEqual(reading)
	})
})

describe('what is done so far', () => {
	it.each([
		['Monday of the same week', '2026-03-09', '2026-03-12', 30],
		['the day itself', '2026-03-12', '2026-03-12', 30],
		['Sunday, in the seven days before Thursday', '2026-03-08', '2026-03-12', 30],
		['Friday before, six days back', '2026-03-06', '2026-03-12', 30],
		['Thursday before, seven days back', '2026-03-05', '2026-03-12', 0],
		['Saturday before a Monday', '2026-03-07', '2026-03-09', 30],
		['Monday, asked on Sunday of its week', '2026-03-09', '2026-03-15', 30],
		['Monday, asked on the Monday after', '2026-03-09', '2026-03-16', 0],
	])('%s', (_, day, asked, done) => {
		expect(readRamp([on(day, 30)], asked, 100, 15)).toMatchObject({ done, room: 100 - done })
	})
	it('is the larger of the calendar week and the seven days, never both together', () => {
		// Thursday: 8 on Friday last and 5 on Sunday roll, 20 on Tuesday lie in both: 33 against 20.
		const days = [on('2026-03-06', 8), on('2026-03-08', 5), on('2026-03-10', 20)]
		expect(readRamp(days, '2026-03-12', 100, 15).done).toBe(33)
		// What is done on the day itself lies in both: 8 on Friday last and 12 on Thursday roll.
		expect(readRamp([on('2026-03-06', 8), on('2026-03-12', 12)], '2026-03-12', 100, 15).done).toBe(20)
		// What is known of Saturday joins the calendar week alone: 20 + 10 = 30, then 20 + 15 = 35.
		expect(readRamp([...days, on('2026-03-14', 10)], '2026-03-12', 100, 15).done).toBe(33)
		expect(readRamp([...days, on('2026-03-14', 15)], '2026-03-12', 100, 15).done).toBe(35)
	})
	it('leaves no room once the limit is reached, and never less than none', () => {
		expect(readRamp([on('2026-03-10', 19)], '2026-03-12', 20, 15).room).toBe(1)
		expect(readRamp([on('2026-03-10', 20)], '2026-03-12', 20, 15).room).toBe(0)
		expect(readRamp([on('2026-03-10', 25)], '2026-03-12', 20, 15).room).toBe(0)
	})
	it('this week’s work is no part of the mean it is held against', () => {
		expect(readRamp([on('2026-03-02', 40), on('2026-03-09', 400)], '2026-03-12', 1, 15).mean).toBe(40)
	})
})

it('both default block shapes pass, in a first and in a repeated block', () => {
	for (const shape of [
		[100, 110, 120, 60],
		[100, 108, 115, 120, 60],
	]) {
		const days: DayDose[] = []
		for (let n = 0; n < shape.length * 2; n++) {
			const monday = new Date(Date.UTC(2026, 0, 5 + 7 * n)).toISOString().slice(0, 10)
			const value = shape[n % shape.length]!
			const { room } = readRamp(days, monday, n === 0 ? 100 : 0, 15)
			expect(value, `week ${n + 1} of ${shape.join(', ')}`).toBeLessThanOrEqual(room + 1e-9)
			days.push(on(monday, value, value === 60))
		}
	}
})

describe('what is planned', () => {
	// Tuesday 10 March; a floor of 16.
	const plan = (days: DayDose[], planned: DayDose) => ({ room: planInto(days, planned, 16, 15), days })
	it('stands behind what was done, no more of it than was left', () => {
		const done = on('2026-03-09', 6)
		expect(plan([done], on('2026-03-10', 8))).toEqual({ room: 10, days: [done, on('2026-03-10', 8)] })
		expect(plan([done], on('2026-03-10', 14))).toEqual({ room: 10, days: [done, on('2026-03-10', 10)] })
	})
	it('makes no week an unloading one where it loads nothing', () => {
		const done = on('2026-03-09', 6)
		expect(plan([done], on('2026-03-10', 0, true))).toEqual({ room: 10, days: [done] })
		expect(plan([done], on('2026-03-10', 1, true)).days).toEqual([done, on('2026-03-10', 1, true)])
	})
})
