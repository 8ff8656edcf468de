import { useState } from 'react'
import { Link, data, redirect, useFetcher } from 'react-router'
import { addDays, mondayOf, isDay } from '#core/calendar/day-count'
import { WEEKDAYS, shortDay } from '#core/calendar/say-day'
import { LEVELS, type Level, PHASES, type Phase, QUALITIES, type Quality } from '#core/vocabulary/words'
import {
	BLOCK_WEEKS,
	type BlockPlan,
	EMPHASES,
	type Emphasis,
	blockSessions,
	defaultPhases,
	defaultShape,
} from '#core/plan/block'
import { type Themes, themeOn } from '#core/plan/themes'
import { QUALITY_NAMES, targetOf } from '#core/plan/targets'
import { QUANTITIES, type Quantity, QUALITY_OF } from '#core/vocabulary/entry'
import { todayAt } from '#server/clock'
import { makeBlock, readBlockPlan } from '#server/plan/make-block'
import { readBlockForm } from '#server/plan/read-block-form'
import { useSubmission } from '../ui/post-form'
import type { Route } from './+types/plan-block'
import { allowed, notFound } from '../request-guard'
import { ClockInput, DayInput } from '../ui/day-input'
import { readTimeOfDay } from '#core/calendar/time-of-day'
import { formOf } from '../intents'

export const meta: Route.MetaFunction = () => [{ title: 'Plan a block · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:write')
	const copy = new URL(request.url).searchParams.get('copy')
	return readBlockForm(scope, copy && /^[0-9a-f-]{36}$/.test(copy) ? copy : null, todayAt(who.timeZone))
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const form = await formOf(request)
	let value: unknown
	try {
		value = JSON.parse(String(form.get('plan') ?? ''))
	} catch {
		return data({ problem: 'The form did not arrive whole; nothing was made. Send it again.' }, { status: 400 })
	}
	const read = readBlockPlan(value)
	if ('problem' in read) return data({ problem: read.problem }, { status: 400 })
	const made = await makeBlock(who, String(form.get('squadId') ?? ''), read.plan, todayAt(who.timeZone), new Date())
	if (!made) throw notFound()
	if ('problem' in made) return data({ problem: made.problem }, { status: 400 })
	throw redirect(`/plan?from=${addDays(read.plan.start, -7)}`)
}

