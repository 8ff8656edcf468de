import { shortDay } from '../calendar/say-day'
import type { Drill } from '../vocabulary/drill'
import { inSentence } from '../words/write-numbers'
import { type Restricted, placeOf, restrictsDrill } from './bars'
import type { Rule } from './rule'

/** "left knee", "jump work", "depth jump": what was closed by hand. */
export const sayRestriction = (
	{ region, pattern, drillId }: Restricted,
	{ drills }: { drills: Readonly<Record<string, Pick<Drill, 'name'>>> },
): string =>
	[
		...(region ? [placeOf({ region })] : []),
		...(pattern ? [`${pattern} work`] : []),
		...(drillId ? [inSentence(drills[drillId]?.name ?? 'one drill')] : []),
	].join(' and ')

/** S2: closed by hand, a region, everything, a kind of movement or a drill. */
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
			found: `${sayRestriction(found, facts.library)} closed by hand since ${shortDay(found.since)}`,
			limit: 'lifted, or cleared by a health professional',
		}
	},
}
