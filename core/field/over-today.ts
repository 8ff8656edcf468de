import { CLOSE_FROM, SPARE_FROM, closesEverything, touches } from '../care/grades'
import { intensityOf } from '../dose/count-rep'
import { bars, placeOf } from '../rules/bars'
import type { Closure } from '../vocabulary/care'
import type { Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { LogEvent } from '../vocabulary/events'
import { EVERYTHING, type Leg, type Region } from '../vocabulary/words'

/*
 * What a pain report in a session means there and then, on a device that knows nothing of what was said on other
 * days but the lowest score that would close or spare a region now. The server folds the same reports by the same
 * core; whatever it says on top stands on the line already.
 */

/** From which score a report today closes or spares a side of a region, where that is lower than for everybody. */
export interface SayLimit {
	region: Region
	side: Leg
	closesFrom: number
	sparesFrom: number
}
type Said = Extract<LogEvent, { kind: 'pain' }>

const painsOf = (athleteId: string, events: readonly LogEvent[]): Said[] =>
	events.flatMap((event) =>
		event.athleteId === athleteId && event.kind === 'pain' && event.void !== true ? [event as Said] : [],
	)

/** What the reports of this session close and spare, by the limits of the athlete. */
export function closedNow(
	{ id, sayLimits = [] }: { id: string; sayLimits?: readonly SayLimit[] | undefined },
	events: readonly LogEvent[],
	day: string,
): Closure[] {
	return painsOf(id, events).flatMap(({ value }): Closure[] => {
		const { region, side, score, redFlag } = value
		if (closesEverything({ kind: 'pain', region, side, score, redFlag, day }))
			return [{ region: EVERYTHING, grade: 'everything', since: day }]
		const own = sayLimits.filter((one) => one.region === region && touches(value, one.side))
		const closesFrom = Math.min(CLOSE_FROM, ...own.map((one) => one.closesFrom))
		const sparesFrom = Math.min(SPARE_FROM, ...own.map((one) => one.sparesFrom))
		if (redFlag || score >= closesFrom) return [{ region, side, grade: 'closed', since: day }]
		return score >= sparesFrom ? [{ region, side, grade: 'spare', since: day }] : []
	})
}

/** Why a drill is over for now, "left knee"; null when nothing said in this session bars it. */
export function overNow(closures: readonly Closure[], drill: Drill, parameters: Parameters): string | null {
	const found = closures.filter((one) => bars(one, { drill, intensity: intensityOf(drill, parameters) }))
	return found.length === 0 ? null : [...new Set(found.map(placeOf))].join(', ')
}

/** "left knee 2 of 10": the most that was said in this session of what a drill loads, and is not asked about since. */
export function saidOf(athleteId: string, drill: Drill, events: readonly LogEvent[]): string | null {
	const said = painsOf(athleteId, events)
		.filter(({ value, deviceTime }) => {
			if (value.score < 1 && !value.redFlag) return false
			const quiet = events.some(
				(event) =>
					event.kind === 'quiet' &&
					event.athleteId === athleteId &&
					event.value.region === value.region &&
					event.value.score <= 1 &&
					event.deviceTime > deviceTime,
			)
			return !quiet && (drill.regions[value.region] ?? 0) > 0
		})
		.sort((a, b) => b.value.score - a.value.score)[0]
	return said ? `${placeOf(said.value)} ${said.value.score} of 10` : null
}
