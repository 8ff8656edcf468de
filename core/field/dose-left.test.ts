import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { LogEvent } from '../vocabulary/events'
import { doseLeft } from './dose-left'
import type { FieldLine, FieldSheet } from './pack'

// What is left of the day on the phone, by the counting convention: depth jumps 3×3 are 9 jumps and 18 contacts.
const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const line = (entryId: string, drillId: string, sets: number, reps: number, more: Partial<FieldLine> = {}) =>
	({
		id: `line-${entryId}`,
		entryId,
		athleteId: 'ada',
		drillId,
		drillVersion: drill(drillId).version,
		dose: { sets, reps },
		parameters: drill(drillId).defaults,
		rest: { repsS: 60, setsS: 60 },
		blocked: null,
		bests: {},
		...more,
	}) as unknown as FieldLine
const sheet = (...lines: FieldLine[]): Pick<FieldSheet, 'lines' | 'drills'> => ({
	lines,
	drills: Object.fromEntries(
		Object.values(STARTER_LIBRARY.drills).map((one) => [`${one.id}/${one.version}`, one]),
	) as FieldSheet['drills'],
})
const ada = { id: 'ada', level: 2 as const, legLengthM: 0.9 }
let seq = 0
const mark = (entryId: string, kind: string, value: object, more: object = {}) =>
	({
		id: `m${seq++}`,
		type: 'mark',
		kind,
		value,
		entryId,
		athleteId: 'ada',
		lineId: `line-${entryId}`,
		setNo: 1,
		repNo: 1,
		sessionId: 's',
		deviceId: 'd',
		deviceSeq: seq,
		deviceTime: '2026-03-12T18:00:00Z',
		...more,
	}) as unknown as LogEvent
const jumps = line('e1', 'depth-jump', 3, 3, { parameters: { heightCm: 30 } })

describe('contacts and reps', () => {
	it.each([
		['nothing done', [], 0, 9],
		['one jump', [mark('e1', 'contact', { contactS: 0.2, flightS: 0.5, method: 'mat' })], 2, 8],
		['three ticked off at once', [mark('e1', 'done', { reps: 3 })], 6, 6],
		['a missed rep costs nothing and is still to do', [mark('e1', 'missed', {})], 0, 9],
		['more than was planned', [mark('e1', 'done', { reps: 12 })], 24, 0],
		['somebody else’s', [mark('e1', 'done', { reps: 3 }, { athleteId: 'bo' })], 0, 9],
		['of an entry without a line', [mark('e9', 'done', { reps: 3 })], 0, 9],
		['an observation', [{ ...mark('e1', 'quality', { grade: 'good' }), type: 'observation' } as LogEvent], 0, 9],
	] as [string, LogEvent[], number, number][])('%s', (_, events, done, repsLeft) => {
		expect(doseLeft(sheet(jumps), ada, events)).toMatchObject({ contacts: { done, planned: 18 }, repsLeft })
	})
	it('a voided mark costs nothing', () => {
		expect(doseLeft(sheet(jumps), ada, [mark('e1', 'done', { reps: 3 }, { void: true })]).contacts.done).toBe(0)
	})
	it('a line that is barred, or another’s, is not planned', () => {
		const barred = { ...jumps, blocked: 'closed until cleared' } as FieldLine
		expect(doseLeft(sheet(barred), ada, [])).toMatchObject({ contacts: { planned: 0 }, repsLeft: 0 })
		expect(doseLeft(sheet({ ...jumps, athleteId: 'bo' }), ada, [])).toMatchObject({ contacts: { planned: 0 } })
	})
	it('done as another drill it costs what that drill costs', () => {
		// A drop landing is one contact, a depth jump two.
		const asDrill = { drillId: 'drop-landing', drillVersion: drill('drop-landing').version }
		expect(doseLeft(sheet(jumps), ada, [mark('e1', 'done', { reps: 3 }, { asDrill })]).contacts.done).toBe(3)
	})
	it.each([
		[1, 80, 100, 60, 120],
		[2, 100, 120, 120, 180],
		[3, 120, 140, 150, 240],
	] as const)('level %d: the usual range beside it', (level, low, high, lowM, highM) => {
		expect(doseLeft(sheet(), { ...ada, level }, [])).toMatchObject({
			contacts: { low, high },
			fastMetres: { low: lowM, high: highM },
		})
	})
})

describe('metres at 95 % and more of the own best, 2.00 s over 10 m', () => {
	const starts = line('e2', 'standing-start', 1, 5, {
		parameters: { distanceM: 10 },
		bests: { gate: 2 },
	} as Partial<FieldLine>)
	const run = (timeS: number, method = 'gate', distanceM = 10) =>
		mark('e2', 'sprint', { splits: [{ distanceM, timeS }], method })
	it.each([
		[2.0, 10],
		[2.1, 10],
		// 2.00 / 2.11 = 94.8 %
		[2.11, 0],
		[2.4, 0],
	])('a run of %d s: %d m', (timeS, done) => {
		expect(doseLeft(sheet(starts), ada, [run(timeS)]).fastMetres).toMatchObject({ done, planned: 50 })
	})
	it('without a best by that method, or over another distance, the planned zone counts', () => {
		expect(doseLeft(sheet(starts), ada, [run(2.4, 'stopwatch')]).fastMetres.done).toBe(10)
		expect(doseLeft(sheet(starts), ada, [run(2.4, 'gate', 8)]).fastMetres.done).toBe(10)
		// Another drill in its place has another best.
		const falling = { drillId: 'falling-start', drillVersion: drill('falling-start').version }
		expect(doseLeft(sheet(starts), ada, [{ ...run(2.4), asDrill: falling } as LogEvent]).fastMetres.done).toBe(10)
	})
})
