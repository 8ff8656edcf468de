import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Random } from '../../core/chance/random'
import { DEMO_ATHLETES } from '../demo/scenario'
import { beamsOfRun, hopsOnMat } from '../demo/stand-in-readings'
import { assembleContacts, assembleRuns } from '../../core/devices/assemble-runs'
import type { KeptReading, Reading } from '../../core/devices/schema'

const START = Date.UTC(2026, 2, 12, 18)
const kept = (reading: Reading): KeptReading => ({
	...reading,
	deviceId: 'd',
	at: reading.time,
	receivedAt: reading.time,
})

describe('what the stand-ins send', () => {
	it('do not depend on the order of arrival, nor on readings that come twice', () => {
		const random = new Random(7)
		const readings = DEMO_ATHLETES.slice(0, 6).flatMap((athlete, index) =>
			beamsOfRun(athlete, START + index * 20_000, [0, 10, 20], 1, random).map(kept),
		)
		const runs = assembleRuns(readings, [0, 10, 20])
		fc.assert(
			fc.property(
				fc.shuffledSubarray([...readings, ...readings.slice(0, 5)], { minLength: readings.length + 5 }),
				(shuffled) => {
					expect(assembleRuns(shuffled, [0, 10, 20])).toEqual(runs)
				},
			),
			{ seed: 1, numRuns: 100 },
		)
	})
	it('find every run of the demo squad, faults and all, within what its model runs', () => {
		const random = new Random(3)
		let found = 0
		for (let run = 0; run < 200; run++) {
			const athlete = DEMO_ATHLETES[run % DEMO_ATHLETES.length]!
			const [one, ...others] = assembleRuns(
				beamsOfRun(athlete, START + run * 30_000, [0, 10, 20], 1, random, { dropped: 0, doubled: 0.3 }).map(kept),
				[0, 10, 20],
			)
			expect(others).toEqual([])
			expect(one!.splits).toHaveLength(2)
			const last = one!.splits[1]!.timeS
			expect(last).toBeGreaterThan(20 / athlete.mss)
			expect(last).toBeLessThan(20 / athlete.mss + 2 * athlete.tau)
			found += 1
		}
		expect(found).toBe(200)
	})
	it('find the hops an athlete’s model does', () => {
		const athlete = DEMO_ATHLETES[0]!
		const contacts = assembleContacts(hopsOnMat(athlete, START, 8, new Random(5)).map(kept)).filter(
			(contact) => contact.flightS !== null,
		)
		expect(contacts).toHaveLength(8)
		for (const contact of contacts) {
			expect(Math.abs(contact.contactS - athlete.contactS)).toBeLessThan(0.04)
			expect(Math.abs(contact.flightS! - athlete.flightS)).toBeLessThan(0.06)
		}
	})
})