/** From an emphasis to weeks of sessions: what each week asks, before anything is made. */
export default function PlanBlock({ loaderData }: Route.ComponentProps) {
	const { squads, monday, themes, copied } = loaderData
	const sender = useFetcher<typeof action>()
	const submission = useSubmission(sender.state)
	const [squadId, setSquadId] = useState(copied?.squadId ?? squads[0]?.id ?? '')
	const squad = squads.find((one) => one.id === squadId)
	const daysOf = (id: string): BlockPlan['days'] => {
		const one = squads.find((other) => other.id === id)
		return (one && one.trainingDays.length > 0 ? one.trainingDays : [2, 4]).map((weekday) => ({
			weekday,
			startTime: one?.startTime ?? '17:30',
			minutes: 90,
		}))
	}
	const [plan, setPlan] = useState<BlockPlan>(() =>
		copied
			? { ...copied.plan, start: monday }
			: {
					start: monday,
					phases: defaultPhases(5, 'accumulate'),
					shape: defaultShape(5),
					days: daysOf(squadId),
					priority: null,
					kept: [],
					testDay: false,
					content: 'proposed',
					themed: true,
				},
	)
	const [emphasis, setEmphasis] = useState<Emphasis>('accumulate')
	const weeks = plan.phases.length
	const reshape = (count: number, to: Emphasis) =>
		setPlan({ ...plan, phases: defaultPhases(count, to), shape: defaultShape(count) })
	let problem = sender.data && 'problem' in sender.data ? sender.data.problem : null
	let sessions: ReturnType<typeof blockSessions> = []
	try {
		sessions = blockSessions(plan, themes, squad?.spacingMetH)
	} catch (error) {
		problem = error instanceof RangeError ? error.message : 'This cannot be planned.'
	}
	const busy = sender.state !== 'idle'
	if (squads.length === 0)
		return (
			<>
				<h1>Plan a block</h1>
				<p className="mt-3">
					Make a squad first.{' '}
					<Link className="link" to="/squads">
						To the squads
					</Link>
				</p>
			</>
		)
	return (
		<>
			<p className="dim">
				<Link className="link" to="/plan">
					Plan
				</Link>
			</p>
			<h1 className="mt-1">
				{sessions.length} sessions in {weeks} weeks
			</h1>
			<p className="dim mt-1 max-w-[640px]">
				{plan.content === 'proposed'
					? 'Each session from its targets'
					: 'The parts of the squad’s last session, week by week at its share'}
				; each athlete’s own line as it stands on the day. Days that have a session already are left as they are.
			</p>
			<div className="mt-5 grid max-w-[900px] gap-4 sm:grid-cols-4">
				<div className="field">
					<label htmlFor="squad">Squad</label>
					<select
						id="squad"
						className="input"
						value={squadId}
						onChange={(event) => {
							setSquadId(event.target.value)
							setPlan({ ...plan, days: daysOf(event.target.value) })
						}}
					>
						{squads.map((one) => (
							<option key={one.id} value={one.id}>
								{one.name}
							</option>
						))}
					</select>
				</div>
				<div className="field">
					<label htmlFor="start">First Monday</label>
					<DayInput
						id="start"
						value={plan.start}
						onValue={(day) => isDay(day) && setPlan({ ...plan, start: mondayOf(day) })}
					/>
				</div>
				<div className="field">
					<label htmlFor="weeks">Weeks</label>
					<select
						id="weeks"
						className="input"
						value={weeks}
						onChange={(event) => reshape(Number(event.target.value), emphasis)}
					>
						{Array.from(
							{ length: BLOCK_WEEKS.most - BLOCK_WEEKS.least + 1 },
							(_, index) => BLOCK_WEEKS.least + index,
						).map((count) => (
							<option key={count} value={count}>
								{count}
							</option>
						))}
					</select>
				</div>
				<div className="field">
					<label htmlFor="emphasis">Emphasis</label>
					<select
						id="emphasis"
						className="input"
						value={emphasis}
						onChange={(event) => {
							setEmphasis(event.target.value as Emphasis)
							reshape(weeks, event.target.value as Emphasis)
						}}
					>
						{EMPHASES.map((one) => (
							<option key={one}>{one}</option>
						))}
					</select>
				</div>
			</div>
			<div className="mt-4 grid max-w-[900px] gap-4 sm:grid-cols-4">
				<label className="field">
					<span className="label">Priority</span>
					<select
						className="input"
						value={plan.priority ?? ''}
						onChange={(event) => {
							const priority = (event.target.value || null) as Quality | null
							setPlan({ ...plan, priority, kept: plan.kept.filter((quality) => quality !== priority) })
						}}
					>
						<option value="">none</option>
						{QUALITIES.map((quality) => (
							<option key={quality} value={quality}>
								{QUALITY_NAMES[quality]}
							</option>
						))}
					</select>
				</label>
				<fieldset className="sm:col-span-2">
					<legend className="label">Only kept: two thirds</legend>
					<div className="mt-1 flex flex-wrap gap-2">
						{QUALITIES.filter((quality) => quality !== plan.priority).map((quality) => (
							<button
								key={quality}
								type="button"
								className={TOGGLE}
								aria-pressed={plan.kept.includes(quality)}
								onClick={() =>
									setPlan({
										...plan,
										kept: plan.kept.includes(quality)
											? plan.kept.filter((one) => one !== quality)
											: [...plan.kept, quality],
									})
								}
							>
								{QUALITY_NAMES[quality]}
							</button>
						))}
					</div>
				</fieldset>
				<label className="field">
					<span className="label">Hard sessions</span>
					<select
						className="input"
						value={plan.content}
						onChange={(event) => setPlan({ ...plan, content: event.target.value as BlockPlan['content'] })}
					>
						<option value="proposed">from the targets</option>
						<option value="copied">as the last session</option>
					</select>
				</label>
			</div>
			<fieldset className="mt-5">
				<legend className="label">Training days of {squad?.name}</legend>
				<div className="mt-1 flex flex-wrap items-start gap-2">
					{WEEKDAYS.map((name, index) => (
						<DayColumn
							key={name}
							name={name}
							weekday={index + 1}
							days={plan.days}
							roles={rolesOf(sessions, index + 1)}
							usualTime={squad?.startTime ?? '17:30'}
							onChange={(days) => setPlan({ ...plan, days })}
						/>
					))}
				</div>
				<label className="mt-3 flex min-h-[44px] items-center gap-2.5">
					<input
						type="checkbox"
						className="size-5 accent-act"
						checked={plan.testDay}
						onChange={(event) => setPlan({ ...plan, testDay: event.target.checked })}
					/>
					Tests on the last hard day of the unloading week
					{squad?.battery && `: “${squad.battery}”`}
				</label>
				{plan.content === 'proposed' && (
					<label className="flex min-h-[44px] items-center gap-2.5">
						<input
							type="checkbox"
							className="size-5 accent-act"
							checked={plan.themed}
							onChange={(event) => setPlan({ ...plan, themed: event.target.checked })}
						/>
						Every hard day has a theme: what the block drives on first (sprinting, where nothing stands out), the others
						by turns
					</label>
				)}
			</fieldset>
			<div className="mt-6 overflow-x-auto">
				<table className="w-full max-w-[1100px] border-collapse text-[14px]">
					<caption className="sr-only">Weeks, and what each asks of an athlete by level</caption>
					<thead>
						<tr className="dim text-left text-[13px]">
							<th className="font-normal" scope="col">
								Week
							</th>
							<th className="font-normal" scope="col">
								Load
							</th>
							<th className="font-normal" scope="col">
								Emphasis
							</th>
							{QUANTITIES.map((quantity) => (
								<th key={quantity} scope="col" className="pl-3 text-right font-normal">
									{HEADS[quantity]}
								</th>
							))}
						</tr>
					</thead>
					<tbody>
						{plan.phases.map((phase, week) => (
							<tr key={week} className="rule">
								<th scope="row" className="w-[150px] py-1.5 text-left font-normal">
									<b className="num">Week {week + 1}</b>
									<span className="dim block text-[13px]">{shortDay(addDays(plan.start, week * 7))}</span>
									{sessions
										.filter((session) => session.week === week + 1 && session.theme !== null)
										.map((session) => (
											<span key={session.day} className="block text-[13px]">
												{shortDay(session.day).slice(0, 3)} {themes[session.theme!]?.name.toLowerCase()}
											</span>
										))}
								</th>
								<td className="w-[190px] pr-3">
									<span className="flex items-center gap-1">
										<span className="h-[12px] flex-1 border border-ink-2" aria-hidden="true">
											<span
												className={`block h-full ${phase === 'unloading' ? 'bg-chalk' : 'bg-ink'}`}
												style={{ width: `${(100 * plan.shape[week]!) / Math.max(...plan.shape)}%` }}
											/>
										</span>
										<input
											aria-label={`Load of week ${week + 1}, percent`}
											inputMode="numeric"
											className="input w-[62px]! px-2!"
											value={plan.shape[week] || ''}
											onChange={(event) =>
												setPlan({
													...plan,
													shape: plan.shape.map((load, index) =>
														index === week ? Number(event.target.value.replace(/\D/g, '')) : load,
													),
												})
											}
										/>
										%
									</span>
								</td>
								<td className="w-[150px]">
									<select
										aria-label={`Emphasis of week ${week + 1}`}
										className="input"
										value={phase}
										onChange={(event) =>
											setPlan({
												...plan,
												phases: plan.phases.map((one, index) => (index === week ? (event.target.value as Phase) : one)),
											})
										}
									>
										{PHASES.map((one) => (
											<option key={one}>{one}</option>
										))}
									</select>
								</td>
								{QUANTITIES.map((quantity) => (
									<td key={quantity} className="num min-w-[84px] pl-3 text-right">
										{askedIn(sessions, week + 1, quantity, plan, squad?.levels, themes)}
									</td>
								))}
							</tr>
						))}
					</tbody>
				</table>
			</div>
			<p className="dim mt-1 max-w-[760px] text-[14px]">
				A week’s target for one athlete, at each level somebody of the squad has: contacts from moderate up, metres at
				95 % and more, cuts of 60° and more, throws. At level 2 up to 20 of a session’s contacts may be rebounds from a
				box, at level 3 up to 40, when the emphasis opens them.
			</p>
			{problem && (
				<p className="problem mt-3" role="alert">
					{problem}
				</p>
			)}
			<button
				type="button"
				className="btn mt-5"
				disabled={busy || sessions.length === 0}
				onClick={() => void sender.submit({ submission, squadId, plan: JSON.stringify(plan) }, { method: 'post' })}
			>
				{busy ? 'Writing everybody’s lines …' : `Make ${sessions.length} sessions`}
			</button>
		</>
	)
}

