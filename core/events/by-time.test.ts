import { expect, it } from 'vitest'
import { byTime } from './by-time'

const at = (minute: number, deviceId: string, deviceSeq: number) => ({
	deviceTime: `2026-03-12T17:${minute}:00.000Z`,
	deviceId,
	deviceSeq,
})
it('orders by time, then device, then the order on it', () => {
	const sorted = [at(10, 'b', 9), at(20, 'a', 1), at(20, 'a', 2), at(20, 'b', 0), at(20, 'b', 7), at(30, 'a', 0)]
	expect([...sorted].reverse().sort(byTime)).toEqual(sorted)
	expect([sorted[3]!, sorted[0]!, sorted[5]!, sorted[2]!, sorted[4]!, sorted[1]!].sort(byTime)).toEqual(sorted)
	expect(byTime(sorted[0]!, sorted[0]!)).toBe(0)
	// Midnight in another notation is the same moment.
	expect(byTime({ ...at(10, 'a', 1), deviceTime: '2026-03-12T18:10:00.000+01:00' }, at(10, 'a', 2))).toBe(-1)
})
