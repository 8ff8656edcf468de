import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { CareReport } from '../vocabulary/care'
import type { LogEvent } from '../vocabulary/events'
import {
	type Shut,
	closedNow,
	heardSince,
	overNow,
	overToday,
	saidOf,
	sayLimits,
	unwellNow,
	weightOf,
} from './over-today'
import { sayLimitsOf } from './say-limits'

// The day of a tap of pain on the field. Spare: 3–4 (1–2 in the third session running); bars what loads the region 2
// or 3, and all high and shock work on it. Closed: 5 and more, a red flag, 3 and more on two days within 14; bars
// every load. Neck or head at 5 or with a red flag: everything.

const DAY = '2026-03-20'
const drill = (id: string) => STARTER_LIBRARY.drills[id]!
let seq = 0
const event = (kind: 'pain' | 'quiet', value: object, more: object = {}): LogEvent =>
	({
		id: `e${seq}`,
		sessionId: 's',
		athleteId: 'a',
		deviceId: 'd',
		deviceSeq: seq,
		deviceTime: new Date(Date.UTC(2026, 2, 20, 17, seq++)).toISOString(),
		type: 'observation',
		kind,
		value,
		...more,
	}) as LogEvent
const pain = (region: string, score: number, more: object = {}, of: object = {}) =>
	event('pain', { region, side: 'left', score, redFlag: false, moment: 'during', ...more }, of)
const grades = (events: LogEvent[], sayLimits: Parameters<typeof closedNow>[0]['sayLimits'] = []) =>
	closedNow({ id: 'a', sayLimits }, events, DAY).map((one) => `${one.region} ${one.grade}`)

describe('what a tap closes', () => {
	it.each([
		[1, []],
		[2, []],
		[3, ['knee spare']],
		[4, ['knee spare']],
		[5, ['knee closed']],
		[10, ['knee closed']],
	])('knee %i', (score, expected) => {
		expect(grades([pain('knee', score)])).toEqual(expected)
	})
	it('a red flag closes whatever the number', () => {
		expect(grades([pain('knee', 1, { redFlag: true })])).toEqual(['knee closed'])
	})
	it.each([
		[4, false, ['neck-head spare']],
		[5, false, ['everything everything']],
		[0, true, ['everything everything']],
	])('head %i, red flag %s', (score, redFlag, expected) => {
		expect(grades([pain('neck-head', score, { redFlag })])).toEqual(expected)
	})
	it('what was taken back, and what another said, closes nothing', () => {
		expect(grades([pain('knee', 8, {}, { void: true }), pain('knee', 8, {}, { athleteId: 'b' })])).toEqual([])
	})
	it('with a lower limit of that side from before', () => {
		const limits = [{ region: 'knee' as const, side: 'left' as const, closesFrom: 3, sparesFrom: 1 }]
		expect(grades([pain('knee', 3)], limits)).toEqual(['knee closed'])
		expect(grades([pain('knee', 1)], limits)).toEqual(['knee spare'])
		expect(grades([pain('knee', 3, { side: 'right' })], limits)).toEqual(['knee spare'])
		expect(grades([pain('knee', 3, { side: 'both' })], limits)).toEqual(['knee closed'])
		expect(grades([pain('hip', 3)], limits)).toEqual(['hip spare'])
	})
})

