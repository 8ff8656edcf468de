import { addDays } from '../../core/calendar/day-count'
import { type DoseCount, emptyCount } from '../../core/dose/dose-count'
import { type DayDose, RAMP_NAMES, type RampQuantity, rampValue } from '../../core/dose/ramp'
import { addSparseInto } from '../../core/dose/sparse-count'
import { foldEvents } from '../../core/events/fold'
import { type OutsideLoad, outsideRamp } from '../../core/judge/outside-load'
import type { ClubScope } from '../../db/connect'
import { outsideLoadOf, outsideOf } from '../../db/queries/care'
import { correctedMarks, countedMarks } from '../../db/queries/log'

/** The ramp looks back twelve weeks. */
const WINDOW_DAYS = 84

/** What the ramp counts of the days gone by, by athlete: sessions and what was done outside. */
export async function doneRamp(
	scope: ClubScope,
	athleteIds: string[],
	today: string,
): Promise<Map<string, Record<RampQuantity, DayDose[]>>> {
	const from = addDays(today, -WINDOW_DAYS)
	const corrected = await correctedMarks(scope, from, today)
	const marks = await countedMarks(
		scope,
		athleteIds,
		from,
		today,
		corrected.map(({ id }) => id),
	)
	const done = [...foldEvents(corrected).current.map((one) => ({ ...one, times: 1 })), ...marks]
	const outside = await outsideOf(scope, athleteIds, from)
	const bySession = new Map<string, { athleteId: string; day: string; unloading: boolean; count: DoseCount }>()
	for (const { athleteId, sessionId, day, phase, counts, times } of done) {
		if (!counts || !athleteId) continue
		const known = bySession.get(`${athleteId}/${sessionId}`) ?? {
			athleteId,
			day,
			unloading: phase === 'unloading',
			count: emptyCount(),
		}
		addSparseInto(known.count, counts, times)
		bySession.set(`${athleteId}/${sessionId}`, known)
	}
	const loads = new Map<string, OutsideLoad[]>()
	for (const row of outside) loads.set(row.athleteId, [...(loads.get(row.athleteId) ?? []), outsideLoadOf(row)])
	return new Map(
		athleteIds.map((id) => [
			id,
			Object.fromEntries(
				(Object.keys(RAMP_NAMES) as RampQuantity[]).map((quantity) => [
					quantity,
					[
						...[...bySession.values()]
							.filter((one) => one.athleteId === id)
							.flatMap(({ day, unloading, count }) => {
								const value = rampValue(count, quantity)
								return value > 0 ? [{ day, unloading, value }] : []
							}),
						...outsideRamp(quantity, loads.get(id) ?? [], today),
					],
				]),
			) as unknown as Record<RampQuantity, DayDose[]>,
		]),
	)
}
