import { describe, expect, it } from 'vitest'
import type { LogEvent } from '../vocabulary/events'
import { unsound } from './unsound'

const run = (splits: [distanceM: number, timeS: number][], change: object = {}): LogEvent =>
	({
		id: 'a',
		deviceTime: '2026-03-12T17:40:00.000Z',
		type: 'mark',
		kind: 'sprint',
		value: { splits: splits.map(([distanceM, timeS]) => ({ distanceM, timeS })), method: 'gate' },
		...change,
	}) as unknown as LogEvent
const field = (event: LogEvent) => unsound(event)?.field ?? null

describe('what a schema cannot say of an event', () => {
	it('a phone may be off by years, but not out of the century', () => {
		const at = (deviceTime: string) => field(run([[10, 1.9]], { deviceTime }))
		expect([at('1999-12-31T23:59:59.999Z'), at('2000-01-01T00:00:00.000Z')]).toEqual(['deviceTime', null])
		expect([at('2099-12-31T23:59:59.999Z'), at('2100-01-01T00:00:00.000Z'), at('never')]).toEqual([
			null,
			'deviceTime',
			'deviceTime',
		])
		expect(unsound(run([[10, 1.9]], { deviceTime: 'never' }))?.reason).toBe('never is not a time between 2000 and 2100')
	})
	it('it corrects another one', () => {
		expect([field(run([[10, 1.9]], { replacesId: 'a' })), field(run([[10, 1.9]], { replacesId: 'b' }))]).toEqual([
			'replacesId',
			null,
		])
	})
	it('each split lies further and later than the one before', () => {
		expect(
			field(
				run([
					[10, 1.9],
					[20, 3.1],
					[30, 4.2],
				]),
			),
		).toBeNull()
		// The same distance, the same time, earlier, nearer: the third split is named.
		for (const third of [
			[20, 4.2],
			[30, 3.1],
			[30, 3],
			[15, 4.2],
		] as [number, number][])
			expect(field(run([[10, 1.9], [20, 3.1], third])), String(third)).toBe('value.splits.2')
		expect(
			unsound(
				run([
					[20, 3.1],
					[10, 3.2],
				]),
			)?.reason,
		).toBe('3.2 s at 10 m must come after 3.1 s at 20 m')
	})
	it('nobody runs over 13 m/s, from the start or between two splits', () => {
		// 13 m in 1 s is 13 m/s.
		expect([field(run([[13, 1]])), field(run([[13.1, 1]]))]).toEqual([null, 'value.splits.0'])
		// From 10 m on: 13 m in 1 s, 13.2 m in 1 s.
		expect([
			field(
				run([
					[10, 2],
					[23, 3],
				]),
			),
			field(
				run([
					[10, 2],
					[23.2, 3],
				]),
			),
		]).toEqual([null, 'value.splits.1'])
		expect(unsound(run([[20, 1.2]]))?.reason).toBe('1.2 s at 20 m would be 16.7 m/s; nobody runs over 13')
	})
	it('of anything but a sprint it asks the time and the correction alone', () => {
		expect(field(run([[20, 0.1]], { type: 'observation' }))).toBeNull()
		expect(field(run([[20, 0.1]], { kind: 'done' }))).toBeNull()
	})
})
