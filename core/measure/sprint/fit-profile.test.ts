import fc from 'fast-check'
import { levenbergMarquardt } from 'ml-levenberg-marquardt'
import { describe, expect, it } from 'vitest'
import { MeasureError } from '../measure-error'
import { type SprintProfileInput, fitSprintProfile } from './fit-profile'
import { fitSpeedTrace } from './fit-speed-trace'
import { distanceAtTime, solveSprintTime, speedAtTime, timeAtDistance } from './sprint-curve'
import { type SegmentReading, ladderOfWeakPart, weakPartInWords, whereTimeGoes } from './where-time-goes'

const runOf = (mss: number, tau: number, distances: readonly number[], { addedS = 0, aheadM = 0 } = {}) =>
	distances.map((distanceM) => ({
		distanceM,
		timeS: timeAtDistance(mss, tau, distanceM + aheadM) - timeAtDistance(mss, tau, aheadM) + addedS,
	}))
/** Seeded normal noise, so that a failing run can be repeated. */
const noiseFrom = (seed: number) => {
	let state = seed
	const uniform = () => (state = (Math.imul(state, 1_664_525) + 1_013_904_223) >>> 0) / 2 ** 32
	return () => Math.sqrt(-2 * Math.log(1 - uniform())) * Math.cos(2 * Math.PI * uniform())
}
const mss = fc.double({ min: 3, max: 13, noNaN: true })
const tau = fc.double({ min: 0.5, max: 2, noNaN: true })
const LAYOUTS = [
	[10, 20],
	[5, 10, 20],
	[5, 10, 20, 30],
	[5, 10, 20, 30, 40],
	[5, 10, 15, 20, 30, 40],
	[5, 10, 15, 20, 25, 30, 35, 40, 50, 60],
] as const
const layout = fc.constantFrom(...LAYOUTS)

describe('least squares against certified values', () => {
	// NIST Statistical Reference Datasets, nonlinear regression: y = b1 (1 − e^(−b2 x)), the speed of a sprint over time.
	const misra1a = {
		y: [10.07, 14.73, 17.94, 23.93, 29.61, 35.18, 40.02, 44.82, 50.76, 55.05, 61.01, 66.4, 75.47, 81.78],
		x: [77.6, 114.9, 141.1, 190.8, 239.9, 289, 332.8, 378.4, 434.8, 477.3, 536.8, 593.1, 689.1, 760],
	}
	const boxBod = { y: [109, 149, 149, 191, 213, 224], x: [1, 2, 3, 5, 7, 10] }
	const fit = ({ x, y }: { x: number[]; y: number[] }) =>
		fitSpeedTrace(x.map((timeS, index) => ({ timeS, speedMps: y[index]! })))

	it('gives the certified values of Misra1a', () => {
		const { mssMps, tauS, sumOfSquares, residualSdMps, se } = fit(misra1a)
		expect(mssMps / 2.3894212918e2).toBeCloseTo(1, 9)
		expect(1 / tauS / 5.5015643181e-4).toBeCloseTo(1, 9)
		expect(sumOfSquares / 1.2455138894e-1).toBeCloseTo(1, 9)
		expect(residualSdMps! / 1.018787633e-1).toBeCloseTo(1, 9)
		expect(se.mssMps! / 2.7070075241).toBeCloseTo(1, 6)
		// b2 = 1 / TAU: its certified SD is the relative error of TAU times b2.
		expect(((se.tauS! / tauS) * 5.5015643181e-4) / 7.2668688436e-6).toBeCloseTo(1, 6)
	})
	it('gives the certified values of BoxBOD', () => {
		const { mssMps, tauS, sumOfSquares, se } = fit(boxBod)
		expect(mssMps / 2.1380940889e2).toBeCloseTo(1, 9)
		expect(1 / tauS / 5.4723748542e-1).toBeCloseTo(1, 8)
		expect(sumOfSquares / 1.1680088766e3).toBeCloseTo(1, 9)
		expect(se.mssMps! / 1.2354515176e1).toBeCloseTo(1, 6)
	})
	it('agrees with a general-purpose package on split times', () => {
		const noise = noiseFrom(7)
		for (const [index, distances] of [LAYOUTS[3], LAYOUTS[4], LAYOUTS[5]].entries()) {
			const splits = runOf(8 + index, 1 + index / 5, distances).map(({ distanceM, timeS }) => ({
				distanceM,
				timeS: timeS + 0.01 * noise(),
			}))
			const own = fitSprintProfile({ splits, correction: 'none' })
			const general = levenbergMarquardt(
				{ x: splits.map((s) => s.distanceM), y: splits.map((s) => s.timeS) },
				([a, b]: number[]) =>
					(d: number) =>
						b! * solveSprintTime(d / (a! * b!)),
				{
					initialValues: [9, 1.2],
					damping: 1e-2,
					maxIterations: 500,
					gradientDifference: 1e-6,
					errorTolerance: 1e-14,
				},
			)
			expect(own.mssMps / general.parameterValues[0]!).toBeCloseTo(1, 4)
			expect(own.tauS / general.parameterValues[1]!).toBeCloseTo(1, 4)
			expect(own.residualsS.reduce((sum, r) => sum + r * r, 0)).toBeLessThanOrEqual(general.parameterError * (1 + 1e-6))
		}
	})
	it('refuses speeds that do not bend', () => {
		expect(() => fitSpeedTrace([{ timeS: 1, speedMps: 2 }])).toThrow('samples: 1')
		expect(() => fitSpeedTrace([1, 2, 3, 4].map((t) => ({ timeS: t, speedMps: 2 * t })))).toThrow('bend')
	})
})

