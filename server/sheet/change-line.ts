import type { ClubScope } from '../../db/connect'
import { readLines, readSession } from '../../db/queries/sessions'
import { setLineByHand } from './write-lines'

/** Sets one athlete's dose by hand on an unstarted sheet; null for a stranger's id. */
export async function changeLineByHand(
	scope: ClubScope,
	sessionId: string,
	lineId: string,
	typed: { sets: string; reps: string },
	now: Date,
): Promise<{ saved: true } | { problem: string } | null> {
	const session = await readSession(scope, sessionId)
	const line = (await readLines(scope, [sessionId])).find((row) => row.id === lineId)
	if (!session || !line) return null
	if (session.startedAt) return { problem: 'This session has begun: its sheet is frozen.' }
	if (line.blocked) return { problem: 'A blocked line opens only with a recorded clearance.' }
	const [sets, reps] = [Number(typed.sets), Number(typed.reps)]
	if (!Number.isInteger(sets) || sets < 1 || sets > 20)
		return { problem: `“${typed.sets}”: whole sets from 1 to 20 are expected.` }
	if (!Number.isInteger(reps) || reps < 1 || reps > 60)
		return { problem: `“${typed.reps}”: whole reps from 1 to 60 are expected.` }
	if (line.drillId === 'depth-jump' && reps > 5) return { problem: `“${reps}”: never more than 5 depth jumps a set.` }
	await setLineByHand(scope, line, { sets, reps }, line.parameters, now)
	return { saved: true }
}
