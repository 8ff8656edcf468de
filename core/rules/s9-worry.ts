import { shortDay } from '../calendar/say-day'
import { REGION_NAMES } from '../vocabulary/words'
import type { Rule } from './rule'

/** S9: a movement somebody does not trust; the alternative is offered first. */
export const worry: Rule = {
	id: 'S9',
	question: 'A worry about this movement',
	read({ worries }, { drill }) {
		const open = worries.find((one) => one.drillId === drill.id)
		if (!open) return null
		return {
			rule: 'S9',
			tier: 'caution',
			firmness: 'our setting',
			found: `a worry${open.region ? ` about the ${REGION_NAMES[open.region]}` : ''} since ${shortDay(open.since)}`,
			limit: 'the alternative first',
		}
	},
}
