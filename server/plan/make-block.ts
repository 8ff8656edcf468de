import { v7 as newId } from 'uuid'
import { addDays } from '../../core/calendar/days'
import { PHASES } from '../../core/library/types'
import { type BlockPlan, blockSessions } from '../../core/plan/block'
import { inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import { deleteBlock, deletePlanned, insertBlock, loggedSessions, readBlock, unstartedOfBlock } from '../../db/queries/plan'
import { type SessionRow, insertAttending, insertEntries, insertSession, lastOfSquad, readEntries, sessionsBetween, updateSession } from '../../db/queries/sessions'
import { listMembers, readSquad } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { database } from '../database'
import { dried } from '../sheet/dried'
import { writeLines } from '../sheet/write-lines'

const TIME = /^([01]\d|2[0-3]):[0-5]\d$/

/** A block as a form sends it, or what is wrong with it. */
export function readBlockPlan(value: unknown): { plan: BlockPlan } | { problem: string } {
	const { start, phases, shape, days } = (value ?? {}) as Partial<BlockPlan>
	if (typeof start !== 'string' || !/^\d{4}-\d{2}-\d{2}$/.test(start)) return { problem: 'Pick the Monday the block begins with.' }
	if (!Array.isArray(phases) || !phases.every((phase) => PHASES.includes(phase))) return { problem: 'Each week has an emphasis.' }
	if (!Array.isArray(shape) || !shape.every((load) => typeof load === 'number')) return { problem: 'Each week has a load in percent.' }
	if (!Array.isArray(days) || !days.every((day) => Number.isInteger(day?.weekday) && day.weekday >= 1 && day.weekday <= 7 && TIME.test(String(day.startTime)) && Number.isInteger(day.minutes) && day.minutes >= 10 && day.minutes <= 300)) return { problem: 'Each training day has a time and 10 to 300 minutes.' }
	const plan: BlockPlan = { start, phases, shape, days: days.map(({ weekday, startTime, minutes }) => ({ weekday, startTime, minutes })) }
	try {
		blockSessions(plan)
	} catch (error) {
		if (error instanceof RangeError) return { problem: error.message }
		throw error
	}
	return { plan }
}

/**
 * Writes a block's sessions: the parts of the squad's last session, at each week's share and emphasis, with
 * each athlete's own lines. A day on which the squad already trains is left as it is.
 */
export async function makeBlock(who: SignedIn, squadId: string, plan: BlockPlan, now: Date): Promise<{ blockId: string; made: number; left: number } | { problem: string } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const squad = await readSquad(scope, squadId)
		if (!squad) return null
		const pattern = await lastOfSquad(scope, squadId)
		if (!pattern) return { problem: 'This squad has no session yet: make one first, and the block repeats its parts.' }
		const [library, entries] = [await readLibrary(scope), await readEntries(scope, [pattern.id])]
		const members = (await listMembers(scope)).filter((member) => member.squadId === squadId).map((member) => member.id)
		if (members.length === 0) return { problem: 'Nobody is in this squad yet.' }
		const planned = blockSessions(plan)
		const taken = new Set((await sessionsBetween(scope, plan.start, addDays(plan.start, plan.phases.length * 7))).filter((session) => session.squadId === squadId).map((session) => session.day))
		const blockId = newId()
		await insertBlock(scope, { id: blockId, squadId, start: plan.start, weeks: plan.phases.length, plan, madeBy: who.personId, madeAt: now })
		const free = planned.filter((one) => !taken.has(one.day))
		for (const one of free) {
			const session: SessionRow = { ...pattern, id: newId(), day: one.day, startTime: one.startTime, plannedMinutes: one.minutes, phase: one.phase, blockId, surface: dried(pattern.surface), startedAt: null, reviewedAt: null }
			await insertSession(scope, session)
			await insertAttending(scope, session.id, members)
			await insertEntries(scope, entries.map((entry) => ({ ...entry, id: newId(), sessionId: session.id, doseFactor: entry.family === 'prepare' ? 1 : one.share })))
			await writeLines(scope, session, squad, library, now)
		}
		return { blockId, made: free.length, left: planned.length - free.length }
	})
}

/** Takes a block off the calendar as far as it was not begun; what was logged stays. */
export async function removeBlock(clubId: string, blockId: string): Promise<{ removed: number; kept: number } | null> {
	return inTransaction(database().db, clubId, async (scope) => {
		if (!(await readBlock(scope, blockId))) return null
		const sessions = await unstartedOfBlock(scope, blockId)
		const logged = await loggedSessions(scope, sessions.map((session) => session.id))
		const planned = sessions.filter((session) => !logged.has(session.id))
		await deletePlanned(scope, planned.map((session) => session.id))
		await deleteBlock(scope, blockId)
		return { removed: planned.length, kept: logged.size }
	})
}

/** Moves all of a block's sessions that were not begun by whole weeks. */
export async function shiftBlock(clubId: string, blockId: string, weeks: number, today: string, now: Date): Promise<{ moved: number } | { problem: string } | null> {
	if (!Number.isInteger(weeks) || weeks === 0 || Math.abs(weeks) > 12) return { problem: 'A block is shifted by 1 to 12 weeks.' }
	return inTransaction(database().db, clubId, async (scope) => {
		const block = await readBlock(scope, blockId)
		const squad = block && (await readSquad(scope, block.squadId))
		if (!block || !squad) return null
		const library = await readLibrary(scope)
		const sessions = await unstartedOfBlock(scope, blockId)
		if (sessions.some((session) => addDays(session.day, weeks * 7) < today)) return { problem: 'That would put sessions into the past.' }
		for (const session of sessions) {
			const day = addDays(session.day, weeks * 7)
			await updateSession(scope, session.id, { day })
			await writeLines(scope, { ...session, day }, squad, library, now)
		}
		return { moved: sessions.length }
	})
}
