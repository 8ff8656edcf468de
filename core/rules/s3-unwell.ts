import { shortDay } from '../calendar/say-day'
import type { Rule } from './rule'

/** S3: nothing high, shock or maximal while unwell. */
export const unwell: Rule = {
	id: 'S3',
	question: 'Unwell or feverish?',
	read({ unwellSince }, { hard }) {
		if (unwellSince === null || !hard) return null
		return {
			rule: 'S3',
			tier: 'block',
			firmness: 'common practice',
			found: `unwell since ${shortDay(unwellSince)}`,
			limit: 'nothing high, shock or maximal until well again',
		}
	},
}
