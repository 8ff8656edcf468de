import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Drill } from '../vocabulary/drill'
import {
	comparableWith,
	convertedKey,
	freeKey,
	isBelowFull,
	firstMetresOf,
	isFreeRunLike,
	lineKey,
	markKey,
	methodOfKey,
	otherSideKey,
	partsOfKey,
	plainRun,
	measureOfKey,
	sidelessKey,
	type Taken,
} from './mark-key'
import { aroundOwn, plausibility } from './plausible'

const drill = (id: string): Drill => STARTER_LIBRARY.drills[id]!
const sprint = drill('standing-start')
const key = (more: Partial<Taken> = {}, parameters = {}, of = sprint) =>
	markKey(of, { distanceM: 20, ...parameters }, { kind: 'sprint', method: 'gate', surface: 'track', ...more })

describe('the comparison key', () => {
	it('is the same for the same, however it was written', () => {
		expect(key()).toBe(key())
		expect(key({}, { distanceM: 20.00000001 })).toBe(key())
		expect(key({}, { runInM: 0, approachSteps: 0, loadG: 0, assistPercent: 0, resistPercent: 0 })).toBe(key())
		expect(key({ carried: null, aid: null })).toBe(key())
		expect(key({ start: 'standing' })).toBe(key())
		expect(key({}, { effortPercent: 98 })).toBe(key())
	})
	it('parts whatever is unlike', () => {
		const keys = [
			key(),
			key({}, {}, drill('three-point-start')),
			key({ start: 'reaction' }),
			key({}, { distanceM: 10 }),
			key({}, { runInM: 20 }),
			key({}, { angleDeg: 90 }),
			key({}, { radiusM: 10 }),
			key({}, { heightCm: 30 }),
			key({}, { approachSteps: 3 }),
			key({}, { ballKg: 3 }),
			key({}, { assistPercent: 5 }),
			key({}, { resistPercent: 5 }),
			key({ aid: { kind: 'sled', kg: 20 } }),
			key({ aid: { kind: 'sled', kg: 30 } }),
			key({ aid: { kind: 'rope', setting: 3 } }),
			key({}, { loadG: 200 }),
			key({ carried: { segment: 'thigh', grams: 200 } }),
			key({ carried: { segment: 'thigh', grams: 200, fromJointCm: 20 } }),
			key({ carried: { segment: 'thigh', grams: 200, side: 'left' } }),
			key({ carried: { segment: 'shank', grams: 200 } }),
			key({}, { effortPercent: 97 }),
			key({}, { effortPercent: 90 }),
			key({ side: 'left' }),
			key({ side: 'right' }),
			key({ plant: 'left' }),
			key({ plant: 'both' }),
			key({ surface: null }),
			key({ surface: 'grass' }),
			key({ surface: 'wet-grass' }),
			key({ surface: 'hard-court' }),
			key({ surface: 'gravel' }),
			key({ surface: 'indoor' }),
			key({ method: 'stopwatch' }),
			key({ method: 'gate-signal' }),
			key({ method: 'gate-hand' }),
			key({ method: 'phone' }),
			key({ kind: 'contact', method: 'mat' }),
			key({ kind: 'contact', method: 'film-240' }),
		]
		expect(new Set(keys).size).toBe(keys.length)
	})
	it('parts every two drills of the library, unless one says it is comparable as the other', () => {
		const all = Object.values(STARTER_LIBRARY.drills).map((one) => markKey(one, {}, { kind: 'sprint', method: 'gate' }))
		expect(new Set(all).size).toBe(all.length)
		expect(key({}, {}, { ...drill('three-point-start'), start: sprint.start, comparableAs: sprint.id })).toBe(key())
	})
	it('does not ask a throw what is under foot', () => {
		const ball = Object.values(STARTER_LIBRARY.drills).find((one) => one.family === 'throw')!
		const thrown = (surface: Taken['surface']) =>
			markKey(ball, { ballKg: 3 }, { kind: 'distance', method: 'tape', surface })
		expect(thrown('grass')).toBe(thrown('indoor'))
	})
	it('names the comparisons across keys: the other side, the free run, hand and electronic', () => {
		expect(otherSideKey(key({ side: 'left' }))).toBe(key({ side: 'right' }))
		expect(otherSideKey(key({ side: 'right', plant: 'both' }))).toBe(key({ side: 'left', plant: 'both' }))
		expect([otherSideKey(key()), otherSideKey(key({ plant: 'left' }))]).toEqual([null, null])
		expect(freeKey(key({ aid: { kind: 'sled', kg: 20 } }, { loadG: 100 }))).toBe(key())
		expect(freeKey(key({}, { loadG: 100 }))).toBe(key())
		expect(freeKey(key())).toBeNull()
		expect(convertedKey(key({ method: 'stopwatch' }))).toBe(key())
		expect(convertedKey(key())).toBe(key({ method: 'stopwatch' }))
		// A stated difference is known between hand and electronic times alone.
		expect(convertedKey(key({ method: 'gate-hand' }))).toBeNull()
		expect(convertedKey(key({ method: 'gate-signal' }))).toBeNull()
		expect(convertedKey(key({ method: 'phone' }))).toBeNull()
		expect(comparableWith(key({ side: 'left', method: 'phone' }, { assistPercent: 5 }))).toEqual([
			key({ side: 'left', method: 'phone' }, { assistPercent: 5 }),
			key({ side: 'right', method: 'phone' }, { assistPercent: 5 }),
			key({ side: 'left', method: 'phone' }),
		])
	})
	it('tells its method, its effort, and itself without the side', () => {
		expect(methodOfKey(key({ method: 'phone' }))).toBe('phone')
		expect([isBelowFull(key({}, { effortPercent: 90 })), isBelowFull(key())]).toEqual([true, false])
		expect(sidelessKey(key({ side: 'left' }))).toBe(key())
	})
	it('the other side keeps the foot of the take-off, both sides together keep it too', () => {
		expect(otherSideKey(key({ side: 'left', plant: 'right' }))).toBe(key({ side: 'right', plant: 'right' }))
		expect(measureOfKey(key({ side: 'left', plant: 'right' }))).toBe(key({ plant: 'right' }))
		expect(measureOfKey(key({ side: 'right' }))).toBe(key())
		expect(measureOfKey(key({ plant: 'left' }))).toBe(key({ plant: 'left' }))
		expect(measureOfKey(key())).toBe(key())
	})
	it('hand and electronic are of times that are run, and of nothing else', () => {
		expect(convertedKey(key({ kind: 'contact' }))).toBeNull()
	})
	it('says nothing of a way where none was planned', () => {
		expect(markKey(sprint, {}, { kind: 'sprint', method: 'gate', surface: 'track' })).toBe(
			'1|sprint|standing-start|standing|-|-|-|-|-|track|gate',
		)
	})
})

