import { describe, expect, it } from 'vitest'
import type { CareReport, Clearance } from '../vocabulary/care'
import { episodesOf } from './episodes'

// Each region goes its own way: what opened it, and what ended it. A clearance ends what is closed; an answer of 0 or 1
// on a later day what is to be spared; a worse report raises it.

const pain = (day: string, score: number, more: Partial<CareReport> = {}): CareReport => ({
	kind: 'pain',
	region: 'knee',
	side: 'left',
	score,
	day,
	...more,
})
const cleared = (day: string, more: Partial<Clearance> = {}): Clearance => ({
	region: 'knee',
	day,
	by: 'S. Roe',
	role: 'physiotherapist',
	...more,
})
const said = (
	reports: CareReport[],
	clearances: Clearance[] = [],
	more: Partial<Parameters<typeof episodesOf>[0]> = {},
) =>
	episodesOf({ reports, clearances, ...more }, '2026-04-30').map(
		({ region, side, grade, from, to, ended, opened }) =>
			`${side ? `${side} ` : ''}${region} ${grade} ${from.slice(5)}–${to?.slice(5) ?? ''} ${ended?.kind ?? 'stands'} ${opened.length}`,
	)

describe('what opened it and what ended it', () => {
	it('nothing said, nothing to tell; what is only noted is no episode', () => {
		expect(said([])).toEqual([])
		expect(said([pain('2026-03-02', 2)])).toEqual([])
	})
	it('closed, then cleared: over the day after, when nothing of the clearance’s own day stands', () => {
		expect(said([pain('2026-03-02', 6)], [cleared('2026-03-20')])).toEqual(['left knee closed 03-02–03-20 cleared 1'])
	})
	it('who may not clear ends nothing', () => {
		expect(said([pain('2026-03-02', 6)], [cleared('2026-03-20', { role: 'coach' })])).toEqual([
			'left knee closed 03-02– stands 1',
		])
	})
	it('spared, then quiet when asked', () => {
		expect(said([pain('2026-03-02', 3), pain('2026-03-06', 0, { asked: true })])).toEqual([
			'left knee spare 03-02–03-06 quiet 1',
		])
	})
	it('spared, then worse: two episodes, the later first', () => {
		expect(said([pain('2026-03-02', 3), pain('2026-03-06', 4)])).toEqual([
			'left knee closed 03-06– stands 1',
			'left knee spare 03-02–03-06 raised 1',
		])
	})
	it('both sides said at once are one', () => {
		expect(said([pain('2026-03-02', 6, { side: 'both' })])).toEqual(['knee closed 03-02– stands 1'])
		expect(said([pain('2026-03-02', 6), pain('2026-03-03', 6, { side: 'right' })])).toEqual([
			'right knee closed 03-03– stands 1',
			'left knee closed 03-02– stands 1',
		])
	})
	it('everything, ended by a doctor alone', () => {
		const head: CareReport = { kind: 'head', day: '2026-03-02' }
		const by = (role: Clearance['role']) => [cleared('2026-03-12', { region: 'everything', role })]
		expect(said([head], by('physiotherapist'))).toEqual(['everything everything 03-02– stands 1'])
		expect(said([head], by('doctor'))).toEqual(['everything everything 03-02–03-12 cleared 1'])
	})
	it('closed by hand and lifted by hand', () => {
		const lifted = [{ region: 'knee' as const, since: '2026-03-02', until: '2026-03-06' }]
		expect(said([], [], { lifted })).toEqual(['knee closed 03-02–03-06 lifted 0'])
		expect(said([], [], { restrictions: [{ region: 'knee', since: '2026-03-02' }] })).toEqual([
			'knee closed 03-02– stands 0',
		])
	})
	it('what is said for a later day is not told yet', () => {
		expect(said([pain('2026-05-01', 6)])).toEqual([])
	})
	it('again after it was cleared: a new one', () => {
		expect(said([pain('2026-03-02', 6), pain('2026-04-02', 3)], [cleared('2026-03-10')])).toEqual([
			'left knee spare 04-02– stands 1',
			'left knee closed 03-02–03-10 cleared 1',
		])
	})
})
