import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import { effortsOf } from './effort'

const effort = (sessionId: string, athleteId: string, at: string, rpe: number, more: object = {}) =>
	({
		id: `${sessionId}${at}`,
		sessionId,
		athleteId,
		deviceId: 'd',
		deviceSeq: 0,
		deviceTime: `2026-03-12T${at}:00.000Z`,
		type: 'observation',
		kind: 'effort',
		value: { rpe, minutes: 90 },
		...more,
	}) as unknown as LogEvent
const rpeOf = (events: LogEvent[]) =>
	Object.fromEntries([...effortsOf(events, 'a')].map(([session, { value }]) => [session, value.rpe]))

describe('how hard it was', () => {
	it('is what was said last of a session, in whatever order it arrived', () => {
		expect(rpeOf([effort('s', 'a', '19:00', 7), effort('s', 'a', '18:59', 5)])).toEqual({ s: 7 })
		expect(rpeOf([effort('s', 'a', '18:59', 5), effort('s', 'a', '19:00', 7)])).toEqual({ s: 7 })
	})
	it('is kept by session, and of nobody else', () => {
		expect(rpeOf([effort('s', 'a', '19:00', 7), effort('t', 'a', '19:00', 3), effort('s', 'b', '20:00', 9)])).toEqual({
			s: 7,
			t: 3,
		})
	})
	it('what was taken back says nothing; a note is no effort', () => {
		expect(rpeOf([effort('s', 'a', '19:00', 7, { void: true })])).toEqual({})
		expect(rpeOf([effort('s', 'a', '19:00', 7, { kind: 'note', value: { text: 'hard' } })])).toEqual({})
	})
	it('nothing at all was hard', () => expect(rpeOf([effort('s', 'a', '19:00', 0)])).toEqual({ s: 0 }))
})
