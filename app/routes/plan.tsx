import { Link } from 'react-router'
import { addDays, mondayOf, shortDay } from '#core/calendar/days'
import { sessionsBetween } from '#db/queries/sessions'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import type { Route } from './+types/plan'
import { allowed } from '../request-guard'

export const meta: Route.MetaFunction = () => [{ title: 'Plan · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const today = todayAt(who.timeZone)
	const first = addDays(mondayOf(today), -21)
	const sessions = await sessionsBetween(scope, first, addDays(first, 41))
	const weeks = Array.from({ length: 6 }, (_, week) => Array.from({ length: 7 }, (_, day) => addDays(first, week * 7 + day)))
	return { today, weeks, sessions, mayPlan: may(who.role, 'plan:write') }
}

/** Six weeks: three behind, this one, two ahead. */
export default function Plan({ loaderData }: Route.ComponentProps) {
	const { today, weeks, sessions, mayPlan } = loaderData
	return (
		<>
			<header className="mb-5 flex flex-wrap items-end justify-between gap-3">
				<div><p className="dim">{shortDay(weeks[0]![0]!)} to {shortDay(weeks.at(-1)!.at(-1)!)}</p><h1 className="mt-1">Sessions, week by week</h1></div>
				{mayPlan && <Link className="btn" to="/sessions/new">Make a session</Link>}
			</header>
			{weeks.map((days) => (
				<section key={days[0]} className={`mb-4 ${days.at(-1)! < today ? 'hidden sm:block' : ''}`} aria-label={`Week of ${shortDay(days[0]!)}`}>
					<ol className="grid gap-px border-t border-chalk sm:grid-cols-7">
						{days.map((day) => {
							const own = sessions.filter((session) => session.day === day)
							return (
								<li key={day} className={`min-w-0 py-1.5 sm:min-h-[92px] sm:px-2 ${own.length === 0 && day !== today ? 'hidden sm:block' : ''} ${day === today ? 'border-t-[3px] border-ink sm:-mt-px' : ''}`}>
									<p className={`text-[13px] ${day === today ? 'font-bold' : 'dim'}`}>{day === today ? 'Today' : shortDay(day)}</p>
									{own.map((session) => (
										<Link key={session.id} to={session.startedAt && !session.reviewedAt ? `/sessions/${session.id}/review` : `/sessions/${session.id}`} className="mt-1 block min-h-[36px] text-[14px] leading-snug hover:underline">
											<b>{session.squadName}</b> <span className="num">{session.startTime}</span>
											<span className="dim block truncate">{session.reviewedAt ? 'reviewed' : session.startedAt ? 'waits for review' : session.title}</span>
										</Link>
									))}
								</li>
							)
						})}
					</ol>
				</section>
			))}
		</>
	)
}
