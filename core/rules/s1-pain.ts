import { shortDay } from '../calendar/say-day'
import type { Closure } from '../vocabulary/care'
import { EVERYTHING, type Region } from '../vocabulary/words'
import { bars, placeOf } from './bars'
import type { Facts } from './facts'
import type { Form } from './form'
import type { Rule } from './rule'

export const barredBy = (facts: Facts, form: Form): Closure[] =>
	facts.closures.filter((closure) => closure.grade !== 'noted' && bars(closure, form))
export const barredRegions = (facts: Facts): Set<Region> =>
	new Set(facts.closures.flatMap((one) => (one.grade === 'noted' || one.region === EVERYTHING ? [] : [one.region])))

/** S1: nothing that loads what is closed, nothing hard or much on what is spared. */
export const pain: Rule = {
	id: 'S1',
	question: 'Does it load what hurts?',
	read(facts, form) {
		const held = (one: Closure) =>
			facts.restrictions.some((restriction) => restriction.region === one.region && restriction.since === one.since)
		const found = barredBy(facts, form).filter((one) => !held(one))
		if (found.length === 0) return null
		const closed = found.filter((one) => one.grade !== 'spare')
		return {
			rule: 'S1',
			tier: 'block',
			firmness: 'our setting',
			found: found
				.map((one) =>
					one.grade === 'spare'
						? `${placeOf(one)} to be spared since ${shortDay(one.since)}`
						: `${placeOf(one)} closed since ${shortDay(one.since)}`,
				)
				.join(', '),
			limit:
				closed.length === 0
					? 'quiet after the easy form'
					: closed.some((one) => one.region === EVERYTHING)
						? 'cleared by a doctor'
						: 'cleared by a health professional',
		}
	},
}
