import { randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { inTransaction } from '../db/connect'
import { changesUpTo, logsOn } from '../db/noted-writes'
import { insertCareEvent } from '../db/queries/care'
import { writeDeed } from '../db/queries/clubs'
import { bulkInsertOnce } from '../db/bulk-insert'
import { readLines, updateSession } from '../db/queries/sessions'
import { squad } from '../db/schema/squads'
import { session } from '../db/schema/sessions'
import { careEvent as careEventTable, workDay } from '../db/schema/care'
import { draftEntry } from '../tests/support/draft-entry'
import { planSession } from '../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../tests/support/test-club'
import { database } from './database'
import { keptEvents, keptFor } from './kept'
import { acceptEvents } from './log/accept-events'

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 2)
})
const inOne = <T>(work: Parameters<typeof inTransaction<T>>[2]) => inTransaction(database().db, club.scope.clubId, work)
const at = (day: string) => changesUpTo(database().db, club.scope.clubId, day)
const LAST = '9999-12-31'

const mark = (line: { id: string; athleteId: string; entryId: string }, sessionId: string, more: object = {}) => ({
	id: randomUUID(),
	sessionId,
	athleteId: line.athleteId,
	entryId: line.entryId,
	lineId: line.id,
	deviceId: randomUUID(),
	deviceSeq: 0,
	deviceTime: '2026-03-12T17:40:00.000Z',
	setNo: 1,
	repNo: 1,
	type: 'mark',
	kind: 'done',
	value: { reps: 1 },
	...more,
})
const sessionOn = (day: string) =>
	planSession(club, day, [draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 })])
const send = async (...events: object[]) =>
	expect(new Set((await acceptEvents(club.coach, events, NOW)).map(({ outcome }) => outcome))).toEqual(
		new Set(['accepted']),
	)

describe('what was written is counted', () => {
	const careEvent = () => ({
		id: randomUUID(),
		athleteId: club.athletes[0]!,
		kind: 'head' as const,
		redFlag: true,
		asked: false,
		day: '2026-03-12',
		note: '',
		isVoid: false,
		authorId: club.coach.personId,
		receivedAt: NOW,
	})
	const row = () => ({ ...careEvent(), clubId: club.scope.clubId })
	const work = (family: 'agility' | 'tissue') => [
		{ clubId: club.scope.clubId, athleteId: club.athletes[0]!, family, day: '2026-02-01' },
	]
	it.each<[string, () => PromiseLike<unknown>]>([
		['in a transaction, once it ends', () => inOne((scope) => insertCareEvent(scope, careEvent()))],
		['outside of one', () => insertCareEvent(club.scope, careEvent())],
		['an update outside of one', () => database().db.update(squad).set({ place: 'Hall' })],
		['a removal outside of one', () => database().db.delete(workDay)],
		['in SQL', () => inOne(({ db }) => db.execute(sql`update ${squad} set place = 'Track'`))],
		['in SQL outside of one', () => database().db.execute(sql`  delete from ${workDay}`)],
		['many rows in one statement', () => inOne(({ db }) => bulkInsertOnce(db, careEventTable, [row()]))],
		['many rows outside of one', () => bulkInsertOnce(database().db, careEventTable, [row()])],
	])('%s', async (_, write) => {
		const before = await at(LAST)
		await write()
		expect(await at(LAST)).toBeGreaterThan(before)
	})
	it.each<[string, () => Promise<unknown>]>([
		['a look', () => inOne(({ db }) => db.select().from(squad))],
		['a look in SQL', () => inOne(({ db }) => db.execute(sql`select 1 from ${squad} for update`))],
		[
			'who did what',
			() =>
				inOne((scope) =>
					writeDeed(scope, { id: randomUUID(), at: NOW, personId: club.coach.personId, what: 'exported' }),
				),
		],
		[
			'what was given up',
			() =>
				inOne(async (scope) => {
					await insertCareEvent(scope, careEvent())
					throw new Error('given up')
				}).catch(() => undefined),
		],
	])('but not %s', async (_, act) => {
		const before = await at(LAST)
		await act()
		expect(await at(LAST)).toBe(before)
	})
	it('in a transaction that names no club counts for all', async () => {
		const before = await at(LAST)
		await database().db.transaction((tx) => tx.update(squad).set({ place: 'Yard' }))
		expect(await at(LAST)).toBeGreaterThan(before)
	})
	it('of another club is none of ours', async () => {
		const other = await makeClub('Other', 1)
		const before = await at(LAST)
		await inTransaction(database().db, other.scope.clubId, ({ db }) => db.update(session).set({ place: '' }))
		expect(await at(LAST)).toBe(before)
	})
	it('a mark counts for its session’s day and those after it, not for a day before', async () => {
		const id = await sessionOn('2026-03-12')
		const [line] = await readLines(club.scope, [id])
		// The first mark begins the session, which is more than a line of the log.
		await send(mark(line!, id))
		const [before, onIt, after] = [await at('2026-03-11'), await at('2026-03-12'), await at('2026-03-13')]
		await send(mark(line!, id, { repNo: 2 }))
		expect(await at('2026-03-11')).toBe(before)
		expect(await at('2026-03-12')).toBeGreaterThan(onIt)
		expect(await at('2026-03-13')).toBeGreaterThan(after)
	})
	it('of the log with no day named counts for every day', async () => {
		const before = await at('2000-01-01')
		await inOne(({ db }) => db.insert(workDay).values(work('agility')))
		expect(await at('2000-01-01')).toBeGreaterThan(before)
		const named = await at('2000-01-01')
		await inOne(async ({ db }) => {
			logsOn(db, '2026-03-11')
			await db.insert(workDay).values(work('tissue'))
		})
		expect(await at('2000-01-01')).toBe(named)
	})
})

