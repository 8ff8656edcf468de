import cluster, { type Worker } from 'node:cluster'
import path from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { isTold } from '../server/told'
import { SERVING } from './pages'
import type { WebServer } from './web-server'

/** The built command beside this one: what it was built of is not looked at once more for every process. */
const SERVE = path.join(path.dirname(fileURLToPath(import.meta.url)), 'serve.mjs')
/** Whether the database answers, as whoever started it knows. */
export interface News {
	isUp: boolean
}
export const isNews = (message: unknown): message is News =>
	typeof message === 'object' && message !== null && typeof (message as News).isUp === 'boolean'

const MEMORY_A_PROCESS = 2 * 1024 ** 3
/** As many as the machine has cores, and memory for what each keeps. @param bytes of memory */
export const processesFor = (cores: number, bytes: number): number =>
	Math.max(1, Math.min(cores, Math.floor(bytes / MEMORY_A_PROCESS)))

/** How often it is looked whether the database still answers. */
const LOOK_EVERY_MS = 250
/** Before another one is started: one that ends at once must not keep the machine busy. */
const PAUSE_MS = 1000

/**
 * Serves the built application from several processes behind one port; each requests goes to one of them. One that ends is
 * replaced. All that is known stands in the database, so that any of them can answer.
 *
 * @throws Error when one ends before it serves
 */
export async function startWorkers(count: number, isUp: () => boolean): Promise<WebServer> {
	// What they tell each other is bytes, and stays that.
	cluster.setupPrimary({
		exec: SERVE,
		args: [],
		serialization: 'advanced',
	})
	let stopping = false
	let told = isUp()
	const fork = () =>
		new Promise<void>((resolve, reject) => {
			const worker = cluster.fork()
			let serves = false
			worker.on('message', (message) => {
				if (isTold(message)) for (const other of everybody()) if (other !== worker) tellTo(other, message)
				if (message !== SERVING) return
				serves = true
				tell(worker)
				resolve()
			})
			worker.once('exit', () => {
				if (!serves) reject(new Error('a web process has ended before it served'))
				if (stopping || !serves) return
				console.error('A web process has ended; starting another …')
				void replace()
			})
		})
	const replace = async () => {
		while (!stopping) {
			const begun = await fork().then(
				() => true,
				() => false,
			)
			if (begun) return
			await wait(PAUSE_MS)
		}
	}
	const everybody = (): Worker[] => Object.values(cluster.workers ?? {}).flatMap((worker) => worker ?? [])
	// One that is ending is told nothing more.
	const tellTo = (worker: Worker, message: object) => worker.isConnected() && worker.send(message)
	const tell = (worker: Worker) => tellTo(worker, { isUp: told } satisfies News)
	const look = setInterval(() => {
		if (isUp() === told) return
		told = !told
		for (const worker of everybody()) tell(worker)
	}, LOOK_EVERY_MS)
	look.unref()
	const stop = async () => {
		stopping = true
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
		await Promise.all(Array.from({ length: count }, fork))
	} catch (error) {
		await stop()
		throw error
	}
	return { stop }
}
