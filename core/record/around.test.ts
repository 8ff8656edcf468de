import { describe, expect, it } from 'vitest'
import type { OutsideLoad } from '../judge/outside-load'
import { type StoryFacts, type StoryMark, type StorySession, aroundOf } from './around'

const KEY = 'sprint-key'
const DAY = '2026-03-19'
/** A rep of the line that is looked at: a start over 20 m, three minutes asked between. */
const rep = (more: Partial<StoryMark> = {}): StoryMark => ({
	at: null,
	lineId: 'line',
	setNo: 1,
	key: KEY,
	kind: 'sprint',
	value: 3.1,
	aside: false,
	what: 'Three-point start 20 m',
	kinds: ['maximal-sprint'],
	aided: false,
	restS: 180,
	typicalError: 0.02,
	...more,
})
const session = (day: string, marks: StoryMark[] = [rep()], more: Partial<StorySession> = {}): StorySession => ({
	id: day,
	day,
	startTime: '17:30',
	phase: 'accumulate',
	windMps: null,
	marks,
	...more,
})
const FACTS: StoryFacts = {
	spacingH: 48,
	outside: [],
	newHard: [],
	ramp: [],
	lastWork: () => '2026-03-16',
	illnesses: [],
}
const load = (more: Partial<OutsideLoad> = {}): OutsideLoad => ({
	kind: 'match',
	day: '2026-03-18',
	startTime: '16:00',
	minutes: 90,
	rpe: 7,
	hardRunning: true,
	hardCutting: true,
	...more,
})
const around = (today: StorySession, before: StorySession[] = [], facts: Partial<StoryFacts> = {}) =>
	aroundOf(today, { key: KEY, family: 'sprint', improving: null }, [today, ...before], { ...FACTS, ...facts })
const times = (...seconds: number[]) => seconds.map((second) => rep({ at: second * 1000 }))

describe('the session before', () => {
	const fell = (value: number[]) => value.map((one) => rep({ value: one }))
	it('tells its reps past the best, and how long ago it began', () => {
		const { past } = around(session(DAY), [session('2026-03-17', fell([3.1, 3.04, 3.11, 3.17]))])
		expect(past).toEqual({ what: 'Three-point start 20 m', kind: 'sprint', marks: [3.04, 3.11, 3.17], hoursAgo: 48 })
	})
	it('is the last one with anything logged, and never the day itself or one to come', () => {
		const marks = fell([3.1, 3.04, 3.11, 3.17])
		expect(around(session(DAY, marks)).past).toBeNull()
		expect(around(session(DAY), [session('2026-03-21', marks)]).past).toBeNull()
		expect(around(session(DAY), [session('2026-03-15', marks), session('2026-03-17')]).past).toBeNull()
		expect(around(session(DAY), [session('2026-03-15', marks), session('2026-03-17', [])]).past?.hoursAgo).toBe(96)
	})
	it('says nothing by what was set aside or pulled, nor across two lines', () => {
		const with_ = (more: Partial<StoryMark>) =>
			around(session(DAY), [session('2026-03-17', [...fell([3.1, 3.04, 3.11]), rep({ value: 3.17, ...more })])]).past
		expect(with_({})).not.toBeNull()
		expect(with_({ aside: true })).toBeNull()
		expect(with_({ aided: true })).toBeNull()
		expect(with_({ key: 'another' })).toBeNull()
		expect(with_({ key: null, value: null })).toBeNull()
	})
	it('of two lines tells the one that went farther', () => {
		const other = [3.0, 3.0, 3.2].map((value) => rep({ value, key: 'b', what: 'Standing start' }))
		const { past } = around(session(DAY), [session('2026-03-17', [...other, ...fell([3.1, 3.04, 3.11, 3.17])])])
		expect(past!.what).toBe('Three-point start 20 m')
	})
})

it('whatever order sessions and illnesses come in, the last before it is told', () => {
	const marks = [3.1, 3.04, 3.11, 3.17].map((value) => rep({ value }))
	const [old, last] = [session('2026-03-12', marks), session('2026-03-17', marks)]
	expect(around(session(DAY), [old, last]).past?.hoursAgo).toBe(48)
	expect(around(session(DAY), [last, old]).past?.hoursAgo).toBe(48)
	const illnesses = [
		{ since: '2026-03-15', until: null },
		{ since: '2026-03-01', until: '2026-03-04' },
	]
	expect(around(session(DAY), [], { illnesses }).unwell?.since).toBe('2026-03-15')
	expect(around(session(DAY), [], { illnesses: [{ since: DAY, until: null }] }).unwell?.since).toBe(DAY)
	// Of two sessions on the day before, the one that lies nearest.
	const morning = session('2026-03-18', undefined, { startTime: '07:30', id: 'morning' })
	for (const both of [
		[morning, session('2026-03-18')],
		[session('2026-03-18'), morning],
	])
		expect(around(session(DAY), both).spacing?.hours).toBe(24)
})

