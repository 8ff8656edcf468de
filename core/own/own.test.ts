import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Parameters, SideDoses } from '../vocabulary/dose'
import { ballFor } from './ball'
import { type FieldRun, type Measured, type Own, fieldSegments, fieldSpeed, newerSpeed, ownLoad, ownOf } from './own'
import { sayOwn, sayStanding } from './say-own'

const DAY = '2026-03-12'
const school = STARTER_LIBRARY.schools['quality-first']!
const of = (measured: Measured[], day = DAY, goalS = 0.15): Own => ownOf(measured, goalS, day)

/** Flight of 0.5 s is 30.6 cm of height: 0.153 m/s of index at 0.2 s of contact each 0.1. */
const jumps = (...boxes: [cm: number, contactMs: number, flightMs?: number][]) =>
	boxes.map(([cm, contactMs, flightMs = 500]) => ({
		boxM: cm / 100,
		contactTimeS: contactMs / 1000,
		flightTimeS: flightMs / 1000,
	}))
const series = (on: string, ...boxes: [number, number, number?][]): Measured => ({
	kind: 'drop-jumps',
	jumps: jumps(...boxes),
	on,
	how: 'contact mat',
})

describe('a throwing rung’s ball by body mass [our setting]', () => {
	it.each([
		[3, 30, 2],
		[3, 45, 2],
		[3, 45.1, 3],
		[3, 70, 3],
		[3, 70.1, 4],
		[3, 90, 4],
		[3, 90.1, 5],
		[3, 140, 5],
		[3, null, 2],
		// The runs with a throw begin a kilogram lower, and go no lower than they are.
		[2, 40, 2],
		[2, null, 2],
		[2, 60, 2],
		[2, 80, 3],
		[2, 95, 4],
		// A rung whose ball is lighter or heavier than body mass gives: no further down, and no further than 5 kg.
		[1, 40, 1],
		[1, 60, 1],
		[5, 80, 5],
		[5, 40, 4],
	])('%s kg on the rung, %s kg of body: %s kg', (rung, mass, kg) => expect(ballFor(rung, mass)).toBe(kg))
})

