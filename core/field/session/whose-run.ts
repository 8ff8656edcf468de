import { timeAtDistance } from '../../measure/sprint/sprint-curve'
import { expectationOf } from '../expectation'
import type { LineProgress } from '../line-progress'
import type { FieldAthlete } from '../pack'

/** Whose a run may be: how likely by the order they stand in, and by the time. */
export interface Chance {
	progress: LineProgress
	/** 0–1; of all who come into question and of nobody they are 1 together. */
	chance: number
}

/** How often the one whose turn it is runs, then the one after, the next, and the one after that [our setting]. */
const BY_ORDER = [0.96, 0.025, 0.01, 0.005] as const
/** How often somebody runs who was passed over before [our setting]. */
const PASSED_OVER = 0.02
/** So many who were passed over are thought of. */
const PASSED_MOST = 2
/** How often it was nobody of them: a passer-by, a trial run [our setting]. */
const NOBODY = 0.005
/**
 * How far a rep lies from what is expected beside the gate's own error, share of the time: by reps of today; by the
 * usual, from which a day moves it by 1 % and which is not known better than half of that; by the own curve
 * [our setting].
 */
const SCATTER = { today: 0.008, usual: 0.012, curve: 0.05 } as const
/** A gate's own error, s. */
const GATE_S = 0.02
/** A tired or held-back rep is not as far off as a bell says. */
const WIDE = { share: 0.08, times: 3 } as const

/** What an athlete's time at a distance will probably be, with its spread, s. */
export function expectRun(
	progress: LineProgress,
	athlete: Pick<FieldAthlete, 'curve'>,
	distanceM: number,
): { timeS: number; sdS: number } {
	const own = progress.line.parameters.distanceM === distanceM
	const today = progress.marks.flatMap((mark) =>
		mark.kind === 'sprint' && mark.value.method === 'gate'
			? mark.value.splits.filter((split) => split.distanceM === distanceM).map((split) => split.timeS)
			: [],
	)
	const spread = (timeS: number, share: number) => ({ timeS, sdS: Math.hypot(GATE_S, share * timeS) })
	if (today.length > 0) return spread(today.reduce((sum, timeS) => sum + timeS, 0) / today.length, SCATTER.today)
	const usual = own ? progress.line.usuals?.gate : undefined
	if (usual !== undefined) return spread(usual, SCATTER.usual)
	if (athlete.curve) return spread(timeAtDistance(athlete.curve.mssMps, athlete.curve.tauS, distanceM), SCATTER.curve)
	const { low, high } = expectationOf('sprint', distanceM, undefined)
	return { timeS: (low + high) / 2, sdS: (high - low) / 4 }
}

/**
 * Chances that a run was each athlete's, from their place in the order and the time at the distance each of them runs.
 *
 * @param runners whoever may have run, the one whose turn it is first
 * @param passed whoever was passed over before
 * @param timeAt time of the run at a distance, s; null where no beam saw it
 */
export function whoseRun(
	runners: readonly { progress: LineProgress; athlete: Pick<FieldAthlete, 'curve'> }[],
	timeAt: (distanceM: number) => number | null,
	passed: typeof runners = [],
): Chance[] {
	const all = [
		...runners.slice(0, BY_ORDER.length).map((runner, index) => ({ ...runner, often: BY_ORDER[index]! })),
		...passed.slice(0, PASSED_MOST).map((runner) => ({ ...runner, often: PASSED_OVER })),
	]
	const weighed = all.map(({ progress, athlete, often }) => {
		const distanceM = progress.line.parameters.distanceM
		const timeS = distanceM === undefined ? null : timeAt(distanceM)
		if (distanceM === undefined || timeS === null) return { progress, weight: 0 }
		const expected = expectRun(progress, athlete, distanceM)
		return { progress, weight: often * density(timeS, expected.timeS, expected.sdS) }
	})
	const [first] = runners
	const distanceM = first?.progress.line.parameters.distanceM
	// Anybody may run anything between a sprint and a walk.
	const nobody = NOBODY / (distanceM === undefined ? 10 : expectationOf('sprint', distanceM, undefined).high)
	const whole = weighed.reduce((sum, { weight }) => sum + weight, nobody)
	return weighed
		.map(({ progress, weight }) => ({ progress, chance: weight / whole }))
		.sort((a, b) => b.chance - a.chance)
}

function density(x: number, mean: number, sd: number): number {
	const bell = (spread: number) => Math.exp(-((x - mean) ** 2) / (2 * spread ** 2)) / (spread * Math.sqrt(2 * Math.PI))
	return (1 - WIDE.share) * bell(sd) + WIDE.share * bell(sd * WIDE.times)
}
