import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { Random } from '../../server/demo/random'
import { DEMO_ATHLETES } from '../../server/demo/scenario'
import { beamsOfRun, hopsOnMat } from '../../server/demo/stand-in-readings'
import { assembleContacts, assembleRuns } from './assemble-runs'
import type { KeptReading, Reading } from './schema'

const START = Date.UTC(2026, 2, 12, 18)
let ids = 0
const kept = (reading: Reading): KeptReading => ({ ...reading, deviceId: 'd', at: reading.time, receivedAt: reading.time })
const beam = (distanceM: number, afterS: number, lane = 1): KeptReading => kept({ id: `r${ids++}`, kind: 'beam', time: new Date(START + Math.round(afterS * 1000)).toISOString(), value: { distanceM, lane } })
const feet = (state: 'down' | 'up', afterMs: number): KeptReading => kept({ id: `m${ids++}`, kind: 'mat', time: new Date(START + afterMs).toISOString(), value: { feet: state } })
const splits = (readings: KeptReading[]) => assembleRuns(readings, [0, 10, 20]).map((run) => run.splits.map((split) => `${split.distanceM}:${split.timeS}`).join(' '))

describe('runs from beams', () => {
	it('are cumulative times from the first beam', () => {
		expect(splits([beam(0, 0), beam(10, 1.84), beam(20, 3.12)])).toEqual(['10:1.84 20:3.12'])
	})
	it('count a beam broken twice once, by its first break', () => {
		expect(splits([beam(0, 0), beam(0, 0.08), beam(10, 1.84), beam(10, 1.9), beam(20, 3.12)])).toEqual(['10:1.84 20:3.12'])
	})
	it('name a beam that saw nothing, and are unsure when it is the last', () => {
		expect(assembleRuns([beam(0, 0), beam(20, 3.12)], [0, 10, 20])[0]).toMatchObject({ missing: [10], unsure: null })
		expect(assembleRuns([beam(0, 0), beam(10, 1.84)], [0, 10, 20])[0]).toMatchObject({ missing: [20], unsure: 'the beam at 20 m saw nothing' })
	})
	it('keep two who follow each other apart, and lanes too', () => {
		expect(splits([beam(0, 0), beam(10, 1.84), beam(0, 2), beam(20, 3.12), beam(10, 3.9), beam(20, 5.3)])).toEqual(['10:1.84 20:3.12', '10:1.9 20:3.3'])
		expect(assembleRuns([beam(0, 0), beam(0, 0.1, 2), beam(10, 1.8), beam(10, 2, 2)], [0, 10]).map((run) => [run.lane, run.splits[0]!.timeS])).toEqual([[1, 1.8], [2, 1.9]])
	})
	it('leave a start that nobody followed, and ask about a beam that no run explains', () => {
		expect(assembleRuns([beam(0, 0)], [0, 10])).toEqual([])
		expect(assembleRuns([beam(10, 1)], [0, 10])[0]!.unsure).toContain('no start goes with it')
		// Ten metres in half a second is nobody's run.
		expect(assembleRuns([beam(0, 0), beam(10, 0.5)], [0, 10]).map((run) => run.unsure)).toEqual(['the beam at 10 m was broken and no start goes with it'])
	})
	it('do not depend on the order of arrival, nor on readings that come twice', () => {
		const random = new Random(7)
		const readings = DEMO_ATHLETES.slice(0, 6).flatMap((athlete, index) => beamsOfRun(athlete, START + index * 20_000, [0, 10, 20], 1, random).map(kept))
		const runs = assembleRuns(readings, [0, 10, 20])
		fc.assert(fc.property(fc.shuffledSubarray([...readings, ...readings.slice(0, 5)], { minLength: readings.length + 5 }), (shuffled) => {
			expect(assembleRuns(shuffled, [0, 10, 20])).toEqual(runs)
		}), { seed: 1, numRuns: 100 })
	})
	it('find every run of the demo squad, faults and all, within what its model runs', () => {
		const random = new Random(3)
		let found = 0
		for (let run = 0; run < 200; run++) {
			const athlete = DEMO_ATHLETES[run % DEMO_ATHLETES.length]!
			const [one, ...others] = assembleRuns(beamsOfRun(athlete, START + run * 30_000, [0, 10, 20], 1, random, { dropped: 0, doubled: 0.3 }).map(kept), [0, 10, 20])
			expect(others).toEqual([])
			expect(one!.splits).toHaveLength(2)
			const last = one!.splits[1]!.timeS
			expect(last).toBeGreaterThan(20 / athlete.mss)
			expect(last).toBeLessThan(20 / athlete.mss + 2 * athlete.tau)
			found += 1
		}
		expect(found).toBe(200)
	})
})

describe('contacts from a mat', () => {
	it('are the time down, with the flight after them', () => {
		expect(assembleContacts([feet('down', 0), feet('up', 180), feet('down', 680), feet('up', 870)])).toMatchObject([{ contactS: 0.18, flightS: 0.5 }, { contactS: 0.19, flightS: null }])
	})
	it('smooth a bouncing switch, and leave out standing and walking off', () => {
		expect(assembleContacts([feet('down', 0), feet('up', 60), feet('down', 68), feet('up', 180), feet('down', 680), feet('up', 2500)])).toMatchObject([{ contactS: 0.18, flightS: 0.5 }])
		expect(assembleContacts([feet('down', 0), feet('up', 180), feet('down', 3000)])).toMatchObject([{ contactS: 0.18, flightS: null }])
		expect(assembleContacts([feet('up', 0), feet('up', 10)])).toEqual([])
	})
	it('find the hops an athlete’s model does', () => {
		const athlete = DEMO_ATHLETES[0]!
		const contacts = assembleContacts(hopsOnMat(athlete, START, 8, new Random(5)).map(kept)).filter((contact) => contact.flightS !== null)
		expect(contacts).toHaveLength(8)
		for (const contact of contacts) {
			expect(Math.abs(contact.contactS - athlete.contactS)).toBeLessThan(0.04)
			expect(Math.abs(contact.flightS! - athlete.flightS)).toBeLessThan(0.06)
		}
	})
})
