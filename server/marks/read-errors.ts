import { addDays } from '../../core/calendar/day-count'
import { isBelowFull, methodOfKey, partsOfKey } from '../../core/marks/mark-key'
import { type MarkKind, type OwnError, type SquadErrors, ownErrorOf } from '../../core/noise/typical-error'
import { USUAL_DAYS } from '../../core/noise/usual'
import type { Method } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import { scatterOf } from '../../db/queries/marks'
import { listMembers } from '../../db/queries/squads'

/**
 * A squad's own typical errors by drill on a day, from the scatter of its members' reps within sessions over the twelve
 * weeks before: full effort, one key at a time, so that nothing but the rep differs. One query.
 */
export async function readErrors(scope: ClubScope, squadId: string, day: string): Promise<SquadErrors> {
	const members = (await listMembers(scope)).filter((one) => one.squadId === squadId).map((one) => one.id)
	const sums = new Map<string, { drillId: string; kind: MarkKind; method: Method; squares: number; pairs: number }>()
	for (const { key, squares, pairs } of await scatterOf(scope, members, addDays(day, -USUAL_DAYS), day)) {
		if (isBelowFull(key)) continue
		const which = { drillId: partsOfKey(key).drill, kind: key.split('|')[1] as MarkKind, method: methodOfKey(key) }
		const name = Object.values(which).join('/')
		const known = sums.get(name)
		sums.set(name, { ...which, squares: (known?.squares ?? 0) + squares, pairs: (known?.pairs ?? 0) + pairs })
	}
	const errors: Record<string, Record<string, OwnError>> = {}
	for (const { drillId, kind, method, squares, pairs } of sums.values()) {
		const own = ownErrorOf(kind, method, squares, pairs)
		if (own) errors[drillId] = { ...errors[drillId], [`${kind}/${method}`]: own }
	}
	return errors
}
