import { describe, expect, it } from 'vitest'
import {
	OUTSIDE_DEFAULTS,
	OUTSIDE_KINDS,
	OUTSIDE_NAMES,
	type OutsideLoad,
	outsideRamp,
	outsideWork,
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
		expect(outsideWork(load({ hardRunning, hardCutting }))).toEqual({
			day: '2026-03-10',
			startTime: '19:00',
			families,
			kinds,
			outside: true,
		})
	})
})

describe('in the week’s ramp, per 90 minutes: 4 starts and 60 m of running, 6 cuts and 6 contacts of cutting [our setting]', () => {
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
