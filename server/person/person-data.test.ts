import { randomUUID } from 'node:crypto'
import Ajv from 'ajv/dist/2020'
import addFormats from 'ajv-formats'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { PersonData } from '../../core/open-data/person'
import { DEMO_NOW, freshDemo, makeClub } from '../../tests/support/test-club'
import { DEMO_SIGN_IN } from '../demo/sign-in'
import { acceptEvents } from '../log/accept-events'
import type { SignedIn } from '../access/sign-in'
import { erasePerson, mayTakeOut, takeOutPerson } from './person-data'

/*
 * On the demo club, which has everything: somebody with a closed region, verdicts, marks of nine weeks and a guardian.
 */

let coach: SignedIn
let connection: mysql.Connection
const rows = async (sql: string, values: unknown[] = []) => (await connection.query<RowDataPacket[]>(sql, values))[0]
const NOW = DEMO_NOW
let id = ''
let name = ''
const guardian = randomUUID()

beforeEach(async () => {
	connection = await mysql.createConnection({ uri: await freshDemo(), timezone: 'Z' })
	const [person] = await rows('select * from person where email = ?', [DEMO_SIGN_IN.email])
	coach = {
		clubId: String(person!.club_id),
		clubName: 'Saltmarsh Ultimate',
		timeZone: 'Atlantic/Madeira',
		personId: String(person!.id),
		name: String(person!.name),
		role: 'coach',
		athleteId: null,
		units: 'metric',
	}
	// Who has most said of their body, so that most can be left behind.
	const [most] = await rows(
		"select o.athlete_id as id, i.name from observation o join athlete_identity i on i.athlete_id = o.athlete_id where o.kind in ('pain', 'head', 'chest', 'unwell') group by 1, 2 order by count(*) desc limit 1",
	)
	id = String(most!.id)
	name = String(most!.name)
	await rows(
		"insert into person (club_id, id, email, name, role, password_hash, athlete_id, created_at) values (?, ?, ?, ?, 'guardian', '-', ?, now(3))",
		[coach.clubId, guardian, `guardian.of.${id}@example.org`, 'Planted Guardian', id],
	)
	await rows('update athlete_identity set emergency_contact = ?, birth_date = ? where athlete_id = ?', [
		'Planted contact 555',
		'2011-04-05',
		id,
	])
}, 240_000)
afterEach(() => connection.end())

/** Every cell of every table, to look for what should not be there. */
async function everything(): Promise<[table: string, text: string][]> {
	const tables = (await rows('show tables')).map((row) => String(Object.values(row)[0]))
	return Promise.all(
		tables.map(
			async (table): Promise<[string, string]> => [table, JSON.stringify(await rows(`select * from \`${table}\``))],
		),
	)
}

describe('what is kept of an athlete', () => {
	it('is taken out whole, by its schema, and it is written down', async () => {
		const taken = (await takeOutPerson(coach, id, NOW))!
		const ajv = new Ajv({ strict: false })
		addFormats(ajv)
		const fits = ajv.compile(PersonData)
		expect(fits(taken), JSON.stringify(fits.errors)).toBe(true)
		expect(taken.athlete).toEqual({ id, name, born: '2011-04-05' })
		// Every table that is about athletes is in it, with every row of theirs.
		const about = (
			await rows(
				"select distinct table_name as t from information_schema.columns where table_schema = database() and column_name = 'athlete_id'",
			)
		).map(({ t }) => String(t))
		for (const table of about.filter((one) => !['person', 'invitation'].includes(one))) {
			const [{ n }] = (await rows(`select count(*) as n from \`${table}\` where athlete_id = ?`, [id])) as [
				{ n: number },
			]
			expect(taken.tables[table], table).toHaveLength(Number(n))
		}
		expect(taken.tables.mark!.length).toBeGreaterThan(50)
		expect(taken.tables.observation!.length).toBeGreaterThan(5)
		// What is kept packed goes out as what it is.
		expect(taken.tables.verdict!.length).toBeGreaterThan(0)
		for (const { judgement, input, proposed } of taken.tables.verdict!)
			expect([judgement, input]).toEqual([
				expect.objectContaining({ verdict: proposed }),
				expect.objectContaining({ athlete: expect.objectContaining({ id }) as unknown }),
			])
		expect(JSON.stringify(taken)).not.toContain('password')
		expect(await rows("select about from deed where what = 'exported'")).toEqual([
			{ about: `everything about ${name}` },
		])
	})
	it('is for the coach, the athlete and who answers for them', async () => {
		const as = (role: SignedIn['role'], athleteId: string | null = null) =>
			mayTakeOut({ ...coach, role, athleteId }, id)
		expect([as('coach'), as('athlete', id), as('guardian', id)]).toEqual([true, true, true])
		expect([as('assistant'), as('clinician'), as('athlete', randomUUID())]).toEqual([false, false, false])
		const other = await makeClub('Other', 1)
		expect(await takeOutPerson(other.coach, id, NOW)).toBeNull()
		expect(await erasePerson(other.coach, id, name, NOW)).toBeNull()
	})
})

