import { useState } from 'react'
import { Link, data, redirect, useFetcher } from 'react-router'
import { addDays, mondayOf, shortDay } from '#core/calendar/days'
import { PHASES, type Phase } from '#core/library/types'
import { BLOCK_WEEKS, type BlockPlan, type Emphasis, blockSessions, defaultPhases, defaultShape } from '#core/plan/block'
import { readBlock } from '#db/queries/plan'
import { listSquads } from '#db/queries/squads'
import { todayAt } from '#server/clock'
import { makeBlock, readBlockPlan } from '#server/plan/make-block'
import type { Route } from './+types/plan-block'
import { allowed, notFound } from '../request-guard'

export const meta: Route.MetaFunction = () => [{ title: 'Plan a block · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:write')
	const copy = new URL(request.url).searchParams.get('copy')
	const copied = copy && /^[0-9a-f-]{36}$/.test(copy) ? await readBlock(scope, copy) : null
	const squads = (await listSquads(scope)).map(({ id, name, trainingDays, startTime }) => ({ id, name, trainingDays, startTime }))
	// A copy follows on from what it copies.
	return { squads, monday: copied ? addDays(copied.start, copied.weeks * 7) : addDays(mondayOf(todayAt(who.timeZone)), 7), copied: copied && { squadId: copied.squadId, plan: copied.plan } }
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const form = await request.formData()
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

const WEEKDAYS = ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun']
const PHASE_NAMES: Record<Phase, string> = { accumulate: 'strength', intensify: 'strength-speed', peaking: 'peaking', unloading: 'unloading' }

/** From an emphasis to weeks of sessions: what each week asks, before anything is made. */
export default function PlanBlock({ loaderData }: Route.ComponentProps) {
	const { squads, monday, copied } = loaderData
	const sender = useFetcher<typeof action>()
	const [squadId, setSquadId] = useState(copied?.squadId ?? squads[0]?.id ?? '')
	const squad = squads.find((one) => one.id === squadId)
	const daysOf = (id: string): BlockPlan['days'] => {
		const one = squads.find((other) => other.id === id)
		return (one && one.trainingDays.length > 0 ? one.trainingDays : [2, 4]).map((weekday) => ({ weekday, startTime: one?.startTime ?? '17:30', minutes: 90 }))
	}
	const [plan, setPlan] = useState<BlockPlan>(() => (copied ? { ...copied.plan, start: monday } : { start: monday, phases: defaultPhases(5, 'strength'), shape: defaultShape(5), days: daysOf(squadId) }))
	const [emphasis, setEmphasis] = useState<Emphasis>('strength')
	const weeks = plan.phases.length
	const reshape = (count: number, to: Emphasis) => setPlan({ ...plan, phases: defaultPhases(count, to), shape: defaultShape(count) })
	let problem = sender.data && 'problem' in sender.data ? sender.data.problem : null
	let sessions: ReturnType<typeof blockSessions> = []
	try {
		sessions = blockSessions(plan)
	} catch (error) {
		problem = error instanceof RangeError ? error.message : 'This cannot be planned.'
	}
	const busy = sender.state !== 'idle'
	if (squads.length === 0) return <><h1>Plan a block</h1><p className="mt-3">Make a squad first. <Link className="link" to="/squads">To the squads</Link></p></>
	return (
		<>
			<p className="dim"><Link className="link" to="/plan">Plan</Link></p>
			<h1 className="mt-1">{sessions.length} sessions in {weeks} weeks</h1>
			<p className="dim mt-1 max-w-[640px]">The parts of the squad’s last session, week by week at its share; each athlete’s own line as it stands on the day. Days that have a session already are left as they are.</p>
			<div className="mt-5 grid max-w-[900px] gap-4 sm:grid-cols-4">
				<div className="field"><label htmlFor="squad">Squad</label><select id="squad" className="input" value={squadId} onChange={(event) => { setSquadId(event.target.value); setPlan({ ...plan, days: daysOf(event.target.value) }) }}>{squads.map((one) => <option key={one.id} value={one.id}>{one.name}</option>)}</select></div>
				<div className="field"><label htmlFor="start">First Monday</label><input id="start" type="date" step={7} className="input" value={plan.start} onChange={(event) => event.target.value && setPlan({ ...plan, start: mondayOf(event.target.value) })} /></div>
				<div className="field"><label htmlFor="weeks">Weeks</label><select id="weeks" className="input" value={weeks} onChange={(event) => reshape(Number(event.target.value), emphasis)}>{Array.from({ length: BLOCK_WEEKS.most - BLOCK_WEEKS.least + 1 }, (_, index) => BLOCK_WEEKS.least + index).map((count) => <option key={count} value={count}>{count}</option>)}</select></div>
				<div className="field"><label htmlFor="emphasis">Emphasis</label><select id="emphasis" className="input" value={emphasis} onChange={(event) => { setEmphasis(event.target.value as Emphasis); reshape(weeks, event.target.value as Emphasis) }}><option value="strength">strength</option><option value="strength-speed">strength-speed</option><option value="peaking">peaking</option></select></div>
			</div>
			<fieldset className="mt-5">
				<legend className="label">Training days of {squad?.name}</legend>
				<div className="mt-1 flex flex-wrap items-start gap-2">
					{WEEKDAYS.map((name, index) => {
						const day = plan.days.find((one) => one.weekday === index + 1)
						return (
							<div key={name} className="grid gap-1">
								<button type="button" className="num min-h-[44px] w-[118px] border border-ink-2 aria-pressed:bg-ink aria-pressed:text-paper" aria-pressed={day !== undefined} onClick={() => setPlan({ ...plan, days: day ? plan.days.filter((one) => one !== day) : [...plan.days, { weekday: index + 1, startTime: squad?.startTime ?? '17:30', minutes: 90 }].sort((a, b) => a.weekday - b.weekday) })}>{name}</button>
								{day && <input type="time" aria-label={`Start on ${name}`} className="input w-[118px]!" value={day.startTime} onChange={(event) => event.target.value && setPlan({ ...plan, days: plan.days.map((one) => (one === day ? { ...day, startTime: event.target.value } : one)) })} />}
								{day && <label className="flex items-center gap-1 text-[13px]"><input aria-label={`Minutes on ${name}`} inputMode="numeric" className="input w-[70px]!" value={day.minutes || ''} onChange={(event) => setPlan({ ...plan, days: plan.days.map((one) => (one === day ? { ...day, minutes: Number(event.target.value.replace(/\D/g, '')) } : one)) })} />min</label>}
							</div>
						)
					})}
				</div>
			</fieldset>
			<ol className="mt-6 grid max-w-[900px] gap-px" aria-label="Weeks">
				{plan.phases.map((phase, week) => (
					<li key={week} className="rule grid grid-cols-[92px_1fr] items-center gap-x-4 gap-y-1 py-2 sm:grid-cols-[110px_1fr_110px_160px]">
						<span><b className="num">Week {week + 1}</b><span className="dim block text-[13px]">{shortDay(addDays(plan.start, week * 7))}</span></span>
						<div className="h-[14px] border border-ink-2" aria-hidden="true"><div className={`h-full ${phase === 'unloading' ? 'bg-chalk' : 'bg-ink'}`} style={{ width: `${(100 * plan.shape[week]!) / Math.max(...plan.shape)}%` }} /></div>
						<label className="col-start-2 flex items-center gap-1 text-[14px] sm:col-start-auto"><input aria-label={`Load of week ${week + 1}, percent`} inputMode="numeric" className="input w-[74px]!" value={plan.shape[week] || ''} onChange={(event) => setPlan({ ...plan, shape: plan.shape.map((load, index) => (index === week ? Number(event.target.value.replace(/\D/g, '')) : load)) })} />%</label>
						<select aria-label={`Emphasis of week ${week + 1}`} className="input col-start-2 sm:col-start-auto" value={phase} onChange={(event) => setPlan({ ...plan, phases: plan.phases.map((one, index) => (index === week ? (event.target.value as Phase) : one)) })}>{PHASES.map((one) => <option key={one} value={one}>{PHASE_NAMES[one]}</option>)}</select>
					</li>
				))}
			</ol>
			{problem && <p className="problem mt-3" role="alert">{problem}</p>}
			<button type="button" className="btn mt-5" disabled={busy || sessions.length === 0} onClick={() => void sender.submit({ squadId, plan: JSON.stringify(plan) }, { method: 'post' })}>{busy ? 'Writing everybody’s lines …' : `Make ${sessions.length} sessions`}</button>
		</>
	)
}