const TOGGLE = 'num min-h-[44px] border border-ink-2 px-3 aria-pressed:bg-ink aria-pressed:text-paper'
const HEADS: Record<Quantity, string> = {
	fastMetres: 'Fast metres',
	contacts: 'Contacts',
	cuts60: 'Cuts',
	throws: 'Throws',
}
const ROLE_WORDS = { hard: 'hard', light: 'light', tissue: 'tendon work', test: 'tests' } as const

type Sessions = ReturnType<typeof blockSessions>
/** What the sessions of a weekday are for in the first week, in order. */
const rolesOf = (sessions: Sessions, weekday: number) =>
	sessions
		.filter((session) => session.week === 1 && session.weekday === weekday)
		.map((session) => ROLE_WORDS[session.role])

/** "90 · 110 · 130" for the levels somebody has. */
function askedIn(
	sessions: Sessions,
	week: number,
	quantity: Quantity,
	plan: BlockPlan,
	levels: Record<Quality, number[]> | undefined,
	themes: Themes,
): string {
	const there = LEVELS.filter((level) => (levels?.[QUALITY_OF[quantity]][level - 1] ?? 1) > 0)
	const asked = (level: Level) =>
		sessions
			.filter((session) => session.week === week)
			.reduce(
				(sum, { share, phase, role, theme }) =>
					sum +
					targetOf(quantity, level, {
						share,
						phase,
						role,
						theme: themeOn(themes, { theme, role }),
						priority: plan.priority,
						kept: plan.kept,
						surface: null,
					}),
				0,
			)
	return (there.length > 0 ? there : LEVELS).map(asked).join(' · ')
}

