import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { LogEvent, Mark } from '../vocabulary/events'
import { athlete, decide, line, rep, sheet, stamp } from '../../tests/support/on-the-line'
import { doseLeft } from './dose-left'
import { isNext, nextInQueue, progressOf, restLeft } from './line-progress'
import { liveAdvice, readyOf } from './live-advice'
import { positionAt, queueOrder } from './queue-order'
import { expectedAt, slotsOf } from './slots'

const advise = (events: LogEvent[], own = line()) => liveAdvice(progressOf(own, events), athlete, sheet(own), events)

describe('deciding live', () => {
	it('compares the first two reps with the athlete’s own first reps, in a sentence', () => {
		expect(readyOf(progressOf(line(), [rep(1, 1.91, 3.3), rep(2, 1.9, 3.28)]), athlete, sheet(line()))).toMatchObject({
			state: 'as usual',
			sentence: 'As usual: 1.91 s and 1.90 s, usual 1.90 s ± 0.03.',
		})
		expect(
			readyOf(progressOf(line(), [rep(1, 1.91, 3.3)]), { ...athlete, usual: [] }, sheet(line()))?.sentence,
		).toContain('No usual yet')
	})
	it('trims a third on a slow day, and offers to end there', () => {
		const slow = [rep(1, 1.97, 3.4), rep(2, 1.98, 3.41)]
		expect(advise(slow)).toMatchObject({ lead: 'Slow day.', act: null })
		expect(advise(slow).rest).toContain('4 of 6 reps')
		expect(advise([...slow, rep(3, 1.97, 3.4), rep(4, 1.97, 3.4)])).toMatchObject({
			lead: 'Enough for today.',
			act: { draft: { kind: 'end-set', lineId: 'l', value: { reason: 'coach' } } },
		})
	})
	it('offers the fast day at a new best, then a rehearsal, one full rep, and the end of that part', () => {
		const own = line({ parameters: { distanceM: 10 }, bests: { gate: 1.85 } })
		const at = (n: number, time: number) =>
			rep(n, time, 0, { value: { splits: [{ distanceM: 10, timeS: time }], method: 'gate' } } as Partial<Mark>)
		const two = [at(1, 1.83), at(2, 1.84)]
		expect(advise(two, own)).toMatchObject({ lead: 'Fast day.', act: { draft: { kind: 'fast-day', entryId: 'e' } } })
		const taken = [...two, decide('fast-day', 300)]
		expect(advise(taken, own).lead).toBe('Rehearsal.')
		expect(advise(taken, own).rest).toContain('1.93 s to 2.03 s')
		const rehearsed = [...taken, at(3, 1.97)]
		expect(advise(rehearsed, own).lead).toBe('One full rep.')
		expect(advise([...rehearsed, at(4, 1.82)], own)).toMatchObject({
			lead: 'Close this part.',
			act: { draft: { kind: 'end-set', lineId: 'l', value: { reason: 'good-day' } } },
		})
	})
	it('ends the set for a fall before anything else', () => {
		expect(advise([rep(1, 1.83, 3.2), rep(2, 1.83, 3.2), rep(3, 1.95, 3.45), rep(4, 1.95, 3.45)])).toMatchObject({
			lead: 'End the set.',
			act: { draft: { kind: 'end-set', lineId: 'l', value: { reason: 'drop-off' } } },
		})
	})
	it('says how long a weight was worn and when to take it off', () => {
		const own = line({ parameters: { distanceM: 20, loadG: 200 } })
		expect(advise([rep(1, 1.9, 3.3)], own)).toMatchObject({
			lead: 'With the weight.',
			act: { draft: { kind: 'load-off', lineId: 'l', value: { reason: 'movement' } } },
		})
		expect(advise([rep(1, 1.9, 3.3), rep(2, 1.9, 3.5)], own)).toMatchObject({
			lead: 'Take it off now.',
			act: { draft: { kind: 'load-off', lineId: 'l', value: { reason: 'speed-loss' } } },
		})
		// Nineteen rests of 130 s are 41 minutes: it was worn as long as it should be, and nothing is wrong with it.
		expect(advise([rep(1, 1.9, 3.3), rep(20, 1.9, 3.3)], own)).toMatchObject({
			lead: 'Take it off now.',
			act: { draft: { kind: 'load-off', lineId: 'l', value: { reason: 'minutes' } } },
		})
		expect(advise([rep(1, 1.9, 3.3), decide('load-off', 140, { reason: 'movement' })], own)).toMatchObject({
			lead: 'Weight off.',
			act: null,
		})
	})
	it('what is done after a weight came off is no fall and no best of what was done with it', () => {
		const own = line({ parameters: { distanceM: 20, loadG: 200 } })
		const off = decide('load-off', 2.5 * 130, { reason: 'minutes' })
		const worn = [rep(1, 1.9, 3.5), rep(2, 1.9, 3.5)]
		const free = [rep(3, 1.9, 3.3), rep(4, 1.9, 3.31)]
		expect(progressOf(own, [...worn, off, ...free])).toMatchObject({
			repsDone: 4,
			dropOff: { best: 3.3, percents: [0, expect.closeTo(0.303, 2)] },
		})
		expect(progressOf(own, [...worn, ...free]).dropOff!.percents).toHaveLength(4)
		// Another athlete's weight, and one of another entry, are not this one's.
		expect(progressOf(own, [...worn, { ...off, athleteId: 'b' } as LogEvent, ...free]).dropOff!.percents).toHaveLength(
			4,
		)
		expect(progressOf(own, [...worn, { ...off, entryId: 'x' } as LogEvent, ...free]).dropOff!.percents).toHaveLength(4)
		// A line without a weight has none to take off.
		expect(progressOf(line(), [...worn, off, ...free]).dropOff!.percents).toHaveLength(4)
	})
	it('counts what was done as another drill as that one, not against the line', () => {
		const swap = decide('swap', 10, { drillId: 'wall-drill', drillVersion: 1 })
		const progress = progressOf(line(), [
			swap,
			{
				...stamp(20),
				entryId: 'e',
				lineId: 'l',
				setNo: 1,
				repNo: 1,
				type: 'mark',
				kind: 'done',
				value: { reps: 2 },
				asDrill: { drillId: 'wall-drill', drillVersion: 1 },
			} as Mark,
		])
		expect(progress).toMatchObject({ swap: { drillId: 'wall-drill' }, repsDone: 2, dropOff: null })
	})
})

