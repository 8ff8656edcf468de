import { type ChildProcess, spawn } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { addDays, mondayOf } from '../core/calendar/day-count'
import { defaultPhases, defaultShape } from '../core/plan/block'
import { connect } from '../db/connect'
import { migrateDatabase } from '../db/migrate'
import { freePort, startLocalDatabase } from '../scripts/local-database'
import { ROOT } from '../scripts/root.mjs'
import { DEMO_SIGN_IN, loadDemo } from '../server/demo/load-demo'
import { fillBigClub } from './big-club'

/** What a row may take at a million marks, ms, on two quiet cores. Kept beside the figure: a row over it is marked. */
const BUDGET_MS: Record<string, number> = {
	today: 400,
	plan: 600,
	squads: 200,
	'squad on a ladder': 200,
	athlete: 400,
	care: 200,
	sheet: 300,
	flow: 300,
	review: 600,
	'form of a session': 200,
	'pack of a session': 600,
	club: 100,
	library: 150,
	'field pack': 1000,
	'25 marks': 200,
	'a verdict accepted': 1000,
	'a block of four weeks': 3000,
}
/** Pages of which the first look after a change is measured, too. */
const WORKED_OUT = ['today', 'plan', 'squads', 'athlete', 'care', 'sheet', 'review', 'field pack']
const RUNS = 5
/** What took longer than this the first time is measured once more, and not several times. */
const LONG_MS = 3000

interface Measure {
	ms: number
	statements: number
	appCpuMs: number
	databaseCpuMs: number
}

/** An application on one of the databases, asked as a browser asks it. */
class Site {
	private cookie = ''
	private constructor(
		readonly address: string,
		private readonly app: ChildProcess,
		private readonly databasePid: number,
		readonly connection: mysql.Connection,
	) {}

	static async start(url: string, databasePid: number, home: string): Promise<Site> {
		const port = await freePort()
		const app = spawn(process.execPath, ['scripts/run.mjs', 'start', '--empty'], {
			cwd: ROOT,
			stdio: ['ignore', 'pipe', 'inherit'],
			env: { ...process.env, DATABASE_URL: url, DROMOS_HOME: home, PORT: String(port), npm_lifecycle_event: '' },
		})
		await new Promise<void>((resolve, reject) => {
			app.stdout!.on('data', (chunk: Buffer) => chunk.toString().includes('Ctrl-C ends it.') && resolve())
			app.once('exit', (code) => reject(new Error(`the application ended with ${code}`)))
		})
		const connection = await mysql.createConnection({ uri: url, timezone: 'Z', dateStrings: true })
		const site = new Site(`http://127.0.0.1:${port}`, app, databasePid, connection)
		const answer = await site.post('/sign-in', { form: DEMO_SIGN_IN })
		site.cookie = answer.headers.get('set-cookie')!.split(';')[0]!
		return site
	}

	async get(place: string): Promise<string> {
		const answer = await fetch(this.address + place, { headers: { cookie: this.cookie } })
		const text = await answer.text()
		if (!answer.ok) throw new Error(`${place} answered ${answer.status}: ${text.slice(0, 200)}`)
		return text
	}
	async post(place: string, { form, json }: { form?: Record<string, string>; json?: unknown }): Promise<Response> {
		const answer = await fetch(this.address + place, {
			method: 'POST',
			redirect: 'manual',
			headers: {
				cookie: this.cookie,
				origin: this.address,
				...(json ? { 'content-type': 'application/json' } : {}),
			},
			body: json ? JSON.stringify(json) : new URLSearchParams(form),
		})
		if (answer.status >= 400)
			throw new Error(`${place} answered ${answer.status}: ${(await answer.text()).slice(0, 300)}`)
		return answer
	}
	async one<T>(sql: string, values: unknown[] = []): Promise<T> {
		const [[row]] = await this.connection.query<RowDataPacket[]>(sql, values)
		if (!row) throw new Error(`nothing found: ${sql}`)
		return row as T
	}

	/** Says that something of the club was written past the application: nothing kept stands any more. */
	changed = () =>
		this.connection.query(
			"insert into change_count values ('every', 'rest', 1), ('every', 'log', 1) on duplicate key update n = n + 1",
		)

