import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { RowDataPacket } from 'mysql2/promise'
import { addDays } from '../../core/calendar/day-count'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import { bestsBefore, insertMeans, meansOf } from '../../db/queries/marks'
import { readLines } from '../../db/queries/sessions'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { database } from '../database'
import { acceptEvents } from '../log/accept-events'
import { readTargets } from '../sheet/read-targets'
import { readSheet } from '../sheet/read-sheet'
import { keepMarks, keyOlderMarks } from './keep-marks'
import { listSetAside, settleMark } from './set-aside'
import { markOf } from '../../tests/support/mark-of'

beforeAll(freshDatabase)

let club: TestClub
let seq = 0
const DAY = '2026-03-12'
beforeEach(async () => {
	club = await makeClub('Club')
})

const plan = (day: string) =>
	planSession(club, day, [
		draftEntry({
			part: 'Starts',
			drillId: 'three-point-start',
			sets: 1,
			reps: 6,
			rest: 120,
			parameters: { distanceM: 20 },
		}),
		draftEntry({ part: 'Throws', drillId: 'overhead-throw', sets: 2, reps: 4, rest: 60 }),
	])
async function markOn(sessionId: string, timeS: number, more: object = {}, athleteId = club.athletes[0]!) {
	const line = (await readLines(club.scope, [sessionId])).find(
		(row) => row.athleteId === athleteId && row.drillId === 'three-point-start',
	)!
	seq += 1
	return markOf(line, {
		deviceTime: new Date(Date.UTC(2026, 2, 12, 17, 40, seq)).toISOString(),
		kind: 'sprint',
		value: { splits: [{ distanceM: 20, timeS }], method: 'gate' },
		...more,
	})
}
async function log(sessionId: string, ...times: number[]) {
	const marks = []
	for (const [at, time] of times.entries()) marks.push(await markOn(sessionId, time, { repNo: at + 1 }))
	const answers = await acceptEvents(club.coach, marks, NOW)
	expect(answers.map((one) => one.outcome)).toEqual(marks.map(() => 'accepted'))
	return marks
}
const means = async () =>
	(await meansOf(club.scope, [club.athletes[0]!], '2026-01-01', '2027-01-01'))
		.sort((a, b) => (a.day < b.day ? -1 : a.day > b.day ? 1 : a.key < b.key ? -1 : 1))
		.map(({ day, key, n, mean, unusual }) => ({
			day,
			key,
			n,
			mean: Math.round(mean * 1000) / 1000,
			unusual: unusual ?? false,
		}))
const KEY = '1|sprint|three-point-start|three-point|d20|-|-|-|-|-|gate'
const stamped = async (id: string) => {
	const [rows] = await database().pool.query<RowDataPacket[]>('select mark_key, set_aside from mark where id = ?', [id])
	return [rows[0]!.mark_key, Boolean(rows[0]!.set_aside)]
}

