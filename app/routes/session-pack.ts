import { isDay } from '#core/calendar/day-count'
import { data } from 'react-router'
import { SURFACES } from '#core/vocabulary/words'
import { todayAt } from '#server/clock'
import { readPackAsked } from '#server/plan/read-pack-asked'
import type { Route } from './+types/session-pack'
import { allowed, maybeWho, notFound } from '../request-guard'

/** What a session of a squad on a day is built from; asked again when the day, the ground or the people change. */
export async function loader({ context, request }: Route.LoaderArgs) {
	// Asked while somebody types: being signed out is said when they save, not by taking the page away.
	if (!maybeWho(context)) return data(null, { status: 401 })
	const { who, scope } = allowed(context, request, 'plan:write')
	const asked = new URL(request.url).searchParams
	const [squadId, day, startTime, surface] = [
		asked.get('squad') ?? '',
		asked.get('day') ?? '',
		asked.get('time') ?? '',
		asked.get('surface') ?? '',
	]
	if (!/^[0-9a-f-]{36}$/.test(squadId) || !isDay(day) || !/^([01]\d|2[0-3]):[0-5]\d$/.test(startTime))
		throw data(null, { status: 400 })
	const sessionId = asked.get('session') ?? ''
	const pack = await readPackAsked(
		scope,
		{
			squadId,
			sessionId: /^[0-9a-f-]{36}$/.test(sessionId) ? sessionId : null,
			day,
			startTime,
			surface: SURFACES.find((one) => one === surface) ?? null,
			athleteIds: (asked.get('athletes') ?? '')
				.split(',')
				.filter((id) => /^[0-9a-f-]{36}$/.test(id))
				.slice(0, 60),
		},
		todayAt(who.timeZone),
	)
	if (!pack) throw notFound()
	return pack
}
