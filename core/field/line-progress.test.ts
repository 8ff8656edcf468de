import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import type { FieldLine } from './pack'
import { nextInQueue, progressOf, restLeft, suggestionFor } from './line-progress'
import { STARTER_LIBRARY } from '../library/starter-library'
import { questionAbout, slotsOf, strangeness, valueOf } from './slots'

const line = (athleteId: string, change: Partial<FieldLine> = {}): FieldLine => ({
	id: `line-${athleteId}`,
	entryId: 'entry',
	athleteId,
	words: 'Three-point start 20 m',
	drillName: 'Three-point start',
	drillId: 'three-point-start',
	drillVersion: 1,
	logs: 'sprint',
	family: 'sprint',
	dose: { sets: 1, reps: 6 },
	parameters: { distanceM: 20 },
	rest: { repsS: 120, setsS: 120 },
	target: '3.15 s or better',
	bests: {},
	cautions: [],
	cues: [],
	lookFor: [],
	blocked: null,
	over: null,
	dropOffPercent: 3,
	...change,
})
let seq = 0
const rep = (athleteId: string, repNo: number, timeS: number, change: Partial<LogEvent> = {}): LogEvent =>
	({
		id: `e${seq}`,
		sessionId: 's',
		athleteId,
		deviceId: 'd',
		deviceSeq: seq++,
		deviceTime: new Date(Date.UTC(2026, 2, 12, 18, repNo)).toISOString(),
		entryId: 'entry',
		lineId: `line-${athleteId}`,
		setNo: 1,
		repNo,
		type: 'mark',
		kind: 'sprint',
		value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
		...change,
	}) as LogEvent
const after = (athleteId: string, times: number[], change: Partial<FieldLine> = {}) =>
	progressOf(
		line(athleteId, change),
		times.map((time, index) => rep(athleteId, index + 1, time)),
	)

describe('the queue', () => {
	it('counts reps into sets', () => {
		const progress = after('a', [3.1, 3.1, 3.1, 3.1], { dose: { sets: 3, reps: 3 } })
		expect(progress).toMatchObject({ repsDone: 4, planned: 9, next: { setNo: 2, repNo: 2 }, finished: false })
	})
	it('moves on round and round past whoever has finished', () => {
		const queue = [after('a', [3]), after('b', [3, 3, 3, 3, 3, 3]), after('c', [])]
		expect(nextInQueue(queue, 'a')).toBe('c')
		expect(nextInQueue(queue, 'c')).toBe('a')
		expect(nextInQueue([after('b', [3, 3, 3, 3, 3, 3])], 'b')).toBeNull()
	})
	it('counts the rest from the last rep', () => {
		const progress = after('a', [3.1])
		const at = Date.UTC(2026, 2, 12, 18, 1)
		expect([
			restLeft(progress, at + 30_000),
			restLeft(progress, at + 119_500),
			restLeft(progress, at + 300_000),
		]).toEqual([90, 1, 0])
		expect(restLeft(after('a', []), at)).toBe(0)
		// A clock that stands before the rep does not make the rest longer.
		expect(restLeft(progress, at - 5000)).toBe(120)
	})
	it('rests within a set and between sets as the line says each', () => {
		const asked = (times: number[], change: Partial<FieldLine>) => after('a', times, change).restS
		// 2 sets of 3×150 m, 2 min and 10 min.
		const runs = {
			dose: { sets: 2, reps: 3 },
			parameters: { distanceM: 20 },
			rest: { repsS: 120, setsS: 600 },
		}
		expect(
			[1, 2, 3, 4, 5].map((reps) =>
				asked(
					Array.from({ length: reps }, () => 3.1),
					runs,
				),
			),
		).toEqual([120, 120, 600, 120, 120])
		// Depth jumps 5×2, 8 s and 2:30; of one rep a set only the longer one.
		const jumps = { dose: { sets: 5, reps: 2 }, rest: { repsS: 8, setsS: 150 } }
		expect([asked([3], jumps), asked([3, 3], jumps)]).toEqual([8, 150])
		expect(asked([3], { dose: { sets: 3, reps: 1 }, rest: { repsS: 8, setsS: 150 } })).toBe(150)
		// A whole set ticked off at once.
		const done = rep('a', 1, 3, { kind: 'done', value: { reps: 2 } } as Partial<LogEvent>)
		expect(progressOf(line('a', jumps), [done]).restS).toBe(150)
	})
	it('does not count a missed rep as done, but it is taken', () => {
		const missed = rep('a', 1, 3, { kind: 'missed', value: {} } as Partial<LogEvent>)
		expect(progressOf(line('a'), [missed])).toMatchObject({ repsDone: 0, next: { repNo: 2 } })
	})
})

