import { beforeAll, expect, it } from 'vitest'
import { randomUUID } from 'node:crypto'
import { freshDatabase } from '../tests/support/test-club'
import { bulkInsert, bulkInsertOnce } from './bulk-insert'
import { type Connection, connect } from './connect'
import { club } from './schema/people'
import { squad } from './schema/squads'

let connection: Connection
const clubId = randomUUID()
beforeAll(async () => {
	connection = connect(await freshDatabase())
	await bulkInsert(connection.db, club, [
		{ id: clubId, name: 'Quay’s "own" ?', timeZone: 'Europe/Lisbon', createdAt: new Date('2026-03-12T18:00:00.250Z') },
	])
	return () => connection.pool.end()
})
const row = (name: string, more: Partial<typeof squad.$inferInsert> = {}) => ({
	clubId,
	id: randomUUID(),
	name,
	schoolId: 'quality-first',
	schoolVersion: 1,
	phase: 'peaking' as const,
	trainingDays: [1, 4],
	startTime: '17:30',
	place: 'Field',
	...more,
})
const flags = async (...ids: string[]) =>
	(await connection.db.select().from(squad)).filter(({ id }) => ids.includes(id)).map((one) => one.jumpingSport)

it('writes values as the schema does, marks of SQL among them', async () => {
	expect(await connection.db.select().from(club)).toEqual([
		expect.objectContaining({ name: 'Quay’s "own" ?', createdAt: new Date('2026-03-12T18:00:00.250Z') }),
	])
})
it('gives what a row does not say the column’s default, and null where it has none', async () => {
	const [plain, jumping] = [row('Plain'), row('Jumping', { jumpingSport: true })]
	await bulkInsert(connection.db, squad, [plain, jumping])
	expect(await flags(plain.id)).toEqual([false])
	expect(await flags(jumping.id)).toEqual([true])
	expect((await connection.db.select().from(club))[0]!.healthNotesMonths).toBeNull()
})
it('writes none of them where one stands, or leaves that one as it is when sent once more', async () => {
	const [first, second] = [row('First'), row('Second')]
	await bulkInsert(connection.db, squad, [first])
	await expect(bulkInsert(connection.db, squad, [second, { ...first, jumpingSport: true }])).rejects.toThrow()
	expect(await flags(second.id)).toEqual([])
	await bulkInsertOnce(connection.db, squad, [second, { ...first, jumpingSport: true }])
	expect(await flags(first.id)).toEqual([false])
	expect(await flags(second.id)).toEqual([false])
})
