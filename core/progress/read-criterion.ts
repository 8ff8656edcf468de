import type { Level, Rung, School } from '../library/types'
import { probabilityOfPass } from '../noise/probability-of-pass'
import { type Method, METHOD_NAMES, typicalErrorOf } from '../noise/typical-error'
import type { Exposure, MarkEvidence } from './types'
import { writeMark } from './write-numbers'

/** Share of planned reps, and chance, that a pass asks for [our setting]. */
export const PASS_SHARE = 0.8
export const MISS_CHANCE = 0.2
export const MISS_POOR_SHARE = 1 / 3
/** By-eye rungs need this many judged reps, or one tap for a set. */
export const MIN_JUDGED_REPS = 3

/** Reasons that end a set in good order: the reps not done are not held against the athlete. */
const GOOD_ENDS = ['drop-off', 'good-day', 'weather', 'coach']

/** Marks of the method most reps were taken with; mixed methods are never averaged. */
export function majorityMarks(marks: readonly MarkEvidence[], kind: MarkEvidence['kind']): { marks: MarkEvidence[]; method: Method | null; leftOut: number } {
	const ofKind = marks.filter((mark) => mark.kind === kind)
	const counts = new Map<Method, number>()
	for (const mark of ofKind) counts.set(mark.method, (counts.get(mark.method) ?? 0) + 1)
	const [method] = [...counts.entries()].sort((a, b) => b[1] - a[1])[0] ?? [null]
	const kept = ofKind.filter((mark) => mark.method === method)
	return { marks: kept, method, leftOut: ofKind.length - kept.length }
}

export interface CriterionReading {
	/** "Chance of 3.15 s or better" */
	question: string
	/** Null when the evidence does not say. */
	probability: number | null
	found: string
	/** What would settle it, when it does not say. */
	missing: string | null
}

/** The rung's criterion read off one exposure; null for a rung judged by eye alone. */
export function readCriterion(exposure: Exposure, rung: Rung, level: Level, school: School): CriterionReading | null {
	if (rung.pass.kind === 'quality') return null
	const kind = rung.pass.kind === 'contact-ceiling' ? 'contact' : 'sprint'
	const { marks, method, leftOut } = majorityMarks(exposure.marks, kind)
	const mixed = leftOut > 0 && method ? `, ${METHOD_NAMES[method]} only, ${leftOut} left out` : ''
	const values = marks.map((mark) => mark.value)
	const threshold = rung.pass.kind === 'contact-ceiling' ? contactCeilingS(level, school) : withinBest(exposure, method, rung.pass.percent)
	const noun = kind === 'sprint' ? 'time' : 'contact time'
	if (values.length === 0 || method === null) return { question: `Chance of meeting the ${noun}`, probability: null, found: `no ${noun} taken`, missing: `two ${kind === 'sprint' ? 'gate times' : 'contact times'} would settle it` }
	if (threshold === null) return { question: `Chance of meeting the ${noun}`, probability: null, found: `no earlier ${METHOD_NAMES[method]} time to compare with`, missing: 'one more session timed the same way would settle it' }
	const probability = probabilityOfPass(values, threshold, 'lower', typicalErrorOf(kind, method))
	const mean = values.reduce((a, b) => a + b, 0) / values.length
	return {
		question: `Chance of ${writeMark({ kind, value: threshold })} or better`,
		probability,
		found: `${probability === null ? 'not enough to say' : probability.toFixed(2)} (mean ${writeMark({ kind, value: mean })} of ${values.length}${mixed})`,
		missing: probability !== null && probability > MISS_CHANCE && probability < PASS_SHARE ? `${Math.max(2, 4 - values.length)} more ${kind === 'sprint' ? 'times' : 'contacts'} by ${METHOD_NAMES[method]} would settle it` : null,
	}
}

export const contactCeilingS = (level: Level, school: School): number => (level >= 3 ? school.passCeilingMs.level3 : school.passCeilingMs.level2) / 1000

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
export function readExposure(exposure: Exposure, rung: Rung, level: Level, school: School): ExposureReading {
	const planned = exposure.planned.sets * exposure.planned.reps
	const endedWell = exposure.endReason !== null && GOOD_ENDS.includes(exposure.endReason)
	const doneShare = endedWell && exposure.repsDone > 0 ? 1 : exposure.repsDone / planned
	const { good, notYet, poor, setTaps } = exposure.quality
	const judged = good + notYet + poor
	const enoughJudged = judged >= MIN_JUDGED_REPS || setTaps > 0
	const criterion = readCriterion(exposure, rung, level, school)
	const goodShare = judged === 0 ? null : good / judged
	const reading = { doneShare, goodShare, judged, criterion }

	if (exposure.repsDone === 0) return { ...reading, outcome: 'unclear', missing: 'nothing was logged' }
	if (enoughJudged && poor / judged > MISS_POOR_SHARE) return { ...reading, outcome: 'miss', missing: null }
	if (criterion && criterion.probability !== null && criterion.probability <= MISS_CHANCE) return { ...reading, outcome: 'miss', missing: null }
	if (!criterion && !enoughJudged) return { ...reading, outcome: 'unclear', missing: `${MIN_JUDGED_REPS - judged} more judged reps, or one tap for a set, would settle it` }
	if (criterion && (criterion.probability === null || criterion.probability < PASS_SHARE)) return { ...reading, outcome: 'unclear', missing: criterion.missing }
	if (goodShare !== null && goodShare < PASS_SHARE) return { ...reading, outcome: 'unclear', missing: `${good} of ${judged} judged reps were good; four in five are asked` }
	if (doneShare < PASS_SHARE) return { ...reading, outcome: 'unclear', missing: `${exposure.repsDone} of ${planned} reps were done` }
	return { ...reading, outcome: 'pass', missing: null }
}
