import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { meanIndexOf, readFilmContacts } from '../film/film-contacts'
import { filmDuration } from '../film/film-duration'
import { dropJumpSeries } from './drop-jump-series'
import { bestHops } from './hop-series'
import { heightFromFlightTime, heightFromReach, heightFromTakeoffVelocity } from './jump-height'
import { comparePlants, countermovementRatio } from './plants'
import { modifiedReactiveStrengthIndex, reactiveStrengthIndex } from './reactive-strength-index'
import { rebound, verticalStiffness } from './rebound'

describe('jump heights', () => {
	it('agree with each other: flight, take-off speed and reach of one jump', () => {
		fc.assert(
			fc.property(fc.double({ min: 0.05, max: 1.2, noNaN: true }), (height) => {
				const flight = Math.sqrt((8 * height) / 9.80665)
				expect(heightFromFlightTime(flight)).toBeCloseTo(height, 12)
				expect(heightFromTakeoffVelocity((flight / 2) * 9.80665)).toBeCloseTo(height, 12)
				expect(heightFromReach(2.1 + height, 2.1)).toBeCloseTo(height, 12)
			}),
		)
	})
	it('rise with the square of the flight', () => {
		expect(heightFromFlightTime(0.6) / heightFromFlightTime(0.3)).toBeCloseTo(4, 12)
	})
	it('refuse what is no jump', () => {
		expect(() => heightFromReach(2, 2.1)).toThrow('above the standing reach of 2.1 m')
		expect(() => heightFromTakeoffVelocity(-1)).toThrow('takeoffVelocityMps: -1')
		expect(() => modifiedReactiveStrengthIndex(0.4, 0)).toThrow('timeToTakeoffS: 0')
	})
	it('compare take-offs', () => {
		expect(comparePlants({ 'both-standing': 0.5, left: 0.4, right: 0.48 })).toMatchObject({
			best: 'both-standing',
			lagging: 'left',
		})
		expect(comparePlants({ left: 0.48, right: 0.5 }).lagging).toBeNull()
		expect(() => comparePlants({ left: 0.4 })).toThrow('at least two plants')
		expect(countermovementRatio(0.4, 0.36)).toBeCloseTo(1.111, 3)
	})
})

