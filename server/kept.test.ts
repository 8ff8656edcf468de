import { randomUUID } from 'node:crypto'
import { serialize } from 'node:v8'
import { sql } from 'drizzle-orm'
import { beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { type ClubScope, inTransaction } from '../db/connect'
import { type Changes, changesUpTo, foldCounts, logChangesUpTo, logsOn } from '../db/noted-writes'
import { insertCareEvent } from '../db/queries/care'
import { writeDeed } from '../db/queries/clubs'
import { insertDevice, insertReadings } from '../db/queries/devices'
import { bulkInsertOnce } from '../db/bulk-insert'
import { readLines, updateSession } from '../db/queries/sessions'
import { squad } from '../db/schema/squads'
import { session } from '../db/schema/sessions'
import { careEvent as careEventTable, workDay } from '../db/schema/care'
import { draftEntry } from '../tests/support/draft-entry'
import { planSession } from '../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../tests/support/test-club'
import { markOf, saidOf } from '../tests/support/mark-of'
import { readBodies } from './care/read-bodies'
import { database } from './database'
import { isBehind, keptEvents, keptFor, mayBeLate, takeTold } from './kept'
import { acceptEvents } from './log/accept-events'
import { notesBetween } from './log/notes-between'
import { readSquadsPage } from './squads/read-squads'

beforeAll(freshDatabase)
let club: TestClub
beforeEach(async () => {
	club = await makeClub('Club', 2)
})
const inOne = <T>(work: Parameters<typeof inTransaction<T>>[2]) => inTransaction(database().db, club.scope.clubId, work)
const at = async (day: string) => (await changesUpTo(database().db, club.scope.clubId, day)).all
const LAST = '9999-12-31'

const mark = (line: { id: string; athleteId: string; entryId: string }, sessionId: string, more: object = {}) =>
	markOf({ ...line, sessionId }, { kind: 'done', value: { reps: 1 }, ...more })
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
			'what a device has sent',
			() =>
				inOne(async (scope) => {
					const deviceId = randomUUID()
					await insertDevice(scope, {
						id: deviceId,
						kind: 'mat',
						name: 'Mat',
						tokenHash: 'c'.repeat(64),
						pairedAt: NOW,
					})
					const when = { at: NOW, deviceTime: NOW, receivedAt: NOW }
					const reading = { id: randomUUID(), deviceId, kind: 'mat' as const, value: {}, contentHash: 'a'.repeat(64) }
					await insertReadings(scope, [{ ...reading, ...when }])
				}),
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
		const logged = async () => (await logChangesUpTo(database().db, club.scope.clubId))(LAST)
		const before = [await at(LAST), await logged()]
		await act()
		expect([await at(LAST), await logged()]).toEqual(before)
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
			logsOn(db, '2026-03-11', 'all')
			await db.insert(workDay).values(work('tissue'))
		})
		expect(await at('2000-01-01')).toBe(named)
	})
})

