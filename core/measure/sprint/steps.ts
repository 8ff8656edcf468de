import { linearRegression } from 'simple-statistics'
import { inBounds } from '../measure-error'

export interface StepsInput {
	/** Above 0 to 400 m. */
	distanceM: number
	/** Above 0 to 120 s. */
	timeS: number
	/** Steps counted over the distance, above 0; a part of a step may be given as a decimal. */
	steps: number
	/** 0.3–1.4 m. */
	legLengthM?: number
}

export interface Steps {
	stepLengthM: number
	stepFrequencyHz: number
	speedMps: number
	/** Step length in leg lengths; null without a leg length. */
	stepLengthLegs: number | null
}

/**
 * Step length and frequency from steps counted over a known distance and time: speed = length × frequency.
 *
 * @throws MeasureError outside the ranges of the input, or when a step or its rate is not a person's
 * @example readSteps({ distanceM: 100, timeS: 9.85, steps: 45 }).stepFrequencyHz // 4.568…
 */
export function readSteps({ distanceM, timeS, steps, legLengthM }: StepsInput): Steps {
	inBounds('distanceM', distanceM, { above: 0, to: 400, unit: 'm' })
	inBounds('timeS', timeS, { above: 0, to: 120, unit: 's' })
	inBounds('steps', steps, { above: 0, to: 1000, unit: 'steps' })
	const leg = legLengthM === undefined ? null : inBounds('legLengthM', legLengthM, { from: 0.3, to: 1.4, unit: 'm' })
	// Out of these ranges the count and the distance do not belong together.
	inBounds('steps', steps, {
		from: distanceM / 4,
		to: Math.min(distanceM / 0.15, 8 * timeS),
		unit: 'steps for that distance and time',
	})
	const stepLengthM = distanceM / steps
	return {
		stepLengthM,
		stepFrequencyHz: steps / timeS,
		speedMps: distanceM / timeS,
		stepLengthLegs: leg === null ? null : stepLengthM / leg,
	}
}

export interface StepAdvice {
	/** What this athlete's own faster reps had more of; null when the reps do not tell. */
	push: 'length' | 'frequency' | null
	sentence: string
}

const FEWEST_REPS = 8
const FEWEST_SESSIONS = 3

/**
 * Which of the two to push while the other is kept, from one athlete's own reps: the slopes of relative
 * length and relative frequency on relative speed share 1 between them, and the larger share is what
 * this athlete's speed comes from. Never from one session, and not when speed hardly varied.
 *
 * @param reps speed and step length of each rep with its session; at least 8 reps in 3 sessions to say anything
 */
export function stepAdvice(reps: readonly { sessionId: string; speedMps: number; stepLengthM: number }[]): StepAdvice {
	const sessions = new Set(reps.map((rep) => rep.sessionId)).size
	if (reps.length < FEWEST_REPS || sessions < FEWEST_SESSIONS) {
		return {
			push: null,
			sentence: `Not enough to say: ${reps.length} reps in ${sessions} sessions; ${FEWEST_REPS} reps in ${FEWEST_SESSIONS} sessions would do.`,
		}
	}
	const speeds = reps.map((rep) => Math.log(rep.speedMps))
	if (Math.max(...speeds) - Math.min(...speeds) < 0.03)
		return { push: null, sentence: 'Not enough to say: all reps are within 3 % of one speed.' }
	const share = linearRegression(reps.map((rep, index) => [speeds[index]!, Math.log(rep.stepLengthM)])).m
	if (share > 0.6)
		return {
			push: 'length',
			sentence: `${Math.round(share * 100)} % of the gain in speed came with longer steps: push length, keep the rhythm.`,
		}
	if (share < 0.4)
		return {
			push: 'frequency',
			sentence: `${Math.round((1 - share) * 100)} % of the gain in speed came with quicker steps: push rhythm, keep the length.`,
		}
	return {
		push: null,
		sentence: 'Faster reps had longer and quicker steps alike: push one at a time and keep the other.',
	}
}
