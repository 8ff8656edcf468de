import { daysBetween } from '../calendar/days'
import type { Drill } from '../vocabulary/drill'
import type { Ladder, Rung } from '../vocabulary/ladder'
import type { Level, Phase, Surface } from '../vocabulary/words'
import type { Parameters } from '../vocabulary/dose'
import type { School } from '../vocabulary/school'
import { isHard } from '../dose/work-kinds'
import type { Facts } from '../rules/facts'
import { inSentence } from '../words/write-numbers'
import type { LadderState, OpenRestriction } from './types'
import type { RuleId } from '../rules/rule'

/** What is known of an athlete and of the day a line is for. */
export interface LockContext {
	level: Level
	/** Whole years; null when the birth date is unknown, which counts as the strictest row. */
	ageYears: number | null
	/** Null when unknown: the strictest row too. */
	massKg: number | null
	phase: Phase
	school: School
	/** The day of the line, for rungs that open after a number of days. */
	day: string
	surface: Surface | null
	/** Hours from the start of the session to the next match, and from the last match's end; null when there is none near. */
	hoursToMatch: number | null
	hoursSinceMatch: number | null
	unwell: boolean
	contrastHelps: boolean
	restrictions: readonly OpenRestriction[]
	/** Rungs passed, by ladder. */
	standings: Readonly<Record<string, readonly string[]>>
}

/** A day with nothing out of the ordinary, for an athlete of whom only the given is known. */
export function plainContext(
	known: Pick<LockContext, 'level' | 'ageYears' | 'phase' | 'school'> & Partial<LockContext>,
): LockContext {
	return {
		massKg: null,
		day: '1970-01-01',
		surface: null,
		hoursToMatch: null,
		hoursSinceMatch: null,
		unwell: false,
		contrastHelps: false,
		restrictions: [],
		standings: {},
		...known,
	}
}

/** The same, of an athlete whose facts are read; what is closed or restricted is asked of the rulebook for the whole line. */
export const locksOf = (facts: Facts, level: Level): LockContext => ({
	level,
	ageYears: facts.ageYears,
	massKg: facts.massKg,
	phase: facts.phase,
	school: facts.schools[0],
	day: facts.day,
	surface: facts.surface,
	hoursToMatch: facts.hoursToMatch,
	hoursSinceMatch: facts.hoursSinceMatch,
	unwell: facts.unwellSince !== null,
	contrastHelps: facts.contrastHelps,
	restrictions: [],
	standings: facts.passed,
})

export interface Lock {
	rule: RuleId
	tier: 'block' | 'caution'
	/** Said after the rung's name: "opens at level 2". */
	words: string
	/** The ladder goes on past it: out of the school's reach, or closed in this phase. It is come back to when it opens. */
	skip: boolean
}

/** No box over this for athletes over 100 kg, or of unknown mass [published: NSCA, from memory]. */
export const HEAVY_KG = 100
export const HEAVY_BOX_CM = 45
/** Level 1 and under 16: landings and pause jumps to this height, no rebound from a box [our setting]. */
export const YOUNG_BOX_CM = 30
const YOUNG_YEARS = 16
/** No shock and no new hard rung this long before a match, nothing hard this long after one [common practice]. */
export const BEFORE_MATCH_H = 48
export const AFTER_MATCH_H = 36

const block = (rule: RuleId, words: string): Lock => ({ rule, tier: 'block', words, skip: false })
const caution = (rule: RuleId, words: string): Lock => ({ rule, tier: 'caution', words, skip: false })

const reboundsFromBox = (drill: Drill) => drill.intensity === 'shock'
const assists = (drill: Drill) => drill.counting.metres?.kind === 'assisted'

/** Whether a restriction speaks of this drill: it loads the region, or moves in the pattern. */
export const restricts = (restriction: OpenRestriction, drill: Drill): boolean =>
	(restriction.region !== null && (drill.regions[restriction.region] ?? 0) > 0) ||
	(restriction.pattern !== null && restriction.pattern === drill.pattern && isPatternWork(drill))
/** Closing a pattern closes moving in it, not holding still or preparing. */
const isPatternWork = (drill: Drill) => drill.family !== 'prepare' && drill.family !== 'tissue'

