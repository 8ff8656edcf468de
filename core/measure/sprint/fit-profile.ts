import { MeasureError, inBounds } from '../measure-error'
import { type LeastSquaresFit, fitLeastSquares } from '../least-squares'
import { profileWarnings } from './profile-warnings'
import { solveSprintTime } from './sprint-curve'
import { type SprintSplit, checkSplits } from './splits'

export const START_CORRECTIONS = ['none', 'time', 'start-distance'] as const
/**
 * What lies between the start and the first beam: nothing; a time added to every split (reaction, hand
 * start); or a distance already run when the first beam was cut.
 */
export type StartCorrection = (typeof START_CORRECTIONS)[number]

export interface SprintProfileInput {
	/** Distances from the first beam, rising; 2 to 100. */
	splits: readonly SprintSplit[]
	correction: StartCorrection
	/** Measured distance from the start to the first beam, 0–10 m: used as it is with any correction, never estimated. */
	startDistanceM?: number
}

export interface SprintProfile {
	/** Maximal sprinting speed. */
	mssMps: number
	/** Time constant: after it 63 % of top speed is reached. */
	tauS: number
	/** Maximal acceleration, MSS / TAU. */
	macMps2: number
	/** Peak power relative to body mass, MSS · MAC / 4, without air resistance. */
	pmaxWkg: number
	/** Estimated time added to every split; null when none was estimated. */
	correctionS: number | null
	/** Distance run before the first beam, estimated or as measured; null when neither. */
	startDistanceM: number | null
	/** Residual SD with n − p degrees of freedom; null when there are none. */
	residualSdS: number | null
	/** Standard errors; null without degrees of freedom. MSS and TAU go together, so MAC's is less than the two suggest. */
	se: {
		mssMps: number | null
		tauS: number | null
		macMps2: number | null
		correctionS: number | null
		startDistanceM: number | null
	}
	/** Correlation of the errors of MSS and TAU; null when it cannot be told. */
	correlation: number | null
	/** Model's time at each split, and observed − model. */
	fittedS: number[]
	residualsS: number[]
	/** Speed at the last split as a share of MSS. */
	topSpeedShare: number
	/** What these splits cannot tell, in sentences. */
	warnings: string[]
}

/** Bounds in which the search runs; a solution on or beyond PLAUSIBLE is refused with its reason. */
const SEARCH = { mss: [0.3, 80], tau: [0.01, 60] } as const
const PLAUSIBLE = { mss: 20, tauFrom: 0.1, tauTo: 8 } as const

/**
 * Fits the mono-exponential sprint to split times by least squares on the time residuals.
 * Source of the model: Furusawa, Hill & Parkinson 1927; Samozino et al. 2016. The fit is our own:
 * damped Gauss–Newton on log MSS and log TAU, which stay positive, with the derivatives in closed form
 * (with w = distance / speed: ∂t/∂log MSS = −w, ∂t/∂log TAU = t − w).
 *
 * @throws MeasureError for splits that no sprint from a standstill can produce, or too few for the correction
 * @example fitSprintProfile({ splits: [{ distanceM: 10, timeS: 2.006 }, { distanceM: 30, timeS: 4.283 }], correction: 'none' })
 */