describe('an athlete who is erased', () => {
	it('is not by a name that is typed otherwise', async () => {
		const before = await everything()
		expect(await erasePerson(coach, id, name.slice(1), NOW)).toHaveProperty('problem')
		expect(await everything()).toEqual(before)
	})
	it('leaves no name, no contact and no word of health in any table; the marks stay', async () => {
		const marks = await rows('select id, value from mark where athlete_id = ? order by id', [id])
		const others = await rows(
			'select id, value from observation where athlete_id <> ? or athlete_id is null order by id',
			[id],
		)
		expect(await erasePerson(coach, id, ` ${name} `, NOW)).toEqual({ erased: true })
		for (const [table, text] of await everything())
			for (const word of [name, 'Planted contact', '2011-04-05', 'Planted Guardian', 'guardian.of.'])
				expect(text.includes(word), `${table} says ${word}`).toBe(false)
		const left = await rows('select kind from observation where athlete_id = ?', [id])
		expect(left.filter(({ kind }) => !['quality', 'effort'].includes(String(kind)))).toEqual([])
		for (const table of [
			'care_record',
			'care_event',
			'clearance',
			'verdict',
			'decision',
			'ladder_state',
			'squad_member',
		])
			expect(await rows(`select 1 from \`${table}\` where athlete_id = ?`, [id]), table).toEqual([])
		// A reason on an old line would tell it as well.
		expect(
			await rows(
				"select 1 from line where athlete_id = ? and (`change` is not null or would_be is not null or blocked not in ('no line'))",
				[id],
			),
		).toEqual([])
		expect(await rows('select id, value from mark where athlete_id = ? order by id', [id])).toEqual(marks)
		expect(
			await rows('select id, value from observation where athlete_id <> ? or athlete_id is null order by id', [id]),
		).toEqual(others)
		expect(
			await rows(
				'select 1 from session_athlete a join session s on s.id = a.session_id where a.athlete_id = ? and s.started_at is null',
				[id],
			),
		).toEqual([])
		expect(await rows("select about from deed where what = 'erased'")).toEqual([{ about: '' }])
		// Once is enough.
		expect(await erasePerson(coach, id, 'Somebody erased', NOW)).toBeNull()
	})
	it('is not written about by a phone that comes late', async () => {
		expect(await erasePerson(coach, id, name, NOW)).toEqual({ erased: true })
		const [session] = await rows(
			'select s.id from session s join session_athlete a on a.session_id = s.id where a.athlete_id = ? limit 1',
			[id],
		)
		const events = [
			{
				type: 'observation',
				kind: 'pain',
				value: { region: 'knee', side: 'left', score: 4, moment: 'during', redFlag: false },
			},
			{ type: 'observation', kind: 'guest', value: { name } },
		].map((one, deviceSeq) => ({
			...one,
			id: randomUUID(),
			sessionId: String(session!.id),
			athleteId: id,
			deviceId: randomUUID(),
			deviceSeq,
			deviceTime: NOW.toISOString(),
		}))
		const before = await rows('select count(*) as n from observation')
		const answers = await acceptEvents(coach, events, NOW)
		expect(JSON.stringify(answers)).toContain('refused')
		expect(JSON.stringify(answers)).not.toContain('accepted')
		expect(await rows('select count(*) as n from observation')).toEqual(before)
		expect((await everything()).filter(([, text]) => text.includes(name))).toEqual([])
	})
})