describe('what stands on a day', () => {
	it('is the newest of a kind, up to half a year old, and nothing of the days after', () => {
		const [old, lately, later] = [
			series('2025-09-11', [20, 140]),
			series('2026-03-01', [30, 140]),
			series('2026-03-13', [45, 140]),
		]
		expect(of([old, lately, later]).bestBox).toEqual({
			heightCm: 30,
			keepsGoal: true,
			on: '2026-03-01',
			how: 'contact mat',
		})
		// However they come: the newest stands.
		expect(of([lately, old]).bestBox?.heightCm).toBe(30)
		expect(of([old, lately].reverse()).bestBox?.heightCm).toBe(30)
		// 182 days after 11 September 2025 is 12 March 2026.
		expect(of([old]).bestBox?.heightCm).toBe(20)
		expect(of([old], '2026-03-13')).toEqual({})
		expect(of([later], '2026-03-13').bestBox?.heightCm).toBe(45)
		expect(of([])).toEqual({})
	})
	it('the best box is that of the school’s goal, whatever the series was looked at with', () => {
		const one = series(DAY, [15, 140, 480], [30, 149, 520], [45, 170, 560])
		expect(of([one]).bestBox).toMatchObject({ heightCm: 30, keepsGoal: true })
		expect(of([one], DAY, 0.18).bestBox).toMatchObject({ heightCm: 45, keepsGoal: true })
		// None keeps it: the box of the shortest contact.
		expect(of([one], DAY, 0.12).bestBox).toMatchObject({ heightCm: 15, keepsGoal: false })
	})
	it('steps count near top speed alone, those of the newest such day together', () => {
		const step = (on: string, lengthM: number, speedMps: number): Measured => ({
			kind: 'steps',
			lengthM,
			speedMps,
			on,
			how: 'film',
		})
		// 8.73 is 97 % of 9.00.
		expect(of([step('2026-03-01', 2.2, 9), step('2026-03-02', 1.9, 8.72)]).step).toMatchObject({
			lengthM: 2.2,
			on: '2026-03-01',
		})
		expect(of([step('2026-03-01', 2.2, 9), step('2026-03-02', 1.9, 8.73)]).step).toMatchObject({ lengthM: 1.9 })
		expect(of([step('2026-03-02', 2.2, 9), step('2026-03-02', 2.1, 8.9)]).step?.lengthM).toBeCloseTo(2.15, 10)
		expect(of([step('2026-03-02', 2.2, 9)]).stepAdvice).toMatchObject({ push: null })
		// Eight reps of three days whose faster ones were longer by as much as they were faster.
		const eight = Array.from({ length: 8 }, (_, at) => step(`2026-03-0${1 + (at % 3)}`, 2 + 0.05 * at, 8 + 0.2 * at))
		expect(of([...eight, series(DAY, [15, 140])]).stepAdvice).toMatchObject({ push: 'length' })
	})
	it('profile, load line and row of wickets as they were measured', () => {
		const own = of([
			{ kind: 'profile', mssMps: 9, tauS: 1.2, on: '2026-03-02', how: 'timing gate' },
			{ kind: 'loads', loads: [{ loadKg: 0, velocityMps: 9 }], on: '2026-03-03', how: 'timing gate' },
			{ kind: 'wickets', count: 12, firstGapM: 1.8, lastGapM: 2.2, on: '2026-03-04', how: 'tape' },
		])
		expect(own).toEqual({
			topSpeed: { mssMps: 9, tauS: 1.2, on: '2026-03-02', how: 'timing gate', sessions: null },
			loadLine: { loads: [{ loadKg: 0, velocityMps: 9 }], on: '2026-03-03', how: 'timing gate' },
			wickets: { count: 12, firstGapM: 1.8, lastGapM: 2.2, on: '2026-03-04', how: 'tape' },
		})
	})
	it('of bench and field the newer, the bench on one day', () => {
		const [bench, field] = [
			{ mssMps: 9, tauS: 1.2, on: '2026-03-02', how: 'timing gate', sessions: null },
			{ mssMps: 8.8, tauS: 1.2, on: '2026-03-02', how: 'gates', sessions: 4 },
		]
		expect(newerSpeed(bench, field)).toBe(bench)
		expect(newerSpeed(bench, { ...field, on: '2026-03-03' })?.sessions).toBe(4)
		expect(newerSpeed({ ...bench, on: '2026-03-03' }, field)?.sessions).toBeNull()
		expect(newerSpeed(null, field)).toBe(field)
		expect(newerSpeed(bench, null)).toBe(bench)
		expect(newerSpeed(null, null)).toBeNull()
		const from = ownOf([{ kind: 'profile', mssMps: 9, tauS: 1.2, on: '2026-03-01', how: 'x' }], 0.15, DAY, field)
		expect(from.topSpeed).toBe(field)
	})
})

