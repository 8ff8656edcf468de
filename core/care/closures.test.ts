import { describe, expect, it } from 'vitest'
import type { CareReport, Clearance } from '../vocabulary/care'
import { type CareRecord, closuresOn, unwellSince, worriesOn } from './closures'

// Written from the grades of pain: noted 1–2, spare 3–4 or 1–2 in the third session running, closed from 5, a red
// flag, or 3 and more on two days at most 14 apart; everything closed for head and chest.

const pain = (day: string, score: number, more: Partial<CareReport> = {}): CareReport => ({
	kind: 'pain',
	region: 'knee',
	side: 'left',
	score,
	day,
	...more,
})
const asked = (day: string, score: number) => pain(day, score, { asked: true })
const clear = (day: string, more: Partial<Clearance> = {}): Clearance => ({
	region: 'knee',
	day,
	by: 'S. Lindqvist',
	role: 'physiotherapist',
	...more,
})
const on = (day: string, reports: CareReport[], clearances: Clearance[] = [], more: Partial<CareRecord> = {}) =>
	closuresOn({ reports, clearances, ...more }, day).map(
		({ region, side, grade, since }) => `${region}${side ? ` ${side}` : ''} ${grade} ${since}`,
	)

describe('one report', () => {
	it.each([
		[0, []],
		[1, ['knee left noted 2026-03-02']],
		[2, ['knee left noted 2026-03-02']],
		[3, ['knee left spare 2026-03-02']],
		[4, ['knee left spare 2026-03-02']],
		[5, ['knee left closed 2026-03-02']],
		[10, ['knee left closed 2026-03-02']],
	])('of %i', (score, closures) => {
		expect(on('2026-03-02', [pain('2026-03-02', score)])).toEqual(closures)
	})
	it('with a red flag closes at any score', () => {
		expect(on('2026-03-02', [pain('2026-03-02', 0, { redFlag: true })])).toEqual(['knee left closed 2026-03-02'])
	})
	it('is not known before its day', () => {
		expect(on('2026-03-01', [pain('2026-03-02', 9)])).toEqual([])
	})
	it('of both sides counts for each; without a side it is of the region', () => {
		expect(on('2026-03-02', [pain('2026-03-02', 4, { side: 'both' })])).toEqual(['knee both spare 2026-03-02'])
		const { side: _side, ...whole } = pain('2026-03-02', 4, { region: 'back' })
		expect(on('2026-03-02', [whole])).toEqual(['back spare 2026-03-02'])
	})
	it('noted is shown for 14 days', () => {
		expect(on('2026-03-16', [pain('2026-03-02', 2)])).toEqual(['knee left noted 2026-03-02'])
		expect(on('2026-03-17', [pain('2026-03-02', 2)])).toEqual([])
	})
	it('noted ends when asked and answered 0, not by a 1', () => {
		expect(on('2026-03-05', [pain('2026-03-02', 2), asked('2026-03-04', 0)])).toEqual([])
		expect(on('2026-03-05', [pain('2026-03-02', 2), asked('2026-03-04', 1)])).toEqual(['knee left noted 2026-03-02'])
	})
	it('of soreness is noted for 3 days and never more', () => {
		const sore: CareReport = { kind: 'soreness', region: 'calf', side: 'both', score: 8, day: '2026-03-02' }
		expect(on('2026-03-05', [sore])).toEqual(['calf both noted 2026-03-02'])
		expect(on('2026-03-06', [sore])).toEqual([])
	})
})

