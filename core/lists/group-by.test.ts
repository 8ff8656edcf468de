import { expect, it } from 'vitest'
import { addTo, groupBy } from './group-by'

it('groups items by what they have in common, in the order they came', () => {
	expect([...groupBy(['jump', 'cut', 'throw', 'sprint', 'hop'], (word) => word.length)]).toEqual([
		[4, ['jump']],
		[3, ['cut', 'hop']],
		[5, ['throw']],
		[6, ['sprint']],
	])
	expect(groupBy([], String).size).toBe(0)
})

it('adds to a group that is there, and begins one that is not', () => {
	const groups = new Map([['left', [1]]])
	addTo(groups, 'left', 2)
	addTo(groups, 'right', 3)
	expect(Object.fromEntries(groups)).toEqual({ left: [1, 2], right: [3] })
})
