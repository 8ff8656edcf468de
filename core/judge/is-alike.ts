import type { Exposure } from './types'

/** Whether the marks of two exposures may be held against each other, each kind, side and method with itself. */
export const isAlike = (one: Exposure, other: Exposure): boolean =>
	one.onRung === other.onRung && one.rungId === other.rungId && one.like === other.like
