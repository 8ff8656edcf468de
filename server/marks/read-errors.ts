import { addDays } from '../../core/calendar/day-count'
import { isBelowFull, methodOfKey, partsOfKey } from '../../core/marks/mark-key'
import { type MarkKind, type OwnError, type SquadErrors, ownErrorOf } from '../../core/noise/typical-error'
import { USUAL_DAYS, ownDayPercent } from '../../core/noise/usual'
import type { Method } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import { type KeyScatter, scatterOf } from '../../db/queries/marks'
import { listMembers } from '../../db/queries/squads'

interface Sums extends Pick<KeyScatter, 'pairs' | 'squares'> {
	drillId: string
	kind: MarkKind
	method: Method
	days: number
	/** Squared distances of session means from their athlete's, and what of them the reps leave, as shares. */
	ofMeans: number
	ofReps: number
}

/**
 * A squad's own typical errors by drill on a day, from the scatter of its members' reps within sessions and of their
 * session means over the twelve weeks before: full effort, one key of one athlete at a time, so that nothing but the
 * rep or the day differs. One query.
 */
export async function readErrors(scope: ClubScope, squadId: string, day: string): Promise<SquadErrors> {
	const members = (await listMembers(scope)).filter((one) => one.squadId === squadId).map((one) => one.id)
	const sums = new Map<string, Sums>()
	for (const one of await scatterOf(scope, members, addDays(day, -USUAL_DAYS), day)) {
		if (isBelowFull(one.key)) continue
		const which = {
			drillId: partsOfKey(one.key).drill,
			kind: one.key.split('|')[1] as MarkKind,
			method: methodOfKey(one.key),
		}
		const name = Object.values(which).join('/')
		const known = sums.get(name) ?? { ...which, pairs: 0, squares: 0, days: 0, ofMeans: 0, ofReps: 0 }
		const days = one.sessions - 1
		const mean = one.sum / one.sessions
		const within = one.pairs === 0 ? 0 : one.squares / one.pairs
		sums.set(name, {
			...known,
			pairs: known.pairs + one.pairs,
			squares: known.squares + one.squares,
			days: known.days + days,
			ofMeans: known.ofMeans + (one.sumOfSquares - one.sessions * mean ** 2) / mean ** 2,
			ofReps: known.ofReps + (days * within * (one.sumOfShares / one.sessions)) / mean ** 2,
		})
	}
	const errors: Record<string, Record<string, OwnError>> = {}
	for (const { drillId, kind, method, pairs, squares, days, ofMeans, ofReps } of sums.values()) {
		const own = ownErrorOf(kind, method, squares, pairs)
		if (!own) continue
		const dayPercent = ownDayPercent(kind, ofMeans / days, ofReps / days, days)
		errors[drillId] = {
			...errors[drillId],
			[`${kind}/${method}`]: dayPercent === null ? own : { ...own, dayPercent, days },
		}
	}
	return errors
}
