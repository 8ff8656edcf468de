import type { Facts } from './facts'
import type { Form } from './form'
import type { Finding, Rule } from './rule'

/** No box over this for athletes over 100 kg, or of unknown mass [published: NSCA, from memory]. */
export const HEAVY_KG = 100
export const HEAVY_BOX_CM = 45
/** Level 1 and under 16: landings and pause jumps to this height, no rebound from a box, no pulled speed [our setting]. */
export const YOUNG_BOX_CM = 30
export const YOUNG_YEARS = 16

/** Too young, or of unknown age. */
export const young = ({ ageYears }: Pick<Facts, 'ageYears'>): boolean => ageYears === null || ageYears < YOUNG_YEARS
const ageWords = ({ ageYears }: Facts) => (ageYears === null ? 'no birth date' : `${ageYears} years old`)
/** What is missing can be mended: whoever reads the limit learns of it. */
const until = (known: number | null, what: string) => (known === null ? `, until the ${what} is known` : '')

/** What body mass closes for good. */
export const tooHeavyFor = (facts: Facts, form: Form): boolean =>
	form.boxed && (form.parameters.heightCm ?? 0) > HEAVY_BOX_CM && (facts.massKg === null || facts.massKg > HEAVY_KG)

/** What nobody does at level 1: rebounds from a box, pulled speed, a higher box. */
export const needsLevelTwo = ({ shock, assisted, boxed, parameters }: Form): boolean =>
	shock || assisted || (boxed && (parameters.heightCm ?? 0) > YOUNG_BOX_CM)

/** S4: level, age and mass. What is unknown counts as the strictest row. */
export const levelAgeMass: Rule = {
	id: 'S4',
	question: 'Level, age and body mass',
	read(facts, form) {
		const { drill, shock, assisted, boxed, parameters } = form
		const level = facts.levelOf(drill.family)
		const block = (found: string, limit: string, firmness: Finding['firmness'] = 'our setting'): Finding => ({
			rule: 'S4',
			tier: 'block',
			firmness,
			found,
			limit,
		})
		if (shock || assisted) {
			const limit = assisted
				? `no assisted speed at level 1 or under ${YOUNG_YEARS}`
				: `land and pause only at level 1 or under ${YOUNG_YEARS}`
			if (young(facts)) return block(ageWords(facts), `${limit}${until(facts.ageYears, 'birth date')}`)
			if (level < 2) return block('level 1', limit)
		}
		if (boxed && (parameters.heightCm ?? 0) > YOUNG_BOX_CM && (level < 2 || young(facts)))
			return block(
				level < 2 ? 'level 1' : ageWords(facts),
				`boxes to ${YOUNG_BOX_CM} cm at level 1 or under ${YOUNG_YEARS}${level < 2 ? '' : until(facts.ageYears, 'birth date')}`,
			)
		if (tooHeavyFor(facts, form))
			return block(
				facts.massKg === null ? 'no body mass' : `${facts.massKg} kg`,
				`no box over ${HEAVY_BOX_CM} cm over ${HEAVY_KG} kg${until(facts.massKg, 'body mass')}`,
				'published',
			)
		return null
	},
}
