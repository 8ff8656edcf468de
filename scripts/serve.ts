import { type ChildProcess, spawn, spawnSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { get } from 'node:https'
import path from 'node:path'
import { createSecureContext } from 'node:tls'
import { setTimeout as wait } from 'node:timers/promises'
import { connect } from '../db/connect'
import { DEMO_SIGN_IN, loadDemo } from '../server/demo/load-demo'
import { NewerDatabase, migrateDatabase } from '../db/migrate'
import { clubCount } from '../db/queries/clubs'
import { installLibraryEverywhere } from '../db/queries/library'
import { ROOT } from './ensure-packages.mjs'
import { type LocalDatabase, startLocalDatabase } from './local-database'
import { PlainError } from './plain-error'

const HOME = process.env.DROMOS_HOME ?? path.join(ROOT, '.data')
const LOCK = path.join(HOME, 'start.pid')

async function main(): Promise<void> {
	const empty = process.argv.includes('--empty')
	const unknown = process.argv.slice(2).filter((argument) => argument !== '--empty')
	if (unknown.length > 0) throw new PlainError(`${unknown.join(' ')}: not known. The only option is --empty: start without demo data.`)
	const host = process.env.HOST || '127.0.0.1'
	const port = readPort(process.env.PORT)
	const secure = readTls()
	await refuseTakenPort(host, port)
	takeLock()

	const database = process.env.DATABASE_URL ? null : await startLocalDatabase(HOME)
	const stopping = new Stopping(database)
	try {
		const url = process.env.DATABASE_URL ?? database!.url()
		await prepareDatabase(url, empty)
		build()
		// Names the first club's set-up page for whoever reads this terminal, and nobody else.
		const setUpCode = (await hasClub(url)) && !empty ? '' : randomBytes(12).toString('base64url')
		const app = spawn(process.execPath, ['--import', 'tsx', path.join(ROOT, 'scripts/web-server.ts')], {
			cwd: ROOT,
			stdio: ['ignore', 'ignore', 'inherit'],
			detached: true,
			env: { ...process.env, NODE_ENV: 'production', HOST: host, PORT: String(port), DATABASE_URL: url, SET_UP_CODE: setUpCode },
		})
		stopping.app = app
		const address = `${secure ? 'https' : 'http'}://${host.includes(':') ? `[${host}]` : host}:${port}`
		await waitUntilServing(address, app)
		console.log(`\nDromos is at ${address}\n`)
		if (setUpCode) console.log(`Make your club and the first coach here:\n    ${address}/first?code=${setUpCode}\n`)
		else if (await hasDemo(url)) console.log(`Sign in to the demo club with\n    ${DEMO_SIGN_IN.email}\n    ${DEMO_SIGN_IN.password}\n`)
		console.log('Ctrl-C ends it.')
		app.on('exit', () => void stopping.stop(1))
	} catch (error) {
		await stopping.end()
		throw error
	}
}

class Stopping {
	app: ChildProcess | null = null
	private begun = false
	constructor(private readonly database: LocalDatabase | null) {
		for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => void this.stop(0))
	}
	async stop(code: number): Promise<void> {
		if (this.begun) return
		this.begun = true
		await this.end()
		process.exit(code)
	}
	/** The application first, so that what it has begun to write is written. */
	async end(): Promise<void> {
		this.begun = true
		const app = this.app
		if (app && app.exitCode === null && app.signalCode === null) {
			const ended = new Promise<void>((resolve) => app.once('exit', () => resolve()))
			app.kill('SIGTERM')
			await Promise.race([ended, wait(3000, undefined, { ref: false })])
			if (app.exitCode === null) app.kill('SIGKILL')
		}
		await this.database?.stop()
		rmSync(LOCK, { force: true })
	}
}

function readPort(text: string | undefined): number {
	if (!text) return 4210
	const port = Number(text)
	if (!Number.isInteger(port) || port < 1 || port > 65535) throw new PlainError(`PORT: ${JSON.stringify(text)} is not a port; a whole number from 1 to 65535 is expected.`)
	return port
}

/** Both files or neither; a wrong one is said before anything is started. */
function readTls(): boolean {
	const { TLS_CERT, TLS_KEY } = process.env
	if (!TLS_CERT && !TLS_KEY) return false
	if (!TLS_CERT || !TLS_KEY) throw new PlainError('TLS_CERT and TLS_KEY belong together: the certificate and its key, both as paths to PEM files.')
	try {
		createSecureContext({ cert: readFileSync(TLS_CERT), key: readFileSync(TLS_KEY) })
	} catch (error) {
		throw new PlainError(`TLS_CERT and TLS_KEY cannot be used: ${reasonOf(error)}.`)
	}
	return true
}

