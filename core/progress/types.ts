import type { Day } from '../calendar/days'
import type { DayDose, RampQuantity } from '../dose/ramp'
import type { EndReason } from '../events/schema'
import type { Dose, Drill, Firmness, Ladder, Level, Parameters, Phase, Region, School } from '../library/types'
import type { Method } from '../noise/typical-error'

/** Raised whenever a rule's outcome can change for the same input, so that an old verdict can be replayed honestly. */
export const RULES_VERSION = 1

/** Lowest first. */
export const VERDICT_WORDS = ['stop', 're-enter', 'swap', 'ease', 'hold', 'advance'] as const
export type VerdictWord = (typeof VERDICT_WORDS)[number]

/** Where an athlete stands on one ladder; it belongs to the athlete, over all squads. */
export interface LadderState {
	ladderId: string
	rungId: string
	dose: Dose
	/** The region is closed until somebody records who cleared it: no line is written. */
	closed: { region: Region; since: Day } | null
	/** An alternative that spares a region stands in for the rung. */
	substitute: { drillId: string; region: Region; since: Day } | null
	/** The rung is passed and waits for a gate; it need not be earned again. */
	passed: boolean
	/**
	 * Why the dose is below the rung's: after a drop-off each exposure without a fall gives one rep back;
	 * a cut for the week's ramp is for that session alone.
	 */
	easedBy: 'drop-off' | 'ramp' | null
}

/** One athlete's line on a session sheet, as it stands. */
export interface PlannedLine {
	drillId: string
	drillVersion: number
	ladderId: string | null
	rungId: string | null
	dose: Dose
	parameters: Parameters
	restS: number
}

export interface MarkEvidence {
	kind: 'sprint' | 'contact' | 'height' | 'distance'
	/** Seconds for sprint and contact, metres for height and distance. */
	value: number
	method: Method
}

/** One time an athlete met a rung: what was planned and what is known of what was done. */
export interface Exposure {
	sessionId: string
	day: Day
	rungId: string
	/** False when an alternative stood in for the rung. */
	onRung: boolean
	planned: Dose
	repsDone: number
	endReason: EndReason | null
	/** In order of the reps. */
	marks: MarkEvidence[]
	quality: { good: number; notYet: number; poor: number; setTaps: number }
	/** Own best known before that session, same distance, start and method, in the marks' unit. */
	bestBefore: Partial<Record<Method, number>>
}

export interface PainReport {
	sessionId: string
	day: Day
	region: Region
	side: 'left' | 'right' | 'both'
	score: number
	redFlag: boolean
}

/** Everything a verdict is made from, stored whole with it. Documents are cited by id and version. */
export interface VerdictInput {
	rulesVersion: number
	sessionId: string
	day: Day
	/** The next day the ladder would be trained; spacing and ramp look at that day. */
	nextDay: Day
	/** Phase of that next session: gates look at it. */
	nextPhase: Phase
	athlete: { id: string; level: Level; ageYears: number | null }
	ladder: { id: string; version: number }
	school: { id: string; version: number }
	state: LadderState
	/** This ladder, oldest first, the judged session last. */
	exposures: Exposure[]
	/** The last four weeks, any region. */
	pains: PainReport[]
	/** Ids of the athlete's last three sessions, the judged one last. */
	lastSessions: string[]
	ramp: Record<RampQuantity, DayDose[]>
}

/** The immutable documents an input cites. */
export interface Documents {
	ladder: Ladder
	school: School
	drills: Record<string, Drill>
}

export type RuleId = 'S1' | 'S2' | 'S7' | 'P1' | 'P2' | 'P3' | 'P4'

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
	trace: TraceLine[]
}