describe('reports together', () => {
	it('two regions each go their own way', () => {
		expect(
			on('2026-03-02', [pain('2026-03-02', 3), pain('2026-03-02', 6, { region: 'ankle', side: 'right' })]),
		).toEqual(['ankle right closed 2026-03-02', 'knee left spare 2026-03-02'])
	})
	it.each([
		['2026-03-16', 'closed 2026-03-16'],
		['2026-03-17', 'spare 2026-03-02'],
	])('3 on 2 March and again on %s', (day, closure) => {
		expect(on(day, [pain('2026-03-02', 3), pain(day, 3)])).toEqual([`knee left ${closure}`])
	})
	it('a 2 the second time does not close, nor does the other side, nor the same day twice', () => {
		expect(on('2026-03-09', [pain('2026-03-02', 3), pain('2026-03-09', 2)])).toEqual(['knee left spare 2026-03-02'])
		expect(on('2026-03-09', [pain('2026-03-02', 3), pain('2026-03-09', 3, { side: 'right' })])).toEqual([
			'knee left spare 2026-03-02',
			'knee right spare 2026-03-09',
		])
		expect(on('2026-03-02', [pain('2026-03-02', 3), pain('2026-03-02', 4)])).toEqual(['knee left spare 2026-03-02'])
	})
	it('"both" counts for the left the second time', () => {
		expect(on('2026-03-09', [pain('2026-03-02', 3), pain('2026-03-09', 3, { side: 'both' })])).toContain(
			'knee left closed 2026-03-09',
		)
	})
	it('a fortnight is counted between neighbours: the middle of three joins the outer two', () => {
		expect(
			on(
				'2026-03-25',
				['2026-03-01', '2026-03-13', '2026-03-25'].map((day) => pain(day, 3)),
			),
		).toEqual(['knee left closed 2026-03-13'])
	})
	it('a lower report never lowers a grade', () => {
		expect(on('2026-03-09', [pain('2026-03-02', 5), pain('2026-03-09', 1)])).toEqual(['knee left closed 2026-03-02'])
	})
	it('come in any order', () => {
		const reports = [pain('2026-03-02', 3), asked('2026-03-04', 1), pain('2026-03-09', 2), pain('2026-03-20', 3)]
		const forward = on('2026-03-21', reports)
		expect(on('2026-03-21', [...reports].reverse())).toEqual(forward)
		expect(on('2026-03-21', [reports[2]!, reports[0]!, reports[3]!, reports[1]!])).toEqual(forward)
	})
})

describe('1 or 2 in the third session running', () => {
	const three = [pain('2026-03-02', 1), pain('2026-03-04', 2), pain('2026-03-06', 1)]
	it('spares from the third on; the second is still noted', () => {
		expect(on('2026-03-04', three)).toEqual(['knee left noted 2026-03-02'])
		expect(on('2026-03-06', three)).toEqual(['knee left spare 2026-03-06'])
	})
	it('not when a session between them was quiet', () => {
		const sessions = ['2026-03-02', '2026-03-04', '2026-03-05', '2026-03-06']
		expect(on('2026-03-06', three, [], { sessions })).toEqual(['knee left noted 2026-03-02'])
		expect(on('2026-03-06', three, [], { sessions: sessions.filter((day) => day !== '2026-03-05') })).toEqual([
			'knee left spare 2026-03-06',
		])
	})
	it('what is said the next morning is said of the session before', () => {
		const sessions = ['2026-03-02', '2026-03-04', '2026-03-06']
		const morning = [pain('2026-03-03', 1), pain('2026-03-05', 1), pain('2026-03-07', 1, { moment: 'next-day' })]
		expect(on('2026-03-07', morning, [], { sessions })).toEqual(['knee left spare 2026-03-07'])
	})
	it('not on a way back of the region', () => {
		expect(on('2026-03-06', three, [], { returning: new Set(['knee'] as const) })).toEqual([
			'knee left noted 2026-03-02',
		])
		expect(on('2026-03-06', three, [], { returning: new Set(['hip'] as const) })).toEqual([
			'knee left spare 2026-03-06',
		])
	})
	it('is counted anew after a spare has ended', () => {
		const ended = [...three, asked('2026-03-08', 1), pain('2026-03-10', 1), pain('2026-03-12', 1)]
		expect(on('2026-03-12', ended)).toEqual(['knee left noted 2026-03-02'])
		expect(on('2026-03-14', [...ended, pain('2026-03-14', 1)])).toEqual(['knee left spare 2026-03-14'])
	})
	it('an answer of 1 is no report of its own', () => {
		expect(on('2026-03-06', [three[0]!, three[1]!, asked('2026-03-06', 1)])).toEqual(['knee left noted 2026-03-02'])
		expect(on('2026-03-06', [three[0]!, three[1]!, asked('2026-03-06', 2)])).toEqual(['knee left spare 2026-03-06'])
	})
})

