import type { Family, Level } from '../vocabulary/words'
import type { Ladder } from '../vocabulary/ladder'
import type { Facts } from '../rules/facts'
import { lockOf } from './locks'

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
	facts: Facts,
): LevelProposal | null {
	if (level === 3) return null
	const next = (level + 1) as 2 | 3
	const asked = ladders
		.filter((ladder) => ladder.family === family && ladder.path === undefined)
		.flatMap((ladder) =>
			ladder.rungs
				.filter((rung) => rung.marksLevel === next && !lockOf({ ...facts, levelOf: () => 3 }, rung)?.skip)
				.map((rung) => ({ ladder, rung })),
		)
	if (asked.length === 0 || !asked.every(({ ladder, rung }) => (facts.passed[ladder.id] ?? []).includes(rung.id)))
		return null
	return { family, level: next, because: asked.map(({ rung }) => rung.name) }
}
