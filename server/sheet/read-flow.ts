import { CHANGE_OVER_MIN } from '../../core/dose/estimate-minutes'
import { type FlowEntry, flowAthlete } from '../../core/plan/flow'
import type { ClubScope } from '../../db/connect'
import { lockSession, writeEntryLanes } from '../../db/queries/sessions'
import { inTransaction } from '../../db/connect'
import { database } from '../database'
import type { Sheet } from './read-sheet'
import { readTargets } from './read-targets'

export const MOST_LANES = 6

/** A session's entries as the flow sees them: each athlete's own turns, with the own best as the time of a sprint where one is known. */
export async function readFlow(scope: ClubScope, sheet: Sheet): Promise<FlowEntry[]> {
	const targets = await readTargets(scope, sheet)
	return sheet.entries.flatMap((entry) => {
		const lines = sheet.athletes.flatMap((athlete) => athlete.lines.filter((line) => line.entryId === entry.id && line.drill !== null).map((line) => ({ athlete, line })))
		if (lines.length === 0) return []
		return [{
			id: entry.id, name: entry.ladderId ? (sheet.library.ladders[entry.ladderId]?.name ?? entry.part) : (sheet.library.drills[entry.drillId]?.name ?? entry.part),
			lanes: entry.lanes, together: entry.together, setUpMin: CHANGE_OVER_MIN, atOnce: lines.every(({ line }) => ['prepare', 'tissue'].includes(line.drill!.family) || line.drill!.intensity === 'low'),
			athletes: lines.map(({ athlete, line }) => {
				const best = line.drill!.measures[0] === 'sprint' ? Object.values(targets.get(line.id)?.bests ?? {})[0] : undefined
				return { ...flowAthlete(athlete.id, line.dose, line.parameters, line.restS, line.drill!, best), watched: line.drill!.oneAtATime === true }
			}),
		}]
	})
}

/** Keeps lanes and grouping of some entries; null for a stranger's session. What is begun is not rearranged from the desk. */
export async function saveLanes(clubId: string, sessionId: string, choices: Record<string, { lanes: number; together: number }>): Promise<{ saved: true } | { problem: string } | null> {
	for (const [, { lanes, together }] of Object.entries(choices)) {
		if (!(Number.isInteger(lanes) && lanes >= 1 && lanes <= MOST_LANES)) return { problem: `Lanes: ${lanes} is not a whole number from 1 to ${MOST_LANES}.` }
		if (together !== 1 && together !== 2) return { problem: `Together: ${together} is neither 1 nor 2.` }
	}
	return inTransaction(database().db, clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		if (!session) return null
		if (session.startedAt) return { problem: 'The session has begun; lanes are changed on the field now.' }
		for (const [id, { lanes, together }] of Object.entries(choices)) await writeEntryLanes(scope, sessionId, id, lanes, together)
		return { saved: true as const }
	})
}
