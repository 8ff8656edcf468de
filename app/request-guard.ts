import {
	type MiddlewareFunction,
	type RouterContextProvider,
	createContext,
	createCookie,
	redirect,
} from 'react-router'
import type { Permission } from '#server/access/roles'
import { may } from '#server/access/roles'
import { type From, type Opened, type SignedIn, isEnded, whoIs } from '#server/access/sign-in'
import { scopeOf } from '#server/database'
import { onceOnly } from '#server/submissions/once'

const whoContext = createContext<SignedIn | null>(null)
const tokenContext = createContext<string | null>(null)

const secure = process.env.TLS_CERT !== undefined || process.env.TRUST_PROXY === '1'
export const signInCookie = createCookie('dromos-sign-in', { httpOnly: true, sameSite: 'lax', path: '/', secure })

/** What a browser is known by for a year, whoever signs in on it. */
const deviceCookie = createCookie('dromos-device', { httpOnly: true, sameSite: 'lax', path: '/', secure })
const KNOWN_FOR_S = 365 * 86_400

/** Where a request comes from, as far as signing in goes by it. */
export async function fromOf(request: Request): Promise<From> {
	const device: unknown = await deviceCookie.parse(request.headers.get('cookie'))
	const agent = request.headers.get('user-agent') ?? ''
	return {
		// Written by the web server, whatever a client says of itself.
		network: request.headers.get('x-client-network') ?? '',
		device: typeof device === 'string' && /^[\w-]{43}$/.test(device) ? device : null,
		browser: /ipad|tablet/i.test(agent) ? 'a tablet' : /mobi|android|iphone/i.test(agent) ? 'a phone' : 'a computer',
	}
}
/** The cookies of somebody who has just signed in. */
export async function signedInCookies({ token, expiresAt, device }: Opened): Promise<[string, string][]> {
	return [
		['set-cookie', await signInCookie.serialize(token, { expires: expiresAt })],
		['set-cookie', await deviceCookie.serialize(device, { maxAge: KNOWN_FOR_S })],
	]
}

/**
 * Stands before every loader and action: writes from another origin are refused, and whoever is
 * signed in is looked up once.
 */
export const guard: MiddlewareFunction<Response> = async ({ request, context }, next) => {
	// Measuring devices are no browsers: they bring a token instead of a cookie, and no origin.
	const fromDevice = new URL(request.url).pathname.startsWith('/api/devices/')
	if (request.method !== 'GET' && request.method !== 'HEAD' && !fromDevice) refuseForeignOrigin(request)
	const token: unknown = await signInCookie.parse(request.headers.get('cookie'))
	if (typeof token === 'string' && token !== '') {
		context.set(tokenContext, token)
		context.set(whoContext, await whoIs(token, new Date()))
	}
	const who = context.get(whoContext)
	const sent = who && request.method === 'POST' ? await formSent(request) : null
	return who && sent !== null ? onceOnly(who, sent, async () => next(), new Date()) : next()
}

/** The whole form with where it goes, when it carries a submission id; null for everything else that is sent. */
async function formSent(request: Request): Promise<string | null> {
	const { pathname, search } = new URL(request.url)
	// The log, devices and measurements have ids of their own; signing out is the same however often.
	if (pathname.startsWith('/api/') || pathname.startsWith('/sign-out')) return null
	const text = await request.clone().text()
	return /(^|&|["{,])submission["=]/.test(text) ? `${pathname}${search}\n${text}` : null
}

function refuseForeignOrigin(request: Request): void {
	const origin = request.headers.get('origin')
	const host = request.headers.get('host') ?? new URL(request.url).host
	if (!origin || !URL.canParse(origin) || new URL(origin).host !== host)
		throw new Response('This request came from another site.', { status: 403 })
}

type Context = Readonly<RouterContextProvider>

export const tokenOf = (context: Context): string | null => context.get(tokenContext)
export const maybeWho = (context: Context): SignedIn | null => context.get(whoContext)
/** Whether the browser brings a sign-in that was ended. */
export const wasEnded = async (context: Context): Promise<boolean> =>
	maybeWho(context) === null && (await isEnded(tokenOf(context)))

export interface Signed {
	who: SignedIn
	scope: ReturnType<typeof scopeOf>
}

/**
 * The page that asks for data, or that a form stands on: there it is gone on with after signing in, what was typed is
 * kept in the tab.
 */
function pageOf({ pathname, searchParams }: URL): string {
	const page = pathname.replace(/\.data$/, '').replace(/\/_$/, '/')
	// Ours are for people; these are how the pages talk to the server.
	for (const own of ['_routes', 'index']) searchParams.delete(own)
	const query = searchParams.toString()
	return query === '' ? page : `${page}?${query}`
}

/** Who is asking, and their club; strangers go to the sign-in page. */
export function signedIn(context: Context, request: Request): Signed {
	const who = context.get(whoContext)
	if (!who) {
		const url = new URL(request.url)
		const from = request.headers.get('referer') ?? ''
		const at = request.method !== 'GET' && URL.canParse(from) && new URL(from).host === url.host ? new URL(from) : url
		const to = pageOf(at)
		throw redirect(to === '/' ? '/sign-in' : `/sign-in?to=${encodeURIComponent(to)}`)
	}
	return { who, scope: scopeOf(who.clubId) }
}

/** As `signedIn`, and refuses whoever lacks the permission. An athlete is shown the way to their own page. */
export function allowed(context: Context, request: Request, permission: Permission): Signed {
	const signed = signedIn(context, request)
	if (may(signed.who.role, permission)) return signed
	if (request.method === 'GET' && signed.who.athleteId) throw redirect(`/athletes/${signed.who.athleteId}`)
	throw new Response('Ask the coach of your club: your role does not include this.', { status: 403 })
}

export const notFound = (): Response => new Response('Not found', { status: 404 })
