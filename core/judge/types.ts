import type { Drill } from '../vocabulary/drill'
import type { Firmness } from '../vocabulary/words'
import type { Ladder } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import type { RuleId } from '../rules/rule'
import type { LadderState } from './verdict-input'

export type {
	Exposure,
	LadderState,
	MarkEvidence,
	OpenRestriction,
	OpenWorry,
	PainReport,
	VerdictInput,
	WorkDay,
} from './verdict-input'

/** Raised whenever a rule's outcome can change for the same input, so that an old verdict can be replayed honestly. */
export const RULES_VERSION = 10

/** Lowest first. */
export const VERDICT_WORDS = ['stop', 're-enter', 'swap', 'ease', 'hold', 'advance'] as const
export type VerdictWord = (typeof VERDICT_WORDS)[number]

/** The immutable documents an input cites. A re-entry path needs its own ladder beside the judged one. */
export interface Documents {
	ladder: Ladder
	school: School
	drills: Record<string, Drill>
	/** All ladders of the library, paths back among them. */
	paths: Record<string, Ladder>
}

/** One line of the trace: what was looked at, what was found, against what limit. */
export interface TraceLine {
	rule: RuleId
	question: string
	found: string
	limit: string
	fired: boolean
	firmness: Firmness
}

export interface Judgement {
	verdict: VerdictWord
	decidedBy: RuleId
	/** A block cannot be got round; a caution needs a named reason. */
	tier: 'block' | 'caution' | 'performance'
	sentence: string
	firmness: Firmness
	next: LadderState
	/** The drill that stands in, as the rulebook answers; null when none does or none has to. */
	instead: string | null
	/** What the coach must see before going on with the next line. */
	cautions: { rule: RuleId; sentence: string }[]
	trace: TraceLine[]
}
