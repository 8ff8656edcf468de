import { Link, data, redirect } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import { TRIAL_KINDS, TRIAL_KIND_NAMES, WAITS_MIN } from '#core/record/trial'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { type TrialPage, type TrialsPage, closeTrial, openTrial, planTrialDay, readTrials } from '#server/record/trials'
import type { Route } from './+types/squad-trials'
import { allowed, notFound } from '../request-guard'
import { actOn, noProblems } from '../intents'
import { MeasuredFields } from '../ui/measured-fields'
import { PostForm } from '../ui/post-form'
import { TextField } from '../ui/text-field'
import { useUnits } from '../field/units'
import { DayInput } from '../ui/day-input'

export const meta: Route.MetaFunction = () => [{ title: 'Trials · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who } = allowed(context, request, 'plan:read')
	const trials = await readTrials(who, params.squadId)
	if (!trials) throw notFound()
	return { ...trials, today: todayAt(who.timeZone), mayPlan: may(who.role, 'plan:write') }
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const answer = (problems: Record<string, string>) => data({ problems }, { status: 400 })
	const here = `/squads/${params.squadId}/trials`
	return actOn<Response | ReturnType<typeof answer>>(request, {
		open: async ({ text, form }) => {
			const opened = await openTrial(
				who,
				params.squadId,
				{
					question: text('question'),
					kind: text('kind'),
					drillId: text('drill'),
					amount: text('amount'),
					method: text('method'),
					reps: text('reps'),
					treatment: text('treatment'),
					treatmentSets: text('treatmentSets'),
					treatmentReps: text('treatmentReps'),
					waits: form.getAll('wait').map(String),
					athleteIds: form.getAll('athlete').map(String),
				},
				new Date(),
			)
			if (!opened) throw notFound()
			return 'problems' in opened ? answer(opened.problems) : redirect(here)
		},
		plan: async ({ text }) => {
			const made = await planTrialDay(who, params.squadId, text('id'), text('day'), new Date())
			if (!made) throw notFound()
			return 'problems' in made
				? answer({ plan: Object.values(made.problems)[0] ?? '' })
				: redirect(`/sessions/${made.sessionId}`)
		},
		close: async ({ text }) => {
			if (!(await closeTrial(who, params.squadId, text('id'), text('closed') === 'yes', new Date()))) throw notFound()
			return redirect(here)
		},
	})
}

/** Does it help these athletes? Trials of a squad: what they say so far, and the next day of each. */
export default function SquadTrials({ loaderData, actionData }: Route.ComponentProps) {
	const { squadName, trials, today, mayPlan } = loaderData
	const problems = actionData?.problems ?? noProblems
	return (
		<>
			<p className="dim">
				<Link className="link" to="/squads">
					{squadName}
				</Link>
			</p>
			<h1 className="mt-1">Trials</h1>
			{trials.length === 0 && (
				<p className="mt-2 max-w-[62ch]">
					No trial yet. A trial asks whether something helps <i>these</i> athletes: days with it and days without, in an
					order drawn by chance, measured before and after.
				</p>
			)}
			{problems.plan && (
				<p className="problem mt-3" role="alert">
					{problems.plan}
				</p>
			)}
			{trials.map((trial) => (
				<TrialView key={trial.id} trial={trial} today={today} mayPlan={mayPlan} />
			))}
			{mayPlan && <OpenTrial page={loaderData} problems={problems} key={trials.length} />}
			<p className="dim mt-6 max-w-[70ch] text-[14px]">
				What a trial says holds for the athlete it was taken of, in these weeks: not for others, another sex, age or
				level, nor for the long run. It is looked at when the announced number of pairs is there, not before; each later
				look asks for more.
			</p>
		</>
	)
}

/** Days of a trial that stand open, the others behind a click. */
const LAST_DAYS = 4
const wait = (minutes: number) => (minutes === 0 ? 'at once' : `after ${minutes} min`)

function TrialView({ trial, today, mayPlan }: { trial: TrialPage; today: string; mayPlan: boolean }) {
	const { asRead } = useUnits()
	return (
		<section className="mt-6" aria-label={trial.question}>
			<div className="flex flex-wrap items-end justify-between gap-3">
				<div className="max-w-[62ch]">
					<h2 className="text-[18px]">
						{trial.question}
						{trial.closed && <span className="dim font-normal"> — ended</span>}
					</h2>
					<p className="dim">
						{TRIAL_KIND_NAMES[trial.kind]}
						{trial.treatment && `: ${trial.treatment}`} · {trial.how} · announced: {trial.pairs} pairs of days an
						athlete
					</p>
					{trial.sessions.length > 0 && (
						<p>
							<Days sessions={trial.sessions.slice(-LAST_DAYS)} />
						</p>
					)}
					{trial.sessions.length > LAST_DAYS && (
						<details className="print:hidden">
							<summary className="link inline-flex min-h-[44px] items-center">
								{trial.sessions.length - LAST_DAYS} earlier days, from {shortDay(trial.sessions[0]!.day)}
							</summary>
							<p>
								<Days sessions={trial.sessions.slice(0, -LAST_DAYS)} />
							</p>
						</details>
					)}
				</div>
				{mayPlan && (
					<div className="flex flex-wrap items-end gap-2 print:hidden">
						{!trial.closed && (
							<PostForm className="flex items-end gap-2">
								<input type="hidden" name="id" value={trial.id} />
								<label className="field">
									<span className="label">Next day</span>
									<DayInput name="day" defaultValue={today} required />
								</label>
								<button className="btn" name="do" value="plan">
									Plan it
								</button>
							</PostForm>
						)}
						<PostForm preventScrollReset>
							<input type="hidden" name="id" value={trial.id} />
							<input type="hidden" name="closed" value={trial.closed ? 'no' : 'yes'} />
							<button className="btn btn-quiet" name="do" value="close">
								{trial.closed ? 'Go on with it' : 'End it'}
							</button>
						</PostForm>
					</div>
				)}
			</div>
			<table className="mt-2 w-full text-left">
				<thead className="dim text-[13px] max-sm:sr-only">
					<tr>
						<th className="py-1 font-normal">Athlete</th>
						<th className="py-1 font-normal">Days with · without</th>
						{!trial.closed && <th className="py-1 font-normal">Next time</th>}
						<th className="py-1 font-normal">What it says</th>
					</tr>
				</thead>
				<tbody>
					{trial.people.map((person) => (
						<tr key={person.athleteId} className="border-t border-chalk align-top max-sm:block max-sm:py-2">
							<th scope="row" className="py-1.5 pr-3 text-left font-semibold max-sm:block max-sm:py-0">
								<Link className="hover:underline" to={`/athletes/${person.athleteId}`}>
									{person.name}
								</Link>
							</th>
							<td className="num py-1.5 pr-3 max-sm:inline">
								{person.days.treatment} · {person.days.control}
							</td>
							{!trial.closed && (
								<td className="py-1.5 pr-3 max-sm:inline">{person.next === 'treatment' ? 'with it' : 'without'}</td>
							)}
							<td className="py-1.5 max-sm:block">
								{person.readings.map(({ waitMin, reading }) => (
									<p key={waitMin} className={reading.answer === 'no answer yet' ? 'dim' : 'font-semibold'}>
										{person.readings.length > 1 && `${wait(waitMin)}: `}
										{asRead(reading.sentence)}
									</p>
								))}
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{trial.people.length > 1 &&
				trial.group.map((one) => (
					<p key={one.waitMin} className="rule py-2">
						<b>Together{trial.group.length > 1 ? `, ${wait(one.waitMin)}` : ''}:</b> {asRead(one.sentence)}
					</p>
				))}
		</section>
	)
}

function Days({ sessions }: { sessions: TrialPage['sessions'] }) {
	return sessions.map((session, index) => (
		<span key={session.id}>
			{index > 0 && ', '}
			<Link className="link" to={session.held ? `/sessions/${session.id}/done` : `/sessions/${session.id}`}>
				{shortDay(session.day)}
			</Link>
		</span>
	))
}

function OpenTrial({ page, problems }: { page: TrialsPage; problems: Record<string, string> }) {
	const said = (name: string) =>
		problems[name] && (
			<p className="problem" role="alert">
				{problems[name]}
			</p>
		)
	return (
		<details className="mt-8 print:hidden" open={Object.keys(problems).some((name) => name !== 'plan')}>
			<summary className="btn btn-quiet inline-flex cursor-pointer list-none">Begin a trial</summary>
			<PostForm className="mt-3 grid max-w-[860px] gap-4" keep="trial">
				<TextField
					label="Does it help? What is asked"
					name="question"
					required
					placeholder="Does a heavy sled pull before help the start?"
					problem={problems.question}
				/>
				<div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
					<label className="field">
						<span className="label">What is tried</span>
						<select className="input" name="kind">
							{TRIAL_KINDS.map((kind) => (
								<option key={kind} value={kind}>
									{TRIAL_KIND_NAMES[kind]}
								</option>
							))}
						</select>
					</label>
					<label className="field">
						<span className="label">Done in between</span>
						<select className="input" name="treatment">
							<option value="">no drill: a cue, a warm-up</option>
							{page.drills.map((one) => (
								<option key={one.id} value={one.id}>
									{one.name}
								</option>
							))}
						</select>
					</label>
					<TextField label="Sets" name="treatmentSets" inputMode="numeric" defaultValue="1" />
					<TextField label="Reps" name="treatmentReps" inputMode="numeric" defaultValue="3" />
				</div>
				{said('treatment')}
				<div className="grid grid-cols-2 gap-3 sm:grid-cols-4">
					<MeasuredFields label="Measured by" testable={page.testable} />
					<TextField
						label="Reps before and after"
						name="reps"
						inputMode="numeric"
						defaultValue="2"
						problem={problems.reps}
					/>
				</div>
				{said('drill')}
				<fieldset className="flex flex-wrap gap-x-5">
					<legend className="label">Measured after</legend>
					{WAITS_MIN.map((minutes) => (
						<label key={minutes} className="flex min-h-[44px] items-center gap-2">
							<input
								type="checkbox"
								className="h-[20px] w-[20px] accent-act"
								name="wait"
								value={minutes}
								defaultChecked={minutes === 5}
							/>
							{minutes === 0 ? 'at once' : `${minutes} min`}
						</label>
					))}
				</fieldset>
				{said('waits')}
				<fieldset className="flex flex-wrap gap-x-5">
					<legend className="label">Who takes part</legend>
					{page.members.map((member) => (
						<label key={member.id} className="flex min-h-[44px] items-center gap-2">
							<input type="checkbox" className="h-[20px] w-[20px] accent-act" name="athlete" value={member.id} />
							{member.name}
						</label>
					))}
				</fieldset>
				{said('athletes')}
				<button className="btn justify-self-start" name="do" value="open">
					Begin it
				</button>
			</PostForm>
		</details>
	)
}
