import { timeAtDistance } from '../../core/measure/sprint/sprint-curve'
import type { LogEvent } from '../../core/vocabulary/events'
import type { Drill } from '../../core/vocabulary/drill'
import type { PlannedLine } from '../../core/vocabulary/line'
import { readStop } from '../../core/noise/one-more'
import type { Random } from '../../core/chance/random'
import type { DemoAthlete } from './scenario'

export interface LinePlace {
	sessionId: string
	athleteId: string
	entryId: string
	lineId: string
	/** Makes the next event's id, device, order and time. */
	stamp: () => Pick<LogEvent, 'id' | 'deviceId' | 'deviceSeq' | 'deviceTime'>
	/** 0 nine weeks ago … 1 now: everybody gets a little better. */
	progress: number
	sessionsAgo: number
	/** Within two days of a match. */
	afterMatch?: boolean
	/** Share by which something makes these reps faster. */
	helped?: number
}

const to = (value: number, decimals: number) => Number(value.toFixed(decimals))
/** Where the club’s gates stand, as far as a line is long. */
const GATES_M = [5, 10, 20, 30]
/** A three-point start and a call cost a little more than a standing fall [our setting]. */
const START_COST: Record<string, number> = { standing: 0.12, 'three-point': 0.06, reaction: 0.3, rolling: 0 }

/** What a coach would have logged for one athlete's line, from the athlete's own model and seeded noise. */
export function simulateLine(
	athlete: DemoAthlete,
	line: PlannedLine,
	drill: Drill,
	place: LinePlace,
	random: Random,
): LogEvent[] {
	const events: LogEvent[] = []
	const { sessionId, athleteId, entryId, lineId } = place
	const on = (setNo: number, repNo: number) => ({
		...place.stamp(),
		sessionId,
		athleteId,
		entryId,
		lineId,
		setNo,
		repNo,
	})
	const timed = drill.measures[0] === 'sprint' && drill.start !== undefined && line.parameters.distanceM !== undefined
	const values: number[] = []

	for (let setNo = 1; setNo <= line.dose.sets; setNo++) {
		if (timed) {
			for (let repNo = 1; repNo <= line.dose.reps; repNo++) {
				const splits = sprintSplits(
					athlete,
					line.parameters.distanceM ?? 0,
					drill.start ?? 'standing',
					place,
					(setNo - 1) * line.dose.reps + repNo,
					random,
				)
				values.push(splits.at(-1)?.timeS ?? 0)
				events.push({
					...on(setNo, repNo),
					type: 'mark',
					kind: 'sprint',
					value: { splits, method: athlete.method ?? 'gate' },
				})
			}
			const reading = readStop(values, 'lower', 3, 0.02)
			if (reading?.stopAfter != null && athlete.fallsFromRep === undefined) {
				events.push({
					...place.stamp(),
					sessionId,
					athleteId,
					entryId,
					lineId,
					type: 'decision',
					kind: 'end-set',
					value: { reason: 'drop-off' },
				})
				break
			}
		} else if (drill.measures[0] === 'contact') {
			const sides = drill.legs === 'one' ? (['left', 'right'] as const) : ([undefined] as const)
			for (let repNo = 1; repNo <= line.dose.reps; repNo++)
				for (const side of sides) {
					const higher = Math.max(0, (line.parameters.heightCm ?? 15) - 15) / 15
					const oneLeg = drill.legs === 'one' ? 1.15 * (side === 'right' ? 1 + (athlete.rightLonger ?? 0) : 1) : 1
					const contactS = to(
						athlete.contactS * (1 - 0.08 * place.progress) * (1 + 0.06 * higher) * oneLeg + random.normal(0.006),
						3,
					)
					const flightS = to(athlete.flightS * (1 + 0.03 * higher) + random.normal(0.008), 3)
					events.push({
						...on(setNo, repNo),
						...(side ? { side } : {}),
						type: 'mark',
						kind: 'contact',
						value: { contactS, flightS, method: 'mat' },
					})
				}
		} else if (drill.measures[0] === 'distance') {
			const distanceM = to(
				drill.family === 'throw'
					? 8.5 + athlete.mss * 0.4 + random.normal(0.35)
					: athlete.flightS *
							4.4 *
							(1 + (athlete.jumpGains ?? 0) * place.progress) *
							(1 - (place.afterMatch ? (athlete.flatAfterMatch ?? 0) : 0)) +
							random.normal(0.06),
				2,
			)
			events.push({ ...on(setNo, 1), type: 'mark', kind: 'distance', value: { distanceM, method: 'tape' } })
			if (line.dose.reps > 1)
				events.push({ ...on(setNo, 2), type: 'mark', kind: 'done', value: { reps: line.dose.reps - 1 } })
		} else events.push({ ...on(setNo, 1), type: 'mark', kind: 'done', value: { reps: line.dose.reps } })

		if (line.ladderId !== null) {
			const good = random.chance(athlete.skill - 0.1 + 0.08 * place.progress)
			const grade = good ? ('good' as const) : random.chance(0.65) ? ('not-yet' as const) : ('poor' as const)
			events.push({
				...on(setNo, line.dose.reps),
				type: 'observation',
				kind: 'quality',
				value: {
					grade,
					scope: 'set',
					...(grade === 'poor' && drill.faults[0] ? { fault: drill.faults[0].fault } : {}),
				},
			})
		}
	}
	return events
}

function sprintSplits(
	athlete: DemoAthlete,
	distanceM: number,
	start: string,
	place: LinePlace,
	rep: number,
	random: Random,
) {
	const mss = athlete.mss * (1 + (athlete.gains ?? 0.012) * place.progress)
	const warm = rep === 1 ? 0.008 : 0
	const falls =
		athlete.fallsFromRep !== undefined && place.sessionsAgo <= 2 && rep >= athlete.fallsFromRep
			? 0.045 + 0.017 * (rep - athlete.fallsFromRep)
			: 0
	const form = 1 + warm + falls + (place.afterMatch ? (athlete.flatAfterMatch ?? 0) : 0) - (place.helped ?? 0)
	const noise = random.normal(athlete.method === 'stopwatch' ? 0.08 : 0.014)
	const slow = athlete.slowFrom
	const at = (metres: number) =>
		to(
			(timeAtDistance(mss, athlete.tau, metres) + (START_COST[start] ?? 0)) * form +
				(slow && metres > slow.metres ? slow.seconds : 0) +
				noise +
				// Gates in between shake with the whole run alone.
				(metres === 10 || metres === distanceM ? random.normal(0.003) : 0),
			2,
		)
	const distances =
		athlete.method === 'stopwatch' ? [distanceM] : [...GATES_M.filter((gate) => gate < distanceM), distanceM]
	return distances.map((metres) => ({ distanceM: metres, timeS: at(metres) }))
}