it('counts of days long gone are put together, and whoever goes by them misses nothing', async () => {
	for (const day of ['2026-01-05', '2026-02-05', '2026-03-11'])
		for (const what of ['marks', 'first marks', 'all'] as const)
			await inOne(async ({ db }) => {
				logsOn(db, day, what)
				await db.execute(sql`delete from ${workDay} where day = '1999-01-01'`)
			})
	const rows = async () =>
		(
			(await database().db.execute(
				sql`select of, n from change_count where club_id = ${club.scope.clubId} and of <> 'rest' order by of`,
			)) as unknown as [{ of: string; n: number }[]]
		)[0].map(({ of, n }) => [of, Number(n)])
	const [early, late] = [await at('2026-01-01'), await at('2026-03-12')]
	// The club was made with days of work that name none.
	const begun = (await rows()).find(([of]) => of === 'log')![1] as number
	expect(await rows()).toHaveLength(9 + 1)
	await foldCounts(database().db, '2026-03-11')
	expect(await rows()).toEqual([
		['2026-03-11', 1],
		['2026-03-11 marks', 1],
		['2026-03-11 work', 1],
		['log', begun + 6],
	])
	expect(await at('2026-03-12')).toBe(late)
	expect(await at('2026-01-01')).toBe(early + 6)
	await foldCounts(database().db, '2026-03-11')
	expect(await at('2026-03-12')).toBe(late)
	// Of what was logged on a day no value misses a change afterwards either.
	const log = await logChangesUpTo(database().db, club.scope.clubId)
	expect(log('2026-03-11') - log('2026-03-10')).toBe(3)
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
	it('waits for its turn, and is begun before it where another one is made of it', async () => {
		const order: string[] = []
		let goOn = () => {}
		const gate = new Promise<void>((resolve) => (goOn = resolve))
		const plain = (name: string) =>
			keptFor(club.scope, [name], async () => {
				order.push(name)
				await gate
				return name
			})
		const whole = (name: string, part: string) =>
			keptFor(club.scope, [name], async (own) => {
				order.push(name)
				await new Promise((resolve) => setTimeout(resolve, 300))
				return keptFor(own, [part], async () => 'never made here')
			})
		const all = [whole('turn 1', 'turn 3'), whole('turn 2', 'turn 3')]
		try {
			// Asked for by itself, it waits for the first two; asked for by them, it is begun.
			await expect.poll(() => [...order].sort()).toEqual(['turn 1', 'turn 2'])
			all.push(plain('turn 3'), plain('turn 4'))
			await expect.poll(() => order.slice(2)).toEqual(['turn 3'])
		} finally {
			goOn()
		}
		expect(await Promise.all(all)).toEqual(['turn 3', 'turn 3', 'turn 3', 'turn 4'])
		expect(order.slice(2)).toEqual(['turn 3', 'turn 4'])
	})
	it('waits for nobody whose turn comes after its own, by whatever scope it asks', async () => {
		const stale = mayBeLate(club.scope)
		const whole = (name: string) =>
			keptFor(club.scope, [name], async () => [
				await keptFor(club.scope, [`${name} part`], async () => 'part'),
				await keptFor(stale, ['shared'], async () => 'shared'),
			])
		expect(await Promise.all(['a', 'b', 'c', 'd'].map(whole))).toEqual(Array(4).fill(['part', 'shared']))
	}, 10_000)
	it('has its turn for half a minute: what never ends keeps nobody from theirs for longer', async () => {
		vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout'] })
		let goOn = () => {}
		const gate = new Promise<void>((resolve) => (goOn = resolve))
		let atWork = 0
		const stuck = ['stuck 1', 'stuck 2'].map((name) => keptFor(club.scope, [name], () => (atWork++, gate)))
		try {
			await expect.poll(() => atWork).toBe(2)
			const next = keptFor(club.scope, ['after them'], async () => 'made')
			const order: string[] = []
			void next.then((value) => order.push(value))
			vi.advanceTimersByTime(29_000)
			await changesUpTo(database().db, club.scope.clubId, LAST)
			expect(order).toEqual([])
			vi.advanceTimersByTime(2_000)
			await expect.poll(() => order).toEqual(['made'])
		} finally {
			goOn()
			vi.useRealTimers()
		}
		// Nor do they give it up twice: there is room for two, no more.
		await Promise.all(stuck)
		let [together, most] = [0, 0]
		const busy = async () => {
			most = Math.max(most, ++together)
			await new Promise((resolve) => setTimeout(resolve, 20))
			together--
		}
		await Promise.all(['1', '2', '3', '4'].map((name) => keptFor(club.scope, ['busy', name], busy)))
		expect(most).toBe(2)
	})
	it('is worked out anew in a transaction, which may have written', async () => {
		expect(await keptFor(club.scope, ['inside'], async () => 'before')).toBe('before')
		expect(await inOne((scope) => keptFor(scope, ['inside'], async () => 'within'))).toBe('within')
		expect(await keptFor(club.scope, ['inside'], async () => 'after')).toBe('before')
	})
})

