import { randomBytes } from 'node:crypto'
import { PassThrough } from 'node:stream'
import { buffer } from 'node:stream/consumers'
import { renderToPipeableStream } from 'react-dom/server'
import { type EntryContext, type HandleErrorFunction, ServerRouter, isRouteErrorResponse } from 'react-router'
import { keepUpWithEdits } from '#server/keep-up'
import { log } from '#server/logger'
import { RequestNumber } from './ui/request-number'

export const streamTimeout = 5_000

keepUpWithEdits()

function securityHeaders(headers: Headers, nonce: string): void {
	headers.set(
		'content-security-policy',
		[
			"default-src 'self'",
			`script-src 'self' 'nonce-${nonce}'`,
			"style-src 'self'",
			"style-src-attr 'unsafe-inline'",
			"img-src 'self' data: blob:",
			"font-src 'self'",
			"connect-src 'self'",
			"worker-src 'self'",
			"manifest-src 'self'",
			"media-src 'self' blob:",
			"object-src 'none'",
			"base-uri 'none'",
			"form-action 'self'",
			"frame-ancestors 'none'",
		].join('; '),
	)
	headers.set('x-content-type-options', 'nosniff')
	headers.set('referrer-policy', 'same-origin')
	headers.set('cross-origin-opener-policy', 'same-origin')
	headers.set('permissions-policy', 'camera=(self), microphone=(), geolocation=()')
	// Pages hold names and health data: no shared cache, and nothing left behind after signing out.
	headers.set('cache-control', 'no-store')
}

export default function handleRequest(
	request: Request,
	status: number,
	headers: Headers,
	routerContext: EntryContext,
): Promise<Response> {
	const nonce = randomBytes(16).toString('base64')
	securityHeaders(headers, nonce)
	headers.set('content-type', 'text/html; charset=utf-8')
	return new Promise((resolve, reject) => {
		const errors: unknown[] = []
		const { pipe, abort } = renderToPipeableStream(
			<RequestNumber value={request.headers.get('x-request-id')}>
				<ServerRouter context={routerContext} url={request.url} nonce={nonce} />
			</RequestNumber>,
			{
				nonce,
				// Nothing of a page comes later than the rest, and each piece sent alone would be compressed alone.
				onAllReady: () => {
					clearTimeout(late)
					for (const error of errors) logError(error, request)
					buffer(pipe(new PassThrough())).then(
						(body) =>
							resolve(new Response(new Uint8Array(body), { headers, status: errors.length > 0 ? 500 : status })),
						reject,
					)
				},
				// Logged by whoever made the page.
				onShellError: reject,
				onError: (error) => void errors.push(error),
			},
		)
		const late = setTimeout(abort, streamTimeout + 1000)
	})
}

/** Only what went wrong and where in the code: never the values, which may be names or health data. */
function logError(error: unknown, request: Request): void {
	const cause = error instanceof Error && error.cause instanceof Error ? error.cause.message : undefined
	// What stands in quotes may have been typed by somebody; the database quotes values too.
	const message =
		error instanceof Error
			? (cause ?? error.message).replace(/“[^”]*”|‘[^’]*’|'[^']*'|"[^"]*"|`[^`]*`/g, '…').slice(0, 300)
			: 'unknown error'
	log.error(
		{
			// The number that the answer carries and the page shows; of the address only the place, never what was asked for there.
			request: request.headers.get('x-request-id'),
			place: new URL(request.url).pathname
				.replace(/^\/join\/.*/, '/join/TOKEN')
				.replace(/[0-9a-f-]{36}/g, 'ID')
				.slice(0, 100),
			at:
				error instanceof Error
					? error.stack
							?.split('\n')
							.filter((line) => line.trim().startsWith('at '))
							.slice(0, 6)
							.map((line) => line.trim())
					: [],
		},
		message,
	)
}

export const handleError: HandleErrorFunction = (error, { request }) => {
	// An address that leads nowhere is answered, and is no error of ours.
	if (!request.signal.aborted && !(isRouteErrorResponse(error) && error.status < 500)) logError(error, request)
}
