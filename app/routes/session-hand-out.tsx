import { Link } from 'react-router'
import { longDay } from '#core/calendar/say-day'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { readHandOut } from '#server/record/read-hand-out'
import type { Route } from './+types/session-hand-out'
import { notFound, signedIn } from '../request-guard'
import { useUnits } from '../field/units'
import { useLocal } from '../ui/local'

export const meta: Route.MetaFunction = () => [{ title: 'Session · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who } = signedIn(context, request)
	// Somebody else's page looks to an athlete like one that does not exist.
	if (who.athleteId !== params.athleteId && !may(who.role, 'plan:read')) throw notFound()
	const handOut = await readHandOut(who, params.sessionId, params.athleteId, todayAt(who.timeZone))
	if (!handOut) throw notFound()
	return {
		...handOut,
		athleteId: params.athleteId,
		sessionId: params.sessionId,
		mayOpen: may(who.role, 'marks:read'),
	}
}

/** One session for one athlete, on a page to read or to hand on. */
export default function SessionHandOut({ loaderData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { asRead } = useUnits()
	const { name, squadName, day, title, lines, notes, next, athleteId, sessionId, mayOpen } = loaderData
	return (
		<div className="card-page max-w-[68ch]">
			<p className="dim">
				{squadName} · {longDay(day)} · {title}
			</p>
			<div className="flex flex-wrap items-end justify-between gap-3">
				<h1 className="mt-1">{name}</h1>
				<button type="button" className="btn btn-quiet print:hidden" onClick={() => window.print()}>
					Print
				</button>
			</div>
			{lines.length === 0 ? (
				<p className="rule mt-4 py-2">Nothing was on your sheet that day.</p>
			) : (
				<ul className="mt-4">
					{lines.map((line, index) => (
						<li key={index} className="rule py-2.5">
							<b>{asRead(line.what)}</b>
							<span className="block">{asRead(line.words)}</span>
						</li>
					))}
				</ul>
			)}
			{notes.map((note) => (
				<p key={note} className="rule py-2.5">
					“{note}”
				</p>
			))}
			<section className="mt-6">
				<h2>Next</h2>
				{next ? (
					<>
						<p className="mt-1">
							{longDay(next.day)}, {time(next.startTime)}
						</p>
						<ul className="mt-1">
							{next.lines.map((line, index) => (
								<li key={index} className="rule py-1.5">
									{asRead(line)}
								</li>
							))}
						</ul>
					</>
				) : (
					<p className="mt-1">No session is planned yet.</p>
				)}
			</section>
			<p className="mt-5 print:hidden">
				<Link className="link" to={`/athletes/${athleteId}`}>
					To the athlete’s page
				</Link>
				{mayOpen && (
					<>
						{' · '}
						<Link className="link" to={`/sessions/${sessionId}/done`}>
							What everybody did
						</Link>
					</>
				)}
			</p>
		</div>
	)
}
