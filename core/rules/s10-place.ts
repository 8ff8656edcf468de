import type { Rule } from './rule'

/** A reactive cut from this angle on wants dry ground, degrees. */
export const WET_CUT_DEG = 90

/** S10: what wet grass closes. */
export const place: Rule = {
	id: 'S10',
	question: 'What is under foot',
	read({ surface }, { shock, drill, parameters }) {
		if (surface !== 'wet-grass') return null
		const cut = drill.reactive && (parameters.angleDeg ?? 0) >= WET_CUT_DEG
		if (!shock && !cut) return null
		return {
			rule: 'S10',
			tier: 'caution',
			firmness: 'our setting',
			found: 'wet grass',
			limit: shock ? 'no rebounds from a box' : `no reactive cut of ${WET_CUT_DEG}° or more`,
		}
	},
}
