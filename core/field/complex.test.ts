import { describe, expect, it } from 'vitest'
import { decide, line, rep, stamp } from '../../tests/support/on-the-line'
import { QUALITY_FIRST } from '../library/schools'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { LogEvent, Mark } from '../vocabulary/events'
import { doseLeft } from './dose-left'
import { progressOf, suggestionFor } from './line-progress'
import { makeLine } from './make-line'
import { lineAt } from './complex'

const { drills, ladders } = STARTER_LIBRARY
const rung = ladders.contrast!.rungs[0]!
const place = { id: 'l', entryId: 'e', athleteId: 'a' }
const make = (change: Partial<typeof rung> = {}) =>
	makeLine(
		place,
		{ ...rung, ...change },
		drills['contrast-start']!,
		QUALITY_FIRST,
		{ bests: { gate: 1.9 } },
		(id) => drills[id],
	)
const pull = (setNo: number, afterS: number): Mark =>
	({
		...rep(1, 0, 0),
		...stamp(afterS),
		setNo,
		piece: 1,
		value: { splits: [{ distanceM: 10, timeS: 3 }], method: 'gate' },
	}) as Mark
const free = (setNo: number, afterS: number, timeS = 1.9): Mark =>
	({ ...pull(setNo, afterS), piece: 2, value: { splits: [{ distanceM: 10, timeS }], method: 'gate' } }) as Mark
const at = (events: LogEvent[], of = make()) => {
	const { line: now, next, restS, finished, repsDone, dropOff } = progressOf(of, events)
	return { drill: now.drillId, next, restS, finished, repsDone, best: dropOff?.best ?? null }
}

describe('a heavy pull, then a free start', () => {
	it('asks for piece after piece and round after round, with the rest that belongs between', () => {
		expect(at([])).toMatchObject({ drill: 'resisted-start', next: { setNo: 1, repNo: 1, piece: 1 }, restS: 0 })
		const one = [pull(1, 0)]
		// Five to ten minutes between the heavy and the free one (common practice, no source).
		expect(at(one)).toMatchObject({ drill: 'contrast-start', next: { setNo: 1, repNo: 1, piece: 2 }, restS: 420 })
		const two = [...one, free(1, 430)]
		expect(at(two)).toMatchObject({
			drill: 'resisted-start',
			next: { setNo: 2, piece: 1 },
			restS: 300,
			finished: false,
		})
		const three = [...two, pull(2, 800)]
		expect(at(three)).toMatchObject({ next: { setNo: 2, piece: 2 }, restS: 420 })
		expect(at([...three, free(2, 1300)])).toMatchObject({ finished: true, repsDone: 2 })
	})
	it('is read by its free rep alone', () => {
		const events = [pull(1, 0), free(1, 430, 1.95), pull(2, 800)]
		expect(at(events)).toMatchObject({ repsDone: 1, best: 1.95 })
		expect(at([pull(1, 0)])).toMatchObject({ repsDone: 0, best: null })
	})
	it('has each piece’s own numbers, and no other’s', () => {
		const heavy = progressOf(make(), []).line
		expect([heavy.bests, heavy.words]).toEqual([{}, 'Resisted start 10 m, 50 % speed lost to the pull'])
		expect(lineAt(heavy, 2)).toMatchObject({ bests: { gate: 1.9 }, drillId: 'contrast-start' })
		expect(suggestionFor(progressOf(make(), []))).toMatchObject({
			lead: 'Round 1 of 2.',
			rest: 'Resisted start; free start after a heavy pull is what is judged.',
		})
	})
	it('takes a mark that says no piece for the judged one', () => {
		const { piece: _piece, ...plain } = free(1, 430)
		expect(at([plain as Mark])).toMatchObject({ next: { setNo: 1, piece: 1 }, repsDone: 1 })
	})
	it('goes on with what is left of a round that was begun with the other piece', () => {
		expect(at([free(1, 430)])).toMatchObject({ next: { setNo: 1, piece: 1 }, finished: false })
	})
	it('has a missed piece behind it, and ends when it is ended', () => {
		const missed = { ...pull(1, 0), kind: 'missed', value: {} } as Mark
		expect(at([missed])).toMatchObject({ next: { piece: 2 }, restS: 0 })
		expect(at([pull(1, 0), decide('end-set', 10, { reason: 'coach' })])).toMatchObject({ finished: true })
	})
	it('is a plain drill once another one was swapped in', () => {
		const swap = decide('swap', 5, { drillId: 'standing-start', drillVersion: 5 })
		expect(progressOf(make(), [swap])).toMatchObject({ swap: { drillId: 'standing-start' }, planned: 2 })
		expect(progressOf(make(), [swap]).next).toEqual({ setNo: 1, repNo: 1 })
	})
	it('costs all its pieces, done and left', () => {
		const whole = make()
		const left = (events: LogEvent[]) => {
			const { fastMetres, repsLeft } = doseLeft(
				{
					lines: [whole],
					drills: Object.fromEntries(Object.values(drills).map((drill) => [`${drill.id}/${drill.version}`, drill])),
				},
				{ id: 'a', level: 2, legLengthM: 0.9 },
				events,
			)
			return [fastMetres.done, fastMetres.planned, repsLeft]
		}
		expect(left([])).toEqual([0, 20, 2])
		expect(left([pull(1, 0)])).toEqual([0, 20, 2])
		expect(left([pull(1, 0), free(1, 430)])).toEqual([10, 20, 1])
	})
	it('is its judged piece alone where the other is a drill nobody knows', () => {
		const alone = makeLine(place, rung, drills['contrast-start']!, QUALITY_FIRST)
		expect(alone.pieces).toBeUndefined()
		expect(progressOf(alone, []).next).toEqual({ setNo: 1, repNo: 1 })
	})
})