async function refuseTakenPort(host: string, port: number): Promise<void> {
	await new Promise<void>((resolve, reject) => {
		const probe = createServer()
		probe.once('error', (error: NodeJS.ErrnoException) => {
			if (error.code === 'EADDRINUSE') reject(new PlainError(`Port ${port} on ${host} is taken by another program. Choose another: PORT=${port + 1} npm start`))
			else reject(new PlainError(`Dromos cannot listen on ${host}, port ${port}: ${error.message}.`))
		})
		probe.listen(port, host, () => probe.close(() => resolve()))
	})
}

/** One start per data directory: two database servers on one directory would damage it. */
function takeLock(): void {
	mkdirSync(HOME, { recursive: true, mode: 0o700 })
	const other = existsSync(LOCK) ? Number(readFileSync(LOCK, 'utf8')) : 0
	if (other && other !== process.pid && /serve\.ts/.test(spawnSync('ps', ['-o', 'args=', '-p', String(other)], { encoding: 'utf8' }).stdout)) {
		throw new PlainError(`Dromos already runs from this directory (process ${other}). Stop it first.`)
	}
	writeFileSync(LOCK, String(process.pid))
}

async function prepareDatabase(url: string, empty: boolean): Promise<void> {
	try {
		await migrateDatabase(url)
	} catch (error) {
		if (error instanceof NewerDatabase) throw new PlainError(error.message)
		if (process.env.DATABASE_URL) throw new PlainError(`The database at DATABASE_URL cannot be used: ${reasonOf(error)}.`)
		throw error
	}
	await withDatabase(url, ({ db }) => installLibraryEverywhere(db, new Date()))
	if (empty || (await hasClub(url))) return
	console.log('Writing nine weeks of demo data …')
	await withDatabase(url, ({ db }) => loadDemo(db, new Date()))
}

const reasonOf = (error: unknown): string => (error instanceof Error ? error.message || String((error as NodeJS.ErrnoException).code) : String(error))

async function withDatabase<T>(url: string, ask: (connection: ReturnType<typeof connect>) => Promise<T>): Promise<T> {
	const connection = connect(url)
	try {
		return await ask(connection)
	} finally {
		await connection.pool.end()
	}
}
const hasClub = (url: string) => withDatabase(url, async ({ db }) => (await clubCount(db, null)) > 0)
const hasDemo = (url: string) => withDatabase(url, async ({ db }) => (await clubCount(db, DEMO_SIGN_IN.email)) > 0)

/** Builds when the sources have changed since the last build. */
function build(): void {
	const hash = createHash('sha256')
	const files = ['app', 'core', 'db', 'server', 'public'].flatMap((folder) =>
		readdirSync(path.join(ROOT, folder), { recursive: true, withFileTypes: true })
			.filter((file) => file.isFile() && !file.name.endsWith('.test.ts'))
			.map((file) => path.join(file.parentPath, file.name)),
	)
	for (const file of [...files.sort(), ...['package-lock.json', 'vite.config.ts', 'react-router.config.ts', 'scripts/build-service-worker.ts'].map((name) => path.join(ROOT, name))]) {
		hash.update(path.relative(ROOT, file)).update(readFileSync(file))
	}
	const stamp = path.join(ROOT, 'build', '.source-hash')
	const wanted = hash.digest('hex')
	if (existsSync(stamp) && readFileSync(stamp, 'utf8') === wanted) return
	console.log('Building …')
	const run = spawnSync(process.execPath, [path.join(ROOT, 'node_modules/@react-router/dev/bin.js'), 'build'], { cwd: ROOT, encoding: 'utf8', env: { ...process.env, NODE_ENV: 'production' } })
	if (run.status !== 0) throw new PlainError(`The build failed:\n${run.stdout}${run.stderr}`)
	writeFileSync(stamp, wanted)
}

async function waitUntilServing(address: string, app: ChildProcess): Promise<void> {
	for (let i = 0; i < 150; i++) {
		if (app.exitCode !== null) throw new PlainError('The web server stopped at once; its message stands above.')
		try {
			if (await answers(`${address}/health`)) return
		} catch {
			// Not listening yet.
		}
		await wait(100)
	}
	throw new PlainError(`The web server did not answer at ${address} within 15 s.`)
}

/** Its own certificate is not checked here: a club's phone trusts it, this machine need not. */
async function answers(url: string): Promise<boolean> {
	if (url.startsWith('http:')) return (await fetch(url)).ok
	return new Promise((resolve, reject) => get(url, { rejectUnauthorized: false }, (response) => { response.resume(); resolve(response.statusCode === 200) }).on('error', reject))
}

try {
	await main()
} catch (error) {
	if (error instanceof PlainError) console.error(`\n${error.message}`)
	else console.error(error)
	process.exit(1)
}