/** Why a drill may not be done by this athlete on that day; null when it may. Level, age and mass come first. */
export function lockOfDrill(drill: Drill, parameters: Parameters, context: LockContext): Lock | null {
	const { ageYears, massKg, level, phase, surface } = context
	const height = parameters.heightCm ?? 0
	const boxed = drill.highAboveCm !== undefined || reboundsFromBox(drill)
	if (reboundsFromBox(drill) || assists(drill)) {
		const what = assists(drill) ? 'no assisted speed' : 'land and pause only'
		if (ageYears === null) return block('S4', `the birth date is unknown: ${what}`)
		if (ageYears < YOUNG_YEARS) return block('S4', `under ${YOUNG_YEARS}: ${what}`)
		if (level < 2) return block('S4', `opens at level 2`)
	}
	if (boxed && height > YOUNG_BOX_CM && (level < 2 || ageYears === null || ageYears < YOUNG_YEARS))
		return block(
			'S4',
			`${level < 2 ? 'level 1' : ageYears === null ? 'birth date unknown' : `under ${YOUNG_YEARS}`}: boxes to ${YOUNG_BOX_CM} cm`,
		)
	if (boxed && height > HEAVY_BOX_CM && (massKg === null || massKg > HEAVY_KG))
		return block(
			'S4',
			`${massKg === null ? 'body mass unknown' : `over ${HEAVY_KG} kg`}: no box over ${HEAVY_BOX_CM} cm`,
		)
	const restriction = context.restrictions.find((candidate) => restricts(candidate, drill))
	if (restriction) return block('S2', 'closed until cleared')
	if (context.unwell && isHard(drill, parameters)) return block('S3', 'unwell: nothing high, shock or maximal')
	if (phase === 'unloading' && reboundsFromBox(drill))
		return { ...caution('P6', 'no rebounds in an unloading week'), skip: true }
	if (phase === 'unloading' && drill.carriesLoad)
		return { ...caution('P6', 'no carried load in an unloading week'), skip: true }
	if (surface === 'wet-grass' && reboundsFromBox(drill)) return caution('S10', 'wet grass: no rebounds from a box')
	if (surface === 'wet-grass' && drill.reactive && (parameters.angleDeg ?? 0) >= 90)
		return caution('S10', 'wet grass: no reactive cut of 90° or more')
	if (context.hoursToMatch !== null && context.hoursToMatch <= BEFORE_MATCH_H && reboundsFromBox(drill))
		return caution('S11', `a match within ${BEFORE_MATCH_H} h: no rebounds from a box`)
	if (context.hoursSinceMatch !== null && context.hoursSinceMatch < AFTER_MATCH_H && isHard(drill, parameters))
		return caution(
			'S11',
			`${Math.round(context.hoursSinceMatch)} h after a match: nothing high or maximal until ${AFTER_MATCH_H} h`,
		)
	return null
}

/** Days an athlete has been on the rung below; null when unknown, which counts as too few. */
const daysBelow = (state: LadderState | null, day: string): number | null =>
	state?.rungSince ? daysBetween(state.rungSince, day) : null

/**
 * Why a rung may not be prescribed, in words; null when it is open. A gate before a rebound from a box
 * or an assisted run is a block; any other is a caution that a coach may answer with a reason.
 *
 * @param state of this ladder, for gates that count days on the rung below
 */
