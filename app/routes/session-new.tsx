import { data, redirect } from 'react-router'
import { createSession } from '#server/sheet/save-session'
import { readFormChoices } from '#server/sheet/read-form-choices'
import { todayAt } from '#server/clock'
import type { Route } from './+types/session-new'
import { allowed } from '../request-guard'
import { SessionForm } from '../builder/session-form'
import { draftOf, readSessionText } from '../builder/session-text'

export const meta: Route.MetaFunction = () => [{ title: 'New session · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:write')
	const asked = new URL(request.url).searchParams.get('day') ?? ''
	const today = todayAt(who.timeZone)
	return {
		day: /^\d{4}-\d{2}-\d{2}$/.test(asked) && asked >= today ? asked : today,
		choices: await readFormChoices(scope),
	}
}

export async function action({ context, request }: Route.ActionArgs) {
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
	const saved = await createSession(who.clubId, who.timeZone, draftOf(typed), new Date())
	return 'problems' in saved
		? data({ problems: saved.problems }, { status: 400 })
		: redirect(`/sessions/${saved.sessionId}`)
}

export default function SessionNew({ loaderData, actionData }: Route.ComponentProps) {
	const { day, choices } = loaderData
	const [only] = choices.squads.length === 1 ? choices.squads : []
	return (
		<>
			<h1 className="mb-5">A session from nothing</h1>
			<SessionForm
				{...choices}
				initial={{
					squadId: only?.id ?? '',
					day,
					startTime: only?.startTime ?? '17:30',
					title: '',
					place: only?.place ?? '',
					surface: '',
					plannedMinutes: '75',
					role: 'hard',
					share: 1,
					athleteIds: only ? choices.athletes.map((athlete) => athlete.id) : [],
					entries: [],
				}}
				problems={actionData?.problems}
				submitLabel="Save the session"
			/>
		</>
	)
}
