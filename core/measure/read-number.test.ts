import { describe, expect, it } from 'vitest'
import { readNumber } from './read-number'

describe('a number as people type it', () => {
	it.each([
		['12', 12],
		[' 1,5 ', 1.5],
		['1.5', 1.5],
		['.5', 0.5],
		['3.', 3],
		['−0,4', -0.4],
		['+2', 2],
		['1 234,5', 1234.5],
		['1\u202f234', 1234],
		['12 345 678', 12345678],
	])('%s', (text, value) => expect(readNumber(text)).toBe(value))
	it.each(['', ' ', 'two', '1,2,3', '1 2', '1.2.3', '12 34', '1e5', '0x10', '-', '.', 'Infinity'])(
		'%s is none',
		(text) => expect(readNumber(text)).toBeNull(),
	)
})