describe('limits a device is told', () => {
	const said = (score: number, day: string, more: Partial<CareReport> = {}): CareReport => ({
		kind: 'pain',
		region: 'knee',
		side: 'left',
		score,
		day,
		...more,
	})
	const limits = (reports: CareReport[], more: object = {}) => sayLimitsOf({ reports, clearances: [], ...more }, DAY)
	it('none where nothing was said', () => {
		expect(limits([])).toEqual([])
	})
	it('a 3 or more at most 14 days ago closes from 3 on, that side alone', () => {
		expect(limits([said(3, '2026-03-06')])).toContainEqual({
			region: 'knee',
			side: 'left',
			closesFrom: 3,
			sparesFrom: 1,
		})
		expect(limits([said(3, '2026-03-06')]).some((one) => one.side === 'right')).toBe(false)
		// Spared already: anything said now is said of a spared region; 15 days ago it takes 5 to close.
		expect(limits([said(3, '2026-03-05')])).toEqual([{ region: 'knee', side: 'left', closesFrom: 5, sparesFrom: 1 }])
	})
	it('small pains of the two sessions before make the third one spare', () => {
		const sessions = ['2026-03-16', '2026-03-18', DAY]
		expect(limits([said(1, '2026-03-16'), said(2, '2026-03-18')], { sessions })).toEqual([
			{ region: 'knee', side: 'left', closesFrom: 5, sparesFrom: 1 },
		])
		expect(limits([said(1, '2026-03-16')], { sessions })).toEqual([])
	})
	it('what was cleared counts no more', () => {
		const clearances = [{ region: 'knee' as const, day: '2026-03-10', by: 'Dr A', role: 'doctor' as const }]
		expect(sayLimitsOf({ reports: [said(4, '2026-03-08')], clearances }, DAY)).toEqual([])
	})
})

describe('what is over, and what is not', () => {
	const over = (events: LogEvent[], id: string) =>
		overNow(closedNow({ id: 'a' }, events, DAY), drill(id), drill(id).defaults.parameters)
	it('closed bars every load, spared what loads much or is hard', () => {
		expect(over([pain('knee', 9)], 'kneeling-chest-push')).toBe('left knee')
		expect(over([pain('knee', 3)], 'kneeling-chest-push')).toBeNull()
		expect(over([pain('knee', 3)], 'broad-jump')).toBe('left knee')
		expect(over([pain('wrist', 9)], 'broad-jump')).toBeNull()
		expect(over([pain('neck-head', 7)], 'calf-hold')).toBe('everything')
	})
	it('names each place once', () => {
		expect(over([pain('knee', 9), pain('knee', 6), pain('ankle', 6)], 'broad-jump')).toBe('left knee, left ankle')
	})
	it('a small pain is said until somebody was asked', () => {
		const two = pain('knee', 2)
		expect(saidOf('a', drill('broad-jump'), [two])).toBe('left knee 2 of 10')
		expect(saidOf('a', drill('broad-jump'), [pain('knee', 1), pain('ankle', 2)])).toBe('left ankle 2 of 10')
		expect(saidOf('a', drill('broad-jump'), [pain('wrist', 4), pain('knee', 0)])).toBeNull()
		expect(saidOf('b', drill('broad-jump'), [two])).toBeNull()
		const asked = (region: string, score: number) => event('quiet', { region, side: 'left', score })
		expect(saidOf('a', drill('broad-jump'), [two, asked('knee', 1)])).toBeNull()
		expect(saidOf('a', drill('broad-jump'), [two, asked('knee', 2)])).toBe('left knee 2 of 10')
		expect(saidOf('a', drill('broad-jump'), [two, asked('hip', 0)])).toBe('left knee 2 of 10')
		expect(saidOf('a', drill('broad-jump'), [asked('knee', 0), pain('knee', 2)])).toBe('left knee 2 of 10')
	})
})

