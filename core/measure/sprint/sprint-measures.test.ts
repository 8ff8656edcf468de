import fc from 'fast-check'
import { linearRegression } from 'simple-statistics'
import { describe, expect, it } from 'vitest'
import { assistedTarget } from './assisted-target'
import { effortPercent, effortZone } from './effort-zone'
import { airDensity, dragFactor, forceVelocity } from './force-velocity'
import { electronicFromHand } from './hand-timing'
import { resistedLoad, velocityDecrement } from './resisted-load'
import { flySegment, splitSegments } from './splits'
import { timeAtDistance } from './sprint-curve'
import { readSteps, stepAdvice } from './steps'
import { splitIntoLanes } from './wicket-lanes'
import { wicketSpacing, wicketsToTarget } from './wickets'

describe('splits', () => {
	it('read as mean speeds, the fly as the last of them', () => {
		const splits = [
			{ distanceM: 10, timeS: 2 },
			{ distanceM: 20, timeS: 3.25 },
			{ distanceM: 30, timeS: 4.25 },
		]
		expect(splitSegments(splits).map((segment) => segment.speedMps)).toEqual([5, 8, 10])
		expect(flySegment(splits)).toEqual({ fromM: 20, toM: 30, timeS: 1, speedMps: 10 })
		expect(() => flySegment(splits.slice(0, 1))).toThrow('splits: 1')
	})
})