	private cpuMs = (pid: number) => {
		// utime and stime, in hundredths of a second, stand 14th and 15th; the name before them may hold blanks.
		const after = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')
		return (Number(after[11]) + Number(after[12])) * 10
	}
	private questions = async () =>
		Number((await this.one<{ Value: string }>("show global status like 'Questions'")).Value)

	/** The median of some runs, after one that is not counted; what takes long is done once. */
	async measure(work: () => Promise<unknown>, runs: number): Promise<Measure> {
		const measured: Measure[] = []
		const once = async () => {
			const before = await this.questions()
			const [app, database] = [this.cpuMs(this.app.pid!), this.cpuMs(this.databasePid)]
			const began = performance.now()
			await work()
			const ms = performance.now() - began
			measured.push({
				ms,
				appCpuMs: this.cpuMs(this.app.pid!) - app,
				databaseCpuMs: this.cpuMs(this.databasePid) - database,
				// One of them asks how many there were.
				statements: (await this.questions()) - before - 1,
			})
		}
		await once()
		if (runs > 1) {
			const isLong = measured[0]!.ms > LONG_MS
			measured.length = 0
			for (let run = 0; run < (isLong ? 1 : runs); run++) await once()
		}
		return measured.sort((a, b) => a.ms - b.ms)[Math.floor(measured.length / 2)]!
	}

	async stop(): Promise<void> {
		await this.connection.end()
		const ended = new Promise((resolve) => this.app.once('exit', resolve))
		this.app.kill('SIGTERM')
		await ended
	}
}

async function measureAll(site: Site, today: string): Promise<Map<string, Measure>> {
	const squad = await site.one<{ id: string; club: string }>(
		"select s.id, s.club_id as club from squad s join person p on p.club_id = s.club_id where p.email = ? and s.name like 'Open%'",
		[DEMO_SIGN_IN.email],
	)
	const session = await site.one<{ id: string }>(
		'select id from session where club_id = ? and squad_id = ? and started_at is null order by day limit 1',
		[squad.club, squad.id],
	)
	const waiting = await site.one<{ id: string }>(
		'select id from session where club_id = ? and started_at is not null and reviewed_at is null order by day limit 1',
		[squad.club],
	)
	const line = await site.one<{ id: string; entryId: string; athleteId: string }>(
		'select id, entry_id as entryId, athlete_id as athleteId from line where club_id = ? and session_id = ? and blocked is null limit 1',
		[squad.club, session.id],
	)
	const pages: Record<string, string> = {
		today: '/',
		plan: '/plan',
		squads: '/squads',
		'squad on a ladder': `/squads/${squad.id}/ladders/shock`,
		athlete: `/athletes/${line.athleteId}`,
		care: `/athletes/${line.athleteId}/care`,
		sheet: `/sessions/${session.id}`,
		flow: `/sessions/${session.id}/flow`,
		review: `/sessions/${waiting.id}/review`,
		'form of a session': '/sessions/new',
		'pack of a session': `/sessions/pack?squad=${squad.id}&day=${addDays(today, 9)}&time=17:30&athletes=${line.athleteId}`,
		club: '/club',
		library: '/library',
		'field pack': `/api/field?session=${session.id}&only`,
	}
	const rows = new Map<string, Measure>()
	for (const [name, place] of Object.entries(pages)) rows.set(name, await site.measure(() => site.get(place), RUNS))
	// Pages are kept as long as nothing changes; whoever looks first after a change waits for it.
	for (const name of WORKED_OUT)
		rows.set(
			`${name}, changed`,
			await site.measure(async () => {
				await site.changed()
				return site.get(pages[name]!)
			}, RUNS),
		)

	const deviceId = randomUUID()
	let deviceSeq = 0
	rows.set(
		'25 marks',
		await site.measure(async () => {
			const events = Array.from({ length: 25 }, () => ({
				id: randomUUID(),
				sessionId: session.id,
				athleteId: line.athleteId,
				entryId: line.entryId,
				lineId: line.id,
				deviceId,
				deviceSeq: deviceSeq++,
				deviceTime: new Date().toISOString(),
				setNo: 1,
				repNo: 1,
				type: 'mark',
				kind: 'done',
				value: { reps: 1 },
			}))
			const { answers } = (await (await site.post('/api/events', { json: { events } })).json()) as {
				answers: { outcome: string }[]
			}
			if (answers.some(({ outcome }) => outcome !== 'accepted')) throw new Error('a mark was not accepted')
		}, RUNS),
	)
	// Taken away again, so that the next run finds the session as this one did.
	await site.connection.query('delete from mark where club_id = ? and device_id = ?', [squad.club, deviceId])
	await site.connection.query('update session set started_at = null where club_id = ? and id = ?', [
		squad.club,
		session.id,
	])

	await site.changed()

	const review = await site.get(`/sessions/${waiting.id}/review`)
	const row = /value="([0-9a-f-]{36}\/[a-z-]+\/[0-9a-f]{64})"/.exec(review)?.[1]
	if (!row) throw new Error('no verdict waits; remove the data directory of the benchmark to fill it anew')
	rows.set(
		'a verdict accepted',
		await site.measure(() => site.post(`/sessions/${waiting.id}/review`, { form: { do: 'accept', row } }), 1),
	)

	const start = addDays(mondayOf(today), 70)
	const plan = {
		start,
		phases: defaultPhases(4, 'accumulate'),
		shape: defaultShape(4),
		days: [
			{ weekday: 2, startTime: '17:30', minutes: 90, role: 'hard' },
			{ weekday: 5, startTime: '17:30', minutes: 90, role: 'hard' },
		],
		priority: null,
		kept: [],
		testDay: false,
		content: 'proposed',
	}
	rows.set(
		'a block of four weeks',
		await site.measure(() => site.post('/plan/block', { form: { squadId: squad.id, plan: JSON.stringify(plan) } }), 1),
	)
	const block = await site.one<{ id: string }>('select id from block where club_id = ? and start_day = ?', [
		squad.club,
		start,
	])
	await site.post('/plan', { form: { do: 'remove', id: block.id } })
	return rows
}