describe('closed by hand without a region', () => {
	const limits = (shut: Shut[]) => ({ closures: [], shut, easyOnly: false })
	it('a kind of movement, and a drill, are over; what is not of it is not', () => {
		const of = (shut: Shut, id: string) => overToday(limits([shut]), drill(id), drill(id).defaults.parameters)
		expect(of({ words: 'pogo', drillId: 'pogo' }, 'pogo')).toBe('pogo')
		expect(of({ words: 'pogo', drillId: 'pogo' }, 'broad-jump')).toBeNull()
		expect(of({ words: 'lateral work', pattern: 'lateral' }, 'lateral-two')).toBe('lateral work')
		expect(of({ words: 'lateral work', pattern: 'lateral' }, 'pogo')).toBeNull()
	})
	it('is heard when it came after the pack, and said once', () => {
		const [before, after] = [
			{ words: 'pogo', drillId: 'pogo' },
			{ words: 'lateral work', pattern: 'lateral' as const },
		]
		expect(heardSince(limits([before]), limits([before, after])).shut).toEqual([after])
		expect(heardSince({}, limits([before])).shut).toEqual([before])
		expect(sayLimits(limits([after])).over).toEqual(['lateral work'])
	})
	it.each([
		[{ closures: [], easyOnly: false }, 0],
		[{ closures: [{ region: 'knee', grade: 'spare', since: DAY }], easyOnly: false }, 2],
		[{ closures: [{ region: 'knee', grade: 'spare', since: DAY }], easyOnly: true }, 3],
		[{ closures: [{ region: 'knee', grade: 'closed', since: DAY }], easyOnly: true }, 4],
		[{ closures: [], shut: [{ words: 'pogo', drillId: 'pogo' }], easyOnly: false }, 4],
		[{ closures: [{ region: 'everything', grade: 'everything', since: DAY }], easyOnly: false }, 5],
	] as const)('%j weighs %d', (one, weight) => {
		expect(weightOf(one as never)).toBe(weight)
	})
})

// What else may be said on the line: head and chest close all, an answer of 2 and more is a report, and what is no
// report of a body closes nothing.
describe('what else is said', () => {
	const other = (kind: string, value: object = {}, more: object = {}) =>
		({ ...event('quiet', value, more), kind }) as LogEvent
	it('a blow to the head or pain in the chest closes everything', () => {
		for (const kind of ['head', 'chest']) expect(grades([other(kind)]), kind).toEqual(['everything everything'])
	})
	it.each([
		[1, []],
		[2, []],
		[3, ['hip spare']],
		[5, ['hip closed']],
	])('an answer of %i', (score, expected) => {
		expect(grades([event('quiet', { region: 'hip', side: 'left', score })])).toEqual(expected)
	})
	it('an answer below 2 is none, however low the limit; from 2 on it is a report', () => {
		const limits = [{ region: 'hip' as const, side: 'left' as const, closesFrom: 5, sparesFrom: 1 }]
		const answer = (score: number) => grades([event('quiet', { region: 'hip', side: 'left', score })], limits)
		expect([answer(1), answer(2)]).toEqual([[], ['hip spare']])
		// A report of 1 is one.
		expect(grades([pain('hip', 1)], limits)).toEqual(['hip spare'])
	})
	it('illness, a worry and a rep close no region', () => {
		expect(grades([other('unwell'), other('worry', { region: 'knee' })])).toEqual([])
		expect(grades([{ ...pain('knee', 8), type: 'mark' } as unknown as LogEvent])).toEqual([])
		expect(closedNow({ id: 'a' }, [pain('knee', 4)], DAY)).toMatchObject([{ region: 'knee', grade: 'spare' }])
	})
	it('unwell is who said so, until it is taken back', () => {
		const said = other('unwell')
		expect(unwellNow('a', [said])).toBe(true)
		expect(unwellNow('b', [said])).toBe(false)
		expect(unwellNow('a', [{ ...said, void: true } as LogEvent])).toBe(false)
		expect(unwellNow('a', [pain('knee', 8)])).toBe(false)
	})
})

