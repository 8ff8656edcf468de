import { randomUUID } from 'node:crypto'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { insertCare, insertCareEvent } from '../../db/queries/care'
import { versionOf } from '../submissions/take-version'
import { draftEntry } from '../../tests/support/draft-entry'
import { planSession } from '../../tests/support/plan-session'
import { NOW, type TestClub, freshDatabase, makeClub } from '../../tests/support/test-club'
import { saidOf } from '../../tests/support/mark-of'
import { readBodies } from '../care/read-bodies'
import { acceptEvents } from '../log/accept-events'
import { forgetHealthNotes, keepHealthNotes } from './change-club'

/*
 * It is 12 March 2026. Kept for twelve months, what was said up to 12 March 2025 goes and what was said on the 13th
 * stays; regions, scores and days stay whatever their age.
 */

let connection: mysql.Connection
beforeAll(async () => {
	connection = await mysql.createConnection({ uri: await freshDatabase(), timezone: 'Z' })
})
const rows = async (sql: string) => (await connection.query<RowDataPacket[]>(sql))[0]

let club: TestClub
let athleteId = ''
beforeEach(async () => {
	club = await makeClub('Club', 1)
	athleteId = club.athletes[0]!
})
const keep = async (months: string, now = NOW) =>
	keepHealthNotes(club.coach, months, await versionOf(club.scope, 'club', club.scope.clubId), now)
const mine = async (table: string, columns: string, order: string) =>
	(await rows(`select ${columns} from ${table} where athlete_id = '${athleteId}' order by ${order}`)).map((row) => ({
		...row,
	}))

const saidOn = (day: string, more: object = {}) =>
	insertCareEvent(club.scope, {
		id: randomUUID(),
		athleteId,
		kind: 'pain',
		region: 'knee',
		side: 'left',
		score: 4,
		moment: 'next-day',
		redFlag: false,
		asked: false,
		day,
		note: 'stairs are bad',
		isVoid: false,
		authorId: club.coach.personId,
		receivedAt: NOW,
		...more,
	})
const record = (fromDay: string, endedOn: string | null) =>
	insertCare(club.scope, {
		id: randomUUID(),
		athleteId,
		kind: 'restriction',
		region: 'ankle',
		note: 'a stress reaction',
		fromDay,
		setBy: 'Ines Cordeiro',
		setByRole: 'physiotherapist',
		recordedBy: club.coach.personId,
		recordedAt: NOW,
		endedOn,
	})
const painIn = async (day: string) => {
	const sessionId = await planSession(club, day, [
		draftEntry({ part: 'Pogos', drillId: 'pogo', sets: 1, reps: 10, rest: 60 }),
	])
	const event = saidOf(sessionId, athleteId, {
		deviceTime: `${day}T17:40:00.000Z`,
		kind: 'pain',
		value: { region: 'calf', side: 'right', score: 5, moment: 'during', redFlag: false, note: 'since the match' },
	})
	expect((await acceptEvents(club.coach, [event], NOW)).map(({ outcome }) => outcome)).toEqual(['accepted'])
	return event
}

describe('words about health', () => {
	it('are kept as long as nobody says otherwise', async () => {
		await saidOn('2016-01-01')
		await forgetHealthNotes(NOW)
		expect(await mine('care_event', 'note', 'day')).toEqual([{ note: 'stairs are bad' }])
	})
	it('go from the border on, and nothing else does', async () => {
		await saidOn('2025-03-12', {
			withdrawnBy: club.coach.personId,
			withdrawnAt: NOW,
			withdrawnReason: 'it was a bruise',
		})
		await saidOn('2025-03-13')
		await record('2024-01-01', '2025-03-12')
		await record('2024-01-02', '2025-03-13')
		// In force for years: why somebody is kept from something has to be known.
		await record('2024-01-03', null)
		expect(await keep('12')).toEqual({ saved: true })
		expect(await mine('care_event', 'note, withdrawn_reason, region, score', 'day')).toEqual([
			{ note: '', withdrawn_reason: '', region: 'knee', score: 4 },
			{ note: 'stairs are bad', withdrawn_reason: null, region: 'knee', score: 4 },
		])
		expect(await mine('care_record', 'note, region, set_by', 'from_day')).toEqual([
			{ note: '', region: 'ankle', set_by: 'Ines Cordeiro' },
			{ note: 'a stress reaction', region: 'ankle', set_by: 'Ines Cordeiro' },
			{ note: 'a stress reaction', region: 'ankle', set_by: 'Ines Cordeiro' },
		])
	})
	it('go from the log of a session, where a phone that sends them again changes nothing', async () => {
		const old = await painIn('2025-03-12')
		await painIn('2025-03-13')
		const before = await readBodies(club.scope, '2026-03-12', 'coach')
		await keep('12')
		const values = async () =>
			(await rows(`select value from observation where athlete_id = '${athleteId}' order by device_time`)).map(
				({ value }) => value as object,
			)
		const said = { region: 'calf', side: 'right', score: 5, moment: 'during', redFlag: false }
		expect(await values()).toEqual([said, { ...said, note: 'since the match' }])
		expect((await acceptEvents(club.coach, [old], NOW)).map(({ outcome }) => outcome)).toEqual(['replayed'])
		expect((await values())[0]).toEqual(said)
		// What is closed is closed as before.
		expect(await readBodies(club.scope, '2026-03-12', 'coach')).toEqual(before)
		expect(before).toHaveLength(1)
	})
	it('go day by day, each club by its own number', async () => {
		const other = await makeClub('Other', 1)
		await saidOn('2025-03-13')
		await insertCareEvent(other.scope, {
			id: randomUUID(),
			athleteId: other.athletes[0]!,
			kind: 'soreness' as never,
			redFlag: false,
			asked: false,
			day: '2020-01-01',
			note: 'theirs',
			isVoid: false,
			authorId: other.coach.personId,
			receivedAt: NOW,
		})
		await keep('12')
		await forgetHealthNotes(new Date('2026-03-12T23:59:00Z'))
		expect(await mine('care_event', 'note', 'day')).toEqual([{ note: 'stairs are bad' }])
		await forgetHealthNotes(new Date('2026-03-13T00:01:00Z'))
		expect(await mine('care_event', 'note', 'day')).toEqual([{ note: '' }])
		expect(await rows(`select note from care_event where athlete_id = '${other.athletes[0]!}'`)).toEqual([
			{ note: 'theirs' },
		])
	})
	it('have a length on offer, no other; two coaches do not overrule each other unseen; it is written down without them', async () => {
		expect(await keep('7')).toMatchObject({ problem: expect.stringContaining('on offer') as string })
		expect(await keep('-12')).toMatchObject({ problem: expect.stringContaining('on offer') as string })
		expect(await keep('36')).toEqual({ saved: true })
		expect(await keepHealthNotes({ ...club.coach, personId: randomUUID() }, '6', 0, NOW)).toMatchObject({
			meanwhile: {
				differences: [{ label: 'Words about health are kept', theirs: '36 months', yours: '6 months' }],
			},
		})
		expect(await rows(`select what, about from deed where club_id = '${club.scope.clubId}'`)).toEqual([
			{ what: 'notes-kept', about: '36 months' },
		])
	})
})