describe('what was new', () => {
	it('counts hours from the session it was met in, else from its day', () => {
		const newHard = [
			{ day: '2026-03-17', name: 'Depth jump' },
			{ day: '2026-03-18', name: 'Back squat' },
			{ day: '2026-03-15', name: 'Full turn' },
			{ day: '2026-03-20', name: 'To come' },
			{ day: DAY, name: 'Today' },
		]
		expect(
			around(session(DAY), [session('2026-03-17', undefined, { startTime: '09:30' })], { newHard }).newHard,
		).toEqual([
			{ name: 'Depth jump', hoursAgo: 56 },
			{ name: 'Back squat', hoursAgo: 24 },
		])
	})
	it('reaches back three days', () => {
		const at = (day: string) => around(session(DAY), [], { newHard: [{ day, name: 'x' }] }).newHard.length
		expect([at('2026-03-16'), at('2026-03-15')]).toEqual([1, 0])
	})
})

describe('hard work before', () => {
	it('is told where it is of a kind the day had too and closer than the school asks', () => {
		expect(around(session(DAY), [session('2026-03-18')]).spacing).toEqual({
			kind: 'maximal-sprint',
			hours: 24,
			askedH: 48,
		})
		expect(around(session(DAY), [session('2026-03-18', [rep({ kinds: ['hard-jumps'] })])]).spacing).toBeNull()
		expect(around(session(DAY), [session('2026-03-20')]).spacing).toBeNull()
		// Two days, start to start, less the four hours' grace.
		expect(around(session(DAY, undefined, { startTime: '13:31' }), [session('2026-03-17')]).spacing).toBeNull()
		expect(around(session(DAY, undefined, { startTime: '13:29' }), [session('2026-03-17')]).spacing?.hours).toBeCloseTo(
			43.98,
			1,
		)
	})
	it('outside counts too, the nearest of all', () => {
		const near = around(session(DAY), [session('2026-03-18')], { outside: [load({ day: DAY, startTime: '09:30' })] })
		expect(near.spacing?.hours).toBe(8)
		expect(around(session(DAY), [], { outside: [load({ hardRunning: false })] }).spacing).toBeNull()
	})
	it('gives the hours since any of it', () => {
		expect(around(session(DAY), [session('2026-03-15')]).hoursSinceHard).toBe(96)
		expect(around(session(DAY), [session('2026-03-15')], { outside: [load()] }).hoursSinceHard).toBe(24)
		expect(around(session(DAY), [session('2026-03-15', [rep({ kinds: [] })])]).hoursSinceHard).toBeNull()
	})
})

describe('outside, the week, and the body', () => {
	it('is counted from its end, and not before it has begun', () => {
		const of = (more: Partial<OutsideLoad>) => around(session(DAY), [], { outside: [load(more)] }).outside
		expect(of({})).toEqual([{ kind: 'match', hoursAgo: 24, minutes: 90, rpe: 7 }])
		expect(of({ day: DAY, startTime: '16:00' })).toEqual([])
		expect(of({ day: DAY, startTime: '15:59' })[0]!.hoursAgo).toBeCloseTo(1 / 60, 6)
	})
	it('says what was lifted, and whether it was heavy', () => {
		const lifts = [{ exercise: 'Back squat', kg: 100, reps: 3, isNew: false }]
		expect(around(session(DAY), [], { outside: [load({ kind: 'gym', lifts })] }).outside[0]).toMatchObject({
			words: 'Back squat 100 kg × 3',
			heavy: true,
		})
	})
	it('adds up the week before that day, against its limit', () => {
		const days = [
			{ day: '2026-03-18', unloading: false, value: 25 },
			{ day: DAY, unloading: false, value: 99 },
		]
		const of = (more: object) =>
			around(session(DAY), [], { ramp: [{ name: 'starts', days, floor: 20, percent: 10, ...more }] }).ramp
		expect(of({})).toEqual([{ name: 'starts', done: 25, limit: 20 }])
		expect(of({ days: days.slice(1) })).toEqual([])
	})
	it('counts days since such work, of the family that is looked at', () => {
		expect(around(session(DAY)).awayDays).toBe(3)
		expect(around(session(DAY), [], { lastWork: () => null }).awayDays).toBeNull()
		const lastWork = (family: string, before: string) => (family === 'sprint' && before === DAY ? '2026-03-01' : null)
		expect(around(session(DAY), [], { lastWork }).awayDays).toBe(18)
	})
	it('tells the last illness that had begun', () => {
		const illnesses = [
			{ since: '2026-03-01', until: '2026-03-04' },
			{ since: '2026-03-15', until: null },
			{ since: '2026-03-20', until: null },
		]
		expect(around(session(DAY), [], { illnesses }).unwell).toEqual({ since: '2026-03-15', until: null })
		expect(around(session(DAY)).unwell).toBeNull()
	})
	it('is rested in an unloading week and nine days after one', () => {
		const unloading = { phase: 'unloading' as const }
		expect(around(session(DAY, undefined, unloading)).unloading).toBe(true)
		expect(around(session(DAY), [session('2026-03-10', undefined, unloading)]).unloading).toBe(true)
		expect(around(session(DAY), [session('2026-03-09', undefined, unloading)]).unloading).toBe(false)
	})
})