describe('force and velocity', () => {
	const body = { mssMps: 9, tauS: 1.2, massKg: 70, heightM: 1.75 }
	it('takes the air as dense as the standard atmosphere does', () => {
		// ISO 2533 standard atmosphere, sea level: 15 °C, 1013.25 hPa, 1.225 kg/m³; 1000 m: 8.5 °C, 898.75 hPa, 1.1117 kg/m³ (from memory).
		expect(airDensity(15, 1013.25)).toBeCloseTo(1.225, 2)
		expect(airDensity(8.5, 898.75)).toBeCloseTo(1.1117, 2)
	})
	it('is the plain line from MAC to MSS where nothing resists', () => {
		// Thin air makes the drag small: F0 → MSS/TAU, V0 → MSS.
		const thin = forceVelocity({ ...body, pressureHpa: 600, temperatureC: 50, massKg: 200, heightM: 0.9 })
		expect(thin.f0Nkg).toBeCloseTo(7.5, 1)
		expect(thin.v0Mps).toBeCloseTo(9, 0)
		expect(forceVelocity(body).v0Mps).toBeGreaterThan(9)
	})
	it('runs the sprint again when its line is integrated', () => {
		// dv/dt = F0 + slope · v − drag / m, by the classical Runge–Kutta method: the times must be the curve's own.
		const fv = forceVelocity(body)
		const k = dragFactor(70, 1.75, fv.airDensityKgm3) / 70
		const a = (v: number) => fv.f0Nkg + fv.slope * v - k * v * v
		let [t, d, v] = [0, 0, 0]
		const h = 0.001
		const at = new Map<number, number>()
		while (d < 40) {
			const [k1, k2] = [a(v), a(v + (h / 2) * a(v))]
			const k3 = a(v + (h / 2) * k2)
			const k4 = a(v + h * k3)
			d += h * v + (h * h * (k1 + k2 + k3)) / 6
			v += (h * (k1 + 2 * k2 + 2 * k3 + k4)) / 6
			t += h
			for (const mark of [10, 20, 40]) if (d >= mark && !at.has(mark)) at.set(mark, t)
		}
		for (const mark of [10, 20, 40]) expect(at.get(mark)! / timeAtDistance(9, 1.2, mark)).toBeCloseTo(1, 2)
	})
	it('agrees with a coarser sampling of the same sprint', () => {
		// Other step, other code: force and speed at 10 ms, regression by the package.
		const fv = forceVelocity(body)
		const k = dragFactor(70, 1.75, fv.airDensityKgm3)
		const points = Array.from({ length: 601 }, (_, i): [number, number] => {
			const v = 9 * (1 - Math.exp(-i / 100 / 1.2))
			return [v, 7.5 * Math.exp(-i / 100 / 1.2) + (k * v * v) / 70]
		})
		const line = linearRegression(points)
		expect(fv.f0Nkg).toBeCloseTo(line.b, 2)
		expect(fv.slope).toBeCloseTo(line.m, 2)
		expect(fv.pmaxWkg).toBeCloseTo((line.b * -line.b) / line.m / 4, 1)
		// RFmax at 0.3 s by hand: v = 1.9908, a = 5.8410 m/s², with drag about 5.85; 5.85 / √(5.85² + 9.80665²) = 51.2 %.
		expect(fv.rfmaxPct).toBeCloseTo(51.2, 0)
		expect(fv.drfPct).toBeLessThan(0)
	})
	it('resists as a body of known surface does', () => {
		// Du Bois: 0.2025 · 1.75^0.725 · 70^0.425 = 1.848 m² by logarithms; half of 1.225 · 0.266 · 1.848 · 0.9 is 0.2710.
		expect(dragFactor(70, 1.75, 1.225)).toBeCloseTo(0.271, 3)
		// Half the height and a quarter of the mass: 2^−0.725 · 4^−0.425 = 0.3356 of it.
		expect(dragFactor(17.5, 0.875, 1.225) / dragFactor(70, 1.75, 1.225)).toBeCloseTo(0.3356, 3)
	})
	it('is what another program makes of two sprints', () => {
		// Least squares of sums that are exact, in Python, from the definitions; no published example has wind and thin air.
		expect(forceVelocity(body)).toEqual({
			f0Nkg: expect.closeTo(7.412088, 5),
			v0Mps: expect.closeTo(9.375635, 5),
			pmaxWkg: expect.closeTo(17.373258, 5),
			slope: expect.closeTo(-0.790569, 5),
			rfmaxPct: expect.closeTo(51.271596, 5),
			drfPct: expect.closeTo(-7.189263, 5),
			airDensityKgm3: expect.closeTo(1.225656, 5),
		})
		const small = { mssMps: 7.5, tauS: 1.05, massKg: 52.4, heightM: 1.62 }
		expect(forceVelocity({ ...small, temperatureC: 30, pressureHpa: 950, windMps: -2 })).toEqual({
			f0Nkg: expect.closeTo(7.097524, 5),
			v0Mps: expect.closeTo(7.87312, 5),
			pmaxWkg: expect.closeTo(13.969915, 5),
			slope: expect.closeTo(-0.901488, 5),
			rfmaxPct: expect.closeTo(48.408243, 5),
			drfPct: expect.closeTo(-8.303678, 5),
			airDensityKgm3: expect.closeTo(1.092259, 5),
		})
	})
	it('says so where the wind does the pushing', () => {
		const carried = { mssMps: 2, tauS: 3, massKg: 15, heightM: 0.9 }
		expect(() => forceVelocity({ ...carried, windMps: 15 })).toThrow(
			'windMps: 15 given, expected a wind in which the runner still has to push',
		)
		expect(forceVelocity(carried).f0Nkg).toBeGreaterThan(0)
	})
	it.each([0.3, 3])('takes a time constant of %f s', (tauS) =>
		expect(forceVelocity({ ...body, tauS }).f0Nkg).toBeGreaterThan(0),
	)
	it.each([0.299, 3.001])('refuses one of %f s', (tauS) =>
		expect(() => forceVelocity({ ...body, tauS })).toThrow(`tauS: ${tauS} given`),
	)
	it('asks for more force against the wind and less with it', () => {
		const [against, still, behind] = [-3, 0, 3].map((windMps) => forceVelocity({ ...body, windMps }))
		expect(against!.pmaxWkg).toBeGreaterThan(still!.pmaxWkg)
		expect(still!.pmaxWkg).toBeGreaterThan(behind!.pmaxWkg)
	})
	it.each([
		['massKg', 0],
		['heightM', 17.5],
		['tauS', Number.NaN],
		['mssMps', 1e9],
		['windMps', 40],
		['pressureHpa', 0],
		['temperatureC', -60],
	])('refuses %s of %d', (field, value) => {
		expect(() => forceVelocity({ ...body, [field]: value })).toThrow(`${field}: ${value} given`)
	})
})

