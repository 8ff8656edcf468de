import { addTo } from '#core/lists/group-by'
import { useState } from 'react'
import { Link, data } from 'react-router'
import { capital, writeDose } from '#core/words/write-numbers'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { changeFocus } from '#server/squads/change-roster'
import { moveByHand } from '#server/squads/move-by-hand'
import { readSquadLadder } from '#server/squads/read-ladders'
import type { Route } from './+types/squad-ladders'
import { allowed, notFound } from '../request-guard'
import { FamilyMark } from '../ui/glyphs'
import { passWords } from '../ui/library-words'
import { versionSeen } from '#server/submissions/take-version'
import type { Overtaken } from '../ui/meanwhile-note'
import { Said } from '../ui/said'
import { PostForm } from '../ui/post-form'
import { actOn, noProblems } from '../intents'
import { DayInput } from '../ui/day-input'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'Ladders · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const page = await readSquadLadder(scope, params.squadId, params.ladderId, todayAt(who.timeZone))
	if (!page) throw notFound()
	return { ...page, mayChange: may(who.role, 'plan:write') }
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	return actOn<ReturnType<typeof data<LadderAnswer>>>(request, {
		focus: async ({ text, form }) => {
			const set = await changeFocus(who, params.squadId, text('ladder'), text('focus'), versionSeen(form), new Date())
			if (!set) throw notFound()
			return set === true
				? data({ problems: noProblems, moved: '', did: 'Set.' })
				: data({ problems: noProblems, moved: '', ...set }, { status: 409 })
		},
		move: async ({ text }) => {
			const [athlete, ladder, rung, reason] = [text('athlete'), text('ladder'), text('rung'), text('reason')]
			const placing = { athleteId: athlete, ladderId: ladder, rungId: rung }
			const result = await moveByHand(who, [placing], reason, text('trainedOn'), new Date())
			if (!result) throw notFound()
			return 'problems' in result
				? data({ problems: result.problems, moved: '' }, { status: 400 })
				: data({ problems: noProblems, moved: 'moved' in result ? athlete : '' })
		},
	})
}

interface LadderAnswer {
	problems: Record<string, string>
	moved: string
	did?: string
	meanwhile?: Overtaken
}

