import { randomBytes } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, readdirSync, rmSync } from 'node:fs'
import path from 'node:path'
import { get } from 'node:https'
import { createSecureContext } from 'node:tls'
import { setTimeout as wait } from 'node:timers/promises'
import { writeBackup } from '../db/backup'
import { DEMO_SIGN_IN } from '../server/demo/load-demo'
import { buildApp } from './build-app'
import { type Home, openHome, refuseTakenPort } from './home'
import { PlainError } from './plain-error'
import { ROOT } from './root.mjs'
import { runCommand } from './run-command'
import { type WebServer, startWebServer } from './web-server'

/** How long a busy machine may need until the first answer, and how often the wait is said. */
const SERVING_WITHIN_S = 120
const SAY_EVERY_S = 10

async function main(): Promise<void> {
	const empty = process.argv.includes('--empty')
	const unknown = process.argv.slice(2).filter((argument) => argument !== '--empty')
	if (unknown.length > 0)
		throw new PlainError(`${unknown.join(' ')}: not known. The only option is --empty: start without demo data.`)
	const host = process.env.HOST || '127.0.0.1'
	const port = readPort(process.env.PORT)
	const secure = readTls()
	await refuseTakenPort(host, port)

	let web: WebServer | null = null
	// The application first, so that what it has begun to write is written.
	const home = await openHome({ empty, beforeClosing: async () => web?.stop() })
	try {
		await buildApp()
		// Names the first club's set-up page for whoever reads this terminal, and nobody else.
		const setUpCode = (await home.hasClub()) && !empty ? '' : randomBytes(12).toString('base64url')
		Object.assign(process.env, { DATABASE_URL: home.url, SET_UP_CODE: setUpCode })
		web = await startWebServer({
			build: path.join(ROOT, 'build'),
			host,
			port,
			secure,
			behindTls: behindTls(),
			isUp: home.isUp,
		})
		const address = `${secure ? 'https' : 'http'}://${host.includes(':') ? `[${host}]` : host}:${port}`
		await waitUntilServing(address)
		await sayHowToSignIn(home, address, setUpCode)
		keepBackups(home.url)
		console.log('Ctrl-C ends it.')
	} catch (error) {
		await home.close()
		throw error
	}
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

async function sayHowToSignIn(home: Home, address: string, setUpCode: string): Promise<void> {
	console.log(`\nDromos is at ${address}\n`)
	if (setUpCode) console.log(`Make your club and the first coach here:\n    ${address}/first?code=${setUpCode}\n`)
	else if (await home.hasDemo())
		console.log(`Sign in to the demo club with\n    ${DEMO_SIGN_IN.email}\n    ${DEMO_SIGN_IN.password}\n`)
}

function readPort(text: string | undefined): number {
	if (!text) return 4210
	const port = Number(text)
	if (!Number.isInteger(port) || port < 1 || port > 65535)
		throw new PlainError(`PORT: ${JSON.stringify(text)} is not a port; a whole number from 1 to 65535 is expected.`)
	return port
}

/** Both files or neither; a wrong one is said before anything is started. */
function readTls(): { cert: Buffer; key: Buffer } | null {
	const { TLS_CERT, TLS_KEY } = process.env
	if (!TLS_CERT && !TLS_KEY) return null
	if (!TLS_CERT || !TLS_KEY)
		throw new PlainError(
			'TLS_CERT and TLS_KEY belong together: the certificate and its key, both as paths to PEM files.',
		)
	try {
		const files = { cert: readFileSync(TLS_CERT), key: readFileSync(TLS_KEY) }
		createSecureContext(files)
		return files
	} catch (error) {
		throw new PlainError(`TLS_CERT and TLS_KEY cannot be used: ${(error as Error).message}.`)
	}
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

/** TRUST_PROXY=1: a proxy on this machine or network speaks TLS with people and plain HTTP with us. */
const behindTls = () => process.env.TRUST_PROXY === '1'

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
