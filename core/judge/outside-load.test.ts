import { describe, expect, it } from 'vitest'
import {
	OUTSIDE_DEFAULTS,
	OUTSIDE_KINDS,
	OUTSIDE_NAMES,
	type OutsideLoad,
	isHeavyGym,
	outsideRamp,
	outsideWork,
	readLifts,
	sayLift,
} from './outside-load'

// S11: matches and other training count for spacing, for the ramp and as time not missed.
const load = (more: Partial<OutsideLoad> = {}): OutsideLoad => ({
	kind: 'match',
	day: '2026-03-10',
	startTime: '19:00',
	minutes: 90,
	rpe: 7,
	hardRunning: true,
	hardCutting: true,
	...more,
})

describe('as work of the day', () => {
	it.each([
		[true, true, ['agility', 'sprint'], ['hard-turns', 'maximal-sprint']],
		[true, false, ['sprint'], ['maximal-sprint']],
		[false, true, ['agility'], ['hard-turns']],
		[false, false, [], []],
	])('hard running %s, hard cutting %s', (hardRunning, hardCutting, families, kinds) => {
		const work = { day: '2026-03-10', startTime: '19:00', families, kinds, outside: true }
		expect(outsideWork(load({ hardRunning, hardCutting }))).toEqual(work)
		expect(outsideWork(load({ hardRunning, hardCutting, hardJumping: false }))).toEqual(work)
		// A match of a jumping sport is work of jumps, too.
		expect(outsideWork(load({ hardRunning, hardCutting, hardJumping: true }))).toEqual({
			...work,
			families: [...families, 'plyometric'],
			kinds: [...kinds, 'hard-jumps'],
		})
	})
})

describe('in the week’s ramp, per 90 minutes: 4 starts and 60 m of running, 6 cuts and 6 contacts of cutting, 12 contacts of jumping [our setting]', () => {
	const value = (quantity: Parameters<typeof outsideRamp>[0], more: Partial<OutsideLoad> = {}) =>
		outsideRamp(quantity, [load(more)], '2026-03-12').map((one) => one.value)
	it.each([
		['maximalStarts', {}, [4]],
		['fastMetres', {}, [60]],
		['sharpCuts', {}, [6]],
		['hardContacts', {}, [6]],
		['maximalStarts', { minutes: 45 }, [2]],
		['fastMetres', { minutes: 180 }, [120]],
		['fastMetres', { minutes: 240 }, [160]],
		['fastMetres', { minutes: 400 }, [160]],
		['fastMetres', { hardRunning: false }, []],
		['maximalStarts', { hardRunning: false }, []],
		['sharpCuts', { hardCutting: false }, []],
		['hardContacts', { hardCutting: false }, []],
		['sharpCuts', { hardRunning: false }, [6]],
		['fastMetres', { minutes: 0 }, []],
		['hardContacts', { hardJumping: true }, [18]],
		['hardContacts', { hardJumping: true, hardCutting: false, minutes: 45 }, [6]],
		['sharpCuts', { hardJumping: true }, [6]],
		['maximalStarts', { hardJumping: true, hardRunning: false }, []],
		['fastMetres', { hardJumping: true }, [60]],
	] as [Parameters<typeof outsideRamp>[0], Partial<OutsideLoad>, number[]][])('%s %j', (quantity, more, expected) => {
		expect(value(quantity, more)).toEqual(expected)
	})
	it('counts up to the day, the day itself included, and never as an unloading week', () => {
		const days = [load({ day: '2026-03-11' }), load({ day: '2026-03-12' }), load({ day: '2026-03-13' })]
		expect(outsideRamp('sharpCuts', days, '2026-03-12')).toEqual([
			{ day: '2026-03-11', unloading: false, value: 6 },
			{ day: '2026-03-12', unloading: false, value: 6 },
		])
	})
})

