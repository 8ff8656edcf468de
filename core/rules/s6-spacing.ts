import { daysBetween } from '../calendar/day-count'
import { WORK_KIND_NAMES, kindsOf } from '../dose/work-kinds'
import { most } from './facts'
import type { Rule } from './rule'
import { metFromH } from './spacing'

/** S6: work of one kind wants hours between, start to start; known by days here, a day counts 24 h. */
export const spacing: Rule = {
	id: 'S6',
	question: 'Hours from other hard work of this kind',
	read(facts, { drill, parameters }) {
		const kinds = kindsOf(drill, parameters)
		if (kinds.length === 0 || facts.work === null) return null
		const spacingH = most(facts, 'spacingH')
		let nearest: { hours: number; kind: (typeof kinds)[number] } | null = null
		for (const one of facts.work) {
			const other = facts.library.drills[one.drillId]
			// What stands on the same day is the same session, or a second one that order and place answer for.
			const hours = Math.abs(daysBetween(one.day, facts.day)) * 24
			if (!other || hours === 0 || hours >= metFromH(spacingH)) continue
			const kind = kindsOf(other, one.parameters).find((each) => kinds.includes(each))
			if (kind && (nearest === null || hours < nearest.hours)) nearest = { hours, kind }
		}
		if (!nearest) return null
		return {
			rule: 'S6',
			tier: 'caution',
			firmness: 'published',
			found: `${nearest.hours} h from ${WORK_KIND_NAMES[nearest.kind]}`,
			limit: `${spacingH} h, met from ${metFromH(spacingH)}`,
		}
	},
}