describe('a piece of several reps, on each leg', () => {
	/** Two hops on each leg, straight on into one jump on two feet; two rounds. */
	const hops = make({
		drillId: 'countermovement-jump',
		parameters: {},
		rest: { repsS: 0, setsS: 120 },
		pieces: [
			{ drillId: 'single-leg-pogo', reps: 2, parameters: {}, rest: { repsS: 5, setsS: 5 }, judged: false },
			{ drillId: 'contrast-start', reps: 1, parameters: { distanceM: 10 }, rest: { repsS: 0, setsS: 0 }, judged: true },
		] as never,
	})
	const hop = (side: 'left' | 'right', afterS: number): Mark =>
		({
			...pull(1, afterS),
			side,
			kind: 'contact',
			value: { contactS: 0.2, flightS: 0.3, method: 'mat' },
		}) as Mark
	it('asks side after side, then the next rep, then the next piece', () => {
		const said = (events: LogEvent[]) => {
			const { next, side, half, restS, pieceLeft } = progressOf(hops, events)
			return [next.piece, side, half, restS, pieceLeft]
		}
		expect(said([])).toEqual([1, 'left', false, 0, 2])
		expect(said([hop('left', 0)])).toEqual([1, 'right', true, 5, 2])
		expect(said([hop('left', 0), hop('right', 1)])).toEqual([1, 'left', false, 5, 1])
		const both = [hop('left', 0), hop('right', 1), hop('left', 2), hop('right', 3)]
		expect(said(both)).toEqual([2, null, false, 0, 1])
		expect(said([...both, free(1, 10)])).toEqual([1, 'left', false, 120, 2])
	})
})

describe('a weight worn on the middle reps', () => {
	const worn = line({
		drillId: 'carried-run',
		dose: { sets: 2, reps: 3 },
		parameters: { distanceM: 20, loadG: 100 },
		carried: { segment: 'shank', fromJointCm: 10, grams: 100 },
	})
	const run = (n: number, timeS: number): Mark => rep(((n - 1) % 3) + 1, 1.9, timeS, { setNo: Math.ceil(n / 3) })
	it('says of the next rep whether it is worn', () => {
		const of = (done: number) =>
			progressOf(
				worn,
				Array.from({ length: done }, (_, i) => run(i + 1, 3.2)),
			).worn
		expect([0, 1, 2, 3, 4, 5].map(of)).toEqual([false, true, true, true, true, false])
		expect(progressOf(line(), []).worn).toBeNull()
		expect(progressOf(worn, [run(1, 3.2), decide('load-off', 9999, { reason: 'movement' })]).worn).toBe(false)
	})
	it('says no fall of what was worn once it is off: a new stretch begins', () => {
		// Two reps past the 3 % with the weight on end the set; the moment it comes off they say nothing any more.
		const later = (n: number, timeS: number): Mark => ({ ...run(n, timeS), ...stamp(n * 130) }) as Mark
		const slow = [later(1, 3), later(2, 3), later(3, 3.15), later(4, 3.16), later(5, 3.17)]
		expect(progressOf(worn, slow).dropOff!.percents).toHaveLength(4)
		const off = decide('load-off', 5.5 * 130, { reason: 'speed-loss' })
		// What was free before it was put on is all there is to hold the next one against.
		expect(progressOf(worn, [...slow, off]).dropOff!.percents).toEqual([0])
	})
	it('says how far each rep is off the best of those worn, or free, as it was', () => {
		const marks = [run(1, 3), run(2, 3.2), run(3, 3.264), run(4, 3.2), run(5, 3.232), run(6, 3.06)]
		const { offBest } = progressOf(worn, marks)
		expect(marks.map(({ id }) => offBest.get(id)?.percent.toFixed(1))).toEqual([
			'0.0',
			'0.0',
			'2.0',
			'0.0',
			'1.0',
			'2.0',
		])
		// A line that is not worn knows no such difference.
		const plain = progressOf(line(), marks).offBest
		expect(marks.map(({ id }) => plain.get(id)?.percent.toFixed(1))).toEqual(['0.0', '6.7', '8.8', '6.7', '7.7', '2.0'])
	})
	it('reads no fall between reps with it and without it', () => {
		// Free 3.00, with the weight 3.20: two stretches, none of them falling.
		expect(progressOf(worn, [run(1, 3), run(2, 3.2), run(3, 3.2)]).dropOff!.percents).toEqual([0, 0])
	})
})
