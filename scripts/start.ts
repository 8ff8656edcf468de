import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, rmSync } from 'node:fs'
import { availableParallelism, totalmem } from 'node:os'
import path from 'node:path'
import { get } from 'node:https'
import { setTimeout as wait } from 'node:timers/promises'
import { writeBackup } from '../db/backup'
import { addDays } from '../core/calendar/day-count'
import { foldCounts } from '../db/noted-writes'
import { forgetHealthNotes } from '../server/access/change-club'
import { database } from '../server/database'
import { DEMO_SIGN_IN } from '../server/demo/load-demo'
import { buildApp } from './build-app'
import { type Home, openHome, refuseTakenPort } from './home'
import { PlainError } from './plain-error'
import { ROOT } from './root.mjs'
import { runCommand } from './run-command'
import { parseArgs } from 'node:util'
import { webOptions } from './web-options'
import { type WebServer, startWebServer } from './web-server'
import { processesFor, startWorkers } from './web-workers'

/** How long a busy machine may need until the first answer, and how often the wait is said. */
const SERVING_WITHIN_S = 120
const SAY_EVERY_S = 10

async function main(): Promise<void> {
	const { empty, workers } = readArguments(process.argv.slice(2))
	const { host, port, secure, behindTls } = webOptions()
	await refuseTakenPort(host, port)

	let web: WebServer | null = null
	// The application first, so that what it has begun to write is written.
	const home = await openHome({ empty, beforeClosing: async () => web?.stop() })
	try {
		await buildApp()
		// Names the first club's set-up page for whoever reads this terminal, and nobody else.
		const setUpCode = (await home.hasClub()) && !empty ? '' : randomBytes(12).toString('base64url')
		Object.assign(process.env, { DATABASE_URL: home.url, SET_UP_CODE: setUpCode })
		web =
			workers > 1
				? await startWorkers(workers, home.isUp)
				: await startWebServer({
						build: path.join(ROOT, 'build'),
						host,
						port,
						secure,
						behindTls,
						isUp: home.isUp,
					})
		const address = `${secure ? 'https' : 'http'}://${host.includes(':') ? `[${host}]` : host}:${port}`
		await waitUntilServing(address)
		await sayHowToSignIn(home, address, setUpCode)
		keepBackups(home.url)
		keepForgetting()
		console.log('Ctrl-C ends it.')
	} catch (error) {
		await home.close()
		throw error
	}
}

/** More processes than this on one machine share nothing but its memory. */
const MOST_WORKERS = 64
function readArguments(given: string[]): { empty: boolean; workers: number } {
	const { values, positionals } = parseArgs({
		args: given,
		options: { empty: { type: 'boolean', default: false }, workers: { type: 'string' } },
		strict: false,
		allowPositionals: true,
	})
	const unknown = [
		...positionals,
		...Object.keys(values).flatMap((name) => (name === 'empty' || name === 'workers' ? [] : [`--${name}`])),
	]
	if (unknown.length > 0)
		throw new PlainError(
			`${unknown.join(' ')}: not known. The options are --empty: start without demo data, and --workers N: serve from so many processes; without it from as many as there are cores and memory for.`,
		)
	const workers = Number(values.workers ?? processesFor(availableParallelism(), totalmem()))
	if (!Number.isInteger(workers) || workers < 1 || workers > MOST_WORKERS)
		throw new PlainError(`--workers: a whole number from 1 to ${MOST_WORKERS} is expected.`)
	return { empty: values.empty === true, workers }
}

const LOOK_EVERY_MS = 3_600_000
const NAME = /^dromos-\d{4}-\d{2}-\d{2}\.sql\.gz$/

/**
 * A backup each day into BACKUP_DIR, where it is set; the newest BACKUP_KEEP (14) stay. One that fails is said and tried
 * again an hour later; what is there is only taken away when a new one stands.
 */
function keepBackups(url: string): void {
	const folder = process.env.BACKUP_DIR
	const keep = Number(process.env.BACKUP_KEEP ?? 14)
	if (!folder) return
	if (!Number.isInteger(keep) || keep < 1) throw new PlainError('BACKUP_KEEP: a whole number from 1 on is expected.')
	const look = async () => {
		const file = path.join(folder, `dromos-${new Date().toISOString().slice(0, 10)}.sql.gz`)
		if (existsSync(file)) return
		try {
			mkdirSync(folder, { recursive: true, mode: 0o700 })
			await writeBackup(url, file, new Date())
			const all = readdirSync(folder)
				.filter((name) => NAME.test(name))
				.sort()
			for (const old of all.slice(0, Math.max(0, all.length - keep))) rmSync(path.join(folder, old))
		} catch (error) {
			console.error(`The backup of today failed: ${error instanceof Error ? error.message : String(error)}`)
		}
	}
	void look()
	setInterval(() => void look(), LOOK_EVERY_MS).unref()
}

/** Sessions are logged for weeks after their day, if ever. */
const COUNTED_BY_DAY = 60
/**
 * Words about health that a club keeps for so many months and no longer, and counts of days long gone; looked at when it
 * starts and then hourly.
 */
function keepForgetting(): void {
	const look = async () => {
		const now = new Date()
		await forgetHealthNotes(now).catch((error: unknown) =>
			console.error(
				`Old words about health could not be taken away: ${error instanceof Error ? error.name : 'unknown'}`,
			),
		)
		// Whoever logs meanwhile goes first; the next hour does it.
		await foldCounts(database().db, addDays(now.toISOString().slice(0, 10), -COUNTED_BY_DAY)).catch(() => undefined)
	}
	void look()
	setInterval(() => void look(), LOOK_EVERY_MS).unref()
}

async function sayHowToSignIn(home: Home, address: string, setUpCode: string): Promise<void> {
	console.log(`\nDromos is at ${address}\n`)
	if (setUpCode) console.log(`Make your club and the first coach here:\n    ${address}/first?code=${setUpCode}\n`)
	else if (await home.hasDemo())
		console.log(`Sign in to the demo club with\n    ${DEMO_SIGN_IN.email}\n    ${DEMO_SIGN_IN.password}\n`)
}

async function waitUntilServing(address: string): Promise<void> {
	const began = Date.now()
	for (let said = 0; ; ) {
		try {
			if (await answers(`${address}/health`)) return
		} catch {
			// Not answering yet.
		}
		const seconds = (Date.now() - began) / 1000
		if (seconds > SERVING_WITHIN_S)
			throw new PlainError(`The web server did not answer at ${address} within ${SERVING_WITHIN_S} s.`)
		if (seconds > said + SAY_EVERY_S) console.log(`Waiting for the first answer, ${(said += SAY_EVERY_S)} s …`)
		await wait(50)
	}
}

/** Its own certificate is not checked here: a club's phone trusts it, this machine need not. */
async function answers(url: string): Promise<boolean> {
	if (url.startsWith('http:')) return (await fetch(url)).ok
	return new Promise((resolve, reject) =>
		get(url, { rejectUnauthorized: false }, (response) => {
			response.resume()
			resolve(response.statusCode === 200)
		}).on('error', reject),
	)
}

await runCommand(main)