describe('a spare ends', () => {
	it.each([
		[0, []],
		[1, []],
		[2, ['knee left spare 2026-03-02']],
	])('asked on a later day and answered %i', (score, closures) => {
		expect(on('2026-03-04', [pain('2026-03-02', 4), asked('2026-03-04', score)])).toEqual(closures)
	})
	it('not on the day of the report, and not by time or silence', () => {
		expect(on('2026-03-02', [pain('2026-03-02', 4), asked('2026-03-02', 0)])).toEqual(['knee left spare 2026-03-02'])
		expect(on('2026-06-02', [pain('2026-03-02', 4)])).toEqual(['knee left spare 2026-03-02'])
	})
	it('not by a low report that nobody asked for', () => {
		expect(on('2026-03-04', [pain('2026-03-02', 4), pain('2026-03-04', 0)])).toEqual(['knee left spare 2026-03-02'])
	})
	it('not on the day of a later 2', () => {
		expect(on('2026-03-04', [pain('2026-03-02', 4), pain('2026-03-04', 2), asked('2026-03-04', 0)])).toEqual([
			'knee left spare 2026-03-02',
		])
		expect(on('2026-03-05', [pain('2026-03-02', 4), pain('2026-03-04', 2), asked('2026-03-05', 0)])).toEqual([])
	})
	it('an answer of 3 on a second day within a fortnight closes', () => {
		expect(on('2026-03-04', [pain('2026-03-02', 4), asked('2026-03-04', 3)])).toEqual(['knee left closed 2026-03-04'])
	})
	it('and what it was still counts towards closing', () => {
		expect(on('2026-03-09', [pain('2026-03-02', 3), asked('2026-03-04', 0), pain('2026-03-09', 3)])).toEqual([
			'knee left closed 2026-03-09',
		])
	})
})

describe('a clearance', () => {
	const closed = [pain('2026-03-02', 6)]
	it.each(['doctor', 'physiotherapist', 'clinician'] as const)('by a %s opens the region', (role) => {
		expect(on('2026-03-10', closed, [clear('2026-03-10', { role })])).toEqual([])
	})
	it.each(['coach', 'guardian', 'athlete'] as const)('is never a %s’s', (role) => {
		expect(on('2026-03-10', closed, [clear('2026-03-10', { role })])).toEqual(['knee left closed 2026-03-02'])
	})
	it('ends reports of earlier days; one of its own day stands', () => {
		expect(on('2026-03-02', closed, [clear('2026-03-02')])).toEqual(['knee left closed 2026-03-02'])
		expect(on('2026-03-03', closed, [clear('2026-03-03')])).toEqual([])
	})
	it('is not known before its day', () => {
		expect(on('2026-03-09', closed, [clear('2026-03-10')])).toEqual(['knee left closed 2026-03-02'])
	})
	it('of one side leaves the other, of one region the others', () => {
		const both = [pain('2026-03-02', 6, { side: 'both' }), pain('2026-03-02', 6, { region: 'hip' })]
		expect(on('2026-03-10', both, [clear('2026-03-05', { side: 'left' })])).toEqual([
			'knee right closed 2026-03-02',
			'hip left closed 2026-03-02',
		])
		expect(on('2026-03-10', both, [clear('2026-03-05')])).toEqual(['hip left closed 2026-03-02'])
	})
	it('ended reports count no more', () => {
		expect(on('2026-03-09', [pain('2026-03-02', 3), pain('2026-03-09', 3)], [clear('2026-03-05')])).toEqual([
			'knee left spare 2026-03-09',
		])
	})
	it('does not lift what is closed by hand', () => {
		expect(
			on('2026-03-10', [], [clear('2026-03-08')], { restrictions: [{ region: 'knee', since: '2026-03-05' }] }),
		).toEqual(['knee closed 2026-03-05'])
	})
})

describe('closed by hand', () => {
	it('counts from its day', () => {
		const restrictions = [{ region: 'knee' as const, since: '2026-03-05' }]
		expect(on('2026-03-04', [], [], { restrictions })).toEqual([])
		expect(on('2026-03-05', [], [], { restrictions })).toEqual(['knee closed 2026-03-05'])
	})
})

