import { isNew } from './new-things'
import type { Finding, Rule } from './rule'

/** No shock and no new high rung nearer before a match, nothing high or maximal sooner after one [common practice]. Exactly at the border is allowed. */
export const BEFORE_MATCH_H = 48
export const AFTER_MATCH_H = 36

/** S11: matches near. */
export const match: Rule = {
	id: 'S11',
	question: 'A match near',
	read(facts, form) {
		const { hoursToMatch, hoursSinceMatch } = facts
		const caution = (found: string, limit: string): Finding => ({
			rule: 'S11',
			tier: 'caution',
			firmness: 'common practice',
			found,
			limit,
		})
		if (hoursToMatch !== null && hoursToMatch < BEFORE_MATCH_H && (form.shock || (form.hard && isNew(facts, form))))
			return caution(
				`${Math.round(hoursToMatch)} h to a match`,
				`no shock and no new hard rung within ${BEFORE_MATCH_H} h`,
			)
		if (hoursSinceMatch !== null && hoursSinceMatch < AFTER_MATCH_H && form.hard)
			return caution(
				`${Math.round(hoursSinceMatch)} h after a match`,
				`nothing high or maximal before ${AFTER_MATCH_H} h`,
			)
		return null
	},
}
