import cluster from 'node:cluster'
import { randomBytes } from 'node:crypto'
import { readdirSync, rmSync } from 'node:fs'
import { Agent, type IncomingHttpHeaders, request as ask } from 'node:http'
import path from 'node:path'
import { pipeline } from 'node:stream'
import { setTimeout as wait } from 'node:timers/promises'
import { fileURLToPath } from 'node:url'
import { MessageChannel, SHARE_ENV, Worker } from 'node:worker_threads'
import type { Request, Response } from 'express'
import { isTold } from '../server/told'
import { isRunning } from './alone.mjs'
import { notNow } from './web-rules'

/** What a process or thread says once it answers. */
export const SERVING = 'serving'
/** What the thread is told when it shall answer what it has begun and end. */
export const END = 'end'

/** What the thread is given. */
export interface PageThreadData {
	/** The folder of the built application. */
	build: string
	/** Where it listens. */
	socket: string
}

/** Where sockets are: a path to one may have about 100 characters, and the folder for temporary files may lie deeper. */
export const SOCKETS_IN = '/tmp'
const SOCKETS = 'dromos-pages-'
const THREAD = path.join(path.dirname(fileURLToPath(import.meta.url)), 'page-thread.mjs')
/** Of one connection only; the rest is the thread's to say. */
const HOP_BY_HOP = new Set([
	'connection',
	'keep-alive',
	'transfer-encoding',
	'proxy-connection',
	'upgrade',
	'te',
	'trailer',
])
/** Before another thread is started: one that ends at once must not keep the machine busy. */
const PAUSE_MS = 1000
/** Connections held open for longer than this are ended with the process. */
const END_WITHIN_MS = 5000

/**
 * What pages are made of lives for longer than the 16 MB that are looked through first by default (three times that in all):
 * moved on it is cleared away far more dearly. Every page of twenty-one clubs is worked out in two thirds of the time.
 */
const YOUNG_MEGABYTES = 3 * 64

/** What makes pages, in a thread of its own. */
export interface Pages {
	/** Has a request answered there. @param isSecure whether people reach this process over TLS */
	answer: (request: Request, response: Response, isSecure: boolean) => void
	/** What has begun is answered. */
	stop: () => Promise<void>
}

/**
 * Pages, proposals and blocks are worked out in a thread beside the one that listens, so that marks are acknowledged
 * while it is busy. It is spoken to over a socket in HTTP, one that ends is replaced, and what one of
 * several processes has worked out is handed through to the others (`server/kept.ts`).
 *
 * @param build the folder of the built application
 * @param thread the built `page-thread.ts`, where it is not beside this file
 * @throws Error when the thread ends before it serves
 */
export async function startPages(build: string, thread = THREAD): Promise<Pages> {
	const agent = new Agent({ keepAlive: true })
	sweep()
	let serving: { worker: Worker; socket: string } | null = null
	let isStopping = false

	const begin = () =>
		new Promise<void>((resolve, reject) => {
			const socket = path.join(SOCKETS_IN, `${SOCKETS}${process.pid}-${randomBytes(4).toString('hex')}.sock`)
			const told = cluster.isWorker ? new MessageChannel() : null
			const worker = new Worker(thread, {
				workerData: { build, socket, told: told?.port2 } satisfies PageThreadData & { told: unknown },
				// It may be begun before the settings of the application are known.
				env: SHARE_ENV,
				resourceLimits: { maxYoungGenerationSizeMb: YOUNG_MEGABYTES },
				transferList: told ? [told.port2] : [],
			})
			const hear = (message: unknown) => isTold(message) && told!.port1.postMessage(message)
			if (told) {
				told.port1.on('message', (message) => process.connected && process.send!(message))
				process.on('message', hear)
			}
			worker.once('message', () => {
				serving = { worker, socket }
				resolve()
			})
			// Where in the code: what a message says may be somebody's name.
			worker.on('error', ({ name, stack = '' }) =>
				console.error(
					'A thread that makes pages has failed:',
					[name, ...(stack.match(/^ +at .*$/gm) ?? [])].join('\n'),
				),
			)
			worker.once('exit', () => {
				process.off('message', hear)
				told?.port1.close()
				// One that was broken off has left it.
				rmSync(socket, { force: true })
				if (serving?.worker !== worker)
					return reject(new Error('the thread that makes pages has ended before it served'))
				serving = null
				if (!isStopping) void replace()
			})
		})
	const replace = async () => {
		for (let begun = false; !begun && !isStopping; ) {
			begun = await begin().then(
				() => true,
				() => false,
			)
			if (!begun) await wait(PAUSE_MS)
		}
	}
	await begin()

	const answer = (request: Request, response: Response, isSecure: boolean): void => {
		const away = () => {
			if (response.headersSent || response.destroyed) response.destroy()
			else notNow(response, 'This is being started again. Nothing is lost; try again in a moment.')
		}
		if (!serving) return away()
		const asked = ask(
			{
				agent,
				socketPath: serving.socket,
				method: request.method,
				path: request.originalUrl,
				headers: { ...handedOn(request.headers), 'x-forwarded-proto': isSecure ? 'https' : 'http' },
			},
			(answered) => {
				response.statusCode = answered.statusCode!
				for (const [name, value] of Object.entries(handedOn(answered.headers))) response.setHeader(name, value!)
				pipeline(answered, response, () => {})
			},
		)
		asked.on('error', away)
		// Who has gone waits for no answer.
		response.once('close', () => response.writableFinished || asked.destroy())
		request.pipe(asked)
	}
	return {
		answer,
		stop: async () => {
			isStopping = true
			const worker = serving?.worker
			agent.destroy()
			if (!worker) return
			const ended = new Promise<void>((resolve) => worker.once('exit', () => resolve()))
			worker.postMessage(END)
			await Promise.race([ended, wait(END_WITHIN_MS, undefined, { ref: false })])
			await worker.terminate()
		},
	}
}

/** Takes away the sockets of processes that were killed. */
function sweep(): void {
	for (const name of readdirSync(SOCKETS_IN)) {
		const pid = Number(new RegExp(`^${SOCKETS}(\\d+)-[0-9a-f]{8}\\.sock$`).exec(name)?.[1])
		if (pid && !isRunning(pid)) rmSync(path.join(SOCKETS_IN, name), { force: true })
	}
}

/** Headers as they go on: none of one connection only, and nothing a client says of the way it came. */
function handedOn(headers: IncomingHttpHeaders): IncomingHttpHeaders {
	return Object.fromEntries(
		Object.entries(headers).filter(([name]) => !HOP_BY_HOP.has(name) && !name.startsWith('x-forwarded-')),
	)
}