describe('what was worked out', () => {
	it('stands until something changes, is worked out once for two who ask at once, and is shared frozen', async () => {
		let made = 0
		const ask = () => keptFor(club.scope, ['sum'], async () => ({ parts: [++made] }))
		const [one, two] = await Promise.all([ask(), ask()])
		expect([one, two, await ask()]).toEqual([{ parts: [1] }, { parts: [1] }, { parts: [1] }])
		expect(() => one.parts.push(9)).toThrow(TypeError)
		await inOne((scope) => updateSession(scope, randomUUID(), { place: 'nowhere' }))
		expect(await ask()).toEqual({ parts: [2] })
	})
	it('is of before when something changes while it is worked out', async () => {
		let made = 0
		const ask = (meanwhile: () => Promise<unknown>) =>
			keptFor(club.scope, ['race'], async () => {
				const number = ++made
				await meanwhile()
				return number
			})
		expect(await ask(() => database().db.update(squad).set({ place: 'Hall' }))).toBe(1)
		expect(await ask(async () => undefined)).toBe(2)
		expect(await ask(async () => undefined)).toBe(2)
	})
	it('is tried again when it failed, and is another club’s own', async () => {
		await expect(keptFor(club.scope, ['fails'], () => Promise.reject(new Error('no')))).rejects.toThrow('no')
		expect(await keptFor(club.scope, ['fails'], async () => 'made')).toBe('made')
		const other = await makeClub('Other', 1)
		expect(await keptFor(other.scope, ['fails'], async () => 'theirs')).toBe('theirs')
	})
	it('is worked out anew in a transaction, which may have written', async () => {
		expect(await keptFor(club.scope, ['inside'], async () => 'before')).toBe('before')
		expect(await inOne((scope) => keptFor(scope, ['inside'], async () => 'within'))).toBe('within')
		expect(await keptFor(club.scope, ['inside'], async () => 'after')).toBe('before')
	})
})

describe('the log of sessions', () => {
	const idsOf = async (...sessions: { id: string; day: string }[]) =>
		(await keptEvents(club.scope, sessions)).map(({ id }) => id as string)
	it('is as it is stored, whoever writes to it next, and of each session its own', async () => {
		const [early, late] = [
			{ id: await sessionOn('2026-03-10'), day: '2026-03-10' },
			{ id: await sessionOn('2026-03-12'), day: '2026-03-12' },
		]
		const [ofEarly] = await readLines(club.scope, [early.id])
		const [ofLate] = await readLines(club.scope, [late.id])
		const [a, b, c] = [mark(ofEarly!, early.id), mark(ofLate!, late.id), mark(ofEarly!, early.id, { repNo: 2 })]
		expect(await idsOf(early, late)).toEqual([])
		await send(a)
		expect(await idsOf(early, late)).toEqual([a.id])
		await send(b)
		expect(await idsOf(early, late)).toEqual([a.id, b.id])
		await send(c)
		expect(new Set(await idsOf(early))).toEqual(new Set([a.id, c.id]))
		expect(await idsOf(late)).toEqual([b.id])
		expect(await idsOf()).toEqual([])
	})
	it('is read past what is kept in a transaction that has logged', async () => {
		const one = { id: await sessionOn('2026-03-12'), day: '2026-03-12' }
		const [line] = await readLines(club.scope, [one.id])
		const first = mark(line!, one.id)
		await send(first)
		expect(await idsOf(one)).toEqual([first.id])
		await inOne(async (scope) => {
			await scope.db.execute(sql`delete from mark where id = ${first.id}`)
			expect(await keptEvents(scope, [one])).toEqual([])
			throw new Error('given up')
		}).catch((error: Error) => expect(error.message).toBe('given up'))
		expect(await idsOf(one)).toEqual([first.id])
	})
})
