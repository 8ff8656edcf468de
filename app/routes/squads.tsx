import { WEEKDAYS } from '#core/calendar/say-day'
import { Link, data } from 'react-router'
import { PHASES } from '#core/vocabulary/words'
import { may } from '#server/access/roles'
import { OUTSIDE_KINDS, OUTSIDE_NAMES, type OutsideKind } from '#core/judge/outside-load'
import { enterOutside } from '#server/care/outside'
import { todayAt } from '#server/clock'
import { addSquad, changePhase, changeSquad } from '#server/squads/change-roster'
import { addAthletes } from '#server/squads/import-roster'
import { type RosterOfSquad, type Standing, readSquadsPage } from '#server/squads/read-squads'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/squads'
import { allowed, notFound } from '../request-guard'
import { MiniLadder } from '../ui/rung-ladder'
import { ClockField, TextField } from '../ui/text-field'
import { versionSeen } from '#server/submissions/take-version'
import { MeanwhileNote, type Overtaken } from '../ui/meanwhile-note'
import { PostForm } from '../ui/post-form'
import { type Sent, actOn, noProblems } from '../intents'
import { DayInput } from '../ui/day-input'
import { useLocal } from '../ui/local'
import { useUnits } from '../field/units'
import { pack, usePacked } from '../packed'

export const meta: Route.MetaFunction = () => [{ title: 'Squads · Dromos' }]

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const shown = mayBeLate(scope)
	return {
		page: pack(await readSquadsPage(shown, todayAt(who.timeZone))),
		mayChange: may(who.role, 'people:write'),
		mayPlace: may(who.role, 'plan:write'),
		behind: isBehind(shown),
	}
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'people:write')
	const answer = (form: string, squad: string, result: { problems: Record<string, string> } | object, typed = '') => {
		const problems = 'problems' in result ? (result.problems as Record<string, string>) : noProblems
		return data({ form, squad, problems, typed } as SquadsAnswer, { status: problems === noProblems ? 200 : 400 })
	}
	return actOn(request, {
		phase: async ({ text, form }) => {
			const squad = text('squad')
			const set = await changePhase(who, squad, text('phase'), versionSeen(form), new Date())
			if (!set) throw notFound()
			if (set === true) return answer('phase', squad, {})
			const overtaken: SquadsAnswer = { form: 'phase', squad, problems: noProblems, typed: '', ...set }
			return data(overtaken, { status: 409 })
		},
		outside: async ({ text }) => {
			const [squadId, kind, day] = [text('squad'), text('kind'), text('day')]
			const typed = { kind, day, startTime: '', minutes: '', rpe: '', hardRunning: '', hardCutting: '' }
			const entered = await enterOutside(who, { squadId }, typed, new Date())
			const said = 'problems' in entered ? '' : `${OUTSIDE_NAMES[kind as OutsideKind]} for ${entered.entered}`
			return answer('outside', squadId, entered, said)
		},
		squad: async (sent) => answer('squad', sent.text('squad'), await addSquad(who, typedSquad(sent))),
		details: async (sent) => {
			const squad = sent.text('squad')
			const changed = await changeSquad(who, squad, typedSquad(sent), versionSeen(sent.form), new Date())
			if (!changed) throw notFound()
			if (!('meanwhile' in changed)) return answer('details', squad, changed)
			const overtaken: SquadsAnswer = { form: 'details', squad, problems: noProblems, typed: '', ...changed }
			return data(overtaken, { status: 409 })
		},
		athletes: async ({ text }) => {
			const added = await addAthletes(who, text('squad'), text('names'), new Date())
			return 'problem' in added
				? answer('athletes', text('squad'), { problems: { names: added.problem } }, text('names'))
				: answer('athletes', text('squad'), {})
		},
	})
}

const typedSquad = ({ text, form }: Sent) => ({
	name: text('name'),
	days: form.getAll('days').map(String),
	startTime: text('startTime'),
	place: text('place'),
	jumpingSport: form.has('jumpingSport'),
})

interface SquadsAnswer {
	form: string
	squad: string
	problems: Record<string, string>
	typed: string
	meanwhile?: Overtaken
}

/** A name, a level, and a column for each ladder the squad is on. */
const columns = (ladders: readonly unknown[]) =>
	({
		'--columns': `180px 56px repeat(${Math.max(1, ladders.length)}, minmax(0, 1fr))`,
	}) as React.CSSProperties

