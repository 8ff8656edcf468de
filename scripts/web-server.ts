import { readFileSync } from 'node:fs'
import { createServer as createPlain } from 'node:http'
import { createServer as createSecure } from 'node:https'
import path from 'node:path'
import { createRequestHandler } from '@react-router/express'
import compression from 'compression'
import express from 'express'
import type { ServerBuild } from 'react-router'
import { ROOT } from './ensure-packages.mjs'

/** Serves the built application on HOST and PORT; over TLS when TLS_CERT and TLS_KEY name a certificate and its key. */
async function main(): Promise<void> {
	const build = (await import(path.join(ROOT, 'build/server/index.js'))) as ServerBuild
	const app = express()
	app.disable('x-powered-by')
	app.use(compression())
	const client = path.join(ROOT, 'build/client')
	// Built files carry their content in their names; the worker and the rest are asked for anew.
	app.use('/assets', express.static(path.join(client, 'assets'), { immutable: true, maxAge: '1y' }))
	app.use(express.static(client, { maxAge: 0, setHeaders: (response) => response.setHeader('cache-control', 'no-cache') }))
	app.all(/.*/, createRequestHandler({ build, mode: 'production' }))

	const { TLS_CERT, TLS_KEY, HOST = '127.0.0.1', PORT = '4210' } = process.env
	const server = TLS_CERT && TLS_KEY ? createSecure({ cert: readFileSync(TLS_CERT), key: readFileSync(TLS_KEY) }, app) : createPlain(app)
	server.listen(Number(PORT), HOST)
	// What has begun is answered; connections held open for news are ended.
	for (const signal of ['SIGTERM', 'SIGINT'] as const) process.on(signal, () => {
		server.close(() => process.exit(0))
		setTimeout(() => server.closeAllConnections(), 1000).unref()
	})
}

await main()
