import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { markKey } from '../marks/mark-key'
import { type BatteryItem, type TestResult, isOfItem, readTest, resultOf, sayTest } from './battery'

const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const SPRINT: BatteryItem = {
	drillId: 'three-point-start',
	parameters: { distanceM: 20 },
	kind: 'sprint',
	method: 'gate',
	tries: 3,
	use: 'mean',
	restS: 180,
}
const KEY = markKey(drill('three-point-start'), { distanceM: 20 }, { kind: 'sprint', method: 'gate', surface: 'grass' })
const result = (day: string, value: number, tries = 3, key = KEY): TestResult => ({
	sessionId: day,
	day,
	key,
	value,
	tries,
})

describe('what is a mark of a test', () => {
	const key = (parameters = {}, taken = {}, id = 'three-point-start') =>
		markKey(drill(id), { distanceM: 20, ...parameters }, { kind: 'sprint', method: 'gate', ...taken })
	it('is whatever ground and side it was on', () => {
		for (const taken of [{}, { surface: 'grass' }, { surface: 'track' }, { side: 'left' }])
			expect(isOfItem(key({}, taken), SPRINT, drill('three-point-start')), JSON.stringify(taken)).toBe(true)
	})
	it('is none by another method, over another way, helped, at less than full effort, or of another drill', () => {
		for (const other of [
			key({}, { method: 'stopwatch' }),
			key({ distanceM: 30 }),
			key({ runInM: 10 }),
			key({}, { aid: { kind: 'sled', kg: 10 } }),
			key({}, { carried: { segment: 'shank', grams: 200 } }),
			key({ effortPercent: 90 }),
			key({}, {}, 'standing-start'),
			markKey(drill('three-point-start'), { distanceM: 20 }, { kind: 'contact', method: 'mat' }),
		])
			expect(isOfItem(other, SPRINT, drill('three-point-start')), other).toBe(false)
	})
})

describe('a result', () => {
	const one = { day: '2026-03-01', n: 3, mean: 3.12, squares: 0, best: 3.08, sessionId: 's', key: KEY }
	it('is the mean or the best of its tries', () => {
		expect(resultOf(SPRINT, one)).toMatchObject({ value: 3.12, tries: 3 })
		expect(resultOf({ ...SPRINT, use: 'best' }, one).value).toBe(3.08)
	})
	// Three reps by gate (0.02 s), days at 1 %: error √(0.031² + 0.02²/3) = 0.03308 s; 1.96 · √2 · that = 0.0917 s.
	it('has changed only beyond the smallest change that is more than noise', () => {
		const read = (before: number) =>
			readTest(SPRINT, [result('2026-03-01', before), result('2026-03-29', 3.1)], undefined)!
		expect(read(3.15).last!.mdc).toBeCloseTo(0.091695, 5)
		expect(read(3.1916).last).toMatchObject({ beyond: false, day: '2026-03-01' })
		expect(read(3.1918).last!.beyond).toBe(true)
		expect(read(3.1918).last!.gain).toBeCloseTo(0.0918, 9)
		expect(read(3.0084).last!.beyond).toBe(false)
		expect(read(3.0082)!.last!.beyond).toBe(true)
		expect(read(3.0082)!.last!.gain).toBeLessThan(0)
	})
	it('that is a best counts as one rep, and so does a single try', () => {
		const best = readTest(
			{ ...SPRINT, use: 'best' },
			[result('2026-03-01', 3.2), result('2026-03-29', 3.1)],
			undefined,
		)!
		expect(best.last!.mdc).toBeCloseTo(0.102259, 5)
		const mixed = readTest(SPRINT, [result('2026-03-01', 3.2, 1), result('2026-03-29', 3.1)], undefined)!
		expect(mixed.last!.mdc).toBeCloseTo(0.097121, 5)
	})
	it('errs as the squad does, where the squad has an error of its own', () => {
		const errors = { 'sprint/gate': { sd: 0.03, pairs: 40, dayPercent: 2, days: 40 } }
		const own = readTest(SPRINT, [result('2026-03-01', 3.2), result('2026-03-29', 3.1)], errors)!
		// √(0.062² + 0.03²/3) · 1.96 · √2.
		expect(own.last!.mdc).toBeCloseTo(1.96 * Math.SQRT2 * Math.sqrt(0.062 ** 2 + 0.0003), 9)
	})
	it('stands beside the season from two earlier ones on, of half a year', () => {
		const days = ['2026-01-05', '2026-02-02', '2026-03-02']
		const read = readTest(SPRINT, [...days.map((day) => result(day, 3.18)), result('2026-03-30', 3.1)], undefined)!
		expect(read.season).toMatchObject({ results: 3, beyond: true })
		expect(read.season!.mdc).toBeCloseTo(0.074869, 5)
		expect(read.season!.gain).toBeCloseTo(0.08, 9)
		expect(readTest(SPRINT, [result('2026-03-02', 3.2), result('2026-03-30', 3.1)], undefined)!.season).toBeNull()
		const old = readTest(
			SPRINT,
			[result('2025-09-28', 3.2), result('2025-09-29', 3.2), result('2026-03-02', 3.2), result('2026-03-30', 3.1)],
			undefined,
		)!
		// 182 days before 30 March is 29 September.
		expect(old.season!.results).toBe(2)
	})
	it('is compared with nothing on another ground, and says so by having no last', () => {
		const track = KEY.replace('grass', 'track')
		const read = readTest(SPRINT, [result('2026-03-01', 3.2, 3, track), result('2026-03-29', 3.1)], undefined)!
		expect(read).toMatchObject({ value: 3.1, last: null, season: null })
		expect(readTest(SPRINT, [], undefined)).toBeNull()
	})
	it('of a height is better when it is higher', () => {
		const jump = { ...SPRINT, drillId: 'countermovement-jump', kind: 'height' as const, method: 'mat' as const }
		const key = '1|height|countermovement-jump|-|-|-|-|-|-|-|mat'
		const read = readTest(jump, [result('2026-03-01', 0.4, 3, key), result('2026-03-29', 0.45, 3, key)], undefined)!
		expect(read.last!.gain).toBeCloseTo(0.05, 9)
	})
})

describe('a squad’s test in a sentence', () => {
	const person = (name: string, gain: number | null, beyond = false) => ({
		name,
		reading:
			gain === null
				? null
				: { ...result('2026-03-29', 3.1), last: { gain, mdc: 0.09, beyond, day: '2026-03-01' }, season: null },
	})
	it('counts who changed beyond noise, and names who is missing', () => {
		expect(
			sayTest('30 m', [
				person('A', 0.1, true),
				person('B', 0.2, true),
				person('C', -0.1, true),
				person('D', 0.01),
				person('Bo Hartigan', null),
			]),
		).toBe('30 m: 2 of 4 better beyond noise, 1 worse, 1 unchanged; missing: Bo Hartigan')
		expect(sayTest('30 m', [person('A', 0.01), person('B', -0.01)])).toBe('30 m: none of 2 changed beyond noise')
		expect(sayTest('30 m', [{ name: 'A', reading: { ...result('2026-03-29', 3.1), last: null, season: null } }])).toBe(
			'30 m: first time for 1',
		)
		expect(sayTest('30 m', [])).toBe('30 m: nobody yet')
	})
})