describe('what is kept of marks', () => {
	it('a key on each and a mean of the session, in the transaction that takes them, however often they are sent', async () => {
		const session = await plan(DAY)
		const marks = await log(session, 3.02, 3.06)
		expect(await means()).toEqual([{ day: DAY, key: KEY, n: 2, mean: 3.04, unusual: false }])
		await acceptEvents(club.coach, marks, NOW)
		expect(await means()).toHaveLength(1)
		expect(await stamped(marks[0]!.id)).toEqual([KEY, false])
	})
	it('a correction, a mark taken back, another side and another ground key and count anew', async () => {
		const session = await plan(DAY)
		const [first, second] = await log(session, 3.02, 3.06)
		await acceptEvents(club.coach, [{ ...(await markOn(session, 3.1)), replacesId: first!.id }], NOW)
		expect(await means()).toEqual([{ day: DAY, key: KEY, n: 2, mean: 3.08, unusual: false }])
		expect(await stamped(first!.id)).toEqual(['1|', false])
		await acceptEvents(club.coach, [{ ...second, id: randomUUID(), replacesId: second!.id, void: true }], NOW)
		expect(await means()).toEqual([{ day: DAY, key: KEY, n: 1, mean: 3.1, unusual: false }])
		const ground = {
			id: randomUUID(),
			sessionId: session,
			athleteId: null,
			deviceId: club.coach.personId,
			deviceSeq: 900,
			deviceTime: '2026-03-12T18:30:00.000Z',
			type: 'decision',
			kind: 'conditions',
			value: { surface: 'grass' },
		}
		const [answer] = await acceptEvents(club.coach, [ground], NOW)
		if (answer!.outcome !== 'accepted') throw new Error(JSON.stringify(answer))
		expect(await means()).toEqual([
			{ day: DAY, key: KEY.replace('|-|gate', '|grass|gate'), n: 1, mean: 3.1, unusual: false },
		])
	})
	it('what is done after the weight came off is a free run’s, whichever of the two comes in first', async () => {
		const session = await planSession(club, DAY, [
			draftEntry({
				part: 'Starts',
				drillId: 'three-point-start',
				sets: 1,
				reps: 6,
				rest: 120,
				parameters: { distanceM: 20, loadG: 200 },
			}),
		])
		const marks = await log(session, 3.1, 3.02)
		const WORN = KEY.replace('|-|-|-|-|-|gate', '|-|g200|-|-|-|gate')
		expect(await means()).toMatchObject([{ key: WORN, n: 2 }])
		const { setNo: _set, repNo: _rep, ...place } = await markOn(session, 1)
		const off = {
			...place,
			deviceTime: new Date(Date.parse(marks[0]!.deviceTime) + 500).toISOString(),
			type: 'decision',
			kind: 'load-off',
			value: { reason: 'minutes' },
		}
		const [answer] = await acceptEvents(club.coach, [off], NOW)
		expect(answer).toMatchObject({ outcome: 'accepted' })
		expect(await means()).toEqual([
			{ day: DAY, key: KEY, n: 1, mean: 3.02, unusual: false },
			{ day: DAY, key: WORN, n: 1, mean: 3.1, unusual: false },
		])
		// Taken back, it was worn to the end.
		await acceptEvents(club.coach, [{ ...off, id: randomUUID(), replacesId: off.id, void: true }], NOW)
		expect(await means()).toMatchObject([{ key: WORN, n: 2 }])
	})
	it('a fast day’s rehearsal is no full run: it is kept apart, until the fast day is taken back', async () => {
		const session = await plan(DAY)
		const marks = await log(session, 3.0, 2.98, 3.2, 2.97)
		const { setNo: _set, repNo: _rep, ...place } = await markOn(session, 1)
		const taken = {
			...place,
			deviceTime: new Date(Date.parse(marks[1]!.deviceTime) + 500).toISOString(),
			type: 'decision',
			kind: 'fast-day',
			value: {},
		}
		expect(await acceptEvents(club.coach, [taken], NOW)).toMatchObject([{ outcome: 'accepted' }])
		expect(await means()).toMatchObject([
			{ key: KEY, n: 3, mean: 2.983 },
			{ key: expect.stringContaining('92.5'), n: 1, mean: 3.2 },
		])
		await acceptEvents(club.coach, [{ ...taken, id: randomUUID(), replacesId: taken.id, void: true }], NOW)
		expect(await means()).toMatchObject([{ key: KEY, n: 4 }])
	})
	it('a mark that was another athlete’s leaves nothing with the first', async () => {
		const session = await plan(DAY)
		const [first] = await log(session, 3.02)
		const other = club.athletes[1]!
		const [answer] = await acceptEvents(
			club.coach,
			[{ ...(await markOn(session, 3.02, {}, other)), replacesId: first!.id }],
			NOW,
		)
		expect(answer!.outcome).toBe('accepted')
		expect(await means()).toEqual([])
		expect((await meansOf(club.scope, [other], '2026-01-01', '2027-01-01')).map((one) => one.mean)).toEqual([3.02])
	})
	it('the first day back and an unloading week are unusual', async () => {
		await log(await plan(DAY), 3.02)
		// Eight days on: more than a week without a sprint.
		const back = await plan(addDays(DAY, 8))
		await log(back, 3.1)
		const easy = await plan(addDays(DAY, 10))
		await database().pool.query("update session set phase = 'unloading' where id = ?", [easy])
		await log(easy, 3.2)
		expect((await means()).map(({ day, unusual }) => [day, unusual])).toEqual([
			[DAY, false],
			[addDays(DAY, 8), true],
			[addDays(DAY, 10), true],
		])
	})
	it('marks of before there were keys are keyed once, in the order of their days', async () => {
		await log(await plan(DAY), 3.02, 3.04)
		await log(await plan(addDays(DAY, 3)), 3.06)
		const kept = await means()
		const { pool, db } = database()
		await pool.query('delete from session_mean where club_id = ?', [club.scope.clubId])
		await pool.query('update mark set mark_key = null where club_id = ?', [club.scope.clubId])
		expect(await keyOlderMarks(db)).toBe(2)
		expect(await means()).toEqual(kept)
		expect(await keyOlderMarks(db)).toBe(0)
	})
})

describe('a target', () => {
	it('is a first time, then one more session, then the usual', async () => {
		const words = async (day: string) => {
			const session = await plan(day)
			const sheet = (await readSheet(club.scope, session))!
			const line = sheet.athletes
				.find((athlete) => athlete.id === club.athletes[0]!)!
				.lines.find((one) => one.drill?.id === 'three-point-start')!
			return [session, (await readTargets(club.scope, sheet)).get(line.id)!.usuals] as const
		}
		const [first, none] = await words(DAY)
		expect(none).toEqual({})
		await log(first, 3, 3.02)
		const [second, one] = await words(addDays(DAY, 3))
		expect(one).toEqual({})
		await log(second, 3.04, 3.06)
		const [, two] = await words(addDays(DAY, 6))
		expect(two.gate).toBeCloseTo(3.03, 10)
	})
})

