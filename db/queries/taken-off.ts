import { and, desc, eq, getTableColumns, lt, sql } from 'drizzle-orm'
import type { MySqlTable } from 'drizzle-orm/mysql-core'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { acknowledgement } from '../schema/care'
import { block, ground, layout, takenOff } from '../schema/plan'
import { batterySession, trialSession } from '../schema/record'
import { entry, line, session, sessionAthlete } from '../schema/sessions'

/** What is said of a planned session, in the order in which it may be written: each names only what stands before it. */
const OF_SESSION = {
	session,
	sessionAthlete,
	entry,
	line,
	layout,
	acknowledgement,
	batterySession,
	trialSession,
} as const
const NAMES = Object.keys(OF_SESSION) as (keyof typeof OF_SESSION)[]
const MANY = 500

const ofSessions = ({ clubId }: ClubScope, name: keyof typeof OF_SESSION, ids: string[]) => {
	const table = OF_SESSION[name]
	return and(eq(table.clubId, clubId), among(table === session ? session.id : (table as typeof entry).sessionId, ids))
}

/**
 * Takes planned sessions off the calendar, and the block that made them where it goes too, keeping every row. None of
 * them may have anything logged.
 */
export async function takeOffPlanned(
	scope: ClubScope,
	sessionIds: string[],
	{ blockId, ...row }: { id: string; title: string; personId: string; at: Date; blockId: string | null },
): Promise<void> {
	const { db, clubId } = scope
	const rows: Record<string, Record<string, unknown>[]> = {}
	if (sessionIds.length > 0)
		for (const name of NAMES)
			rows[name] = await db
				.select()
				.from(OF_SESSION[name] as MySqlTable)
				.where(ofSessions(scope, name, sessionIds))
	const ofBlock = blockId === null ? undefined : and(eq(block.clubId, clubId), eq(block.id, blockId))
	if (ofBlock) rows.block = await db.select().from(block).where(ofBlock)
	await db.insert(takenOff).values({ ...row, clubId, sessionIds, rows })
	if (sessionIds.length > 0)
		for (const name of [...NAMES].reverse())
			await db.delete(OF_SESSION[name]).where(ofSessions(scope, name, sessionIds))
	if (ofBlock) await db.delete(block).where(ofBlock)
}

export const listTakenOff = ({ db, clubId }: ClubScope) =>
	db
		.select({ id: takenOff.id, title: takenOff.title, sessionIds: takenOff.sessionIds, at: takenOff.at })
		.from(takenOff)
		.where(eq(takenOff.clubId, clubId))
		.orderBy(desc(takenOff.at))

/** By the sessions of what was taken off: which of it holds one of them. */
export async function takenOffWith({ db, clubId }: ClubScope, sessionIds: string[]): Promise<string[]> {
	if (sessionIds.length === 0) return []
	const rows = await db
		.select({ id: takenOff.id })
		.from(takenOff)
		.where(and(eq(takenOff.clubId, clubId), sql`json_overlaps(${takenOff.sessionIds}, ${JSON.stringify(sessionIds)})`))
	return rows.map(({ id }) => id)
}

/** Writes back what was taken off, the ids of its sessions; null when it is not there any more. Whoever comes second waits, and finds nothing. */
export async function bringBackPlanned({ db, clubId }: ClubScope, id: string): Promise<string[] | null> {
	const own = and(eq(takenOff.clubId, clubId), eq(takenOff.id, id))
	const [kept] = await db.select().from(takenOff).where(own).for('update')
	if (!kept) return null
	await db.delete(takenOff).where(own)
	const grounds = new Set(
		(await db.select({ id: ground.id }).from(ground).where(eq(ground.clubId, clubId))).map((row) => row.id),
	)
	for (const [name, table] of Object.entries({ block, ...OF_SESSION })) {
		const rows = (kept.rows[name] ?? []).filter((row) => table !== layout || grounds.has(String(row.groundId)))
		for (let from = 0; from < rows.length; from += MANY)
			await db
				.insert(table as MySqlTable)
				.values(rows.slice(from, from + MANY).map((row) => revived(row, table)) as never)
	}
	return kept.sessionIds
}

/** A row as it was written down, its instants instants again. */
function revived(row: Record<string, unknown>, table: MySqlTable): Record<string, unknown> {
	const columns = getTableColumns(table)
	return Object.fromEntries(
		Object.entries(row).map(([name, value]) => [
			name,
			columns[name]?.dataType === 'date' && typeof value === 'string' ? new Date(value) : value,
		]),
	)
}

export async function forgetTakenOff({ db, clubId }: ClubScope, before: Date): Promise<void> {
	await db.delete(takenOff).where(and(eq(takenOff.clubId, clubId), lt(takenOff.at, before)))
}