describe('what the screen says', () => {
	it('ends the set after two reps past the limit, with the numbers', () => {
		expect(suggestionFor(after('a', [3.06, 3.05, 3.18, 3.22]))).toEqual({
			lead: 'End the set.',
			rest: 'The last two were 4.3 % and 5.6 % off the best, more than chance; the limit is 3.0 %.',
			endTheSet: true,
		})
	})
	it('warns after the first and encourages at the best', () => {
		expect(suggestionFor(after('a', [3.06, 3.05, 3.18]))).toMatchObject({
			lead: 'Watch the next one.',
			endTheSet: false,
		})
		expect(suggestionFor(after('a', [3.06, 3.05]))).toMatchObject({
			lead: 'One more is fine.',
			rest: 'Best so far, 4 to go. Staying past 3.14 s ends the set.',
		})
	})
	it('names the target first, and says what a stopwatch sees: little over 20 m, nothing over 10 m', () => {
		expect(suggestionFor(after('a', []))).toMatchObject({ lead: 'First one.', rest: 'Target: 3.15 s or better.' })
		const byHand = (distanceM: number, ...times: number[]) =>
			suggestionFor(
				progressOf(
					line('a', { parameters: { distanceM } }),
					times.map((time, index) =>
						rep('a', index + 1, time, {
							value: { splits: [{ distanceM, timeS: time }], method: 'stopwatch' },
						} as Partial<LogEvent>),
					),
				),
			)
		expect(byHand(20, 3.1, 3.2)).toMatchObject({
			lead: 'Watch the next one.',
			rest: '3.2 % off 3.10 s. This method sees little: staying past 3.19 s ends the set.',
		})
		expect(byHand(10, 1.9, 2.2, 2.3)).toMatchObject({
			endTheSet: false,
			rest: 'By stopwatch tiredness cannot be seen here: the eye decides.',
		})
	})
})

describe('the numbers of a rep', () => {
	it('asks for 10 m and the whole distance of a longer sprint, contact and flight of a rebound', () => {
		expect(slotsOf(line('a')).map((slot) => slot.name)).toEqual(['10 m', '20 m'])
		expect(slotsOf(line('a', { parameters: { distanceM: 10 } })).map((slot) => slot.name)).toEqual(['10 m'])
		expect(slotsOf(line('a', { logs: 'contact' })).map((slot) => `${slot.name}, ${slot.unit}`)).toEqual([
			'contact, ms',
			'flight, ms',
		])
		expect(slotsOf(line('a', { logs: 'done' }))).toEqual([])
	})
	it('keeps them in SI, and leaves out a split that was not taken', () => {
		const methods = { sprint: 'gate', contact: 'mat', height: 'mat', distance: 'tape' }
		const of = (logs: FieldLine['logs'], ...reads: (number | null)[]) =>
			valueOf({ logs }, slotsOf(line('a', { logs })), reads, methods)
		expect(of('sprint', null, 3.12)).toEqual({
			kind: 'sprint',
			value: { splits: [{ distanceM: 20, timeS: 3.12 }], method: 'gate' },
		})
		expect(of('sprint', 1.84, 3.12)).toMatchObject({
			value: {
				splits: [
					{ distanceM: 10, timeS: 1.84 },
					{ distanceM: 20, timeS: 3.12 },
				],
			},
		})
		expect(of('contact', 146, 512)).toEqual({
			kind: 'contact',
			value: { contactS: 0.146, flightS: 0.512, method: 'mat' },
		})
		expect(of('height', 34.5)).toEqual({ kind: 'height', value: { heightM: 0.345, method: 'mat' } })
		expect(of('distance', 11.8)).toEqual({ kind: 'distance', value: { distanceM: 11.8, method: 'tape' } })
	})
	it('sets aside what can hardly be, and offers what was probably meant', () => {
		const drill = STARTER_LIBRARY.drills['three-point-start']!
		const ask = (more: object, reads: (number | null)[], slots = slotsOf(line('a'))) =>
			questionAbout({ ...line('a'), ...more }, drill, 2, 'gate', slots, reads, 3)
		// Around a usual of 3.02 s from 2.567 to 3.926 s.
		const usuals = { gate: 3.02 }
		expect(ask({ usuals }, [null, 2.02])).toEqual({
			words: '2.02 s can hardly be: the usual is 3.02 s.',
			aside: true,
			likely: { label: '3.02 s', reads: [null, 3.02] },
		})
		expect(ask({ usuals }, [1.9, 3.92])?.aside).toBe(false)
		expect(ask({ usuals }, [1.9, 3.05])).toBeNull()
		// By another method there is no usual: the level says that nobody runs 20 m in 2.2 s.
		expect(ask({ usuals: { phone: 3.02 } }, [null, 2.2])).toMatchObject({ aside: true, likely: null })
		// A contact is asked about by its contact, the flight only where it would surprise.
		const contact = { logs: 'contact' as const, parameters: {} }
		const slots = slotsOf(line('a', { logs: 'contact' }))
		expect(
			questionAbout({ ...contact, usuals: {} }, STARTER_LIBRARY.drills.pogo, 2, 'mat', slots, [15, 500], undefined),
		).toEqual({
			words: '15 ms can hardly be.',
			aside: true,
			likely: { label: '150 ms', reads: [150, 500] },
		})
		expect(
			questionAbout({ ...contact, usuals: {} }, STARTER_LIBRARY.drills.pogo, 2, 'mat', slots, [150, 500], undefined),
		).toBeNull()
		// What is not known is asked about as before.
		expect(questionAbout(line('a'), undefined, 2, 'gate', slotsOf(line('a')), [null, 31], undefined)).toMatchObject({
			aside: false,
		})
	})
	it('asks about a number that would surprise, and not about a usual one', () => {
		const slots = slotsOf(line('a'))
		expect(strangeness({ logs: 'sprint' }, slots, [null, 2.8], 3)).toBe('2.8 s for 20 m would be the best by 0.2 s.')
		expect(strangeness({ logs: 'sprint' }, slots, [null, 4], 3)).toBe('4 s is 1 s off the best of 3 s.')
		expect(strangeness({ logs: 'sprint' }, slots, [null, 3.02], 3)).toBeNull()
		expect(strangeness({ logs: 'sprint' }, slots, [null, 31], undefined)).toBe('31 s is far from what is usual.')
		expect(strangeness({ logs: 'contact' }, slotsOf(line('a', { logs: 'contact' })), [146, 5120], undefined)).toContain(
			'far from what is usual',
		)
	})
})
