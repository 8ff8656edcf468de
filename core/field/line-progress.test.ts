import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import type { FieldLine } from './pack'
import { isNext, nextInQueue, progressOf, restLeft, suggestionFor } from './line-progress'
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

describe('where a line stands', () => {
	const of = (...events: LogEvent[]) => progressOf(line('a'), events)
	const other = (kind: string, more: object = {}) => rep('a', 1, 3, { kind, ...more } as Partial<LogEvent>)
	const swap = (drillId: string, drillVersion: number, minute: number) =>
		rep('a', 1, 3, {
			type: 'decision',
			kind: 'swap',
			value: { drillId, drillVersion },
			deviceTime: new Date(Date.UTC(2026, 2, 12, 18, minute)).toISOString(),
		} as Partial<LogEvent>)

	it('counts what was done on it by its athlete, and nothing else', () => {
		const { lineId: _lineId, ...noLine } = rep('a', 2, 3) as unknown as Record<string, unknown>
		const events = [
			rep('a', 1, 3),
			rep('b', 1, 3),
			rep('a', 2, 3, { entryId: 'x' } as Partial<LogEvent>),
			noLine as unknown as LogEvent,
		]
		expect(of(...events).repsDone).toBe(1)
		// A mark made under an older version of the line is of the same entry.
		expect(of(rep('a', 1, 3, { lineId: 'older' } as Partial<LogEvent>)).repsDone).toBe(1)
	})
	it('keeps the marks in the order of the reps, whatever comes in first', () => {
		const progress = of(rep('a', 3, 3.3), rep('a', 1, 3.1), rep('a', 2, 3.2))
		expect(progress.marks.map((mark) => mark.repNo)).toEqual([1, 2, 3])
		// Half a percent on, then one: against the first, not against what came in first.
		expect(progress.dropOff!.best).toBe(3.1)
		expect(progress.dropOff!.percents[0]).toBe(0)
	})
	it('the last rep is the latest, and its rest counts', () => {
		const late = rep('a', 1, 3, { deviceTime: '2026-03-12T19:00:00.000Z' })
		const short = rep('a', 2, 1.9, {
			deviceTime: '2026-03-12T18:59:00.000Z',
			value: { splits: [{ distanceM: 10, timeS: 1.9 }], method: 'gate' },
		} as Partial<LogEvent>)
		expect(of(late, short)).toMatchObject({ lastAt: Date.parse('2026-03-12T19:00:00.000Z'), restS: 120 })
		expect(of(short, late)).toMatchObject({ lastAt: Date.parse('2026-03-12T19:00:00.000Z'), restS: 120 })
		expect(of(short).restS).toBe(60)
		expect(of()).toMatchObject({ lastAt: null, restS: 0 })
		// Over the line's distance and further, and without one, it is the whole rest.
		expect(
			of(rep('a', 1, 4, { value: { splits: [{ distanceM: 30, timeS: 4 }], method: 'gate' } } as never)).restS,
		).toBe(120)
		expect(of(rep('a', 1, 4, { value: { splits: [], method: 'gate' } } as never)).restS).toBe(120)
		const free = line('a', { parameters: {} })
		expect(progressOf(free, [rep('a', 1, 3)]).restS).toBe(120)
		// A quality tapped after the rep begins no rest of its own.
		expect(of(rep('a', 1, 3), other('quality', { type: 'observation', repNo: 2 })).restS).toBe(120)
	})
	it('is ended by a decision to end it, and by nothing else', () => {
		expect(of(other('end-set', { type: 'decision' }))).toMatchObject({ ended: true, finished: true })
		expect(of(other('fast-day', { type: 'decision' })).ended).toBe(false)
		expect(of(other('quality', { type: 'observation' })).ended).toBe(false)
		const all = [1, 2, 3, 4, 5, 6].map((n) => rep('a', n, 3))
		expect(of(...all)).toMatchObject({ ended: false, finished: true })
		expect(of(...all.slice(1)).finished).toBe(false)
	})
	it('is another drill from the latest swap on; back to its own it is itself', () => {
		expect(of(swap('pogo', 2, 5), swap('wall-drill', 1, 3)).swap).toEqual({ drillId: 'pogo', drillVersion: 2 })
		expect(of(swap('pogo', 2, 3), swap('three-point-start', 1, 5)).swap).toBeNull()
		// Another version of its own drill is another drill.
		expect(of(swap('three-point-start', 2, 3)).swap).toEqual({ drillId: 'three-point-start', drillVersion: 2 })
		expect(of(other('quality', { type: 'observation' })).swap).toBeNull()
	})
	it('compares reps of the drill that is done alone', () => {
		const pogo = { asDrill: { drillId: 'pogo', drillVersion: 2 } } as Partial<LogEvent>
		const own = [rep('a', 1, 3), rep('a', 2, 3)]
		expect(of(...own, rep('a', 3, 2, pogo)).dropOff!.percents).toHaveLength(2)
		expect(of(...own, rep('a', 3, 2, pogo), swap('pogo', 2, 2)).dropOff!.percents).toHaveLength(1)
	})
	describe('how far each mark is off the best before it', () => {
		const jump = (repNo: number, distanceM: number, change: object = {}) =>
			rep('a', repNo, 1, { kind: 'distance', value: { distanceM, method: 'tape' }, ...change } as Partial<LogEvent>)
		const hops = line('a', { logs: 'distance', parameters: {}, sided: 'each', dose: { sets: 1, reps: 3 } })
		const off = (of: FieldLine, marks: LogEvent[]) => {
			const { offBest } = progressOf(of, marks)
			return marks.map(({ id }) => {
				const one = offBest.get(id)
				return one ? `${one.percent.toFixed(1)}${one.isBest ? ' best' : ''}` : null
			})
		}
		it('goes by the best so far, and one of them is the best of all', () => {
			expect(
				off(
					line('a'),
					[3.1, 3.0, 3.15].map((timeS, index) => rep('a', index + 1, timeS)),
				),
			).toEqual(['0.0', '0.0 best', '5.0'])
		})
		it('each leg on its own, in whatever order they come', () => {
			const marks = [
				jump(1, 1.5, { side: 'left' }),
				jump(1, 1.4, { side: 'right' }),
				jump(2, 1.47, { side: 'left' }),
				jump(2, 1.33, { side: 'right' }),
			]
			expect(off(hops, marks)).toEqual(['0.0 best', '0.0 best', '2.0', '5.0'])
		})
		it('by one method: a stopwatch says nothing of gates', () => {
			const hand = { value: { splits: [{ distanceM: 20, timeS: 2.8 }], method: 'stopwatch' } } as Partial<LogEvent>
			expect(off(line('a'), [rep('a', 1, 3), rep('a', 2, 1, hand), rep('a', 3, 3.03)])).toEqual([
				'0.0 best',
				'0.0 best',
				'1.0',
			])
		})
		it('of another drill apart, over another distance or missed not at all', () => {
			const pogo = { asDrill: { drillId: 'pogo', drillVersion: 2 } } as Partial<LogEvent>
			const short = { value: { splits: [{ distanceM: 10, timeS: 1.9 }], method: 'gate' } } as Partial<LogEvent>
			const missed = { kind: 'missed', value: { reason: 'no-time' } } as Partial<LogEvent>
			const marks = [
				rep('a', 1, 3),
				rep('a', 2, 2, pogo),
				rep('a', 3, 1, short),
				rep('a', 4, 1, missed),
				rep('a', 5, 3.3),
			]
			expect(off(line('a'), marks)).toEqual(['0.0 best', '0.0 best', null, null, '10.0'])
		})
	})
	it('is next while reps are left and nothing bars it', () => {
		const free = { finished: false, over: null, halted: null }
		expect(isNext(free)).toBe(true)
		expect(isNext({ ...free, finished: true })).toBe(false)
		expect(isNext({ ...free, over: 'left knee' })).toBe(false)
		expect(isNext({ ...free, halted: { by: 'end', words: 'heat' } })).toBe(false)
	})
	it('of unlike sides asks the side with more left, sets times reps', () => {
		const sides = { left: { sets: 2, reps: 3 }, right: { sets: 1, reps: 4 } }
		const of = (...done: ('left' | 'right')[]) =>
			progressOf(
				line('a', { sided: 'each', sides: sides as never, dose: { sets: 2, reps: 3 } }),
				done.map((side, index) => rep('a', index + 1, 3, { side } as Partial<LogEvent>)),
			).side
		// Six left and four right: left until four are left, then by turns.
		expect(of()).toBe('left')
		expect(of('left', 'left')).toBe('left')
		expect(of('left', 'left', 'left')).toBe('right')
	})
})

