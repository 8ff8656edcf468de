import { addDays } from '../../core/calendar/day-count'
import type { LogEvent } from '../../core/vocabulary/events'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { Phase } from '../../core/vocabulary/words'
import type { AthleteHistory, HistoryLine } from '../../core/judge/gather-input'
import { startingAt } from '../../core/judge/resolve-line'
import type { LadderState } from '../../core/judge/types'

export const BIG_LADDERS = [
	'shock',
	'stiffness',
	'skip-rhythm',
	'bound',
	'lateral-bound',
	'acceleration',
	'top-speed',
	'repeat-speed',
	'brake',
	'cut',
	'curve',
	'throw',
] as const
const RUNGS: Record<(typeof BIG_LADDERS)[number], string> = {
	shock: 'pause-15',
	stiffness: 'pogo',
	'skip-rhythm': 'skip-overhead',
	bound: 'mini-bound',
	'lateral-bound': 'lateral-stick',
	acceleration: 'three-point-10',
	'top-speed': 'wickets',
	'repeat-speed': 'shuttle-20',
	brake: 'stop-10',
	cut: 'sharp-wide',
	curve: 'half-9',
	throw: 'overhead',
}
const SEASON_WEEKS = 40
const PHASES: Phase[] = ['accumulate', 'accumulate', 'intensify', 'unloading']

export const bigStates = (): Map<string, LadderState> =>
	new Map(BIG_LADDERS.map((id) => [id, startingAt(STARTER_LIBRARY, id, RUNGS[id])]))

/** Seasons of one athlete on twelve ladders, two sessions a week, as the log would hold them. Deterministic. */
export function bigHistory(athlete: number, seasons: number, lastDay: string): AthleteHistory {
	const id = `athlete-${athlete}`
	const sessions = Array.from({ length: seasons * SEASON_WEEKS * 2 }, (_, n) => n)
		.reverse()
		.map((ago) => ({
			id: `s${ago}`,
			day: addDays(lastDay, -Math.floor(ago / 2) * 7 - (ago % 2) * 3),
			startTime: '17:30',
			phase: PHASES[Math.floor(ago / 2) % PHASES.length]!,
		}))
	const lines: HistoryLine[] = []
	const events: LogEvent[] = []
	const counts: AthleteHistory['counts'] = new Map()
	let seq = 0
	for (const session of sessions)
		for (const ladderId of BIG_LADDERS) {
			const rung = STARTER_LIBRARY.ladders[ladderId]!.rungs.find((one) => one.id === RUNGS[ladderId])!
			const drill = STARTER_LIBRARY.drills[rung.drillId]!
			const [entryId, lineId] = [`${session.id}/${ladderId}`, `${session.id}/${ladderId}/${athlete}`]
			lines.push({
				id: lineId,
				entryId,
				sessionId: session.id,
				drillId: drill.id,
				drillVersion: drill.version,
				ladderId,
				rungId: rung.id,
				dose: rung.dose,
				parameters: rung.parameters,
				rest: rung.rest,
			})
			const on = (repNo: number) => ({
				id: `${athlete}-${seq}`,
				sessionId: session.id,
				athleteId: id,
				deviceId: 'd',
				deviceSeq: seq++,
				deviceTime: `${session.day}T18:00:00Z`,
				entryId,
				lineId,
				setNo: 1,
				repNo,
			})
			if (rung.pass.kind === 'time-within' && rung.parameters.distanceM !== undefined) {
				for (let rep = 1; rep <= rung.dose.sets * rung.dose.reps; rep++) {
					const mark: LogEvent = {
						...on(rep),
						type: 'mark',
						kind: 'sprint',
						value: {
							splits: [{ distanceM: rung.parameters.distanceM, timeS: 2 + ((seq * 7 + athlete) % 13) / 100 }],
							method: 'gate',
						},
					}
					events.push(mark)
					counts.set(mark.id, { maximalStarts: 1 })
				}
			} else events.push({ ...on(1), type: 'mark', kind: 'done', value: { reps: rung.dose.sets * rung.dose.reps } })
			events.push({
				...on(1),
				type: 'observation',
				kind: 'quality',
				value: { grade: (seq + athlete) % 5 === 0 ? 'not-yet' : 'good', scope: 'set' },
			})
		}
	return {
		athleteId: id,
		birthDate: '2000-01-01',
		massKg: 70,
		sessions,
		lines,
		events,
		counts,
		stamps: new Map(),
		means: new Map(),
		outside: [],
		care: [],
		newRungs: [],
	}
}
