import { useState } from 'react'
import { Form, Link, data, useSearchParams } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import { type Placing, placingKey } from '#core/judge/overrule'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { moveByHand } from '#server/squads/move-by-hand'
import { readPlacing } from '#server/squads/read-placing'
import type { Route } from './+types/squad-placing'
import { actOn, noProblems } from '../intents'
import { allowed, notFound } from '../request-guard'
import { PostForm } from '../ui/post-form'
import { DayField, TextField } from '../ui/text-field'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'Where they stand · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:write')
	const today = todayAt(who.timeZone)
	const chosen = new URL(request.url).searchParams.getAll('ladder')
	const page = await readPlacing(scope, params.squadId, chosen, today)
	if (!page) throw notFound()
	return { ...page, today, mayAdd: may(who.role, 'people:write') }
}

interface PlacingAnswer {
	problems: Record<string, string>
	moved: number
	typed: Record<string, string>
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who, scope } = allowed(context, request, 'plan:write')
	return actOn(request, {
		place: async ({ text, form }) => {
			const chosen = form.getAll('ladder').map(String)
			const page = await readPlacing(scope, params.squadId, chosen, todayAt(who.timeZone))
			if (!page) throw notFound()
			const typed = Object.fromEntries([...form].map(([name, value]) => [name, String(value)]))
			const placings = page.athletes.flatMap((athlete) =>
				page.ladders.flatMap((ladder): Placing[] => {
					const placing = { athleteId: athlete.id, ladderId: ladder.id }
					const rungId = text(placingKey(placing))
					return rungId === '' || rungId === athlete.at[ladder.id] ? [] : [{ ...placing, rungId }]
				}),
			)
			if (placings.length === 0) {
				const problems = { nothing: 'Nothing is different from what stands: pick a rung for somebody first.' }
				return data<PlacingAnswer>({ problems, moved: 0, typed }, { status: 400 })
			}
			const result = await moveByHand(who, placings, text('reason'), text('trainedOn'), new Date())
			if (!result) throw notFound()
			return 'problems' in result
				? data<PlacingAnswer>({ problems: result.problems, moved: 0, typed }, { status: 400 })
				: data<PlacingAnswer>({ problems: noProblems, moved: result.moved, typed: {} })
		},
	})
}