describe('head and chest', () => {
	const head: CareReport = { kind: 'head', day: '2026-03-02' }
	const chest: CareReport = { kind: 'chest', day: '2026-03-02' }
	const everything = (day: string, role: Clearance['role'] = 'doctor'): Clearance => ({
		region: 'everything',
		day,
		by: 'R. Aalto',
		role,
	})
	it.each([
		['head', head],
		['chest', chest],
		['neck or head at 5', pain('2026-03-02', 5, { region: 'neck-head' })],
		['neck or head with a red flag', pain('2026-03-02', 1, { region: 'neck-head', redFlag: true })],
	])('%s closes everything', (_, report) => {
		expect(on('2026-03-02', [report])).toEqual(['everything everything 2026-03-02'])
	})
	it('neck or head at 4 is spared like any region', () => {
		expect(on('2026-03-02', [pain('2026-03-02', 4, { region: 'neck-head' })])).toEqual([
			'neck-head left spare 2026-03-02',
		])
	})
	it('opens only by a doctor, on a later day, and not by a cleared neck', () => {
		expect(on('2026-03-09', [head], [everything('2026-03-05')])).toEqual([])
		expect(on('2026-03-09', [head], [everything('2026-03-02')])).toHaveLength(1)
		for (const role of ['physiotherapist', 'clinician', 'coach', 'athlete'] as const)
			expect(on('2026-03-09', [head], [everything('2026-03-05', role)])).toHaveLength(1)
		expect(on('2026-03-09', [head], [clear('2026-03-05', { region: 'neck-head', role: 'doctor' })])).toHaveLength(1)
	})
	it('cleared, leaves closed regions closed', () => {
		expect(on('2026-03-09', [head, pain('2026-03-02', 7)], [everything('2026-03-05')])).toEqual([
			'knee left closed 2026-03-02',
		])
	})
})

describe('unwell', () => {
	const unwell: CareReport = { kind: 'unwell', day: '2026-03-02' }
	const well = (day: string): CareReport => ({ kind: 'well', day })
	it.each([
		['2026-03-02', [unwell], '2026-03-02'],
		['2026-03-01', [unwell], null],
		['2026-03-02', [unwell, well('2026-03-02')], '2026-03-02'],
		['2026-03-03', [unwell, well('2026-03-03')], null],
		['2026-03-02', [unwell, well('2026-03-03')], '2026-03-02'],
		['2026-03-20', [unwell], '2026-03-02'],
	])('on %s', (day, reports, since) => {
		expect(unwellSince(reports, day)).toBe(since)
	})
})

describe('a worry', () => {
	const worry: CareReport = { kind: 'worry', drillId: 'fly-10', region: 'back-thigh', day: '2026-03-02' }
	it('is open until it is settled, of its own movement', () => {
		expect(worriesOn([worry], '2026-04-02')).toEqual([{ drillId: 'fly-10', region: 'back-thigh', since: '2026-03-02' }])
		expect(worriesOn([worry], '2026-03-01')).toEqual([])
		expect(worriesOn([worry, { kind: 'settled', drillId: 'fly-10', day: '2026-03-08' }], '2026-03-08')).toEqual([])
		expect(worriesOn([worry, { kind: 'settled', drillId: 'fly-10', day: '2026-03-08' }], '2026-03-07')).toHaveLength(1)
		expect(worriesOn([worry, { kind: 'settled', drillId: 'sixty', day: '2026-03-08' }], '2026-03-09')).toHaveLength(1)
		expect(worriesOn([worry, { kind: 'settled', drillId: 'fly-10', day: '2026-03-01' }], '2026-03-09')).toHaveLength(1)
	})
})

describe('closed by hand', () => {
	it.each([
		[
			[{ region: 'everything' as const, since: '2026-03-05' }],
			'2026-03-05',
			[['everything', 'everything', '2026-03-05']],
		],
		[[{ region: 'everything' as const, since: '2026-03-05' }], '2026-03-04', []],
		[[{ drillId: 'pogo' as never, since: '2026-03-05' }], '2026-03-05', []],
		[[{ pattern: 'lateral' as const, since: '2026-03-05' }], '2026-03-05', []],
	])('%j on %s: %j', (restrictions, day, expected) => {
		const found = closuresOn({ reports: [], clearances: [], restrictions }, day)
		expect(found.map((one) => [one.region, one.grade, one.since])).toEqual(expected)
	})
	it('a blow to the head before it is what it stands since', () => {
		const record = {
			reports: [{ kind: 'head' as const, day: '2026-03-02' }],
			clearances: [],
			restrictions: [{ region: 'everything' as const, since: '2026-03-05' }],
		}
		expect(closuresOn(record, '2026-03-06')).toMatchObject([{ region: 'everything', since: '2026-03-02' }])
	})
	it('a doctor’s clearance of everything does not lift what a hand holds', () => {
		const record = {
			reports: [{ kind: 'head' as const, day: '2026-03-02' }],
			clearances: [{ region: 'everything' as const, day: '2026-03-06', by: 'Dr A', role: 'doctor' as const }],
			restrictions: [{ region: 'everything' as const, since: '2026-03-05' }],
		}
		expect(closuresOn(record, '2026-03-07')).toMatchObject([{ region: 'everything', since: '2026-03-05' }])
	})
})
