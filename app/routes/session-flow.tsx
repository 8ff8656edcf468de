import { useState } from 'react'
import { Link, data, useNavigation } from 'react-router'
import { longDay } from '#core/calendar/say-day'
import { type EntryFlow, type FlowEntry, flowAdvice, simulateFlow } from '#core/plan/flow'
import { may } from '#server/access/roles'
import { MOST_LANES, readFlow, saveLanes } from '#server/sheet/read-flow'
import { readSheet } from '#server/sheet/read-sheet'
import type { Route } from './+types/session-flow'
import { allowed, notFound } from '../request-guard'
import { usePlanSearch } from '../ui/use-plan-search'
import { PostForm } from '../ui/post-form'
import { readNumber } from '#core/measure/read-number'
import { useLocal } from '../ui/local'
import { formOf } from '../intents'

export const meta: Route.MetaFunction = () => [{ title: 'Flow · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const sheet = await readSheet(scope, params.sessionId)
	if (!sheet) throw notFound()
	return {
		session: sheet.session,
		entries: await readFlow(scope, sheet),
		names: Object.fromEntries(sheet.athletes.map(({ id, name }) => [id, name])),
		most: MOST_LANES,
		mayPlan: may(who.role, 'plan:write') && sheet.session.startedAt === null,
	}
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const form = await formOf(request)
	const choices = Object.fromEntries(
		form
			.getAll('entry')
			.map((id) => [
				String(id),
				{ lanes: Number(form.get(`lanes-${String(id)}`)), together: Number(form.get(`together-${String(id)}`)) },
			]),
	)
	const saved = await saveLanes(who, params.sessionId, choices, new Date())
	if (!saved) throw notFound()
	return data(saved, { status: 'problem' in saved ? 400 : 200 })
}

const clock = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.round(seconds % 60)).padStart(2, '0')}`
const SMALL = 'num grid size-[44px] place-content-center border border-ink-2 text-[20px] disabled:opacity-40'

/** How the group goes through the session: minutes, the rest everybody really gets, and what would help. */
export default function SessionFlow({ loaderData, actionData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { session, names, most, mayPlan } = loaderData
	const [entries, setEntries] = useState<FlowEntry[]>(loaderData.entries)
	const [minutes, setMinutes] = useState(String(session.plannedMinutes))
	const [maxLanes, setMaxLanes] = useState('3')
	const { share, found, search, cancel } = usePlanSearch()
	const busy = useNavigation().state !== 'idle'
	const flow = simulateFlow(entries)
	const over = Math.round(flow.minutes) - session.plannedMinutes
	const changed = entries.some(
		(entry, index) =>
			entry.lanes !== loaderData.entries[index]?.lanes || entry.together !== loaderData.entries[index]?.together,
	)
	const change = (id: string, to: Partial<FlowEntry>) =>
		setEntries(entries.map((entry) => (entry.id === id ? { ...entry, ...to } : entry)))
	const longest = Math.max(1, ...flow.entries.map((one) => one.minutes))
	return (
		<>
			<header className="mb-5 flex flex-wrap items-end justify-between gap-3">
				<div>
					<p className="dim">
						{longDay(session.day)} · {time(session.startTime)} · {session.squadName}
					</p>
					<h1 className="mt-1">
						{Math.round(flow.minutes)} of {session.plannedMinutes} minutes
					</h1>
					<p className={over > 0 ? 'mt-1 font-bold' : 'dim mt-1'}>
						{over > 0
							? `${over} too many for the group as it stands.`
							: over < 0
								? `${-over} to spare.`
								: 'Just right.'}{' '}
						Everybody rests at least what each drill asks.
					</p>
				</div>
				<div className="flex gap-2">
					<Link className="btn btn-quiet" to={`/sessions/${session.id}`}>
						Sheet
					</Link>
					{mayPlan && (
						<PostForm>
							{entries.map((entry) => (
								<span key={entry.id}>
									<input type="hidden" name="entry" value={entry.id} />
									<input type="hidden" name={`lanes-${entry.id}`} value={entry.lanes} />
									<input type="hidden" name={`together-${entry.id}`} value={entry.together} />
								</span>
							))}
							<button className="btn" disabled={!changed || busy}>
								{changed ? 'Keep these lanes' : 'Kept'}
							</button>
						</PostForm>
					)}
				</div>
			</header>
			{actionData && 'problem' in actionData && (
				<p className="problem mb-3" role="alert">
					{actionData.problem}
				</p>
			)}

			<ol>
				{entries.map((entry, index) => (
					<EntryRow
						key={entry.id}
						entry={entry}
						flow={flow.entries[index]!}
						longest={longest}
						most={most}
						names={names}
						mayPlan={mayPlan}
						onChange={(to) => change(entry.id, to)}
					/>
				))}
			</ol>

			<section className="rule mt-8 pt-4" aria-label="What if">
				<h2>What if</h2>
				<p className="dim mt-1">
					Lanes, pairs and order of the four slowest drills, every combination; the plans that fit with the fewest
					changes.
				</p>
				<form
					className="mt-3 flex flex-wrap items-end gap-4"
					onSubmit={(event) => {
						event.preventDefault()
						search(entries, {
							maxLanes: Math.min(most, Math.max(1, Math.round(Number(maxLanes)) || 1)),
							minutes: readNumber(minutes) || session.plannedMinutes,
						})
					}}
				>
					<div className="field w-[130px]">
						<label htmlFor="fit">Fit into, minutes</label>
						<input
							id="fit"
							className="input"
							inputMode="numeric"
							value={minutes}
							onChange={(event) => setMinutes(event.target.value)}
						/>
					</div>
					<div className="field w-[130px]">
						<label htmlFor="most">Room for lanes</label>
						<input
							id="most"
							className="input"
							inputMode="numeric"
							value={maxLanes}
							onChange={(event) => setMaxLanes(event.target.value)}
						/>
					</div>
					{share === null ? (
						<button className="btn">Look for plans</button>
					) : (
						<>
							<progress className="h-[44px]" value={share} aria-label="Plans looked at" />
							<button type="button" className="btn btn-quiet" onClick={cancel}>
								Cancel
							</button>
						</>
					)}
				</form>
				{found && (
					<>
						<p className="dim mt-4" role="status">
							{found.looked.toLocaleString('en')} plans looked at.
						</p>
						<ul className="mt-1">
							{found.plans.map((plan, index) => {
								const differs = entries.filter(
									(entry) =>
										plan.choices[entry.id] &&
										(plan.choices[entry.id]!.lanes !== entry.lanes ||
											plan.choices[entry.id]!.together !== entry.together),
								)
								const words = [
									...differs.map(
										(entry) =>
											`${entry.name}: ${plan.choices[entry.id]!.lanes} ${plan.choices[entry.id]!.lanes === 1 ? 'lane' : 'lanes'}${plan.choices[entry.id]!.together === 2 ? ', in pairs' : ''}`,
									),
									...(plan.order === 'longest-first' ? ['whoever has most to do first'] : []),
								]
								return (
									<li key={index} className="rule flex items-center justify-between gap-4 py-2">
										<span>
											<b className="num">{Math.round(plan.minutes)} min</b>, {Math.round(plan.waitS)} s of waiting.{' '}
											{words.length === 0 ? 'As it stands.' : `${words.join('; ')}.`}
										</span>
										<button
											type="button"
											className="btn btn-quiet"
											onClick={() => setEntries(entries.map((entry) => ({ ...entry, ...plan.choices[entry.id] })))}
										>
											Try it
										</button>
									</li>
								)
							})}
						</ul>
					</>
				)}
			</section>
		</>
	)
}

function EntryRow({
	entry,
	flow,
	longest,
	most,
	names,
	mayPlan,
	onChange,
}: {
	entry: FlowEntry
	flow: EntryFlow
	longest: number
	most: number
	names: Record<string, string>
	mayPlan: boolean
	onChange: (to: Partial<FlowEntry>) => void
}) {
	const rests = flow.rests.filter((rest) => rest.realS !== null)
	const [least, longestRest] = [
		rests.reduce((low, rest) => Math.min(low, rest.realS!), Infinity),
		rests.reduce((high, rest) => Math.max(high, rest.realS!), 0),
	]
	const range = (low: number, high: number) => `${clock(low)}${high - low > 5 ? ` to ${clock(high)}` : ''}`
	const asked = rests.map((rest) => rest.askedS)
	const slowest = rests.length > 1 ? rests.reduce((a, b) => (b.realS! - b.askedS > a.realS! - a.askedS ? b : a)) : null
	const advice = flowAdvice(entry, flow)
	const watched = entry.athletes.filter((athlete) => athlete.watched).length
	return (
		<li className="rule grid items-center gap-x-6 gap-y-2 py-3 lg:grid-cols-[minmax(0,1fr)_200px_330px]">
			<div className="min-w-0">
				<h2 className="truncate">{entry.name}</h2>
				<div
					className="mt-1 h-[10px] border border-ink-2"
					role="img"
					aria-label={`${Math.round(flow.minutes)} minutes, lanes in use ${Math.round(flow.use * 100)} %`}
				>
					<div className="h-full bg-ink" style={{ width: `${(100 * flow.minutes) / longest}%` }} />
				</div>
				<p className="mt-1 text-[14px]">
					<b className="num">{flow.minutes.toFixed(1)} min</b>
					{rests.length > 0 && (
						<>
							{' '}
							· rest {range(least, longestRest)}, asked {range(Math.min(...asked), Math.max(...asked))}
						</>
					)}
					{slowest && slowest.realS! - slowest.askedS > 60 && (
						<span className="dim"> · {names[slowest.athleteId]} waits longest</span>
					)}
				</p>
			</div>
			<p className="dim text-[14px]">
				{entry.atOnce
					? 'Everybody at once.'
					: (advice ?? (watched > 0 ? `The coach watches each turn of ${watched}.` : ''))}
			</p>
			<div className="flex items-center gap-3">
				<div className="flex items-center" role="group" aria-label={`Lanes, ${entry.name}`}>
					<button
						type="button"
						className={SMALL}
						aria-label="A lane fewer"
						disabled={!mayPlan || entry.lanes <= 1 || entry.atOnce}
						onClick={() => onChange({ lanes: entry.lanes - 1 })}
					>
						−
					</button>
					<span className="num w-[76px] text-center text-[15px]">
						{entry.atOnce ? '–' : `${entry.lanes} ${entry.lanes === 1 ? 'lane' : 'lanes'}`}
					</span>
					<button
						type="button"
						className={SMALL}
						aria-label="A lane more"
						disabled={!mayPlan || entry.lanes >= most || entry.atOnce}
						onClick={() => onChange({ lanes: entry.lanes + 1 })}
					>
						+
					</button>
				</div>
				<button
					type="button"
					className="num min-h-[44px] border border-ink-2 px-3 text-[14px] aria-pressed:bg-ink aria-pressed:text-paper disabled:opacity-40"
					aria-pressed={entry.together === 2}
					disabled={!mayPlan || entry.atOnce}
					onClick={() => onChange({ together: entry.together === 2 ? 1 : 2 })}
				>
					in pairs
				</button>
			</div>
		</li>
	)
}
