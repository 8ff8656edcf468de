import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Mark } from '../events/schema'
import { countLine } from './count-line'
import { countMark } from './count-mark'
import { emptyCount, totalOf } from './dose-count'
import { effortZone } from '../measure/sprint/effort-zone'
import { estimateMinutes } from './estimate-minutes'
import { SESSION_RANGES } from './level-ranges'
import { type DayDose, readRamp, rampValue } from './ramp'
import { repsOf, scaleDose } from './scale-dose'
import { fromSparse, toSparse } from './sparse-count'

const drill = (id: string) => STARTER_LIBRARY.drills[id]!

describe('scaleDose', () => {
	it.each([
		[{ sets: 4, reps: 3 }, 0.75, { sets: 3, reps: 3 }],
		[{ sets: 5, reps: 2 }, 0.6, { sets: 3, reps: 2 }],
		[{ sets: 3, reps: 8 }, 2 / 3, { sets: 2, reps: 8 }],
		[{ sets: 1, reps: 6 }, 4 / 6, { sets: 1, reps: 4 }],
		[{ sets: 3, reps: 6 }, 12 / 18, { sets: 2, reps: 6 }],
		[{ sets: 2, reps: 3 }, 0.3, { sets: 1, reps: 2 }],
		[{ sets: 1, reps: 6 }, 0.01, { sets: 1, reps: 2 }],
		[{ sets: 1, reps: 1 }, 0.5, { sets: 1, reps: 1 }],
	])('scales %j by %d', (dose, factor, expected) => {
		expect(scaleDose(dose, factor)).toEqual(expected)
	})

	it('never gives more than the dose, nor less than two reps where there were two', () => {
		fc.assert(fc.property(fc.integer({ min: 1, max: 10 }), fc.integer({ min: 1, max: 20 }), fc.double({ min: 0.001, max: 1, noNaN: true }), (sets, reps, factor) => {
			const scaled = scaleDose({ sets, reps }, factor)
			expect(repsOf(scaled)).toBeLessThanOrEqual(sets * reps)
			expect(repsOf(scaled)).toBeGreaterThanOrEqual(Math.min(2, sets * reps))
			expect(scaleDose({ sets, reps }, 1)).toEqual({ sets, reps })
		}))
	})

	it.each([0, -1, 1.01, Number.NaN])('refuses a factor of %d', (factor) => {
		expect(() => scaleDose({ sets: 1, reps: 1 }, factor)).toThrow('factor: ')
	})
})

describe('effortZone', () => {
	// Percent of best speed = best / time; the borders belong to the zone above.
	it.each([[4, 3, 'tempo'], [4.01, 3, 'easy'], [3 / 0.9, 3, 'sub-maximal'], [3 / 0.95, 3, 'fast'], [3 / 0.98, 3, 'maximal'], [2.9, 3, 'maximal']])('puts %d s against a best of %d s into %s', (time, best, zone) => {
		expect(effortZone(time, best)).toBe(zone)
	})
})

describe('readRamp', () => {
	const week = (monday: string, value: number, unloading = false): DayDose => ({ day: monday, value, unloading })

	it('allows 15 % over the mean of the last four trained weeks, without unloading and missed weeks', () => {
		// Worked by hand: weeks 40, 44, (24 unloading), missed, 50, 54 → mean of the last four trained 47, limit 54.05.
		const days = [week('2026-01-05', 40), week('2026-01-12', 44), week('2026-01-19', 24, true), week('2026-02-02', 50), week('2026-02-09', 54), week('2026-02-17', 20)]
		const reading = readRamp(days, '2026-02-19', 10, 15)
		expect(reading.mean).toBe(47)
		expect(reading.limit).toBeCloseTo(54.05, 10)
		expect(reading).toMatchObject({ done: 20 })
		expect(reading.room).toBeCloseTo(34.05, 10)
	})

	it('takes the floor when there is no history, or when it is higher', () => {
		expect(readRamp([], '2026-02-19', 20, 15)).toEqual({ done: 0, mean: null, limit: 20, room: 20 })
		expect(readRamp([week('2026-02-09', 4)], '2026-02-19', 20, 15).limit).toBe(20)
	})

	it('counts the stricter of calendar week and rolling seven days', () => {
		// Monday after a hard Saturday: the calendar week is empty, the rolling one is not.
		expect(readRamp([week('2026-02-14', 30)], '2026-02-16', 20, 15).done).toBe(30)
		// Sunday, the Monday of the same week lies seven days and more behind the next Monday only.
		expect(readRamp([week('2026-02-09', 12), week('2026-02-14', 5)], '2026-02-15', 20, 15).done).toBe(17)
	})

	it('passes both default block shapes in a first and in a repeated block', () => {
		for (const shape of [[100, 110, 120, 60], [100, 108, 115, 120, 60]]) {
			const days: DayDose[] = []
			for (let n = 0; n < shape.length * 2; n++) {
				const monday = new Date(Date.UTC(2026, 0, 5 + 7 * n)).toISOString().slice(0, 10)
				const value = shape[n % shape.length]!
				const { room } = readRamp(days, monday, n === 0 ? 100 : 0, 15)
				expect(value, `week ${n + 1} of ${shape.join(', ')}`).toBeLessThanOrEqual(room + 1e-9)
				days.push(week(monday, value, value === 60))
			}
		}
	})

	it('adds sharp cuts to the hard contacts of the leg that plants', () => {
		const count = countLine(drill('cut-90'), { distanceM: 10, angleDeg: 90 }, { sets: 3, reps: 3 })
		expect(rampValue(count, 'hardContacts')).toBe(5)
		expect(rampValue(count, 'sharpCuts')).toBe(9)
	})
})

