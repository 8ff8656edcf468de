import { eq } from 'drizzle-orm'
import { beforeAll, beforeEach, expect, it } from 'vitest'
import { inTransaction } from '../../db/connect'
import { readEntries, readLines } from '../../db/queries/sessions'
import { entry as entryTable } from '../../db/schema/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { markOf } from '../../tests/support/mark-of'
import { database } from '../database'
import { acceptEvents } from '../log/accept-events'
import { notesBetween } from '../log/notes-between'
import { firstRepsBefore } from './first-reps'

const DAY = '2026-03-10'
let club: TestClub
let one: string
let two: string
let sessionId: string
let seq = 0
beforeAll(freshDatabase)
beforeEach(async () => {
	club = await makeClub('Club', 2)
	;[one, two] = club.athletes as [string, string]
	const sprints = (drillId: string) =>
		draftEntry({ part: drillId, drillId, sets: 2, reps: 3, rest: 60, parameters: { distanceM: 20 } })
	sessionId = await planSession(club, DAY, [sprints('standing-start'), sprints('three-point-start')], {
		at: new Date(`${DAY}T10:00:00Z`),
	})
})

const event = async (drillId: string, more: object, athleteId = one) => {
	const line = (await readLines(club.scope, [sessionId])).find(
		(row) => row.athleteId === athleteId && row.drillId === drillId,
	)!
	return markOf(line, { deviceSeq: seq++, deviceTime: `${DAY}T17:${40 + (seq % 20)}:00Z`, ...more })
}
const sprint = (drillId: string, timeS: number, more: object = {}, athleteId = one) =>
	event(
		drillId,
		{
			setNo: 1,
			repNo: 1,
			type: 'mark',
			kind: 'sprint',
			value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
			...more,
		},
		athleteId,
	)
const note = (drillId: string, text: string, more: object = {}) =>
	event(drillId, { type: 'observation', kind: 'note', value: { about: 'rep', text }, ...more })
const send = async (...events: object[]) =>
	expect((await acceptEvents(club.coach, events, NOW)).map(({ outcome }) => outcome)).toEqual(
		events.map(() => 'accepted'),
	)
const times = async (ids = [one, two], before = '2026-03-12') =>
	(await firstRepsBefore(club.scope, ids, '2026-03-01', before)).map((rep) => [
		rep.athleteId,
		rep.day,
		rep.splits[0]!.timeS,
	])

it('the first rep of a session is that of the drill that stands first, wherever the sheet puts it later', async () => {
	await send(
		await sprint('three-point-start', 3.4),
		await sprint('standing-start', 3.2),
		await sprint('standing-start', 3, { repNo: 2 }),
	)
	expect(await times()).toEqual([[one, DAY, 3.2]])
	const [first, second] = await readEntries(club.scope, [sessionId])
	await inTransaction(database().db, club.scope.clubId, async ({ db }) => {
		for (const [id, position] of [
			[first!.id, 1],
			[second!.id, 0],
		] as const)
			await db.update(entryTable).set({ position }).where(eq(entryTable.id, id))
	})
	expect(await times()).toEqual([[one, DAY, 3.4]])
})

it('what comes in later counts, whoever was asked about before; a corrected one as corrected', async () => {
	expect(await times()).toEqual([])
	const first = await sprint('standing-start', 3.2)
	await send(first)
	expect(await times([one])).toEqual([[one, DAY, 3.2]])
	await send(await sprint('standing-start', 3.6, {}, two))
	expect(await times()).toEqual([
		[one, DAY, 3.2],
		[two, DAY, 3.6],
	])
	await send(await sprint('standing-start', 3.3, { replacesId: first.id }))
	expect(await times([one])).toEqual([[one, DAY, 3.3]])
})

it('the day itself is not before it, nor is the one before the first', async () => {
	await send(await sprint('standing-start', 3.2))
	expect(await times([one], DAY)).toEqual([])
	expect(await times([one], '2026-03-11')).toHaveLength(1)
	expect(await firstRepsBefore(club.scope, [one], '2026-03-11', '2026-03-12')).toEqual([])
	expect(await firstRepsBefore(club.scope, [one], DAY, '2026-03-12')).toHaveLength(1)
})

it('what was noted on a drill is read in its order, later words too, and what was taken back is not', async () => {
	const notes = async (from = DAY, to = DAY) =>
		(await notesBetween(club.scope, [one], from, to)).map(({ drillId, day, text }) => [drillId, day, text])
	expect(await notes()).toEqual([])
	const stiff = await note('standing-start', 'Stiff hips')
	await send(stiff, await note('three-point-start', 'Low hands'))
	expect(await notes()).toEqual([
		['standing-start', DAY, 'Stiff hips'],
		['three-point-start', DAY, 'Low hands'],
	])
	await send(await note('standing-start', 'Stiff hips', { replacesId: stiff.id, void: true }))
	expect(await notes()).toEqual([['three-point-start', DAY, 'Low hands']])
	expect(await notes('2026-03-11', '2026-03-12')).toEqual([])
	expect(await notes('2026-03-01', '2026-03-09')).toEqual([])
})