/** A whole squad's match or practice in two taps: today, as usual for its kind. */
function OutsideBar({
	squad,
	athletes,
	problem,
	entered,
}: {
	squad: { id: string; name: string }
	athletes: number
	problem: string | undefined
	entered: string
}) {
	return (
		<PostForm preventScrollReset className="flex flex-wrap items-center gap-x-2 gap-y-1 pt-2">
			<input type="hidden" name="squad" value={squad.id} />
			<input type="hidden" name="do" value="outside" />
			<span className="dim text-[14px]">What else loads them, on</span>
			<DayInput name="day" aria-label={`Day, ${squad.name}`} />
			{OUTSIDE_KINDS.map((kind) => (
				<button key={kind} className="btn btn-quiet" name="kind" value={kind}>
					{OUTSIDE_NAMES[kind]}
				</button>
			))}
			<span className="dim text-[13.5px]" role="status">
				{problem ? (
					<b className="problem">{problem}</b>
				) : entered ? (
					`Entered: ${entered}.`
				) : (
					`for all ${athletes}; without a day it is today`
				)}
			</span>
		</PostForm>
	)
}

interface SquadShown {
	name: string
	trainingDays: readonly number[]
	startTime: string
	place: string
	jumpingSport: boolean
}
/** What a squad is called, and when and where it trains. */
function SquadFields({ squad, problems }: { squad?: SquadShown; problems: Record<string, string> }) {
	return (
		<>
			<TextField label="Name" name="name" required defaultValue={squad?.name} problem={problems.name} />
			<fieldset>
				<legend className="label">Training days</legend>
				<div className="flex flex-wrap gap-x-4">
					{WEEKDAYS.map((day, index) => (
						<label key={day} className="flex min-h-[44px] items-center gap-2">
							<input
								type="checkbox"
								name="days"
								value={index + 1}
								defaultChecked={squad?.trainingDays.includes(index + 1)}
								className="size-5 accent-act"
							/>
							{day}
						</label>
					))}
				</div>
				{problems.days && <p className="problem">{problems.days}</p>}
			</fieldset>
			<ClockField
				label="Start"
				name="startTime"
				defaultValue={squad?.startTime ?? '17:30'}
				problem={problems.startTime}
			/>
			<TextField label="Place" name="place" defaultValue={squad?.place} />
			<label className="flex min-h-[44px] items-center gap-2">
				<input type="checkbox" name="jumpingSport" defaultChecked={squad?.jumpingSport} className="size-5 accent-act" />
				Their matches and practice are full of hard jumps
			</label>
		</>
	)
}

function ChangeSquad({
	squad,
	version,
	answer,
}: {
	squad: SquadShown & { id: string }
	version: number
	answer: SquadsAnswer | undefined
}) {
	return (
		<details
			className="mt-2"
			open={answer !== undefined && (answer.meanwhile !== undefined || Object.keys(answer.problems).length > 0)}
		>
			<summary className="link inline-flex min-h-[44px] items-center">Name, days, time and place</summary>
			<PostForm preventScrollReset className="grid max-w-[560px] gap-4 pt-1">
				<input type="hidden" name="squad" value={squad.id} />
				<input type="hidden" name="version" value={version} />
				<SquadFields squad={squad} problems={answer?.problems ?? {}} />
				<p className="dim text-[14px]">
					Sessions that stand stay on their day and at their place; new ones go by the change.
				</p>
				<button className="btn justify-self-start" name="do" value="details">
					Keep
				</button>
				{answer?.meanwhile && <MeanwhileNote overtaken={answer.meanwhile} />}
			</PostForm>
		</details>
	)
}

/** No number at the end of a line with its unit on the next. */
const withUnit = (name: string): string => name.replace(/(\d) /g, '$1\u00a0')

/** Where one athlete stands on one ladder. */
function OnLadder({
	ladder,
	rungIndex,
	substitute,
	over,
	met,
}: Standing & { ladder: RosterOfSquad['ladders'][number] }) {
	const { asRead } = useUnits()
	const rungName = ladder.rungs[rungIndex]?.name ?? ''
	return (
		<div className="min-w-0">
			<MiniLadder ladder={ladder} rungIndex={met ? rungIndex : -1} closed={over !== null} substitute={substitute} />
			<p className="dim text-[12.5px] md:hidden">{ladder.name}</p>
			<p
				className={`line-clamp-2 md:-mr-2.5 text-[13px] leading-snug ${over ? 'font-bold text-attn' : met ? '' : 'dim'}`}
				title={asRead(`${ladder.name}: ${over ?? rungName}`)}
			>
				{over ?? (substitute ? 'on a variation' : met ? withUnit(asRead(rungName)) : `${ladder.name}: not met yet`)}
			</p>
		</div>
	)
}

