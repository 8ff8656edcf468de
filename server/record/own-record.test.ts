import { randomUUID } from 'node:crypto'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { foldEvents } from '../../core/events/fold'
import { eventsOfSessions } from '../../db/queries/log'
import { readLines, readSession } from '../../db/queries/sessions'
import type { SignedIn } from '../access/sign-in'
import { acceptEvents } from '../log/accept-events'
import { readAthletePage } from '../squads/read-athlete'
import { exportMarks } from './export-marks'
import { sayEfforts } from './say-effort'
import { takeBack } from './write-done'

beforeAll(freshDatabase)

const TODAY = '2026-03-12'
const LATER = new Date(NOW.getTime() + 60_000)
let club: TestClub
let sessionId: string
let lines: Awaited<ReturnType<typeof readLines>>
let me: SignedIn
beforeEach(async () => {
	club = await makeClub('Club')
	me = { ...club.as('athlete', club.athletes[0]!), personId: randomUUID() }
	sessionId = await planSession(club, TODAY, [
		draftEntry({
			part: 'Starts',
			drillId: 'three-point-start',
			sets: 1,
			reps: 3,
			rest: 120,
			parameters: { distanceM: 20 },
		}),
		draftEntry({ part: 'Rebounds', drillId: 'single-leg-pogo', sets: 1, reps: 2, rest: 60 }),
	])
	lines = await readLines(club.scope, [sessionId])
})
let seq = 0
/** Logs one mark of the first athlete, or another, and gives its id back. */
async function log(drillId: string, what: object, athlete = 0): Promise<string> {
	const line = lines.find((one) => one.drillId === drillId && one.athleteId === club.athletes[athlete])!
	const id = randomUUID()
	const place = { id, sessionId, athleteId: line.athleteId, entryId: line.entryId, lineId: line.id }
	const device = { deviceId: randomUUID(), deviceSeq: seq++, deviceTime: '2026-03-12T17:42:00.000Z' }
	const [answer] = await acceptEvents(
		club.coach,
		[{ ...place, ...device, setNo: 1, repNo: 1, type: 'mark', ...what }],
		NOW,
	)
	expect(answer).toMatchObject({ outcome: 'accepted' })
	return id
}
const run = (athlete = 0) =>
	log(
		'three-point-start',
		{
			kind: 'sprint',
			value: {
				splits: [
					{ distanceM: 10, timeS: 1.94 },
					{ distanceM: 20, timeS: 3.12 },
				],
				method: 'gate',
			},
		},
		athlete,
	)
const efforts = async () =>
	foldEvents(await eventsOfSessions(club.scope, [sessionId])).current.flatMap((event) =>
		event.kind === 'effort' ? [[club.athletes.indexOf(event.athleteId as string), event.value.rpe]] : [],
	)
const loadOf = async (day = TODAY) => (await readAthletePage(club.scope, club.athletes[0]!, day))!.load?.load ?? null

