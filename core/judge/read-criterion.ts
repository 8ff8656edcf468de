import { addTo } from '../lists/group-by'
import { sayChance } from '../words/say-chance'
import { mean } from 'simple-statistics'
import { STANDARD_GRAVITY } from '../measure/standard-gravity'
import { type Level, type Method, METHOD_NAMES } from '../vocabulary/words'
import type { Rung } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import { betterOf } from '../marks/keep-session'
import { againstUsual, chanceUnderCeiling, settleUnderCeiling } from '../noise/against-usual'
import { NO_USUAL_YET, sayAgainstUsual, saySettle } from '../noise/say-usual'
import { type MarkKind, finerMethod } from '../noise/typical-error'
import { spreadsOf } from '../noise/usual'
import { usualName } from './gather-exposure'
import { isAlike } from './is-alike'
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
	/** The same in a sentence's words: "3.06 s is 1.0 % over the usual 3.03 s, within what a day moves it". */
	words?: string
	/** What would settle it, when it does not say. */
	missing: string | null
}

/** Change of an index or a length that is within noise, share [our setting]: about the scatter of one session's mean. */
const KEPT_WITHIN = 0.05

/** A fall of more than this against the usual is a miss, percent, where the rung says nothing else. */
export const FALL_PERCENT = 5

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
	if (pass.kind === 'not-below') return readAgainstUsual(exposure, pass.of, FALL_PERCENT)
	if (pass.kind === 'time-within') {
		// Shapes before the clock: what nobody timed is judged by eye, as a rung without a time is.
		if (school.choices.shapes === 'eye' && majorityMarks(exposure.marks, 'sprint').method === null) return null
		return readAgainstUsual(exposure, 'sprint', pass.percent)
	}
	const reading = readCeiling(exposure, contactCeilingS(level, school))
	return school.choices.boxJudgement === 'rebound-under-ceiling' ? withReboundKept(reading, exposure, before) : reading
}

const NOUNS: Record<MarkKind, readonly [one: string, more: string]> = {
	sprint: ['time', 'times'],
	contact: ['contact time', 'contact times'],
	height: ['height', 'heights'],
	distance: ['distance', 'distances'],
}

interface Side {
	name: string
	n: number
	mean: number
}
/** The marks of the method most reps were taken with; each side on its own, since a weaker leg is not a tired one. */
function sidesOf(exposure: Exposure, kind: MarkKind): { method: Method; sides: Side[]; leftOut: number } | null {
	const { marks, method, leftOut } = majorityMarks(exposure.marks, kind)
	if (method === null) return null
	const byName = new Map<string, number[]>()
	for (const mark of marks) addTo(byName, usualName(mark), mark.value)
	return {
		method,
		leftOut,
		sides: [...byName].map(([name, values]) => ({ name, n: values.length, mean: mean(values) })),
	}
}
const nothingTaken = (kind: MarkKind): CriterionReading => ({
	question: `Chance of meeting the ${NOUNS[kind][0]}`,
	probability: null,
	found: `no ${NOUNS[kind][0]} taken`,
	missing: `two ${kind === 'sprint' ? 'gate times' : NOUNS[kind][1]} would settle it`,
})
const mixed = (method: Method, leftOut: number): string =>
	leftOut > 0 ? `, ${METHOD_NAMES[method]} only, ${leftOut} left out` : ''

