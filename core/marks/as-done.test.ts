import { describe, expect, it } from 'vitest'
import { decide, line, rep } from '../../tests/support/on-the-line'
import { STARTER_LIBRARY } from '../library/starter-library'
import { progressOf } from '../field/line-progress'
import type { LogEvent, Mark } from '../vocabulary/events'
import { asDone, rehearsalOf } from './as-done'
import { keyOfMark } from './keep-session'
import { isBelowFull } from './mark-key'

// A start of 20 m every 130 s; what is decided between two of them stands at the half.
const between = (n: number) => (n + 0.5) * 130
const marks = [1, 2, 3, 4].map((n) => rep(n, 1.9, 3.2))
const at = { entryId: 'e', athleteId: 'a' }
const fastDay = decide('fast-day', between(2))
const on = { drill: STARTER_LIBRARY.drills['three-point-start']!, parameters: { distanceM: 20, loadG: 200 } }

describe('the rehearsal of a fast day', () => {
	it('is the first rep after it was taken, and no other', () => {
		expect(rehearsalOf([...marks, fastDay], at)).toBe(marks[2]!.id)
		expect(rehearsalOf([fastDay, ...[...marks].reverse()], at)).toBe(marks[2]!.id)
		expect(rehearsalOf(marks, at)).toBeNull()
		expect(rehearsalOf([...marks.slice(0, 2), fastDay], at)).toBeNull()
	})
	it('is not one that was missed, nor a word about one', () => {
		const missed = { ...marks[2]!, kind: 'missed', value: { reason: 'aborted' } } as unknown as Mark
		const good = { ...marks[2]!, id: 'good', type: 'observation', kind: 'quality' } as unknown as LogEvent
		expect(rehearsalOf([...marks.slice(0, 2), missed, good, marks[3]!, fastDay], at)).toBe(marks[3]!.id)
	})
	it('is of the athlete and the drill it was taken on', () => {
		for (const change of [{ athleteId: 'b' }, { entryId: 'x' }]) {
			expect(rehearsalOf([...marks, { ...fastDay, ...change } as LogEvent], at), JSON.stringify(change)).toBeNull()
			const other = { ...marks[2]!, ...change } as LogEvent
			expect(rehearsalOf([...marks.slice(0, 2), fastDay, other], at), JSON.stringify(change)).toBeNull()
		}
	})
	it('taken on two phones it is the first rep after the first', () => {
		const again = { ...decide('fast-day', between(3)), deviceId: 'other' } as LogEvent
		expect(rehearsalOf([again, ...marks, fastDay], at)).toBe(marks[2]!.id)
	})
	it('compares with nothing that was run in full, and is no fall on the phone', () => {
		const events = [...marks, fastDay]
		const keys = marks.map((mark) => keyOfMark(mark, asDone(on, { sets: 1, reps: 4 }, mark, events), 'grass')!)
		expect(keys.map(isBelowFull)).toEqual([false, false, true, false])
		expect(new Set([keys[0], keys[1], keys[3]]).size).toBe(1)
		expect(progressOf(line(), events).dropOff!.percents).toHaveLength(3)
		expect(progressOf(line(), marks).dropOff!.percents).toHaveLength(4)
	})
})

describe('what a mark was made on', () => {
	it('is without the weight from when it came off', () => {
		const off = decide('load-off', between(2), { reason: 'minutes' })
		const made = (events: LogEvent[]) =>
			marks.map((mark) => asDone(on, { sets: 1, reps: 4 }, mark, events).parameters.loadG)
		expect(made([off])).toEqual([200, 200, undefined, undefined])
		expect(made([])).toEqual([200, 200, 200, 200])
		expect(made([{ ...off, athleteId: 'b' } as LogEvent])).toEqual([200, 200, 200, 200])
		expect(made([{ ...off, entryId: 'x' } as LogEvent])).toEqual([200, 200, 200, 200])
		// Said on two phones, the first counts.
		const early = decide('load-off', between(1), { reason: 'minutes' })
		expect(made([off, early])).toEqual([200, undefined, undefined, undefined])
		expect(
			asDone({ ...on, carried: { segment: 'trunk', grams: 200 } as never }, { sets: 1, reps: 4 }, marks[3]!, [off])
				.carried,
		).toBeNull()
	})
})