describe('a profile from ordinary sessions', () => {
	/** Time at a distance of v(t) = MSS (1 − e^(−t/TAU)), found by halving: d(t) = MSS (t − TAU (1 − e^(−t/TAU))). */
	const timeAt = (metres: number, mss = 9, tau = 1.2): number => {
		let [low, high] = [0, 60]
		for (let turn = 0; turn < 100; turn++) {
			const t = (low + high) / 2
			if (mss * (t - tau * (1 - Math.exp(-t / tau))) < metres) low = t
			else high = t
		}
		return low
	}
	const run = (day: string, distances = [10, 20, 30, 40], start = 'standing', late = 0): FieldRun => ({
		day,
		start,
		splits: distances.map((distanceM) => ({ distanceM, timeS: timeAt(distanceM) + late })),
	})
	const three = ['2026-03-01', '2026-03-09', '2026-03-04']
	it('three sessions of one start give back the curve they were made of', () => {
		const speed = fieldSpeed(three.map((day) => run(day)))!
		expect(speed.mssMps).toBeCloseTo(9, 3)
		expect(speed.tauS).toBeCloseTo(1.2, 3)
		expect(speed).toMatchObject({ sessions: 3, on: '2026-03-09', how: 'gates' })
	})
	it('30 m is far enough; splits in any order; the start that was run most', () => {
		const far = fieldSpeed(three.map((day) => run(day, [30, 20, 10, 5], 'standing')))
		expect(far?.mssMps).toBeCloseTo(9, 3)
		const mixed = [run('2026-02-01', undefined, 'three-point', 0.3), ...three.map((day) => run(day))]
		expect(fieldSpeed(mixed)?.mssMps).toBeCloseTo(9, 3)
		expect(fieldSpeed([...mixed].reverse())?.mssMps).toBeCloseTo(9, 3)
		// Run oftener, and too short to say anything.
		const short = ['2026-02-01', '2026-02-04', '2026-02-08', '2026-02-12'].map((day) => run(day, [10, 20], 'reaction'))
		expect(fieldSpeed([...short, ...three.map((day) => run(day))])?.mssMps).toBeCloseTo(9, 3)
	})
	it('a session early and one late by as much come to the same', () => {
		const mixed = [
			run(three[0]!),
			run(three[1]!, undefined, undefined, 0.02),
			run(three[2]!, undefined, undefined, -0.02),
		]
		expect(fieldSpeed(mixed)!.mssMps).toBeCloseTo(9, 3)
	})
	it.each<[string, FieldRun[]]>([
		['two sessions', three.slice(1).map((day) => run(day))],
		['three distances', three.map((day) => run(day, [10, 20, 30]))],
		['nothing as far as 30 m', three.map((day) => run(day, [5, 10, 15, 29]))],
		['sessions of two starts', three.map((day, at) => run(day, undefined, at === 0 ? 'standing' : 'three-point'))],
		['runs without every distance', three.map((day, at) => run(day, at === 0 ? [10, 20] : undefined))],
		['nothing', []],
		[
			'times that are no sprint',
			three.map((day) => ({ ...run(day), splits: [10, 20, 30, 40].map((m) => ({ distanceM: m, timeS: m * m })) })),
		],
	])('not from %s', (_, runs) => expect(fieldSpeed(runs)).toBeNull())
	describe('where the time goes in ordinary sessions', () => {
		const lost = (from: number, seconds: number) =>
			three.map((day) => {
				const one = run(day, [5, 10, 20, 30, 40])
				return {
					...one,
					splits: one.splits.map(({ distanceM, timeS }) => ({
						distanceM,
						timeS: timeS + (distanceM > from ? seconds : 0),
					})),
				}
			})
		it('a curve without a dent has no weak part', () => {
			const read = fieldSegments(three.map((day) => run(day, [5, 10, 20, 30, 40])))!
			expect(read.segments.map(({ fromM, toM, weak }) => [fromM, toM, weak])).toEqual([
				[0, 5, false],
				[5, 10, false],
				[10, 20, false],
				[20, 30, false],
				[30, 40, false],
			])
			expect(read).toMatchObject({ sessions: 3, on: '2026-03-09' })
		})
		it('a tenth lost between 20 and 30 m is found there and nowhere else', () => {
			const read = fieldSegments(lost(20, 0.1))!
			expect(read.segments.filter(({ weak }) => weak).map(({ fromM, toM }) => [fromM, toM])).toEqual([[20, 30]])
		})
		it('what the start costs is no weak part', () => {
			expect(fieldSegments(lost(0, 0.1))!.segments[0]).toMatchObject({ fromM: 0, toM: 5, weak: false })
		})
		it('a hundredth is within what timing errs', () => {
			expect(fieldSegments(lost(20, 0.01))!.segments.some(({ weak }) => weak)).toBe(false)
		})
		it('is not read from two sessions', () => expect(fieldSegments(lost(20, 0.1).slice(1))).toBeNull())
	})
	it('not where the last split is far from top speed', () => {
		// At 30 m with TAU 4 s half of the speed is still to come.
		const slow = three.map((day) => ({
			...run(day),
			splits: [10, 20, 25, 30].map((distanceM) => ({ distanceM, timeS: timeAt(distanceM, 14, 4) })),
		}))
		expect(fieldSpeed(slow)).toBeNull()
	})
})

