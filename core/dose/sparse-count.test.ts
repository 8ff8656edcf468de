import { describe, expect, it } from 'vitest'
import { emptyCount } from './dose-count'
import { type SparseCount, addSparseInto, fromSparse, toSparse } from './sparse-count'

describe('a count as it is stored', () => {
	const count = {
		...emptyCount(),
		contacts: { ...emptyCount().contacts, high: { left: 6, right: 0, both: 2 } },
		steps: 14,
	}
	it('leaves zeros out, and is the same count again', () => {
		expect(toSparse(count)).toEqual({ contacts: { high: { left: 6, both: 2 } }, steps: 14 })
		expect(fromSparse(toSparse(count))).toEqual(count)
		expect(toSparse(emptyCount())).toEqual({})
		expect(fromSparse({})).toEqual(emptyCount())
	})
	it('is added to a sum number by number, and is not changed itself', () => {
		const [sum, added] = [emptyCount(), { contacts: { high: { left: 6 } }, metres: { maximal: 20 }, steps: 14 }]
		addSparseInto(sum, added)
		addSparseInto(sum, { contacts: { high: { left: 1, right: 3 }, low: { both: 4 } }, throwKg: 2.5 })
		addSparseInto(sum, {})
		// A cost that many marks have is added once.
		addSparseInto(sum, { cuts: { '60-90': { right: 2 } } }, 3)
		expect(sum).toEqual({
			...emptyCount(),
			contacts: {
				...emptyCount().contacts,
				high: { left: 7, right: 3, both: 0 },
				low: { left: 0, right: 0, both: 4 },
			},
			cuts: { ...emptyCount().cuts, '60-90': { left: 0, right: 6, both: 0 } },
			metres: { ...emptyCount().metres, maximal: 20 },
			steps: 14,
			throwKg: 2.5,
		})
		expect(added).toEqual({ contacts: { high: { left: 6 } }, metres: { maximal: 20 }, steps: 14 })
	})
	it.each<[string, object]>([
		['of a kind there is not', { jumps: 3 }],
		['inside of one there is', { contacts: { enormous: { left: 2 }, high: { third: 9 } } }],
		['a number where there are several', { contacts: 5 }],
		['several where there is a number', { steps: { left: 2 } }],
		['nothing at all', { contacts: undefined, steps: null }],
	])('drops what it does not know: %s', (_, unknown) => {
		expect(fromSparse(unknown as SparseCount)).toEqual(emptyCount())
	})
})
