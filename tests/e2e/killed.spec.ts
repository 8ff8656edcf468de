import { randomUUID } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { expect, test } from '@playwright/test'
import { startApp } from '../support/app-test'
import { closePool } from '../support/use-database'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { migrateDatabase } from '../../db/migrate'
import { startLocalDatabase } from '../../scripts/local-database'
import { makeSecondClub } from '../support/second-club'
import { readLines } from '../../db/queries/sessions'
import type { EventAnswer } from '../../core/vocabulary/events'

const MARKS = 3000
const BATCH = 25

test('the web server and the database are killed in the middle of a sync: nothing acknowledged is missing, nothing is double', async ({
	playwright,
}) => {
	test.setTimeout(300_000)
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-killed-'))
	// A server of its own, which keeps what it has said it kept: the other tests' server may forget a second.
	const server = await startLocalDatabase(home)
	await migrateDatabase(server.url('dromos_empty'))
	const app = await startApp(server.url(''), 'dromos_empty')
	try {
		process.env.DATABASE_URL = app.databaseUrl
		const club = await makeSecondClub()
		const lines = await readLines(club.scope, [club.firstSessionId])
		await closePool()
		const request = await playwright.request.newContext({
			baseURL: app.address,
			extraHTTPHeaders: { origin: app.address },
		})
		await request.post('/sign-in', { form: { email: club.email, password: club.password }, maxRedirects: 0 })

		const deviceId = randomUUID()
		const queue = Array.from({ length: MARKS }, (_, deviceSeq) => {
			const line = lines[deviceSeq % lines.length]!
			return {
				id: randomUUID(),
				sessionId: club.firstSessionId,
				athleteId: line.athleteId,
				entryId: line.entryId,
				lineId: line.id,
				deviceId,
				deviceSeq,
				deviceTime: new Date(Date.UTC(2026, 2, 12, 18, 0, deviceSeq)).toISOString(),
				setNo: 1,
				repNo: 1 + (deviceSeq % 200),
				type: 'mark',
				kind: 'done',
				value: { reps: 1 },
			}
		})
		const acknowledged = new Set<string>()
		const waiting = [...queue]
		let lost = 0
		/** Sends as a phone does: a batch goes from the queue only when it was answered. */
		const drain = async (until: () => boolean) => {
			while (waiting.length > 0 && !until()) {
				const batch = waiting.slice(0, BATCH)
				try {
					const response = await request.post('/api/events', { data: { events: batch }, timeout: 5000 })
					if (!response.ok()) throw new Error(String(response.status()))
					for (const answer of ((await response.json()) as { answers: EventAnswer[] }).answers) {
						expect(['accepted', 'replayed']).toContain(answer.outcome)
						acknowledged.add(answer.id)
					}
					waiting.splice(0, batch.length)
				} catch {
					lost += 1
					await wait(100)
				}
			}
		}

		// The web server, twice, each time with requests under way.
		for (const at of [400, 900]) {
			const sending = drain(() => lost > 0 && acknowledged.size > at)
			await expect.poll(() => acknowledged.size, { intervals: [5], timeout: 60_000 }).toBeGreaterThan(at)
			await app.cutPower()
			await expect.poll(() => lost, { intervals: [20] }).toBeGreaterThan(0)
			await sending
			await app.powerOn()
			lost = 0
		}
		// The database, then what is left.
		const sending = drain(() => false)
		await expect.poll(() => acknowledged.size, { intervals: [5], timeout: 60_000 }).toBeGreaterThan(1600)
		process.kill(Number(readFileSync(path.join(home, 'mariadb.pid'), 'utf8')), 'SIGKILL')
		await expect.poll(() => lost, { intervals: [20] }).toBeGreaterThan(0)
		// It comes back by itself, where it was.
		await expect.poll(() => server.isUp(), { timeout: 60_000 }).toBe(true)
		await sending
		expect(acknowledged.size).toBe(MARKS)
		// Everything once more, as a phone would that never heard the answers.
		for (let i = 0; i < queue.length; i += 250) {
			const { answers } = (await (
				await request.post('/api/events', { data: { events: queue.slice(i, i + 250) } })
			).json()) as { answers: EventAnswer[] }
			expect(answers.every((answer) => answer.outcome === 'replayed')).toBe(true)
		}

		const connection = await mysql.createConnection(app.databaseUrl)
		const [rows] = await connection.query<RowDataPacket[]>(
			'select id from mark where device_id = ? order by device_seq',
			[deviceId],
		)
		await connection.end()
		expect(rows.map((row) => row.id as string)).toEqual(queue.map((event) => event.id))
		await request.dispose()
	} finally {
		await app.cutPower()
		await server.stop()
		rmSync(home, { recursive: true, force: true })
	}
})
