import { describe, expect, it } from 'vitest'
import { pack } from './packed'

describe('what a page shows', () => {
	it('is written as JSON: dates as texts, without what is not there', () =>
		expect(JSON.parse(pack({ at: new Date('2026-03-12T17:30:00Z'), none: null, left: undefined, n: [1.5] }))).toEqual({
			at: '2026-03-12T17:30:00.000Z',
			none: null,
			n: [1.5],
		}))
	it('is written once for as long as it is the same value', () => {
		let asked = 0
		const value = {
			get name() {
				asked++
				return 'Ada'
			},
		}
		expect([pack(value), pack(value)]).toEqual(['{"name":"Ada"}', '{"name":"Ada"}'])
		expect(asked).toBe(1)
		expect(pack({ name: 'Bo' })).toBe('{"name":"Bo"}')
	})
})
