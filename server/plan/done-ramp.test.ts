import { beforeAll, expect, it } from 'vitest'
import { eq } from 'drizzle-orm'
import { inTransaction } from '../../db/connect'
import { readLines } from '../../db/queries/sessions'
import { mark as markTable } from '../../db/schema/log'
import { session } from '../../db/schema/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { freshDatabase, makeClub } from '../../tests/support/test-club'
import { database } from '../database'
import { acceptEvents } from '../log/accept-events'
import { doneRamp } from './done-ramp'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

const DAY = '2026-03-12'

/** Two athletes with six sets of two starts to do, and marks of them as a phone sends them. */
async function startsToDo() {
	const club = await makeClub('Club', 2)
	const [one, two] = club.athletes as [string, string]
	const sessionId = await planSession(club, DAY, [
		draftEntry({
			part: 'Starts',
			drillId: 'three-point-start',
			sets: 6,
			reps: 2,
			rest: 60,
			parameters: { distanceM: 20 },
		}),
	])
	const lines = await readLines(club.scope, [sessionId])
	const mark = (athleteId: string, setNo: number, reps: number, more: object = {}) => {
		const line = lines.find((row) => row.athleteId === athleteId)!
		return markOf(line, {
			deviceTime: `${DAY}T17:4${setNo}:00Z`,
			setNo,
			kind: 'done',
			value: { reps },
			...more,
		})
	}
	const take = async (events: readonly object[]) => {
		const answers = await acceptEvents(club.coach, events, new Date(`${DAY}T18:30:00Z`))
		expect(answers.map(({ outcome }) => outcome)).toEqual(events.map(() => 'accepted'))
	}
	const starts = async (ids: string[], athlete: string, today = DAY) =>
		(await doneRamp(club.scope, ids, today)).get(athlete)!.maximalStarts.map(({ day, value }) => [day, value])
	return { club, one, two, sessionId, mark, take, starts }
}

it('counts what stands: equal marks each, corrected ones as corrected, given ones with whom they were given to', async () => {
	const { one, two, mark, take, starts } = await startsToDo()
	const sets = [1, 2, 3, 4, 5, 6].map((set) => mark(one, set, 2))
	const events = [
		...sets,
		mark(one, 1, 1, { replacesId: sets[0]!.id }),
		mark(one, 2, 2, { replacesId: sets[1]!.id, void: true }),
		mark(two, 3, 2, { replacesId: sets[2]!.id }),
	]
	await take(events)
	// A maximal start a rep: one of the first set, none of the second, not the third, two of the other three.
	expect(await starts([one, two], one)).toEqual([[DAY, 1 + 3 * 2]])
	expect(await starts([one, two], two)).toEqual([[DAY, 2]])
	// Whoever it was given to need not be asked about.
	expect(await starts([one], one)).toEqual([[DAY, 1 + 3 * 2]])
})

it('counts again what comes later, whoever was asked about before, and looks back twelve weeks', async () => {
	const { club, one, two, sessionId, mark, take, starts } = await startsToDo()
	const first = mark(one, 1, 2)
	await take([first])
	expect(await starts([one], one)).toEqual([[DAY, 2]])
	expect(await starts([one, two], two)).toEqual([])
	await take([mark(one, 2, 1), mark(two, 1, 2)])
	expect(await starts([two], two)).toEqual([[DAY, 2]])
	expect(await starts([one, two], one)).toEqual([[DAY, 3]])
	await take([mark(one, 1, 2, { replacesId: first.id, void: true })])
	expect(await starts([one], one)).toEqual([[DAY, 1]])

	// Twelve weeks before the Monday of a Sunday are 90 days: 12 March and 90 days are 10 June.
	expect(await starts([one], one, '2026-06-10')).toEqual([[DAY, 1]])
	expect(await starts([one], one, '2026-06-11')).toEqual([])
	expect(await starts([one], one, '2026-03-11')).toEqual([])

	const unloads = async () => (await doneRamp(club.scope, [one], DAY)).get(one)!.maximalStarts[0]?.unloading
	expect(await unloads()).toBe(false)
	await database().db.update(session).set({ phase: 'unloading' }).where(eq(session.id, sessionId))
	expect(await unloads()).toBe(true)
})

it('counts within a transaction what that has logged so far', async () => {
	const { club, one, sessionId, mark, take, starts } = await startsToDo()
	await take([mark(one, 1, 2)])
	expect(await starts([one], one)).toEqual([[DAY, 2]])
	await inTransaction(database().db, club.scope.clubId, async (scope) => {
		await scope.db.delete(markTable).where(eq(markTable.sessionId, sessionId))
		expect((await doneRamp(scope, [one], DAY)).get(one)!.maximalStarts).toEqual([])
	})
	expect(await starts([one], one)).toEqual([])
})
