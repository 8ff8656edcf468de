import { data } from 'react-router'
import { SessionTemplate } from '#core/vocabulary/template'
import { forgetTemplate, keepTemplate, readSentTemplate } from '#server/plan/templates'
import type { Route } from './+types/session-templates'
import { allowed } from '../request-guard'
import { readJson } from '../read-json'
import { formOf } from '../intents'

/** A sheet of thirty entries is a tenth of this. */
const MOST_CHARACTERS = 200_000

/** The schema a template keeps to, for whoever writes one elsewhere. */
export function loader({ context, request }: Route.LoaderArgs) {
	allowed(context, request, 'plan:read')
	return Response.json(SessionTemplate, { headers: { 'content-type': 'application/schema+json' } })
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who, scope } = allowed(context, request, 'plan:write')
	if (request.headers.get('content-type')?.startsWith('application/json')) {
		const body = await readJson(request, MOST_CHARACTERS)
		const read =
			'error' in body
				? { problem: `This is not a session template: ${body.error}.` }
				: await readSentTemplate(scope, body.body)
		return Response.json(read, { status: 'problem' in read ? 400 : 200 })
	}
	const form = await formOf(request)
	const forget = String(form.get('forget') ?? '')
	if (/^[0-9a-f-]{36}$/.test(forget)) {
		await forgetTemplate(who, forget)
		return { forgotten: true }
	}
	let value: unknown = null
	try {
		value = JSON.parse(String(form.get('template') ?? ''))
	} catch {
		// Said below, like any other document that is no template.
	}
	const kept = await keepTemplate(who, value, new Date())
	return data(kept, { status: 'problem' in kept ? 400 : 200 })
}
