import { randomBytes } from 'node:crypto'
import { availableParallelism, totalmem } from 'node:os'
import path from 'node:path'
import { get } from 'node:https'
import { setTimeout as wait } from 'node:timers/promises'
import { DEMO_SIGN_IN } from '../server/demo/sign-in'
import { buildApp } from './build-app'
import { type OpenHome, refuseTakenPort, takeHome } from './home'
import { PlainError } from './plain-error'
import { ROOT } from './root.mjs'
import { runCommand } from './run-command'
import { parseArgs } from 'node:util'
import { webOptions } from './web-options'
import type { WebServer, WebSettings } from './web-server'
import { processesFor, startWorkers } from './web-workers'

/** How long a busy machine may need until the first answer, and how often the wait is said. */
const SERVING_WITHIN_S = 120
const SAY_EVERY_S = 10

async function main(): Promise<void> {
	const { empty, workers } = readArguments(process.argv.slice(2))
	const { host, port, secure } = webOptions()
	await refuseTakenPort(host, port)

	let web: WebServer | null = null
	// The application first, so that what it has begun to write is written.
	const taken = takeHome(async () => web?.stop())
	try {
		await buildApp()
		const serve = workers > 1 ? startWorkers.bind(null, workers) : await inThisProcess()
		let isUp = () => true
		const opening = taken.open({ empty })
		const settings = opening.then((home): WebSettings => {
			isUp = home.isUp
			// Names the first club's set-up page for whoever reads this terminal, and nobody else.
			const setUpCode = home.hasClub && !empty ? '' : randomBytes(12).toString('base64url')
			return { DATABASE_URL: home.url, SET_UP_CODE: setUpCode }
		})
		// What serves is read while the database starts.
		web = await serve(() => isUp(), settings)
		const home = await opening
		const known = await settings
		Object.assign(process.env, known)
		const address = `${secure ? 'https' : 'http'}://${host.includes(':') ? `[${host}]` : host}:${port}`
		await waitUntilServing(address)
		sayHowToSignIn(home, address, known.SET_UP_CODE)
		const { keepBackups, keepForgetting } = await import('./keep-house')
		keepBackups(home.url)
		keepForgetting()
		console.log('Ctrl-C ends it.')
	} catch (error) {
		await taken.giveUp(error)
	}
}

/** Read only where no process of its own reads it. */
async function inThisProcess(): Promise<(isUp: () => boolean, settings: Promise<WebSettings>) => Promise<WebServer>> {
	const { startWebServer } = await import('./web-server')
	return (isUp, settings) => startWebServer({ ...webOptions(), build: path.join(ROOT, 'build'), settings, isUp })
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

function sayHowToSignIn(home: OpenHome, address: string, setUpCode: string): void {
	console.log(`\nDromos is at ${address}\n`)
	if (setUpCode) console.log(`Make your club and the first coach here:\n    ${address}/first?code=${setUpCode}\n`)
	else if (home.hasDemo)
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
