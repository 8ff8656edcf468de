import { describe, expect, it } from 'vitest'
import { MeasureError } from '../measure-error'
import { type Joints, readPosture, sayPosture } from './posture'

const at = (x: number, y: number) => ({ x, y })
/** Standing: shoulder over hip over knee over ankle, y downwards. */
const STANDING: Joints = {
	shoulder: at(500, 100),
	hip: at(500, 300),
	knee: at(500, 400),
	ankle: at(500, 500),
	runs: 'right',
}

describe('angles of one frame', () => {
	it('of somebody who stands are none, on a straight leg', () => {
		const { trunkDeg, shinDeg, kneeDeg } = readPosture(STANDING)
		expect([trunkDeg, shinDeg, kneeDeg].map((one) => Math.round(one) + 0)).toEqual([0, 0, 180])
	})
	it('lean forward the way they run, on either side of the picture', () => {
		// 3-4-5: 60 across, 80 up is 36.87° from the vertical.
		const leaning = { ...STANDING, shoulder: at(560, 220) }
		expect(readPosture(leaning).trunkDeg).toBeCloseTo(36.87, 2)
		expect(readPosture({ ...leaning, runs: 'left' }).trunkDeg).toBeCloseTo(-36.87, 2)
	})
	it('of a shin: above 0 with the knee ahead of the ankle', () => {
		// 45°: as far ahead as up.
		expect(readPosture({ ...STANDING, knee: at(560, 440), hip: at(560, 300) }).shinDeg).toBeCloseTo(45, 9)
		expect(readPosture({ ...STANDING, knee: at(440, 440), hip: at(440, 300) }).shinDeg).toBeCloseTo(-45, 9)
	})
	it('of a knee: square where the thigh is level on an upright shank', () => {
		expect(readPosture({ ...STANDING, hip: at(400, 400), shoulder: at(400, 200) }).kneeDeg).toBeCloseTo(90, 9)
		// Shank 45° forward, thigh upright: bent by 45.
		expect(readPosture({ ...STANDING, knee: at(560, 440), hip: at(560, 300) }).kneeDeg).toBeCloseTo(135, 9)
	})
	it('of a trunk thrown back beyond level is more than a right angle', () => {
		expect(readPosture({ ...STANDING, shoulder: at(600, 400) }).trunkDeg).toBeCloseTo(135, 9)
	})
	it('err by what a click is off: three pixels at either end of 100 are 2.4°', () => {
		const { errorDeg } = readPosture(STANDING)
		expect(errorDeg.shinDeg).toBeCloseTo((Math.atan(3 * Math.SQRT2 * 0.01) * 180) / Math.PI, 9)
		expect(errorDeg.shinDeg).toBeCloseTo(2.43, 2)
		expect(errorDeg.trunkDeg).toBeLessThan(errorDeg.shinDeg)
	})
	it.each([
		['knee', { ankle: at(500, 414) }],
		['hip', { hip: at(500, 386), shoulder: at(500, 100) }],
		['shoulder', { shoulder: at(500, 286) }],
	])('a limb of 14 pixels has no slope: %s', (field, change) => {
		expect(() => readPosture({ ...STANDING, ...change })).toThrow(MeasureError)
		expect(() => readPosture({ ...STANDING, ...change })).toThrow(expect.objectContaining({ field }))
	})
	it('one of 15 has', () => expect(readPosture({ ...STANDING, ankle: at(500, 415) }).shinDeg).toBeCloseTo(0, 9))
	it('a point that is no number is none', () =>
		expect(() => readPosture({ ...STANDING, hip: at(Number.NaN, 0) })).toThrow(
			expect.objectContaining({ field: 'hip' }),
		))
})

it('is said in whole degrees, with a sign where it is behind', () =>
	expect(sayPosture({ trunkDeg: 33.6, shinDeg: -4.5, kneeDeg: 141.2 })).toBe('trunk 34°, shin −4°, knee 141°'))