describe('a number that can hardly be', () => {
	const list = (sessionId: string) =>
		listSetAside(club.scope, { sessionIds: [sessionId] }, addDays(DAY, 4), STARTER_LIBRARY)
	const two = async () => {
		await log(await plan(DAY), 3, 3.02, 3.04)
		const session = await plan(addDays(DAY, 3))
		const [odd] = await log(session, 2.02, 3.03)
		return { session, odd: odd! }
	}
	it('is kept as typed, set aside, and no evidence, until somebody says that it was seen', async () => {
		await log(await plan(addDays(DAY, -3)), 3, 3.02, 3.04)
		const { session, odd } = await two()
		expect(await stamped(odd.id)).toEqual([KEY, true])
		expect((await means()).at(-1)).toMatchObject({ n: 1, mean: 3.03 })
		expect(await list(session)).toEqual([
			expect.objectContaining({ id: odd.id, typed: '2.02 s', likely: { value: '3.02', label: '3.02 s' }, unit: 's' }),
		])
		expect(await settleMark(club.coach, odd.id, '', NOW)).toEqual({ settled: true })
		expect(await list(session)).toEqual([])
		expect((await means()).at(-1)).toMatchObject({ n: 2, mean: 2.525 })
	})
	it('is put right by the number that was meant', async () => {
		await log(await plan(addDays(DAY, -3)), 3, 3.02, 3.04)
		const { session, odd } = await two()
		expect(await settleMark(club.coach, odd.id, 'about three', NOW)).toMatchObject({
			problem: expect.any(String) as string,
		})
		expect(await settleMark(club.coach, odd.id, '3,02', NOW)).toEqual({ settled: true })
		expect(await list(session)).toEqual([])
		expect((await means()).at(-1)).toMatchObject({ n: 2, mean: 3.025 })
		// It was settled: saying it again is a correction of what no longer stands.
		expect(await settleMark(club.coach, randomUUID(), '', NOW)).toBeNull()
	})
	it('is another club’s to nobody here', async () => {
		const { odd } = await two()
		const stranger = await makeClub('Others')
		expect(await settleMark(stranger.coach, odd.id, '', NOW)).toBeNull()
	})
})

it('the marks of a session that is not there are nobody’s', async () => {
	await expect(keepMarks(club.scope, randomUUID(), [club.athletes[0]!])).resolves.toBeUndefined()
})

describe('bests before a day', () => {
	const [EARLY, BORDER, LATE] = ['2026-03-02', '2026-03-05', '2026-03-09']
	let sessions: Record<string, string>
	beforeEach(async () => {
		sessions = { [EARLY]: await plan(EARLY), [BORDER]: await plan(BORDER), [LATE]: await plan(LATE) }
	})
	/** Bests of two athletes in one key, and of the first in another, each by day; asked before the fifth of March. */
	type Best = [athlete: 0 | 1, key: string, day: string, best: number]
	const asked = async (...bests: Best[]) => {
		await insertMeans(
			club.scope,
			bests.map(([athlete, key, day, best]) => ({
				athleteId: club.athletes[athlete]!,
				key,
				sessionId: sessions[day]!,
				day,
				n: 1,
				mean: best,
				squares: 0,
				best,
			})),
		)
		const found = await bestsBefore(club.scope, club.athletes, BORDER)
		return found
			.map(({ athleteId, key, lowest, highest }) => [club.athletes.indexOf(athleteId), key, lowest, highest])
			.sort((a, b) => (a.join() < b.join() ? -1 : 1))
	}
	it.each<[string, Best[]]>([
		['nothing since', []],
		['less on the day itself', [[0, 'a', BORDER, 2.9]]],
		['more since', [[0, 'a', LATE, 3.1]]],
		[
			'less and more since',
			[
				[0, 'a', BORDER, 2.9],
				[0, 'a', LATE, 3.1],
			],
		],
		['the same since', [[0, 'a', LATE, 3]]],
	])('are what was done before it: %s', async (_, since) => {
		expect(await asked([0, 'a', EARLY, 3], ...since)).toEqual([[0, 'a', 3, 3]])
	})
	it('know nothing of a key that came later, nor of whom only it is', async () => {
		expect(await asked([0, 'a', EARLY, 3], [0, 'b', LATE, 5], [1, 'a', LATE, 2])).toEqual([[0, 'a', 3, 3]])
	})
	it('keep what lies inside of since, and stay each athlete’s and each key’s own', async () => {
		await asked([0, 'a', EARLY, 3], [1, 'a', EARLY, 4], [0, 'b', EARLY, 7])
		sessions[EARLY] = await plan('2026-02-26')
		expect(await asked([0, 'a', EARLY, 5], [0, 'a', LATE, 4], [1, 'a', LATE, 3], [0, 'b', LATE, 8])).toEqual([
			[0, 'a', 3, 5],
			[0, 'b', 7, 7],
			[1, 'a', 4, 4],
		])
	})
})
