import { groupBy } from '../../core/lists/group-by'
import { addDays } from '../../core/calendar/day-count'
import { MARK_KINDS, betterOf, byKey } from '../../core/marks/keep-session'
import { isFreeRunLike, markKey, methodOfKey } from '../../core/marks/mark-key'
import { USUAL_DAYS, type Usual, usualOf } from '../../core/noise/usual'
import type { MarkKind } from '../../core/noise/typical-error'
import type { Aid, CarriedLoad, Parameters } from '../../core/vocabulary/dose'
import type { Drill } from '../../core/vocabulary/drill'
import { METHODS_OF, type Method, SPRINT_METHODS, type Surface } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import { type KeptMean, type KeyBests, bestsBefore, meansOf } from '../../db/queries/marks'
import { keptFor } from '../kept'

/** What is planned, as far as a mark of it may be compared. */
export interface Planned {
	drill: Drill
	parameters: Parameters
	carried?: CarriedLoad | null | undefined
	aid?: Aid | null | undefined
}

/** What is kept of some athletes' marks before a day: in two queries, whatever is asked of it. */
export interface Usuals {
	/** The usual of a key; null when there is none yet. */
	usualOf: (athleteId: string, key: string) => Usual | null
	/** By method, of marks made as a line says on a ground; a line of one side's marks has none. */
	ofLine: (
		athleteId: string,
		line: Planned,
		surface: Surface | null,
	) => Partial<Record<Method, { usual: Usual | null; best: number }>>
	/** The best time over the same way from the same start, free and at full effort, by method, whatever the drill. */
	freeRuns: (athleteId: string, line: Planned, surface: Surface | null) => Partial<Record<Method, number>>
	bests: readonly KeyBests[]
	means: readonly KeptMean[]
}

/** Kept, because a sheet's targets and a phone's pack both go by it; what is logged on the day itself is not looked at. */
export const readUsuals = (scope: ClubScope, athleteIds: string[], day: string): Promise<Usuals> => {
	const before = addDays(day, -1)
	const ids = [...athleteIds].sort()
	return keptFor(scope, ['usuals', ids, day], (scope) => workOutUsuals(scope, ids, day), { day: before, marks: before })
}
async function workOutUsuals(scope: ClubScope, athleteIds: string[], day: string): Promise<Usuals> {
	const means = await meansOf(scope, athleteIds, addDays(day, -USUAL_DAYS), day)
	const bests = await bestsBefore(scope, athleteIds, day)
	const meansOfEach = groupBy(means, (one) => one.athleteId)
	const sorted = new Map(athleteIds.map((id) => [id, byKey(meansOfEach.get(id) ?? [])]))
	const bestOf = new Map(bests.map((one) => [`${one.athleteId}/${one.key}`, one]))
	const kindOf = (drill: Drill): MarkKind | null => MARK_KINDS.find((kind) => kind === drill.measures[0]) ?? null
	const keyFor = (
		{ drill, parameters, carried, aid }: Planned,
		kind: MarkKind,
		method: Method,
		surface: Surface | null,
	) => markKey(drill, parameters, { kind, method, surface, carried, aid })
	const usual = (athleteId: string, key: string) =>
		usualOf(sorted.get(athleteId)?.get(key) ?? [], day, key.split('|')[1] as MarkKind, methodOfKey(key))
	return {
		usualOf: usual,
		ofLine: (athleteId, line, surface) => {
			const kind = kindOf(line.drill)
			if (!kind) return {}
			return Object.fromEntries(
				METHODS_OF[kind].flatMap((method) => {
					const key = keyFor(line, kind, method, surface)
					const best = bestOf.get(`${athleteId}/${key}`)
					return best
						? [
								[
									method,
									{ usual: usual(athleteId, key), best: betterOf(kind) === 'lower' ? best.lowest : best.highest },
								],
							]
						: []
				}),
			)
		},
		freeRuns: (athleteId, line, surface) =>
			Object.fromEntries(
				SPRINT_METHODS.flatMap((method) => {
					const like = keyFor(line, 'sprint', method, surface)
					const times = bests
						.filter((one) => one.athleteId === athleteId && isFreeRunLike(one.key, like))
						.map((one) => one.lowest)
					return times.length > 0 ? [[method, Math.min(...times)]] : []
				}),
			),
		bests,
		means,
	}
}
