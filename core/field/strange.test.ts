import { describe, expect, it } from 'vitest'
import { athlete, line, rep } from '../../tests/support/on-the-line'
import { STARTER_LIBRARY } from '../library/starter-library'
import { progressOf } from './line-progress'
import type { FieldAthlete, FieldLine } from './pack'
import { strangeness } from './slots'
import { ownOnly, strangeFor } from './strange'

// What surprises about a reading: 5 % faster than the best, 30 % slower, or off the own curve where there is no best
// (our setting, as on the pad).

const drill = STARTER_LIBRARY.drills['three-point-start']!
const run = (twenty: number) => rep(1, 1.9, twenty) as never
const of = (mark: never, own: Partial<FieldLine> = {}, who: Partial<FieldAthlete> | null = {}) =>
	strangeFor(progressOf(line(own), []), mark, who === null ? undefined : { ...athlete, ...who }, drill)

describe('a reading that would surprise', () => {
	it('is 5 % faster than the best by gates, or 30 % slower; in between it is none', () => {
		// Of 3.20 s: 3.04 s and 4.16 s.
		expect([of(run(3.05)), of(run(3.2)), of(run(4.15))]).toEqual([null, null, null])
		expect(of(run(3.03))).toBe('3.03 s for 20 m would be the best by 0.17 s.')
		// What a device says beyond hundredths is not read out.
		expect(of(run(3.0304))).toBe('3.03 s for 20 m would be the best by 0.17 s.')
		expect(of(run(4.17))).toBe('4.17 s is 0.97 s off the best of 3.2 s.')
	})
	it('without a best is held against the own curve, and without one against what anybody runs', () => {
		// 20 m at a standing start by the curve of 8.5 m/s and 1.1 s: about 3.5 s; 0.95 and 1.12 of it, and 15 % more.
		const none = { bests: {} }
		expect(of(run(3.5), none)).toBeNull()
		expect(of(run(2.9), none)).toMatch(/^2\.9 s is not what Ilka Moreau’s own curve says, 3\.\d\d to 3\.\d\d s$/)
		expect(of(run(5.2), none)).toMatch(/^5\.2 s is not what/)
		expect(of(run(5.2), none, { curve: null })).toBeNull()
		expect(of(run(5.2), none, null)).toBeNull()
		expect(of(run(31), none, null)).toMatch(/can hardly be/)
	})
	it('of another method’s best is not held against it', () => {
		expect(of(run(2.9), { bests: { stopwatch: 3.4 } }, { curve: null })).toBeNull()
	})
	it('can be a contact, a flight or a height; what is no number surprises nobody', () => {
		const mark = (kind: string, value: object) => ({ ...rep(1, 1.9, 3.2), kind, value }) as never
		const at = (logs: FieldLine['logs'], kind: string, value: object) => of(mark(kind, value), { logs, bests: {} })
		expect(at('contact', 'contact', { contactS: 0.18, flightS: 0.45, method: 'mat' })).toBeNull()
		expect(at('contact', 'contact', { contactS: 1.8, flightS: 0.45, method: 'mat' })).not.toBeNull()
		expect(at('height', 'height', { heightM: 0.35, method: 'mat' })).toBeNull()
		expect(at('height', 'height', { heightM: 3.5, method: 'mat' })).not.toBeNull()
		expect(at('done', 'done', { reps: 900 })).toBeNull()
		expect(at('distance', 'release', { speedMps: 99, method: 'film-240' })).toBeNull()
		const said = { ...rep(1, 1.9, 3.2), type: 'observation', kind: 'quality', value: { grade: 'good', scope: 'rep' } }
		expect(of(said as never)).toBeNull()
	})
	it('of another drill in its place is not held against what is usual on the line', () => {
		const usual = { usuals: { gate: 3.2 } }
		const progress = progressOf(line(usual), [])
		expect(ownOnly(progress).usuals).toEqual({ gate: 3.2 })
		expect(ownOnly({ ...progress, swap: { drillId: 'pogo', drillVersion: 1 } }).usuals).toEqual({})
	})
})

describe('a number that is typed', () => {
	const twenty = [{ kind: 'sprint', distanceM: 20, unit: 's' }] as never
	const tape = [{ kind: 'distance', distanceM: null, unit: 'm' }] as never
	const said = (logs: FieldLine['logs'], slots: never, value: number | null | undefined, best?: number) =>
		strangeness({ logs }, slots, [value as number], best)
	it('of a run surprises below 95 % and above 130 % of the best, not at them', () => {
		// Of 4 s: 3.8 s and 5.2 s.
		expect([said('sprint', twenty, 3.8, 4), said('sprint', twenty, 5.2, 4)]).toEqual([null, null])
		expect(said('sprint', twenty, 3.79, 4)).toBe('3.79 s for 20 m would be the best by 0.21 s.')
		expect(said('sprint', twenty, 5.21, 4)).toBe('5.21 s is 1.21 s off the best of 4 s.')
		expect(said('sprint', twenty, 3.79)).toBeNull()
	})
	it('of a throw has no best that is less', () => {
		expect([said('distance', tape, 3, 4), said('distance', tape, 6, 4)]).toEqual([null, null])
	})
	it('is asked about nothing while nothing is typed', () => {
		expect([said('sprint', twenty, null, 4), said('sprint', [] as never, 3, 4)]).toEqual([null, null])
	})
})