describe('contact and rebound', () => {
	/** Mass on a spring dropped onto it: contact and flight of one hop, by small steps. Other code, other physics than the formula. */
	const hop = (mass: number, stiffness: number, touchdownMps: number) => {
		let [x, v, t] = [0, touchdownMps, 0]
		const h = 1e-6
		do {
			const a = 9.80665 - (stiffness / mass) * x
			v += a * h
			x += v * h
			t += h
		} while (x > 0)
		return { contactTimeS: t, flightTimeS: (2 * touchdownMps) / 9.80665 }
	}
	it.each([
		[70, 15_000, 1.5],
		[70, 25_000, 2.2],
		[50, 20_000, 1.8],
		[90, 40_000, 2.5],
	])('finds the spring under %d kg of %d N/m', (mass, stiffness, speed) => {
		const { contactTimeS, flightTimeS } = hop(mass, stiffness, speed)
		// The formula takes the force as half a sine; a real spring starts the push at body weight lower. Within 5 %.
		expect(verticalStiffness(mass, contactTimeS, flightTimeS) / stiffness).toBeGreaterThan(0.95)
		expect(verticalStiffness(mass, contactTimeS, flightTimeS) / stiffness).toBeLessThan(1.05)
	})
	it('is stiffer with a heavier body in proportion, and with a shorter contact', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 0.08, max: 0.4, noNaN: true }),
				fc.double({ min: 0.1, max: 0.7, noNaN: true }),
				(tc, tf) => {
					expect(verticalStiffness(80, tc, tf) / verticalStiffness(40, tc, tf)).toBeCloseTo(2, 10)
					expect(verticalStiffness(70, tc * 0.9, tf)).toBeGreaterThan(verticalStiffness(70, tc, tf))
				},
			),
		)
	})
	it('keeps index and ratio apart', () => {
		const read = rebound({ contactTimeS: 0.2, flightTimeS: 0.5 })
		expect(read.rsiMps).toBeCloseTo(1.5323, 4)
		expect(read.flightContactRatio).toBe(2.5)
		expect(read.stiffnessKnM).toBeNull()
		expect(read.error).toBeNull()
		expect(
			bestHops(
				[
					{ contactTimeS: 0.2, flightTimeS: 0.4 },
					{ contactTimeS: 0.2, flightTimeS: 0.5 },
				],
				1,
			),
		).toBeCloseTo(read.rsiMps, 12)
		expect(() => bestHops([{ contactTimeS: 0, flightTimeS: 0.4 }], 1)).toThrow('hops[0].contactTimeS: 0')
	})
	it('carries the error of the film as a simulation of frames does', () => {
		// True touchdown, take-off and landing at random moments, each read as its frame: the scatter of what is read.
		const fps = 240
		let state = 5
		const uniform = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32
		const reads: { rsi: number; contact: number }[] = []
		for (let i = 0; i < 40_000; i++) {
			const down = uniform() / fps
			// Durations vary by several frames, so that the rounding averages over them.
			const [tc, tf] = [0.2 + (uniform() - 0.5) * 0.05, 0.5 + (uniform() - 0.5) * 0.05]
			const frames = [down, down + tc, down + tc + tf].map((t) => Math.floor(t * fps))
			const [a, b] = [(frames[1]! - frames[0]!) / fps, (frames[2]! - frames[1]!) / fps]
			reads.push({ rsi: reactiveStrengthIndex(a, b) - reactiveStrengthIndex(tc, tf), contact: a - tc })
		}
		const sd = (values: number[]) => Math.sqrt(values.reduce((sum, value) => sum + value * value, 0) / values.length)
		const error = rebound({ contactTimeS: 0.2, flightTimeS: 0.5, fps }).error!
		expect(sd(reads.map((read) => read.contact)) / error.contactTimeS).toBeCloseTo(1, 1)
		expect(sd(reads.map((read) => read.rsi)) / error.rsiMps).toBeGreaterThan(0.95)
		expect(sd(reads.map((read) => read.rsi)) / error.rsiMps).toBeLessThan(1.05)
		// Without the shared take-off frame it would read about a fifth too small.
		const apart = Math.hypot((2 * 1.5323) / 0.5, 1.5323 / 0.2) * error.contactTimeS
		expect(apart / error.rsiMps).toBeGreaterThan(0.75)
		expect(apart / error.rsiMps).toBeLessThan(0.87)
	})
	it('says when the film is too coarse', () => {
		expect(rebound({ contactTimeS: 0.12, flightTimeS: 0.5, fps: 30 }).warnings[0]).toContain('Film at 60')
		expect(rebound({ contactTimeS: 0.12, flightTimeS: 0.5, fps: 240 }).warnings).toEqual([])
	})
	it.each([
		[0, 0.5, 'contactTimeS: 0'],
		[0.2, 0, 'flightTimeS: 0'],
		[Number.NaN, 0.5, 'contactTimeS: NaN'],
		[0.2, 1e9, 'flightTimeS: 1000000000'],
	])('refuses a contact of %d and a flight of %d', (contactTimeS, flightTimeS, message) => {
		expect(() => rebound({ contactTimeS, flightTimeS })).toThrow(message)
	})
})

