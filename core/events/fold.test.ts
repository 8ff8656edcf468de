import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { canonicalJson } from './canonical-json'
import { type FoldableEvent, foldEvents } from './fold'

const event = (id: string, replacesId?: string, isVoid = false): FoldableEvent => ({
	id,
	...(replacesId ? { replacesId } : {}),
	...(isVoid ? { void: true } : {}),
})
const ids = (events: FoldableEvent[]) => events.map(({ id }) => id).sort()

describe('foldEvents', () => {
	it('lets a correction win and a void take back', () => {
		const folded = foldEvents([event('a'), event('b', 'a'), event('c'), event('d', 'c', true)])
		expect(ids(folded.current)).toEqual(['b'])
		expect(folded.conflicts).toEqual([])
	})

	it('follows a chain of corrections', () => {
		expect(ids(foldEvents([event('a'), event('b', 'a'), event('c', 'b')]).current)).toEqual(['c'])
	})

	it('takes a correction whose original has not arrived', () => {
		expect(ids(foldEvents([event('b', 'a')]).current)).toEqual(['b'])
	})

	it('asks when two corrections stand, and lets neither into the evidence', () => {
		const folded = foldEvents([event('a'), event('b', 'a'), event('c', 'a'), event('d')])
		expect(ids(folded.current)).toEqual(['d'])
		expect(folded.conflicts.map(ids)).toEqual([['b', 'c']])
	})

	it('is settled by taking one of the two back', () => {
		const folded = foldEvents([event('a'), event('b', 'a'), event('c', 'a'), event('d', 'c', true)])
		expect(folded).toEqual({ current: [event('b', 'a')], conflicts: [] })
	})

	it('asks when one device corrects what another takes back', () => {
		const log = [event('a'), event('b', 'a'), event('c', 'a', true)]
		expect(foldEvents(log).conflicts.map(ids)).toEqual([['b', 'c']])
		// Taking the correction back leaves it taken back; taking the taking-back back leaves the correction.
		expect(foldEvents([...log, event('d', 'b', true)])).toEqual({ current: [], conflicts: [] })
		expect(ids(foldEvents([...log, event('d', 'c', true)]).current)).toEqual(['b'])
	})

	it('asks when a correction of a correction stands beside another of the first', () => {
		const folded = foldEvents([event('a'), event('b', 'a'), event('c', 'b'), event('d', 'a')])
		expect(folded).toEqual({ current: [], conflicts: [[event('c', 'b'), event('d', 'a')]] })
	})

	it('keeps what stands in the order it was given, a corrected event where its correction came', () => {
		const log = [event('x'), event('a'), event('y'), event('b', 'a'), event('z'), event('x')]
		expect(foldEvents(log).current.map(({ id }) => id)).toEqual(['x', 'y', 'b', 'z'])
	})

	it('survives events that replace each other in a ring', () => {
		expect(foldEvents([event('a', 'b'), event('b', 'a')])).toEqual({ current: [], conflicts: [] })
	})
})

/** A log as devices write it: each event new, or a correction of an earlier one. */
const anyLog = fc
	.array(fc.record({ correct: fc.option(fc.nat(), { nil: undefined }), isVoid: fc.boolean() }), { maxLength: 14 })
	.map((steps) =>
		steps.map((step, index) =>
			step.correct === undefined || index === 0
				? event(`e${index}`)
				: event(`e${index}`, `e${step.correct % index}`, step.isVoid),
		),
	)

describe('laws of the fold', () => {
	it('does not depend on the order of arrival', () => {
		fc.assert(
			fc.property(
				anyLog.chain((log) => fc.tuple(fc.constant(log), fc.shuffledSubarray(log, { minLength: log.length }))),
				([log, shuffled]) => {
					const [a, b] = [foldEvents(log), foldEvents(shuffled)]
					expect(ids(b.current)).toEqual(ids(a.current))
					expect(b.conflicts.map(ids).sort()).toEqual(a.conflicts.map(ids).sort())
				},
			),
		)
	})

	it('takes a duplicate as one', () => {
		fc.assert(
			fc.property(anyLog, fc.nat(), (log, n) => {
				const again = log.length > 0 ? [...log, log[n % log.length]!] : log
				expect(ids(foldEvents(again).current)).toEqual(ids(foldEvents(log).current))
			}),
		)
	})

	it('lets a correction of a standing event win', () => {
		fc.assert(
			fc.property(anyLog, fc.nat(), (log, n) => {
				const before = foldEvents(log).current
				fc.pre(before.length > 0)
				const target = before[n % before.length]!
				const after = ids(foldEvents([...log, event('new', target.id)]).current)
				expect(after).toContain('new')
				expect(after).not.toContain(target.id)
			}),
		)
	})

	it('never shows an event that something replaces, nor one that is void', () => {
		fc.assert(
			fc.property(anyLog, (log) => {
				const { current, conflicts } = foldEvents(log)
				const replaced = new Set(log.map((item) => item.replacesId))
				for (const item of [...current, ...conflicts.flat()]) expect(replaced.has(item.id)).toBe(false)
				for (const item of current) expect(item.void ?? false).toBe(false)
				for (const heads of conflicts) expect(heads.length).toBeGreaterThan(1)
			}),
		)
	})

	it('loses nothing that was neither corrected nor taken back', () => {
		fc.assert(
			fc.property(anyLog, (log) => {
				const touched = new Set(log.map((item) => item.replacesId))
				const untouched = log.filter((item) => item.replacesId === undefined && !touched.has(item.id))
				expect(ids(foldEvents(log).current)).toEqual(expect.arrayContaining(ids(untouched)))
			}),
		)
	})
})

describe('canonicalJson', () => {
	it('writes one text for one value, whatever the order of the keys', () => {
		fc.assert(
			fc.property(fc.dictionary(fc.string(), fc.jsonValue()), (value) => {
				const turned = Object.fromEntries(Object.entries(value).reverse())
				expect(canonicalJson(turned)).toBe(canonicalJson(value))
				expect(JSON.parse(canonicalJson(value))).toEqual(JSON.parse(JSON.stringify(value)))
			}),
		)
	})
	it('leaves undefined members out and refuses what JSON cannot hold', () => {
		expect(canonicalJson({ b: 1, a: [2, undefined], c: undefined })).toBe('{"a":[2,null],"b":1}')
		expect(() => canonicalJson({ a: Number.NaN })).toThrow('cannot be written as JSON')
	})
})
