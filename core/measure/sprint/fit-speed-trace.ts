import { MeasureError, inBounds } from '../measure-error'
import { fitLeastSquares } from '../least-squares'

/** Speed of an athlete at a time after the start, as a radar or a position sensor gives it. */
export interface SpeedSample {
	timeS: number
	speedMps: number
}

export interface SpeedTraceFit {
	mssMps: number
	tauS: number
	macMps2: number
	sumOfSquares: number
	/** n − 2 degrees of freedom; null with two samples. */
	residualSdMps: number | null
	se: { mssMps: number | null; tauS: number | null }
}

/**
 * Fits v(t) = MSS (1 − e^(−t/TAU)) to speeds over time by least squares on the speeds.
 * Source of the model: Furusawa, Hill & Parkinson 1927.
 *
 * @param samples at least 2, times above 0 s, speeds from 0, any order
 * @throws MeasureError when a sample is out of range or no such curve fits best
 */
export function fitSpeedTrace(samples: readonly SpeedSample[]): SpeedTraceFit {
	if (samples.length < 2) throw new MeasureError('samples', samples.length, 'at least 2 samples')
	for (const [index, { timeS, speedMps }] of samples.entries()) {
		inBounds(`samples[${index}].timeS`, timeS, { above: 0, unit: 's' })
		inBounds(`samples[${index}].speedMps`, speedMps, { from: 0, unit: 'm/s' })
	}
	const fastest = Math.max(...samples.map((sample) => sample.speedMps))
	const longest = Math.max(...samples.map((sample) => sample.timeS))
	if (!(fastest > 0)) throw new MeasureError('samples', fastest, 'a speed above 0 m/s')
	const fit = fitLeastSquares(
		[Math.log(1.05 * fastest), Math.log(longest / 3)],
		samples.length,
		(p, index, gradient) => {
			const mss = Math.exp(p[0]!)
			const x = samples[index]!.timeS / Math.exp(p[1]!)
			const model = -mss * Math.expm1(-x)
			gradient[0] = model
			gradient[1] = -mss * x * Math.exp(-x)
			return samples[index]!.speedMps - model
		},
		(p) => {
			p[0] = Math.min(p[0]!, Math.log(1e4 * fastest))
			p[1] = Math.min(Math.max(p[1]!, Math.log(longest * 1e-6)), Math.log(longest * 1e4))
		},
	)
	const mssMps = Math.exp(fit.parameters[0]!)
	const tauS = Math.exp(fit.parameters[1]!)
	if (!fit.converged || tauS > 1e3 * longest)
		throw new MeasureError('samples', samples.length, 'speeds that bend towards a top speed')
	const freedom = samples.length - 2
	const variance = freedom > 0 && fit.inverse ? fit.sumOfSquares / freedom : null
	return {
		mssMps,
		tauS,
		macMps2: mssMps / tauS,
		sumOfSquares: fit.sumOfSquares,
		residualSdMps: freedom > 0 ? Math.sqrt(fit.sumOfSquares / freedom) : null,
		se: {
			mssMps: variance === null ? null : mssMps * Math.sqrt(variance * fit.inverse![0]!),
			tauS: variance === null ? null : tauS * Math.sqrt(variance * fit.inverse![3]!),
		},
	}
}
