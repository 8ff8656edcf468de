import { data } from 'react-router'
import { MAX_BATCH, acceptEvents } from '#server/log/accept-events'
import type { Route } from './+types/api.events'
import { maybeWho } from '../request-guard'

const MAX_BYTES = 1_000_000

/** Takes a batch of events; answers one by one. 401 asks the device to sign in again and keep its queue. */
export async function action({ context, request }: Route.ActionArgs) {
	const who = maybeWho(context)
	if (!who) return data({ error: 'sign in again' }, { status: 401 })
	const text = await request.text()
	if (text.length > MAX_BYTES) return data({ error: `at most ${MAX_BYTES} characters are expected` }, { status: 413 })
	let body: unknown
	try {
		body = JSON.parse(text)
	} catch {
		return data({ error: 'JSON is expected' }, { status: 400 })
	}
	const events = (body as { events?: unknown } | null)?.events
	if (!Array.isArray(events) || events.length > MAX_BATCH) return data({ error: `an object with "events", an array of at most ${MAX_BATCH}, is expected` }, { status: 400 })
	return data({ answers: await acceptEvents(who, events, new Date()) })
}
