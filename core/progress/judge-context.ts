import { rungOf } from '../library/starter-library'
import type { Drill, Firmness, Rung } from '../library/types'
import { type DropOffReading, readDropOff } from '../noise/drop-off'
import { typicalErrorOf } from '../noise/typical-error'
import { repsOf } from '../dose/scale-dose'
import { type ExposureReading, majorityMarks, readExposure } from './read-criterion'
import type { Documents, Exposure, LadderState, RuleId, VerdictInput, VerdictWord } from './types'

/** What all rules look at, worked out once. */
export interface JudgeContext {
	input: VerdictInput
	documents: Documents
	rung: Rung
	rungIndex: number
	nextRung: Rung | null
	drill: Drill
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
	tier?: 'block' | 'caution' | 'performance'
}

export interface Rule {
	id: RuleId
	question: (context: JudgeContext) => string
	firmness: Firmness
	evaluate: (context: JudgeContext) => Finding
}

/** Throws RangeError when the documents are not those the input cites, or the rung is unknown. */
export function judgeContext(input: VerdictInput, documents: Documents): JudgeContext {
	if (documents.ladder.id !== input.ladder.id || documents.ladder.version !== input.ladder.version) {
		throw new RangeError(`ladder: ${input.ladder.id} version ${input.ladder.version} is cited, ${documents.ladder.id} version ${documents.ladder.version} was given`)
	}
	const { rung, index } = rungOf(documents.ladder, input.state.rungId)
	const drill = documents.drills[rung.drillId]
	if (!drill) throw new RangeError(`drills: ${JSON.stringify(rung.drillId)} is missing`)
	const last = input.exposures.at(-1)
	const latest = last && last.sessionId === input.sessionId ? last : null
	// Reduced sessions (an unloading week) are no evidence for the full dose.
	const comparable = (exposure: Exposure) => exposure.onRung && exposure.rungId === rung.id && repsOf(exposure.planned) >= repsOf(input.state.dose)
	const previous = input.exposures.filter((exposure) => exposure.sessionId !== input.sessionId && exposure.repsDone > 0 && comparable(exposure)).at(-1) ?? null
	const read = (exposure: Exposure | null) => (exposure && comparable(exposure) ? readExposure(exposure, rung, input.athlete.level, documents.school) : null)
	return {
		input, documents, rung, rungIndex: index, nextRung: documents.ladder.rungs[index + 1] ?? null, drill,
		latest, previous, latestReading: read(latest), previousReading: read(previous),
	}
}

/** Drop-off within one exposure, in the kind of mark the rung's drill yields first. */
export function dropOffOf(exposure: Exposure | null, context: JudgeContext): DropOffReading | null {
	const kind = exposure?.marks[0]?.kind
	if (!exposure || kind === undefined) return null
	const { marks, method } = majorityMarks(exposure.marks, kind)
	if (method === null) return null
	return readDropOff(marks.map((mark) => mark.value), kind === 'sprint' || kind === 'contact' ? 'lower' : 'higher', dropOffLimit(kind, context.documents.school.dropOffPercent), typicalErrorOf(kind, method))
}

export function dropOffLimit(kind: Exposure['marks'][number]['kind'], limits: { speed: number; jumpHeight: number; contact: number }): number {
	if (kind === 'sprint') return limits.speed
	return kind === 'contact' ? limits.contact : limits.jumpHeight
}
