import { describe, expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { Region } from '../vocabulary/words'
import { gate, good, mat, pain, run, stateAt, usual } from '../../tests/support/verdict-fixture'
import type { Exposure, PainReport, VerdictInput } from './types'

// S1. 1–2 noted; in the third session running it counts as 3. 3–4 swap to what spares the region. 5 or more, 3 or
// more twice in 14 days, or sharp pain, giving way, locking, numbness: stop, closed until cleared. Head: stop,
// everything closed, get help now. Our setting; direction: common practice.

const sprint: Partial<Exposure> = { marks: gate(1.9, 1.9, 1.91, 1.9, 1.9, 1.9), usual: { gate: usual(1.88) } }
const judged = (pains: Partial<PainReport>[], more: Partial<VerdictInput> = {}) =>
	run('acceleration', stateAt('acceleration', 'three-point-10'), sprint, sprint, { pains: pains.map(pain), ...more })
const closes = (pains: Partial<PainReport>[], more: Partial<VerdictInput> = {}) => {
	const { decidedBy, verdict } = judged(pains, more)
	return decidedBy === 'S1' ? verdict : null
}

/** Where it stood, with the first day that is known of it. */
const UNMOVED = stateAt('acceleration', 'three-point-10', { rungSince: '2026-03-09' })

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
	it('a stop is a block, and nothing of it stays on the ladder', () => {
		expect(judged([{ score: 6 }]).next).toEqual(UNMOVED)
		expect(judged([{ score: 6 }])).toMatchObject({
			tier: 'block',
			instead: null,
			sentence: 'Stop, closed until cleared: left back thigh pain 6 of 10.',
		})
	})
	it('a swap names what stands in, which spares it, and goes on one rung lower at 60 % afterwards', () => {
		const { instead, next, sentence } = judged([{ score: 3 }])
		expect(STARTER_LIBRARY.drills[instead!]!.regions['back-thigh'] ?? 0).toBeLessThan(2)
		expect(next).toMatchObject({ rungId: 'standing-10', dose: { sets: 1, reps: 3 }, substitute: null })
		expect(sentence).toContain('one rung lower')
	})
	it('said once: in the next session the rung stays where it was put', () => {
		const before = { sessionId: 's1', day: '2026-03-09', score: 3 }
		const { verdict, next, sentence } = judged([before])
		expect(verdict).toBe('swap')
		expect(next).toEqual(UNMOVED)
		expect(sentence).toContain('stands in')
	})
	it('a report that came late, for a day after the last exposure, counts as new', () => {
		expect(judged([{ sessionId: 'x', day: '2026-03-11', score: 3 }]).next.rungId).toBe('standing-10')
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
		['2026-02-26', 3, 'stop'],
		['2026-02-25', 3, 'swap'],
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
	it('a small pain now is not a second time, and ends nothing', () => {
		expect(closes([{ sessionId: 's0', day: '2026-03-09', score: 4 }, { score: 2 }])).toBe('swap')
	})
})

describe('1 or 2 in the third session running', () => {
	const before = (ids: string[], score = 1) =>
		ids.map((sessionId) => ({ sessionId, day: sessionId === 's0' ? '2026-03-05' : '2026-03-09', score }))
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
	expect(judged([{ score: 4, region: 'calf' }, { score: 6 }]).sentence).toContain('back thigh pain 6 of 10')
	expect(judged([{ score: 4 }, { score: 3, region: 'calf', redFlag: true }]).sentence).toContain(
		'calf or Achilles: sharp pain',
	)
})

it('what was closed before stays closed until somebody has cleared it', () => {
	const before = { sessionId: 's1', day: '2026-03-09', score: 8 }
	expect(judged([before])).toMatchObject({
		verdict: 'stop',
		decidedBy: 'S1',
		sentence: 'Closed until cleared: left back thigh, since Mon 9 Mar.',
	})
	// The fold over everything that was said, clearances with it, is what counts where it is given.
	expect(closes([before], { closures: [] })).toBeNull()
	expect(closes([], { closures: [{ region: 'back-thigh', grade: 'closed', since: '2026-03-01' }] })).toBe('stop')
	expect(closes([], { closures: [{ region: 'back-thigh', grade: 'noted', since: '2026-03-01' }] })).toBeNull()
	expect(closes([], { closures: [{ region: 'everything', grade: 'everything', since: '2026-03-01' }] })).toBe('stop')
})

it('an input of before, with the closure on its ladder, is still closed', () => {
	const state = stateAt('acceleration', 'three-point-10', { closed: { region: 'back-thigh', since: '2026-03-01' } })
	expect(run('acceleration', state, sprint, sprint)).toMatchObject({ verdict: 'stop', tier: 'block' })
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
