import { type ChildProcess, spawn } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { test as base } from '@playwright/test'
import mysql, { type RowDataPacket } from 'mysql2/promise'
import { freePort } from '../../scripts/local-database'
import { ROOT } from '../../scripts/root.mjs'
import { copyDatabase } from './copy-database'
import { closePool } from './use-database'

/** An application of a test's own, with a database nobody else uses. */
export interface App {
	address: string
	databaseUrl: string
	/** What the start command printed. */
	printed: () => string
	/** What the database holds, asked past the application. */
	rows: (sql: string, values?: unknown[]) => Promise<RowDataPacket[]>
	/** Ends it as a power cut would, the database going on. */
	cutPower: () => Promise<void>
	/** Comes back where it was. */
	powerOn: () => Promise<void>
}

/** Starts the application the way the start command does and waits for its last line. */
async function startProcess(databaseUrl: string, home: string, port: number): Promise<[ChildProcess, () => string]> {
	const child = spawn(process.execPath, ['scripts/run.mjs', 'start', '--empty'], {
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
	})
	let printed = ''
	await new Promise<void>((resolve, reject) => {
		const read = (chunk: Buffer) => {
			printed += chunk.toString()
			if (printed.includes('Ctrl-C ends it.')) resolve()
		}
		child.stdout.on('data', read)
		child.stderr.on('data', read)
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

/** An application on a copy of a database of the tests' server; `stop` ends it and drops the copy. */
export async function startApp(serverUrl: string, template: string): Promise<App & { stop: () => Promise<void> }> {
	const name = `dromos_${randomBytes(6).toString('hex')}`
	const databaseUrl = await copyDatabase(serverUrl, template, name)
	const home = mkdtempSync(path.join(tmpdir(), 'dromos-app-'))
	const port = await freePort()
	let [child, printed] = await startProcess(databaseUrl, home, port)
	const connection = await mysql.createConnection({ uri: databaseUrl, timezone: 'Z' })
	return {
		address: `http://127.0.0.1:${port}`,
		databaseUrl,
		printed: () => printed(),
		rows: async (sql, values = []) => (await connection.query<RowDataPacket[]>(sql, values))[0],
		cutPower: () => end(child, 'SIGKILL'),
		powerOn: async () => {
			;[child, printed] = await startProcess(databaseUrl, home, port)
		},
		stop: async () => {
			await end(child, 'SIGTERM')
			await connection.query(`drop database \`${name}\``)
			await connection.end()
			rmSync(home, { recursive: true, force: true })
		},
	}
}

type Template = 'demo' | 'empty'
type OwnApp = App & { stop: () => Promise<void> }

/** Applications of one worker: the next one is started while a test runs, and one that is done ends beside the next test. */
class Stock {
	private next: { template: Template; app: Promise<OwnApp> } | null = null
	private readonly ending: Promise<void>[] = []

	async take(template: Template): Promise<OwnApp> {
		const { next } = this
		this.next = null
		if (next && next.template !== template) this.giveBack(await next.app)
		const app = next?.template === template ? next.app : start(template)
		const taken = await app
		const coming = start(template)
		// Should it fail, the test that wants it says so.
		coming.catch(() => undefined)
		this.next = { template, app: coming }
		return taken
	}
	giveBack(app: OwnApp): void {
		this.ending.push(app.stop())
	}
	async end(): Promise<void> {
		if (this.next) this.giveBack(await this.next.app)
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
	app: async ({ filledWith, stock }, use) => {
		const app = await stock.take(filledWith)
		process.env.DATABASE_URL = app.databaseUrl
		await use(app)
		await closePool()
		stock.giveBack(app)
	},
	baseURL: async ({ app }, use) => use(app.address),
})
