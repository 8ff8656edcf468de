import { afterEach, beforeAll, expect, it, vi } from 'vitest'
import { eq } from 'drizzle-orm'
import { changeCount } from '../db/schema/changes'
import { freshDatabase, makeClub } from '../tests/support/test-club'
import { database } from './database'

beforeAll(freshDatabase)
afterEach(() => vi.resetModules())

it('counts what each of two builds in one process writes as that club’s, over one pool', async () => {
	const { scope } = await makeClub('Club')
	const first = database()
	// As the start command and the application it serves: the same modules, read twice.
	vi.resetModules()
	const later = (await import('./database')).database()
	const { inTransaction } = await import('../db/connect')
	const { logsOn } = await import('../db/noted-writes')
	const { workDay } = await import('../db/schema/care')
	expect(later.pool).toBe(first.pool)
	await inTransaction(later.db, scope.clubId, async ({ db }) => {
		await db.delete(workDay).where(eq(workDay.day, '1999-01-01'))
		logsOn(db, '2026-03-12', 'marks')
	})
	const counted = await first.db.select().from(changeCount)
	expect(counted).toContainEqual({ clubId: scope.clubId, of: '2026-03-12 marks', n: 1 })
	expect(counted.filter(({ clubId }) => clubId === 'every')).toEqual([])
})
