import { isAway } from '#core/calendar/away'
import { isDay } from '#core/calendar/day-count'
import { data, redirect } from 'react-router'
import { createSession } from '#server/sheet/save-session'
import { readCopy, readFormChoices } from '#server/sheet/read-form-choices'
import { todayAt } from '#server/clock'
import type { Route } from './+types/session-new'
import { allowed, notFound } from '../request-guard'
import { SessionForm } from '../builder/session-form'
import { readSentSession } from '../builder/read-sent-session'

export const meta: Route.MetaFunction = () => [{ title: 'New session · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:write')
	const { searchParams } = new URL(request.url)
	const [asked, copy] = [searchParams.get('day') ?? '', searchParams.get('copy') ?? '']
	const today = todayAt(who.timeZone)
	const copied = /^[0-9a-f-]{36}$/.test(copy) ? await readCopy(scope, copy, today) : null
	if (copy !== '' && !copied) throw notFound()
	return {
		copied,
		day: isDay(asked) && asked >= today ? asked : today,
		choices: await readFormChoices(scope),
	}
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const sent = await readSentSession(request)
	if ('problems' in sent) return data(sent, { status: 400 })
	const saved = await createSession(who.clubId, who.timeZone, sent.draft, new Date())
	return 'problems' in saved
		? data({ problems: saved.problems }, { status: 400 })
		: redirect(`/sessions/${saved.sessionId}`)
}

export default function SessionNew({ loaderData, actionData }: Route.ComponentProps) {
	const { day, choices, copied } = loaderData
	const [only] = choices.squads.length === 1 ? choices.squads : []
	return (
		<>
			<h1 className="mb-5">{copied ? `${copied.title}, once more` : 'A session from nothing'}</h1>
			<SessionForm
				{...choices}
				initial={
					copied ?? {
						squadId: only?.id ?? '',
						day,
						startTime: only?.startTime ?? '17:30',
						title: '',
						place: only?.place ?? '',
						surface: null,
						plannedMinutes: 75,
						role: 'hard',
						share: 1,
						athleteIds: only
							? choices.athletes.filter((athlete) => !isAway(athlete.away, day)).map((athlete) => athlete.id)
							: [],
						entries: [],
					}
				}
				problems={actionData?.problems}
				submitLabel="Save the session"
			/>
		</>
	)
}
