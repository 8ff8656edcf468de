import { Link, data } from 'react-router'
import { sayFirmness } from '#core/words/say-firmness'
import { longDay, shortDay } from '#core/calendar/say-day'
import { SESSION_RANGES } from '#core/dose/level-ranges'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import type { Missing } from '#server/sheet/read-today'
import { readTodayPage } from '#server/sheet/read-today-page'
import { freshenLines } from '#server/sheet/rewrite-upcoming'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/today'
import { allowed } from '../request-guard'
import { report } from '#server/care/report'
import { BodyBand } from '../ui/body-band'
import { ChangeList } from '../ui/change-list'
import { ReportForm } from '../ui/report-form'
import { actOn } from '../intents'
import { pack, usePacked } from '../packed'
import { readReport } from '../read-report'
import { DoseRuler } from '../field/dose-ruler'
import { SessionStrip } from '../ui/session-strip'
import { useLocal } from '../ui/local'
import { useUnits } from '../field/units'
import { WhatIs } from '../ui/what-is'

export const meta: Route.MetaFunction = () => [{ title: 'Today · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const shown = mayBeLate(scope)
	const today = todayAt(who.timeZone)
	await freshenLines(who.clubId, todayAt(who.timeZone), new Date())
	const page = await readTodayPage(shown, today, who)
	return {
		today,
		page: pack(page),
		mayField: may(who.role, 'marks:write') || may(who.role, 'marks:write-today'),
		mayPlan: may(who.role, 'plan:write'),
		behind: isBehind(shown),
	}
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'pain:write')
	return actOn(request, {
		report: async (sent) => {
			const done = await report(who, sent.text('athlete'), readReport(sent), new Date())
			if (!done) return data({ problem: 'Pick who it is about.', said: 0 }, { status: 400 })
			return 'problems' in done
				? data({ problem: Object.values(done.problems)[0] ?? '', said: 0 }, { status: 400 })
				: data({ problem: null, said: Date.now() })
		},
	})
}

/** What comes first in a club where nothing is planned: one step, and the way there. */
function NextStep({ missing }: { missing: Missing | 'the coach' | null }) {
	if (missing === 'the coach') return <p className="mt-3">The coach has not planned one yet.</p>
	const [words, to, press] =
		missing === 'a squad'
			? ['It begins with a squad: its name, and the days it trains.', '/squads', 'Make a squad']
			: missing && typeof missing === 'object'
				? [
						`${missing.name} has nobody in it yet. Bring everybody at once, from a spreadsheet or typed.`,
						`/squads/${missing.id}/list`,
						'Bring a list',
					]
				: ['Make one: pick the day, who comes and what you do.', '/sessions/new', 'Make a session']
	return (
		<>
			<p className="mt-3">{words}</p>
			<p className="mt-4">
				<Link className="btn" to={to}>
					{press}
				</Link>
			</p>
		</>
	)
}

