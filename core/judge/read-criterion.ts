import { mean } from 'simple-statistics'
import { STANDARD_GRAVITY } from '../measure/standard-gravity'
import { type Level, type Method, METHOD_NAMES } from '../vocabulary/words'
import type { Rung } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import { probabilityOfPass } from '../noise/probability-of-pass'
import { typicalErrorOf } from '../noise/typical-error'
import type { Exposure, MarkEvidence } from './types'
import { majorityMarks } from './majority-marks'
import { writeMark } from '../words/write-numbers'

/** Share of planned reps, and chance, that a pass asks for [our setting]. */
export const PASS_SHARE = 0.8
export const MISS_CHANCE = 0.2
export const MISS_POOR_SHARE = 1 / 3
/** By-eye rungs need this many judged reps, or one tap for a set. */
export const MIN_JUDGED_REPS = 3

/** Reasons that end a set in good order: the reps not done are not held against the athlete. */
const GOOD_ENDS = ['drop-off', 'good-day', 'weather', 'coach']

/** Comfort of a pulled run, 0 easy to 5 bad: up to this it may go on [our setting]. */
export const COMFORT_AT_WORST = 2

export interface CriterionReading {
	/** "Chance of 3.15 s or better" */
	question: string
	/** Null when the evidence does not say. */
	probability: number | null
	found: string
	/** What would settle it, when it does not say. */
	missing: string | null
}

/** Change of an index or a length that is within noise, share [our setting]: about the scatter of one session's mean. */
const KEPT_WITHIN = 0.05

/** The rung's criterion read off one exposure; null for a rung judged by eye alone. `before` are earlier exposures of the ladder. */
export function readCriterion(
	exposure: Exposure,
	before: readonly Exposure[],
	rung: Rung,
	level: Level,
	school: School,
): CriterionReading | null {
	const { pass } = rung
	if (pass.kind === 'quality') return null
	if (pass.kind === 'comfort') return readComfort(exposure)
	if (pass.kind === 'not-below') return readNotBelow(exposure, before, pass.of)
	const kind = pass.kind === 'contact-ceiling' ? 'contact' : 'sprint'
	const { marks, method, leftOut } = majorityMarks(exposure.marks, kind)
	const mixed = leftOut > 0 && method ? `, ${METHOD_NAMES[method]} only, ${leftOut} left out` : ''
	const values = marks.map((mark) => mark.value)
	const threshold =
		pass.kind === 'contact-ceiling' ? contactCeilingS(level, school) : withinBest(exposure, method, pass.percent)
	const noun = kind === 'sprint' ? 'time' : 'contact time'
	if (values.length === 0 || method === null)
		return {
			question: `Chance of meeting the ${noun}`,
			probability: null,
			found: `no ${noun} taken`,
			missing: `two ${kind === 'sprint' ? 'gate times' : 'contact times'} would settle it`,
		}
	if (threshold === null)
		return {
			question: `Chance of meeting the ${noun}`,
			probability: null,
			found: `no earlier ${METHOD_NAMES[method]} time to compare with`,
			missing: 'one more session timed the same way would settle it',
		}
	const probability = probabilityOfPass(values, threshold, 'lower', typicalErrorOf(kind, method))
	const reading: CriterionReading = {
		question: `Chance of ${writeMark({ kind, value: threshold })} or better`,
		probability,
		found: `${probability === null ? 'not enough to say' : probability.toFixed(2)} (mean ${writeMark({ kind, value: mean(values) })} of ${values.length}${mixed})`,
		missing:
			probability !== null && probability > MISS_CHANCE && probability < PASS_SHARE
				? `${Math.max(2, 4 - values.length)} more ${kind === 'sprint' ? 'times' : 'contacts'} by ${METHOD_NAMES[method]} would settle it`
				: null,
	}
	return kind === 'contact' && school.choices.boxJudgement === 'rebound-under-ceiling'
		? withReboundKept(reading, marks, before)
		: reading
}

const indexOf = (mark: MarkEvidence): number | null =>
	mark.kind === 'contact' && mark.flightS !== undefined ? (STANDARD_GRAVITY * mark.flightS ** 2) / 8 / mark.value : null
const meanIndex = (marks: readonly MarkEvidence[]): number | null => {
	const values = marks.map(indexOf).filter((value) => value !== null)
	return values.length === 0 ? null : mean(values)
}

/** A short contact that has lost its rebound is a tap: the index must be that of the time before, within noise. */
function withReboundKept(
	reading: CriterionReading,
	marks: readonly MarkEvidence[],
	before: readonly Exposure[],
): CriterionReading {
	const now = meanIndex(marks)
	const earlier = before
		.map((one) => meanIndex(one.marks))
		.filter((value) => value !== null)
		.at(-1)
	if (
		now === null ||
		earlier === undefined ||
		now >= earlier * (1 - KEPT_WITHIN) ||
		reading.probability === null ||
		reading.probability < PASS_SHARE
	)
		return reading
	return {
		...reading,
		probability: null,
		found: `${reading.found}, index ${now.toFixed(2)} after ${earlier.toFixed(2)} m/s`,
		missing: `the rebound has fallen: index ${now.toFixed(2)} after ${earlier.toFixed(2)} m/s`,
	}
}

