import { repsOf, scaleDose } from '../library/scale-dose'
import type { Dose } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Phase } from '../vocabulary/words'
import type { Rung } from '../vocabulary/ladder'
import type { School } from '../vocabulary/school'
import { phaseShare } from '../rules/p6-phase'
import type { LadderState } from './types'

/** Ladders that are only kept get two thirds of the dose [our setting]. */
export const KEPT_SHARE = 2 / 3

export interface DoseShares {
	/** What the sheet asks for this entry; 1 when nothing is said. */
	entry: number
	phase: Phase
	kept: boolean
}

/** The smallest share that holds, never a product. */
export const doseShare = (state: Pick<LadderState, 'back'>, drill: Drill, school: School, shares: DoseShares): number =>
	Math.min(
		1,
		shares.entry,
		phaseShare(shares.phase, drill, school),
		(state.back?.percent ?? 100) / 100,
		shares.kept ? KEPT_SHARE : 1,
	)

/** Why a dose is cut, by the smallest share; null when it is whole. */
export function cutWords(
	state: Pick<LadderState, 'back'>,
	drill: Drill,
	school: School,
	shares: DoseShares,
): string | null {
	const reasons = [
		{ share: phaseShare(shares.phase, drill, school), words: `${shares.phase} phase` },
		{ share: (state.back?.percent ?? 100) / 100, words: 'back after time away' },
		{ share: shares.kept ? KEPT_SHARE : 1, words: 'only kept in this block' },
		{ share: shares.entry, words: 'the sheet asks for less' },
	].sort((a, b) => a.share - b.share)
	const [smallest] = reasons
	return smallest && smallest.share < 1 ? `${smallest.words}: ${Math.round(100 * smallest.share)} % of the dose` : null
}

/** What is written on the sheet for a rung: its dose as the athlete has it, cut by the smallest share. A cut for the week's ramp is already absolute. */
export function effectiveDose(state: LadderState, rung: Rung, drill: Drill, school: School, shares: DoseShares): Dose {
	const own = rung.id === state.rungId && state.easedBy !== 'ramp' ? state.dose : rung.dose
	const share = doseShare(state, drill, school, shares)
	const dose = share < 1 ? scaleDose(own, share) : own
	return state.easedBy === 'ramp' && rung.id === state.rungId && repsOf(state.dose) < repsOf(dose) ? state.dose : dose
}