export function fitSprintProfile(input: SprintProfileInput): SprintProfile {
	const { splits, correction } = input
	if (!START_CORRECTIONS.includes(correction))
		throw new MeasureError('correction', correction, START_CORRECTIONS.join(', '))
	const measured =
		input.startDistanceM === undefined
			? null
			: inBounds('startDistanceM', input.startDistanceM, { from: 0, to: 10, unit: 'm' })
	const third =
		correction === 'time' ? 'time' : correction === 'start-distance' && measured === null ? 'distance' : null
	checkSplits(splits, 2)
	// One split more than parameters, or a correction would only take up the noise.
	if (third && splits.length < 4)
		throw new MeasureError('splits', splits.length, 'at least 4 splits to estimate a start correction')

	const fit = search(splits, third, measured ?? 0)
	const mssMps = Math.exp(fit.parameters[0]!)
	const tauS = Math.exp(fit.parameters[1]!)
	refuseImplausible(splits, fit, mssMps, tauS, third)
	const startM = third === 'distance' ? fit.parameters[2]! ** 2 : (measured ?? 0)
	const addedS = third === 'time' ? fit.parameters[2]! : 0

	const beforeBeamS = startM === 0 ? 0 : tauS * solveSprintTime(startM / (mssMps * tauS))
	const fittedS = splits.map(
		({ distanceM }) => tauS * solveSprintTime((distanceM + startM) / (mssMps * tauS)) - beforeBeamS + addedS,
	)
	const residualsS = splits.map(({ timeS }, index) => timeS - fittedS[index]!)
	const freedom = splits.length - (third ? 3 : 2)
	const variance = freedom > 0 ? fit.sumOfSquares / freedom : null
	const sizes = fit.inverse ? Math.sqrt(fit.inverse.length) : 0
	const covariance = (a: number, b: number) =>
		variance === null || !fit.inverse ? null : variance * fit.inverse[a * sizes + b]!
	const relative = (spread: number | null) => (spread === null ? null : Math.sqrt(Math.max(spread, 0)))
	const [varMss, varTau, covMssTau] = [covariance(0, 0), covariance(1, 1), covariance(0, 1)]
	const seMss = relative(varMss)
	const seTau = relative(varTau)
	const seThird = sizes === 3 ? relative(covariance(2, 2)) : null
	const profile: SprintProfile = {
		mssMps,
		tauS,
		macMps2: mssMps / tauS,
		pmaxWkg: (mssMps * mssMps) / tauS / 4,
		correctionS: third === 'time' ? addedS : null,
		startDistanceM: third === 'distance' ? startM : measured,
		residualSdS: variance === null ? null : Math.sqrt(variance),
		se: {
			// Parameters are logarithms: their standard errors are relative ones.
			mssMps: seMss === null ? null : mssMps * seMss,
			tauS: seTau === null ? null : tauS * seTau,
			macMps2:
				varMss === null || varTau === null || covMssTau === null
					? null
					: (mssMps / tauS) * Math.sqrt(Math.max(varMss + varTau - 2 * covMssTau, 0)),
			correctionS: third === 'time' ? seThird : null,
			startDistanceM:
				third === 'distance' && seThird !== null && startM > 1e-6 ? 2 * Math.sqrt(startM) * seThird : null,
		},
		correlation: fit.inverse ? fit.inverse[1]! / Math.sqrt(fit.inverse[0]! * fit.inverse[sizes + 1]!) : null,
		fittedS,
		residualsS,
		topSpeedShare: -Math.expm1(-(fittedS.at(-1)! - addedS + beforeBeamS) / tauS),
		warnings: [],
	}
	profile.warnings = profileWarnings(splits, profile, third)
	return profile
}

