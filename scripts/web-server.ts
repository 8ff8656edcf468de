import { readdirSync } from 'node:fs'
import { createServer as createPlain } from 'node:http'
import { createServer as createSecure } from 'node:https'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { createRequestHandler } from '@react-router/express'
import compression from 'compression'
import express, { type RequestHandler } from 'express'
import expressStaticGzip from 'express-static-gzip'
import type { ServerBuild } from 'react-router'
import { startPages } from './pages'
import { everyAnswer, oneByOne, onlyWhenUp, whatIsUnderstood } from './web-rules'

const KEPT_MS = 65_000
const HEADERS_MS = 70_000
const BODY_MS = 120_000
/** A way in takes some 10 ms to answer: pages keep more than half of the time, and 120 people are through in 6 s. */
const WAY_IN_EVERY_MS = 50
const MOST_ON_THE_WAY_IN = 400

/** Of several processes the others are being started still. */
const READ_AFTER_MS = 1000

/** What phones and devices send in: a few reads and a write each, answered where nothing takes long. */
const SENT_IN = /^\/api\/(events|measurements|devices\/[^/]+)$/

/** Answers from this thread; the application is read once `read` is called, or when it is first asked. */
function handlerOf(folder: string): { answer: RequestHandler; read: () => void } {
	let handler: Promise<RequestHandler> | undefined
	const begin = async () => {
		const build = (await import(pathToFileURL(path.join(folder, 'server/index.js')).href)) as ServerBuild
		return createRequestHandler({ build, mode: 'production' })
	}
	const read = () => (handler ??= begin())
	return {
		answer: (request, response, next) => void read().then((answer) => answer(request, response, next), next),
		// What cannot be read is said to whoever asks.
		read: () => void read().catch(() => undefined),
	}
}

/** What the application reads of its surroundings; known once the database is there. */
export interface WebSettings {
	DATABASE_URL: string
	/** Names the first club's set-up page; empty where there is one. */
	SET_UP_CODE: string
}

export interface WebServer {
	/** What has begun is answered; connections held open for news are ended after a second. */
	stop: () => Promise<void>
}

/**
 * Serves the built application from this process, its pages from a thread beside this one; over TLS when a certificate and its key are given.
 *
 * @throws Error when the build cannot be loaded or the port cannot be listened on; what the settings are refused with
 */
export async function startWebServer(options: {
	build: string
	/** The built `page-thread.ts`, where it is not beside the built web server. */
	thread?: string
	host: string
	port: number
	secure: { cert: Buffer; key: Buffer } | null
	/** Whether people reach it over TLS although this process does not speak it. */
	behindTls?: boolean
	/** Where they are not in the environment yet: the application is read meanwhile, and nobody is answered before they are. */
	settings?: Promise<WebSettings>
	/** Whether the database answers. */
	isUp: () => boolean
}): Promise<WebServer> {
	const isSecure = options.secure !== null || options.behindTls === true
	const [pages, settings] = await Promise.all([startPages(options.build, options.thread), options.settings])
	Object.assign(process.env, settings)
	const sentIn = handlerOf(options.build)
	const app = express()
	app.disable('x-powered-by')
	app.use(
		everyAnswer({
			secure: isSecure,
			behindProxy: options.behindTls === true,
		}),
		whatIsUnderstood,
	)
	app.use(compression())
	const client = path.join(options.build, 'client')
	// Built files carry their content in their names; the worker and the rest are asked for anew.
	app.use(
		'/assets',
		expressStaticGzip(path.join(client, 'assets'), {
			enableBrotli: true,
			orderPreference: ['br', 'gz'],
			index: false,
			serveStatic: { immutable: true, maxAge: '1y' },
		}),
	)
	const loose = new Set(readdirSync(client).map((name) => `/${name}`))
	const looseFiles = express.static(client, {
		maxAge: 0,
		setHeaders: (response) => response.setHeader('cache-control', 'no-cache'),
	})
	// No page and no data of one is looked for on the disk.
	app.use((request, response, next) => (loose.has(request.path) ? looseFiles(request, response, next) : next()))
	app.use(onlyWhenUp(options.isUp), oneByOne(WAY_IN_EVERY_MS, MOST_ON_THE_WAY_IN))
	app.post(SENT_IN, sentIn.answer)
	app.all(/.*/, (request, response) => pages.answer(request, response, isSecure))
	const server = options.secure ? createSecure(options.secure, app) : createPlain(app)
	// Somebody on a bad line needs a while; nobody needs longer to send a header or a form.
	// Longer than a proxy keeps its own, so that neither sends into a line the other has just closed.
	server.keepAliveTimeout = KEPT_MS
	server.headersTimeout = HEADERS_MS
	server.requestTimeout = BODY_MS
	await new Promise<void>((resolve, reject) => {
		server.once('error', reject)
		server.listen(options.port, options.host, resolve)
	})
	// Not before pages are served: the first mark after a start does not wait for it, and nobody's start does.
	setTimeout(sentIn.read, READ_AFTER_MS).unref()
	return {
		stop: () =>
			new Promise((resolve) => {
				const late = setTimeout(() => server.closeAllConnections(), 1000)
				server.close(() => {
					clearTimeout(late)
					void pages.stop().then(resolve)
				})
			}),
	}
}
