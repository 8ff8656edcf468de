import { describe, expect, it } from 'vitest'
import { type AthleteChange, blockMeasure, sayBlock, sayBlockMeasure } from './block-review'
import type { Change } from './trend'

const change = (gain: number, beyond: boolean): Change => ({
	gain,
	beyond,
	low: gain - 0.02,
	high: gain + 0.02,
	since: '2026-03-02',
	sessions: 4,
})
const athlete = (name: string, of: Change | null): AthleteChange => ({ athleteId: name, name, change: of })
const SPRINT = { key: 'k', what: '30 m', how: 'gate', family: 'sprint' as const, kind: 'sprint' as const }
const measure = (kind: 'sprint' | 'height', ...athletes: AthleteChange[]) => blockMeasure({ ...SPRINT, kind }, athletes)

describe('a measure of a block', () => {
	const read = measure(
		'sprint',
		athlete('Tadeo', change(0.05, true)),
		athlete('Bo', change(-0.08, true)),
		athlete('Wren', change(0.02, false)),
		athlete('Ilka', change(0.11, true)),
		athlete('Sefa', change(-0.01, false)),
		athlete('Kahu', null),
	)
	it('sorts who changed beyond noise from who did not, the largest first', () => {
		expect(read.better.map(({ name }) => name)).toEqual(['Ilka', 'Tadeo'])
		expect(read.worse.map(({ name }) => name)).toEqual(['Bo'])
		expect(read.unchanged.map(({ name }) => name)).toEqual(['Wren', 'Sefa'])
		expect(read.unknown.map(({ name }) => name)).toEqual(['Kahu'])
	})
	it('is a sentence that counts those of whom something can be said', () => {
		expect(sayBlockMeasure(read)).toBe(
			'30 m: 2 of 5 faster beyond noise, 1 slower, 2 unchanged, 1 with too few sessions',
		)
		expect(sayBlockMeasure(measure('height', athlete('Bo', change(-0.04, true))))).toBe(
			'30 m: 0 of 1 higher beyond noise, 1 lower',
		)
		expect(sayBlockMeasure(measure('sprint', athlete('A', change(0, false)), athlete('B', change(0, false))))).toBe(
			'30 m: none of 2 changed beyond noise',
		)
		expect(sayBlockMeasure(measure('sprint', athlete('Bo', null)))).toBe('30 m: too few sessions to say')
	})
})

describe('a block in a breath', () => {
	const person = (more: object = {}) => ({
		athleteId: 'a',
		name: 'A',
		came: 8,
		down: 8,
		up: 2,
		back: 1,
		pains: 1 as number | null,
		...more,
	})
	it('counts who missed at most one, what moved, and what hurt', () => {
		expect(sayBlock([person(), person({ came: 7 }), person({ came: 6 }), person({ down: 0, came: 0 })], 8)).toBe(
			'2 of 3 missed at most one of 8 sessions. 8 rungs up, 4 down; 4 reports of pain.',
		)
		expect(sayBlock([person({ up: 1, back: 0 })], 1)).toBe(
			'1 of 1 missed at most one of 1 session. 1 rung up, 0 down; 1 report of pain.',
		)
	})
	it('says nothing of pain to those who may not read it', () => {
		expect(sayBlock([person({ pains: null })], 8)).not.toContain('pain')
	})
	it('says that none of it was held', () => expect(sayBlock([], 0)).toBe('No session of it was held.'))
})
