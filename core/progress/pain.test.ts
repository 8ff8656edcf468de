import { describe, expect, it } from 'vitest'
import type { Region } from '../vocabulary/words'
import { gate, good, mat, pain, run, stateAt } from '../../tests/support/verdict-fixture'
import type { Exposure, PainReport, VerdictInput } from './types'

// S1. 1–2 noted; in the third session running it counts as 3. 3–4 swap to what spares the region. 5 or more, 3 or
// more twice in 14 days, or sharp pain, giving way, locking, numbness: stop, closed until cleared. Head: stop,
// everything closed, get help now. Our setting; direction: common practice.

const sprint: Partial<Exposure> = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), bestBefore: { gate: 1.88 } }
const judged = (pains: Partial<PainReport>[], more: Partial<VerdictInput> = {}) =>
	run('acceleration', stateAt('acceleration', 'three-point-10'), sprint, sprint, { pains: pains.map(pain), ...more })
const closes = (pains: Partial<PainReport>[], more: Partial<VerdictInput> = {}) => {
	const { decidedBy, verdict } = judged(pains, more)
	return decidedBy === 'S1' ? verdict : null
}

describe('one report on the back thigh, which starts load', () => {
	it.each([
		[0, null],
		[1, null],
		[2, null],
		[3, 'swap'],
		[4, 'swap'],
		[5, 'stop'],
		[10, 'stop'],
	])('%d of 10: %s', (score, verdict) => {
		expect(closes([{ score }])).toBe(verdict)
	})
	it.each([0, 1, 4])('sharp, giving way, locking or numb at %d of 10: stop', (score) => {
		expect(closes([{ score, redFlag: true }])).toBe('stop')
		expect(judged([{ score, redFlag: true }]).sentence).toContain('sharp pain, giving way, locking or numbness')
	})
	it('a stop closes the region from that day and is a block', () => {
		expect(judged([{ score: 6 }])).toMatchObject({
			tier: 'block',
			next: { closed: { region: 'back-thigh', since: '2026-03-12' } },
		})
	})
	it('a swap names what spares it, and is no closing', () => {
		expect(judged([{ score: 3 }]).next).toMatchObject({ closed: null, substitute: { region: 'back-thigh' } })
	})
})

describe('where it hurts', () => {
	it.each([
		['wrist', 6, null],
		['wrist', 6, null],
		['back-thigh', 6, 'stop'],
	] as [Region, number, string | null][])('%s %d of 10, at starts: %s', (region, score, verdict) => {
		expect(closes([{ region, score }])).toBe(verdict)
	})
	it.each([
		[4, false, null],
		[5, false, 'stop'],
		[0, true, 'stop'],
	])('head %d of 10, red flag %s: %s, whatever the drill loads', (score, redFlag, verdict) => {
		expect(closes([{ region: 'neck-head', side: 'both', score, redFlag }])).toBe(verdict)
	})
	it('a head report advises help now', () => {
		expect(judged([{ region: 'neck-head', side: 'both', score: 7 }]).sentence).toContain('Get professional help now')
	})
})

describe('3 or more twice in 14 days', () => {
	it.each([
		['2026-03-11', 3, 'stop'],
		['2026-02-27', 3, 'stop'],
		['2026-02-26', 3, 'swap'],
		['2026-03-05', 2, 'swap'],
		['2026-03-05', 4, 'stop'],
	])('once on %s with %d, now with 3: %s', (day, score, verdict) => {
		expect(closes([{ sessionId: 's0', day, score }, { score: 3 }])).toBe(verdict)
	})
	it('of another region does not count', () => {
		expect(closes([{ sessionId: 's0', day: '2026-03-09', region: 'calf', score: 4 }, { score: 3 }])).toBe('swap')
	})
	it('two reports of one session are one time', () => {
		expect(closes([{ score: 3 }, { score: 3 }])).toBe('swap')
	})
	it('a small pain now is not a second time', () => {
		expect(closes([{ sessionId: 's0', day: '2026-03-09', score: 4 }, { score: 2 }])).toBeNull()
	})
})

describe('1 or 2 in the third session running', () => {
	const before = (ids: string[], score = 1) => ids.map((sessionId) => ({ sessionId, day: '2026-03-05', score }))
	it.each([
		[['s0', 's1'], 1, 'swap'],
		[['s0', 's1'], 2, 'swap'],
		[['s1'], 2, null],
		[['s0'], 2, null],
		[[], 2, null],
	] as [string[], number, string | null][])('before in %j, now %d: %s', (ids, score, verdict) => {
		expect(closes([...before(ids), { score }])).toBe(verdict)
	})
	it('is said so', () => {
		const trace = judged([...before(['s0', 's1']), { score: 2 }]).trace.find((line) => line.rule === 'S1')
		expect(trace?.found).toContain('third session running')
	})
	it('not with only two sessions on record', () => {
		expect(closes([...before(['s1']), { score: 2 }], { lastSessions: ['s1', 's2'] })).toBeNull()
	})
	it('0 of 10 in between breaks it', () => {
		expect(closes([...before(['s0']), ...before(['s1'], 0), { score: 2 }])).toBeNull()
	})
})

it('of several reports the one that closes decides, then the higher', () => {
	expect(judged([{ score: 4, region: 'calf' }, { score: 6 }]).next.closed).toMatchObject({ region: 'back-thigh' })
	expect(judged([{ score: 6 }, { score: 3, region: 'calf', redFlag: true }]).next.closed).toMatchObject({
		region: 'calf',
	})
})

it('pain of another session closes nothing today', () => {
	expect(closes([{ sessionId: 's1', day: '2026-03-09', score: 8 }])).toBeNull()
})

it('pain outranks a passed rung, and less pain never gives a lower verdict', () => {
	const order = ['stop', 're-enter', 'swap', 'ease', 'hold', 'advance']
	const verdicts = [0, 1, 2, 3, 4, 5, 6].map((score) => order.indexOf(judged([{ score }]).verdict))
	for (const [index, verdict] of verdicts.slice(1).entries()) expect(verdict).toBeLessThanOrEqual(verdicts[index]!)
})

it('a knee that hurts spares the box and leaves stiffness to its own drill', () => {
	const box: Partial<Exposure> = { marks: mat(0.2, 0.2, 0.2), quality: good(9) }
	const sore = (score: number) =>
		run('shock', stateAt('shock', 'pause-30'), box, box, { pains: [pain({ region: 'knee', score })] })
	expect(sore(2).decidedBy).not.toBe('S1')
	expect(['swap', 'stop']).toContain(sore(3).verdict)
	expect(sore(5)).toMatchObject({ verdict: 'stop', decidedBy: 'S1' })
})