/** One weekday: none, one session, or a second one for tendon work. */
function DayColumn({
	name,
	weekday,
	days,
	roles,
	usualTime,
	onChange,
}: {
	name: string
	weekday: number
	days: BlockPlan['days']
	roles: string[]
	usualTime: string
	onChange: (days: BlockPlan['days']) => void
}) {
	const own = days.filter((one) => one.weekday === weekday).sort((a, b) => (a.startTime < b.startTime ? -1 : 1))
	const others = days.filter((one) => one.weekday !== weekday)
	const set = (these: BlockPlan['days']) =>
		onChange([...others, ...these].sort((a, b) => a.weekday - b.weekday || (a.startTime < b.startTime ? -1 : 1)))
	const change = (day: BlockPlan['days'][number], to: Partial<BlockPlan['days'][number]>) =>
		set(own.map((one) => (one === day ? { ...one, ...to } : one)))
	const later = (time: string) =>
		`${String(Math.min(23, Number(time.slice(0, 2)) + 7)).padStart(2, '0')}${time.slice(2)}`
	return (
		<div className="grid gap-1">
			<button
				type="button"
				className={`${TOGGLE} w-[118px]`}
				aria-pressed={own.length > 0}
				onClick={() => set(own.length > 0 ? [] : [{ weekday, startTime: usualTime, minutes: 90 }])}
			>
				{name}
			</button>
			{own.map((day, index) => (
				<div key={index} className="grid gap-1">
					<ClockInput
						aria-label={`Start on ${name}${index > 0 ? ', second session' : ''}`}
						value={day.startTime}
						onValue={(startTime) => readTimeOfDay(startTime) === startTime && change(day, { startTime })}
					/>
					<label className="flex items-center gap-1 text-[13px]">
						<input
							aria-label={`Minutes on ${name}${index > 0 ? ', second session' : ''}`}
							inputMode="numeric"
							className="input w-[70px]!"
							value={day.minutes || ''}
							onChange={(event) => change(day, { minutes: Number(event.target.value.replace(/\D/g, '')) })}
						/>
						min
					</label>
					<span className="dim text-[13px]">{roles[index] ?? ''}</span>
				</div>
			))}
			{own.length === 1 && (
				<button
					type="button"
					className="link min-h-[36px] max-lg:min-h-[44px] text-left text-[13px]"
					onClick={() =>
						set([
							...own,
							{
								weekday,
								startTime: Number(own[0]!.startTime.slice(0, 2)) < 16 ? later(own[0]!.startTime) : '10:00',
								minutes: 20,
							},
						])
					}
				>
					a second one
				</button>
			)}
			{own.length === 2 && (
				<button
					type="button"
					className="link min-h-[36px] max-lg:min-h-[44px] text-left text-[13px]"
					onClick={() => set(own.slice(0, 1))}
				>
					only one
				</button>
			)}
		</div>
	)
}
