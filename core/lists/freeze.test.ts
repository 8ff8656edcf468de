import { expect, it } from 'vitest'
import { freeze } from './freeze'

it('freezes all that is in it, and says of how many objects it is', () => {
	const value = { list: [{ a: 1 }], map: new Map([['one', { b: [2] }]]), none: null, text: 'x' }
	// Itself, the list and what is in it, the map, what is in that and its list.
	expect(freeze(value)).toBe(6)
	expect([value, value.list, value.list[0], value.map, value.map.get('one'), value.map.get('one')!.b]).toSatisfy(
		(all: object[]) => all.every((one) => Object.isFrozen(one)),
	)
	expect(freeze(value)).toBe(0)
})

it('leaves what is no object, what is frozen already with all it holds, and bytes', () => {
	const within = { a: 1 }
	const frozen = Object.freeze({ within })
	const bytes = new Uint8Array([1, 2])
	expect([freeze(7), freeze('a'), freeze(null), freeze(undefined), freeze(frozen), freeze(bytes)]).toEqual([
		0, 0, 0, 0, 0, 0,
	])
	expect(Object.isFrozen(within)).toBe(false)
	expect(freeze({ frozen, bytes })).toBe(1)
})
