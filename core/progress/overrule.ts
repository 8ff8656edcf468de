import { scaleDose } from '../dose/scale-dose'
import { rungOf } from '../library/starter-library'
import { lockOf } from './locks'
import type { Documents, Judgement, LadderState, VerdictInput, VerdictWord } from './types'

/** What a coach may choose instead of the proposal. */
export const OVERRULE_WORDS = ['hold', 'ease', 'advance'] as const satisfies readonly VerdictWord[]
export type OverruleWord = (typeof OVERRULE_WORDS)[number]

export type Overruled = { next: LadderState } | { refused: string }

/**
 * The state a coach's own verdict leads to. A block is not got round, and a locked rung is never
 * prescribed, whoever asks.
 */
export function overrule(word: OverruleWord, judgement: Judgement, input: VerdictInput, documents: Documents): Overruled {
	if (judgement.tier === 'block') return { refused: 'A closed region opens only when somebody records who cleared it.' }
	const { state } = input
	const open: LadderState = { ...state, substitute: null }
	if (word === 'hold') return { next: open }
	if (word === 'ease') return { next: { ...open, dose: scaleDose(state.dose, 2 / 3), passed: false } }
	const { index } = rungOf(documents.ladder, state.rungId)
	const nextRung = documents.ladder.rungs[index + 1]
	if (!nextRung) return { refused: 'This is the top of the ladder.' }
	const lock = lockOf(nextRung, { level: input.athlete.level, ageYears: input.athlete.ageYears, phase: input.nextPhase, school: documents.school })
	if (lock) return { refused: `${nextRung.name} ${lock}.` }
	return { next: { ...open, rungId: nextRung.id, dose: nextRung.dose, passed: false, easedBy: null } }
}

/** After a recorded clearance: one rung lower, at 60 % of its dose [our setting]. */
export function reopenAfterClearance(state: LadderState, documents: Pick<Documents, 'ladder'>): LadderState {
	const { index, rung } = rungOf(documents.ladder, state.rungId)
	const lower = documents.ladder.rungs[Math.max(0, index - 1)] ?? rung
	return { ...state, closed: null, substitute: null, rungId: lower.id, dose: scaleDose(lower.dose, 0.6), passed: false, easedBy: null }
}
