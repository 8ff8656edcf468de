import type { ChildProcess } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { test as base } from '@playwright/test'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { freePort } from '../../scripts/local-database'
import { ROOT } from '../../scripts/root.mjs'
import { spawnTied } from '../../scripts/tied.mjs'
import { copyDatabase, onServer, refillDatabase } from './copy-database'
import { closePool } from './use-database'
import { waking } from './waking'

/** An application of a test's own, with a database nobody else uses. */
export interface App {
	address: string
	databaseUrl: string
	/** What the start command printed. */
	printed: () => string
	/** What the database holds, asked past the application; written past it, it is counted as a change. */
	rows: (sql: string, values?: unknown[]) => Promise<RowDataPacket[]>
	/** Ends it as a power cut would, the database going on. */
	cutPower: () => Promise<void>
	/** Comes back where it was. */
	powerOn: () => Promise<void>
}

/** A test of its own is asked by one person: more processes would be more to start. */
const ONE = ['--workers', '1']

/** Starts the application the way the start command does and waits for its last line. */
async function startProcess(
	databaseUrl: string,
	home: string,
	port: number,
	more: readonly string[],
): Promise<[ChildProcess, () => string]> {
	// Tied: a run that is broken off leaves none behind.
	const child = spawnTied(
		process.execPath,
		['scripts/run.mjs', 'start', '--empty', ...(more.length > 0 ? more : ONE)],
		{
			cwd: ROOT,
			stdio: ['ignore', 'pipe', 'pipe'],
			env: {
				...process.env,
				DATABASE_URL: databaseUrl,
				DROMOS_HOME: home,
				PORT: String(port),
				HOST: '127.0.0.1',
				npm_lifecycle_event: '',
			},
		},
	)
	let printed = ''
	await new Promise<void>((resolve, reject) => {
		const read = (chunk: Buffer) => {
			printed += chunk.toString()
			if (printed.includes('Ctrl-C ends it.')) resolve()
		}
		child.stdout!.on('data', read)
		child.stderr!.on('data', read)
		child.on('close', (code) => reject(new Error(`the app ended with ${code}:\n${printed}`)))
	})
	return [child, () => printed]
}

async function end(child: ChildProcess, signal: NodeJS.Signals): Promise<void> {
	if (child.exitCode !== null || child.signalCode !== null) return
	const ended = new Promise((resolve) => child.once('exit', resolve))
	child.kill(signal)
	await ended
}

/** Writes to what pages are worked out of; who is signed in is not. */
const WRITES = /^\s*(insert|update|delete|replace)\b(?!.*\bsign_in\b)/is
const CHANGED =
	"insert into change_count values ('every', 'rest', 1), ('every', 'log', 1) on duplicate key update n = n + 1"

interface OwnApp extends App {
	/** Of the start command. */
	pid: () => number
	/** Ends it and drops its database. */
	stop: () => Promise<void>
	/** Gives its database the rows it began with; false when the process is not the one that was started. */
	renew: () => Promise<boolean>
}

/** An application on a copy of a database of the tests' server. @param more options of the start command */
export async function startApp(serverUrl: string, template: string, more: readonly string[] = []): Promise<OwnApp> {
	const name = `dromos_${randomBytes(6).toString('hex')}`
	const databaseUrl = await copyDatabase(serverUrl, template, name)
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-app-'))
	const port = await freePort()
	let [child, printed] = await startProcess(databaseUrl, home, port, more)
	let wasCut = false
	const address = `http://127.0.0.1:${port}`
	const connection = await mysql.createConnection({ uri: databaseUrl, timezone: 'Z' })
	return {
		address,
		databaseUrl,
		pid: () => child.pid!,
		printed: () => printed(),
		rows: async (sql, values = []) => {
			const [rows] = await connection.query<RowDataPacket[]>(sql, values)
			if (WRITES.test(sql)) await connection.query(CHANGED)
			return rows
		},
		cutPower: () => {
			wasCut = true
			return end(child, 'SIGKILL')
		},
		powerOn: async () => {
			;[child, printed] = await startProcess(databaseUrl, home, port, more)
		},
		stop: async () => {
			await end(child, 'SIGTERM')
			rmSync(home, { recursive: true, force: true })
			// A server that ran out of room has ended and come back: of the connection of before only the end is left.
			await onServer(serverUrl, (other) => other.query(`drop database \`${name}\``))
			connection.destroy()
		},
		renew: async () => {
			if (wasCut || child.exitCode !== null || child.signalCode !== null) return false
			// Behind whatever a test that has ended was still sending, to the thread that takes marks and to the one that makes
			// pages: what has not come to its statements yet would be written after the rows are back.
			const behind = await Promise.all([
				fetch(`${address}/health`),
				fetch(`${address}/api/events`, {
					method: 'POST',
					headers: { origin: address, 'content-type': 'application/json' },
					body: '{}',
				}),
			]).catch(() => null)
			if (!behind) return false
			await refillDatabase(serverUrl, template, name)
			return true
		},
	}
}

type Template = 'demo' | 'empty'

/**
 * Applications of one worker. Starting one takes seconds, so one that is done gets its rows back beside the next
 * test, which runs on another: a test never waits for either, and never sees a row of the one before.
 */
class Stock {
	private readonly ready: Record<Template, Promise<OwnApp>[]> = { demo: [], empty: [] }
	private readonly ending: Promise<void>[] = []

	async take(template: Template): Promise<OwnApp> {
		const app = await (this.ready[template].shift() ?? start(template))
		if (this.ready[template].length === 0) this.put(template, start(template))
		return app
	}
	giveBack(template: Template, app: OwnApp): void {
		this.put(
			template,
			app.renew().then((renewed) => {
				if (renewed) return app
				this.ending.push(app.stop())
				return start(template)
			}),
		)
	}
	private put(template: Template, app: Promise<OwnApp>): void {
		// Should it fail, the test that wants it says so.
		app.catch(() => undefined)
		this.ready[template].push(app)
	}
	async end(): Promise<void> {
		for (const app of await Promise.allSettled(Object.values(this.ready).flat()))
			if (app.status === 'fulfilled') this.ending.push(app.value.stop())
		await Promise.all(this.ending)
	}
}
const start = (template: Template) => startApp(process.env.TEST_DATABASE_URL!, `dromos_${template}`)

/**
 * Playwright's test with an application of its own: on a copy of the demo club, or on an empty database
 * with `test.use({ filledWith: 'empty' })`. Addresses may be written without the host. The use cases of the
 * server, called from the test itself, work on the same database.
 */
export const test = base.extend<{ filledWith: Template; app: App }, { stock: Stock }>({
	filledWith: ['demo', { option: true }],
	stock: [
		async ({}, use) => {
			const stock = new Stock()
			await use(stock)
			await stock.end()
		},
		{ scope: 'worker' },
	],
	app: async ({ filledWith, stock, browser }, use) => {
		const app = await stock.take(filledWith)
		process.env.DATABASE_URL = app.databaseUrl
		await use(app)
		// A phone that a test left open would go on asking, in the middle of another test.
		await Promise.all(browser.contexts().map((context) => context.close()))
		await closePool()
		stock.giveBack(filledWith, app)
	},
	baseURL: async ({ app }, use) => use(app.address),
	page: async ({ page }, use) => use(waking(page)),
})
