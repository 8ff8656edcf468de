import { createServer, request as ask } from 'node:http'
import type { AddressInfo } from 'node:net'
import express, { type Request, type Response } from 'express'
import { afterAll, beforeAll, beforeEach, describe, expect, it, vi } from 'vitest'
import { everyAnswer, networkOf, oneByOne, onlyWhenUp, whatIsUnderstood } from './web-rules'

let isUp = true
let read = 0
const app = express()
app.disable('x-powered-by')
app.use(
	everyAnswer({ secure: true }),
	whatIsUnderstood,
	onlyWhenUp(() => isUp),
)
app.all(/.*/, (request, response) => {
	request.resume()
	request.on('end', () => {
		read++
		response.setHeader('content-security-policy', "default-src 'self'")
		response.send('fine')
	})
})
const server = createServer(app)
let port = 0
beforeAll(async () => {
	await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
	port = (server.address() as AddressInfo).port
})
afterAll(() => void server.close())

/** Asked past every helper that would put a request right. */
const send = (method: string, path: string, headers: Record<string, string | number> = {}, body = '') =>
	new Promise<{ status: number; headers: Record<string, unknown>; text: string }>((resolve, reject) => {
		const asked = ask({ host: '127.0.0.1', port, method, path, headers }, (answer) => {
			let text = ''
			answer.on('data', (chunk: Buffer) => (text += chunk.toString()))
			answer.on('end', () => resolve({ status: answer.statusCode!, headers: answer.headers, text }))
		})
		asked.on('error', reject)
		asked.end(body)
	})
const FORM = 'application/x-www-form-urlencoded'

describe('what is sent', () => {
	it.each([
		['PUT', '/', {}, 405],
		['DELETE', '/squads', {}, 405],
		['OPTIONS', '/', {}, 405],
		['GET', '/%E0%A4%A', {}, 400],
		['POST', '/', { 'content-type': FORM, 'transfer-encoding': 'chunked' }, 411],
		['POST', '/', { 'content-type': FORM, 'content-length': 1024 * 1024 + 1 }, 413],
		['POST', '/api/events', { 'content-type': 'application/json', 'content-length': 4 * 1024 * 1024 + 1 }, 413],
		['POST', '/club/data', { 'content-type': FORM, 'content-length': 42 * 1024 * 1024 + 1 }, 413],
		['POST', '/', { 'content-type': 'text/xml', 'content-length': 3 }, 415],
		['POST', '/', { 'content-length': 3 }, 415],
		['POST', '/api/events', { 'content-type': FORM, 'content-length': 3 }, 415],
	] as const)('%s %s %j is %d, with a sentence, and nothing reads it', async (method, path, headers, status) => {
		const before = read
		const answer = await send(
			method,
			path,
			headers,
			'content-length' in headers && headers['content-length'] === 3 ? 'a=b' : '',
		)
		expect(answer.status).toBe(status)
		expect(answer.text).toMatch(/\.$/)
		expect(read).toBe(before)
	})
	it.each([
		['GET', '/', {}, ''],
		['HEAD', '/', {}, ''],
		['POST', '/', { 'content-type': `${FORM};charset=UTF-8`, 'content-length': 3 }, 'a=b'],
		['POST', '/api/events', { 'content-type': 'application/json; charset=utf-8', 'content-length': 2 }, '{}'],
		['POST', '/sign-out', { 'content-length': 0 }, ''],
	] as const)('%s %s %j is taken', async (method, path, headers, body) => {
		expect((await send(method, path, headers, body)).status).toBe(200)
	})
	it('a megabyte to the byte is taken, a longer file only where files are', async () => {
		const body = 'a'.repeat(1024 * 1024)
		const headers = { 'content-type': FORM, 'content-length': body.length }
		expect((await send('POST', '/', headers, body)).status).toBe(200)
		const file = `${body}b`
		expect(
			(await send('POST', '/squads/x/list.data', { ...headers, 'content-length': file.length }, file)).status,
		).toBe(200)
	})
})

describe('every answer', () => {
	it('may not be guessed at, framed or kept, and says nothing of what serves it', async () => {
		for (const path of ['/', '/%E0%A4%A']) {
			const { headers } = await send('GET', path)
			expect(headers).toMatchObject({
				'x-content-type-options': 'nosniff',
				'referrer-policy': 'same-origin',
				'x-frame-options': 'DENY',
				'cache-control': 'no-store',
				'strict-transport-security': 'max-age=31536000',
			})
			expect(headers['x-request-id']).toMatch(/^[0-9a-f]{8}$/)
			expect(headers).not.toHaveProperty('x-powered-by')
			expect(headers).not.toHaveProperty('server')
		}
	})
	it('keeps what a page says itself', async () => {
		expect((await send('GET', '/')).headers['content-security-policy']).toBe("default-src 'self'")
		expect((await send('PUT', '/')).headers['content-security-policy']).toContain("frame-ancestors 'none'")
	})
	it('a number that somebody sends is not taken for ours', async () => {
		const { headers } = await send('GET', '/', { 'x-request-id': 'theirs' })
		expect(headers['x-request-id']).not.toBe('theirs')
	})
})