describe('sprint curve', () => {
	it('solves its own equation from a millimetre to a marathon', () => {
		fc.assert(
			fc.property(fc.double({ min: -14, max: 4, noNaN: true }), (power) => {
				const c = 10 ** power
				const u = solveSprintTime(c)
				// Below the switch of methods the left side is summed as its series: the subtraction has no digits left.
				const left = u < 0.01 ? (u * u) / 2 - u ** 3 / 6 + u ** 4 / 24 - u ** 5 / 120 : u + Math.expm1(-u)
				expect(left / c).toBeCloseTo(1, 11)
			}),
		)
	})
	it('has speed as the slope of distance, and MSS · TAU as the scale', () => {
		fc.assert(
			fc.property(mss, tau, fc.double({ min: 0.01, max: 10, noNaN: true }), (top, constant, t) => {
				const h = 1e-5
				expect((distanceAtTime(top, constant, t + h) - distanceAtTime(top, constant, t - h)) / (2 * h)).toBeCloseTo(
					speedAtTime(top, constant, t),
					5,
				)
				expect(distanceAtTime(top, constant, timeAtDistance(top, constant, 5 * t))).toBeCloseTo(5 * t, 9)
			}),
		)
	})
})

describe('sprint profile', () => {
	it('finds what made the splits', () => {
		fc.assert(
			fc.property(mss, tau, layout, (top, constant, distances) => {
				const fitted = fitSprintProfile({ splits: runOf(top, constant, distances), correction: 'none' })
				expect(fitted.mssMps / top).toBeCloseTo(1, 8)
				expect(fitted.tauS / constant).toBeCloseTo(1, 8)
				expect(fitted.macMps2).toBeCloseTo(fitted.mssMps / fitted.tauS, 12)
				expect(fitted.pmaxWkg).toBeCloseTo((fitted.mssMps * fitted.macMps2) / 4, 12)
			}),
		)
	})
	it('finds an added time and a start distance with it', () => {
		fc.assert(
			fc.property(
				mss,
				tau,
				fc.constantFrom(...LAYOUTS.slice(2)),
				fc.double({ min: 0.01, max: 0.6, noNaN: true }),
				(top, constant, distances, extra) => {
					const late = fitSprintProfile({
						splits: runOf(top, constant, distances, { addedS: extra }),
						correction: 'time',
					})
					expect(late.correctionS).toBeCloseTo(extra, 6)
					expect(late.mssMps / top).toBeCloseTo(1, 6)
					const flying = fitSprintProfile({
						splits: runOf(top, constant, distances, { aheadM: extra }),
						correction: 'start-distance',
					})
					expect(flying.startDistanceM).toBeCloseTo(extra, 5)
					expect(flying.tauS / constant).toBeCloseTo(1, 5)
					const measured = fitSprintProfile({
						splits: runOf(top, constant, distances, { aheadM: extra }),
						correction: 'start-distance',
						startDistanceM: extra,
					})
					expect(measured.startDistanceM).toBe(extra)
					expect(measured.mssMps / top).toBeCloseTo(1, 7)
				},
			),
		)
	})
	it('converges on every possible set under noise, or says why not; never NaN', () => {
		const noise = noiseFrom(11)
		let refused = 0
		const runs = 6000
		for (let run = 0; run < runs; run++) {
			const top = 3 + (10 * (run % 97)) / 96
			const constant = 0.5 + (1.5 * (run % 89)) / 88
			const correction = (['none', 'time', 'start-distance'] as const)[run % 3]!
			const distances = LAYOUTS[correction === 'none' ? run % 6 : 2 + (run % 4)]!
			const sd = [0, 0.01, 0.05][(run % 7) % 3]!
			const splits = runOf(top, constant, distances, {
				addedS: correction === 'time' ? 0.2 : 0,
				aheadM: correction === 'start-distance' ? 0.4 : 0,
			}).map(({ distanceM, timeS }) => ({ distanceM, timeS: timeS + sd * noise() }))
			try {
				const { mssMps, tauS, macMps2, topSpeedShare, residualsS } = fitSprintProfile({ splits, correction })
				for (const value of [mssMps, tauS, macMps2, topSpeedShare, ...residualsS])
					expect(Number.isFinite(value)).toBe(true)
			} catch (error) {
				expect(error).toBeInstanceOf(MeasureError)
				expect((error as MeasureError).field).toMatch(/^splits/)
				refused++
			}
		}
		expect(refused / runs).toBeLessThan(0.04)
	})
	it('reads standard errors that cover what they should', () => {
		// 95 % intervals by Student's t with 3 degrees of freedom, 3.182 (e-Handbook 1.3.6.7.2), over 600 noisy copies of one run.
		const noise = noiseFrom(3)
		const truth = runOf(9, 1.2, LAYOUTS[3])
		let [covered, macCovered] = [0, 0]
		for (let copy = 0; copy < 600; copy++) {
			const { mssMps, macMps2, se } = fitSprintProfile({
				splits: truth.map(({ distanceM, timeS }) => ({ distanceM, timeS: timeS + 0.01 * noise() })),
				correction: 'none',
			})
			if (Math.abs(mssMps - 9) <= 3.182 * se.mssMps!) covered++
			if (Math.abs(macMps2 - 7.5) <= 3.182 * se.macMps2!) macCovered++
		}
		expect(covered / 600).toBeGreaterThan(0.92)
		expect(covered / 600).toBeLessThan(0.98)
		expect(macCovered / 600).toBeGreaterThan(0.92)
		expect(macCovered / 600).toBeLessThan(0.98)
	})
	it('does not care for the unit of length', () => {
		fc.assert(
			fc.property(mss, tau, (top, constant) => {
				const splits = runOf(top, constant, LAYOUTS[3])
				const inFeet = splits.map(({ distanceM, timeS }) => ({ distanceM: distanceM / 0.3048, timeS: timeS / 0.3048 }))
				const [a, b] = [
					fitSprintProfile({ splits, correction: 'none' }),
					fitSprintProfile({ splits: inFeet, correction: 'none' }),
				]
				expect(b.mssMps / a.mssMps).toBeCloseTo(1, 9)
				expect((b.tauS * 0.3048) / a.tauS).toBeCloseTo(1, 9)
			}),
			{ numRuns: 40 },
		)
	})
	it('reads the split times of a 100 m world-championship final', () => {
		// Berlin 2009, 100 m final, winner, cumulative times to 80 m less the reaction time of 0.146 s. Source: Graubner & Nixdorf,
		// New Studies in Athletics 26 (2011), from memory. Fastest 10 m there: 0.81 s, 12.3 m/s, between 60 and 80 m.
		const times = [1.89, 2.88, 3.78, 4.64, 5.47, 6.29, 7.1, 7.92]
		const fitted = fitSprintProfile({
			splits: times.map((timeS, index) => ({ distanceM: 10 * (index + 1), timeS: timeS - 0.146 })),
			correction: 'none',
		})
		expect(fitted.mssMps).toBeGreaterThan(12.0)
		expect(fitted.mssMps).toBeLessThan(12.6)
		expect(fitted.residualSdS).toBeLessThan(0.03)
		expect(fitted.topSpeedShare).toBeGreaterThan(0.97)
	})
	it('points at a hand start that nobody corrected', () => {
		// A hand start 0.25 s late moves TAU from 1.15 to about 1.8 [our own arithmetic].
		const splits = runOf(9, 1.15, LAYOUTS[3], { addedS: 0.25 })
		const blind = fitSprintProfile({ splits, correction: 'none' })
		expect(blind.tauS).toBeGreaterThan(1.7)
		expect(blind.warnings.join(' ')).toContain('try the time correction')
		expect(fitSprintProfile({ splits, correction: 'time' }).tauS).toBeCloseTo(1.15, 6)
		expect(
			fitSprintProfile({ splits: runOf(9, 1.15, LAYOUTS[3], { aheadM: 0.5 }), correction: 'none' }).warnings.join(' '),
		).toContain('flying start')
	})
	it('says what few splits cannot tell', () => {
		const warningsOf = (input: SprintProfileInput) => fitSprintProfile(input).warnings.join(' ')
		const two = fitSprintProfile({ splits: runOf(8, 1.2, [10, 40]), correction: 'none' })
		expect(two.residualSdS).toBeNull()
		expect(two.se.mssMps).toBeNull()
		expect(two.warnings.join(' ')).toContain('without an error')
		expect(warningsOf({ splits: runOf(8, 1.2, [5, 20, 40]), correction: 'none' })).toContain('weak error')
		expect(warningsOf({ splits: runOf(9, 1.5, [5, 10, 15, 20]), correction: 'none' })).toContain('extrapolation')
		expect(warningsOf({ splits: runOf(8, 1.2, [10, 20, 30, 40]), correction: 'time' })).toContain('six or more splits')
		expect(warningsOf({ splits: runOf(8, 1.2, [5, 10, 20, 30, 40, 50]), correction: 'time' })).not.toContain(
			'six or more splits',
		)
		expect(
			warningsOf({
				splits: [...runOf(9, 1.1, [10, 20, 30, 40]), { distanceM: 50, timeS: timeAtDistance(9, 1.1, 40) + 1.3 }],
				correction: 'none',
			}),
		).toContain('Slower again after')
	})
	it.each<[string, Partial<SprintProfileInput>, string]>([
		['one split', { splits: [{ distanceM: 10, timeS: 2 }] }, 'splits: 1 given'],
		['too few for a correction', { splits: runOf(8, 1.2, [10, 20, 30]), correction: 'time' }, 'at least 4 splits'],
		[
			'a time that falls',
			{
				splits: [
					{ distanceM: 10, timeS: 2 },
					{ distanceM: 20, timeS: 1.9 },
				],
			},
			'splits[1].timeS: 1.9 given, expected more than 2 s',
		],
		[
			'a distance twice',
			{
				splits: [
					{ distanceM: 10, timeS: 2 },
					{ distanceM: 10, timeS: 2.1 },
				],
			},
			'splits[1].distanceM: 10',
		],
		[
			'a negative time',
			{
				splits: [
					{ distanceM: 10, timeS: -2 },
					{ distanceM: 20, timeS: 3 },
				],
			},
			'splits[0].timeS: -2',
		],
		[
			'not a number',
			{
				splits: [
					{ distanceM: 10, timeS: Number.NaN },
					{ distanceM: 20, timeS: 3 },
				],
			},
			'splits[0].timeS: NaN',
		],
		[
			'text',
			{
				splits: [
					{ distanceM: 10, timeS: '2' as unknown as number },
					{ distanceM: 20, timeS: 3 },
				],
			},
			'splits[0].timeS: "2"',
		],
		[
			'a thousand million',
			{
				splits: [
					{ distanceM: 10, timeS: 2 },
					{ distanceM: 1e9, timeS: 3 },
				],
			},
			'splits[1].distanceM: 1000000000',
		],
		[
			'nobody that fast',
			{
				splits: [
					{ distanceM: 10, timeS: 2 },
					{ distanceM: 30, timeS: 2.8 },
				],
			},
			'a time a person can run',
		],
		[
			'a sprint broken off',
			{
				splits: [
					{ distanceM: 10, timeS: 2 },
					{ distanceM: 20, timeS: 3.2 },
					{ distanceM: 30, timeS: 6 },
				],
			},
			'splits[2].timeS: 6',
		],
		[
			'even speed from the beam',
			{
				splits: [
					{ distanceM: 10, timeS: 1.25 },
					{ distanceM: 20, timeS: 2.5 },
					{ distanceM: 30, timeS: 3.75 },
				],
			},
			'speed up from a standstill',
		],
		[
			'no bend',
			{ splits: [10, 20, 30].map((distanceM) => ({ distanceM, timeS: Math.sqrt(distanceM / 2.5) })) },
			'no top speed',
		],
		['an unknown correction', { correction: 'guess' as 'none' }, 'correction: "guess"'],
		['a start too far off', { correction: 'start-distance', startDistanceM: 11 }, 'startDistanceM: 11'],
	])('refuses %s, naming it', (_, change, message) => {
		expect(() => fitSprintProfile({ splits: runOf(9, 1.2, LAYOUTS[3]), correction: 'none', ...change })).toThrow(
			message,
		)
	})
})