describe('steps', () => {
	it('belong together: 45 steps, 4.57 a second, 100 m, 9.85 s', () => {
		// Common practice, no source.
		const steps = readSteps({ distanceM: 100, timeS: 9.85, steps: 45, legLengthM: 0.95 })
		expect(steps.stepFrequencyHz).toBeCloseTo(4.57, 2)
		expect(steps.stepLengthM).toBeCloseTo(2.222, 3)
		expect(steps.stepLengthLegs).toBeCloseTo(2.34, 2)
		expect(steps.stepLengthM * steps.stepFrequencyHz).toBeCloseTo(steps.speedMps, 12)
	})
	it('refuse a count that cannot be a person’s', () => {
		expect(() => readSteps({ distanceM: 100, timeS: 10, steps: 4 })).toThrow('steps: 4')
		expect(() => readSteps({ distanceM: 10, timeS: 1, steps: 20 })).toThrow('steps: 20')
		expect(() => readSteps({ distanceM: 10, timeS: 0, steps: 5 })).toThrow('timeS: 0')
	})
	it('advise from the athlete’s own sessions only', () => {
		const reps = (share: number) =>
			Array.from({ length: 9 }, (_, i) => ({
				sessionId: `s${i % 3}`,
				speedMps: 7 * 1.02 ** i,
				stepLengthM: 1.8 * 1.02 ** (share * i),
			}))
		expect(stepAdvice(reps(0.9))).toMatchObject({ push: 'length' })
		expect(stepAdvice(reps(0.1))).toMatchObject({ push: 'frequency' })
		expect(stepAdvice(reps(0.5)).push).toBeNull()
		expect(stepAdvice(reps(0.9).map((rep) => ({ ...rep, sessionId: 'one' }))).sentence).toContain('Not enough to say')
		expect(stepAdvice(reps(0.9).map((rep) => ({ ...rep, speedMps: 7 }))).sentence).toContain('within 3 %')
	})
})

describe('wickets', () => {
	it('stand from 1.90 to 2.30 m over 10', () => {
		// Common practice, no source: nine gaps growing by 5 cm, 18.90 m in all.
		const { gapsM, positionsM, lengthM } = wicketSpacing({ count: 10, firstGapM: 1.9, lastGapM: 2.3 })
		expect(gapsM.map((gap) => gap.toFixed(2))).toEqual([
			'1.90',
			'1.95',
			'2.00',
			'2.05',
			'2.10',
			'2.15',
			'2.20',
			'2.25',
			'2.30',
		])
		expect(positionsM).toHaveLength(10)
		expect(lengthM).toBeCloseTo(18.9, 10)
	})
	it('add up, whatever the gaps', () => {
		fc.assert(
			fc.property(
				fc.integer({ min: 3, max: 60 }),
				fc.double({ min: 0.2, max: 4, noNaN: true }),
				fc.double({ min: 0.2, max: 4, noNaN: true }),
				(count, firstGapM, lastGapM) => {
					const { gapsM, lengthM, positionsFromStartM } = wicketSpacing({ count, firstGapM, lastGapM, runInM: 15 })
					expect(gapsM).toHaveLength(count - 1)
					expect(lengthM).toBeCloseTo(((firstGapM + lastGapM) / 2) * (count - 1), 9)
					expect(positionsFromStartM!.at(-1)).toBeCloseTo(15 + lengthM, 9)
					expect(wicketSpacing({ count, firstGapM: lastGapM, lastGapM: firstGapM }).lengthM).toBeCloseTo(lengthM, 9)
				},
			),
		)
	})
	it('grow to a target step', () => {
		expect(wicketsToTarget(10, 2.3, 0.8).gapsM[0]).toBeCloseTo(1.84, 10)
		expect(() => wicketsToTarget(10, 2.3, 1.2)).toThrow('startShare: 1.2')
	})
	it('refuse what cannot be set out', () => {
		expect(() => wicketSpacing({ count: 1, firstGapM: 2, lastGapM: 2 })).toThrow('count: 1')
		expect(() => wicketSpacing({ count: 2, firstGapM: 2, lastGapM: 2.1 })).toThrow('one gap')
		expect(() => wicketSpacing({ count: 5, firstGapM: 0, lastGapM: 2 })).toThrow('firstGapM: 0')
	})
})