function readComfort({ comfort }: Exposure): CriterionReading {
	if (!comfort)
		return {
			question: 'Comfortable, no braking',
			probability: null,
			found: 'no report',
			missing: 'a comfort report would settle it',
		}
	const fine = comfort.worst <= COMFORT_AT_WORST && !comfort.braking
	const found = `${comfort.worst} of 5 at worst${comfort.braking ? ', braking seen' : ''}`
	// Discomfort is no miss to be held once: another rule steps back at once.
	return {
		question: 'Comfortable, no braking',
		probability: fine ? 1 : null,
		found,
		missing: fine ? null : `${found}; ${COMFORT_AT_WORST} of 5 and no braking are asked`,
	}
}

/** Mean not below the one of the last time, within noise; a first time is its own measure. */
function readNotBelow(exposure: Exposure, before: readonly Exposure[], of: 'height' | 'distance'): CriterionReading {
	const { marks, method, leftOut } = majorityMarks(exposure.marks, of)
	const noun = of === 'height' ? 'heights' : 'distances'
	if (marks.length === 0 || method === null)
		return {
			question: `${of === 'height' ? 'Height' : 'Distance'} kept`,
			probability: null,
			found: `no ${of} taken`,
			missing: `two ${noun} would settle it`,
		}
	const values = marks.map((mark) => mark.value)
	const earlier = before
		.map((one) => majorityMarks(one.marks, of))
		.filter((one) => one.method === method && one.marks.length > 0)
		.at(-1)
	const threshold = earlier ? mean(earlier.marks.map((mark) => mark.value)) * (1 - KEPT_WITHIN) : null
	const found = `mean ${writeMark({ kind: of, value: mean(values) })} of ${values.length}${leftOut > 0 ? `, ${METHOD_NAMES[method]} only, ${leftOut} left out` : ''}`
	if (threshold === null)
		return {
			question: `${of === 'height' ? 'Height' : 'Distance'} kept`,
			probability: null,
			found: `${found}, the first time`,
			missing: 'one more session measured the same way would settle it',
		}
	const probability = probabilityOfPass(values, threshold, 'higher', typicalErrorOf(of, method))
	return {
		question: `Chance of ${writeMark({ kind: of, value: threshold })} or more`,
		probability,
		found: `${probability === null ? 'not enough to say' : probability.toFixed(2)} (${found})`,
		missing:
			probability !== null && probability > MISS_CHANCE && probability < PASS_SHARE
				? `${Math.max(2, 4 - values.length)} more ${noun} would settle it`
				: null,
	}
}

export const contactCeilingS = (level: Level, { numbers }: School): number =>
	(level >= 3 ? numbers.passCeilingLevel3Ms : numbers.passCeilingLevel2Ms) / 1000

function withinBest(exposure: Exposure, method: Method | null, percent: number): number | null {
	const best = method === null ? undefined : exposure.bestBefore[method]
	return best === undefined ? null : best * (1 + percent / 100)
}

export interface ExposureReading {
	outcome: 'pass' | 'miss' | 'unclear'
	doneShare: number
	goodShare: number | null
	judged: number
	criterion: CriterionReading | null
	/** What is missing when the outcome is unclear. */
	missing: string | null
}

/** Whether one exposure passes its rung on its own. */
export function readExposure(
	exposure: Exposure,
	before: readonly Exposure[],
	rung: Rung,
	level: Level,
	school: School,
): ExposureReading {
	const planned = exposure.planned.sets * exposure.planned.reps
	const leftEarly = exposure.endReason === 'good-day' && school.choices.goodDay === 'finish'
	const endedWell = exposure.endReason !== null && GOOD_ENDS.includes(exposure.endReason) && !leftEarly
	const doneShare = endedWell && exposure.repsDone > 0 ? 1 : exposure.repsDone / planned
	const { good, notYet, poor, setTaps } = exposure.quality
	const judged = good + notYet + poor
	const enoughJudged = judged >= MIN_JUDGED_REPS || setTaps > 0
	const criterion = readCriterion(exposure, before, rung, level, school)
	const goodShare = judged === 0 ? null : good / judged
	const reading = { doneShare, goodShare, judged, criterion }

	if (exposure.repsDone === 0) return { ...reading, outcome: 'unclear', missing: 'nothing was logged' }
	if (enoughJudged && poor / judged > MISS_POOR_SHARE) return { ...reading, outcome: 'miss', missing: null }
	if (criterion && criterion.probability !== null && criterion.probability <= MISS_CHANCE)
		return { ...reading, outcome: 'miss', missing: null }
	if (!criterion && !enoughJudged)
		return {
			...reading,
			outcome: 'unclear',
			missing:
				planned < MIN_JUDGED_REPS
					? 'one tap for a set would settle it'
					: `${MIN_JUDGED_REPS - judged} more judged ${MIN_JUDGED_REPS - judged === 1 ? 'rep' : 'reps'}, or one tap for a set, would settle it`,
		}
	if (criterion && (criterion.probability === null || criterion.probability < PASS_SHARE))
		return { ...reading, outcome: 'unclear', missing: criterion.missing }
	if (goodShare !== null && goodShare < PASS_SHARE)
		return {
			...reading,
			outcome: 'unclear',
			missing: `${good} of ${judged} judged reps were good; four in five are asked`,
		}
	if (doneShare < PASS_SHARE)
		return { ...reading, outcome: 'unclear', missing: `${exposure.repsDone} of ${planned} reps were done` }
	return { ...reading, outcome: 'pass', missing: null }
}
