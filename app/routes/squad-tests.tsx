import { useState } from 'react'
import { Link, data, redirect } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import { EVERY, type Every, MOST_ITEMS, MOST_TRIES, type Testable } from '#core/record/battery'
import { betterOf } from '#core/marks/keep-session'
import { writeMark } from '#core/words/write-numbers'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import {
	type BatteryPage,
	type TestCell,
	type TestItem,
	addBattery,
	planBattery,
	readTests,
	setRetired,
} from '#server/record/batteries'
import type { Route } from './+types/squad-tests'
import { allowed, notFound } from '../request-guard'
import { actOn, noProblems } from '../intents'
import { MeasuredFields } from '../ui/measured-fields'
import { PostForm } from '../ui/post-form'
import { DayInput } from '../ui/day-input'
import { TextField } from '../ui/text-field'
import { useUnits } from '../field/units'
import { WhatIs } from '../ui/what-is'

export const meta: Route.MetaFunction = () => [{ title: 'Tests · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who } = allowed(context, request, 'plan:read')
	const today = todayAt(who.timeZone)
	const tests = await readTests(who, params.squadId, today)
	if (!tests) throw notFound()
	const ranked = new URL(request.url).searchParams.get('ranked') === 'yes'
	return { ...tests, today, ranked, mayPlan: may(who.role, 'plan:write') }
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const answer = (problems: Record<string, string>) => data({ problems }, { status: 400 })
	return actOn<Response | ReturnType<typeof answer>>(request, {
		add: async ({ text, form }) => {
			const column = (name: string) => form.getAll(name).map(String)
			const [amounts, methods, tries, uses] = ['amount', 'method', 'tries', 'use'].map(column) as [
				string[],
				string[],
				string[],
				string[],
			]
			const added = await addBattery(
				who,
				params.squadId,
				{
					name: text('name'),
					every: text('every'),
					items: column('drill').map((drillId, index) => ({
						drillId,
						amount: amounts[index] ?? '',
						method: methods[index] ?? '',
						tries: tries[index] ?? '',
						use: uses[index] ?? '',
					})),
				},
				new Date(),
			)
			if (!added) throw notFound()
			return 'problems' in added ? answer(added.problems) : redirect(`/squads/${params.squadId}/tests`)
		},
		plan: async ({ text }) => {
			const made = await planBattery(who, params.squadId, text('id'), text('day'), new Date())
			if (!made) throw notFound()
			return 'problems' in made
				? answer({ plan: Object.values(made.problems)[0] ?? '' })
				: redirect(`/sessions/${made.sessionId}`)
		},
		retire: async ({ text }) => {
			if (!(await setRetired(who, params.squadId, text('id'), text('retired') === 'yes'))) throw notFound()
			return redirect(`/squads/${params.squadId}/tests`)
		},
	})
}

const EVERY_WORDS: Record<Every, string> = {
	week: 'every week',
	block: 'at the end of a block',
	asked: 'when asked',
}

/** A squad's tests: against last time and the season, beyond noise or not, and what comes next. */
export default function SquadTests({ loaderData, actionData }: Route.ComponentProps) {
	const { squadId, squadName, batteries, testable, today, ranked, mayPlan } = loaderData
	const problems = actionData?.problems ?? noProblems
	const [on, off] = [batteries.filter(({ retired }) => !retired), batteries.filter(({ retired }) => retired)]
	return (
		<>
			<p className="dim">
				<Link className="link" to="/squads">
					{squadName}
				</Link>
			</p>
			<h1 className="mt-1">Tests</h1>
			{on.length === 0 && (
				<p className="mt-2 max-w-[62ch]">
					No tests yet. A battery is a few drills that are measured the same way each time, so that a squad knows what
					changed and what is noise.
				</p>
			)}
			{on.map((battery) => (
				<Battery key={battery.id} battery={battery} today={today} mayPlan={mayPlan} ranked={ranked} />
			))}
			{on.some(({ lastDay }) => lastDay !== null) && (
				<p className="mt-3 print:hidden">
					<Link className="link" to={ranked ? '?' : '?ranked=yes'} preventScrollReset>
						{ranked ? 'By name' : 'Rank them'}
					</Link>
				</p>
			)}
			{problems.plan && (
				<p className="problem mt-3" role="alert">
					{problems.plan}
				</p>
			)}
			{mayPlan && <AddBattery testable={testable} problems={problems} key={batteries.length} />}
			{off.length > 0 && (
				<section className="mt-8 print:hidden">
					<h2>Taken off</h2>
					<ul className="mt-2">
						{off.map((battery) => (
							<li key={battery.id} className="rule flex items-center justify-between gap-3 py-1">
								{battery.name}
								{mayPlan && (
									<PostForm preventScrollReset>
										<input type="hidden" name="id" value={battery.id} />
										<input type="hidden" name="retired" value="no" />
										<button className="link min-h-[44px]" name="do" value="retire">
											Put back
										</button>
									</PostForm>
								)}
							</li>
						))}
					</ul>
				</section>
			)}
			<p className="dim mt-6 max-w-[70ch] text-[14px]">
				Beyond noise is more than the smallest change that chance alone would show in one of twenty: from the squad’s
				own scatter where it has one, else from what the method usually errs. Only results on the same ground, by the
				same method and of the same side are compared.{' '}
				<Link className="link" to={`/squads/${squadId}/week`}>
					The week
				</Link>{' '}
				says when a test is due.
			</p>
		</>
	)
}

function Battery({
	battery,
	today,
	mayPlan,
	ranked,
}: {
	battery: BatteryPage
	today: string
	mayPlan: boolean
	ranked: boolean
}) {
	return (
		<section className="mt-6">
			<div className="flex flex-wrap items-end justify-between gap-3">
				<div>
					<h2 className="text-[18px]">
						{battery.name}
						{battery.due && <span className="ml-2 text-attn">due</span>}
					</h2>
					<p className="dim">
						{EVERY_WORDS[battery.every]} · {battery.lastDay ? `last ${shortDay(battery.lastDay)}` : 'not done yet'}
						{battery.next && (
							<>
								{' · '}
								<Link className="link" to={`/sessions/${battery.next.sessionId}`}>
									planned for {shortDay(battery.next.day)}
								</Link>
							</>
						)}
					</p>
				</div>
				{mayPlan && (
					<div className="flex flex-wrap items-end gap-2 print:hidden">
						<PostForm className="flex items-end gap-2">
							<input type="hidden" name="id" value={battery.id} />
							<label className="field">
								<span className="label">Day</span>
								<DayInput name="day" defaultValue={today} required />
							</label>
							<button className="btn" name="do" value="plan">
								Plan it
							</button>
						</PostForm>
						<PostForm preventScrollReset>
							<input type="hidden" name="id" value={battery.id} />
							<input type="hidden" name="retired" value="yes" />
							<button className="btn btn-quiet" name="do" value="retire">
								Take off
							</button>
						</PostForm>
					</div>
				)}
			</div>
			{battery.items.map((item) => (
				<Item key={item.name + item.how} item={item} ranked={ranked} />
			))}
		</section>
	)
}

function Item({ item, ranked }: { item: TestItem; ranked: boolean }) {
	const { asRead } = useUnits()
	const write = (value: number) => asRead(writeMark({ kind: item.kind, value }))
	const lower = betterOf(item.kind) === 'lower'
	const valueOf = (cell: TestCell) => cell.readings[0]?.reading.value ?? (lower ? Infinity : -Infinity)
	const people = ranked
		? [...item.people].sort((a, b) => (lower ? valueOf(a) - valueOf(b) : valueOf(b) - valueOf(a)))
		: item.people
	const done = people.filter(({ readings }) => readings.length > 0)
	return (
		<div className="mt-3">
			<p className="font-semibold">{asRead(item.words)}.</p>
			<p className="dim text-[13.5px]">{item.how}</p>
			{done.length > 0 && (
				<table className="mt-1 w-full max-w-[820px] text-left">
					<thead className="dim text-[13px]">
						<tr>
							{ranked && <th className="w-[36px] py-1 font-normal">Place</th>}
							<th className="py-1 font-normal">Athlete</th>
							<th className="py-1 text-right font-normal">Result</th>
							<th className="py-1 pl-4 font-normal">
								Against last time <WhatIs term="noise" />
							</th>
							<th className="py-1 pl-4 font-normal">Against the season</th>
						</tr>
					</thead>
					<tbody>
						{done.flatMap((cell, place) =>
							cell.readings.map(({ side, reading }, index) => (
								<tr key={`${cell.athleteId}${side}`} className="border-t border-chalk">
									{ranked && <td className="num">{index === 0 ? place + 1 : ''}</td>}
									<th scope="row" className="py-1.5 text-left font-semibold">
										{index === 0 && (
											<Link className="hover:underline" to={`/athletes/${cell.athleteId}`}>
												{cell.name}
											</Link>
										)}
										{side && <span className="dim font-normal"> {side}</span>}
									</th>
									<td className="num pl-3 text-right text-[16px] font-semibold whitespace-nowrap">
										{write(reading.value)}
									</td>
									<td className="pl-4">
										{reading.last ? (
											<Against of={reading.last} write={write} />
										) : (
											<span className="dim">first time</span>
										)}
									</td>
									<td className="pl-4">{reading.season && <Against of={reading.season} write={write} />}</td>
								</tr>
							)),
						)}
					</tbody>
				</table>
			)}
		</div>
	)
}

function Against({
	of,
	write,
}: {
	of: { gain: number; mdc: number; beyond: boolean }
	write: (value: number) => string
}) {
	return (
		<span className={of.beyond ? 'font-semibold' : 'dim'} title={`more than ${write(of.mdc)} is beyond noise`}>
			{of.gain >= 0 ? 'better' : 'worse'} by <span className="num whitespace-nowrap">{write(Math.abs(of.gain))}</span>,{' '}
			{of.beyond ? 'beyond noise' : `noise up to ${write(of.mdc).replace(' ', '\u00a0')}`}
		</span>
	)
}

function AddBattery({ testable, problems }: { testable: Testable[]; problems: Record<string, string> }) {
	const [rows, setRows] = useState(1)
	return (
		<details className="mt-8 print:hidden" open={Boolean(problems.name || problems.items || problems.every)}>
			<summary className="btn btn-quiet inline-flex cursor-pointer list-none">Add tests</summary>
			<PostForm className="mt-3 grid max-w-[860px] gap-3" keep="battery">
				<div className="grid gap-3 sm:grid-cols-2">
					<TextField label="Name" name="name" required problem={problems.name} />
					<label className="field">
						<span className="label">Done</span>
						<select className="input" name="every" defaultValue="block">
							{EVERY.map((every) => (
								<option key={every} value={every}>
									{EVERY_WORDS[every]}
								</option>
							))}
						</select>
					</label>
				</div>
				{Array.from({ length: rows }, (_, index) => (
					<TestRow key={index} number={index + 1} testable={testable} />
				))}
				{problems.items && (
					<p className="problem" role="alert">
						{problems.items}
					</p>
				)}
				<p className="flex flex-wrap gap-2">
					{rows < MOST_ITEMS && (
						<button type="button" className="btn btn-quiet" onClick={() => setRows(rows + 1)}>
							Another test
						</button>
					)}
					<button className="btn" name="do" value="add">
						Keep these tests
					</button>
				</p>
			</PostForm>
		</details>
	)
}

/** One test of the form: a drill, what of it varies, how it is taken, how often, and what counts. */
function TestRow({ number, testable }: { number: number; testable: Testable[] }) {
	return (
		<fieldset className="rule grid grid-cols-2 gap-3 pt-2 sm:grid-cols-[minmax(0,2fr)_110px_minmax(0,1.4fr)_80px_110px]">
			<legend className="sr-only">Test {number}</legend>
			<MeasuredFields label="Drill" testable={testable} />
			<label className="field">
				<span className="label">Tries</span>
				<select className="input" name="tries" defaultValue="3">
					{Array.from({ length: MOST_TRIES }, (_, index) => (
						<option key={index}>{index + 1}</option>
					))}
				</select>
			</label>
			<label className="field">
				<span className="label">Counts</span>
				<select className="input" name="use">
					<option value="mean">mean</option>
					<option value="best">best</option>
				</select>
			</label>
		</fieldset>
	)
}
