import type { SprintProfile } from './fit-profile'
import { type SprintSplit, segmentsOf } from './splits'

/** Below this share of top speed at the last split, MSS is an extrapolation [our setting]. */
const NEAR_TOP_SPEED = 0.95
/** A residual SD above this is more than timing: a typing slip, or a rep the model does not fit [our setting]. */
const SCATTER_S = 0.06

/** What a set of splits cannot tell about the curve fitted to it, most important first. */
export function profileWarnings(
	splits: readonly SprintSplit[],
	profile: SprintProfile,
	estimated: 'time' | 'distance' | null,
): string[] {
	const warnings: string[] = []
	const n = splits.length
	if (n === 2) warnings.push('Two splits give numbers without an error: nothing shows how far off they are.')
	else if (n === 3) warnings.push('Three splits give a weak error; four or more are better.')
	if (estimated && (n < 6 || splits[0]!.distanceM > 5 || splits.at(-1)!.distanceM < 30)) {
		warnings.push(
			'A start correction is only to be trusted with six or more splits, one at 5 m or less and one at 30 m or more: here it can be mistaken for acceleration.',
		)
	}
	if (estimated === 'distance' && profile.startDistanceM! < 1e-6)
		warnings.push('The best start distance is 0: these splits show no flying start.')
	if (profile.topSpeedShare < NEAR_TOP_SPEED) {
		warnings.push(
			`The last split was run at ${Math.round(profile.topSpeedShare * 100)} % of the top speed: MSS is an extrapolation. A longer run would settle it.`,
		)
	}
	if (profile.residualSdS !== null && profile.residualSdS > SCATTER_S) {
		warnings.push(
			`The splits lie ${profile.residualSdS.toFixed(2)} s off the curve: more than timing explains. Check the times.`,
		)
	}
	const segments = segmentsOf(splits)
	const fastest = segments.reduce((best, segment) => (segment.speedMps > best.speedMps ? segment : best))
	const last = segments.at(-1)!
	if (last !== fastest && last.speedMps < 0.97 * fastest.speedMps) {
		warnings.push(
			`Slower again after ${fastest.toM} m: the curve knows no fading. Leave out the splits after top speed.`,
		)
	}
	if (estimated !== 'time' && profile.startDistanceM === null) {
		const hint = hiddenStart(splits, profile)
		if (hint !== null) warnings.push(hint)
	}
	return warnings
}

/**
 * An uncorrected hand start or reaction time leaves a pattern in the residuals that one more parameter,
 * a time added to every split, would take away. Found by one linear step from the fitted curve.
 */
function hiddenStart(splits: readonly SprintSplit[], profile: SprintProfile): string | null {
	const n = splits.length
	if (n < 4 || profile.residualSdS === null || profile.residualSdS < 0.002) return null
	const { mssMps, tauS, residualsS, fittedS } = profile
	// The part of a constant that log MSS and log TAU (columns −w and t − w) cannot imitate.
	let [aa, ab, bb, a1, b1] = [0, 0, 0, 0, 0]
	const columns = splits.map(({ distanceM }, index) => {
		const t = fittedS[index]!
		const w = distanceM / (-mssMps * Math.expm1(-t / tauS))
		aa += w * w
		ab += -w * (t - w)
		bb += (t - w) ** 2
		a1 += -w
		b1 += t - w
		return { w, t }
	})
	const determinant = aa * bb - ab * ab
	if (!(determinant > 0)) return null
	const alpha = (a1 * bb - b1 * ab) / determinant
	const beta = (b1 * aa - a1 * ab) / determinant
	let [left, along] = [0, 0]
	for (const [index, { w, t }] of columns.entries()) {
		const rest = 1 - alpha * -w - beta * (t - w)
		left += rest * rest
		along += rest * residualsS[index]!
	}
	if (!(left > 1e-12)) return null
	const added = along / left
	const before = residualsS.reduce((sum, r) => sum + r * r, 0)
	const after = Math.max(before - (along * along) / left, 0)
	// F of one parameter; 10 is beyond chance for the few splits there are.
	const gained = (before - after) / Math.max(after / (n - 3), 1e-8)
	if (gained < 10 || Math.abs(added) < 0.03) return null
	return added > 0
		? 'The first splits are late in the way a reaction or a hand start makes them: try the time correction.'
		: 'The first splits are early in the way a flying start makes them: measure the distance from the start to the first beam.'
}
