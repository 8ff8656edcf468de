import { daysBetween } from '../calendar/day-count'
import type { Rule } from './rule'

/** Days in any seven on which a weight is worn at most [common practice, no source]. */
export const WORN_DAYS = 4

/** P11: a weight is worn once a day, and on three or four days of any seven. */
export const carriedOften: Rule = {
	id: 'P11',
	question: 'How often a weight is worn',
	read({ day, loadsOn }, { drill, parameters }) {
		if (drill.carriesLoad !== true || !parameters.loadG) return null
		const days = new Set(loadsOn ?? [])
		if (days.has(day))
			return {
				rule: 'P11',
				tier: 'block',
				firmness: 'common practice',
				found: 'a weight is worn that day already',
				limit: 'once a day',
			}
		const away = [...days].map((one) => daysBetween(day, one))
		// The fullest seven days with this one in them.
		const others = Math.max(
			...[0, 1, 2, 3, 4, 5, 6].map((before) => away.filter((one) => one >= -before && one <= 6 - before).length),
		)
		if (others < WORN_DAYS) return null
		return {
			rule: 'P11',
			tier: 'caution',
			firmness: 'common practice',
			found: `a weight is worn on ${others} other days of seven`,
			limit: `${WORN_DAYS} days in seven`,
		}
	},
}