export default function SquadLadders({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
	const { version, squad, school, focus, ladders, ladder, athletes, mayChange } = loaderData
	const on = (rungId: string) => athletes.filter((athlete) => athlete.met && athlete.rungId === rungId)
	const notMet = athletes.filter((athlete) => !athlete.met)
	return (
		<>
			<p className="dim">
				<Link className="link" to="/squads">
					Squads
				</Link>{' '}
				· {squad.name} · {squad.phase}, {school.name}
			</p>
			<h1 className="mt-1">{ladder.name}</h1>
			<p className="mt-1 max-w-[70ch]">{ladder.about}</p>
			<div className="mt-5 grid gap-x-10 gap-y-6 lg:grid-cols-[1fr_250px]">
				<div>
					<ol
						className="flex list-none flex-col-reverse border-b-2 border-ink"
						aria-label={`${ladder.name}, from the top down`}
					>
						{ladder.rungs.map((rung, index) => {
							const here = on(rung.id)
							const passed = athletes.filter((athlete) => athlete.passed.includes(rung.id)).length
							return (
								<li key={rung.id} className="rule grid gap-x-5 gap-y-1 py-2.5 sm:grid-cols-[30px_230px_1fr]">
									<i
										className={`mt-2.5 hidden h-[5px] w-[22px] sm:block ${here.length > 0 ? 'bg-ink' : passed > 0 ? 'bg-ink-2' : 'bg-chalk'}`}
										style={{ marginLeft: `${Math.min(index, 8)}px` }}
										aria-hidden
									/>
									<div>
										<b>{asRead(rung.name)}</b>
										<span className="dim block text-[13.5px]">
											{writeDose(rung.dose)} · {passWords(rung)}
											{passed > 0 && ` · ${passed} passed`}
										</span>
									</div>
									<Standing rungId={rung.id} athletes={athletes} />
								</li>
							)
						})}
					</ol>
					{notMet.length > 0 && (
						<p className="dim mt-3">Not met yet: {notMet.map((athlete) => athlete.name).join(', ')}.</p>
					)}
					{mayChange && (
						<MoveForm ladder={ladder} athletes={athletes} problem={Object.values(actionData?.problems ?? {})[0]} />
					)}
				</div>
				<aside>
					{mayChange && (
						<PostForm preventScrollReset className="mb-5 grid gap-2">
							<input type="hidden" name="ladder" value={ladder.id} />
							<input type="hidden" name="version" value={version} />
							<input type="hidden" name="do" value="focus" />
							<label className="field">
								<span className="label">In this block the ladder is</span>
								<select name="focus" className="input" defaultValue={focus ?? ''} key={`${ladder.id}${focus}`}>
									<option value="">worked on as usual</option>
									<option value="priority">the priority</option>
									<option value="kept">only kept: two thirds, no advance</option>
								</select>
							</label>
							<button className="btn btn-quiet justify-self-start">Set</button>
							<Said answer={actionData} />
						</PostForm>
					)}
					<h2>All ladders</h2>
					<ul className="mt-1">
						{ladders.map((one) => (
							<li key={one.id} className="rule">
								<Link
									className={`grid min-h-[40px] max-lg:min-h-[44px] grid-cols-[28px_1fr_auto] items-center gap-2 ${one.id === ladder.id ? 'font-bold' : ''}`}
									to={`/squads/${squad.id}/ladders/${one.id}`}
									aria-current={one.id === ladder.id ? 'page' : undefined}
								>
									<FamilyMark family={one.family} />
									{one.name}
									<span className="dim num text-[13.5px] font-normal">{one.met > 0 ? `${one.met} on it` : ''}</span>
								</Link>
							</li>
						))}
					</ul>
				</aside>
			</div>
		</>
	)
}

type Athlete = Awaited<ReturnType<typeof loader>>['athletes'][number]

/** Who stands here, and for whom it is locked by what, the same words together. */
function Standing({ rungId, athletes }: { rungId: string; athletes: Athlete[] }) {
	const { asRead } = useUnits()
	const here = athletes.filter((athlete) => athlete.met && athlete.rungId === rungId)
	const locked = new Map<string, Athlete[]>()
	for (const athlete of athletes) {
		const words = athlete.locks[rungId]
		if (athlete.met && words && !athlete.passed.includes(rungId) && athlete.rungId !== rungId)
			addTo(locked, words, athlete)
	}
	const met = athletes.filter((athlete) => athlete.met).length
	return (
		<div className="text-[14.5px]">
			{here.length > 0 && (
				<ul className="flex flex-wrap gap-x-4 gap-y-0.5">
					{here.map((athlete) => (
						<li key={athlete.id}>
							<Link className="font-bold hover:underline" to={`/athletes/${athlete.id}`}>
								{athlete.name}
							</Link>
							{athlete.state ? (
								<span className="dim"> {athlete.state}</span>
							) : athlete.waiting ? (
								<span className="dim"> passed</span>
							) : null}
						</li>
					))}
				</ul>
			)}
			{[...locked].map(([words, who]) => (
				<p key={words} className="dim text-[13.5px]">
					{who.length === met
						? asRead(capital(words))
						: `${asRead(capital(words))}: ${who.length <= 3 ? who.map((athlete) => athlete.name).join(', ') : `${who.length} of ${met}`}`}
				</p>
			))}
		</div>
	)
}

function MoveForm({
	ladder,
	athletes,
	problem,
}: {
	ladder: { id: string; rungs: { id: string; name: string }[] }
	athletes: Athlete[]
	problem: string | undefined
}) {
	const { asRead } = useUnits()
	const [athleteId, setAthleteId] = useState('')
	const athlete = athletes.find((one) => one.id === athleteId)
	return (
		<details className="mt-4" open={problem !== undefined}>
			<summary className="link inline-flex min-h-[44px] items-center">Move somebody by hand</summary>
			<PostForm preventScrollReset className="grid max-w-[560px] gap-3">
				<input type="hidden" name="ladder" value={ladder.id} />
				<label className="field">
					<span className="label">Athlete</span>
					<select
						name="athlete"
						className="input"
						required
						value={athleteId}
						onChange={(event) => setAthleteId(event.target.value)}
					>
						<option value="" disabled>
							Choose
						</option>
						{athletes.map((one) => (
							<option key={one.id} value={one.id}>
								{one.name}
							</option>
						))}
					</select>
				</label>
				<label className="field">
					<span className="label">To</span>
					<select name="rung" className="input" required defaultValue="" key={athleteId}>
						<option value="" disabled>
							Choose a rung
						</option>
						{[...ladder.rungs].reverse().map((rung) => (
							<option key={rung.id} value={rung.id}>
								{asRead(rung.name)}
								{athlete?.rungId === rung.id
									? ' (here now)'
									: athlete?.locks[rung.id]
										? ` (${athlete.locks[rung.id]})`
										: ''}
							</option>
						))}
					</select>
				</label>
				<label className="field">
					<span className="label">Your reason, kept with your name and the time</span>
					<input name="reason" className="input" required minLength={3} maxLength={500} />
				</label>
				<label className="field">
					<span className="label">
						Last trained <span className="dim font-normal">counts while nothing is on record; empty is today</span>
					</span>
					<DayInput name="trainedOn" />
				</label>
				{problem && (
					<p className="problem" role="alert">
						{problem}
					</p>
				)}
				<button className="btn justify-self-start" name="do" value="move">
					Move
				</button>
				<p className="dim text-[14px]">
					What lies below counts as passed. What is only advised gives way to your reason; what is closed does not.
				</p>
			</PostForm>
		</details>
	)
}
