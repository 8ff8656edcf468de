import { expect, it } from 'vitest'
import type { LogEvent } from '#core/vocabulary/events'
import type { Kept } from './device-store'
import { NOTHING, answered, withRows } from './on-device'

const row = (id: string): Kept => ({ event: { id } as LogEvent, status: 'waiting', personId: null })
const both = withRows(NOTHING, [row('a'), row('b')])

it('that an event has arrived leaves the list of events as it was', () => {
	const after = withRows(both, answered(both.rows, [{ id: 'a', outcome: 'accepted' }]))
	expect(after.rows.map(({ status }) => status)).toEqual(['safe', 'waiting'])
	expect(after.events).toBe(both.events)
})
it('a refused one counts no longer, and says why', () => {
	const after = withRows(
		both,
		answered(both.rows, [{ id: 'a', outcome: 'refused', field: 'repNo', reason: 'too many' }]),
	)
	expect(after.rows[0]).toMatchObject({ status: 'refused', reason: 'repNo: too many' })
	expect(after.events).toEqual([{ id: 'b' }])
})
it('one more, one less and another in its place make another list', () => {
	expect(withRows(both, [...both.rows, row('c')]).events.map(({ id }) => id)).toEqual(['a', 'b', 'c'])
	expect(withRows(both, both.rows.slice(1)).events.map(({ id }) => id)).toEqual(['b'])
	expect(withRows(both, [both.rows[0]!, row('c')]).events.map(({ id }) => id)).toEqual(['a', 'c'])
})
it('what somebody else is answered concerns nobody here', () => {
	expect(answered(both.rows, [{ id: 'c', outcome: 'accepted' }])).toEqual(both.rows)
})
