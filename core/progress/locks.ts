import type { Level, Phase, Rung, School } from '../library/types'

export interface LockContext {
	level: Level
	/** Whole years; null when the birth date is unknown, which counts as the strictest row. */
	ageYears: number | null
	phase: Phase
	school: School
}

const isRebound = (rung: Rung) => rung.drillId === 'depth-jump'

/**
 * Why a rung may not be prescribed, in words; null when it is open. Level and age come first: under
 * 16, or with the birth date unknown, nobody rebounds from a box [our setting].
 */
export function lockOf(rung: Rung, context: LockContext): string | null {
	if (isRebound(rung) && context.ageYears === null) return 'the birth date is unknown: land and pause only'
	if (isRebound(rung) && context.ageYears !== null && context.ageYears < 16) return 'under 16: land and pause only'
	if ((rung.parameters.heightCm ?? 0) > context.school.highestBoxCm) return `over the school's highest box, ${context.school.highestBoxCm} cm`
	for (const gate of rung.gates) {
		if (gate.kind === 'level' && context.level < rung.level) return `opens at level ${rung.level}`
		if (gate.kind === 'phase') {
			const phases = gate.phases.length > 0 ? gate.phases : context.school.depthJumpPhases
			if (!phases.includes(context.phase)) return `opens in the ${phases.join(' or ')} phase`
		}
	}
	return null
}
