import { addDays } from '../../core/calendar/day-count'
import { type DoseCount, emptyCount } from '../../core/dose/dose-count'
import { type DayDose, type RampQuantity, eachQuantity, rampValue } from '../../core/dose/ramp'
import { addSparseInto } from '../../core/dose/sparse-count'
import { foldEvents } from '../../core/events/fold'
import { type OutsideLoad, outsideRamp } from '../../core/judge/outside-load'
import type { ClubScope } from '../../db/connect'
import { outsideLoadOf, outsideOf } from '../../db/queries/care'
import { correctedMarks, countedMarks } from '../../db/queries/log'
import { sessionsBetween } from '../../db/queries/sessions'
import { keptInSessions } from '../by-session'

/** The ramp looks back twelve weeks from the Monday of a day's week. */
const WINDOW_DAYS = 90

type Ramps = Record<RampQuantity, number>
/** Of one athlete in one session, numbers of some 100 bytes: a year of twenty clubs of forty. */
const MOST_KEPT = 200_000
const rampsOf = keptInSessions(MOST_KEPT, readRamps)

/**
 * What the ramp counts, by athlete: sessions that were done up to a day, and what was done outside.
 *
 * @param known up to which day what is to come outside is looked at
 */
export async function doneRamp(
	scope: ClubScope,
	athleteIds: string[],
	upTo: string,
	known = upTo,
): Promise<Map<string, Record<RampQuantity, DayDose[]>>> {
	const from = addDays(upTo, -WINDOW_DAYS)
	const sessions = await sessionsBetween(scope, from, upTo)
	const done = await rampsOf(scope, athleteIds, sessions)
	const outside = new Map<string, OutsideLoad[]>(athleteIds.map((id) => [id, []]))
	for (const row of await outsideOf(scope, athleteIds, from)) outside.get(row.athleteId)!.push(outsideLoadOf(row))
	return new Map(
		athleteIds.map((id) => {
			const ramp = (quantity: RampQuantity): DayDose[] => [
				...sessions.flatMap(({ id: sessionId, day, phase }) => {
					const value = done.get(sessionId)!.get(id)?.[0]?.ramps[quantity] ?? 0
					return value > 0 ? [{ day, unloading: phase === 'unloading', value }] : []
				}),
				...outsideRamp(quantity, outside.get(id)!, known),
			]
			return [id, eachQuantity(ramp)]
		}),
	)
}

/** What each session cost whom, of those who did something in it. */
async function readRamps(
	scope: ClubScope,
	athleteIds: string[],
	sessionIds: string[],
): Promise<{ sessionId: string; athleteId: string; ramps: Ramps }[]> {
	const corrected = await correctedMarks(scope, sessionIds)
	const marks = await countedMarks(
		scope,
		athleteIds,
		sessionIds,
		corrected.map(({ id }) => id),
	)
	const asked = new Set(athleteIds)
	const sums = new Map<string, { sessionId: string; athleteId: string; sum: DoseCount }>()
	for (const { athleteId, sessionId, counts, times } of [
		...foldEvents(corrected).current.map((one) => ({ ...one, times: 1 })),
		...marks,
	]) {
		// Whoever a mark was given to may be somebody who was not asked about.
		if (!counts || !asked.has(athleteId)) continue
		const key = `${sessionId}/${athleteId}`
		const of = sums.get(key) ?? { sessionId, athleteId, sum: emptyCount() }
		addSparseInto(of.sum, counts, times)
		sums.set(key, of)
	}
	return [...sums.values()].map(({ sum, ...of }) => ({
		...of,
		ramps: eachQuantity((quantity) => rampValue(sum, quantity)),
	}))
}
