import { type Day, addDays } from '../../core/calendar/day-count'
import { NEAR_DAYS } from '../../core/dose/work-kinds'
import { type AthleteHistory, type Done, doneOf, workFor } from '../../core/judge/gather-input'
import type { WorkDay } from '../../core/judge/types'
import type { Library } from '../../core/vocabulary/library'
import type { ClubScope } from '../../db/connect'
import { outsideLoadOf, outsideOf } from '../../db/queries/care'
import { drillsAsCited, readHeld } from '../review/gather'

/** What one athlete did near some days, and what is known to come outside the sessions. */
export type NearWork = Pick<AthleteHistory, 'sessions' | 'outside'> & Pick<Done, 'work'>

/** All that may lie too close to a session on one of some days, by athlete: far less than a verdict looks at. */
export async function readNearWork(
	scope: ClubScope,
	athleteIds: string[],
	{ from, done }: { from: Day; done: Day },
	library: Library,
): Promise<Map<string, NearWork>> {
	const first = addDays(from, -NEAR_DAYS)
	const [held, outside, drillOf] = [
		await readHeld(scope, athleteIds, first, done),
		await outsideOf(scope, athleteIds, first),
		await drillsAsCited(scope, library),
	]
	return new Map(
		athleteIds.map((id) => {
			const { sessions, lines, events } = held.of(id)
			return [
				id,
				{
					sessions,
					outside: outside.filter(({ athleteId }) => athleteId === id).map(outsideLoadOf),
					work: doneOf({ sessions, lines, events, counts: new Map() }, drillOf).work,
				},
			]
		}),
	)
}

/** Work near a session's start, before it and after it, its own left out. */
export const workNear = (near: NearWork, { day, startTime }: { day: Day; startTime: string }): WorkDay[] =>
	workFor({ day: addDays(day, NEAR_DAYS), startTime: '23:59' }, near, near.work).filter(
		(one) => one.outside || one.day !== day || one.startTime !== startTime,
	)