/** Least squares over log MSS, log TAU and, when asked, the added time or the root of the start distance. */
function search(splits: readonly SprintSplit[], third: 'time' | 'distance' | null, startM: number): LeastSquaresFit {
	let fastest = 0
	for (let i = 0; i < splits.length; i++) {
		const before = splits[i - 1]
		const { distanceM, timeS } = splits[i]!
		fastest = Math.max(fastest, (distanceM - (before?.distanceM ?? 0)) / (timeS - (before?.timeS ?? 0)))
	}
	const last = splits.at(-1)!
	const mss0 = 1.05 * fastest
	const tau0 = Math.max(last.timeS - last.distanceM / mss0, 0.1)

	let [logMss, logTau, mss, tau] = [Number.NaN, Number.NaN, 0, 0]
	const residual = (p: Float64Array, index: number, gradient: Float64Array): number => {
		if (p[0] !== logMss) mss = Math.exp((logMss = p[0]!))
		if (p[1] !== logTau) tau = Math.exp((logTau = p[1]!))
		const root = third === 'distance' ? p[2]! : 0
		const ahead = third === 'distance' ? root * root : startM
		const { distanceM, timeS } = splits[index]!
		const d = distanceM + ahead
		const c = d / (mss * tau)
		const u = solveSprintTime(c)
		// 1 − e^(−u) = u − c at the solution: the speed costs no exponential.
		const v = mss * (u - c)
		const t = tau * u
		let model = t
		gradient[0] = -d / v
		gradient[1] = t - d / v
		if (ahead > 0) {
			const u0 = solveSprintTime(ahead / (mss * tau))
			const v0 = -mss * Math.expm1(-u0)
			model -= tau * u0
			gradient[0] += ahead / v0
			gradient[1] -= tau * u0 - ahead / v0
			if (third === 'distance') gradient[2] = 2 * root * (1 / v - 1 / v0)
		} else if (third === 'distance') gradient[2] = -Math.sqrt((2 * tau) / mss)
		if (third === 'time') {
			model += p[2]!
			gradient[2] = 1
		}
		return timeS - model
	}
	const [mssLow, mssHigh, tauLow, tauHigh] = [
		Math.log(SEARCH.mss[0]),
		Math.log(SEARCH.mss[1]),
		Math.log(SEARCH.tau[0]),
		Math.log(SEARCH.tau[1]),
	]
	const project = (p: Float64Array): void => {
		p[0] = Math.min(Math.max(p[0]!, mssLow), mssHigh)
		p[1] = Math.min(Math.max(p[1]!, tauLow), tauHigh)
		if (third === 'distance') p[2] = Math.min(Math.max(p[2]!, 0), Math.sqrt(10))
	}
	const from = (...thirdStart: number[]) =>
		fitLeastSquares([Math.log(mss0), Math.log(tau0), ...thirdStart], splits.length, residual, project)
	if (third === null) return from()
	if (third === 'time') return from(0)
	// The start distance bends the curve only near the beam; from far off the search can settle on its bound.
	const best = [0.3, 0.8].map((root) => from(root)).reduce((a, b) => (b.sumOfSquares < a.sumOfSquares ? b : a))
	const standing = search(splits, null, 0)
	// On the bound the curve is the one without a start distance, with one parameter less.
	return best.parameters[2]! > 1e-3 && best.sumOfSquares < standing.sumOfSquares
		? best
		: { ...standing, parameters: [...standing.parameters, 0] }
}

function refuseImplausible(
	splits: readonly SprintSplit[],
	fit: LeastSquaresFit,
	mssMps: number,
	tauS: number,
	third: string | null,
): void {
	const correctionS = third === 'time' ? fit.parameters[2]! : 0
	const refuse = (expected: string) => {
		throw new MeasureError(
			'splits',
			splits.map(({ distanceM, timeS }) => `${distanceM} m ${timeS} s`).join(', '),
			expected,
		)
	}
	if (tauS >= PLAUSIBLE.tauTo || mssMps >= PLAUSIBLE.mss) {
		refuse(
			'splits that bend towards a top speed: these still speed up evenly to the last one, so no top speed can be told from them; add a split further on, or check the times',
		)
	}
	if (tauS <= PLAUSIBLE.tauFrom) {
		refuse(
			`splits that speed up from a standstill: these run at an even ${mssMps.toFixed(1)} m/s from the first beam; check the times, or use a start distance`,
		)
	}
	if (third === 'distance' && fit.parameters[2]! ** 2 > 9.99)
		refuse('splits with a start within 10 m before the first beam; check the times, or measure the distance')
	if (Math.abs(correctionS) > 2)
		refuse(
			`splits with a start correction within 2 s: the best one here is ${correctionS.toFixed(2)} s; check the times`,
		)
	if (!fit.converged)
		refuse('splits from which one best curve can be found; too many corrections for too few splits, or a mistyped time')
}