describe('what a line says of own measurements', () => {
	const taken = { on: '2026-03-02', how: 'timing gate' }
	const say = (drillId: string, parameters: Parameters, own: Own, sides: Sides = null, at = school) =>
		sayOwn(STARTER_LIBRARY.drills[drillId]!, { parameters, sides }, own, at).map((one) => [one.short, one.words])
	type Sides = SideDoses | null
	// 9 m/s free, 0.075 m/s lost a kilogram: a quarter of the speed is 30 kg.
	const loadLine = {
		loads: [
			{ loadKg: 0, velocityMps: 9 },
			{ loadKg: 20, velocityMps: 7.5 },
			{ loadKg: 40, velocityMps: 6 },
		],
		...taken,
	}
	it('the kilograms of a sled, and whether they lie outside what was tried', () => {
		expect(say('sled-walk', {}, { loadLine })).toEqual([])
		expect(say('resisted-start', { distanceM: 15, resistPercent: 25 }, { loadLine })).toEqual([
			['30.0 kg', '30.0 kg for 25.0 % slower, off the own load–velocity line (timing gate, Mon 2 Mar).'],
		])
		expect(say('resisted-start', { resistPercent: 50 }, { loadLine })[0]![1]).toBe(
			'60.0 kg for 50.0 % slower, off the own load–velocity line (timing gate, Mon 2 Mar; outside the loads tried).',
		)
		expect(say('resisted-start', { resistPercent: 0 }, { loadLine })).toEqual([])
		expect(say('resisted-start', { resistPercent: 25 }, {})).toEqual([])
	})
	it('no load off a line that does not fall', () => {
		const flat = { ...loadLine, loads: loadLine.loads.map((one) => ({ ...one, velocityMps: 9 })) }
		expect(ownLoad(flat, 25)).toBeNull()
		expect(say('resisted-start', { resistPercent: 25 }, { loadLine: flat })).toEqual([])
	})
	it('speed and time of a pulled run, up to the school’s cap', () => {
		const topSpeed = { mssMps: 9, tauS: 1.2, sessions: null, ...taken }
		// 9.45 m/s over 20 m is 2.116 s.
		expect(say('assisted-fly', { distanceM: 20, runInM: 20, assistPercent: 5 }, { topSpeed })).toEqual([
			['20 m in 2.12 s', '20 m in 2.12 s at 9.45 m/s, 5 % over the own 9.00 m/s (timing gate, Mon 2 Mar).'],
		])
		expect(say('assisted-fly', { distanceM: 20, assistPercent: 10 }, { topSpeed })).toHaveLength(1)
		expect(say('assisted-fly', { distanceM: 20, assistPercent: 15 }, { topSpeed })).toEqual([])
		expect(say('assisted-fly', { distanceM: 20 }, { topSpeed })).toEqual([])
		expect(say('fly-20', { distanceM: 20, assistPercent: 5 }, { topSpeed })).toEqual([])
	})
	it('wickets from the own step, or the row that was set since', () => {
		const step = { lengthM: 2.3, ...taken }
		const row = { count: 12, firstGapM: 1.8, lastGapM: 2.2, on: '2026-03-02', how: 'tape' }
		// The first gap is 83 % of 2.30 m.
		expect(say('wicket-run', {}, { step })).toEqual([
			['1.91 to 2.30 m', '10 wickets 1.91 to 2.30 m apart: the own step is 2.30 m (timing gate, Mon 2 Mar).'],
		])
		expect(say('wicket-run', {}, { step, wickets: row })).toEqual([
			['1.80 to 2.20 m', '12 wickets 1.80 to 2.20 m apart, the row set for this athlete (Mon 2 Mar).'],
		])
		expect(say('wicket-run', {}, { step, wickets: { ...row, on: '2026-03-01' } })[0]![0]).toBe('1.91 to 2.30 m')
		expect(say('wicket-run', {}, { wickets: row })).toHaveLength(1)
		expect(say('wicket-run', {}, {})).toEqual([])
		expect(say('fly-20', {}, { step, wickets: row })).toEqual([])
	})
	it('the best box, on rebounds alone', () => {
		const bestBox = { heightCm: 30, keepsGoal: true, on: '2026-03-02', how: 'contact mat' }
		expect(say('depth-jump', { heightCm: 45 }, { bestBox })).toEqual([
			['best box 30 cm', 'Own best box 30 cm (contact mat, Mon 2 Mar).'],
		])
		expect(say('depth-jump', { heightCm: 30 }, { bestBox: { ...bestBox, keepsGoal: false } })[0]![1]).toBe(
			'No box keeps the sprint goal yet; contact is shortest from 30 cm (contact mat, Mon 2 Mar).',
		)
		expect(say('drop-landing', { heightCm: 45 }, { bestBox })).toEqual([])
		expect(say('depth-jump', {}, { bestBox })).toEqual([])
	})
	it('which side takes a rep more', () => {
		const sides = { left: { sets: 3, reps: 5 }, right: { sets: 3, reps: 7 } }
		expect(say('single-leg-pogo', {}, {}, sides)).toEqual([['left 5, right 7', 'Left 3×5, right 3×7.']])
		expect(say('single-leg-pogo', {}, {}, { left: sides.left, right: sides.left })).toEqual([])
		expect(say('single-leg-pogo', {}, {}, { left: sides.left })).toEqual([])
	})
})