/**
 * Every main page at the demo's size and at a million marks: time, growth, statements, processor time.
 * The filled club is kept in DROMOS_BENCH_HOME, .data/bench in the project, for the next run.
 */
export async function benchPages(): Promise<void> {
	const home = process.env.DROMOS_BENCH_HOME ?? path.join(ROOT, '.data', 'bench')
	mkdirSync(home, { recursive: true })
	const database = await startLocalDatabase(home)
	const locks = mkdtempSync(path.join(tmpdir(), 'dromos-bench-'))
	const today = new Date().toISOString().slice(0, 10)
	const results: Map<string, Measure>[] = []
	try {
		const databasePid = Number(readFileSync(path.join(home, 'mariadb.pid'), 'utf8'))
		await fillBigClub(database.url('dromos_big'), today)
		const admin = await mysql.createConnection(database.url(''))
		await admin.query('drop database if exists dromos_small')
		await admin.end()
		await migrateDatabase(database.url('dromos_small'))
		const small = connect(database.url('dromos_small'))
		await loadDemo(small.db, new Date())
		await small.pool.end()
		for (const name of ['dromos_small', 'dromos_big']) {
			const site = await Site.start(database.url(name), databasePid, path.join(locks, name))
			try {
				results.push(await measureAll(site, today))
			} finally {
				await site.stop()
			}
		}
	} finally {
		await database.stop()
		rmSync(locks, { recursive: true, force: true })
	}
	const [small, big] = results as [Map<string, Measure>, Map<string, Measure>]
	const heads = ['demo ms', 'million ms', 'growth', 'budget ms', 'statements', 'app cpu ms', 'db cpu ms']
	console.log(`${'page'.padEnd(24)}${heads.map((head) => head.padStart(13)).join('')}`)
	for (const [name, at] of small) {
		const then = big.get(name)!
		// Kept pages have no budget of their own: what is worked out after a change is held to it.
		const budget = BUDGET_MS[name.replace(', changed', '')]!
		const cells = [
			at.ms.toFixed(0),
			then.ms.toFixed(0),
			`× ${(then.ms / at.ms).toFixed(1)}`,
			`${budget}${then.ms > budget ? ' over' : ''}`,
			`${at.statements} → ${then.statements}`,
			`${at.appCpuMs} → ${then.appCpuMs}`,
			`${at.databaseCpuMs} → ${then.databaseCpuMs}`,
		]
		console.log(`${name.padEnd(24)}${cells.map((cell) => cell.padStart(13)).join('')}`)
	}
}
