import { randomBytes } from 'node:crypto'
import { isIP } from 'node:net'
import type { NextFunction, Request, RequestHandler, Response } from 'express'

const MB = 1024 * 1024
/** What one request may bring, bytes: lists and documents of a club are files, everything else is typed. */
const MOST: readonly (readonly [RegExp, number])[] = [
	[/^\/club\/data(\.data)?\/?$/, 42 * MB],
	[/^\/squads\/[^/]+\/(list|history)(\.data)?\/?$/, 8 * MB],
	[/^\/api\/events$/, 4 * MB],
]
const MOST_OTHERWISE = MB
const mostOf = (path: string): number => MOST.find(([pattern]) => pattern.test(path))?.[1] ?? MOST_OTHERWISE

const FORMS = ['application/x-www-form-urlencoded', 'multipart/form-data']
const METHODS = ['GET', 'HEAD', 'POST']
/** How long who asks is told to wait while something is being started. */
const RETRY_S = 3

/** How long something that is not taken may go on being sent. */
const DRAIN_MS = 5_000

/** Says no in a sentence and takes nothing more from the connection. */
export function refuse(
	response: Response,
	status: number,
	sentence: string,
	headers: Record<string, string> = {},
): void {
	response.writeHead(status, { 'content-type': 'text/plain; charset=utf-8', connection: 'close', ...headers })
	response.end(sentence)
	// Read to its end, for a while: a line that is closed under a sender gives them an error instead of the sentence.
	response.req.resume()
	setTimeout(() => response.req.destroy(), DRAIN_MS).unref()
}

/** Says in a sentence that it is not answered now, and when to ask again. */
export const notNow = (response: Response, sentence: string): void =>
	refuse(response, 503, sentence, { 'retry-after': String(RETRY_S) })

/** The client's network: an IPv4 address, or the 64 bits of an IPv6 address that one household has. */
export function networkOf(request: Pick<Request, 'headers' | 'socket'>, behindProxy: boolean): string {
	const forwarded = String(request.headers['x-forwarded-for'] ?? '')
		.split(',')
		.at(-1)!
		.trim()
	const address = (behindProxy && isIP(forwarded) !== 0 ? forwarded : (request.socket.remoteAddress ?? '')).replace(
		/^::ffff:(?=\d+\.)/,
		'',
	)
	if (isIP(address) !== 6) return address
	const [head = '', tail] = address.split('%')[0]!.split('::')
	const [before, after] = [head, tail ?? ''].map((half) => (half === '' ? [] : half.split(':')))
	const zeros = tail === undefined ? [] : Array<string>(8 - before!.length - after!.length).fill('0')
	return [...before!, ...zeros, ...after!]
		.slice(0, 4)
		.map((part) => Number.parseInt(part, 16).toString(16))
		.join(':')
}

/**
 * Headers of every answer, whatever wrote it, that it does not set itself: what is served from memory or disk as what a
 * page, a file or a picture brings. What carries data is kept by nobody.
 *
 * @param options.secure whether people reach it over TLS, from this process or through a proxy
 * @param options.behindProxy whether the last address a proxy has added is the client's
 */
export function everyAnswer(options: { secure: boolean; behindProxy?: boolean }): RequestHandler {
	const standing: Record<string, string> = {
		'x-content-type-options': 'nosniff',
		'referrer-policy': 'same-origin',
		'cross-origin-resource-policy': 'same-origin',
		'x-frame-options': 'DENY',
		// The service worker fetches under the policy its own file came with.
		'content-security-policy': "default-src 'self'; object-src 'none'; base-uri 'none'; frame-ancestors 'none'",
		'cache-control': 'no-store',
		...(options.secure ? { 'strict-transport-security': 'max-age=31536000' } : {}),
	}
	return (request, response, next) => {
		// A number to quote, the same in the log and on the page.
		request.headers['x-request-id'] = randomBytes(4).toString('hex')
		request.headers['x-client-network'] = networkOf(request, options.behindProxy === true)
		const writeHead = response.writeHead.bind(response) as (...args: unknown[]) => Response
		response.writeHead = ((...args: unknown[]) => {
			response.setHeader('x-request-id', request.headers['x-request-id']!)
			for (const [name, value] of Object.entries(standing))
				if (!response.hasHeader(name)) response.setHeader(name, value)
			return writeHead(...args)
		}) as Response['writeHead']
		next()
	}
}

/**
 * What nothing here understands is refused before anything reads it: other methods, a body of an unknown kind, one
 * without its length or longer than its place takes, an address that cannot be read.
 */
export function whatIsUnderstood(request: Request, response: Response, next: NextFunction): void {
	if (!METHODS.includes(request.method))
		return refuse(response, 405, `${request.method} is not understood here.`, { allow: METHODS.join(', ') })
	try {
		decodeURIComponent(request.path)
	} catch {
		return refuse(response, 400, 'This address cannot be read.')
	}
	if (request.method !== 'POST') return next()
	const length = request.headers['content-length']
	const most = mostOf(request.path)
	if (request.headers['transfer-encoding'] !== undefined || length === undefined || !/^\d{1,12}$/.test(length))
		return refuse(response, 411, 'Say how long what you send is.')
	if (Number(length) > most)
		return refuse(response, 413, `That is too much at once: ${Math.round(most / MB)} MB are taken here.`)
	const kind = (request.headers['content-type'] ?? '').split(';')[0]!.trim().toLowerCase()
	const taken = request.path.startsWith('/api/') ? ['application/json'] : [...FORMS, 'application/json']
	if (Number(length) > 0 && !taken.includes(kind))
		return refuse(response, 415, `${kind === '' ? 'No kind of content' : kind} is not taken here; ${taken[0]} is.`)
	next()
}

/** While the database is down nothing is answered wrongly: phones and browsers are told to ask again. */
export const onlyWhenUp =
	(isUp: () => boolean): RequestHandler =>
	(_request, response, next) =>
		isUp() ? next() : notNow(response, 'The database is being started again. Nothing is lost; try again in a moment.')

/** What strangers send to get in: every one of them is a page to make and a password to hash. */
const WAY_IN = /^\/(sign-in|first|join\/[^/]+)(\.data)?\/?$/

/**
 * Lets what strangers send to get in begin one after another, so that however many come at once the pages of those who
 * are in are made between them.
 *
 * @param everyMs from the beginning of one to that of the next, ms; one that comes alone does not wait
 * @param most so many may wait; more are told to ask again
 */
export function oneByOne(everyMs: number, most: number): RequestHandler {
	const waiting: { response: Response; next: NextFunction }[] = []
	let isPaused = false
	const letNextIn = (): void => {
		let turn = waiting.shift()
		// Who has gone meanwhile takes nobody's turn.
		while (turn?.response.destroyed) turn = waiting.shift()
		isPaused = turn !== undefined
		if (turn === undefined) return
		setTimeout(letNextIn, everyMs)
		turn.next()
	}
	return (request, response, next) => {
		if (request.method !== 'POST' || !WAY_IN.test(request.path)) return next()
		if (waiting.length >= most) return notNow(response, 'Very many people are signing in. Try again in a moment.')
		waiting.push({ response, next })
		if (!isPaused) letNextIn()
	}
}
