import { data, redirect } from 'react-router'
import { readSheetToChange } from '#server/sheet/read-form-choices'
import { changeSession } from '#server/sheet/save-session'
import type { Route } from './+types/session-change'
import { allowed, notFound } from '../request-guard'
import { SessionForm } from '../builder/session-form'
import { readSentSession } from '../builder/read-sent-session'

export const meta: Route.MetaFunction = () => [{ title: 'Change the session · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { scope } = allowed(context, request, 'plan:write')
	const page = await readSheetToChange(scope, params.sessionId)
	if (!page) throw notFound()
	if (page.startedAt) throw redirect(`/sessions/${page.id}`)
	return page
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const sent = await readSentSession(request)
	if ('problems' in sent) return data(sent, { status: 400 })
	const saved = await changeSession(who, params.sessionId, sent.draft, sent.version, new Date())
	if (!saved) throw notFound()
	if ('meanwhile' in saved) return data(saved, { status: 409 })
	return 'problems' in saved
		? data({ problems: saved.problems }, { status: 400 })
		: redirect(`/sessions/${saved.sessionId}`)
}

export default function SessionChange({ loaderData, actionData }: Route.ComponentProps) {
	const { id, version, draft, choices } = loaderData
	return (
		<>
			<h1 className="mb-5">Change the session</h1>
			<SessionForm
				{...choices}
				sessionId={id}
				version={version}
				overtaken={actionData && 'meanwhile' in actionData ? actionData.meanwhile : undefined}
				initial={draft}
				problems={actionData && 'problems' in actionData ? actionData.problems : undefined}
				submitLabel="Save the change"
			/>
		</>
	)
}
