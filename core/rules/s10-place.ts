import type { Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Surface } from '../vocabulary/words'
import type { Rule } from './rule'

/** A reactive cut from this angle on wants dry ground, degrees. */
export const WET_CUT_DEG = 90

/**
 * What a ground closes of a drill; null where it closes nothing.
 *
 * @param asked what is asked of it; what is not said is the drill's own
 */
export function closedByGround(
	surface: Surface | null,
	{ intensity, reactive, defaults }: Pick<Drill, 'intensity' | 'reactive' | 'defaults'>,
	asked: Parameters,
): string | null {
	if (surface !== 'wet-grass') return null
	if (intensity === 'shock') return 'no rebounds from a box'
	const { angleDeg = 0 } = { ...defaults.parameters, ...asked }
	return reactive && angleDeg >= WET_CUT_DEG ? `no reactive cut of ${WET_CUT_DEG}° or more` : null
}

/** S10: what wet grass closes. */
export const place: Rule = {
	id: 'S10',
	question: 'What is under foot',
	read({ surface }, { drill, parameters }) {
		const limit = closedByGround(surface, drill, parameters)
		return limit === null ? null : { rule: 'S10', tier: 'caution', firmness: 'our setting', found: 'wet grass', limit }
	},
}
