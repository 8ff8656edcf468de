import { todayAt } from '#server/clock'
import { squadCalendar } from '#server/sheet/squad-calendar'
import type { Route } from './+types/squad-calendar'
import { allowed, notFound } from '../request-guard'

/** A squad's sessions for any calendar program. */
export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const calendar = /^[0-9a-f-]{36}$/.test(params.squadId)
		? await squadCalendar(scope, params.squadId, todayAt(who.timeZone), who.clubName, new Date())
		: null
	if (!calendar) throw notFound()
	return new Response(calendar.text, {
		headers: {
			'content-type': 'text/calendar; charset=utf-8',
			'content-disposition': `attachment; filename="sessions.ics"`,
			'cache-control': 'no-store',
		},
	})
}
