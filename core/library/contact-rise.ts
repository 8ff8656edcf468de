import type { SchoolNumbers } from '../vocabulary/school'

/** Contact may rise by twice the jump limit before a set ends: 10 % for 5 %. */
export const contactRisePercent = (numbers: SchoolNumbers): number => 2 * numbers.dropOffJumpPercent
