import { randomBytes, randomUUID } from 'node:crypto'
import { sql } from 'drizzle-orm'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { type ClubScope, connect, inTransaction } from '../../db/connect'
import { insertAthletes, insertClub, insertPerson } from '../../db/queries/clubs'
import { installLibrary } from '../../db/queries/library'
import { addDays, weekday } from '../../core/calendar/day-count'
import { addMembers, insertSquad } from '../../db/queries/squads'
import type { SchoolId } from '../../core/vocabulary/ids'
import type { Role } from '../../db/schema/people'
import type { SignedIn } from '../../server/access/sign-in'
import { database } from '../../server/database'
import { loadDemo } from '../../server/demo/load-demo'
import { copyDatabase } from './copy-database'
import { closePool } from './use-database'

export const NOW = new Date('2026-03-12T18:00:00Z')

/** A fresh database on the tests' server; the application's pool points at it from here on. */
export const freshDatabase = (): Promise<string> => useCopy('dromos_template')

async function useCopy(template: string): Promise<string> {
	const url = await copyDatabase(testServer(), template, `dromos_test_${randomBytes(6).toString('hex')}`)
	await closePool()
	process.env.DATABASE_URL = url
	return url
}

function testServer(): string {
	const server = process.env.TEST_DATABASE_URL
	if (!server) throw new Error('TEST_DATABASE_URL is not set: run the tests through npm test or npx vitest')
	return server
}

/** When the demo club of `freshDemo` was made. */
export const DEMO_NOW = new Date('2026-05-20T10:00:00Z')
const DEMO = 'dromos_demo_template'

/** As `freshDatabase`, with the demo club in it: whoever of the test run needs it first loads it, the others copy it. */
export async function freshDemo(): Promise<string> {
	const connection = await mysql.createConnection(testServer())
	try {
		await connection.query('select get_lock(?, 240)', [DEMO])
		const [made] = await connection.query<RowDataPacket[]>('show databases like ?', [DEMO])
		if (made.length === 0) {
			const making = connect(await copyDatabase(testServer(), 'dromos_template', DEMO))
			try {
				await loadDemo(making.db, DEMO_NOW)
			} catch (error) {
				await connection.query(`drop database ${DEMO}`)
				throw error
			} finally {
				await making.pool.end()
			}
		}
	} finally {
		// The lock goes with the connection.
		await connection.end()
	}
	return useCopy(DEMO)
}

const TRAINED_FAMILIES = ['sprint', 'agility', 'plyometric', 'throw'] as const
/** Every third day of ten weeks, up to the day before `NOW` or another. */
const trainedDays = (until: string) => Array.from({ length: 24 }, (_, index) => addDays(until, -3 * index))

export interface TestClub {
	scope: ClubScope
	coach: SignedIn
	as: (role: Role, athleteId?: string) => SignedIn
	squadId: string
	athletes: string[]
}

/**
 * A club with a coach, one squad and athletes of 25 years. The squad trains on the weekday after they last trained and
 * four days on (Thursdays and Mondays, of `NOW`): on whatever day a test runs, its next session is four days away.
 */
export async function makeClub(name: string, athleteCount = 3, trainedUntil = '2026-03-11'): Promise<TestClub> {
	const { db } = database()
	const clubId = randomUUID()
	const personId = randomUUID()
	const squadId = randomUUID()
	const athletes = Array.from({ length: athleteCount }, () => randomUUID())
	await inTransaction(db, clubId, async (scope) => {
		await insertClub(scope.db, { id: clubId, name, timeZone: 'Atlantic/Madeira', createdAt: NOW })
		await installLibrary(scope, NOW)
		await insertPerson(scope, {
			id: personId,
			email: `${personId}@example.org`,
			name: 'Coach',
			role: 'coach',
			passwordHash: '-',
			athleteId: null,
			createdAt: NOW,
		})
		await insertAthletes(
			scope,
			athletes.map((id, index) => ({
				id,
				name: `Athlete ${index + 1}`,
				birthDate: '2001-01-01',
				legLengthMm: 900,
				createdAt: NOW,
			})),
		)
		await insertSquad(scope, {
			id: squadId,
			name: 'Squad',
			schoolId: 'quality-first',
			schoolVersion: 1,
			phase: 'peaking',
			trainingDays: [1, 5].map((days) => weekday(addDays(trainedUntil, days))).sort(),
			startTime: '17:30',
			place: 'Field',
		})
		await addMembers(scope, squadId, athletes, '2026-01-01')
		// They have trained everything all winter, and are advanced: what a test is about is not their first day.
		if (athletes.length > 0) {
			const levels = athletes.flatMap((id) => TRAINED_FAMILIES.map((family) => [clubId, id, family, 3]))
			const worked = levels.flatMap(([, id, family]) =>
				trainedDays(trainedUntil).map((day) => [clubId, id, family, day]),
			)
			for (const [into, rows] of [
				['athlete_level (club_id, athlete_id, family, level)', levels],
				['work_day (club_id, athlete_id, family, day)', worked],
			] as const)
				await scope.db.execute(sql.raw(mysql.format(`insert into ${into} values ?`, [rows])))
		}
	})
	const as = (role: Role, athleteId: string | null = null): SignedIn => ({
		clubId,
		clubName: name,
		timeZone: 'Atlantic/Madeira',
		personId,
		name: 'Coach',
		role,
		athleteId,
		units: 'metric',
	})
	return { scope: { db, clubId }, coach: as('coach'), as, squadId, athletes }
}

/** Another squad of the club, without anybody in it yet. @returns its id */
export async function secondSquad({ scope }: TestClub, schoolId: SchoolId): Promise<string> {
	const id = randomUUID()
	await insertSquad(scope, {
		id,
		name: 'Other squad',
		schoolId,
		schoolVersion: 1,
		phase: 'peaking',
		trainingDays: [2],
		startTime: '09:00',
		place: 'Field',
	})
	return id
}