export function lockOf(rung: Rung, drill: Drill, context: LockContext, state: LadderState | null = null): Lock | null {
	const { school } = context
	const out = (words: string): Lock => ({ rule: 'S8', tier: 'block', words, skip: true })
	if (drill.highAboveCm !== undefined || reboundsFromBox(drill)) {
		if ((rung.parameters.heightCm ?? 0) > school.numbers.highestBoxCm)
			return out(`over the school’s highest box, ${school.numbers.highestBoxCm} cm`)
	}
	if (assists(drill) && (rung.parameters.assistPercent ?? 0) > school.numbers.assistedCapPercent)
		return out(
			school.numbers.assistedCapPercent === 0
				? 'the school uses no assisted speed'
				: `over the school’s cap, ${school.numbers.assistedCapPercent} %`,
		)
	const own = lockOfDrill(drill, rung.parameters, context)
	if (own && own.rule !== 'S4') return own
	// What the school closes is gone past; what the athlete lacks is waited for.
	for (const gate of rung.gates) {
		if (gate.kind === 'depth-phase' && !depthOpen(school, context.phase))
			return out(
				school.choices.depthJumps === 'never'
					? 'the school uses no rebounds from a box'
					: `opens in the ${school.choices.depthJumps === 'peaking' ? 'peaking' : 'intensify or peaking'} phase`,
			)
		if (gate.kind === 'school' && !takesSide(gate.question, gate.side, context))
			return out(SCHOOL_GATE_WORDS[gate.question])
	}
	if (own) return own
	const tier = reboundsFromBox(drill) || assists(drill) ? ('block' as const) : ('caution' as const)
	for (const gate of rung.gates) {
		if (gate.kind === 'level' && context.level < rung.level)
			return { rule: 'S8', tier, words: `opens at level ${rung.level}`, skip: false }
		if (gate.kind === 'passed' && !(context.standings[gate.ladderId] ?? []).includes(gate.rungId))
			return {
				rule: 'S8',
				tier,
				words: `opens after ${inSentence(gate.rungName ?? gate.rungId.replaceAll('-', ' '))}`,
				skip: false,
			}
		if (gate.kind === 'days-below') {
			const days = daysBelow(state, context.day)
			if (days === null || days < gate.days)
				return {
					rule: 'S8',
					tier,
					words: `opens after ${gate.days} days on the rung below${days === null ? '' : `, ${days} so far`}`,
					skip: false,
				}
		}
	}
	return null
}

const SCHOOL_GATE_WORDS = {
	volume: 'hard finishing work is closed in this school',
	conditioning: 'the school conditions another way',
	contrast: 'closed until the athlete’s own trial says it helps',
} as const

function takesSide(
	question: 'volume' | 'conditioning' | 'contrast',
	side: string,
	{ school, contrastHelps }: LockContext,
): boolean {
	return school.choices[question] === side || (question === 'contrast' && contrastHelps)
}

/** Whether rebounds from a box are open in a phase; never in an unloading week. */
export function depthOpen(school: School, phase: Phase): boolean {
	if (phase === 'unloading') return false
	const { depthJumps } = school.choices
	if (depthJumps === 'all-year') return true
	return phase === 'peaking' ? depthJumps !== 'never' : phase === 'intensify' && depthJumps === 'peaking-and-intensify'
}

/** Share of a dose in a phase [our setting]: intensify 75 %, unloading 60 %, rebounds out of season a little. */
export function phaseShare(phase: Phase, drill: Drill, school: School): number {
	if (phase === 'unloading') return 0.6
	if (drill.intensity === 'shock' && school.choices.depthJumps === 'all-year' && phase !== 'peaking') return 0.6
	return phase === 'intensify' ? 0.75 : 1
}

/** Rungs an athlete has passed on a ladder: as kept, or all below the rung where nothing was kept. */
export function passedRungs(state: LadderState, ladder: Ladder): string[] {
	if (state.done) return state.passed && !state.done.includes(state.rungId) ? [...state.done, state.rungId] : state.done
	const index = ladder.rungs.findIndex((rung) => rung.id === state.rungId)
	return ladder.rungs.slice(0, state.passed ? index + 1 : index).map((rung) => rung.id)
}

/** The lowest rung not passed that the ladder does not go past, and why it is locked if it is; null at the top. */
export function nextRung(
	ladder: Ladder,
	state: LadderState,
	drills: Record<string, Drill>,
	context: LockContext,
): { rung: Rung; lock: Lock | null } | null {
	const done = new Set([...passedRungs(state, ladder), state.rungId])
	for (const rung of ladder.rungs) {
		const drill = drills[rung.drillId]
		if (done.has(rung.id) || !drill) continue
		const lock = lockOf(rung, drill, context, state)
		if (lock?.skip) continue
		return { rung, lock }
	}
	return null
}