describe('within the session', () => {
	it('rests are taken between reps of one set by the clock', () => {
		expect(around(session(DAY, times(0, 90, 190, 280, 380))).rests).toEqual({ askedS: 180, tookS: 95 })
		expect(around(session(DAY, times(0, 90, 190))).rests).toBeNull()
		// Sets apart: two reps each say nothing, whatever lies between the sets.
		const sets = times(0, 60, 400, 460, 800, 860).map((mark, index) => ({ ...mark, setNo: 1 + Math.floor(index / 2) }))
		expect(around(session(DAY, sets)).rests).toBeNull()
	})
	it('are taken of the set with most reps, in the order of the clock', () => {
		const long = times(1000, 1090, 1190, 1280, 1380).map((mark) => ({ ...mark, setNo: 2 }))
		expect(around(session(DAY, [...times(0, 30, 60, 90), ...long])).rests).toEqual({ askedS: 180, tookS: 95 })
		expect(around(session(DAY, [...long, ...times(0, 30, 60, 90)])).rests).toEqual({ askedS: 180, tookS: 95 })
		expect(around(session(DAY, [...times(0, 90, 190, 280, 380)].reverse())).rests?.tookS).toBe(95)
		// What has no clock is no part of it.
		expect(around(session(DAY, [rep(), ...times(0, 90, 190, 280, 380)])).rests?.tookS).toBe(95)
		expect(around(session(DAY, [])).rests).toBeNull()
	})
	it('are not known of what was written down afterwards, or typed one after the other', () => {
		expect(around(session(DAY, [rep(), rep(), rep(), rep(), rep()])).rests).toBeNull()
		expect(around(session(DAY, times(0, 4, 8, 12, 16))).rests).toBeNull()
		expect(around(session(DAY, times(0, 5, 10, 15, 20))).rests).toEqual({ askedS: 180, tookS: 5 })
		expect(
			around(
				session(
					DAY,
					times(0, 90, 180, 270).map((mark) => ({ ...mark, restS: 0 })),
				),
			).rests,
		).toBeNull()
	})
	it('aided work before is told by the last of it, unless the reps themselves are aided', () => {
		const aided = (at: number, what = 'Assisted sprint') => rep({ at: at * 1000, aided: true, key: 'aided', what })
		const own = times(1000, 1200)
		expect(around(session(DAY, [aided(100), aided(400, 'Sled 20 m'), ...own])).aidedBefore).toEqual({
			what: 'Sled 20 m',
			minutes: 10,
		})
		expect(around(session(DAY, [aided(1100), ...own])).aidedBefore).toBeNull()
		expect(around(session(DAY, [rep({ at: 0 }), ...own])).aidedBefore).toBeNull()
		expect(around(session(DAY, [aided(100), ...own.map((mark) => ({ ...mark, aided: true }))])).aidedBefore).toBeNull()
	})
	it('an aided rep without a clock, or at the very moment, was not before', () => {
		const own = times(1000, 1200)
		expect(around(session(DAY, [rep({ aided: true, key: 'aided' }), ...own])).aidedBefore).toBeNull()
		expect(around(session(DAY, [rep({ aided: true, key: 'aided', at: 1_000_000 }), ...own])).aidedBefore).toBeNull()
		expect(around(session(DAY, [rep({ aided: true, key: 'aided', at: 0 }), rep(), rep()])).aidedBefore).toBeNull()
		const half = [own[0]!, { ...own[1]!, aided: true }]
		expect(around(session(DAY, [rep({ aided: true, key: 'aided', at: 0 }), ...half])).aidedBefore).toBeNull()
	})
	it('hands on the wind, and what a trend said', () => {
		expect(around(session(DAY, undefined, { windMps: -1.2 })).windMps).toBe(-1.2)
		expect(aroundOf(session(DAY), { key: KEY, family: 'sprint', improving: 'faster' }, [], FACTS).improving).toBe(
			'faster',
		)
	})
})
