import { addDays } from '../../core/calendar/day-count'
import { isBelowFull, methodOfKey } from '../../core/marks/mark-key'
import { type MarkKind, type OwnErrors, ownErrorOf } from '../../core/noise/typical-error'
import { USUAL_DAYS } from '../../core/noise/usual'
import type { Method } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import { scatterOf } from '../../db/queries/marks'
import { listMembers } from '../../db/queries/squads'

/**
 * A squad's own typical errors on a day, from the scatter of its members' reps within sessions over the twelve weeks
 * before: full effort, one key at a time, so that nothing but the rep differs. One query.
 */
export async function readErrors(scope: ClubScope, squadId: string, day: string): Promise<OwnErrors> {
	const members = (await listMembers(scope)).filter((one) => one.squadId === squadId).map((one) => one.id)
	const sums = new Map<string, { kind: MarkKind; method: Method; squares: number; pairs: number }>()
	for (const { key, squares, pairs } of await scatterOf(scope, members, addDays(day, -USUAL_DAYS), day)) {
		if (isBelowFull(key)) continue
		const [kind, method] = [key.split('|')[1] as MarkKind, methodOfKey(key)]
		const known = sums.get(`${kind}/${method}`) ?? { kind, method, squares: 0, pairs: 0 }
		sums.set(`${kind}/${method}`, { ...known, squares: known.squares + squares, pairs: known.pairs + pairs })
	}
	return Object.fromEntries(
		[...sums].flatMap(([name, { kind, method, squares, pairs }]) => {
			const own = ownErrorOf(kind, method, squares, pairs)
			return own ? [[name, own]] : []
		}),
	)
}
