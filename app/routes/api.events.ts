import { data } from 'react-router'
import { MAX_BATCH, MAX_CHARACTERS } from '#core/vocabulary/event-kinds'
import { acceptEvents } from '#server/log/accept-events'
import type { Route } from './+types/api.events'
import { AWAY, isDatabaseAway, readJson } from '../read-json'
import { maybeWho } from '../request-guard'

/**
 * Takes a batch of events; answers one by one. 401 asks the device to sign in again and keep its queue;
 * 409 says that somebody else is signed in than who logged them.
 */
export async function action({ context, request }: Route.ActionArgs) {
	const who = maybeWho(context)
	if (!who) return data({ error: 'sign in again' }, { status: 401 })
	const read = await readJson(request, MAX_CHARACTERS)
	if ('error' in read) return data({ error: read.error }, { status: read.status })
	const { events, personId } = (read.body ?? {}) as { events?: unknown; personId?: unknown }
	if (!Array.isArray(events) || events.length > MAX_BATCH)
		return data({ error: `an object with "events", an array of at most ${MAX_BATCH}, is expected` }, { status: 400 })
	if (personId !== undefined && personId !== who.personId)
		return data({ error: 'somebody else is signed in than who logged these' }, { status: 409 })
	try {
		return data({ answers: await acceptEvents(who, events, new Date()) })
	} catch (error) {
		if (isDatabaseAway(error)) return data(AWAY, { status: 503 })
		throw error
	}
}