it('what stands is said with where it goes', () => {
	const taken = { on: '2026-03-02', how: 'film' }
	const own: Own = {
		topSpeed: { mssMps: 9, tauS: 1.2, sessions: 4, on: '2026-03-02', how: 'gates' },
		bestBox: { heightCm: 30, keepsGoal: true, ...taken },
		loadLine: { loads: [], ...taken },
		step: { lengthM: 2.3, ...taken },
		stepAdvice: { push: 'length', sentence: 'Push length.' },
	}
	expect(sayStanding(own, school)).toEqual([
		'Top speed 9.00 m/s (4 sessions, gates, Mon 2 Mar): sets pulled runs.',
		'Best box 30 cm (film, Mon 2 Mar): no rebound from a higher one.',
		'Load–velocity line (film, Mon 2 Mar): sets the kilograms of a sled.',
		'Step 2.30 m (film, Mon 2 Mar): sets the spacing of wickets.',
		'Push length.',
	])
	const climbing = { ...school, choices: { ...school.choices, boxHeight: 'climb' as const } }
	expect(sayStanding({ bestBox: own.bestBox! }, climbing)).toEqual(['Best box 30 cm (film, Mon 2 Mar).'])
	expect(sayStanding({ bestBox: { ...own.bestBox!, keepsGoal: false } }, school)).toEqual([
		'No box keeps the sprint goal yet; contact is shortest from 30 cm (film, Mon 2 Mar).',
	])
	const row = { count: 12, firstGapM: 1.8, lastGapM: 2.2, on: '2026-03-02', how: 'tape' }
	expect(sayStanding({ step: own.step!, wickets: row }, school)).toEqual([
		'A row of wickets (Mon 2 Mar): sets their spacing.',
	])
	expect(sayStanding({ topSpeed: { ...own.topSpeed!, sessions: null } }, school)).toEqual([
		'Top speed 9.00 m/s (gates, Mon 2 Mar): sets pulled runs.',
	])
	expect(sayStanding({ stepAdvice: { push: null, sentence: 'Not enough to say.' } }, school)).toEqual([])
	expect(sayStanding({}, school)).toEqual([])
})
