import { eq } from 'drizzle-orm'
import { beforeAll, beforeEach, expect, it, vi } from 'vitest'
import { type ClubScope, inTransaction } from '../db/connect'
import { squad } from '../db/schema/squads'
import { type TestClub, freshDatabase, makeClub } from '../tests/support/test-club'
import { database } from './database'
import { keptFor } from './kept'

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 1)
})
const placeOf = async ({ db }: ClubScope, id = club.squadId) =>
	(await db.select({ place: squad.place }).from(squad).where(eq(squad.id, id)))[0]!.place
const moveTo = (place: string) =>
	inTransaction(database().db, club.scope.clubId, ({ db }) =>
		db.update(squad).set({ place }).where(eq(squad.id, club.squadId)),
	)
/** How often the database was asked about squads while something was done, in a transaction or not. */
async function asked(work: () => Promise<unknown>): Promise<number> {
	const { pool } = database()
	const questions: string[] = []
	type Client = { query: (options: { sql: string }, values?: unknown) => unknown }
	const noting = <T extends object>(client: T): T => {
		const asks = client as unknown as Client
		const query = asks.query.bind(client)
		vi.spyOn(asks, 'query').mockImplementation((options, values) => {
			questions.push(options.sql)
			return query(options, values)
		})
		return client
	}
	const connect = pool.getConnection.bind(pool)
	const taken = vi.spyOn(pool, 'getConnection').mockImplementation(async () => noting(await connect()))
	try {
		noting(pool)
		await work()
		return questions.filter((sql) => sql.includes('from `squad`')).length
	} finally {
		vi.mocked(pool.query).mockRestore()
		taken.mockRestore()
	}
}
const twice = async (scope: ClubScope) => [await placeOf(scope), await placeOf(scope)]

it('what a value is worked out of is read once, by its parts too', async () => {
	const make = (scope: ClubScope) => keptFor(scope, ['part'], twice).then(async (part) => [part, await twice(scope)])
	expect(await asked(() => keptFor(club.scope, ['whole'], make))).toBe(1)
	// Outside of it everybody asks, and what differs in a word is another question.
	expect(await asked(() => twice(club.scope))).toBe(2)
	const other = await makeClub('Other', 1)
	expect(
		await asked(() =>
			keptFor(club.scope, ['both'], async (scope) => [await placeOf(scope), await placeOf(scope, other.squadId)]),
		),
	).toBe(2)
})

it('two who read at the same moment ask once', async () => {
	expect(
		await asked(() => keptFor(club.scope, ['at once'], (scope) => Promise.all([placeOf(scope), placeOf(scope)]))),
	).toBe(1)
})

it('a part that begins after a change is made of what stands, as it would be alone', async () => {
	await moveTo('Hall')
	const part = (scope: ClubScope) => keptFor(scope, ['late part'], placeOf)
	const seen = await keptFor(club.scope, ['early'], async (scope) => {
		const before = await placeOf(scope)
		await moveTo('Track')
		return [before, await part(scope)]
	})
	expect(seen).toEqual(['Hall', 'Track'])
	expect(await part(club.scope)).toBe('Track')
})

it('the next value reads for itself', async () => {
	await moveTo('Hall')
	expect(await keptFor(club.scope, ['value'], placeOf)).toBe('Hall')
	await moveTo('Track')
	expect(await keptFor(club.scope, ['value'], placeOf)).toBe('Track')
	expect(await keptFor(club.scope, ['another'], placeOf)).toBe('Track')
})

it('what goes on when its value is there reads for itself', async () => {
	await moveTo('Hall')
	let goOn = () => {}
	let after: Promise<string | null> | undefined
	await keptFor(club.scope, ['left behind'], async (scope) => {
		await placeOf(scope)
		after = new Promise<void>((resolve) => {
			goOn = resolve
		}).then(() => placeOf(scope))
	})
	await moveTo('Track')
	goOn()
	expect(await after).toBe('Track')
})

it('a transaction reads what it has written', async () => {
	await moveTo('Hall')
	await keptFor(club.scope, ['around'], async (scope) => {
		await placeOf(scope)
		await inTransaction(database().db, club.scope.clubId, async (within) => {
			await within.db.update(squad).set({ place: 'Track' }).where(eq(squad.id, club.squadId))
			expect(await placeOf(within)).toBe('Track')
		})
	})
})

it('a transaction reads once what stands until it writes, and what others wrote meanwhile not at all', async () => {
	await moveTo('Hall')
	const inside = (work: (scope: ClubScope) => Promise<unknown>) => inTransaction(database().db, club.scope.clubId, work)
	expect(await asked(() => inside(twice))).toBe(1)
	await inside(async (scope) => {
		const before = await placeOf(scope)
		await moveTo('Track')
		expect([before, await placeOf(scope)]).toEqual(['Hall', 'Hall'])
		// Whoever locks it sees it as it is.
		const [locked] = await scope.db
			.select({ place: squad.place })
			.from(squad)
			.where(eq(squad.id, club.squadId))
			.for('update')
		expect(locked!.place).toBe('Track')
	})
	expect(await placeOf(club.scope)).toBe('Track')
	expect(
		await asked(() =>
			inside(async (scope) => {
				await placeOf(scope)
				await scope.db.update(squad).set({ place: 'Gym' }).where(eq(squad.id, club.squadId))
				expect(await placeOf(scope)).toBe('Gym')
				expect(await placeOf(scope)).toBe('Gym')
			}),
		),
	).toBe(2)
})
