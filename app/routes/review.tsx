import { Link } from 'react-router'
import { longDay } from '#core/calendar/say-day'
import { listToReview } from '#server/review/read-review'
import type { Route } from './+types/review'
import { allowed } from '../request-guard'
import { useLocal } from '../ui/local'

export const meta: Route.MetaFunction = () => [{ title: 'Review · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { scope } = allowed(context, request, 'verdict:read')
	return { sessions: await listToReview(scope) }
}

export default function Review({ loaderData: { sessions } }: Route.ComponentProps) {
	const { time } = useLocal()
	return (
		<>
			<h1>
				{sessions.length === 0
					? 'Nothing waits for a verdict'
					: sessions.length === 1
						? 'One session waits for verdicts'
						: `${sessions.length} sessions wait for verdicts`}
			</h1>
			{sessions.length === 0 && (
				<p className="mt-3">
					Log a session on the field; its verdicts appear here.{' '}
					<Link className="link" to="/">
						To Today
					</Link>
				</p>
			)}
			<ul className="mt-5 max-w-[760px]">
				{sessions.map((session) => (
					<li key={session.id} className="rule flex items-center justify-between gap-4 py-3">
						<span>
							<b>{session.squadName}</b>, {longDay(session.day)}, {time(session.startTime)}
							<span className="dim block">{session.title}</span>
						</span>
						<Link className="btn" to={`/sessions/${session.id}/review`}>
							Review
						</Link>
					</li>
				))}
			</ul>
		</>
	)
}
