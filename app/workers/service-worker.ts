// Keeps the field's own files and its one document, and nothing else. Data lives in IndexedDB, which the
// page reads and writes itself (app/field/device-store.ts); the worker never touches it.
export {} // a module, so that the `self` below is this file's own

declare const self: ServiceWorkerGlobalScope
declare const __ASSETS__: string[]
declare const __VERSION__: string

const PREFIX = 'dromos-field-'
const CACHE = `${PREFIX}${__VERSION__}`
const ASSETS = new Set(__ASSETS__)
const DOCUMENT = '/field'
const DOCUMENT_TIMEOUT_MS = 3000

self.addEventListener('install', (event) => {
	event.waitUntil(
		(async () => {
			const cache = await caches.open(CACHE)
			await cache.addAll([...ASSETS])
			await fetchDocument(cache)
		})(),
	)
})

// A new worker waits until no tab runs the old build: a page's scripts and its document stay of one make.
self.addEventListener('activate', (event) => {
	event.waitUntil(
		(async () => {
			const stale = (await caches.keys()).filter((name) => name.startsWith(PREFIX) && name !== CACHE)
			await Promise.all(stale.map((name) => caches.delete(name)))
			await self.clients.claim()
		})(),
	)
})

self.addEventListener('fetch', (event) => {
	const { request } = event
	const url = new URL(request.url)
	if (request.method !== 'GET' || url.origin !== self.location.origin) return
	if (request.mode === 'navigate') event.respondWith(url.pathname === DOCUMENT ? fieldDocument() : otherPage(request))
	else if (ASSETS.has(url.pathname)) event.respondWith(asset(request))
})

async function fieldDocument(): Promise<Response> {
	const cache = await caches.open(CACHE)
	try {
		const response = await fetchDocument(cache)
		if (response.status < 500) return response
	} catch {
		// No network, or too slow: the kept document opens instead.
	}
	return (await cache.match(DOCUMENT)) ?? Response.error()
}

async function fetchDocument(cache: Cache): Promise<Response> {
	const response = await fetch(DOCUMENT, {
		credentials: 'same-origin',
		redirect: 'manual',
		signal: AbortSignal.timeout(DOCUMENT_TIMEOUT_MS),
	})
	if (response.ok && (await isOfThisBuild(response.clone()))) await cache.put(DOCUMENT, response.clone())
	return response
}

/** After an update the server sends documents whose scripts this worker does not have. */
async function isOfThisBuild(response: Response): Promise<boolean> {
	return [...(await response.text()).matchAll(/\/assets\/[\w.-]+\.js/g)].every(([script]) => ASSETS.has(script))
}

/** Any other place of the program needs the server; without it the sessions on the device are what there is. */
async function otherPage(request: Request): Promise<Response> {
	try {
		return await fetch(request)
	} catch {
		return Response.redirect(DOCUMENT, 302)
	}
}

async function asset(request: Request): Promise<Response> {
	const cache = await caches.open(CACHE)
	return (await cache.match(request.url)) ?? fetch(request)
}
