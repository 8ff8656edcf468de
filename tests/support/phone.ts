import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { type APIRequestContext, type PlaywrightWorkerArgs, expect } from '@playwright/test'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import type { EventAnswer } from '../../core/vocabulary/events'
import { readLines } from '../../db/queries/sessions'
import { makeSecondClub } from './second-club'
import { closePool } from './use-database'

const BATCH = 25
/** Of ten things a phone sends: one corrects the mark before it, one (of forty) says what hurts, the others are marks. */
const CORRECTS = 10
const HURTS = 40

type Sent = { id: string; replacesId?: string; type: string } & Record<string, unknown>

/** Phones that are signed in and log on the first session of a club, each over a connection of its own. */
export async function phonesOf(
	playwright: PlaywrightWorkerArgs['playwright'],
	app: { address: string; databaseUrl: string },
	count: number,
): Promise<{ phones: Phone[]; request: APIRequestContext }> {
	process.env.DATABASE_URL = app.databaseUrl
	const club = await makeSecondClub()
	const lines = await readLines(club.scope, [club.firstSessionId])
	await closePool()
	const requests: APIRequestContext[] = []
	for (let at = 0; at < count; at++) {
		const request = await playwright.request.newContext({
			baseURL: app.address,
			extraHTTPHeaders: { origin: app.address },
		})
		await request.post('/sign-in', { form: { email: club.email, password: club.password }, maxRedirects: 0 })
		requests.push(request)
	}
	return { phones: requests.map((request) => new Phone(request, club.firstSessionId, lines)), request: requests[0]! }
}

/** A phone: what it has not been told is kept stays in its queue and goes again. */
export class Phone {
	readonly all: Sent[] = []
	readonly acknowledged = new Set<string>()
	/** Requests that came to nothing. */
	lost = 0
	private queue: Sent[] = []
	private readonly deviceId = randomUUID()

	constructor(
		private readonly request: APIRequestContext,
		private readonly sessionId: string,
		private readonly lines: { id: string; athleteId: string; entryId: string }[],
	) {}

	private next(): Sent {
		const deviceSeq = this.all.length
		const line = this.lines[deviceSeq % this.lines.length]!
		const common = {
			id: randomUUID(),
			sessionId: this.sessionId,
			athleteId: line.athleteId,
			deviceId: this.deviceId,
			deviceSeq,
			deviceTime: new Date(Date.UTC(2026, 2, 12, 18, 0, deviceSeq)).toISOString(),
		}
		const before = this.all.at(-1)
		if (deviceSeq % HURTS === HURTS - 1)
			return {
				...common,
				type: 'observation',
				kind: 'pain',
				value: { region: 'knee', side: 'left', score: 2, moment: 'during', redFlag: false },
			}
		if (deviceSeq % CORRECTS === CORRECTS - 1 && before?.type === 'mark' && !before.replacesId)
			return { ...before, id: common.id, deviceSeq, replacesId: before.id, value: { reps: 2 } }
		const at = { entryId: line.entryId, lineId: line.id, setNo: 1, repNo: 1 + (deviceSeq % 200) }
		return { ...common, ...at, type: 'mark', kind: 'done', value: { reps: 1 } }
	}

	/** Goes on logging and sending until it is told to stop, then sends what is left. */
	async work(isOver: () => boolean): Promise<void> {
		while (!isOver() || this.queue.length > 0) {
			while (!isOver() && this.queue.length < BATCH) {
				const one = this.next()
				this.all.push(one)
				this.queue.push(one)
			}
			const batch = this.queue.slice(0, BATCH)
			const answers = await this.send(batch)
			if (!answers) {
				this.lost += 1
				await wait(100)
				continue
			}
			for (const { id, outcome } of answers) {
				expect(['accepted', 'replayed']).toContain(outcome)
				this.acknowledged.add(id)
			}
			this.queue = this.queue.slice(batch.length)
		}
	}
	async send(events: Sent[]): Promise<EventAnswer[] | null> {
		try {
			const response = await this.request.post('/api/events', { data: { events }, timeout: 10_000 })
			return response.ok() ? ((await response.json()) as { answers: EventAnswer[] }).answers : null
		} catch {
			// Nobody answers, or half an answer came: a phone sends it again.
			return null
		}
	}

	/** Nothing acknowledged is missing, nothing is there twice, and everything sent once more is known. */
	async expectAllKept(databaseUrl: string): Promise<void> {
		expect(this.acknowledged.size).toBe(this.all.length)
		// Once more, as a phone would that never heard the answers.
		for (let at = 0; at < this.all.length; at += 250) {
			const answers = await this.send(this.all.slice(at, at + 250))
			expect(new Set(answers!.map(({ outcome }) => outcome))).toEqual(new Set(['replayed']))
		}
		const connection = await mysql.createConnection(databaseUrl)
		const [rows] = await connection.query<RowDataPacket[]>(
			'select id, replaces_id as replacesId from (select id, replaces_id, device_id, device_seq from mark union all select id, replaces_id, device_id, device_seq from observation) as log where device_id = ? order by device_seq',
			[this.deviceId],
		)
		await connection.end()
		expect(rows.map((row) => [row.id as string, row.replacesId as string | null])).toEqual(
			this.all.map((event) => [event.id, event.replacesId ?? null]),
		)
		expect(this.all.filter(({ replacesId }) => replacesId).length).toBeGreaterThan(5)
		expect(this.all.filter(({ type }) => type === 'observation').length).toBeGreaterThan(1)
	}
}
