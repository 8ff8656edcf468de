import type { Day } from '../calendar/day-count'
import type { Library } from '../vocabulary/library'
import { leaveWayBack } from './missed-time'
import type { LadderState } from './types'

/**
 * The way back is one for the athlete: the step that one ladder has taken, on or back, or its end, all ladders on the
 * same path take with it. At its end each goes on two rungs below where it stood.
 *
 * @param states where the athlete stands on every ladder, after the walks
 * @param walks what the verdicts of one session changed
 * @returns what has to follow
 */
export function walkTogether(
	states: Iterable<LadderState>,
	walks: readonly { before: LadderState; after: LadderState }[],
	{ ladders }: Pick<Library, 'ladders'>,
	day: Day,
): LadderState[] {
	const furthest = new Map<string, { step: LadderState['reentry']; at: number; back: boolean }>()
	for (const { before, after } of walks) {
		const pathId = before.reentry?.pathId
		const rungs = pathId ? ladders[pathId]?.rungs : undefined
		if (!pathId || !rungs || (after.reentry && after.reentry.pathId !== pathId)) continue
		const at = after.reentry ? rungs.findIndex((rung) => rung.id === after.reentry?.rungId) : rungs.length
		const known = furthest.get(pathId)
		const back = at < rungs.findIndex((rung) => rung.id === before.reentry?.rungId)
		// A step back outweighs any step on.
		if (!known || (back ? !known.back || at < known.at : !known.back && at > known.at))
			furthest.set(pathId, { step: after.reentry, at, back })
	}
	const following: LadderState[] = []
	for (const state of states) {
		const walked = state.reentry ? furthest.get(state.reentry.pathId) : undefined
		const ladder = ladders[state.ladderId]
		if (!walked || !ladder || state.reentry?.rungId === walked.step?.rungId) continue
		following.push(walked.step ? { ...state, reentry: walked.step } : leaveWayBack(state, ladder, day))
	}
	return following
}
