import { useCallback, useMemo, useState } from 'react'
import type { LogEvent } from '#core/vocabulary/events'
import { drillOn } from '#core/field/live-advice'
import { type LineProgress, progressOf } from '#core/field/line-progress'
import { type BodyLimits, closedNow, heardSince, overToday, unwellNow } from '#core/field/over-today'
import type { FieldLine, FieldSheet } from '#core/field/pack'
import { type Ask, toAsk } from '#core/field/to-ask'
import type { SessionLog } from './use-session-log'

/** What was said of the athletes' bodies by now, here and elsewhere, and what that leaves of their lines. */
export function useBody(
	sheet: FieldSheet,
	log: Pick<SessionLog, 'all' | 'current' | 'limits'>,
	away: ReadonlySet<string>,
) {
	const { all, current, limits } = log
	const [later, setLater] = useState<ReadonlySet<string>>(new Set())
	const byAthlete = useMemo(
		() =>
			new Map(
				sheet.athletes.map((athlete): [string, BodyLimits] => {
					const heard = heardSince(athlete.limits ?? {}, limits[athlete.id])
					return [
						athlete.id,
						{
							closures: [...closedNow(athlete, all, sheet.session.day), ...heard.closures],
							easyOnly: heard.easyOnly || unwellNow(athlete.id, current),
						},
					]
				}),
			),
		[sheet, all, current, limits],
	)
	const limitsOf = useCallback(
		(athleteId: string): BodyLimits => byAthlete.get(athleteId) ?? { closures: [], easyOnly: false },
		[byAthlete],
	)
	/** A line with what was said of the athlete's body: barred, it is over, and out of the queue. */
	const standing = useCallback(
		(line: FieldLine, events: readonly LogEvent[]): LineProgress => {
			const own = limitsOf(line.athleteId)
			const plain = progressOf(line, events)
			const drill = drillOn(plain, sheet)
			return drill && (own.closures.length > 0 || own.easyOnly)
				? progressOf(line, events, overToday(own, drill, plain.swap ? drill.defaults.parameters : line.parameters))
				: plain
		},
		[sheet, limitsOf],
	)
	const asks = useMemo(
		() =>
			sheet.athletes
				.filter((athlete) => (athlete.ask ?? []).length > 0 && !away.has(athlete.id))
				.flatMap((athlete): { athleteId: string; ask: Ask }[] => {
					const lines = sheet.lines
						.filter((line) => line.athleteId === athlete.id && line.blocked === null)
						.map((line) => {
							const progress = progressOf(
								line,
								current.filter((event) => 'entryId' in event && event.entryId === line.entryId),
							)
							return { drill: drillOn(progress, sheet), repsDone: progress.repsDone, finished: progress.finished }
						})
					return toAsk(athlete, lines, current).map((ask) => ({ athleteId: athlete.id, ask }))
				})
				.filter((one) => !later.has(keyOf(one))),
		[sheet, current, away, later],
	)
	return {
		limitsOf,
		standing,
		/** Who is to be asked now how it was. */
		asks,
		notNow: (one: { athleteId: string; ask: Ask }) => setLater((before) => new Set([...before, keyOf(one)])),
	}
}
const keyOf = ({ athleteId, ask }: { athleteId: string; ask: Ask }) => `${athleteId}/${ask.region}/${ask.side}`
