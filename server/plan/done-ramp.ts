import { addDays } from '../../core/calendar/day-count'
import { type DoseCount, emptyCount } from '../../core/dose/dose-count'
import { type DayDose, RAMP_NAMES, type RampQuantity, rampValue } from '../../core/dose/ramp'
import { addSparseInto } from '../../core/dose/sparse-count'
import { foldEvents } from '../../core/events/fold'
import { type OutsideLoad, outsideRamp } from '../../core/judge/outside-load'
import type { ClubScope } from '../../db/connect'
import { hasLogged, logChangesUpTo } from '../../db/noted-writes'
import { outsideLoadOf, outsideOf } from '../../db/queries/care'
import { correctedMarks, countedMarks } from '../../db/queries/log'
import { sessionsBetween } from '../../db/queries/sessions'
import { BySession } from '../by-session'

/** The ramp looks back twelve weeks. */
const WINDOW_DAYS = 84
const QUANTITIES = Object.keys(RAMP_NAMES) as RampQuantity[]

type Ramps = Record<RampQuantity, number>
/** What one session cost whom, of those who were asked about: null for who did nothing in it. */
type OfSession = ReadonlyMap<string, Ramps | null>

/** Of one athlete in one session, numbers of some 100 bytes: a year of twenty clubs of forty. */
const MOST_KEPT = 200_000
const kept = new BySession<OfSession>(MOST_KEPT, (ramps) => ramps.size)

/** What the ramp counts of the days gone by, by athlete: sessions and what was done outside. */
export async function doneRamp(
	scope: ClubScope,
	athleteIds: string[],
	today: string,
): Promise<Map<string, Record<RampQuantity, DayDose[]>>> {
	const from = addDays(today, -WINDOW_DAYS)
	const sessions = await sessionsBetween(scope, from, today)
	const done = await rampsOf(scope, athleteIds, sessions)
	const outside = new Map<string, OutsideLoad[]>(athleteIds.map((id) => [id, []]))
	for (const row of await outsideOf(scope, athleteIds, from)) outside.get(row.athleteId)!.push(outsideLoadOf(row))
	return new Map(
		athleteIds.map((id) => {
			const ramp = (quantity: RampQuantity): DayDose[] => [
				...sessions.flatMap(({ id: sessionId, day, phase }) => {
					const value = done.get(sessionId)!.get(id)?.[quantity] ?? 0
					return value > 0 ? [{ day, unloading: phase === 'unloading', value }] : []
				}),
				...outsideRamp(quantity, outside.get(id)!, today),
			]
			return [id, eachQuantity(ramp)]
		}),
	)
}

const eachQuantity = <T>(of: (quantity: RampQuantity) => T): Record<RampQuantity, T> =>
	Object.fromEntries(QUANTITIES.map((quantity) => [quantity, of(quantity)])) as Record<RampQuantity, T>

/** Read once for every session that nobody writes to any more; in a transaction that has logged, what it sees. */
async function rampsOf(
	scope: ClubScope,
	athleteIds: string[],
	sessions: readonly { id: string; day: string }[],
): Promise<Map<string, OfSession>> {
	if (hasLogged(scope.db))
		return readRamps(
			scope,
			athleteIds,
			sessions.map(({ id }) => id),
		)
	const changes = await logChangesUpTo(scope.db, scope.clubId)
	const known = new Map<string, OfSession>()
	for (const { id, day } of sessions) known.set(id, kept.get(scope, id, changes(day)) ?? new Map<string, never>())
	const missing = sessions.filter(({ id }) => !athleteIds.every((athleteId) => known.get(id)!.has(athleteId)))
	const read = await readRamps(
		scope,
		athleteIds,
		missing.map(({ id }) => id),
	)
	for (const { id, day } of missing) {
		const both = new Map([...known.get(id)!, ...read.get(id)!])
		kept.put(scope, id, changes(day), both)
		known.set(id, both)
	}
	return known
}

async function readRamps(
	scope: ClubScope,
	athleteIds: string[],
	sessionIds: string[],
): Promise<Map<string, Map<string, Ramps | null>>> {
	const corrected = await correctedMarks(scope, sessionIds)
	const marks = await countedMarks(
		scope,
		athleteIds,
		sessionIds,
		corrected.map(({ id }) => id),
	)
	const sums = new Map<string, DoseCount>()
	for (const { athleteId, sessionId, counts, times } of [
		...foldEvents(corrected).current.map((one) => ({ ...one, times: 1 })),
		...marks,
	]) {
		if (!counts) continue
		const key = `${sessionId}/${athleteId}`
		const sum = sums.get(key) ?? emptyCount()
		addSparseInto(sum, counts, times)
		sums.set(key, sum)
	}
	return new Map(
		sessionIds.map((sessionId) => [
			sessionId,
			new Map(
				athleteIds.map((athleteId) => {
					const sum = sums.get(`${sessionId}/${athleteId}`)
					return [athleteId, sum ? eachQuantity((quantity) => rampValue(sum, quantity)) : null]
				}),
			),
		]),
	)
}