describe('rest', () => {
	it('is the drill’s after a whole rep, its share after a shorter one, none after a missed one', () => {
		const at = (mark: Mark) => restLeft(progressOf(line(), [mark]), Date.parse(mark.deviceTime))
		expect(at(rep(1, 1.9, 3.3))).toBe(120)
		expect(
			at(rep(1, 1.9, 0, { value: { splits: [{ distanceM: 10, timeS: 1.9 }], method: 'gate' } } as Partial<Mark>)),
		).toBe(60)
		expect(at({ ...rep(1, 1, 2), kind: 'missed', value: { reason: 'aborted' } } as Mark)).toBe(0)
	})
})

describe('the queue', () => {
	const people = ['a', 'b', 'c', 'd'].map((id) => ({ id }))
	const move = (athleteId: string, position: number, group = 0, afterS = 0): LogEvent =>
		({ ...stamp(afterS), athleteId, type: 'decision', kind: 'queue', value: { group, position } }) as LogEvent
	const ids = (events: LogEvent[]) =>
		queueOrder(people, events)
			.map((place) => place.athleteId)
			.join('')
	it('is the sheet’s order until somebody is moved, and one move is one event', () => {
		expect(ids([])).toBe('abcd')
		const places = queueOrder(people, []).filter((place) => place.athleteId !== 'd')
		expect(ids([move('d', positionAt(places, 1))])).toBe('adbc')
		expect(
			ids([
				move(
					'a',
					positionAt(
						places.filter((place) => place.athleteId !== 'a'),
						9,
					),
				),
			]),
		).toBe('bcad')
	})
	it('lets the later of two moves stand, whatever arrives first', () => {
		const moves = [move('a', 9, 0, 10), move('a', -1, 2, 20), move('b', 7, 1, 15)]
		fc.assert(
			fc.property(fc.shuffledSubarray(moves, { minLength: 3 }), (shuffled) => {
				expect(queueOrder(people, shuffled)).toEqual(queueOrder(people, moves))
			}),
		)
		expect(ids(moves)).toBe('acdb')
	})
})

