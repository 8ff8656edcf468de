import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Mark } from '../vocabulary/events'
import { countLine } from './count-line'
import { countMark } from './count-mark'
import { emptyCount, totalOf } from './dose-count'
import { effortZone } from '../measure/sprint/effort-zone'
import { SESSION_RANGES } from './level-ranges'
import { repsOf, scaleDose } from '../library/scale-dose'
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
		fc.assert(
			fc.property(
				fc.integer({ min: 1, max: 10 }),
				fc.integer({ min: 1, max: 20 }),
				fc.double({ min: 0.001, max: 1, noNaN: true }),
				(sets, reps, factor) => {
					const scaled = scaleDose({ sets, reps }, factor)
					expect(repsOf(scaled)).toBeLessThanOrEqual(sets * reps)
					expect(repsOf(scaled)).toBeGreaterThanOrEqual(Math.min(2, sets * reps))
					expect(scaleDose({ sets, reps }, 1)).toEqual({ sets, reps })
				},
			),
		)
	})

	it.each([0, -1, 1.01, Number.NaN])('refuses a factor of %d', (factor) => {
		expect(() => scaleDose({ sets: 1, reps: 1 }, factor)).toThrow('factor: ')
	})
})

describe('effortZone', () => {
	// Percent of best speed = best / time; the borders belong to the zone above.
	it.each([
		[4, 3, 'tempo'],
		[4.01, 3, 'easy'],
		[3 / 0.9, 3, 'sub-maximal'],
		[3 / 0.95, 3, 'fast'],
		[3 / 0.98, 3, 'maximal'],
		[2.9, 3, 'maximal'],
	])('puts %d s against a best of %d s into %s', (time, best, zone) => {
		expect(effortZone(time, best)).toBe(zone)
	})
})

describe('counts as stored', () => {
	it('come back whole', () => {
		fc.assert(
			fc.property(
				fc.constantFrom(...Object.values(STARTER_LIBRARY.drills)),
				fc.integer({ min: 1, max: 40 }),
				(one, reps) => {
					const count = countLine(one, { distanceM: 20, angleDeg: 90, ballKg: 3, heightCm: 30 }, { sets: 1, reps })
					expect(fromSparse(JSON.parse(JSON.stringify(toSparse(count))) as never)).toEqual(count)
				},
			),
		)
		expect(toSparse(emptyCount())).toEqual({})
	})
})

describe('countMark', () => {
	const place = {
		id: '',
		sessionId: '',
		athleteId: '',
		deviceId: '',
		deviceSeq: 0,
		deviceTime: '',
		entryId: '',
		lineId: '',
		type: 'mark',
	} as const
	const line = {
		drillId: 'pogo',
		drillVersion: 1,
		ladderId: null,
		rungId: null,
		dose: { sets: 3, reps: 15 },
		parameters: {},
		rest: { repsS: 60, setsS: 60 },
	}
	it('counts a set ticked off at once as all its reps, a voided or missed one as none', () => {
		const done = { ...place, kind: 'done', setNo: 1, repNo: 1, value: { reps: 15 } } satisfies Mark
		expect(totalOf(countMark(done, line, drill('pogo'), null, null).contacts.low)).toBe(15)
		expect(countMark({ ...done, void: true }, line, drill('pogo'), null, null)).toEqual(emptyCount())
		expect(
			countMark({ ...place, kind: 'missed', setNo: 1, repNo: 1, value: {} }, line, drill('pogo'), null, null),
		).toEqual(emptyCount())
	})
})

it('keeps the published contact ranges by level', () => {
	// Potach & Chu, in Essentials of Strength Training and Conditioning, NSCA: 80–100, 100–120, 120–140 a session (from memory).
	expect(
		[1, 2, 3].map((level) => [SESSION_RANGES[level as 1].contacts.low, SESSION_RANGES[level as 1].contacts.high]),
	).toEqual([
		[80, 100],
		[100, 120],
		[120, 140],
	])
	expect(SESSION_RANGES[1].shockContacts.high).toBe(0)
})