describe('where the time goes', () => {
	const clean = runOf(9, 1.2, [5, 10, 20, 30, 40])
	it('names the weak part when it is beyond timing error', () => {
		const slow = clean.map((split, index) => (index >= 3 ? { ...split, timeS: split.timeS + 0.06 } : split))
		const readings = whereTimeGoes(slow, { fittedS: clean.map((split) => split.timeS) }, 0.01, { '20-30': 1.2 })
		expect(readings.map((reading) => reading.weak)).toEqual([false, false, false, true, false])
		expect(weakPartInWords(readings)).toBe('20–30 m is 0.06 s slower than your own curve.')
		expect(ladderOfWeakPart(readings)).toBe('top-speed')
		expect(readings[3]!.offBestS).toBeCloseTo(readings[3]!.timeS - 1.2, 12)
		expect(readings[0]!.offBestS).toBeNull()
	})
	it('names none within it', () => {
		expect(
			weakPartInWords(whereTimeGoes(clean, fitSprintProfile({ splits: clean, correction: 'none' }), 0.01)),
		).toContain('No segment stands out')
	})
})

describe('the ladder a weak part asks for', () => {
	const part = (fromM: number, offCurveS: number, weak: boolean) => ({ fromM, offCurveS, weak }) as SegmentReading
	it.each([
		['the start, up to 20 m', [part(10, 0.05, true)], 'acceleration'],
		['top speed, from 20 m on', [part(20, 0.05, true)], 'top-speed'],
		['the weakest of two', [part(10, 0.08, true), part(20, 0.05, true)], 'acceleration'],
		['none, where nothing stands out beyond timing', [part(10, 0.02, false), part(20, 0.01, false)], null],
	])('%s', (_, parts, ladder) => expect(ladderOfWeakPart(parts)).toBe(ladder))
})
