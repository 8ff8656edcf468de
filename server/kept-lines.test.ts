import { eq } from 'drizzle-orm'
import { beforeAll, beforeEach, expect, it } from 'vitest'
import { database } from './database'
import { draftEntry } from '../tests/support/draft-entry'
import { planSession } from '../tests/support/plan-session'
import { type TestClub, freshDatabase, makeClub } from '../tests/support/test-club'
import { inTransaction } from '../db/connect'
import { found, readFound } from '../db/kept-lines'
import { linesOf, readLines, writeWouldBe } from '../db/queries/sessions'
import { line } from '../db/schema/sessions'

const DAY = '2026-03-12'
let club: TestClub
let sessionId: string
beforeAll(freshDatabase)
beforeEach(async () => {
	club = await makeClub('Club', 2)
	sessionId = await planSession(club, DAY, [
		draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 2, reps: 10, rest: 60 }),
	])
})
const read = () => readLines(club.scope, [sessionId])
const change = (set: Partial<typeof line.$inferInsert>, id: string) =>
	database().db.update(line).set(set).where(eq(line.id, id))

it.each([
	['a word', { wouldBe: 'a rung down' }],
	['a reason', { blocked: 'no line' }],
	['a dose', { dose: { kind: 'reps', sets: 1, reps: 3 } }],
	['no word any more', { change: null }],
] as const)('a line that has %s since it was read is read again, with its session too', async (_, set) => {
	const [first, second] = await read()
	await change(set as object, first!.id)
	expect((await read()).find(({ id }) => id === first!.id)).toEqual({ ...first, ...set })
	const held = await linesOf(club.scope, club.athletes, DAY, DAY)
	expect(new Map(held.map((one) => [one.line.id, [one.line, one.session.id]]))).toEqual(
		new Map([
			[first!.id, [{ ...first, ...set }, sessionId]],
			[second!.id, [second, sessionId]],
		]),
	)
})

it('one that stands no longer is gone, and back when it is put back', async () => {
	const before = await read()
	await change({ current: false }, before[0]!.id)
	expect(await read()).toEqual(before.slice(1))
	await change({ current: true }, before[0]!.id)
	expect(await read()).toEqual(before)
})

it('what somebody does to a row they were given is not what the next one is given, and what is in it cannot be changed', async () => {
	const [row] = await read()
	row!.version = 77
	expect((await read())[0]!.version).toBe(1)
	expect(() => {
		row!.parameters.distanceM = 5
	}).toThrow(TypeError)
})

it('another club has none of it, whatever ids it knows', async () => {
	const ids = await database().db.select(found).from(line).where(eq(line.sessionId, sessionId))
	const other = await makeClub('Other')
	expect(await readFound(other.scope, ids)).toEqual([])
	expect(await readFound(club.scope, ids)).toHaveLength(2)
})

it('what a transaction writes and takes back again is read by nobody else', async () => {
	const [row] = await read()
	const within = inTransaction(database().db, club.scope.clubId, async (scope) => {
		await writeWouldBe(scope, row!.id, 'another one')
		expect((await readLines(scope, [sessionId]))[0]!.wouldBe).toBe('another one')
		expect((await read())[0]!.wouldBe).toBe(row!.wouldBe)
		throw new Error('taken back')
	})
	await expect(within).rejects.toThrow('taken back')
	expect((await read())[0]).toEqual(row)
})
