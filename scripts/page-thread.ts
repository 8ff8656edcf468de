import { chmodSync } from 'node:fs'
import { createServer } from 'node:http'
import { setPriority } from 'node:os'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import { parentPort, workerData } from 'node:worker_threads'
import { createRequestHandler } from '@react-router/express'
import express from 'express'
import type { ServerBuild } from 'react-router'
import { END, type PageThreadData, SERVING } from './pages'

/** How nice it is to others on the machine, of 19: it has a third of a core where everybody wants one, and a whole one otherwise. */
const BEHIND_MARKS = 5

/** Answers what its web process hands on, at a socket that only this user's processes may write to. */
// On Linux it is the calling thread's own: what waits for a page waits for the marks and the database first.
setPriority(BEHIND_MARKS)
const { build: folder, socket } = workerData as PageThreadData
const build = (await import(pathToFileURL(path.join(folder, 'server/index.js')).href)) as ServerBuild
const app = express()
app.disable('x-powered-by')
// Nobody but the web process asks here, and it says how people reach it.
app.set('trust proxy', true)
app.use(createRequestHandler({ build, mode: 'production' }))
const server = createServer(app)
// The web process has looked at the clock already, and keeps its connections.
Object.assign(server, { keepAliveTimeout: 0, headersTimeout: 0, requestTimeout: 0 })
server.listen(socket, () => {
	chmodSync(socket, 0o600)
	parentPort!.postMessage(SERVING)
})
parentPort!.on('message', (message) => {
	// Connections to the database would keep the thread going; this ends it alone.
	if (message === END) server.close(() => process.exit())
})