describe('a free run', () => {
	it('is one at full effort from the same start over the same way by the same method, whatever the drill and the ground', () => {
		const like = key()
		const free: [Partial<Taken>, object?, Drill?][] = [
			[{}],
			[{ surface: 'grass' }],
			[{ side: 'left' }],
			[{}, {}, { ...drill('falling-start'), start: 'standing' }],
			[{}, { effortPercent: 98 }],
		]
		for (const [taken, parameters, of] of free)
			expect(isFreeRunLike(key(taken, parameters, of), like), JSON.stringify([taken, parameters])).toBe(true)
		const other: [Partial<Taken>, object?, Drill?][] = [
			[{ start: 'three-point' }],
			[{}, { distanceM: 30 }],
			[{}, { runInM: 10 }],
			[{ method: 'phone' }],
			[{}, { assistPercent: 5 }],
			[{}, { resistPercent: 25 }],
			[{ aid: { kind: 'sled', kg: 20 } }],
			[{}, { loadG: 200 }],
			[{ carried: { segment: 'thigh', grams: 200 } }],
			[{}, { effortPercent: 90 }],
			[{ kind: 'contact' }],
		]
		for (const [taken, parameters, of] of other)
			expect(isFreeRunLike(key(taken, parameters, of), like), JSON.stringify([taken, parameters])).toBe(false)
	})
	it('is plain from a standstill over nothing but metres', () => {
		expect(plainRun(key())).toEqual({ start: 'standing', distanceM: 20, method: 'gate' })
		expect(plainRun(key({ start: 'three-point', method: 'phone' }, { distanceM: 7.5 }))).toEqual({
			start: 'three-point',
			distanceM: 7.5,
			method: 'phone',
		})
		expect(plainRun(key({}, { runInM: 20 }))).toBeNull()
		expect(plainRun(key({}, { angleDeg: 90 }))).toBeNull()
		expect(plainRun(markKey(sprint, {}, { kind: 'sprint', method: 'gate' }))).toBeNull()
		expect(plainRun(key({}, { loadG: 200 }))).toBeNull()
		expect(plainRun(key({ kind: 'contact', method: 'mat' }))).toBeNull()
	})
	it('has first metres that are those of its drill, start and ground, whatever distance, method and side', () => {
		const like = 'standing-start|standing|grass'
		expect(firstMetresOf(key({ surface: 'grass' }))).toBe(like)
		for (const [taken, parameters] of [
			[{}, { distanceM: 30 }],
			[{ method: 'phone' }],
			[{ side: 'left' }],
			[{}, { effortPercent: 98 }],
		] as [Partial<Taken>, object?][])
			expect(firstMetresOf(key({ surface: 'grass', ...taken }, parameters)), JSON.stringify([taken, parameters])).toBe(
				like,
			)
		expect(firstMetresOf(key())).toBe('standing-start|standing|track')
		expect(firstMetresOf(key({ start: 'three-point' }))).toBe('standing-start|three-point|track')
		expect(firstMetresOf(key({}, {}, { ...drill('falling-start'), start: 'standing' }))).toBe(
			'falling-start|standing|track',
		)
		for (const [taken, parameters] of [
			[{}, { runInM: 10 }],
			[{}, { angleDeg: 90 }],
			[{}, { radiusM: 10 }],
			[{}, { assistPercent: 5 }],
			[{ aid: { kind: 'sled', kg: 20 } }],
			[{ carried: { segment: 'thigh', grams: 200 } }],
			[{}, { effortPercent: 90 }],
			[{ kind: 'contact', method: 'mat' }],
		] as [Partial<Taken>, object?][])
			expect(firstMetresOf(key(taken, parameters)), JSON.stringify([taken, parameters])).toBeNull()
		const { start: _, ...noStart } = sprint
		expect(firstMetresOf(key({}, {}, noStart as Drill))).toBeNull()
	})
	it('a line is known by what its marks share, whatever their kind, method and side', () => {
		expect(lineKey(sprint, { distanceM: 20, loadG: 250 }, { surface: 'grass' })).toBe(
			'1|standing-start|standing|d20|-|g250|-|grass',
		)
		expect(lineKey(sprint, { distanceM: 20, effortPercent: 80 }, { aid: { kind: 'sled', kg: 20 } })).toBe(
			'1|standing-start|standing|d20|sled.kg20|-|80|-',
		)
		expect(lineKey(drill('overhead-throw'), { ballKg: 3 }, { surface: 'grass' })).toMatch(/\|-$/)
	})
	it('a key tells its parts as they were written', () => {
		expect(key({ side: 'left', surface: 'grass' }, { loadG: 250 })).toBe(
			'1|sprint|standing-start|standing|d20|-|g250|-|left|grass|gate',
		)
		expect(partsOfKey('1|sprint|standing-start|standing|d20|-|g250|-|left|grass|gate')).toEqual({
			drill: 'standing-start',
			start: 'standing',
			way: 'd20',
			aid: '-',
			carried: 'g250',
			effort: '-',
			side: 'left',
			surface: 'grass',
			method: 'gate',
		})
		// What a key has not is nothing said.
		expect(partsOfKey('1|')).toMatchObject({ drill: '-', method: '-' })
	})
})

