import { describe, expect, it } from 'vitest'
import { QUALITY_FIRST } from '../library/schools'
import type { School } from '../vocabulary/school'
import { readSides } from './left-right'
import type { Exposure } from './types'

// A gap between the sides is acted on when it is real (larger than the test's own scatter), on the same side twice
// running, and 10 % or more; a school may leave it alone.

type Mark = Exposure['marks'][number]
const marks = (kind: Mark['kind'], left: number[], right: number[], more: Mark[] = []): Mark[] => [
	...left.map((value): Mark => ({ kind, value, method: 'mat', side: 'left' })),
	...right.map((value): Mark => ({ kind, value, method: 'mat', side: 'right' })),
	...more,
]
const day = (some: Mark[]): Exposure => ({
	sessionId: 's',
	day: '2026-03-12',
	rungId: 'single-leg-pogo',
	onRung: true,
	planned: { sets: 1, reps: 6 },
	repsDone: 6,
	endReason: null,
	marks: some,
	quality: { good: 0, notYet: 0, poor: 0, setTaps: 0 },
})
const read = (days: Mark[][], leftRight: School['choices']['leftRight'] = 'close', onOneLeg = true) =>
	readSides(days.map(day), { ...QUALITY_FIRST, choices: { ...QUALITY_FIRST.choices, leftRight } }, onOneLeg)
/** Contacts in ms: the right is longer by 12.5 % of the stronger side. */
const lags = marks('contact', [0.2, 0.202, 0.198], [0.225, 0.227, 0.223])
const even = marks('contact', [0.2, 0.202, 0.198], [0.203, 0.205, 0.201])

/** The same numbers by another method. */
const by = (method: Mark['method'], some: Mark[]): Mark[] => some.map((mark) => ({ ...mark, method }))

describe('left against right, taken likewise', () => {
	const of = (...days: Partial<Exposure>[]) =>
		readSides(
			days.map((one) => ({ ...day([]), ...one })),
			QUALITY_FIRST,
			true,
		)
	const once = 'right is behind by 12.5 %, once'
	it('no leg by the mat against the other on film', () => {
		const [left, right] = [marks('contact', [0.2, 0.202, 0.198], []), marks('contact', [], [0.225, 0.227, 0.223])]
		expect(of({ marks: [...left, ...by('film-240', right)] })).toBeNull()
	})
	it('in the method most were taken with', () => {
		const one = by('film-240', marks('contact', [0.2], [0.3]))
		expect(of({ marks: [...one, ...lags] })!.trace.found).toBe(once)
		expect(of({ marks: [...one, ...lags] }, { marks: [...lags, ...one] })!.act).toBe('right')
	})
	it.each([
		['another method', { marks: by('film-240', lags) }],
		['another rung', { marks: lags, rungId: 'depth-15' }],
		['another ground or form', { marks: lags, like: 'pogo|-|-|-|-|-|track' }],
	] as [string, Partial<Exposure>][])('a day by or on %s is not the same a second time', (_name, before) => {
		const now = { marks: lags, like: 'pogo|-|-|-|-|-|grass' }
		const other = { ...now, ...before }
		expect(of(other, now)).toMatchObject({ act: undefined, trace: { found: once } })
		expect(of(now, now)!.act).toBe('right')
		// One between two that are alike is passed over.
		expect(of(now, other, now)!.act).toBe('right')
	})
})

describe('left against right', () => {
	it('asks for marks of both sides, in the kind that was taken by side', () => {
		expect(read([])).toBeNull()
		expect(read([[{ kind: 'contact', value: 0.2, method: 'mat' }]])).toBeNull()
		expect(read([marks('contact', [0.2], [])])).toBeNull()
		expect(read([marks('contact', [], [0.2])])).toBeNull()
		// A height beside the contacts is no side's mark.
		const height: Mark = { kind: 'height', value: 0.3, method: 'mat', side: 'right' }
		expect(read([lags, [...lags, height]])!.trace.found).toBe('right is behind by 12.5 %')
	})
	it('once is told; twice running on one side moves a rep to it', () => {
		expect(read([lags])).toEqual({
			act: undefined,
			sentence: null,
			trace: {
				rule: 'LR',
				question: 'Left against right',
				found: 'right is behind by 12.5 %, once',
				limit: 'beyond noise, same side twice, 10 %',
				fired: false,
				firmness: 'our setting',
			},
		})
		expect(read([lags, lags])).toMatchObject({
			act: 'right',
			sentence: 'The right is behind by 12.5 %: one rep of each set moves to the right, not more in all.',
			trace: { fired: true, found: 'right is behind by 12.5 %' },
		})
		expect(read([lags, lags], 'close', false)!.sentence).toBe(
			'The right is behind by 12.5 %: in work on one leg one rep of each set moves to the right, not more in all.',
		)
		const other = marks('contact', [0.225, 0.227, 0.223], [0.2, 0.202, 0.198])
		expect(read([other, other])!.act).toBe('left')
		// Not the same side twice: things stay as they are.
		expect(read([other, lags])).toMatchObject({ act: undefined, trace: { fired: false } })
		// Only the last two are asked.
		expect(read([other, lags, lags])!.act).toBe('right')
	})
	it('a height is better when higher, a time when lower', () => {
		const heights = marks('height', [0.3, 0.302, 0.298], [0.25, 0.252, 0.248])
		expect(read([heights, heights])!.act).toBe('right')
		const times = marks('sprint', [2, 2.01, 1.99], [2.4, 2.41, 2.39])
		expect(read([times, times])!.act).toBe('right')
		const throws = marks('distance', [10, 10.1, 9.9], [8, 8.1, 7.9])
		expect(read([throws, throws])!.act).toBe('right')
		// A height and a contact are not one test, nor a contact and a time, which are better alike.
		const slower = marks('sprint', [2, 2.01, 1.99], [2.4, 2.41, 2.39])
		expect(read([slower, lags])!.trace.found).toBe('right is behind by 12.5 %, once')
		expect(read([heights, lags])!.trace.found).toBe('right is behind by 12.5 %, once')
	})
	it('10 % acts, less takes a favour back', () => {
		// 0.22 against 0.20 in contact is 10 % of the stronger side; 0.2199 is 9.95 %.
		const at = (right: number) => marks('contact', [0.2, 0.2, 0.2], [right, right, right])
		expect(read([at(0.22), at(0.22)])!.act).toBe('right')
		expect(read([at(0.2199), at(0.2199)])).toMatchObject({ act: null, sentence: null })
		expect(read([lags, even])).toMatchObject({ act: null, trace: { fired: false, found: 'right is behind by 1.5 %' } })
		expect(read([at(0.2), at(0.2)])!.trace.found).toBe('neither is behind by 0.0 %')
	})
	it('a gap within the test’s own scatter is none', () => {
		const wide = marks('contact', [0.14, 0.2, 0.26], [0.165, 0.225, 0.285])
		expect(read([wide, wide])).toMatchObject({ act: undefined, trace: { fired: false } })
	})
	it('a school that leaves it alone says so and takes a favour back', () => {
		expect(read([lags, lags], 'leave')).toMatchObject({
			act: null,
			sentence: 'The right is behind by 12.5 %; this school leaves such a gap alone.',
			trace: { fired: true },
		})
	})
})