describe('how hard it was', () => {
	it('an athlete says it of themselves, and it loads their week: effort times minutes', async () => {
		await run()
		expect(await sayEfforts(me, sessionId, [{ athleteId: club.athletes[0]!, rpe: 7 }], 90, NOW)).toEqual({
			kept: 1,
			refused: 0,
		})
		expect(await loadOf()).toBe(630)
	})
	it('said by the athlete and by the coach loads once: what was said last', async () => {
		await run()
		await sayEfforts(me, sessionId, [{ athleteId: club.athletes[0]!, rpe: 7 }], 90, NOW)
		await sayEfforts(club.coach, sessionId, [{ athleteId: club.athletes[0]!, rpe: 5 }], 80, LATER)
		expect(await efforts()).toEqual([[0, 5]])
		expect(await loadOf()).toBe(400)
	})
	it('is of the session’s day, whenever it was said', async () => {
		await run()
		const nextDay = new Date('2026-03-13T09:00:00Z')
		await sayEfforts(me, sessionId, [{ athleteId: club.athletes[0]!, rpe: 6 }], 60, nextDay)
		// Seven days with Thursday the 12th end on the 18th.
		expect(await loadOf('2026-03-18')).toBe(360)
		expect(await loadOf('2026-03-19')).toBeNull()
	})
	it('is nobody else’s to say, nor of a session to come', async () => {
		const refused = { kept: 0, refused: 1 }
		expect(await sayEfforts(me, sessionId, [{ athleteId: club.athletes[1]!, rpe: 7 }], 90, NOW)).toEqual(refused)
		const ahead = await planSession(club, '2026-03-13', [
			draftEntry({ part: 'Starts', drillId: 'three-point-start', sets: 1, reps: 1, rest: 120 }),
		])
		expect(await sayEfforts(me, ahead, [{ athleteId: club.athletes[0]!, rpe: 7 }], 90, NOW)).toEqual(refused)
		expect(await sayEfforts(me, sessionId, [{ athleteId: club.athletes[0]!, rpe: 11 }], 90, NOW)).toEqual(refused)
		expect(await efforts()).toEqual([])
	})
	it('is another club’s to nobody here', async () => {
		const { coach } = await makeClub('Other')
		expect(await sayEfforts(coach, sessionId, [{ athleteId: club.athletes[0]!, rpe: 7 }], 90, NOW)).toBeNull()
	})
	it('does not begin a session that nobody has logged in', async () => {
		await sayEfforts(me, sessionId, [{ athleteId: club.athletes[0]!, rpe: 7 }], 90, NOW)
		expect((await readSession(club.scope, sessionId))!.startedAt).toBeNull()
	})
	it('is asked of who came, for two days, until it is said', async () => {
		const asked = async (day: string, athlete = 0) =>
			(await readAthletePage(club.scope, club.athletes[athlete]!, day))!.effortAsked
		expect(await asked(TODAY)).toBeNull()
		await run()
		expect(await asked(TODAY)).toEqual({ sessionId, day: TODAY, minutes: 60 })
		expect(await asked('2026-03-14')).toMatchObject({ sessionId })
		expect(await asked('2026-03-15')).toBeNull()
		expect(await asked(TODAY, 1)).toBeNull()
		await sayEfforts(me, sessionId, [{ athleteId: club.athletes[0]!, rpe: 0 }], 90, NOW)
		expect(await asked(TODAY)).toBeNull()
	})
})

describe('marks to take along', () => {
	const head = 'day,time,session,drill_id,drill,set,rep,side,quantity,value,unit,at_m,method,set_aside,mark_id'
	const exported = async (athlete = 0) =>
		(await exportMarks(club.scope, club.athletes[athlete]!, TODAY, 'Atlantic/Madeira'))!.text
	it('a line a number, with its unit, its split and how it was taken; lines end as RFC 4180 asks', async () => {
		const [start, hop] = [
			await run(),
			await log('single-leg-pogo', {
				kind: 'contact',
				side: 'left',
				value: { contactS: 0.182, flightS: 0.41, method: 'mat' },
			}),
		]
		const rows = (await exported()).split('\r\n')
		expect(rows[0]).toBe(head)
		expect(rows).toContain(
			`2026-03-12,17:42,Work,three-point-start,Three-point start 20 m,1,1,,time,1.94,s,10,gate,no,${start}`,
		)
		expect(rows).toContain(
			`2026-03-12,17:42,Work,three-point-start,Three-point start 20 m,1,1,,time,3.12,s,20,gate,no,${start}`,
		)
		expect(rows.filter((row) => row.endsWith(hop)).map((row) => row.split(',').slice(7, 11))).toEqual([
			['left', 'contact', '0.182', 's'],
			['left', 'flight', '0.41', 's'],
		])
		expect(rows.at(-1)).toBe('')
	})
	it('holds nothing of anybody else, and nothing that was taken back', async () => {
		const [own, other] = [await run(), await run(1)]
		expect(await exported()).not.toContain(other)
		await takeBack(club.coach, sessionId, own, LATER)
		expect(await exported()).toBe(`${head}\r\n`)
		expect(await exportMarks((await makeClub('Other')).scope, club.athletes[0]!, TODAY, 'UTC')).toBeNull()
	})
})
