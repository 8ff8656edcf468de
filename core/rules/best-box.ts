import { shortDay } from '../calendar/say-day'
import type { Rule } from './rule'

/**
 * BB: no rebound from a higher box than the athlete's own best, where the school stays low. A higher one costs
 * contact and trains another quality.
 */
export const bestBox: Rule = {
	id: 'BB',
	question: 'Own best box',
	read({ own, schools }, { shock, parameters }) {
		const best = own?.bestBox
		const height = parameters.heightCm ?? 0
		if (!best || !shock || schools[0].choices.boxHeight !== 'low' || height <= best.heightCm) return null
		return {
			rule: 'BB',
			tier: 'caution',
			firmness: 'our setting',
			found: `${height} cm`,
			limit: best.keepsGoal
				? `own best box is ${best.heightCm} cm (${best.how}, ${shortDay(best.on)})`
				: `no box keeps the sprint goal yet; the contact is shortest from ${best.heightCm} cm (${best.how}, ${shortDay(best.on)})`,
		}
	},
}