describe('what can be', () => {
	const ask = (
		kind: 'sprint' | 'contact' | 'height' | 'distance',
		id: string,
		value: number,
		history: number[] = [],
		parameters = {},
		level: 1 | 2 | 3 = 3,
	) => plausibility(kind, drill(id), parameters, value, history, level)

	it('2.02 for 3.02 is set aside, and what was meant is offered', () => {
		const history = [3.02, 3.05, 3, 3.1, 3.04]
		expect(ask('sprint', 'standing-start', 2.02, history, { distanceM: 20 })).toMatchObject({
			outcome: 'set-aside',
			likely: 3.02,
		})
		expect(ask('sprint', 'standing-start', 3.2, history, { distanceM: 20 })).not.toHaveProperty('likely')
	})
	it('own marks say what can be from five on, around their median, so that one typed wrong does not', () => {
		// The median is 3: 0.85 and 1.3 of it.
		const five = [2.9, 2.95, 3, 3.05, 30]
		const outcome = (value: number) => ask('sprint', 'standing-start', value, five, { distanceM: 20 }).outcome
		expect([2.549, 2.55, 3.9, 3.901].map(outcome)).toEqual(['set-aside', 'plausible', 'plausible', 'set-aside'])
		// Four say nothing yet: the level does.
		expect(ask('sprint', 'standing-start', 4.5, five.slice(0, 4), { distanceM: 20 }).outcome).toBe('plausible')
		expect(aroundOwn('sprint', five.slice(0, 4))).toBeNull()
	})
	it('each kind has its own room', () => {
		const same = (value: number) => Array.from({ length: 5 }, () => value)
		const range = (kind: 'contact' | 'height' | 'distance', id: string, usual: number) =>
			ask(kind, id, usual, same(usual)).range
		expect(range('contact', 'pogo', 0.2)).toEqual({
			low: expect.closeTo(0.12, 10) as number,
			high: expect.closeTo(0.36, 10) as number,
		})
		expect(range('height', 'countermovement-jump', 0.4)).toEqual({ low: 0.2, high: expect.closeTo(0.56, 10) as number })
		expect(range('distance', 'broad-jump', 2)).toEqual({ low: 1.2, high: 2.6 })
		expect(range('distance', 'overhead-throw', 10)).toEqual({ low: 5, high: 14 })
	})
	it('15 ms of contact, 182 m for 1.82, and 9 m/s in a 10 m start cannot be', () => {
		expect(ask('contact', 'pogo', 0.015)).toMatchObject({ outcome: 'set-aside', likely: 0.15 })
		expect([ask('contact', 'pogo', 0.06).outcome, ask('contact', 'pogo', 0.059).outcome]).toEqual([
			'plausible',
			'set-aside',
		])
		expect([ask('contact', 'pogo', 1).outcome, ask('contact', 'pogo', 1.01).outcome]).toEqual([
			'plausible',
			'set-aside',
		])
		expect(ask('distance', 'broad-jump', 18.2)).toMatchObject({ outcome: 'set-aside', likely: 1.82 })
		// Nobody covers the first 10 m at 9 m/s: 1.11 s. A flying 10 m in 1.11 s is run.
		expect(ask('sprint', 'standing-start', 1.11, [], { distanceM: 10 }).outcome).toBe('set-aside')
		expect(ask('sprint', 'fly-10', 1.11, [], { distanceM: 10 }).outcome).toBe('plausible')
		// Slower than a walk is no sprint; a known time of the trade is one [from memory].
		expect([
			ask('sprint', 'standing-start', 8.6, [], { distanceM: 10 }).outcome,
			ask('sprint', 'standing-start', 8.7, [], { distanceM: 10 }).outcome,
		]).toEqual(['plausible', 'set-aside'])
		for (const [metres, time] of [
			[10, 1.75],
			[20, 2.8],
			[30, 3.75],
		] as const)
			expect(ask('sprint', 'standing-start', time, [], { distanceM: metres }).outcome).toBe('plausible')
	})
	it('the level says how high and far, a run of jumps counts each, a light ball flies farther', () => {
		expect(
			[1, 2, 3].map((level) => ask('height', 'countermovement-jump', 0.8, [], {}, level as 1 | 2 | 3).outcome),
		).toEqual(['set-aside', 'plausible', 'plausible'])
		expect([
			ask('height', 'countermovement-jump', 0.03).outcome,
			ask('height', 'countermovement-jump', 0.029).outcome,
		]).toEqual(['plausible', 'set-aside'])
		expect([
			ask('distance', 'broad-jump', 3.9).outcome,
			ask('distance', 'broad-jump', 3.91).outcome,
			ask('distance', 'broad-jump', 0.19).outcome,
		]).toEqual(['plausible', 'set-aside', 'set-aside'])
		const far = (ballKg: number) => ask('distance', 'overhead-throw', 40, [], { ballKg }).range.high
		expect(far(3)).toBeCloseTo(26, 10)
		expect(far(1)).toBeCloseTo(26 * Math.sqrt(3), 10)
		expect(ask('sprint', 'standing-start', 1.6, [], { distanceM: 10 }, 1).outcome).toBe('set-aside')
	})
	it('a pull makes faster what can be', () => {
		const low = (assistPercent: number) => ask('sprint', 'fly-10', 1, [], { distanceM: 10, assistPercent }).range.low
		expect(low(0)).toBeCloseTo(10 / 12.6, 10)
		expect(low(10)).toBeCloseTo(10 / 13.86, 10)
	})
	it('without own marks only a misplaced point or unit is guessed; nothing where nothing fits', () => {
		expect(ask('sprint', 'standing-start', 1.11, [], { distanceM: 10 })).not.toHaveProperty('likely')
		expect(ask('height', 'countermovement-jump', 35)).toMatchObject({ likely: 0.35 })
		const swapped = ask('distance', 'broad-jump', 8.2, [2.8, 2.75, 2.8, 2.9, 2.8])
		expect(swapped).toMatchObject({ outcome: 'set-aside', likely: 2.8 })
	})
})