describe('what is left of the day', () => {
	it('counts done against planned by the convention', () => {
		const left = doseLeft(sheet(line()), athlete, [rep(1, 1.9, 3.21), rep(2, 1.9, 3.22)])
		expect(left.fastMetres).toMatchObject({ done: 40, planned: 120, low: 120, high: 180 })
		expect(left.repsLeft).toBe(4)
	})
})

describe('what a number is expected to be', () => {
	it('goes by the own best, then by the own curve, then by what people run', () => {
		const [ten, twenty] = slotsOf(line(), [10])
		expect(expectedAt(twenty!, line(), 3.2, athlete.curve).low).toBeCloseTo(3.04)
		const byCurve = expectedAt(ten!, line(), 3.2, athlete.curve)
		expect(byCurve.low).toBeGreaterThan(1.7)
		expect(byCurve.high).toBeLessThan(2.5)
		expect(expectedAt(ten!, line(), undefined, null)).toMatchObject({ low: 0.75 + 10 / 9.5 })
	})
	it('asks for as many splits as gates stand on the way', () => {
		expect(slotsOf(line({ parameters: { distanceM: 30 } }), [20, 5, 10, 40]).map((slot) => slot.distanceM)).toEqual([
			5, 10, 20, 30,
		])
	})
})

// "One more" is never said to an athlete with a report this session on a region the drill loads, until it is dealt with.
describe('what hurts on the line', () => {
	const said = (region: string, score: number, afterS = 200): LogEvent =>
		({
			...stamp(afterS),
			type: 'observation',
			kind: 'pain',
			value: { region, side: 'left', score, redFlag: false, moment: 'during' },
		}) as LogEvent
	const reps = [rep(1, 1.95, 3.2), rep(2, 1.94, 3.19)]
	const over = (events: LogEvent[], words: string | null, own = line()) =>
		liveAdvice(progressOf(own, events, words), athlete, sheet(own), events)
	it('over: stop here, and the set can be ended for pain', () => {
		expect(over(reps, 'left back thigh')).toMatchObject({
			lead: 'Stop here.',
			rest: expect.stringContaining('left back thigh: over for today'),
			act: { draft: { kind: 'end-set', lineId: 'l', value: { reason: 'pain' } } },
		})
		expect(over([], 'left back thigh').act).toBeNull()
		expect(over([...reps, decide('end-set', 300, { reason: 'pain' })], 'left back thigh').lead).toBe('Set ended.')
	})
	it('what the server says of the line holds for its own drill, not for the one swapped in', () => {
		const own = line({ over: 'knee closed since Thu 19 Mar' })
		expect(progressOf(own, reps).over).toBe('knee closed since Thu 19 Mar')
		const swap = decide('swap', 300, { drillId: 'wall-drill', drillVersion: 1 })
		expect(progressOf(own, [...reps, swap]).over).toBeNull()
		expect(progressOf(own, [...reps, swap], 'left knee').over).toBe('left knee')
	})
	it('a small pain where the drill loads: ask, nobody is told to go on', () => {
		expect(advise(reps).lead).not.toBe('Ask first.')
		expect(advise([...reps, said('back-thigh', 2)])).toMatchObject({
			lead: 'Ask first.',
			rest: expect.stringContaining('left back thigh 2 of 10'),
			act: null,
		})
		expect(advise([...reps, said('wrist', 2)]).lead).not.toBe('Ask first.')
		expect(advise([...reps, said('back-thigh', 0)]).lead).not.toBe('Ask first.')
	})
	it('who is over does not come on the line by themselves, and what they did can still be logged', () => {
		const [a, b] = [progressOf(line(), reps, 'left knee'), progressOf({ ...line(), athleteId: 'b' }, [])]
		expect([isNext(a), isNext(b), a.finished]).toEqual([false, true, false])
		expect(nextInQueue([a, b], 'b')).toBe('b')
		expect(nextInQueue([a], 'b')).toBeNull()
	})
})