describe('what another process has worked out', () => {
	const told = (name: string, of: Changes, value: unknown) =>
		takeTold({ keptAs: JSON.stringify([club.scope.clubId, name]), of, packed: serialize(value) })
	const now = () => changesUpTo(database().db, club.scope.clubId, LAST)
	const ask = (name: string) => keptFor<unknown>(club.scope, [name], async () => 'made here')

	it('is taken, whole and frozen, as long as nothing has changed since', async () => {
		const value = { days: new Map([['2026-03-12', [new Date('2026-03-12T17:30:00Z')]]]), none: undefined }
		told('other', await now(), value)
		const taken = await ask('other')
		expect(taken).toStrictEqual(value)
		expect(await ask('other')).toBe(taken)
		expect(() => Object.assign(taken as object, { none: 1 })).toThrow(TypeError)
		await inOne((scope) => updateSession(scope, randomUUID(), { place: 'nowhere' }))
		expect(await ask('other')).toBe('made here')
	})
	it('is not taken where what is known here is as new or newer', async () => {
		const before = await now()
		await inOne((scope) => updateSession(scope, randomUUID(), { place: 'nowhere' }))
		expect(await ask('race')).toBe('made here')
		told('race', before, 'of before')
		expect(await ask('race')).toBe('made here')
		told('race', await now(), 'of the same')
		expect(await ask('race')).toBe('made here')
	})
	it('is waited for no longer by who has not begun', async () => {
		let goOn = () => {}
		const gate = new Promise<void>((resolve) => (goOn = resolve))
		let atWork = 0
		const turns = ['turn a', 'turn b'].map((name) => keptFor(club.scope, [name], () => (atWork++, gate)))
		try {
			// Whoever counts first begins first: the third asks when both are at work.
			await expect.poll(() => atWork).toBe(2)
			let begun = 0
			const third = keptFor<unknown>(club.scope, ['turn c'], async () => ++begun)
			// Counted before it waits.
			await expect
				.poll(async () => (told('turn c', await now(), 'theirs'), Promise.race([third, 'waits'])))
				.toBe('theirs')
			expect(begun).toBe(0)
		} finally {
			// Nobody after this one would have a turn.
			goOn()
		}
		await Promise.all(turns)
	})
})

