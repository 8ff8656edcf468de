import { addDays } from '../calendar/day-count'
import { sayLock } from '../permit/say'
import type { Facts, NewRung } from '../rules/facts'
import { type Form, formOf } from '../rules/form'
import { unloading } from '../rules/p6-phase'
import type { Rule, RuleId } from '../rules/rule'
import { bestBox } from '../rules/best-box'
import { pain } from '../rules/s1-pain'
import { place } from '../rules/s10-place'
import { match } from '../rules/s11-match'
import { restriction } from '../rules/s2-restriction'
import { unwell } from '../rules/s3-unwell'
import { levelAgeMass } from '../rules/s4-level-age-mass'
import { closedInPhase, gates, outOfReach, schoolGate } from '../rules/s8-gates'
import type { Ladder, Rung } from '../vocabulary/ladder'
import type { LadderState } from './types'

/** Why a rung is shut to an athlete on a day. */
export interface Lock {
	rule: RuleId
	tier: 'block' | 'caution'
	found: string
	limit: string
	/** Said after the rung's name: "opens at level 2". */
	words: string
	/** The ladder goes on past it: out of reach, or closed in this phase. It is come back to when it opens. */
	skip: boolean
}

/** What is asked of a rung, in the order it is said: what closes it for good before what closes it today. */
const OF_A_RUNG: readonly Rule[] = [pain, restriction, levelAgeMass, unwell, unloading, place, match, gates, bestBox]

/** Why a form of a drill is shut; null when it is open. What the rulebook says of a dose or of the week is not asked. */
export function lockOfForm(facts: Facts, form: Form, rules: readonly Rule[] = OF_A_RUNG): Lock | null {
	for (const rule of rules) {
		const finding = rule.read(facts, form)
		if (finding)
			return {
				rule: finding.rule,
				tier: finding.tier,
				found: finding.found,
				limit: finding.limit,
				words: sayLock(finding),
				skip: finding.rule === 'P6' || closedInPhase(facts, form),
			}
	}
	return null
}

/** Why a rung may not be prescribed; null when it is open. */
export function lockOf(facts: Facts, rung: Rung): Lock | null {
	const drill = facts.library.drills[rung.drillId]
	if (!drill) return null
	// What a ladder takes a side in, its rung is gone past, although the drill may be open elsewhere.
	const school = schoolGate(facts, rung)
	if (school !== null)
		return { rule: 'S8', tier: 'block', found: 'the school', limit: school, words: school, skip: true }
	const lock = lockOfForm(facts, formOf(drill, rung.parameters, facts.library))
	return lock && { ...lock, skip: lock.skip || outOfReach(facts, rung) }
}

/** Why a rung is shut whatever hurts: what a ladder shows, where closures are said once for the athlete. */
export const gateOf = (facts: Facts, rung: Rung): Lock | null =>
	lockOf({ ...facts, closures: [], restrictions: [] }, rung)
/** What hurts or is closed by hand, where it bars a rung. */
export function overOf(facts: Facts, rung: Rung): string | null {
	const lock = lockOf(facts, rung)
	return lock?.rule === 'S1' || lock?.rule === 'S2' ? lock.words : null
}

/** Rungs an athlete has passed on a ladder: as kept, or all below the rung where nothing was kept. */
export function passedRungs(state: LadderState, ladder: Ladder): string[] {
	if (state.done) return state.passed && !state.done.includes(state.rungId) ? [...state.done, state.rungId] : state.done
	const index = ladder.rungs.findIndex((rung) => rung.id === state.rungId)
	return ladder.rungs.slice(0, state.passed ? index + 1 : index).map((rung) => rung.id)
}

/**
 * First days on the rungs of a ladder, as far as where the athlete stands tells them. Who stands on a rung had the
 * days on the rung below that it asks for: by a verdict, or because the coach has put them there.
 */
export function firstDaysOf(state: LadderState, ladder: Ladder): NewRung[] {
	const index = ladder.rungs.findIndex((rung) => rung.id === state.rungId)
	const asks = ladder.rungs[index]?.gates.find((gate) => gate.kind === 'days-below')
	const own = state.rungSince ?? null
	return [
		...(own === null ? [] : [{ day: own, ladderId: ladder.id, rungId: state.rungId }]),
		...(asks
			? ladder.rungs.slice(0, index).map((rung) => ({
					day: own === null ? LONG_AGO : addDays(own, -asks.days),
					ladderId: ladder.id,
					rungId: rung.id,
				}))
			: []),
	]
}
const LONG_AGO = '1970-01-01'

/** The lowest rung not passed that the ladder does not go past, and why it is locked if it is; null at the top. */
export function nextRung(facts: Facts, ladder: Ladder, state: LadderState): { rung: Rung; lock: Lock | null } | null {
	const done = new Set([...passedRungs(state, ladder), state.rungId])
	for (const rung of ladder.rungs) {
		if (done.has(rung.id) || !facts.library.drills[rung.drillId]) continue
		const lock = lockOf(facts, rung)
		if (lock?.skip) continue
		return { rung, lock }
	}
	return null
}
