import { expect, it } from 'vitest'
import { STARTER_LIBRARY } from '../library/starter-library'
import { linesBeside } from './lines-beside'
import type { SheetPreview } from './preview-sheet'

const start = { drillId: 'standing-start', parameters: { distanceM: 10 }, dose: { sets: 1, reps: 4 } }
const preview = (lines: Record<string, object>) =>
	({
		athletes: Object.entries(lines).map(([id, line]) => ({ id, lines: new Map([['e', line]]) })),
	}) as unknown as SheetPreview
const open = (more: object = {}) => ({ blocked: null, note: null, ...start, ...more })
const beside = (
	lines: Record<string, object>,
	last: Record<string, Record<string, { day: string; words: string }>>,
	ladderId: string | null = 'acceleration',
) =>
	linesBeside(
		preview(lines),
		{ id: 'e', ladderId, drillId: 'standing-start' },
		Object.entries(last).map(([id, own]) => ({ id, last: own })),
		STARTER_LIBRARY,
	)
const SAME = 'Standing start 10 m, 1×4'
const on = (words: string) => ({ day: '2026-03-05', words })

it('says what each has, and what they had the last time where it was another', () => {
	const rows = beside(
		{ a: open(), b: open(), c: open() },
		{ a: { acceleration: on(SAME) }, b: { acceleration: on('A-run 20 m, 3×2') }, c: { cut: on('Wide cut, 1×4') } },
	)
	expect(rows.get('a')).toEqual({ words: SAME, why: null, was: null, isFirst: false })
	expect(rows.get('b')).toEqual({ words: SAME, why: null, was: on('A-run 20 m, 3×2'), isFirst: false })
	expect(rows.get('c')).toEqual({ words: SAME, why: null, was: null, isFirst: true })
})
it('has the reason of a line that is none, and what it was', () => {
	const rows = beside(
		{ a: { blocked: 'knee closed' }, b: { blocked: 'knee closed' } },
		{ a: { acceleration: on(SAME) } },
	)
	expect(rows.get('a')).toEqual({ words: 'no line', why: 'knee closed', was: on(SAME), isFirst: false })
	expect(rows.get('b')).toMatchObject({ was: null, isFirst: false })
})
it('goes by the drill where there is no ladder: by the one that stands on the line', () => {
	const last = { a: { 'broad-jump': on('Broad jump and stick, 2×3'), 'standing-start': on(SAME) } }
	expect(beside({ a: open({ note: 'fewer' }) }, last, null).get('a')).toMatchObject({ was: null, why: 'fewer' })
	expect(beside({ a: open({ drillId: 'broad-jump', parameters: {} }) }, last, null).get('a')!.was).toEqual(
		on('Broad jump and stick, 2×3'),
	)
	expect(beside({ a: { blocked: 'wet grass' } }, last, null).get('a')!.was).toEqual(on(SAME))
})
