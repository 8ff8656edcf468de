import { describe, expect, it } from 'vitest'
import { assembleContacts, assembleRuns } from './assemble-runs'
import type { KeptReading, Reading } from './schema'

const START = Date.UTC(2026, 2, 12, 18)
let ids = 0
const kept = (reading: Reading): KeptReading => ({
	...reading,
	deviceId: 'd',
	at: reading.time,
	receivedAt: reading.time,
})
const beam = (distanceM: number, afterS: number, lane = 1): KeptReading =>
	kept({
		id: `r${ids++}`,
		kind: 'beam',
		time: new Date(START + Math.round(afterS * 1000)).toISOString(),
		value: { distanceM, lane },
	})
const feet = (state: 'down' | 'up', afterMs: number): KeptReading =>
	kept({ id: `m${ids++}`, kind: 'mat', time: new Date(START + afterMs).toISOString(), value: { feet: state } })
const splits = (readings: KeptReading[]) =>
	assembleRuns(readings, [0, 10, 20]).map((run) =>
		run.splits.map((split) => `${split.distanceM}:${split.timeS}`).join(' '),
	)

describe('runs from beams', () => {
	it('are cumulative times from the first beam', () => {
		expect(splits([beam(0, 0), beam(10, 1.84), beam(20, 3.12)])).toEqual(['10:1.84 20:3.12'])
	})
	it('count a beam broken twice once, by its first break', () => {
		expect(splits([beam(0, 0), beam(0, 0.08), beam(10, 1.84), beam(10, 1.9), beam(20, 3.12)])).toEqual([
			'10:1.84 20:3.12',
		])
	})
	it('name a beam that saw nothing, and are unsure when it is the last', () => {
		expect(assembleRuns([beam(0, 0), beam(20, 3.12)], [0, 10, 20])[0]).toMatchObject({ missing: [10], unsure: null })
		expect(assembleRuns([beam(0, 0), beam(10, 1.84)], [0, 10, 20])[0]).toMatchObject({
			missing: [20],
			unsure: 'the beam at 20 m saw nothing',
		})
	})
	it('keep two who follow each other apart, and lanes too', () => {
		expect(splits([beam(0, 0), beam(10, 1.84), beam(0, 2), beam(20, 3.12), beam(10, 3.9), beam(20, 5.3)])).toEqual([
			'10:1.84 20:3.12',
			'10:1.9 20:3.3',
		])
		expect(
			assembleRuns([beam(0, 0), beam(0, 0.1, 2), beam(10, 1.8), beam(10, 2, 2)], [0, 10]).map((run) => [
				run.lane,
				run.splits[0]!.timeS,
			]),
		).toEqual([
			[1, 1.8],
			[2, 1.9],
		])
	})
	it('leave a start that nobody followed, and ask about a beam that no run explains', () => {
		expect(assembleRuns([beam(0, 0)], [0, 10])).toEqual([])
		expect(assembleRuns([beam(10, 1)], [0, 10])[0]!.unsure).toContain('no start goes with it')
		// Ten metres in half a second is nobody's run.
		expect(assembleRuns([beam(0, 0), beam(10, 0.5)], [0, 10]).map((run) => run.unsure)).toEqual([
			'the beam at 10 m was broken and no start goes with it',
		])
	})
})

describe('contacts from a mat', () => {
	it('are the time down, with the flight after them', () => {
		expect(assembleContacts([feet('down', 0), feet('up', 180), feet('down', 680), feet('up', 870)])).toMatchObject([
			{ contactS: 0.18, flightS: 0.5 },
			{ contactS: 0.19, flightS: null },
		])
	})
	it('smooth a bouncing switch, and leave out standing and walking off', () => {
		expect(
			assembleContacts([
				feet('down', 0),
				feet('up', 60),
				feet('down', 68),
				feet('up', 180),
				feet('down', 680),
				feet('up', 2500),
			]),
		).toMatchObject([{ contactS: 0.18, flightS: 0.5 }])
		expect(assembleContacts([feet('down', 0), feet('up', 180), feet('down', 3000)])).toMatchObject([
			{ contactS: 0.18, flightS: null },
		])
		expect(assembleContacts([feet('up', 0), feet('up', 10)])).toEqual([])
	})
})