describe('counts as stored', () => {
	it('come back whole', () => {
		fc.assert(fc.property(fc.constantFrom(...Object.values(STARTER_LIBRARY.drills)), fc.integer({ min: 1, max: 40 }), (one, reps) => {
			const count = countLine(one, { distanceM: 20, angleDeg: 90, ballKg: 3, heightCm: 30 }, { sets: 1, reps })
			expect(fromSparse(JSON.parse(JSON.stringify(toSparse(count))) as never)).toEqual(count)
		}))
		expect(toSparse(emptyCount())).toEqual({})
	})
})

describe('countMark', () => {
	const place = { id: '', sessionId: '', athleteId: '', deviceId: '', deviceSeq: 0, deviceTime: '', entryId: '', lineId: '', type: 'mark' } as const
	const line = { drillId: 'pogo', drillVersion: 1, ladderId: null, rungId: null, dose: { sets: 3, reps: 15 }, parameters: {}, restS: 60 }
	it('counts a set ticked off at once as all its reps, a voided or missed one as none', () => {
		const done = { ...place, kind: 'done', setNo: 1, repNo: 1, value: { reps: 15 } } satisfies Mark
		expect(totalOf(countMark(done, line, drill('pogo'), null, null).contacts.low)).toBe(15)
		expect(countMark({ ...done, void: true }, line, drill('pogo'), null, null)).toEqual(emptyCount())
		expect(countMark({ ...place, kind: 'missed', setNo: 1, repNo: 1, value: {} }, line, drill('pogo'), null, null)).toEqual(emptyCount())
	})
})

it('estimates minutes with the walk back and the rest', () => {
	// 6 reps of 5 s, five rests of 120 s (the walk back of 20 m takes 15 s), and 1.5 min to change over.
	expect(estimateMinutes({ sets: 1, reps: 6 }, { distanceM: 20 }, 120, 5)).toBeCloseTo((30 + 600) / 60 + 1.5, 10)
})

it('keeps the published contact ranges by level', () => {
	// Potach & Chu, in Essentials of Strength Training and Conditioning, NSCA: 80–100, 100–120, 120–140 a session (from memory).
	expect([1, 2, 3].map((level) => [SESSION_RANGES[level as 1].contacts.low, SESSION_RANGES[level as 1].contacts.high])).toEqual([[80, 100], [100, 120], [120, 140]])
	expect(SESSION_RANGES[1].shockContacts.high).toBe(0)
})

describe('what is planned for later in the week', () => {
	it('takes its share of the calendar week, not of the seven days before', () => {
		// Sunday's 20 lie in the seven days before Thursday, next Sunday's 20 in Thursday's own week: never both.
		const sunday = [{ day: '2026-03-08', unloading: false, value: 20 }]
		expect(readRamp(sunday, '2026-03-12', 60, 15)).toMatchObject({ done: 20, room: 40 })
		expect(readRamp(sunday, '2026-03-12', 60, 15, 20)).toMatchObject({ done: 20, room: 40 })
		expect(readRamp([], '2026-03-12', 60, 15, 50)).toMatchObject({ done: 50, room: 10 })
	})
})
