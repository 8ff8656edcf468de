import { expect, it } from 'vitest'
import { commonestLevel } from './level-ranges'

it('a group is looked at by the level that most of it train at, by the lower of two that are as many', () => {
	expect(commonestLevel([1, 2, 2, 3])).toBe(2)
	expect(commonestLevel([3, 3, 1, 1, 2])).toBe(1)
	expect(commonestLevel([3])).toBe(3)
	expect(commonestLevel([])).toBeNull()
})