describe('limits in words and since the pack', () => {
	const knee = { region: 'knee' as const, side: 'left' as const, grade: 'closed' as const, since: DAY }
	const hip = { region: 'hip' as const, side: 'both' as const, grade: 'spare' as const, since: DAY }
	it('says what is over and what is to be spared apart, each once', () => {
		expect(sayLimits({ closures: [knee, knee, hip], shut: [{ words: 'jump work' }], easyOnly: true })).toEqual({
			over: ['left knee', 'jump work'],
			spare: ['hip'],
			easyOnly: true,
		})
		expect(sayLimits({ closures: [], easyOnly: false })).toEqual({ over: [], spare: [], easyOnly: false })
	})
	it('hears what the pack did not know, and that alone', () => {
		const shut = [{ words: 'jump work' }]
		expect(heardSince({ closures: [knee] }, { closures: [knee, hip], shut, easyOnly: true })).toEqual({
			closures: [hip],
			shut,
			easyOnly: true,
		})
		// Worse than it was, it is news; the same under another name of its side is not.
		expect(
			heardSince({ closures: [{ ...knee, grade: 'spare' }] }, { closures: [knee], easyOnly: false }).closures,
		).toEqual([knee])
		const { side: _side, ...whole } = hip
		expect(heardSince({ closures: [whole] }, { closures: [hip], easyOnly: false }).closures).toEqual([])
		expect(heardSince({ shut, easyOnly: true }, { closures: [], shut, easyOnly: true })).toEqual({
			closures: [],
			shut: [],
			easyOnly: false,
		})
		expect(heardSince({ easyOnly: false }, { closures: [], easyOnly: true }).easyOnly).toBe(true)
		expect(heardSince({}, { closures: [], easyOnly: false }).easyOnly).toBe(false)
		expect(heardSince({ closures: [knee] }, undefined)).toEqual({ closures: [], shut: [], easyOnly: false })
	})
	it('weighs closed before ill before spared before nothing', () => {
		const of = (more: object) => weightOf({ closures: [], easyOnly: false, ...more } as Parameters<typeof weightOf>[0])
		expect([
			of({ closures: [hip, { region: 'everything', grade: 'everything', since: DAY }] }),
			of({ closures: [knee] }),
			of({ shut: [{ words: 'jump work' }], easyOnly: true }),
			of({ closures: [hip], easyOnly: true }),
			of({ closures: [hip] }),
			of({}),
		]).toEqual([5, 4, 4, 3, 2, 0])
	})
})

describe('what was said of a drill’s regions', () => {
	const hop = drill('single-leg-pogo')
	it('is the worst report of a place it loads, until an answer of 1 or less that came after', () => {
		const quiet = (score: number, more: object = {}) => event('quiet', { region: 'ankle', side: 'left', score }, more)
		const one = pain('ankle', 1)
		expect(saidOf('a', hop, [one])).toBe('left ankle 1 of 10')
		expect(saidOf('a', hop, [pain('ankle', 0)])).toBeNull()
		expect(saidOf('a', hop, [pain('ankle', 0, { redFlag: true })])).toBe('left ankle 0 of 10')
		expect(saidOf('a', hop, [pain('ankle', 2), pain('ankle', 4), pain('ankle', 3)])).toBe('left ankle 4 of 10')
		expect(saidOf('b', hop, [one])).toBeNull()
		expect(saidOf('a', hop, [{ ...one, void: true } as LogEvent])).toBeNull()
		expect(saidOf('a', hop, [quiet(8)])).toBeNull()
		expect(saidOf('a', hop, [one, quiet(1)])).toBeNull()
		expect(saidOf('a', hop, [one, quiet(2)])).toBe('left ankle 1 of 10')
		expect(saidOf('a', hop, [one, quiet(0, { athleteId: 'b' })])).toBe('left ankle 1 of 10')
		expect(saidOf('a', hop, [one, event('quiet', { region: 'hip', side: 'left', score: 0 })])).toBe(
			'left ankle 1 of 10',
		)
		// Asked before it was said, or in the same moment, it answers nothing.
		expect(saidOf('a', hop, [quiet(0), pain('ankle', 3)])).toBe('left ankle 3 of 10')
		expect(saidOf('a', hop, [one, quiet(0, { deviceTime: one.deviceTime })])).toBe('left ankle 1 of 10')
		// A later report of pain is no answer.
		expect(saidOf('a', hop, [pain('ankle', 3), pain('ankle', 1)])).toBe('left ankle 3 of 10')
	})
})
