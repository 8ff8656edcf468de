import type { Family, Level } from '../vocabulary/words'
import type { Ladder } from '../vocabulary/ladder'
import type { Library } from '../vocabulary/library'
import { type LockContext, lockOf } from './locks'

export interface LevelProposal {
	family: Family
	level: Level
	/** The rungs that were asked for and are passed. */
	because: string[]
}

/**
 * P12: the next level in a family, proposed when the rungs marked for it are passed on every ladder the
 * club uses there. A marked rung the school does not reach does not count. The coach decides.
 */
export function proposeLevel(
	family: Family,
	level: Level,
	ladders: readonly Ladder[],
	standings: Record<string, readonly string[]>,
	drills: Library['drills'],
	context: LockContext,
): LevelProposal | null {
	if (level === 3) return null
	const next = (level + 1) as 2 | 3
	const asked = ladders
		.filter((ladder) => ladder.family === family && ladder.path === undefined)
		.flatMap((ladder) =>
			ladder.rungs
				.filter(
					(rung) => rung.marksLevel === next && !lockOf(rung, drills[rung.drillId]!, { ...context, level: 3 })?.skip,
				)
				.map((rung) => ({ ladder, rung })),
		)
	if (asked.length === 0 || !asked.every(({ ladder, rung }) => (standings[ladder.id] ?? []).includes(rung.id)))
		return null
	return { family, level: next, because: asked.map(({ rung }) => rung.name) }
}
