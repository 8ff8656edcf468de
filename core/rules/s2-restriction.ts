import { shortDay } from '../calendar/days'
import type { Restriction } from '../vocabulary/care'
import type { Drill } from '../vocabulary/drill'
import { REGION_NAMES } from '../vocabulary/words'
import type { Rule } from './rule'

/** Closing a pattern closes moving in it, not holding still or preparing. */
const moves = (drill: Drill) => drill.family !== 'prepare' && drill.family !== 'tissue'

/** Whether a restriction speaks of a drill: it loads the region, or moves in the pattern. */
export const restrictsDrill = (
	{ region, pattern }: { region?: Restriction['region'] | null; pattern?: Restriction['pattern'] | null },
	drill: Drill,
): boolean =>
	(region != null && (drill.regions[region] ?? 0) > 0) || (pattern != null && pattern === drill.pattern && moves(drill))

/** S2: closed by hand, a region or a kind of movement. */
export const restriction: Rule = {
	id: 'S2',
	question: 'Is it closed by hand?',
	read(facts, { drill }) {
		const found = facts.restrictions.find((one) => one.since <= facts.day && restrictsDrill(one, drill))
		if (!found) return null
		return {
			rule: 'S2',
			tier: 'block',
			firmness: 'our setting',
			found: `${found.region ? REGION_NAMES[found.region] : `${found.pattern} work`} closed by hand since ${shortDay(found.since)}`,
			limit: 'lifted, or cleared by a health professional',
		}
	},
}
