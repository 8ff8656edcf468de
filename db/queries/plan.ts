import { and, asc, count, eq, isNotNull, isNull } from 'drizzle-orm'
import type { StoredPlan } from '../../core/plan/block'
import type { SessionTemplate } from '../../core/vocabulary/template'
import { among } from '../among'
import type { ClubScope } from '../connect'
import { decision, mark, observation } from '../schema/log'
import { block, sessionTemplate } from '../schema/plan'
import { session } from '../schema/sessions'

export type BlockRow = typeof block.$inferSelect

export async function insertBlock({ db, clubId }: ClubScope, row: Omit<typeof block.$inferInsert, 'clubId'>) {
	await db.insert(block).values({ ...row, clubId })
}
export async function listBlocks({ db, clubId }: ClubScope): Promise<BlockRow[]> {
	return db.select().from(block).where(eq(block.clubId, clubId)).orderBy(asc(block.start))
}
export async function readBlock({ db, clubId }: ClubScope, id: string): Promise<BlockRow | null> {
	const [row] = await db
		.select()
		.from(block)
		.where(and(eq(block.clubId, clubId), eq(block.id, id)))
	return row ?? null
}
/** Sessions of a block nobody has begun; index `session_by_block`. Locked, so that a first mark and the removal queue up. */
export async function unstartedOfBlock(
	{ db, clubId }: ClubScope,
	blockId: string,
): Promise<(typeof session.$inferSelect)[]> {
	return db
		.select()
		.from(session)
		.where(and(eq(session.clubId, clubId), eq(session.blockId, blockId), isNull(session.startedAt)))
		.orderBy(asc(session.day))
		.for('update')
}
/** How many sessions of each block nobody has begun, by block. */
export async function unstartedByBlock({ db, clubId }: ClubScope): Promise<Map<string, number>> {
	const rows = await db
		.select({ blockId: session.blockId, sessions: count() })
		.from(session)
		.where(and(eq(session.clubId, clubId), isNotNull(session.blockId), isNull(session.startedAt)))
		.groupBy(session.blockId)
	return new Map(rows.map((row) => [row.blockId!, row.sessions]))
}
/** Whether anything was logged about a session; such a one is never removed. */
export async function loggedSessions({ db, clubId }: ClubScope, ids: string[]): Promise<Set<string>> {
	const found = new Set<string>()
	if (ids.length === 0) return found
	for (const table of [mark, observation, decision])
		for (const row of await db
			.selectDistinct({ id: table.sessionId })
			.from(table)
			.where(and(eq(table.clubId, clubId), among(table.sessionId, ids))))
			found.add(row.id)
	return found
}
export async function updateBlockPlan({ db, clubId }: ClubScope, id: string, plan: StoredPlan) {
	await db
		.update(block)
		.set({ plan })
		.where(and(eq(block.clubId, clubId), eq(block.id, id)))
}
/** Every session a block made, begun or not; index `session_by_block`. */
export async function sessionsOfBlock(
	{ db, clubId }: ClubScope,
	blockId: string,
): Promise<(typeof session.$inferSelect)[]> {
	return db
		.select()
		.from(session)
		.where(and(eq(session.clubId, clubId), eq(session.blockId, blockId)))
		.orderBy(asc(session.day), asc(session.startTime))
}

export async function listTemplates({ db, clubId }: ClubScope): Promise<(typeof sessionTemplate.$inferSelect)[]> {
	return db.select().from(sessionTemplate).where(eq(sessionTemplate.clubId, clubId)).orderBy(asc(sessionTemplate.name))
}
export async function insertTemplate(
	{ db, clubId }: ClubScope,
	row: { id: string; name: string; content: SessionTemplate; madeBy: string; madeAt: Date },
) {
	await db.insert(sessionTemplate).values({ ...row, clubId })
}
export async function deleteTemplate({ db, clubId }: ClubScope, id: string) {
	await db.delete(sessionTemplate).where(and(eq(sessionTemplate.clubId, clubId), eq(sessionTemplate.id, id)))
}
