import { rungOf } from '../library/starter-library'
import type { Drill } from '../vocabulary/drill'
import type { Firmness } from '../vocabulary/words'
import type { Ladder, Rung } from '../vocabulary/ladder'
import type { StopReading } from '../noise/one-more'
import type { OwnErrors } from '../noise/typical-error'
import { repsOf, scaleDose } from '../library/scale-dose'
import { phaseShare } from '../rules/p6-phase'
import type { Concluded } from '../permit/known'
import { verdictFacts } from './verdict-facts'
import { type ExposureReading, readExposure } from './read-criterion'
import { dropOffLimit, readFall } from './read-fall'
import { saferSchool } from './stricter'
import type { Documents, Exposure, LadderState, VerdictInput, VerdictWord } from './types'
import type { RuleId } from '../rules/rule'
import type { School } from '../vocabulary/school'
import { WrongValue } from '../vocabulary/wrong-value'

/** What all rules look at, worked out once. */
export interface JudgeContext {
	input: VerdictInput
	documents: Documents
	rung: Rung
	rungIndex: number
	drill: Drill
	/** What the rulebook reads, for the day of the next session. */
	concluded: Concluded
	/** The path back the athlete is on, and its step. */
	path: { ladder: Ladder; rung: Rung; index: number; drill: Drill } | null
	/** The judged exposure; null when the athlete did not meet the ladder in that session. */
	latest: Exposure | null
	/** The one before it on the same rung; sessions the athlete missed are no exposures. */
	previous: Exposure | null
	latestReading: ExposureReading | null
	previousReading: ExposureReading | null
}

/** What a rule says. A rule that did not fire still says what it found. */
export interface Finding {
	fired: boolean
	found: string
	limit: string
	verdict?: VerdictWord
	sentence?: string
	next?: Partial<LadderState>
	/** The drill that stands in. */
	instead?: string
	tier?: 'block' | 'caution' | 'performance'
	/** Set when another rule's gate holds the move back. */
	decidedBy?: RuleId
}

export interface Rule {
	id: RuleId
	question: (context: JudgeContext) => string
	firmness: Firmness
	evaluate: (context: JudgeContext) => Finding
}

/** The session's school for performance, with the stricter safety numbers of the athlete's other squads. */
const ruling = (documents: Documents, safety: VerdictInput['safety']): Documents =>
	safety ? { ...documents, school: saferSchool(documents.school, safety) } : documents

/** Throws RangeError when the documents are not those the input cites, or the rung is unknown. */
export function judgeContext(input: VerdictInput, cited: Documents): JudgeContext {
	const documents = ruling(cited, input.safety)
	for (const kind of ['ladder', 'school'] as const) {
		const [asked, given] = [input[kind], documents[kind]]
		if (given.id !== asked.id || given.version !== asked.version)
			throw new WrongValue(
				kind,
				`${asked.id} version ${asked.version} is cited, ${given.id} version ${given.version} was given`,
			)
	}
	const { state } = input
	const { rung, index } = rungOf(documents.ladder, state.rungId)
	const last = input.exposures.at(-1)
	const latest = last && last.sessionId === input.sessionId ? last : null
	const comparable = (exposure: Exposure) => isEvidence(exposure, rung, state, documents)
	// Twice running is on two days: two sessions of one day are one time.
	const previous =
		input.exposures
			.filter((exposure) => exposure.day < input.day && exposure.repsDone > 0 && comparable(exposure))
			.at(-1) ?? null
	const before = (exposure: Exposure) =>
		input.exposures.filter((one) => one !== exposure && one.day <= exposure.day && one.sessionId !== exposure.sessionId)
	const read = (exposure: Exposure | null) =>
		exposure && comparable(exposure)
			? readExposure(exposure, before(exposure), rung, input.athlete.level, documents.school)
			: null
	return {
		input,
		documents,
		rung,
		rungIndex: index,
		drill: drillOf(documents, rung.drillId),
		path: pathOf(state, documents),
		concluded: verdictFacts(input, documents),
		latest,
		previous,
		latestReading: read(latest),
		previousReading: read(previous),
	}
}

export function drillOf(documents: Pick<Documents, 'drills'>, id: string): Drill {
	const drill = documents.drills[id]
	if (!drill) throw new WrongValue('drills', `${JSON.stringify(id)} is missing`)
	return drill
}

function pathOf(state: LadderState, documents: Documents): JudgeContext['path'] {
	if (!state.reentry) return null
	const ladder = documents.paths[state.reentry.pathId]
	if (!ladder) throw new WrongValue('paths', `${JSON.stringify(state.reentry.pathId)} is missing`)
	const { rung, index } = rungOf(ladder, state.reentry.rungId)
	return { ladder, rung, index, drill: drillOf(documents, rung.drillId) }
}

/**
 * Whether an exposure says anything about the rung at the dose the athlete has: the rung itself, its dose
 * (three quarters of it while intensifying), not an unloading week, not the first day back.
 */
function isEvidence(exposure: Exposure, rung: Rung, state: LadderState, { school, drills }: Documents): boolean {
	if (!exposure.onRung || exposure.rungId !== rung.id || exposure.firstDayBack || exposure.phase === 'unloading')
		return false
	const share = exposure.phase === 'intensify' ? phaseShare('intensify', drillOf({ drills }, rung.drillId), school) : 1
	return repsOf(exposure.planned) >= repsOf(share < 1 ? scaleDose(state.dose, share) : state.dose)
}

/** Drop-off within one exposure; null when nothing was measured. */
export function dropOffOf(
	exposure: Exposure | null,
	drill: Drill,
	school: School,
	errors: OwnErrors | undefined,
): StopReading | null {
	const kind = exposure?.marks[0]?.kind
	return exposure && kind
		? (readFall(exposure.marks, dropOffLimit(kind, drill, school), errors)?.reading ?? null)
		: null
}
