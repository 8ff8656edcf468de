import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { meanDeceleration, reactiveCost, turnDeficit, turnDeficits } from './agility/change-of-direction'
import { curveRun } from './agility/curve'
import {
	arcPath,
	boxPath,
	cutPath,
	figureEightPath,
	lPath,
	serpentinePath,
	shuttlePath,
	straightPath,
	tPath,
	zigZagPath,
} from './agility/running-path'
import { kineticEnergy, momentOfInertia } from './load/energy'
import { sessionLoad, weeklyLoad } from './load/weekly-load'
import { ballisticThrow, speedAgainstMass } from './throw/ballistic-throw'

describe('throws', () => {
	/** Flight of a ball in small steps, the landing found between the last two: other code than the formula. */
	const fly = (speed: number, angleDeg: number, height: number) => {
		const angle = (angleDeg * Math.PI) / 180
		let [x, y, vy] = [0, height, speed * Math.sin(angle)]
		const vx = speed * Math.cos(angle)
		const h = 1e-5
		for (;;) {
			const before = [x, y] as const
			y += vy * h - (9.80665 * h * h) / 2
			vy -= 9.80665 * h
			x += vx * h
			if (y <= 0) return before[0] + ((x - before[0]) * before[1]) / (before[1] - y)
		}
	}
	it('fly as far as their release speed carries them', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 3, max: 25, noNaN: true }),
				fc.double({ min: 0, max: 2.4, noNaN: true }),
				fc.double({ min: 5, max: 70, noNaN: true }),
				(distanceM, releaseHeightM, releaseAngleDeg) => {
					const { releaseSpeedMps } = ballisticThrow({ distanceM, releaseHeightM, releaseAngleDeg })
					expect(fly(releaseSpeedMps, releaseAngleDeg, releaseHeightM)).toBeCloseTo(distanceM, 3)
				},
			),
			{ numRuns: 20 },
		)
	})
	it('go furthest at the best angle, which falls below 45° from a height', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 5, max: 20, noNaN: true }),
				fc.double({ min: 0.1, max: 2.4, noNaN: true }),
				(distanceM, releaseHeightM) => {
					const { releaseSpeedMps, bestAngleDeg, bestDistanceM } = ballisticThrow({
						distanceM,
						releaseHeightM,
						releaseAngleDeg: 35,
					})
					expect(bestAngleDeg).toBeLessThan(45)
					const range = (deg: number) => {
						const a = (deg * Math.PI) / 180
						const vy = releaseSpeedMps * Math.sin(a)
						return (releaseSpeedMps * Math.cos(a) * (vy + Math.sqrt(vy ** 2 + 2 * 9.80665 * releaseHeightM))) / 9.80665
					}
					expect(range(bestAngleDeg)).toBeCloseTo(bestDistanceM, 9)
					for (const off of [-3, -0.5, 0.5, 3]) expect(range(bestAngleDeg + off)).toBeLessThan(bestDistanceM)
				},
			),
		)
		expect(ballisticThrow({ distanceM: 10, releaseHeightM: 0, releaseAngleDeg: 45 }).bestAngleDeg).toBeCloseTo(45, 10)
	})
	it('refuse an angle that cannot carry', () => {
		expect(() => ballisticThrow({ distanceM: 10, releaseHeightM: 1, releaseAngleDeg: -20 })).toThrow(
			'releaseAngleDeg: -20',
		)
		expect(() => ballisticThrow({ distanceM: 10, releaseHeightM: 1, releaseAngleDeg: 89.99 })).toThrow('60 m/s')
		expect(() => ballisticThrow({ distanceM: -1, releaseHeightM: 1, releaseAngleDeg: 40 })).toThrow('distanceM: -1')
		expect(() => ballisticThrow({ distanceM: 10, releaseHeightM: 1, releaseAngleDeg: 40, massKg: 0 })).toThrow(
			'massKg: 0',
		)
	})
	it('lose speed with a heavier ball in a line', () => {
		const { slope, speedAt } = speedAgainstMass([
			{ massKg: 1, speedMps: 10 },
			{ massKg: 2, speedMps: 9 },
			{ massKg: 3, speedMps: 8 },
		])
		expect(slope).toBeCloseTo(-1, 12)
		expect(speedAt(2.5)).toBeCloseTo(8.5, 12)
		expect(() => speedAgainstMass([{ massKg: 1, speedMps: 10 }])).toThrow('throws: 1')
	})
})

describe('energy', () => {
	it('is 18.6 J for 1 kg at 6.1 m/s', () => {
		// Common practice, no source.
		expect(kineticEnergy(1, 6.1)).toBeCloseTo(18.6, 1)
		expect(
			ballisticThrow({ distanceM: 5, releaseHeightM: 0, releaseAngleDeg: 45, massKg: 2 }).kineticEnergyJ,
		).toBeCloseTo(5 * 9.80665, 9)
	})
	it('grows with the square of speed and radius', () => {
		expect(kineticEnergy(70, 9) / kineticEnergy(70, 3)).toBeCloseTo(9, 12)
		expect(momentOfInertia(0.4, 0.8) / momentOfInertia(0.4, 0.4)).toBeCloseTo(4, 12)
		expect(() => momentOfInertia(0, 0.8)).toThrow('massKg: 0')
	})
})

