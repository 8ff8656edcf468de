import { describe, expect, it } from 'vitest'
import type { Mark } from '../vocabulary/events'
import { STARTER_LIBRARY } from '../library/starter-library'
import type { PlannedLine } from '../vocabulary/line'
import { countMark } from './count-mark'
import { emptyCount, totalOf } from './dose-count'
import { estimateMinutes } from './estimate-minutes'

const drill = (id: string) => STARTER_LIBRARY.drills[id]!
const line = (drillId: string, more: Partial<PlannedLine> = {}): PlannedLine => ({
	drillId,
	drillVersion: 1,
	ladderId: null,
	rungId: null,
	dose: { sets: 3, reps: 5 },
	parameters: {},
	rest: { repsS: 60, setsS: 60 },
	...more,
})
const mark = (kind: string, value: object, more: object = {}) =>
	({
		id: 'm',
		sessionId: 's',
		athleteId: 'a',
		deviceId: 'd',
		deviceSeq: 0,
		deviceTime: '',
		entryId: 'e',
		lineId: 'l',
		type: 'mark',
		kind,
		value,
		setNo: 1,
		repNo: 1,
		...more,
	}) as unknown as Mark

// Alternating drills store the starting leg; the odd one goes to it. Later reps go on where the earlier ended.
describe('a rep costs what it is by the convention', () => {
	it.each([
		['depth-jump', { heightCm: 30 }, 'contact', 2],
		['drop-landing', { heightCm: 30 }, 'done-1', 1],
		['pause-jump', { heightCm: 30 }, 'done-1', 2],
		['broad-jump', {}, 'distance', 1],
		['pogo', {}, 'done-15', 15],
	] as const)('%s', (id, parameters, what, contacts) => {
		const reps = /done-(\d+)/.exec(what)
		const one = reps ? mark('done', { reps: Number(reps[1]) }) : mark(what, { method: 'mat' })
		const count = countMark(one, line(id, { parameters }), drill(id), null, null)
		expect(Object.values(count.contacts).reduce((sum, legs) => sum + totalOf(legs), 0)).toBe(contacts)
	})
	it.each([
		['voided', mark('done', { reps: 5 }, { void: true })],
		['missed', mark('missed', {})],
	])('%s: nothing', (_, one) => {
		expect(countMark(one, line('pogo'), drill('pogo'), null, null)).toEqual(emptyCount())
	})
	it('a cut’s planting leg alternates through sets and reps, unless the side was said', () => {
		const cut = line('cut-90', { parameters: { distanceM: 10, angleDeg: 90 }, dose: { sets: 3, reps: 3 } })
		const planted = (setNo: number, repNo: number, side?: 'left' | 'right') => {
			const { cuts } = countMark(
				mark('done', { reps: 1 }, { setNo, repNo, ...(side ? { side } : {}) }),
				cut,
				drill('cut-90'),
				null,
				null,
			)
			return cuts['90-135'].left > 0 ? 'left' : 'right'
		}
		const first = planted(1, 1)
		const other = first === 'left' ? 'right' : 'left'
		expect([planted(1, 2), planted(1, 3), planted(2, 1), planted(2, 2), planted(3, 1)]).toEqual([
			other,
			first,
			other,
			first,
			first,
		])
		expect(planted(1, 1, 'left')).toBe('left')
		expect(planted(1, 1, 'right')).toBe('right')
	})
	it('metres go to the effort that was timed, else to the planned one', () => {
		const run = line('standing-start', { parameters: { distanceM: 20 } })
		const timed = mark('sprint', { splits: [], method: 'gate' })
		expect(countMark(timed, run, drill('standing-start'), 'tempo', null).metres).toMatchObject({
			tempo: 20,
			maximal: 0,
			fast: 0,
		})
		expect(countMark(timed, run, drill('standing-start'), 'maximal', null)).toMatchObject({ maximalStarts: 1 })
		const planned = countMark(timed, run, drill('standing-start'), null, null).metres
		expect(planned.fast + planned.maximal).toBe(20)
	})
	it('by distance, longer legs need fewer contacts: 20 m of bounds at 2.1 leg lengths', () => {
		const bounds = line('alternate-bounds', { parameters: { distanceM: 20 } })
		const total = (legLengthM: number | null) =>
			Object.values(
				countMark(mark('done', { reps: 1 }), bounds, drill('alternate-bounds'), null, legLengthM).contacts,
			).reduce((sum, legs) => sum + totalOf(legs), 0)
		// ⌈20 / (2.1 × 0.8)⌉ = 12, ⌈20 / (2.1 × 1.0)⌉ = 10; unknown counts as 0.9 m: ⌈20 / 1.89⌉ = 11.
		expect([total(0.8), total(1), total(null)]).toEqual([12, 10, 11])
	})
})

describe('minutes of a line: reps, between them rest or the walk back at 1.3 m/s, between sets theirs, 1.5 minutes to change over', () => {
	it.each([
		// One set: 6 reps of 5 s, five rests; the rest between sets is nobody's.
		[{ sets: 1, reps: 6 }, { distanceM: 20 }, [120, 999], 5, (30 + 5 * 120) / 60 + 1.5],
		// The walk back is longer than the rest: 26 m + 13 m run-in take 30 s.
		[{ sets: 1, reps: 3 }, { distanceM: 26, runInM: 13 }, [10, 10], 4, (12 + 2 * 30) / 60 + 1.5],
		// Three sets straight on: 9 reps of 2 s, six walks back of 10 s, two rests of 60 s.
		[{ sets: 3, reps: 3 }, { distanceM: 13 }, [0, 60], 2, (9 * 2 + 6 * 10 + 2 * 60) / 60 + 1.5],
		// The walk back between sets, where it is longer than their rest.
		[{ sets: 2, reps: 1 }, { distanceM: 26 }, [0, 5], 4, (2 * 4 + 20) / 60 + 1.5],
		// Without a distance nobody walks back.
		[{ sets: 3, reps: 5 }, {}, [0, 60], 2, (15 * 2 + 2 * 60) / 60 + 1.5],
		[{ sets: 1, reps: 1 }, {}, [60, 60], 30, 30 / 60 + 1.5],
		// 2 sets of 3×150 m, 2 and 10 min: 6 × 26 s, four rests of 120 s, one of 600 s.
		[{ sets: 2, reps: 3 }, { distanceM: 150 }, [120, 600], 26, 22.1],
		// Depth jumps 5×2, 8 s and 2:30: 10 × 8 s, five rests of 8 s, four of 150 s.
		[{ sets: 5, reps: 2 }, { heightCm: 30 }, [8, 150], 8, 13.5],
	])('%j %j, rests %j s, a rep of %d s', (dose, parameters, [repsS, setsS], repS, minutes) => {
		expect(estimateMinutes(dose, parameters, { repsS: repsS!, setsS: setsS! }, repS)).toBeCloseTo(minutes, 9)
	})
})
