import { spawnSync } from 'node:child_process'
import { existsSync, mkdirSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import path from 'node:path'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { builtCommands } from './build-commands.mjs'
import { freePort } from './local-database'
import { SOCKETS_IN, startPages } from './pages'
import { type WebServer, startWebServer } from './web-server'

/** An application of a few addresses that does what real ones seldom do. */
const APPLICATION = `
import { existsSync, writeFileSync } from 'node:fs'
const at = (path, module) => ({ id: path, parentId: 'root', path, module })
let gone = 0
const wait = (ms) => new Promise((resolve) => setTimeout(resolve, ms))
const mark = (request) => writeFileSync(new URL(request.url).searchParams.get('mark'), '')
export const routes = Object.fromEntries([
	{ id: 'root', path: '', module: { default: () => null } },
	at('busy', { loader: ({ request }) => {
		mark(request)
		const { searchParams } = new URL(request.url)
		while (!existsSync(searchParams.get('until')));
		return new Response('done')
	} }),
	at('asked', { loader: ({ request }) => {
		const headers = new Headers([['set-cookie', 'a=1'], ['set-cookie', 'b=2'], ['content-type', 'application/json']])
		return new Response(JSON.stringify({ url: request.url, headers: Object.fromEntries(request.headers) }), { headers, status: 203 })
	} }),
	at('sent', { action: async ({ request }) => new Response(String((await request.text()).length)) }),
	at('long', { loader: () => new Response(new ReadableStream({ async pull(to) {
		for (let i = 0; i < 3; i++) { to.enqueue(new TextEncoder().encode('x'.repeat(100_000))); await wait(5) }
		to.close()
	} })) }),
	at('waits', { loader: async ({ request }) => {
		mark(request)
		await new Promise((resolve) => request.signal.addEventListener('abort', resolve))
		gone++
		return new Response('nobody')
	} }),
	at('gone', { loader: () => new Response(String(gone)) }),
	at('slow', { loader: async ({ request }) => { mark(request); await wait(300); return new Response('slow') } }),
	at('ends', { loader: () => process.exit(1) }),
	at('api/events', { action: () => new Response('taken') }),
].map((route) => [route.id, route]))
export const entry = { module: { default: () => new Response('no page') } }
export const assets = { entry: { module: '', imports: [] }, routes: {}, url: '', version: '1' }
export const publicPath = '/', assetsBuildDirectory = '', basename = '/', future = {}
export const isSpaMode = false, ssr = true, prerender = [], routeDiscovery = { mode: 'initial' }
`

let folder: string
let thread: string
let web: WebServer
let address: string
beforeAll(async () => {
	folder = mkdtempSync(path.join(tmpdir(), 'dromos-pages-test-'))
	mkdirSync(path.join(folder, 'client', 'assets'), { recursive: true })
	mkdirSync(path.join(folder, 'server'))
	writeFileSync(path.join(folder, 'server', 'index.js'), APPLICATION)
	writeFileSync(path.join(folder, 'package.json'), '{"type":"module"}')
	thread = path.join(await builtCommands(), 'page-thread.mjs')
	;[web, address] = await serve()
})
afterAll(async () => {
	await web.stop()
	rmSync(folder, { recursive: true })
})
async function serve(behindTls = false): Promise<[WebServer, string]> {
	const port = await freePort()
	const options = { build: folder, thread, host: '127.0.0.1', port, secure: null, behindTls, isUp: () => true }
	return [await startWebServer(options), `http://127.0.0.1:${port}`]
}
const sockets = () =>
	readdirSync(SOCKETS_IN).filter((name) => name.startsWith(`dromos-pages-${process.pid}-`) && name.endsWith('.sock'))
let marks = 0
/** A file that says that a request is being answered. */
const newMark = () => path.join(folder, `mark-${marks++}`)
const toBegin = (mark: string) =>
	vi.waitFor(() => expect(existsSync(mark)).toBe(true), { timeout: 10_000, interval: 5 })
const sendMarks = async () => {
	const body = { method: 'POST', body: '{}', headers: { 'content-type': 'application/json' } }
	return (await fetch(`${address}/api/events`, body)).text()
}

describe('pages made in a thread', () => {
	it('keep nobody waiting who sends marks, however long one takes', async () => {
		const [mark, until] = [newMark(), newMark()]
		const busy = fetch(`${address}/busy?mark=${mark}&until=${until}`).then((answer) => answer.text())
		await toBegin(mark)
		// It would never end otherwise.
		expect(await sendMarks()).toBe('taken')
		writeFileSync(until, '')
		expect(await busy).toBe('done')
	})

	it('are asked as the web process was, and by nothing a client says of the way it came', async () => {
		const headers = {
			'x-forwarded-host': 'elsewhere.invalid',
			'x-forwarded-proto': 'https',
			'x-client-network': '203.0.113.9',
			cookie: 'own=1',
		}
		const answer = await fetch(`${address}/asked?a=b%2Fc`, { headers })
		expect(answer.status).toBe(203)
		expect(answer.headers.getSetCookie()).toEqual(['a=1', 'b=2'])
		const asked = (await answer.json()) as { url: string; headers: Record<string, string> }
		expect(asked.url).toBe(`${address}/asked?a=b%2Fc`)
		expect(asked.headers).toMatchObject({ cookie: 'own=1', 'x-client-network': '127.0.0.1' })
		expect(asked.headers).not.toHaveProperty('x-forwarded-host')
		expect(asked.headers['x-request-id']).toBe(answer.headers.get('x-request-id'))
	})

	it('know that people come over TLS where a proxy speaks it', async () => {
		const [behind, at] = await serve(true)
		const asked = (await (await fetch(`${at}/asked`)).json()) as { url: string }
		await behind.stop()
		expect(asked.url).toBe(`${at.replace('http:', 'https:')}/asked`)
	})

	it('get the whole of what is sent and send the whole of what is asked', async () => {
		const headers = { 'content-type': 'application/x-www-form-urlencoded' }
		const sent = await fetch(`${address}/sent`, { method: 'POST', body: 'y'.repeat(900_000), headers })
		expect(await sent.text()).toBe('900000')
		expect(await (await fetch(`${address}/long`)).text()).toBe('x'.repeat(300_000))
	})

	it('are told when whoever asked has gone', async () => {
		const [mark, broken] = [newMark(), new AbortController()]
		const waits = fetch(`${address}/waits?mark=${mark}`, { signal: broken.signal }).catch(() => 'broken off')
		await toBegin(mark)
		broken.abort()
		expect(await waits).toBe('broken off')
		await vi.waitFor(async () => expect(await (await fetch(`${address}/gone`)).text()).toBe('1'), { timeout: 10_000 })
	})

	it('come from another thread when one has ended; who was asking is told to ask again', async () => {
		const lost = await fetch(`${address}/ends`)
		expect([lost.status, lost.headers.get('retry-after')]).toEqual([503, '3'])
		expect(await sendMarks()).toBe('taken')
		await vi.waitFor(async () => expect((await fetch(`${address}/asked`)).status).toBe(203), { timeout: 20_000 })
		expect(sockets()).toHaveLength(1)
	})

	it('are answered to the end when the process ends, which leaves no socket, nor those of killed ones', async () => {
		const dead = spawnSync(process.execPath, ['-e', '']).pid
		const left = path.join(SOCKETS_IN, `dromos-pages-${dead}-0123abcd.sock`)
		writeFileSync(left, '')
		const before = sockets()
		const [ending, at] = await serve()
		expect(existsSync(left)).toBe(false)
		const mark = newMark()
		const slow = fetch(`${at}/slow?mark=${mark}`).then((answer) => answer.text())
		await toBegin(mark)
		await ending.stop()
		expect(await slow).toBe('slow')
		expect(sockets()).toEqual(before)
	})

	it('are not begun where there is no application', async () => {
		await expect(startPages(path.join(folder, 'nothing'), thread)).rejects.toThrow('ended before it served')
	})
})