describe('turns', () => {
	it('cost what is over the straight 10 m', () => {
		expect(turnDeficit({ time505S: 2.4, time10S: 1.8 }).deficitS).toBeCloseTo(0.6, 12)
		expect(turnDeficit({ time505S: 1.7, time10S: 1.8 }).warnings[0]).toContain('same timing set-up')
		expect(reactiveCost(2.9, 2.6)).toBeCloseTo(0.3, 12)
		expect(meanDeceleration(6, 4)).toBe(4.5)
	})
	it('mirror when the sides are swapped', () => {
		fc.assert(
			fc.property(
				fc.double({ min: 2.2, max: 3, noNaN: true }),
				fc.double({ min: 2.2, max: 3, noNaN: true }),
				(a, b) => {
					const [one, other] = [
						turnDeficits({ time505S: a, time10S: 1.8 }, { time505S: b, time10S: 1.8 }),
						turnDeficits({ time505S: b, time10S: 1.8 }, { time505S: a, time10S: 1.8 }),
					]
					expect(one.asymmetryPct).toBe(other.asymmetryPct)
					expect(one.deficitS).toBeCloseTo(other.deficitS, 12)
					if (a !== b) expect([one.quicker, other.quicker].sort()).toEqual(['left', 'right'])
				},
			),
		)
		expect(() => turnDeficits({ time505S: 2.4, time10S: 1.8 }, { time505S: 0, time10S: 1.8 })).toThrow(
			'right.time505S: 0',
		)
	})
	it('lean a runner so that the forces balance', () => {
		const { centripetalMps2, leanDeg } = curveRun(20, 8)
		expect(centripetalMps2).toBeCloseTo(3.2, 12)
		expect(9.80665 * Math.tan((leanDeg * Math.PI) / 180)).toBeCloseTo(3.2, 12)
		expect(() => curveRun(0, 8)).toThrow('radiusM: 0')
	})
})

describe('paths', () => {
	const length = (points: readonly { x: number; y: number }[]) =>
		points.slice(1).reduce((sum, p, i) => sum + Math.hypot(p.x - points[i]!.x, p.y - points[i]!.y), 0)
	it('are as long as the line between their cones, where it is straight', () => {
		for (const path of [straightPath(30), cutPath(10, 135, 5), zigZagPath(3, 4, 5)])
			expect(length(path.cones)).toBeCloseTo(path.lengthM, 10)
		const box = boxPath(4, 6)
		expect(length([...box.cones, box.cones[0]!])).toBeCloseTo(box.lengthM, 12)
		const {
			cones: [start, middle, left, right],
			lengthM,
		} = tPath(10, 5)
		expect(length([start!, middle!, left!, right!, middle!, start!])).toBeCloseTo(lengthM, 12)
		const l = lPath(5, 7)
		expect(length([...l.cones, ...[...l.cones].reverse().slice(1)])).toBeCloseTo(l.lengthM, 12)
		expect(shuttlePath(5, 4).lengthM).toBe(20)
	})
	it('are as long as their arc, where it is round', () => {
		const arc = arcPath(10, 90)
		const fine = Array.from({ length: 10_001 }, (_, i) => ({
			x: 10 * (1 - Math.cos((i * Math.PI) / 20_000)),
			y: 10 * Math.sin((i * Math.PI) / 20_000),
		}))
		expect(length(fine)).toBeCloseTo(arc.lengthM, 6)
		expect(arc.cones.at(-1)!.x).toBeCloseTo(10, 10)
		expect(figureEightPath(3).lengthM).toBeCloseTo(2 * arcPath(3, 360).lengthM, 12)
		expect(serpentinePath(2, 4).lengthM).toBeCloseTo(4 * arcPath(2, 180).lengthM, 12)
	})
	it('turn about at 180 and go straight on at 0', () => {
		expect(cutPath(10, 180, 10).cones[2]!.y).toBeCloseTo(0, 12)
		expect(cutPath(10, 0, 10).cones[2]).toMatchObject({ x: 0, y: 20 })
		expect(() => cutPath(10, 181, 5)).toThrow('cutDeg: 181')
	})
})

describe('load', () => {
	it('is even and straining by mean, spread and sum', () => {
		// By hand: mean 1200/7; squares 500 000 − 1200²/7 = 294 285.7, over 6 and rooted 221.467; monotony 0.77406.
		const week = weeklyLoad([400, 0, 300, 0, 500, 0, 0])
		expect(week.load).toBe(1200)
		expect(week.sd).toBeCloseTo(221.467, 3)
		expect(week.monotony).toBeCloseTo(0.77406, 4)
		expect(week.strain).toBeCloseTo(1200 * week.monotony!, 10)
		expect(sessionLoad(6, 75)).toBe(450)
	})
	it('leaves monotony open when every day is the same', () => {
		expect(weeklyLoad([0.1, 0.1, 0.1, 0.1, 0.1, 0.1, 0.1])).toMatchObject({ sd: 0, monotony: null, strain: null })
		expect(weeklyLoad([0, 0, 0, 0, 0, 0, 0]).warnings).toHaveLength(1)
	})
	it('refuses a week that is none', () => {
		expect(() => weeklyLoad([1, 2])).toThrow('dailyLoad: 2')
		expect(() => weeklyLoad([1, 2, 3, -4, 5, 6, 7])).toThrow('dailyLoad[3]: -4')
	})
})
