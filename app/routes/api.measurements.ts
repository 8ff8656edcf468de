import { isDay } from '#core/calendar/day-count'
import { may } from '#server/access/roles'
import { repsOn } from '#server/bench/read-measurements'
import { saveMeasurement } from '#server/bench/save-measurement'
import { scopeOf } from '#server/database'
import type { Route } from './+types/api.measurements'
import { maybeWho } from '../request-guard'

/** The reps of an athlete on a day that a film may be of, for who logs them. */
export async function loader({ context, request }: Route.LoaderArgs) {
	const who = maybeWho(context)
	if (!who || !(may(who.role, 'marks:write') || may(who.role, 'marks:write-today')))
		return Response.json({ reps: [] }, { status: who ? 403 : 401 })
	const asked = new URL(request.url).searchParams
	const [athlete, day] = [asked.get('athlete') ?? '', asked.get('day') ?? '']
	const fits = /^[0-9a-f-]{36}$/.test(athlete) && isDay(day)
	return Response.json({ reps: fits ? await repsOn(scopeOf(who.clubId), athlete, day) : [] })
}

/** Takes one measurement of the bench; 401 for a sign-in that has run out, so that the page can say so and keep what is typed. */
export async function action({ context, request }: Route.ActionArgs) {
	const who = maybeWho(context)
	if (!who) return Response.json({ reason: 'signed out' }, { status: 401 })
	const body: unknown = await request.json().catch(() => null)
	const answer = await saveMeasurement(who, body, new Date())
	return Response.json(answer, { status: 'saved' in answer ? 200 : 400 })
}
