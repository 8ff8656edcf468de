import type { Drill } from '../vocabulary/drill'
import type { School } from '../vocabulary/school'
import type { Phase } from '../vocabulary/words'
import type { Facts } from './facts'
import type { Rule } from './rule'

/** Shares of the dose by phase; rebounds all year a little outside peaking [our setting]. */
export const PHASE_SHARES: Record<Phase, number> = { accumulate: 1, intensify: 0.75, peaking: 1, unloading: 0.6 }
export const ALL_YEAR_SHARE = 0.6

/** Whether rebounds from a box are open in a phase; never in an unloading week. */
export function depthOpen({ choices }: Pick<School, 'choices'>, phase: Phase): boolean {
	if (phase === 'unloading' || choices.depthJumps === 'never') return false
	if (choices.depthJumps === 'all-year' || phase === 'peaking') return true
	return phase === 'intensify' && choices.depthJumps === 'peaking-and-intensify'
}

/** Share of a dose in a phase under one school. */
export const phaseShare = (phase: Phase, drill: Drill, { choices }: Pick<School, 'choices'>): number =>
	drill.family === 'prepare' || drill.family === 'tissue'
		? 1
		: Math.min(
				PHASE_SHARES[phase],
				drill.intensity === 'shock' && choices.depthJumps === 'all-year' && phase !== 'peaking' ? ALL_YEAR_SHARE : 1,
			)
/** The smallest of all the athlete's schools. */
export const phaseShareOf = ({ phase, schools }: Facts, drill: Drill): number =>
	Math.min(...schools.map((school) => phaseShare(phase, drill, school)))

/** P6: no carried load and no shock in an unloading week. */
export const unloading: Rule = {
	id: 'P6',
	question: 'An unloading week',
	read({ phase }, { shock, drill }) {
		if (phase !== 'unloading' || !(shock || drill.carriesLoad === true)) return null
		return {
			rule: 'P6',
			tier: 'caution',
			firmness: 'our setting',
			found: 'an unloading week',
			limit: shock ? 'no rebounds from a box' : 'no carried load',
		}
	},
}