describe('what is said before the next rep', () => {
	it('first, then how many are left, with the target where there is one', () => {
		expect(suggestionFor(after('a', []))).toEqual({
			lead: 'First one.',
			rest: 'Target: 3.15 s or better.',
			endTheSet: false,
		})
		const eye = { logs: 'done', target: '' } as const
		expect(suggestionFor(after('a', [], eye)).rest).toBe('Nothing to compare with yet.')
		expect(suggestionFor(after('a', [3, 3], eye))).toEqual({
			lead: '4 to go.',
			rest: 'Nothing to compare with yet.',
			endTheSet: false,
		})
		expect(suggestionFor(after('a', [3, 3, 3, 3, 3, 3], eye))).toEqual({
			lead: 'All done.',
			rest: '6 of 6 reps.',
			endTheSet: false,
		})
	})
	it('the end that was decided, and what was done by then', () => {
		const end = rep('a', 1, 3, { type: 'decision', kind: 'end-set', value: { reason: 'coach' } } as Partial<LogEvent>)
		expect(suggestionFor(progressOf(line('a'), [rep('a', 1, 3), end]))).toEqual({
			lead: 'Set ended.',
			rest: '1 of 6 reps done; that counts as done.',
			endTheSet: false,
		})
	})
	it('at the best, within the limit, and at the limit itself', () => {
		// 3 % of 3.00 s is 3.09 s.
		expect(suggestionFor(after('a', [3]))).toEqual({
			lead: 'One more is fine.',
			rest: 'First mark, 5 to go. Staying past 3.09 s ends the set.',
			endTheSet: false,
		})
		expect(suggestionFor(after('a', [3.1, 3])).rest).toBe('Best so far, 4 to go. Staying past 3.09 s ends the set.')
		expect(suggestionFor(after('a', [3, 3.03]))).toEqual({
			lead: 'One more is fine.',
			rest: 'Within 1.0 % of the best, 4 to go. Staying past 3.09 s ends the set.',
			endTheSet: false,
		})
		expect(suggestionFor(after('a', [3, 3.08])).lead).toBe('One more is fine.')
		expect(suggestionFor(after('a', [3, 3.09])).lead).toBe('Watch the next one.')
	})
	it('a contact grows past its limit, a height and a distance fall below it', () => {
		const at = (logs: 'contact' | 'height' | 'distance', value: object) =>
			suggestionFor(
				progressOf(line('a', { logs, parameters: {}, dropOffPercent: 5 }), [
					rep('a', 1, 0, { kind: logs, value } as Partial<LogEvent>),
				]),
			).rest
		// 5 % of 200 ms, of 40 cm and of 2 m.
		expect(at('contact', { contactS: 0.2, flightS: 0.5, method: 'mat' })).toContain('past 210 ms')
		expect(at('height', { heightM: 0.4, method: 'mat' })).toContain('past 38.0 cm')
		expect(at('distance', { distanceM: 2, method: 'tape' })).toContain('past 1.90 m')
	})
})
