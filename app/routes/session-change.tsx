import { data, redirect } from 'react-router'
import { readSheetToChange } from '#server/sheet/read-form-choices'
import { changeSession } from '#server/sheet/save-session'
import type { Route } from './+types/session-change'
import { allowed, notFound } from '../request-guard'
import { SessionForm } from '../builder/session-form'
import { draftOf, entryText, readSessionText } from '../builder/session-text'

export const meta: Route.MetaFunction = () => [{ title: 'Change the session · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { scope } = allowed(context, request, 'plan:write')
	const page = await readSheetToChange(scope, params.sessionId)
	if (!page) throw notFound()
	if (page.session.startedAt) throw redirect(`/sessions/${page.session.id}`)
	return page
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const typed = readSessionText((await request.formData()).get('draft'))
	if (!typed)
		return data(
			{
				problems: { title: 'The form did not arrive whole; nothing was saved. Send it again.' } as Record<
					string,
					string
				>,
			},
			{ status: 400 },
		)
	const saved = await changeSession(who.clubId, params.sessionId, draftOf(typed), new Date())
	if (!saved) throw notFound()
	return 'problems' in saved
		? data({ problems: saved.problems }, { status: 400 })
		: redirect(`/sessions/${saved.sessionId}`)
}

export default function SessionChange({ loaderData, actionData }: Route.ComponentProps) {
	const { session, entries, athleteIds, choices } = loaderData
	return (
		<>
			<h1 className="mb-5">Change the session</h1>
			<SessionForm
				{...choices}
				sessionId={session.id}
				initial={{
					squadId: session.squadId,
					day: session.day,
					startTime: session.startTime,
					title: session.title,
					place: session.place,
					surface: session.surface ?? '',
					plannedMinutes: String(session.plannedMinutes),
					role: session.role,
					share: session.share,
					athleteIds,
					entries: entries.map(({ id, part, ladderId, drillId, doseFactor, lanes, together, tuning, ...numbers }) =>
						entryText(part, ladderId ? `ladder:${ladderId}` : `drill:${drillId}`, numbers, {
							id,
							doseFactor,
							lanes,
							together,
							tuning,
						}),
					),
				}}
				problems={actionData?.problems}
				submitLabel="Save the change"
			/>
		</>
	)
}
