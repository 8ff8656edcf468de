import type mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { closuresOn } from '../../core/care/closures'
import type { PlainFacts } from '../../core/permit/plain-facts'
import { openOlderClub } from '../../tests/support/older-version'
import { closePool } from '../../tests/support/use-database'
import { readLibrary } from '../../db/queries/library'
import { readStates } from '../../db/queries/squads'
import { readFacts } from './read-facts'

// A club in the middle of closures, before closures were a fold: what its ladders had closed stays closed, what a
// health professional cleared stays cleared, what a coach cleared alone is closed again.

let club: Awaited<ReturnType<typeof openOlderClub>>
let closed: { athleteId: string; region: string }[] = []
let swapped = ''
let facts: Map<string, PlainFacts>
const DAY = '2026-05-21'

beforeAll(async () => {
	club = await openOlderClub(async (connection) => {
		const [states] = await connection.query<mysql.RowDataPacket[]>(
			'select club_id, athlete_id, ladder_id from ladder_state order by athlete_id, ladder_id',
		)
		const athletes = [...new Set(states.map((row) => String(row.athlete_id)))]
		closed = athletes.slice(0, 5).map((athleteId, index) => ({
			athleteId,
			region: ['knee', 'back-thigh', 'calf', 'shoulder', 'neck-head'][index]!,
		}))
		for (const { athleteId, region } of closed)
			await connection.query(
				`update ladder_state set state = json_set(state, '$.closed', json_object('region', ?, 'since', '2026-05-18'))
				where athlete_id = ? order by ladder_id limit 1`,
				[region, athleteId],
			)
		swapped = athletes[10]!
		await connection.query(
			`update ladder_state set state = json_set(state, '$.substitute',
				json_object('drillId', 'wall-drill', 'region', 'groin', 'since', '2026-05-18', 'cause', 'pain'))
			where athlete_id = ? order by ladder_id limit 2`,
			[swapped],
		)
		for (const [athleteId, role] of [
			[athletes[6], 'Team physio'],
			[athletes[7], 'head coach'],
			[athletes[8], 'Dr. of sports medicine, doctor'],
			[athletes[9], 'osteopath'],
		])
			await connection.query(
				`insert into clearance (club_id, id, athlete_id, region, cleared_by, cleared_by_role, cleared_on, recorded_by, recorded_at)
				select id, uuid(), ?, 'ankle', 'Somebody', ?, '2026-05-19', ?, now() from club limit 1`,
				[athleteId, role, athleteId],
			)
	})
	const library = await readLibrary(club.scope)
	const ids = [
		...new Set(
			[
				...(
					await readStates(
						club.scope,
						closed.map((one) => one.athleteId),
					)
				).keys(),
			].map((key) => key.split('/')[0]!),
		),
	]
	const [rows] = await club.open.pool.query<mysql.RowDataPacket[]>('select distinct athlete_id as id from clearance')
	facts = await readFacts(
		club.scope,
		{ day: DAY, startTime: '17:30', phase: 'accumulate', surface: null },
		{ schoolId: 'quality-first' },
		[...new Set([...ids, swapped, ...rows.map((row) => String(row.id))])],
		library,
		DAY,
	)
}, 60_000)
afterAll(async () => {
	await club.open.pool.end()
	await closePool()
})

describe('the migration of closures', () => {
	it('opens nothing that a ladder had closed', () => {
		expect(closed).toHaveLength(5)
		for (const { athleteId, region } of closed)
			expect(closuresOn(facts.get(athleteId)!, DAY), region).toContainEqual(
				expect.objectContaining({ region, grade: 'closed' }),
			)
	})
	it('spares what a ladder had swapped for pain, until somebody was asked', () => {
		expect(closuresOn(facts.get(swapped)!, DAY)).toContainEqual(
			expect.objectContaining({ region: 'groin', grade: 'spare', since: '2026-05-18' }),
		)
	})
	it('leaves nothing of it on a ladder', async () => {
		const [[left]] = await club.open.pool.query<mysql.RowDataPacket[]>(
			`select count(*) as n from ladder_state where json_contains_path(state, 'one', '$.closed')
				or json_value(state, '$.substitute.drillId') is not null`,
		)
		expect(Number(left!.n)).toBe(0)
	})
	it('reads what a role in words comes to', async () => {
		const [rows] = await club.open.pool.query<mysql.RowDataPacket[]>(
			"select cleared_by_role as words, role from clearance where cleared_by = 'Somebody' order by words",
		)
		expect(rows.map(({ words, role }) => `${words}: ${role}`)).toEqual([
			'Dr. of sports medicine, doctor: doctor',
			'head coach: coach',
			'osteopath: clinician',
			'Team physio: physiotherapist',
		])
	})
	it('knows when everybody worked last', async () => {
		const [[days]] = await club.open.pool.query<mysql.RowDataPacket[]>('select count(*) as n from work_day')
		expect(Number(days!.n)).toBeGreaterThan(100)
		const [[missing]] = await club.open.pool.query<mysql.RowDataPacket[]>(
			`select count(*) as n from mark m join session s on s.club_id = m.club_id and s.id = m.session_id
			where m.is_void = 0 and m.kind <> 'missed' and not exists (select 1 from mark r where r.replaces_id = m.id)
			and not exists (select 1 from work_day w where w.club_id = m.club_id and w.athlete_id = m.athlete_id and w.day = s.day)`,
		)
		expect(Number(missing!.n)).toBe(0)
	})
})
