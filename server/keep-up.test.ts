import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { inTransaction } from '../db/connect'
import { editsOfClubs } from '../db/noted-writes'
import { insertDevice } from '../db/queries/devices'
import { readLines } from '../db/queries/sessions'
import { squad } from '../db/schema/squads'
import { draftEntry } from '../tests/support/draft-entry'
import { markOf, saidOf } from '../tests/support/mark-of'
import { planSession } from '../tests/support/plan-session'
import { readingOfMat } from '../tests/support/reading-of-mat'
import { NOW, type TestClub, freshDatabase, makeClub } from '../tests/support/test-club'
import { database } from './database'
import { KeepingUp, keepUpWithEdits } from './keep-up'
import { keptFor, keptPage } from './kept'
import { acceptEvents } from './log/accept-events'

describe('pages that were looked at lately', () => {
	let edits: Record<string, number>
	/** Pages that were worked out, in their order. */
	let made: string[]
	let asked: number
	let keeping: KeepingUp
	beforeEach(() => {
		edits = { club: 7, other: 3 }
		made = []
		asked = 0
		keeping = new KeepingUp(
			(clubIds) => {
				asked++
				const now = Object.fromEntries(clubIds.map((clubId) => [clubId, edits[clubId]!]))
				return Promise.resolve((clubId) => now[clubId]!)
			},
			(_, again) => void again(),
		)
	})
	const look = (page: string, at = 0, clubId = 'club') =>
		keeping.note(page, { clubId, at, again: () => Promise.resolve(made.push(page)) })
	const second = (n: number) => keeping.round(n * 1000)
	/** Two rounds in, what came in between the look and the first of them is worked off. */
	const upToDate = async () => {
		await second(1)
		await second(2)
		made = []
	}

	it('are asked again once when nobody knows what came in since', async () => {
		look('today')
		await second(1)
		expect(made).toEqual([])
		await second(2)
		expect(made).toEqual(['today'])
		await second(3)
		expect(made).toEqual(['today'])
	})
	it('are made anew in the round after the one that saw an edit, those looked at last before the others, once', async () => {
		for (const page of ['today', 'plan', 'today']) look(page)
		await upToDate()
		edits.club!++
		await second(3)
		expect(made).toEqual([])
		await second(4)
		await second(5)
		expect(made).toEqual(['today', 'plan'])
	})
	it('wait while one edit follows another', async () => {
		look('today')
		await upToDate()
		for (const n of [3, 4, 5]) {
			edits.club!++
			await second(n)
		}
		expect(made).toEqual([])
		await second(6)
		expect(made).toEqual(['today'])
	})
	it('stay as they are when another club is edited', async () => {
		look('today')
		look('theirs', 0, 'other')
		await upToDate()
		edits.other!++
		await second(3)
		await second(4)
		expect(made).toEqual(['theirs'])
	})
	it('are six of a club, and as many of another', async () => {
		for (let n = 1; n <= 7; n++) look(`page ${n}`)
		look('theirs', 0, 'other')
		await second(1)
		await second(2)
		expect(made).toEqual(['page 7', 'page 6', 'page 5', 'page 4', 'page 3', 'page 2', 'theirs'])
	})
	it('are kept up with for five minutes, and nobody is asked after that', async () => {
		look('today')
		await upToDate()
		edits.club!++
		await second(299)
		await second(300)
		expect(made).toEqual(['today'])
		expect(keeping.hasLooks).toBe(true)
		const before = asked
		await second(300.001)
		expect(keeping.hasLooks).toBe(false)
		expect(asked).toBe(before)
	})
	it('once more looked at, are begun with as at first', async () => {
		look('today')
		await upToDate()
		await second(301)
		edits.club!++
		look('today', 302_000)
		await second(303)
		await second(304)
		expect(made).toEqual(['today'])
	})
	it('are tried again after a database was away', async () => {
		look('today')
		await upToDate()
		edits.club!++
		const there = edits
		edits = null as never
		await expect(second(3)).rejects.toThrow()
		edits = there
		await second(4)
		await second(5)
		expect(made).toEqual(['today'])
	})
})

const PAIN = {
	kind: 'pain',
	value: { region: 'knee', side: 'left', score: 3, moment: 'during', redFlag: false },
}

describe('on a database', () => {
	beforeAll(freshDatabase)
	let club: TestClub
	beforeEach(async () => {
		club = await makeClub('Club', 1)
	})
	const edit = () =>
		inTransaction(database().db, club.scope.clubId, ({ db }) => db.update(squad).set({ place: 'Track' }))

	it('an edit is what pages wait for: no plain marks, nothing that devices send', async () => {
		const { clubId } = club.scope
		const count = async () => (await editsOfClubs(database().db, [clubId]))(clubId)
		const day = '2026-03-12'
		const sessionId = await planSession(club, day, [
			draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 }),
		])
		const [line] = await readLines(club.scope, [sessionId])
		const send = (event: object) => acceptEvents(club.coach, [event], NOW)
		const counts = [await count()]
		for (const repNo of [1, 2]) {
			await send(markOf({ ...line!, sessionId }, { kind: 'done', value: { reps: 1 }, repNo }))
			counts.push(await count())
		}
		const deviceId = randomUUID()
		await insertDevice(club.scope, { id: deviceId, kind: 'mat', name: 'Mat', tokenHash: 'b'.repeat(64), pairedAt: NOW })
		await readingOfMat(club, deviceId)
		counts.push(await count())
		expect(counts).toEqual(Array(4).fill(counts[0]))
		await send(saidOf(sessionId, club.athletes[0]!, PAIN))
		expect(await count()).toBe(counts[0]! + 1)
		await edit()
		expect(await count()).toBe(counts[0]! + 2)
	})

	it('a page that goes by days before an edit stands', async () => {
		const of = { now: 0, before: 0 }
		const now = () => keptPage(club.scope, ['now'], () => Promise.resolve({ n: ++of.now }))
		const before = () =>
			keptPage(club.scope, ['before'], () => Promise.resolve({ n: ++of.before }), {
				day: '2026-03-11',
				marks: '2026-03-11',
			})
		const sessionId = await planSession(club, '2026-03-12', [
			draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 }),
		])
		const stop = keepUpWithEdits()
		await now()
		// Looked at last: it would be made first.
		await before()
		await acceptEvents(club.coach, [saidOf(sessionId, club.athletes[0]!, PAIN)], NOW)
		await expect.poll(() => of.now, { timeout: 10_000 }).toBe(2)
		expect(of.before).toBe(1)
		stop()
	})

	it('a page is there, worked out, when somebody looks seconds after the edit; what is no page is not', async () => {
		let [pages, parts] = [0, 0]
		const page = () => keptPage(club.scope, ['a page'], () => Promise.resolve({ n: ++pages }))
		const part = () => keptFor(club.scope, ['a part'], () => Promise.resolve({ n: ++parts }))
		await page()
		await edit()
		await new Promise((resolve) => setTimeout(resolve, 100))
		// A command, a test: nothing goes on by itself.
		expect(pages).toBe(1)

		const stop = keepUpWithEdits()
		expect([await page(), await part()]).toEqual([{ n: 2 }, { n: 1 }])
		await edit()
		await expect.poll(() => pages, { timeout: 10_000 }).toBe(3)
		expect(await page()).toEqual({ n: 3 })
		expect(parts).toBe(1)
		stop()
	})
})