describe('best box', () => {
	const jump = (boxM: number, contactTimeS: number, flightTimeS: number) => ({ boxM, contactTimeS, flightTimeS })
	it('is the highest index that keeps the contact, not the highest box', () => {
		const series = dropJumpSeries(0.15, [
			jump(0.2, 0.14, 0.4),
			jump(0.3, 0.145, 0.45),
			jump(0.3, 0.149, 0.45),
			jump(0.5, 0.2, 0.62),
		])
		expect(series.bestBoxM).toBe(0.3)
		expect(series.byBox.map((box) => [box.boxM, box.jumps, box.withinCeiling])).toEqual([
			[0.2, 1, true],
			[0.3, 2, true],
			[0.5, 1, false],
		])
	})
	it('is the lower of two equal ones, and keeps the ceiling at equality', () => {
		expect(dropJumpSeries(0.15, [jump(0.4, 0.15, 0.45), jump(0.2, 0.15, 0.45)]).bestBoxM).toBe(0.2)
	})
	it('is none when none keeps it, and the quickest is named', () => {
		const series = dropJumpSeries(0.15, [jump(0.2, 0.18, 0.5), jump(0.4, 0.17, 0.5)])
		expect(series).toMatchObject({ bestBoxM: null, quickestBoxM: 0.4 })
		expect(series.warnings[0]).toContain('not yet sprint-relevant')
	})
	it('names the jump that is wrong', () => {
		expect(() => dropJumpSeries(0.15, [jump(0.2, 0.18, 0.5), jump(0.4, 0, 0.5)])).toThrow('jumps[1].contactTimeS: 0')
		expect(() => dropJumpSeries(0.15, [])).toThrow('jumps: 0')
	})
})

describe('film', () => {
	it('times by counted frames', () => {
		expect(filmDuration(120, 168, 240)).toMatchObject({ durationS: 0.2, worstCaseS: 1 / 240, warnings: [] })
		expect(filmDuration(120, 168, 240).standardErrorS).toBeCloseTo(1 / (240 * Math.sqrt(6)), 15)
	})
	it('says when there are too few, and which rate would do', () => {
		expect(filmDuration(10, 13, 30).warnings[0]).toContain('Film at 60')
		expect(filmDuration(10, 12, 240).warnings[0]).toContain('Film at 960')
		expect(filmDuration(10, 11, 240).warnings[0]).not.toContain('Film at')
	})
	it.each([
		[5, 5, 240, 'toFrame: 5'],
		[5, 4, 240, 'toFrame: 4'],
		[-1, 4, 240, 'fromFrame: -1'],
		[1.5, 4, 240, 'fromFrame: 1.5'],
		[1, 4, 0, 'fps: 0'],
	])('refuses frames %d to %d at %d', (from, to, fps, message) => {
		expect(() => filmDuration(from, to, fps)).toThrow(message)
	})
})

describe('marked frames', () => {
	const down = (frame: number, side?: 'left' | 'right') => ({
		kind: 'touchdown' as const,
		frame,
		...(side ? { side } : {}),
	})
	const off = (frame: number) => ({ kind: 'toe-off' as const, frame })
	it('read as contacts and flights, at the rate filmed and not the rate played', () => {
		const contacts = readFilmContacts([off(48), down(168, 'right'), down(0, 'left'), off(210), down(330)], 240)
		expect(contacts).toHaveLength(2)
		expect(contacts[0]).toMatchObject({ contactTimeS: 0.2, flightTimeS: 0.5, side: 'left', stepFrequencyHz: 240 / 168 })
		expect(contacts[0]!.rebound!.rsiMps).toBeCloseTo(1.5323, 4)
		expect(contacts[1]).toMatchObject({ contactTimeS: 0.175, flightTimeS: 0.5, side: 'right' })
		expect(meanIndexOf(contacts, 'right')).toBeGreaterThan(meanIndexOf(contacts, 'left')!)
		expect(meanIndexOf([], 'left')).toBeNull()
		// The same frames of a film taken at half the rate last twice as long.
		expect(readFilmContacts([down(0), off(48)], 120)[0]).toMatchObject({
			contactTimeS: 0.4,
			flightTimeS: null,
			rebound: null,
		})
	})
	it('must take turns', () => {
		expect(() => readFilmContacts([off(3)], 240)).toThrow('frame: 3')
		expect(() => readFilmContacts([down(3), down(9)], 240)).toThrow('a toe-off between frame 3 and this touchdown')
		expect(() => readFilmContacts([down(3), off(3)], 240)).toThrow('one mark a frame')
		expect(readFilmContacts([], 240)).toEqual([])
	})
})
