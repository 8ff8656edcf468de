import { type Day, daysBetween } from '../calendar/day-count'
import type { Family } from '../vocabulary/words'
import type { Facts } from './facts'
import { type Form, type Place, ownRungs } from './form'
import type { Finding } from './rule'
import { outOfReach } from './s8-gates'

/** Days without any work of the family: up to this nothing; then 75 %; then a rung down and 60 %; over it the way back [our setting]. */
export const AWAY_DAYS = { none: 7, short: 14, long: 28 } as const
export const AWAY_SHARES = { short: 0.75, long: 0.6 } as const
/** Families whose absence is counted. */
export const COUNTED: readonly Family[] = ['sprint', 'agility', 'plyometric', 'throw']

export type Stage = 'none' | 'short' | 'long' | 'path' | 'unknown'
/** How long nothing of a family was done, on the day a line is for. Nothing on record is unknown, not away. */
export function awayStage(facts: Pick<Facts, 'lastWork' | 'day'>, family: Family): Stage {
	if (!COUNTED.includes(family)) return 'none'
	const last: Day | null = facts.lastWork[family] ?? null
	if (last === null) return 'unknown'
	const days = daysBetween(last, facts.day)
	if (days <= AWAY_DAYS.none) return 'none'
	if (days <= AWAY_DAYS.short) return 'short'
	return days <= AWAY_DAYS.long ? 'long' : 'path'
}

/** Share of the dose that time away leaves. */
export const awayShare = (stage: Stage): number =>
	stage === 'short' ? AWAY_SHARES.short : stage === 'long' || stage === 'path' ? AWAY_SHARES.long : 1

/** The highest rung that time away leaves on a ladder: one below the highest passed, or the first; what cannot be reached is gone round. */
export function highestLeft(facts: Facts, { ladder }: Place): number {
	const passed = facts.passed[ladder.id] ?? []
	const highest = ladder.rungs.reduce((top, rung, index) => (passed.includes(rung.id) ? index : top), -1)
	for (let index = highest - 1; index > 0; index--) if (!outOfReach(facts, ladder.rungs[index]!)) return index
	return 0
}

/**
 * P9: whether a form is too high after time away. The dose is cut apart from this.
 *
 * @param lowest the lowest form of the drill that is otherwise permitted; null when none is
 */
export function readAway(facts: Facts, form: Form, lowest: Form | null): Finding | null {
	const stage = awayStage(facts, form.drill.family)
	const finding = (found: string, limit: string): Finding => ({
		rule: 'P9',
		tier: 'caution',
		firmness: 'our setting',
		found,
		limit,
	})
	if (stage === 'unknown') {
		if (lowest === null || form.places.length === 0) return null
		const higher = form.places.some(
			(at) => lowest.places.some((low) => low.ladder === at.ladder && low.index < at.index) || at.beyond,
		)
		return higher && ownRungs(form.drill.id, form.places[0]!.ladder).length > 0
			? finding(`no ${form.drill.family} work on record`, 'the drill’s lowest rung first')
			: null
	}
	if (stage !== 'long' && stage !== 'path') return null
	if (form.places.length === 0 || form.places.some((at) => !at.beyond && at.index <= highestLeft(facts, at)))
		return null
	const days = daysBetween(facts.lastWork[form.drill.family]!, facts.day)
	return finding(`${days} days since ${form.drill.family} work`, `one rung down after ${AWAY_DAYS.short} days`)
}