export default function SquadPlacing({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
	const { squad, all, ladders, athletes, today, mayAdd } = loaderData
	const problems = actionData?.problems ?? noProblems
	// What was done last speaks before the day of the form: whoever was away begins with less.
	const lastDone =
		athletes
			.flatMap(({ proposed }) => Object.values(proposed).map(({ day }) => day))
			.sort()
			.at(-1) ?? today
	const nameOf = (key: string) => {
		const [athleteId, ladderId] = key.split('/')
		const athlete = athletes.find((one) => one.id === athleteId)
		const ladder = ladders.find((one) => one.id === ladderId)
		return athlete && ladder ? `${athlete.name}, ${ladder.name}: ` : ''
	}
	return (
		<>
			<p className="dim">
				<Link className="link" to="/squads">
					Squads
				</Link>{' '}
				· {squad.name}
			</p>
			<h1 className="mt-1">Where they stand</h1>
			<p className="mt-1 max-w-[70ch]">
				Pick the rung each can do well today; what is below it counts as passed. Left open, somebody begins at the foot
				of a ladder and climbs by what is logged. What somebody has done in the last eight weeks is filled in, and set
				only when you set it.
			</p>
			{athletes.length === 0 ? (
				<p className="mt-5">
					Nobody is in {squad.name} yet.{' '}
					{mayAdd && (
						<Link className="btn" to={`/squads/${squad.id}/list`}>
							Bring a list
						</Link>
					)}
				</p>
			) : (
				<>
					<ChooseLadders all={all} shown={ladders.map(({ id }) => id)} />
					<PostForm
						keep="placing"
						preventScrollReset
						className="mt-5"
						key={actionData?.moved ? today + actionData.moved : 'open'}
					>
						{ladders.map(({ id }) => (
							<input key={id} type="hidden" name="ladder" value={id} />
						))}
						<div
							className="isolate overflow-x-auto"
							role="region"
							aria-label="Where they stand, as a grid"
							tabIndex={0}
						>
							<table className="min-w-full border-collapse">
								<thead>
									<tr className="text-left text-[14px]">
										<th className="sticky left-0 z-1 bg-paper py-1.5 pr-3">Athlete</th>
										{ladders.map((ladder) => (
											<th key={ladder.id} className="px-1.5 py-1.5 font-bold">
												{ladder.name}
											</th>
										))}
									</tr>
								</thead>
								<tbody>
									{athletes.map((athlete) => (
										<tr key={athlete.id} className="border-t border-chalk">
											<th className="sticky left-0 z-1 bg-paper py-1 pr-3 text-left font-bold">
												<span className="block max-w-[150px] truncate" title={athlete.name}>
													{athlete.name}
												</span>
												<span className="dim text-[13px] font-normal">level {athlete.level}</span>
											</th>
											{ladders.map((ladder) => {
												const key = placingKey({ athleteId: athlete.id, ladderId: ladder.id })
												const at = athlete.at[ladder.id]!
												const proposed = athlete.proposed[ladder.id]
												return (
													<td key={ladder.id} className="px-1.5 py-1 align-top">
														<select
															name={key}
															className="input w-full min-w-[215px] px-2"
															aria-label={`${athlete.name}, ${ladder.name}`}
															aria-invalid={key in problems}
															defaultValue={actionData?.typed[key] ?? (at || (proposed?.rungId ?? ''))}
														>
															<option value="">not met yet</option>
															{ladder.rungs.map((rung) => (
																<option key={rung.id} value={rung.id}>
																	{asRead(rung.name)}
																	{athlete.closed[ladder.id]!.includes(rung.id) ? ' (not open)' : ''}
																</option>
															))}
														</select>
														{proposed && (
															<p className="dim text-[13px]">done on {shortDay(proposed.day)}, not set yet</p>
														)}
														{problems[key] && <p className="problem max-w-[220px]">{problems[key]}</p>}
													</td>
												)
											})}
										</tr>
									))}
								</tbody>
							</table>
						</div>
						<div className="mt-4 grid max-w-[560px] gap-4">
							<TextField
								label="Why"
								name="reason"
								required
								defaultValue={actionData?.typed.reason ?? 'Where they stood when we began'}
								hint="One reason for all of them, kept with your name."
								problem={problems.reason}
							/>
							<DayField
								label="Last trained"
								name="trainedOn"
								max={today}
								defaultValue={actionData?.typed.trainedOn ?? lastDone}
								hint="After weeks away everybody begins with less."
								problem={problems.trainedOn}
							/>
							<div className="flex flex-wrap items-center gap-3">
								<button className="btn" name="do" value="place">
									Set what is different
								</button>
								<span role="status">
									{actionData && actionData.moved > 0 && (
										<b>
											{actionData.moved === 1 ? 'One rung is set.' : `${actionData.moved} rungs are set.`} Lines ahead
											are written anew.
										</b>
									)}
									{Object.keys(problems).length > 0 && (
										<b className="problem">
											Nothing was set.{' '}
											{Object.entries(problems)
												.slice(0, 3)
												.map(([key, words]) => asRead(asRead(`${nameOf(key)}${words}`)))
												.join(' ')}
										</b>
									)}
								</span>
							</div>
						</div>
					</PostForm>
				</>
			)}
		</>
	)
}

/** Which ladders the grid has as columns. */
function ChooseLadders({ all, shown }: { all: { id: string; name: string }[]; shown: string[] }) {
	const [asked] = useSearchParams()
	const [open, setOpen] = useState(false)
	return (
		<details className="mt-3" open={open} onToggle={(event) => setOpen(event.currentTarget.open)} key={String(asked)}>
			<summary className="link inline-flex min-h-[44px] items-center">Other ladders</summary>
			<Form className="grid gap-2">
				<fieldset className="grid gap-x-5 sm:grid-cols-2 lg:grid-cols-4">
					<legend className="sr-only">Ladders</legend>
					{all.map((ladder) => (
						<label key={ladder.id} className="flex min-h-[44px] items-center gap-2">
							<input
								type="checkbox"
								name="ladder"
								value={ladder.id}
								defaultChecked={shown.includes(ladder.id)}
								className="size-5 accent-act"
							/>
							{ladder.name}
						</label>
					))}
				</fieldset>
				<button className="btn btn-quiet justify-self-start">Show these</button>
			</Form>
		</details>
	)
}
