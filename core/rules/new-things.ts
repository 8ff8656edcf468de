import { daysBetween } from '../calendar/day-count'
import { shortDay } from '../calendar/say-day'
import type { Facts } from './facts'
import { type Form, formOf } from './form'
import type { Rule } from './rule'

/** Days between two new hard things of one athlete: 72 h. */
export const NEW_HARD_DAYS = 3

/** Whether an athlete would meet this form for the first time: it stands on ladders, and on none was its rung passed or met before. */
export const isNew = (facts: Facts, { places }: Form): boolean =>
	places.length > 0 &&
	!places.some(
		({ ladder, rung, index, beyond }) =>
			!beyond &&
			((facts.passed[ladder.id] ?? []).some((id) => ladder.rungs.findIndex((one) => one.id === id) >= index) ||
				facts.newRungs.some((one) => one.ladderId === ladder.id && one.rungId === rung.id && one.day < facts.day)),
	)

/** P8: at most one new high, shock or maximal thing in 72 h, whatever wrote it. */
export const oneNewThing: Rule = {
	id: 'P8',
	question: 'One new hard thing at a time',
	read(facts, form) {
		if (!form.hard || !isNew(facts, form)) return null
		const other = facts.newRungs.find((one) => {
			if (Math.abs(daysBetween(one.day, facts.day)) >= NEW_HARD_DAYS) return false
			if (form.places.some(({ ladder, rung }) => ladder.id === one.ladderId && rung.id === one.rungId)) return false
			const rung = facts.library.ladders[one.ladderId]?.rungs.find((candidate) => candidate.id === one.rungId)
			const drill = rung && facts.library.drills[rung.drillId]
			return drill !== undefined && formOf(drill, rung!.parameters, facts.library).hard
		})
		const outside = (facts.newOutside ?? []).find((one) => Math.abs(daysBetween(one.day, facts.day)) < NEW_HARD_DAYS)
		if (!other && !outside) return null
		const name = other
			? facts.library.ladders[other.ladderId]!.rungs.find((rung) => rung.id === other.rungId)!.name
			: outside!.name
		return {
			rule: 'P8',
			tier: 'caution',
			firmness: 'our setting',
			found: `${name} is new on ${shortDay((other ?? outside)!.day)}`,
			limit: 'one new hard thing in 72 h',
		}
	},
}