describe('marks that have just come in', () => {
	const DAY = '2026-03-12'
	let id: string
	let line: Awaited<ReturnType<typeof readLines>>[number]
	beforeEach(async () => {
		id = await sessionOn(DAY)
		line = (await readLines(club.scope, [id]))[0]!
		// The first mark begins the session and somebody's day of work.
		await send(mark(line, id))
	})
	const said = () =>
		saidOf(id, line.athleteId, {
			kind: 'pain',
			value: { region: 'knee', side: 'left', score: 3, moment: 'during', redFlag: false },
		})
	const changes = () => changesUpTo(database().db, club.scope.clubId, DAY)

	it('begin a session for every day there is, and are no more urgent for that', async () => {
		const next = await sessionOn('2026-03-20')
		const [first] = await readLines(club.scope, [next])
		const before = await changes()
		await send(mark(first!, next))
		// That it has begun, and the mark of its day, which is later.
		expect(await changes()).toEqual({ total: before.total + 2, all: before.all + 1, butMarks: before.butMarks })
		await inOne((scope) => updateSession(scope, next, { place: 'Track' }))
		expect((await changes()).butMarks).toBe(before.butMarks + 1)
	})
	it('are counted apart when they are nothing but that', async () => {
		const before = await changes()
		await send(mark(line, id, { repNo: 2 }), mark(line, id, { repNo: 3 }))
		expect(await changes()).toEqual({ total: before.total + 1, all: before.all + 1, butMarks: before.butMarks })
	})
	it.each<[string, () => object[]]>([
		['beside a report', () => [mark(line, id, { repNo: 2 }), said()]],
		['with a weight worn', () => [mark(line, id, { repNo: 2, carried: { segment: 'shank', grams: 100 } })]],
	])('are counted with everything %s', async (_, events) => {
		const before = await changes()
		await send(...events())
		expect((await changes()).butMarks).toBeGreaterThan(before.butMarks)
	})
	it('are counted with everything where they take another one back, or the line asks for a weight', async () => {
		const first = mark(line, id, { repNo: 2 })
		await send(first)
		const before = await changes()
		await send({ ...first, id: randomUUID(), replacesId: first.id, void: true, deviceSeq: 1 })
		const between = await changes()
		expect(between.butMarks).toBeGreaterThan(before.butMarks)
		await database().db.execute(
			sql`update line set parameters = json_set(parameters, '$.loadG', 100) where id = ${line.id}`,
		)
		const weighted = await changes()
		await send(mark(line, id, { repNo: 3 }))
		expect((await changes()).butMarks).toBeGreaterThan(weighted.butMarks)
	})
	it('count where plain ones are left out when they begin somebody’s day of work', async () => {
		const other = (await readLines(club.scope, [id])).find(({ athleteId }) => athleteId !== line.athleteId)!
		const at = () => changesUpTo(database().db, club.scope.clubId, DAY, '')
		const [before, roster] = [await at(), await readSquadsPage(club.scope, DAY)]
		await send(mark(other, id))
		const first = await at()
		expect(first).toEqual({ total: before.total + 1, all: before.all + 1, butMarks: before.butMarks })
		expect(await readSquadsPage(club.scope, DAY)).not.toBe(roster)
		await send(mark(other, id, { repNo: 2 }))
		expect(await at()).toEqual({ ...first, total: first.total + 1 })
	})
	it('leave who is closed and where everybody stands as they were', async () => {
		const read = () => Promise.all([readSquadsPage(club.scope, DAY), readBodies(club.scope, DAY, 'coach')])
		const before = await read()
		await send(mark(line, id, { repNo: 2 }))
		expect((await read()).map((value, i) => value === before[i])).toEqual([true, true])
		await send(said())
		expect((await read()).map((value, i) => value === before[i])).toEqual([false, false])
	})
	it('may be left out of a day that the rest is looked at for', async () => {
		const at = (marksUpTo: string) => changesUpTo(database().db, club.scope.clubId, DAY, marksUpTo)
		const [before, on] = [await at('2026-03-11'), await at(DAY)]
		await send(mark(line, id, { repNo: 2 }))
		expect(await at('2026-03-11')).toEqual({ ...before, total: before.total + 1 })
		expect((await at(DAY)).all).toBe(on.all + 1)
		await send(said())
		expect((await at('2026-03-11')).all).toBe(before.all + 1)
	})

	/** A page that counts the events of the session, by a part that is kept too. */
	const countOf = (scope: ClubScope, name: string) =>
		keptFor(scope, [name], (own) =>
			keptFor(own, [name, 'part'], async () => (await keptEvents(own, [{ id, day: DAY }])).length),
		)
	const look = async (name: string) => {
		const shown = mayBeLate(club.scope)
		return [await countOf(shown, name), isBehind(shown)]
	}
	it('are shown a moment later by a page that says so, and at once to whoever decides', async () => {
		expect(await look('page')).toEqual([1, false])
		await send(mark(line, id, { repNo: 2 }))
		expect(await look('page')).toEqual([1, true])
		expect(await countOf(club.scope, 'page')).toBe(2)
		await send(mark(line, id, { repNo: 3 }))
		// Worked out while nobody waits, of parts that are not late themselves.
		await expect.poll(() => look('page')).toEqual([3, false])
	})
	it('are waited for where anything else was said, or changed', async () => {
		expect(await look('told')).toEqual([1, false])
		await send(mark(line, id, { repNo: 2 }), said())
		expect(await look('told')).toEqual([3, false])
		await send(mark(line, id, { repNo: 3 }))
		await inOne((scope) => updateSession(scope, id, { place: 'Track' }))
		expect(await look('told')).toEqual([4, false])
	})
	it('what fails while nobody waits is tried again, and shown as it was meanwhile', async () => {
		let broken = false
		const ask = async () => {
			const shown = mayBeLate(club.scope)
			const value = await keptFor(shown, ['breaks'], async (own) => {
				if (broken) throw new Error('broken')
				return (await keptEvents(own, [{ id, day: DAY }])).length
			})
			return [value, isBehind(shown)]
		}
		expect(await ask()).toEqual([1, false])
		broken = true
		await send(mark(line, id, { repNo: 2 }))
		expect(await ask()).toEqual([1, true])
		await new Promise((resolve) => setTimeout(resolve, 50))
		expect(await ask()).toEqual([1, true])
		broken = false
		await expect.poll(ask).toEqual([2, false])
	})
	it('are waited for after three minutes', async () => {
		vi.useFakeTimers({ toFake: ['Date'] })
		try {
			let slow = Promise.resolve()
			const ask = async () => {
				const shown = mayBeLate(club.scope)
				const value = await keptFor(shown, ['slow'], async (own) => {
					await slow
					return (await keptEvents(own, [{ id, day: DAY }])).length
				})
				return [value, isBehind(shown)]
			}
			expect(await ask()).toEqual([1, false])
			let goOn = () => {}
			slow = new Promise((resolve) => (goOn = resolve))
			await send(mark(line, id, { repNo: 2 }))
			expect(await ask()).toEqual([1, true])
			vi.setSystemTime(Date.now() + 179_000)
			expect(await ask()).toEqual([1, true])
			vi.setSystemTime(Date.now() + 2_000)
			const waited = ask()
			setTimeout(goOn, 20)
			expect(await waited).toEqual([2, false])
		} finally {
			vi.useRealTimers()
		}
	})
})

