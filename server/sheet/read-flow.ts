import { type FlowEntry, type FlowLine, flowEntry, flowLineOf } from '../../core/plan/flow'
import { type ClubScope, inTransaction } from '../../db/connect'
import { lockSession, writeEntryLanes } from '../../db/queries/sessions'
import { database } from '../database'
import type { Sheet } from './read-sheet'
import { entryName } from '../../core/plan/entry-parts'
import { readTargets } from './read-targets'
import type { SignedIn } from '../access/sign-in'
import { countSave } from '../submissions/take-version'

export const MOST_LANES = 6

/** A session's entries as the flow sees them: each athlete's own turns, with the own best as the time of a sprint where one is known. */
export async function readFlow(scope: ClubScope, sheet: Sheet): Promise<FlowEntry[]> {
	const targets = await readTargets(scope, sheet)
	return sheet.entries.flatMap((entry) => {
		const lines = sheet.athletes.flatMap((athlete) =>
			athlete.lines.flatMap((line): FlowLine[] => {
				const { drill } = line
				if (line.entryId !== entry.id || drill === null || line.drillId === null) return []
				const bestS = drill.measures[0] === 'sprint' ? Object.values(targets.get(line.id)?.bests ?? {})[0] : undefined
				return [flowLineOf(athlete.id, { ...line, drillId: line.drillId }, sheet.drills.of(line), bestS)]
			}),
		)
		return (
			flowEntry(
				{ id: entry.id, name: entryName(entry, sheet.library), lanes: entry.lanes, together: entry.together },
				lines,
			) ?? []
		)
	})
}

/** Keeps lanes and grouping of some entries; null for a stranger's session. What is begun is not rearranged from the desk. */
export async function saveLanes(
	who: Pick<SignedIn, 'clubId' | 'personId'>,
	sessionId: string,
	choices: Record<string, { lanes: number; together: number }>,
	now: Date,
): Promise<{ saved: true } | { problem: string } | null> {
	for (const [, { lanes, together }] of Object.entries(choices)) {
		if (!(Number.isInteger(lanes) && lanes >= 1 && lanes <= MOST_LANES))
			return { problem: `Lanes: ${lanes} is not a whole number from 1 to ${MOST_LANES}.` }
		if (together !== 1 && together !== 2) return { problem: `Together: ${together} is neither 1 nor 2.` }
	}
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		if (!session) return null
		if (session.startedAt) return { problem: 'The session has begun; lanes are changed on the field now.' }
		await countSave(scope, who, 'session', sessionId, now)
		for (const [id, { lanes, together }] of Object.entries(choices))
			await writeEntryLanes(scope, sessionId, id, lanes, together)
		return { saved: true as const }
	})
}
