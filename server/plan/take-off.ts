import { v7 as newId } from 'uuid'
import { shortDay } from '../../core/calendar/say-day'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { loggedSessions, readBlock, unstartedOfBlock } from '../../db/queries/plan'
import { type SessionRow, lockSession } from '../../db/queries/sessions'
import { readSquad } from '../../db/queries/squads'
import {
	bringBackPlanned,
	forgetTakenOff,
	listTakenOff,
	takeOffPlanned,
	takenOffWith,
} from '../../db/queries/taken-off'
import type { SignedIn } from '../access/sign-in'
import { database } from '../database'
import { withSquads } from '../sheet/rewrite-upcoming'
import { writeSheets } from '../sheet/write-lines'

/** What was taken off can be brought back for so long. */
const KEPT_DAYS = 30

/** Takes a session off the calendar that nobody has begun; null for a stranger's id. */
export async function takeOffSession(
	who: SignedIn,
	sessionId: string,
	now: Date,
): Promise<{ off: string } | { problem: string } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		if (!session) return null
		if (session.startedAt || (await loggedSessions(scope, [sessionId])).size > 0)
			return {
				problem: 'Something of this session is logged: it stays. What was logged by mistake is taken back there.',
			}
		return { off: await keep(scope, who, [sessionId], `${session.title}, ${shortDay(session.day)}`, null, now) }
	})
}

/** Takes a block off the calendar as far as it was not begun; what was logged stays. */
export async function removeBlock(
	who: SignedIn,
	blockId: string,
	now: Date,
): Promise<{ removed: number; kept: number } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const block = await readBlock(scope, blockId)
		const squad = block && (await readSquad(scope, block.squadId))
		if (!block || !squad) return null
		const sessions = await unstartedOfBlock(scope, blockId)
		const logged = await loggedSessions(
			scope,
			sessions.map((session) => session.id),
		)
		const planned = sessions.filter((session) => !logged.has(session.id)).map((session) => session.id)
		const title = `${squad.name}, ${block.weeks} weeks from ${shortDay(block.start)}: ${planned.length} sessions`
		await keep(scope, who, planned, title, blockId, now)
		return { removed: planned.length, kept: logged.size }
	})
}

async function keep(
	scope: ClubScope,
	who: SignedIn,
	sessionIds: string[],
	title: string,
	blockId: string | null,
	now: Date,
): Promise<string> {
	const id = newId()
	await forgetTakenOff(scope, new Date(now.getTime() - KEPT_DAYS * 86_400_000))
	await takeOffPlanned(scope, sessionIds, { id, title: title.slice(0, 200), personId: who.personId, at: now, blockId })
	return id
}

/** Brings back what was taken off, its lines by what is known now; null when there is nothing of the kind. */
export async function bringBack(who: SignedIn, id: string, today: string, now: Date): Promise<{ back: number } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const sessionIds = await bringBackPlanned(scope, id)
		if (!sessionIds) return null
		const ahead: SessionRow[] = []
		for (const sessionId of sessionIds) {
			const session = await lockSession(scope, sessionId)
			if (session && session.day >= today) ahead.push(session)
		}
		await writeSheets(scope, await withSquads(scope, ahead), await readLibrary(scope), now)
		return { back: sessionIds.length }
	})
}

/**
 * A phone that was away logs on a session that was taken off meanwhile: it was held, so it is back, with the lines that
 * the phone has.
 */
export async function bringBackHeld(scope: ClubScope, sessionIds: string[]): Promise<void> {
	for (const id of await takenOffWith(scope, sessionIds)) await bringBackPlanned(scope, id)
}

/** What can be brought back, the last first. */
export const readTakenOff = async (scope: ClubScope): Promise<{ id: string; title: string }[]> =>
	(await listTakenOff(scope)).map(({ id, title }) => ({ id, title }))