describe('where somebody comes from', () => {
	const from = (remoteAddress: string, forwarded?: string, behindProxy = false) =>
		networkOf({ headers: { 'x-forwarded-for': forwarded }, socket: { remoteAddress } } as never, behindProxy)
	it.each([
		['203.0.113.7', '203.0.113.7'],
		['::ffff:203.0.113.7', '203.0.113.7'],
		['2001:db8:1:2:3:4:5:6', '2001:db8:1:2'],
		['2001:db8:1:2:ffff::1', '2001:db8:1:2'],
		['2001:db8::1', '2001:db8:0:0'],
		['::1', '0:0:0:0'],
		['fe80::1%eth0', 'fe80:0:0:0'],
	])('%s is %s', (address, network) => expect(from(address)).toBe(network))
	it('what a client says of itself counts only behind a proxy, and there only what the proxy added last', () => {
		expect(from('203.0.113.7', '198.51.100.1')).toBe('203.0.113.7')
		expect(from('127.0.0.1', '192.0.2.9, 198.51.100.1', true)).toBe('198.51.100.1')
		expect(from('127.0.0.1', 'made up', true)).toBe('127.0.0.1')
	})
})

describe('while the database is down', () => {
	it('asks to try again, whatever is asked for', async () => {
		isUp = false
		const answers = [
			await send('GET', '/health'),
			await send('POST', '/api/events', { 'content-type': 'application/json', 'content-length': 2 }, '{}'),
		]
		isUp = true
		for (const { status, headers, text } of answers) {
			expect(status).toBe(503)
			expect(headers['retry-after']).toBe('3')
			expect(text).toContain('Nothing is lost')
		}
		expect((await send('GET', '/health')).status).toBe(200)
	})
})

describe('what strangers send to get in', () => {
	const gate = express()
	const began: string[] = []
	gate.use(oneByOne(150, 6))
	gate.all(/.*/, (request, response) => {
		began.push(request.path)
		response.send('fine')
	})
	const gateServer = createServer(gate)
	const base = () => `http://127.0.0.1:${(gateServer.address() as AddressInfo).port}`
	beforeAll(() => new Promise<void>((resolve) => void gateServer.listen(0, '127.0.0.1', resolve)))
	afterAll(() => void gateServer.close())
	beforeEach(async () => {
		// The turn of the one before is over.
		await new Promise((resolve) => setTimeout(resolve, 180))
		began.length = 0
	})
	const post = (path: string, signal?: AbortSignal) =>
		fetch(base() + path, { method: 'POST', signal: signal ?? null }).then(({ status }) => status)

	it.each(['/sign-in', '/sign-in.data', '/first', '/join/abc', '/join/abc.data', '/sign-in/'])(
		'POST %s begins in turn, one alone at once',
		async (path) => {
			const sent = [post(path), post(path)]
			await new Promise((resolve) => setTimeout(resolve, 50))
			expect((await fetch(`${base()}/plan`)).status).toBe(200)
			expect(await Promise.all(sent)).toEqual([200, 200])
			// The page is asked for 50 ms later and a turn takes 150: what comes before it began at once.
			expect(began).toEqual([path, '/plan', path])
		},
	)
	it('a turn is as long as it was said to be', () => {
		vi.useFakeTimers()
		try {
			const rule = oneByOne(150, 6)
			const letIn = vi.fn()
			for (let n = 0; n < 3; n++)
				void rule({ method: 'POST', path: '/sign-in' } as Request, { destroyed: false } as Response, letIn)
			const seen = [0, 149, 1, 149, 1].map((ms) => {
				vi.advanceTimersByTime(ms)
				return letIn.mock.calls.length
			})
			expect(seen).toEqual([1, 1, 2, 2, 3])
		} finally {
			vi.useRealTimers()
		}
	})
	it('pages, and what those send who are in, go before it', async () => {
		const sent = [post('/sign-in'), post('/sign-in'), post('/sign-in')]
		const others = [fetch(`${base()}/sign-in`), fetch(`${base()}/plan`), post('/squads'), post('/joint/abc')]
		await Promise.all([...sent, ...others])
		expect(began).toHaveLength(7)
		expect(began.slice(-2)).toEqual(['/sign-in', '/sign-in'])
	})
	it('more than may wait are told to ask again, and those who wait are let in', async () => {
		const statuses = await Promise.all(Array.from({ length: 9 }, () => post('/sign-in')))
		expect(statuses.filter((status) => status === 200)).toHaveLength(7)
		expect(statuses.filter((status) => status === 503)).toHaveLength(2)
		expect(began).toHaveLength(7)
	})
	it('who has gone while waiting takes nobody’s turn', async () => {
		const gone = new AbortController()
		const first = post('/sign-in')
		const left = post('/join/gone', gone.signal).catch(() => 'gone')
		await new Promise((resolve) => setTimeout(resolve, 15))
		gone.abort()
		const last = post('/first')
		expect([await first, await left, await last]).toEqual([200, 'gone', 200])
		expect(began).toEqual(['/sign-in', '/first'])
	})
})