/** P1 and P2: whether the true fall against the usual is over the limit; the side that fell farther speaks. */
function readAgainstUsual(exposure: Exposure, kind: MarkKind, percent: number): CriterionReading {
	const taken = sidesOf(exposure, kind)
	if (!taken) return nothingTaken(kind)
	const { method, sides, leftOut } = taken
	const better = betterOf(kind)
	const [worst] = sides
		.flatMap((side) => {
			const usual = exposure.usual?.[side.name]
			return usual
				? [{ side, usual, reading: againstUsual(usual, side, percent, better, finerMethod(kind, method)) }]
				: []
		})
		.sort((a, b) => b.reading.probabilityFallOver - a.reading.probabilityFallOver)
	if (!worst)
		return {
			question: `Chance of meeting the ${NOUNS[kind][0]}`,
			probability: null,
			found: `mean ${writeMark({ kind, value: mean(sides.map((side) => side.mean)) })}, no usual by ${METHOD_NAMES[method]} yet${mixed(method, leftOut)}`,
			missing: NO_USUAL_YET,
		}
	const { side, usual, reading } = worst
	const threshold = usual.value * (1 + ((better === 'lower' ? 1 : -1) * percent) / 100)
	const words = sayAgainstUsual(reading, usual, side, percent, kind, method)
	return {
		question: `Chance of ${writeMark({ kind, value: threshold })} or ${better === 'lower' ? 'better' : 'more'}`,
		probability: 1 - reading.probabilityFallOver,
		found: `${sayChance(1 - reading.probabilityFallOver)} (mean ${writeMark({ kind, value: side.mean })} of ${side.n}${mixed(method, leftOut)})`,
		words,
		missing: reading.outcome === 'unclear' ? words : null,
	}
}

/**
 * A ceiling stays where it is, whatever is usual; what a day and a rep move is the athlete's own. The longer side speaks.
 *
 * @param ceiling contact in s
 */
export function readCeiling(exposure: Exposure, ceiling: number): CriterionReading & { mean: number } {
	const kind = 'contact'
	const taken = sidesOf(exposure, kind)
	if (!taken) return { ...nothingTaken(kind), mean: 0 }
	const { method, sides, leftOut } = taken
	const [worst] = sides
		.map((side) => {
			const spreads = exposure.usual?.[side.name] ?? spreadsOf([], side.mean, kind, method)
			return { side, spreads, chance: chanceUnderCeiling(spreads, side, ceiling) }
		})
		.sort((a, b) => a.chance - b.chance)
	const { side, spreads, chance } = worst!
	const unclear = chance > MISS_CHANCE && chance < PASS_SHARE
	return {
		question: `Chance of ${writeMark({ kind, value: ceiling })} or better`,
		probability: chance,
		found: `${sayChance(chance)} (mean ${writeMark({ kind, value: side.mean })} of ${side.n}${mixed(method, leftOut)})`,
		missing: unclear ? saySettle(settleUnderCeiling(spreads, side, ceiling), kind, method) : null,
		mean: side.mean,
	}
}

const indexOf = (mark: MarkEvidence): number | null =>
	mark.kind === 'contact' && mark.flightS !== undefined ? (STANDARD_GRAVITY * mark.flightS ** 2) / 8 / mark.value : null
const meanIndex = (marks: readonly MarkEvidence[]): number | null => {
	const values = marks.map(indexOf).filter((value) => value !== null)
	return values.length === 0 ? null : mean(values)
}

/**
 * A short contact that has lost its rebound is a tap: the index must be that of the time before on the same rung, taken
 * likewise, within noise. Each leg on its own; the one that fell farther speaks.
 */
function withReboundKept(reading: CriterionReading, exposure: Exposure, before: readonly Exposure[]): CriterionReading {
	if (reading.probability === null || reading.probability < PASS_SHARE) return reading
	const alike = before.filter((one) => isAlike(one, exposure))
	const { marks } = majorityMarks(exposure.marks, 'contact')
	const [worst] = [...new Set(marks.map(usualName))]
		.flatMap((name) => {
			const index = (some: readonly MarkEvidence[]) => meanIndex(some.filter((mark) => usualName(mark) === name))
			const now = index(marks)
			const earlier = alike
				.map((one) => index(one.marks))
				.filter((value) => value !== null)
				.at(-1)
			return now === null || earlier === undefined ? [] : [{ now, earlier }]
		})
		.sort((a, b) => a.now / a.earlier - b.now / b.earlier)
	if (!worst || worst.now >= worst.earlier * (1 - KEPT_WITHIN)) return reading
	const fell = `index ${worst.now.toFixed(2)} after ${worst.earlier.toFixed(2)} m/s`
	return {
		...reading,
		probability: null,
		found: `${reading.found}, ${fell}`,
		missing: `the rebound has fallen: ${fell}`,
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

export const contactCeilingS = (level: Level, { numbers }: School): number =>
	(level >= 3 ? numbers.passCeilingLevel3Ms : numbers.passCeilingLevel2Ms) / 1000

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