it('each kind has a name and what it usually is: a gym neither runs nor cuts, a practice cuts', () => {
	for (const kind of OUTSIDE_KINDS) expect(OUTSIDE_NAMES[kind].length).toBeGreaterThan(2)
	expect(OUTSIDE_DEFAULTS).toEqual({
		match: { minutes: 90, hardRunning: true, hardCutting: true },
		tournament: { minutes: 180, hardRunning: true, hardCutting: true },
		practice: { minutes: 90, hardRunning: false, hardCutting: true },
		gym: { minutes: 60, hardRunning: false, hardCutting: false },
	})
})

describe('the gym in a line', () => {
	const lift = (exercise: string, kg: number | null = null, reps: number | null = null, isNew = false) => ({
		exercise,
		kg,
		reps,
		isNew,
	})
	it.each([
		['Back squat 100 kg × 5', [lift('Back squat', 100, 5)]],
		['Back squat, 102.5 kg x 3, first time', [lift('Back squat', 102.5, 3, true)]],
		['Back squat 102,5kg*3', [lift('Back squat', 102.5, 3)]],
		['Nordic curl × 4 new', [lift('Nordic curl', null, 4, true)]],
		['Nordic curl', [lift('Nordic curl')]],
		['Nordic curl first time', [lift('Nordic curl', null, null, true)]],
		['Hip thrust 120 kg', [lift('Hip thrust', 120)]],
		// 225 lb are 102.058 kg, 5 lb 2.268.
		['Back squat 225 lb × 5', [lift('Back squat', 102.1, 5)]],
		['Curl 5 pounds', [lift('Curl', 2.3)]],
		[
			'Squat 90 kg × 5; calf raise 40 kg × 12\nplank',
			[lift('Squat', 90, 5), lift('calf raise', 40, 12), lift('plank')],
		],
		['  ', []],
	])('%s', (text, lifts) => expect(readLifts(text)).toEqual(lifts))
	// What was not understood is asked about, not kept as a name.
	it.each([
		'100 kg × 5',
		'Squat 100',
		'Squat 401 kg × 1',
		'Squat 0 kg',
		'Squat 900 lb', // 408 kg
		'Squat 50 kg × 101',
		'Squat; 7',
		'x'.repeat(61),
	])('cannot be read: %s', (text) => expect(readLifts(text)).toBeNull())
	it('holds twelve exercises', () => {
		const line = (count: number) =>
			Array.from({ length: count }, (_, index) => `Lift ${'abcdefghijklm'[index]}`).join(';')
		expect(readLifts(line(12))).toHaveLength(12)
		expect(readLifts(line(13))).toBeNull()
	})
	it('is written back as it is read', () => {
		const text = 'Back squat 100 kg × 5, first time'
		expect(readLifts(text)!.map(sayLift)).toEqual([text])
		expect(sayLift(lift('Plank'))).toBe('Plank')
	})
	it('is heavy from six reps down with a weight, and when it is new', () => {
		const gym = (...lifts: ReturnType<typeof lift>[]) =>
			load({ kind: 'gym', hardRunning: false, hardCutting: false, lifts })
		expect(isHeavyGym(gym(lift('Squat', 60, 6)))).toBe(true)
		expect(isHeavyGym(gym(lift('Squat', 60, 7)))).toBe(false)
		expect(isHeavyGym(gym(lift('Pull-up', null, 3)))).toBe(false)
		expect(isHeavyGym(gym(lift('Pull-up', null, null, true)))).toBe(true)
		expect(isHeavyGym(gym(lift('Squat', 60, 8), lift('Jerk', 60, 2)))).toBe(true)
		expect(isHeavyGym(load({ kind: 'gym' }))).toBe(false)
		expect(isHeavyGym(load({ lifts: [lift('Squat', 100, 1)] }))).toBe(false)
		// It wants time as high jumps do, and is no work of a counted family.
		expect(outsideWork(gym(lift('Squat', 100, 3)))).toMatchObject({ families: [], kinds: ['hard-jumps'] })
	})
})