export default function Squads({ loaderData, actionData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { mayChange, mayPlace } = loaderData
	const { roster, without } = usePacked(loaderData.page)
	const squadProblems = actionData?.form === 'squad' ? actionData.problems : {}
	return (
		<>
			<h1>{roster.length === 0 ? 'Your first squad' : 'Squads'}</h1>
			{roster.length > 0 && (
				<p className="dim mt-1">
					Each ladder from its first rung on the left to its top on the right; the thick rung is where the athlete
					stands.
				</p>
			)}
			{roster.map(({ squad, version, schoolName, unloadingDue, ladders, athletes }) => (
				<section key={squad.id} className="mt-7" aria-label={squad.name}>
					<div className="flex flex-wrap items-end justify-between gap-3 border-b-2 border-ink pb-1.5">
						<div>
							<h2 className="text-[19px]">
								{squad.name} <span className="dim font-normal">{athletes.length}</span>
							</h2>
							<p className="dim">
								{squad.trainingDays.map((day) => WEEKDAYS[day - 1]).join(', ')}, {time(squad.startTime)} ·{' '}
								{squad.place || 'no place set'} ·{' '}
								{mayChange ? (
									<Link className="link" to={`/squads/${squad.id}/school`}>
										{schoolName}
									</Link>
								) : (
									schoolName
								)}{' '}
								·{' '}
								<Link className="link" to={`/squads/${squad.id}/week`}>
									The week
								</Link>{' '}
								·{' '}
								<Link className="link" to={`/squads/${squad.id}/tests`}>
									Tests
								</Link>{' '}
								·{' '}
								<Link className="link" to={`/squads/${squad.id}/trials`}>
									Trials
								</Link>{' '}
								·{' '}
								<Link className="link" to={`/squads/${squad.id}/ladders`}>
									Ladders
								</Link>{' '}
								·{' '}
								{mayPlace && (
									<>
										<Link className="link" to={`/squads/${squad.id}/placing`}>
											Where they stand
										</Link>{' '}
										·{' '}
										<Link className="link" to={`/squads/${squad.id}/history`}>
											Bring results
										</Link>{' '}
										·{' '}
									</>
								)}
								<a className="link" href={`/squads/${squad.id}/sessions.ics`}>
									Calendar file
								</a>
							</p>
						</div>
						{mayChange && (
							<PostForm preventScrollReset className="flex flex-wrap items-center gap-2">
								<input type="hidden" name="squad" value={squad.id} />
								<input type="hidden" name="version" value={version} />
								<input type="hidden" name="do" value="phase" />
								<label className="flex items-center gap-2">
									<span className="dim text-[14px]">Phase</span>
									<select name="phase" className="input w-auto" defaultValue={squad.phase}>
										{PHASES.map((phase) => (
											<option key={phase}>{phase}</option>
										))}
									</select>
								</label>
								<button className="btn btn-quiet">Set</button>
								{actionData?.form === 'phase' &&
									actionData.squad === squad.id &&
									('meanwhile' in actionData ? (
										<MeanwhileNote overtaken={actionData.meanwhile as Overtaken} />
									) : (
										<b role="status">Set to {squad.phase}.</b>
									))}
							</PostForm>
						)}
					</div>
					{unloadingDue !== null && (
						<p className="mt-2">
							<b>An unloading week is due</b>: {unloadingDue} trained weeks since the last, even when all is well. Set
							the phase to unloading.
						</p>
					)}
					{mayChange && athletes.length > 0 && (
						<OutsideBar
							squad={squad}
							athletes={athletes.length}
							problem={
								actionData?.form === 'outside' && actionData.squad === squad.id
									? actionData.problems.outside
									: undefined
							}
							entered={actionData?.form === 'outside' && actionData.squad === squad.id ? actionData.typed : ''}
						/>
					)}
					{athletes.length > 0 && (
						<div
							className="dim hidden gap-x-5 pt-1.5 text-[13.5px] md:grid md:grid-cols-(--columns)"
							style={columns(ladders)}
						>
							<span />
							<span />
							{ladders.map((ladder) => (
								<Link key={ladder.id} className="hover:underline" to={`/squads/${squad.id}/ladders/${ladder.id}`}>
									{ladder.name}
								</Link>
							))}
						</div>
					)}
					<ul>
						{athletes.map((athlete) => (
							<li
								key={athlete.id}
								className="grid grid-cols-2 items-center gap-x-5 gap-y-1 border-b border-chalk py-2 md:grid-cols-(--columns) md:items-start"
								style={columns(ladders)}
							>
								<div className="min-w-0">
									<Link
										className="block min-h-[32px] max-lg:min-h-[44px] content-center font-bold hover:underline"
										to={`/athletes/${athlete.id}`}
									>
										{athlete.name}
									</Link>
									{athlete.away && <b className="block text-[13px]">{athlete.away}</b>}
								</div>
								<span className="dim text-right text-[14px] md:pt-[5px] md:text-left max-lg:md:pt-[11px]">
									level {athlete.level}
								</span>
								{ladders.map((ladder, at) => (
									<OnLadder key={ladder.id} ladder={ladder} {...athlete.standings[at]!} />
								))}
							</li>
						))}
					</ul>
					{mayChange && (
						<ChangeSquad
							key={version}
							squad={squad}
							version={version}
							answer={actionData?.form === 'details' && actionData.squad === squad.id ? actionData : undefined}
						/>
					)}
					{mayChange && (
						<details
							className="mt-2"
							open={
								athletes.length === 0 ||
								(actionData?.form === 'athletes' && actionData.squad === squad.id && actionData.typed !== '')
							}
						>
							<summary className="link inline-flex min-h-[44px] items-center">Add athletes</summary>
							<PostForm
								preventScrollReset
								key={athletes.length}
								className="grid max-w-[560px] gap-2"
								keep={`names ${squad.id}`}
							>
								<input type="hidden" name="squad" value={squad.id} />
								<label className="label" htmlFor={`names-${squad.id}`}>
									One a line; a birth date after a comma if you know it
								</label>
								<textarea
									id={`names-${squad.id}`}
									name="names"
									rows={5}
									className="input"
									placeholder={'Ada Sørli, 2001-05-30\nTomé Vaz'}
									defaultValue={actionData?.squad === squad.id ? actionData.typed : ''}
								/>
								{actionData?.form === 'athletes' && actionData.squad === squad.id && actionData.problems.names && (
									<p className="problem" role="alert">
										{actionData.problems.names}
									</p>
								)}
								<p className="dim text-[14px]">
									Without a birth date nobody rebounds from a box: the strictest rule holds.
								</p>
								<div className="flex flex-wrap items-center gap-3">
									<button className="btn" name="do" value="athletes">
										Add to {squad.name}
									</button>
									<Link className="link inline-flex min-h-[44px] items-center" to={`/squads/${squad.id}/list`}>
										Bring a list from a spreadsheet
									</Link>
								</div>
							</PostForm>
						</details>
					)}
				</section>
			))}
			{without.length > 0 && (
				<section className="mt-7" aria-label="In no squad">
					<h2 className="border-b-2 border-ink pb-1.5 text-[19px]">
						In no squad <span className="dim font-normal">{without.length}</span>
					</h2>
					<ul className="mt-1 flex flex-wrap gap-x-6">
						{without.map((athlete) => (
							<li key={athlete.id}>
								<Link className="link inline-flex min-h-[44px] items-center" to={`/athletes/${athlete.id}`}>
									{athlete.name}
								</Link>
							</li>
						))}
					</ul>
				</section>
			)}
			{mayChange && (
				<details
					className="mt-9 border-t-2 border-ink pt-2"
					open={roster.length === 0 || Object.keys(squadProblems).length > 0}
				>
					<summary className="link inline-flex min-h-[44px] items-center">Make a squad</summary>
					<PostForm className="grid max-w-[560px] gap-4 pt-1" key={roster.length} keep="squad">
						<SquadFields problems={squadProblems} />
						<button className="btn justify-self-start" name="do" value="squad">
							Make the squad
						</button>
					</PostForm>
				</details>
			)}
		</>
	)
}
