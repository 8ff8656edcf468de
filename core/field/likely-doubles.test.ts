import { describe, expect, it } from 'vitest'
import { line, rep } from '../../tests/support/on-the-line'
import type { LogEvent, Mark } from '../vocabulary/events'
import { likelyDoubles, pairOf } from './likely-doubles'

const START = Date.UTC(2026, 2, 12, 18)
/** A mark of a phone, so many seconds into the session. */
const at = (seconds: number, deviceId: string, change: object = {}): Mark =>
	({
		...rep(1, 1.9, 3.3, {}, deviceId),
		deviceTime: new Date(START + seconds * 1000).toISOString(),
		...change,
	}) as Mark
const pairs = (events: readonly LogEvent[], settled?: ReadonlySet<string>) =>
	likelyDoubles(events, [line({ rest: { repsS: 60, setsS: 60 } })], settled).map((pair) => pair.map(({ id }) => id))

describe('two marks that may be one rep', () => {
	it('are up to half the rest apart, and never asked about beyond it', () => {
		const [first, edge, beyond] = [at(0, 'a'), at(30, 'b'), at(30.001, 'b')]
		expect(pairs([first, edge])).toEqual([[first.id, edge.id]])
		expect(pairs([first, beyond])).toEqual([])
	})
	it('are at least looked for within ten seconds, where the rest is short or the line is not known', () => {
		const short = (apart: number, lines: Parameters<typeof likelyDoubles>[1]) =>
			likelyDoubles([at(0, 'a'), at(apart, 'b')], lines).length
		expect([short(10, [line({ rest: { repsS: 5, setsS: 5 } })]), short(10, [])]).toEqual([1, 1])
		expect([short(10.001, [line({ rest: { repsS: 5, setsS: 5 } })]), short(10.001, [])]).toEqual([0, 0])
	})
	it('are taken in the order of their time, whatever order they came in: three are two neighbours', () => {
		const [one, two, three] = [at(0, 'a'), at(20, 'b'), at(40, 'a')]
		const inTime = [
			[one.id, two.id],
			[two.id, three.id],
		]
		for (const events of [
			[one, two, three],
			[three, one, two],
			[two, three, one],
		])
			expect(pairs(events)).toEqual(inTime)
	})
	it('of one moment are taken in the order of their ids', () => {
		const [one, two] = [at(5, 'a', { id: 'x1' }), at(5, 'b', { id: 'x2' })]
		expect([pairs([one, two]), pairs([two, one])]).toEqual([[['x1', 'x2']], [['x1', 'x2']]])
	})
	it('are from two phones: what one phone wrote twice was meant twice', () => {
		expect(pairs([at(0, 'a'), at(5, 'a')])).toEqual([])
	})
	it('are of one athlete, drill, kind, side and piece', () => {
		const first = at(0, 'a', { side: 'left', piece: 1 })
		const second = (change: object) => pairs([first, at(5, 'b', { side: 'left', piece: 1, ...change })])
		expect(second({})).toHaveLength(1)
		for (const other of [{ side: 'right' }, { side: undefined }, { piece: 2 }, { athleteId: 'z' }, { entryId: 'z' }])
			expect(second(other), JSON.stringify(other)).toEqual([])
		expect(second({ kind: 'contact', value: { contactMs: 180, method: 'mat' } })).toEqual([])
	})
	it('are marks of something done: misses and decisions are none', () => {
		const missed = { kind: 'missed', value: { reason: 'slipped' } }
		expect(pairs([at(0, 'a', missed), at(5, 'b', missed)])).toEqual([])
		const decided = { type: 'decision', kind: 'end-set', value: { reason: 'pain' } }
		expect(pairs([at(0, 'a', decided), at(5, 'b', decided)])).toEqual([])
	})
	it('by a device and a phone may be one; two the device saw are two, one it saw twice is one', () => {
		expect(pairs([at(0, 'a', { source: 'gate-1' }), at(5, 'a')])).toHaveLength(1)
		expect(pairs([at(0, 'a', { source: 'gate-1' }), at(5, 'b', { source: 'gate-2' })])).toEqual([])
		expect(pairs([at(0, 'a', { source: 'gate-1' }), at(900, 'a', { source: 'gate-1' })])).toHaveLength(1)
	})
	it('once settled are not asked about again, whichever of them is named first; another pair still is', () => {
		const [one, two, three] = [at(0, 'a'), at(20, 'b'), at(40, 'a')]
		expect(pairOf(one, two)).toBe(pairOf(two, one))
		expect(pairOf(one, two)).not.toBe(pairOf(one, three))
		expect(pairs([one, two, three], new Set([pairOf(two, one)]))).toEqual([[two.id, three.id]])
	})
})
