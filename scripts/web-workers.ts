import cluster, { type Worker } from 'node:cluster'
import path from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { isTold } from '../server/told'
import { SERVING } from './pages'
import type { WebServer, WebSettings } from './web-server'

/** The built command beside this one: what it was built of is not looked at once more for every process. */
const SERVE = path.join(path.dirname(fileURLToPath(import.meta.url)), 'serve.mjs')
/** What whoever started it knows of the database. */
export interface News {
	/** Whether it answers. */
	isUp: boolean
	settings: WebSettings
}
/** What a web process says once it hears what it is told. */
export const HEARS = 'hears'
export const isNews = (message: unknown): message is News =>
	typeof message === 'object' && message !== null && typeof (message as News).isUp === 'boolean'

const MEMORY_A_PROCESS = 2 * 1024 ** 3
/** As many as the machine has cores, and memory for what each keeps. @param bytes of memory */
export const processesFor = (cores: number, bytes: number): number =>
	Math.max(1, Math.min(cores, Math.floor(bytes / MEMORY_A_PROCESS)))

/** How often it is looked whether the database still answers. */
const LOOK_EVERY_MS = 250
/** The first has its first question answered before the others want its cores. */
const FOLLOW_AFTER_MS = 500
/** Before another one is started: one that ends at once must not keep the machine busy, nor fill the terminal. */
const PAUSE_MS = 1000
const LONGEST_PAUSE_MS = 30_000

/** Begins something until it has begun or nobody wants it any more; each time it does not, that is said, and the pause grows. */
export async function beginUntilItDoes(
	begin: () => Promise<void>,
	isWanted: () => boolean,
	say: (sentence: string) => void,
	pause: (ms: number) => Promise<void> = (ms) => wait(ms, undefined, { ref: false }),
): Promise<void> {
	for (let failures = 0; isWanted(); failures++) {
		try {
			return await begin()
		} catch {
			const ms = Math.min(LONGEST_PAUSE_MS, PAUSE_MS * 2 ** failures)
			if (isWanted()) say(`A web process has ended before it served; another one in ${ms / 1000} s …`)
			await pause(ms)
		}
	}
}

/**
 * Serves the built application from several processes behind one port; each request goes to one of them. One that ends is
 * replaced. All that is known stands in the database, so that any of them can answer. The first is read while the settings
 * are not known yet and is waited for; the others follow.
 *
 * @throws Error when the first ends before it serves; what the settings are refused with
 */
export async function startWorkers(
	count: number,
	isUp: () => boolean,
	settings: Promise<WebSettings>,
): Promise<WebServer> {
	// What they tell each other is bytes, and stays that.
	cluster.setupPrimary({
		exec: SERVE,
		args: [],
		serialization: 'advanced',
	})
	let stopping = false
	let told: News | null = null
	let follow: NodeJS.Timeout | undefined
	const fork = () =>
		new Promise<void>((resolve, reject) => {
			const worker = cluster.fork()
			let serves = false
			worker.on('message', (message) => {
				if (isTold(message)) for (const other of everybody()) if (other !== worker) tellTo(other, message)
				// What it was told before it listened it has not heard.
				if (message === HEARS && told) tellTo(worker, told)
				if (message !== SERVING) return
				serves = true
				resolve()
			})
			worker.once('exit', () => {
				if (!serves) reject(new Error('a web process has ended before it served'))
				if (stopping || !serves) return
				console.error('A web process has ended; starting another …')
				void replace()
			})
		})
	const replace = () => beginUntilItDoes(fork, () => !stopping, console.error)
	const everybody = (): Worker[] => Object.values(cluster.workers ?? {}).flatMap((worker) => worker ?? [])
	// One that is ending is told nothing more.
	const tellTo = (worker: Worker, message: object) => worker.isConnected() && worker.send(message)
	const tell = (news: News) => {
		told = news
		for (const worker of everybody()) tellTo(worker, news)
	}
	const look = setInterval(() => {
		if (told && told.isUp !== isUp()) tell({ settings: told.settings, isUp: isUp() })
	}, LOOK_EVERY_MS)
	look.unref()
	const stop = async () => {
		stopping = true
		clearTimeout(follow)
		clearInterval(look)
		await Promise.all(
			everybody().map(
				(worker) =>
					new Promise<void>((resolve) => {
						worker.once('exit', () => resolve())
						worker.process.kill('SIGTERM')
					}),
			),
		)
	}
	try {
		await Promise.all([fork(), settings.then((known) => tell({ settings: known, isUp: isUp() }))])
		follow = setTimeout(() => {
			for (let next = 1; next < count; next++) void replace()
		}, FOLLOW_AFTER_MS)
	} catch (error) {
		await stop()
		throw error
	}
	return { stop }
}