describe('lanes', () => {
	/** Every way to put athletes into lanes, for small squads: the least there can be. */
	const bruteForce = (steps: number[], lanes: number) => {
		let least = Infinity
		const assign = steps.map(() => 0)
		const total = lanes ** steps.length
		for (let code = 0; code < total; code++) {
			for (let i = 0, rest = code; i < steps.length; i++, rest = Math.floor(rest / lanes)) assign[i] = rest % lanes
			if (new Set(assign).size < lanes) continue
			let cost = 0
			for (let lane = 0; lane < lanes; lane++) {
				const own = steps.filter((_, i) => assign[i] === lane)
				const mean = own.reduce((a, b) => a + b, 0) / own.length
				cost += own.reduce((sum, step) => sum + (step - mean) ** 2, 0)
			}
			least = Math.min(least, cost)
		}
		return least
	}
	it('mismatch least of all ways to split a squad', () => {
		fc.assert(
			fc.property(
				fc.array(fc.double({ min: 1.2, max: 2.6, noNaN: true }), { minLength: 3, maxLength: 7 }),
				fc.integer({ min: 1, max: 3 }),
				(steps, lanes) => {
					const split = splitIntoLanes(steps, lanes)
					expect(split.costM2).toBeCloseTo(bruteForce(steps, lanes), 10)
					expect(split.lanes.flatMap((lane) => lane.members).sort()).toEqual(steps.map((_, i) => i))
					for (const lane of split.lanes)
						expect(lane.spacingM).toBeCloseTo(
							lane.members.reduce((sum, i) => sum + steps[i]!, 0) / lane.members.length,
							10,
						)
				},
			),
			{ numRuns: 60 },
		)
	})
	it('cost nothing when everybody has their own', () => {
		expect(splitIntoLanes([1.8, 2.2, 2], 3).costM2).toBeCloseTo(0, 14)
	})
	it('are at most as many as athletes, of 1 to 500 whose steps a person can make', () => {
		expect(() => splitIntoLanes([1.8, 2.2], 3)).toThrow('lanes: 3')
		expect(() => splitIntoLanes([1.8, 2.2], 1.5)).toThrow('lanes: 1.5')
		expect(() => splitIntoLanes([], 1)).toThrow('stepLengthsM: 0 given, expected 1 to 500 step lengths')
		expect(() => splitIntoLanes(Array<number>(501).fill(2), 1)).toThrow('stepLengthsM: 501')
		expect(splitIntoLanes(Array<number>(500).fill(2), 1).lanes[0]!.members).toHaveLength(500)
		expect(() => splitIntoLanes([1.8, 22], 1)).toThrow('stepLengthsM[1]: 22')
	})
	it('put who is equal in the order they came', () =>
		expect(splitIntoLanes([2, 1.8, 2, 1.8, 2], 2).lanes.map(({ members }) => members)).toEqual([
			[1, 3],
			[0, 2, 4],
		]))
})

describe('loads', () => {
	const runs = [
		{ loadKg: 0, velocityMps: 9 },
		{ loadKg: 20, velocityMps: 7.5 },
		{ loadKg: 40, velocityMps: 6 },
	]
	it('cost the wanted share of speed', () => {
		expect(resistedLoad(runs, 0.25)).toMatchObject({ extrapolated: false })
		const { loadKg, freeVelocityMps, slope, r2 } = resistedLoad(runs, 0.25)
		expect([loadKg, freeVelocityMps, slope, r2].map((x) => Number(x.toFixed(9)))).toEqual([30, 9, -0.075, 1])
		expect(velocityDecrement(6.75, 9)).toBeCloseTo(0.25, 12)
	})
	it('say when they lie outside what was tried', () => {
		expect(resistedLoad(runs, 0.6).extrapolated).toBe(true)
		expect(resistedLoad(runs, 1 / 3).extrapolated).toBe(false)
	})
	it('need three loads that slow the athlete down', () => {
		expect(() => resistedLoad([runs[0]!, runs[1]!, runs[1]!], 0.1)).toThrow('loads: 2')
		expect(() =>
			resistedLoad(
				runs.map((run) => ({ ...run, velocityMps: 5 + run.loadKg / 10 })),
				0.1,
			),
		).toThrow('slower with more load')
		expect(() => resistedLoad(runs, 25)).toThrow('targetDecrement: 25')
		expect(() => resistedLoad([{ loadKg: -1, velocityMps: 9 }, ...runs], 0.1)).toThrow('loads[0].loadKg: -1')
	})
	it('pull an athlete over their own speed no further than the cap', () => {
		expect(assistedTarget(9, 0.03, 20, 0.05).speedMps).toBeCloseTo(9.27, 12)
		expect(assistedTarget(9, 0.03, 20, 0.05).segmentTimeS).toBeCloseTo(20 / 9.27, 12)
		expect(() => assistedTarget(9, 0.06, 20, 0.05)).toThrow('the cap in force')
	})
})

describe('effort and timing', () => {
	it('is a share of own best speed', () => {
		expect(effortPercent(3.2, 3)).toBeCloseTo(93.75, 12)
		expect(effortZone(3.2, 3)).toBe('sub-maximal')
		expect(() => effortZone(0, 3)).toThrow('timeS: 0')
	})
	it('reads a hand time over 100 and 200 m only', () => {
		expect(electronicFromHand(11.1, 100)).toBeCloseTo(11.34, 12)
		expect(() => electronicFromHand(4.1, 30)).toThrow('distanceM: 30')
	})
})