describe('the log of sessions', () => {
	const idsOf = async (...sessions: { id: string; day: string }[]) =>
		(await keptEvents(club.scope, sessions)).map(({ id }) => id as string)
	/** What is read before and after something comes in from outside, while one value is worked out. */
	async function whileOneIsMade<T>(read: () => Promise<T>, event: object): Promise<[T, T]> {
		let hasRead = () => {}
		let goOn = () => {}
		const [before, after] = [new Promise<void>((done) => (hasRead = done)), new Promise<void>((done) => (goOn = done))]
		const made = keptFor(club.scope, [randomUUID()], async (): Promise<[T, T]> => {
			const early = await read()
			hasRead()
			await after
			return [early, await read()]
		})
		await before
		await send(event)
		goOn()
		return made
	}
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
	it('holds what came in while a value was being worked out that had read it before', async () => {
		const one = { id: await sessionOn('2026-03-12'), day: '2026-03-12' }
		const [line] = await readLines(club.scope, [one.id])
		const [first, second] = [mark(line!, one.id), mark(line!, one.id, { repNo: 2 })]
		await send(first)
		const [early, late] = await whileOneIsMade(() => idsOf(one), second)
		expect(early).toEqual([first.id])
		expect(late).toHaveLength(2)
		expect(new Set(await idsOf(one))).toEqual(new Set([first.id, second.id]))
	})
	it('so do what is kept of athletes in it, as their notes are', async () => {
		const one = { id: await sessionOn('2026-03-12'), day: '2026-03-12' }
		const [line] = await readLines(club.scope, [one.id])
		const note = (text: string, deviceTime: string) =>
			mark(line!, one.id, { type: 'observation', kind: 'note', value: { about: 'rep', text }, deviceTime })
		await send(note('tall', '2026-03-12T17:40:00Z'))
		const texts = async () =>
			(await notesBetween(club.scope, [line!.athleteId], '2026-03-12', '2026-03-12')).map(({ text }) => text)
		expect(await whileOneIsMade(texts, note('low', '2026-03-12T17:41:00Z'))).toEqual([['tall'], ['tall', 'low']])
		expect(await texts()).toEqual(['tall', 'low'])
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
