import type { ChildProcess } from 'node:child_process'
import { randomUUID } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { freePort, startLocalDatabase } from '../scripts/local-database'
import { ROOT } from '../scripts/root.mjs'
import { spawnTied } from '../scripts/tied.mjs'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'

/** What took longer than this the first time is measured once more, and not several times. */
const LONG_MS = 3000

export interface Measure {
	ms: number
	/** The time that 95 of 100 runs took at most. */
	p95Ms: number
	statements: number
	appCpuMs: number
	databaseCpuMs: number
}

/** What the system says of a process, from its state on, behind the name that may hold blanks; null when it has ended. */
function statOf(pid: number | string): string[] | null {
	try {
		return readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1]!.split(' ')
	} catch {
		return null
	}
}
/** utime and stime, in hundredths of a second. */
const cpuMsOf = (pid: number): number => {
	const stat = statOf(pid)
	return stat ? (Number(stat[11]) + Number(stat[12])) * 10 : 0
}

/** An application on one of the databases, asked as a browser asks it. */
export class Site {
	private cookie = ''
	private constructor(
		readonly address: string,
		readonly app: ChildProcess,
		private readonly databasePid: number,
		readonly connection: mysql.Connection,
	) {}

	static async start(bench: Bench, name: string, options: readonly string[] = ['--workers', '1']): Promise<Site> {
		const [port, url] = [await freePort(), bench.url(name)]
		const app = spawnTied(process.execPath, ['scripts/run.mjs', 'start', '--empty', ...options], {
			cwd: ROOT,
			stdio: ['ignore', 'pipe', 'inherit'],
			env: {
				...process.env,
				DATABASE_URL: url,
				DROMOS_HOME: path.join(bench.locks, name),
				PORT: String(port),
				npm_lifecycle_event: '',
			},
		})
		await new Promise<void>((resolve, reject) => {
			app.stdout!.on('data', (chunk: Buffer) => chunk.toString().includes('Ctrl-C ends it.') && resolve())
			app.once('exit', (code) => reject(new Error(`the application ended with ${code}`)))
		})
		const connection = await mysql.createConnection({ uri: url, timezone: 'Z', dateStrings: true })
		const site = new Site(`http://127.0.0.1:${port}`, app, bench.databasePid, connection)
		// A benchmark that was broken off may have left tries that failed.
		await connection.query('delete from sign_in_failure')
		site.cookie = await site.signIn(DEMO_SIGN_IN)
		return site
	}

	/** @returns what a browser sends from then on */
	async signIn(form: { email: string; password: string }): Promise<string> {
		const answer = await this.post('/sign-in', { form })
		const cookie = answer.headers.get('set-cookie')?.split(';')[0]
		if (cookie === undefined)
			throw new Error(`nobody was signed in: ${answer.status} ${await answer.text()}`.slice(0, 300))
		return cookie
	}

	async get(place: string): Promise<string> {
		const answer = await fetch(this.address + place, { headers: { cookie: this.cookie } })
		const text = await answer.text()
		if (!answer.ok) throw new Error(`${place} answered ${answer.status}: ${text.slice(0, 200)}`)
		return text
	}
	async post(
		place: string,
		{ form, json }: { form?: Record<string, string> | string[][]; json?: unknown },
	): Promise<Response> {
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

	/** Says that something of every club was written past the application, its log included: nothing kept stands any more. */
	changed = () =>
		this.connection.query(
			"insert into change_count values ('every', 'rest', 1), ('every', 'log', 1) on duplicate key update n = n + 1",
		)
	/** Says what every change of a club does that is nothing logged: a word on a session, a squad's place. */
	edited = (clubId: string) =>
		this.connection.query("insert into change_count values (?, 'rest', 1) on duplicate key update n = n + 1", [clubId])

	/** Processes that serve, where there are several: the children of the one that was started. */
	webPids = (): number[] =>
		readdirSync('/proc').flatMap((name) =>
			/^\d+$/.test(name) && Number(statOf(name)?.[1]) === this.app.pid ? [Number(name)] : [],
		)
	/** Processor time used so far, ms. */
	cpuMs = (): { app: number; database: number } => ({
		app: [this.app.pid!, ...this.webPids()].reduce((sum, pid) => sum + cpuMsOf(pid), 0),
		database: cpuMsOf(this.databasePid),
	})
	private questions = async () =>
		Number((await this.one<{ Value: string }>("show global status like 'Questions'")).Value)

	/** The median of some runs, after one that is not counted; what takes long is done once. @param before what is done before each, and not measured */
	async measure(work: () => Promise<unknown>, runs: number, before?: () => Promise<unknown>): Promise<Measure> {
		const measured: Omit<Measure, 'p95Ms'>[] = []
		const once = async () => {
			await before?.()
			const asked = await this.questions()
			const { app, database } = this.cpuMs()
			const began = performance.now()
			await work()
			const ms = performance.now() - began
			const then = this.cpuMs()
			measured.push({
				ms,
				appCpuMs: then.app - app,
				databaseCpuMs: then.database - database,
				// One of them asks how many there were.
				statements: (await this.questions()) - asked - 1,
			})
		}
		await once()
		if (runs > 1) {
			const isLong = measured[0]!.ms > LONG_MS
			measured.length = 0
			for (let run = 0; run < (isLong ? 1 : runs); run++) await once()
		}
		measured.sort((a, b) => a.ms - b.ms)
		const at = (share: number) => measured[Math.floor(measured.length * share)]!
		return { ...at(0.5), p95Ms: at(0.95).ms }
	}

	async stop(): Promise<void> {
		await this.connection.end()
		const ended = new Promise((resolve) => this.app.once('exit', resolve))
		this.app.kill('SIGTERM')
		await ended
	}
}

/** What a phone sends of so many reps that were done. */
export const doneMarks = (
	count: number,
	place: { sessionId: string; athleteId: string; entryId: string; lineId: string },
	device: { id: string; seq: number },
) =>
	Array.from({ length: count }, () => ({
		...place,
		id: randomUUID(),
		deviceId: device.id,
		deviceSeq: device.seq++,
		deviceTime: new Date().toISOString(),
		setNo: 1,
		repNo: 1,
		type: 'mark',
		kind: 'done',
		value: { reps: 1 },
	}))

export interface Bench {
	/** A database of the server that benchmarks keep, by its name. */
	url: (name: string) => string
	databasePid: number
	/** Where applications keep what says that they run. */
	locks: string
}

/**
 * A database server of the benchmarks' own for as long as some work takes. Its data stay in DROMOS_BENCH_HOME,
 * .data/bench in the project, for the next run.
 */
export async function withBench(work: (bench: Bench) => Promise<void>): Promise<void> {
	const home = process.env.DROMOS_BENCH_HOME ?? path.join(ROOT, '.data', 'bench')
	mkdirSync(home, { recursive: true })
	const database = await startLocalDatabase(home)
	const locks = mkdtempSync(path.join(tmpdir(), 'dromos-bench-'))
	try {
		const databasePid = Number(readFileSync(path.join(home, 'mariadb.pid'), 'utf8'))
		await work({ url: database.url, databasePid, locks })
	} finally {
		await database.stop()
		rmSync(locks, { recursive: true, force: true })
	}
}
