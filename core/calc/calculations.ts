import type { Calculation } from './calculation'
import { JUMP_CALCULATIONS } from './jump-calculations'
import { MARKS_CALCULATIONS } from './marks-calculations'
import { NOISE_CALCULATIONS } from './noise-calculations'
import { OTHER_CALCULATIONS } from './other-calculations'
import { CARE_CALCULATIONS } from './care-calculations'
import { PROGRESS_CALCULATIONS } from './progress-calculations'
import { SPRINT_CALCULATIONS } from './sprint-calculations'

/** Every calculation the command answers, in the order they are listed. */
export const CALCULATIONS = [
	...SPRINT_CALCULATIONS,
	...JUMP_CALCULATIONS,
	...OTHER_CALCULATIONS,
	...NOISE_CALCULATIONS,
	...MARKS_CALCULATIONS,
	...PROGRESS_CALCULATIONS,
	...CARE_CALCULATIONS,
] as unknown as readonly Calculation[]

export const findCalculation = (name: string): Calculation | undefined => CALCULATIONS.find((one) => one.name === name)
