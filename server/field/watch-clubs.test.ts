import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { inTransaction } from '../../db/connect'
import { insertDevice } from '../../db/queries/devices'
import { session } from '../../db/schema/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { readingOfMat } from '../../tests/support/reading-of-mat'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { database } from '../database'
import { clubChanged, lookEvery } from './watch-clubs'

// Fifty phones are told within 400 ms; however many more there are, the looks stay as many.
it.each([
	[1, 400],
	[50, 400],
	[51, 408],
	[100, 800],
	[1000, 8000],
])('with %d phones that wait, the next look is in %d ms', (waiting, ms) => expect(lookEvery(waiting)).toBe(ms))

describe('who waits for what others add', () => {
	beforeAll(freshDatabase)
	let club: TestClub
	let known: number | null
	const soon = () => Date.now() + 10_000
	const wait = (of: TestClub, from: number | null, until = soon(), signal = new AbortController().signal) =>
		clubChanged(of.scope.clubId, from, until, signal)
	const move = (of: TestClub) =>
		inTransaction(database().db, of.scope.clubId, ({ db }) => db.update(session).set({ place: randomUUID() }))
	beforeEach(async () => {
		club = await makeClub('Club', 1)
		await planSession(club, '2026-03-12', [draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 })])
		known = await wait(club, null)
	})

	it('is told at the next look where it is not known what there was', async () => {
		expect(known).toBeGreaterThan(0)
		expect(await wait(club, null)).toBe(known)
		expect(await wait(club, known! - 1)).toBe(known)
	})
	it('is told of a change, and not of another club’s', async () => {
		const other = await makeClub('Other', 1)
		const otherKnown = await wait(other, null)
		const told: string[] = []
		const both = [
			wait(club, known).then((now) => told.push(`club ${now}`)),
			wait(other, otherKnown).then((now) => told.push(`other ${now}`)),
		]
		await move(other)
		await both[1]
		// Looks for both are one: the club would have been told by now.
		await new Promise((resolve) => setTimeout(resolve, 900))
		expect(told).toEqual([`other ${otherKnown! + 1}`])
		await move(club)
		await both[0]
		expect(told.at(-1)).toBe(`club ${known! + 1}`)
	})
	it('is told of what a device has sent', async () => {
		const deviceId = randomUUID()
		await insertDevice(club.scope, { id: deviceId, kind: 'mat', name: 'Mat', tokenHash: 'b'.repeat(64), pairedAt: NOW })
		const waiting = wait(club, known)
		await readingOfMat(club, deviceId)
		expect(await waiting).toBe(known! + 1)
	})
	it('goes with what it knew when it is time, and when the asker has gone', async () => {
		const began = Date.now()
		expect(await wait(club, known, began + 600)).toBe(known)
		expect(Date.now() - began).toBeGreaterThan(590)
		const gone = new AbortController()
		const waiting = wait(club, known, soon(), gone.signal)
		gone.abort()
		expect(await waiting).toBe(known)
		expect(await wait(club, known, soon(), gone.signal)).toBe(known)
	})
})
