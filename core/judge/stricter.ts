import { type School, assistedCap, assistedSide, fewestDepthJumps } from '../vocabulary/school'
import type { VerdictInput } from './types'

/**
 * What is safe for an athlete of several squads, beside the session's school: the strictest of all their schools.
 *
 * @returns nothing where all of them are the same
 */
export function stricterOf(own: School, all: readonly School[]): VerdictInput['safety'] {
	const others = all.filter(({ id }) => id !== own.id)
	if (others.length === 0) return undefined
	const schools = [own, ...others]
	const numbers = schools.map((one) => one.numbers)
	const least = (name: 'rampPercent' | 'highestBoxCm') => Math.min(...numbers.map((one) => one[name]))
	return {
		rampPercent: least('rampPercent'),
		spacingH: Math.max(...numbers.map((one) => one.spacingH)),
		highestBoxCm: least('highestBoxCm'),
		assistedCapPercent: assistedCap(schools),
		depthJumps: fewestDepthJumps(schools),
	}
}

/** A school with the stricter sides and numbers in the place of its own; what is not said stays. */
export const saferSchool = (
	school: School,
	{ assistedCapPercent, depthJumps = school.choices.depthJumps, ...numbers }: NonNullable<VerdictInput['safety']>,
): School => ({
	...school,
	choices: { ...school.choices, assisted: assistedSide(assistedCapPercent), depthJumps },
	numbers: { ...school.numbers, ...numbers },
})