export default function Today({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
	const { time } = useLocal()
	const { today, mayField, mayPlan } = loaderData
	const {
		bodies,
		session,
		strip,
		attending,
		changes,
		changedPeople,
		cautions,
		dose,
		week,
		waiting,
		athletes,
		missing,
	} = usePacked(loaderData.page)
	const reporting = <Reporting athletes={athletes} problem={actionData?.problem ?? null} said={actionData?.said ?? 0} />
	if (!session) {
		return (
			<>
				<p className="dim">{longDay(today)}</p>
				<h1 className="mt-1">No session in the next eight days</h1>
				<BodyBand bodies={bodies} />
				{reporting}
				<NextStep missing={mayPlan ? missing : 'the coach'} />
			</>
		)
	}
	const isToday = session.day === today
	const ranges = SESSION_RANGES[dose?.level ?? 2]
	return (
		<>
			<header className="mb-5 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
				<div className="min-w-0">
					<p className="dim">
						{longDay(session.day)} · {time(session.startTime)}
						{session.place && ` · ${session.place}`}
					</p>
					<h1 className="mt-1">
						{isToday ? '' : 'Next: '}
						{session.squadName}, {session.title.charAt(0).toLowerCase() + session.title.slice(1)}
					</h1>
				</div>
				<div className="flex flex-wrap gap-2">
					<Link className="btn btn-quiet" to={`/sessions/${session.id}`}>
						Sheet
					</Link>
					{mayField &&
						(session.startedAt && session.reviewedAt === null && session.day < today ? null : (
							<a className="btn" href={`/field?session=${session.id}`}>
								Go to the field
							</a>
						))}
				</div>
			</header>
			<SessionStrip parts={strip} />
			<BodyBand bodies={bodies} />
			{reporting}
			<div className="mt-6 grid gap-x-10 gap-y-8 lg:grid-cols-[1fr_320px]">
				<section>
					<h2>
						What changes, and for whom{' '}
						<span className="dim font-normal">
							— {changes.length === 0 ? `nobody of ${attending}` : `${changedPeople} of ${attending}`}; the rest repeat
							their last line
						</span>
					</h2>
					<div className="mt-2">
						{changes.length === 0 ? (
							<p className="rule dim py-2.5">Every line is the one they had last time.</p>
						) : (
							<ChangeList changes={changes} />
						)}
					</div>
					{cautions.length > 0 && (
						<p className="mt-4 border-l-[3px] border-ink py-0.5 pl-3">
							Depth jumps: {cautions.join('. ')}. Local rules and each athlete’s clinician come first.
						</p>
					)}
				</section>
				<aside className="grid content-start gap-7">
					{waiting.length > 0 && (
						<section>
							<h2>Waiting for you</h2>
							<ul className="mt-2">
								{waiting.map(({ session: past, words }) => (
									<li key={past.id} className="rule flex items-center justify-between gap-3 py-2.5">
										<span>
											{past.squadName}, {shortDay(past.day)}: {asRead(words)}
										</span>
										<Link className="btn btn-quiet" to={`/sessions/${past.id}/review`}>
											Review
										</Link>
									</li>
								))}
							</ul>
						</section>
					)}
					{dose && (
						<section>
							<h2>
								Planned dose, level {dose.level} <span className="dim font-normal">mean</span> <WhatIs term="range" />
							</h2>
							<DoseRuler
								label="Contacts, moderate and up"
								unit="contacts"
								value={dose.contacts}
								low={ranges.contacts.low}
								high={ranges.contacts.high}
							/>
							<DoseRuler
								label="Metres at 95 % and over"
								unit="m"
								value={dose.metres}
								low={ranges.fastMetres.low}
								high={ranges.fastMetres.high}
							/>
							<DoseRuler
								label="Cuts of 60° and more"
								unit="cuts"
								value={dose.cuts}
								low={ranges.cuts60.low}
								high={ranges.cuts60.high}
							/>
							<p className="dim mt-1 text-[13.5px]">
								Brackets: usual range for the level; contacts {sayFirmness(ranges.contacts.firmness)}, metres and cuts{' '}
								{sayFirmness(ranges.fastMetres.firmness)}.
							</p>
						</section>
					)}
					<section>
						<h2>The days ahead</h2>
						<ul className="mt-2">
							{week.map((ahead) => (
								<li key={ahead.id} className="rule flex items-baseline justify-between gap-3">
									<Link
										className="min-h-[36px] max-lg:min-h-[44px] py-1.5 hover:underline"
										to={`/sessions/${ahead.id}`}
									>
										{ahead.day === today ? 'Today' : shortDay(ahead.day)}, {time(ahead.startTime)}
									</Link>
									<span className="dim">{ahead.squadName}</span>
								</li>
							))}
						</ul>
						{mayPlan && (
							<p className="rule pt-2.5">
								<Link className="link" to="/sessions/new">
									Make another session
								</Link>
							</p>
						)}
					</section>
				</aside>
			</div>
		</>
	)
}

/** What somebody says of their body away from the field, in one tap more. */
function Reporting({
	athletes,
	problem,
	said,
}: {
	athletes: { id: string; name: string }[]
	problem: string | null
	said: number
}) {
	if (athletes.length === 0) return null
	return (
		<details className="mt-3" open={problem !== null} key={said}>
			<summary className="link inline-flex min-h-[44px] items-center">Somebody reports pain or illness</summary>
			<ReportForm athletes={athletes} problem={problem ?? undefined} />
		</details>
	)
}
