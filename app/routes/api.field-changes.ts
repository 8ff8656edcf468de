import { data } from 'react-router'
import { may } from '#server/access/roles'
import { scopeOf } from '#server/database'
import { TooManyHeld, waitForChanges } from '#server/field/changes'
import type { Route } from './+types/api.field-changes'
import { AWAY, isDatabaseAway, readJson } from '../read-json'
import { maybeWho } from '../request-guard'

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

/** Waits for what others add to a session, device readings too. A read, sent as POST for the list of ids it carries. */
export async function action({ context, request }: Route.ActionArgs) {
	const who = maybeWho(context)
	if (!who) return data({ error: 'sign in again' }, { status: 401 })
	if (!may(who.role, 'marks:write') && !may(who.role, 'marks:write-today'))
		return data({ error: 'Your role does not log on the field.' }, { status: 403 })
	const read = await readJson(request, 500_000)
	if ('error' in read) return data({ error: read.error }, { status: read.status })
	const { sessionId, since, seen, deviceId } = (read.body ?? {}) as {
		sessionId?: unknown
		since?: unknown
		seen?: unknown
		deviceId?: unknown
	}
	const from =
		since === null
			? null
			: typeof since === 'string' && since.length < 40 && !Number.isNaN(Date.parse(since))
				? new Date(since)
				: undefined
	if (typeof sessionId !== 'string' || !UUID.test(sessionId))
		return data({ error: '"sessionId", the id of a session, is expected' }, { status: 400 })
	if (from === undefined || (from && !(from.getTime() > 0 && from.getTime() < Date.UTC(2100, 0))))
		return data({ error: '"since", a time or null, is expected' }, { status: 400 })
	if (!Array.isArray(seen) || !seen.every((id) => typeof id === 'string'))
		return data({ error: '"seen", a list of ids, is expected' }, { status: 400 })
	try {
		return data(
			await waitForChanges(
				scopeOf(who.clubId),
				who.role,
				sessionId,
				from,
				new Set(seen),
				typeof deviceId === 'string' && UUID.test(deviceId) ? deviceId : null,
				request.signal,
			),
		)
	} catch (error) {
		if (isDatabaseAway(error)) return data(AWAY, { status: 503 })
		if (error instanceof TooManyHeld)
			return data(
				{ error: 'So many phones wait here; ask again in a moment.' },
				{ status: 503, headers: { 'retry-after': '5' } },
			)
		throw error
	}
}
