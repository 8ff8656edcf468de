import { rungOf } from '../library/starter-library'
import type { Drill, Firmness, Ladder, Rung, School } from '../library/types'
import { type DropOffReading, readDropOff } from '../noise/drop-off'
import { typicalErrorOf } from '../noise/typical-error'
import { contactRisePercent } from '../library/schools'
import { repsOf, scaleDose } from '../dose/scale-dose'
import { type LockContext, passedRungs, phaseShare } from './locks'
import { type ExposureReading, majorityMarks, readExposure } from './read-criterion'
import type { Documents, Exposure, LadderState, RuleId, VerdictInput, VerdictWord } from './types'

/** What all rules look at, worked out once. */
export interface JudgeContext {
	input: VerdictInput
	documents: Documents
	rung: Rung
	rungIndex: number
	drill: Drill
	/** The day of the next session, as its gates see it. */
	locks: LockContext
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

/** Throws RangeError when the documents are not those the input cites, or the rung is unknown. */
export function judgeContext(input: VerdictInput, documents: Documents): JudgeContext {
	for (const kind of ['ladder', 'school'] as const) {
		const [cited, given] = [input[kind], documents[kind]]
		if (given.id !== cited.id || given.version !== cited.version) throw new RangeError(`${kind}: ${cited.id} version ${cited.version} is cited, ${given.id} version ${given.version} was given`)
	}
	const { state } = input
	const { rung, index } = rungOf(documents.ladder, state.rungId)
	const last = input.exposures.at(-1)
	const latest = last && last.sessionId === input.sessionId ? last : null
	const comparable = (exposure: Exposure) => isEvidence(exposure, rung, state, documents)
	const previous = input.exposures.filter((exposure) => exposure.sessionId !== input.sessionId && exposure.repsDone > 0 && comparable(exposure)).at(-1) ?? null
	const before = (exposure: Exposure) => input.exposures.filter((one) => one !== exposure && one.day <= exposure.day && one.sessionId !== exposure.sessionId)
	const read = (exposure: Exposure | null) => (exposure && comparable(exposure) ? readExposure(exposure, before(exposure), rung, input.athlete.level, documents.school) : null)
	return {
		input, documents, rung, rungIndex: index, drill: drillOf(documents, rung.drillId), path: pathOf(state, documents),
		locks: {
			level: input.athlete.level, ageYears: input.athlete.ageYears, massKg: input.athlete.massKg, phase: input.next.phase, school: documents.school, day: input.next.day, surface: input.next.surface,
			hoursToMatch: input.next.hoursToMatch, hoursSinceMatch: input.next.hoursSinceMatch, unwell: input.athlete.unwell, contrastHelps: input.athlete.contrastHelps, restrictions: input.restrictions,
			standings: { ...input.standings, [documents.ladder.id]: passedRungs(state, documents.ladder) },
		},
		latest, previous, latestReading: read(latest), previousReading: read(previous),
	}
}

export function drillOf(documents: Pick<Documents, 'drills'>, id: string): Drill {
	const drill = documents.drills[id]
	if (!drill) throw new RangeError(`drills: ${JSON.stringify(id)} is missing`)
	return drill
}

function pathOf(state: LadderState, documents: Documents): JudgeContext['path'] {
	if (!state.reentry) return null
	const ladder = documents.paths[state.reentry.pathId]
	if (!ladder) throw new RangeError(`paths: ${JSON.stringify(state.reentry.pathId)} is missing`)
	const { rung, index } = rungOf(ladder, state.reentry.rungId)
	return { ladder, rung, index, drill: drillOf(documents, rung.drillId) }
}

/**
 * Whether an exposure says anything about the rung at the dose the athlete has: the rung itself, its dose
 * (three quarters of it while intensifying), not an unloading week, not the first day back.
 */
function isEvidence(exposure: Exposure, rung: Rung, state: LadderState, { school, drills }: Documents): boolean {
	if (!exposure.onRung || exposure.rungId !== rung.id || exposure.firstDayBack || exposure.phase === 'unloading') return false
	const share = exposure.phase === 'intensify' ? phaseShare('intensify', drillOf({ drills }, rung.drillId), school) : 1
	return repsOf(exposure.planned) >= repsOf(share < 1 ? scaleDose(state.dose, share) : state.dose)
}

/** Drop-off within one exposure, in the kind of mark the rung's drill yields first. */
export function dropOffOf(exposure: Exposure | null, drill: Drill, school: School): DropOffReading | null {
	const kind = exposure?.marks[0]?.kind
	if (!exposure || kind === undefined) return null
	const { marks, method } = majorityMarks(exposure.marks, kind)
	if (method === null) return null
	const read = (values: number[]) => readDropOff(values, kind === 'sprint' || kind === 'contact' ? 'lower' : 'higher', dropOffLimit(kind, drill, school), typicalErrorOf(kind, method))
	// A weaker leg is not a tired one: each side is followed on its own, the one that falls first speaks.
	const sides = (['left', 'right'] as const).map((side) => marks.filter((mark) => mark.side === side).map((mark) => mark.value))
	if (sides.some((values) => values.length === 0)) return read(marks.map((mark) => mark.value))
	const readings = sides.map(read).filter((reading) => reading !== null)
	return readings.sort((a, b) => (a.repsBeforeFall ?? Number.POSITIVE_INFINITY) - (b.repsBeforeFall ?? Number.POSITIVE_INFINITY))[0] ?? null
}

/** The school's limit for a kind of mark, percent. A throw's is set in release speed, which goes with the root of the distance. */
export function dropOffLimit(kind: Exposure['marks'][number]['kind'], drill: Pick<Drill, 'family' | 'repeatSpeed'>, { numbers }: School): number {
	if (kind === 'sprint') return drill.repeatSpeed ? numbers.dropOffRepeatPercent : numbers.dropOffSpeedPercent
	if (kind === 'contact') return contactRisePercent(numbers)
	if (kind === 'distance' && drill.family === 'throw') return 100 * (1 - (1 - numbers.ballSpeedLossPercent / 100) ** 2)
	return numbers.dropOffJumpPercent
}
