import { saveMeasurement } from '#server/bench/save-measurement'
import type { Route } from './+types/api.measurements'
import { maybeWho } from '../request-guard'

/** Takes one measurement of the bench; 401 for a sign-in that has run out, so that the page can say so and keep what is typed. */
export async function action({ context, request }: Route.ActionArgs) {
	const who = maybeWho(context)
	if (!who) return Response.json({ reason: 'signed out' }, { status: 401 })
	const body: unknown = await request.json().catch(() => null)
	const answer = await saveMeasurement(who, body, new Date())
	return Response.json(answer, { status: 'saved' in answer ? 200 : 400 })
}
