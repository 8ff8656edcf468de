import { Link, data } from 'react-router'
import { ROSTER_FIELDS, ROSTER_FIELD_NAMES } from '#core/roster/read-roster'
import { longDate } from '#core/calendar/say-day'
import { readDay } from '#core/roster/read-date'
import { todayAt } from '#server/clock'
import {
	type LookedRoster,
	type TakenRoster,
	type TypedRoster,
	lookAtRoster,
	readRosterPage,
	takeRoster,
} from '#server/squads/import-roster'
import type { Route } from './+types/squad-list'
import { type Sent, actOn } from '../intents'
import { allowed, notFound } from '../request-guard'
import { PasteOrFile } from '../ui/paste-or-file'
import { PostForm } from '../ui/post-form'

export const meta: Route.MetaFunction = () => [{ title: 'Bring a list · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who } = allowed(context, request, 'people:write')
	const page = await readRosterPage(who, params.squadId)
	if (!page) throw notFound()
	return { ...page, today: todayAt(who.timeZone) }
}

interface ListAnswer {
	text: string
	problem: string | null
	looked: LookedRoster | null
	taken: TakenRoster | null
}

const typedRoster = ({ text, form }: Sent, isChanged: boolean): TypedRoster => ({
	text: text('text'),
	// Columns are those of the list that was looked at: another list has its own.
	columns: isChanged || !form.has('column') ? null : form.getAll('column').map(String),
	hasHeading: isChanged || !form.has('looked') ? null : form.has('heading'),
	order: isChanged || text('order') === '' ? null : text('order'),
})

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who, scope } = allowed(context, request, 'people:write')
	const today = todayAt(who.timeZone)
	const look = async (sent: Sent) => {
		const typed = typedRoster(sent, sent.text('text') !== sent.text('looked'))
		const looked = await lookAtRoster(scope, params.squadId, typed, today)
		if (!looked) throw notFound()
		return 'problem' in looked
			? data<ListAnswer>({ text: typed.text, problem: looked.problem, looked: null, taken: null }, { status: 400 })
			: data<ListAnswer>({ text: typed.text, problem: null, looked, taken: null })
	}
	return actOn(request, {
		look,
		take: async (sent) => {
			// What is added is what was seen.
			if (sent.text('text') !== sent.text('looked')) return look(sent)
			const taken = await takeRoster(who, params.squadId, typedRoster(sent, false), new Date())
			if (!taken) throw notFound()
			return 'problem' in taken
				? data<ListAnswer>(
						{ text: sent.text('text'), problem: taken.problem, looked: null, taken: null },
						{ status: 400 },
					)
				: data<ListAnswer>({ text: '', problem: null, looked: null, taken })
		},
	})
}

const people = (count: number) => (count === 1 ? 'one' : String(count))

export default function SquadList({ loaderData, actionData }: Route.ComponentProps) {
	const { squad, today } = loaderData
	const { looked, taken } = actionData ?? { looked: null, taken: null }
	return (
		<>
			<p className="dim">
				<Link className="link" to="/squads">
					Squads
				</Link>{' '}
				· {squad.name}
			</p>
			<h1 className="mt-1">Bring a list</h1>
			<p className="mt-1 max-w-[70ch]">
				Copy the rows out of a spreadsheet and paste them, or choose a CSV file. A row a person: a name, and what you
				have of birth date, mass, leg length, level, squad and whom to call. Nothing is written before you have seen
				what was read.
			</p>
			{taken && (
				<div className="mt-5 border-l-4 border-ink pl-3" role="status">
					<p>
						<b>{sayTaken(taken, squad.name)}</b>
					</p>
					<p className="mt-2 flex flex-wrap gap-3">
						<Link className="btn" to={`/squads/${squad.id}/placing`}>
							Say where they stand
						</Link>
						<Link className="btn btn-quiet" to={`/squads/${squad.id}/history`}>
							Bring their results
						</Link>
					</p>
				</div>
			)}
			<PostForm preventScrollReset className="mt-5 grid gap-4" key={taken ? 'again' : 'list'} keep="list">
				<PasteOrFile
					label="The list"
					placeholder={'Name, Born, Mass\nAda Sørli, 31.5.2009, 52\nTomé Vaz, 2001-02-11'}
					text={actionData?.text ?? ''}
					isShort={looked !== null}
				/>
				{actionData?.problem && (
					<p className="problem" role="alert">
						{actionData.problem}
					</p>
				)}
				<button className="btn justify-self-start" name="do" value="look">
					{looked ? 'Look at it again' : 'Look at it'}
				</button>
				{looked && (
					<>
						<input type="hidden" name="looked" value={actionData?.text ?? ''} />
						<WhatWasRead looked={looked} squadName={squad.name} today={today} />
					</>
				)}
			</PostForm>
		</>
	)
}

function sayTaken({ added, joined, there, left }: TakenRoster, squad: string): string {
	return [
		added > 0 || joined === 0 ? `${added === 0 ? 'Nobody' : people(added)} added` : '',
		joined > 0 ? `${people(joined)} of the club joined ${squad}` : '',
		there > 0 ? `${people(there)} had been there already` : '',
		left > 0 ? `${people(left)} left out` : '',
	]
		.filter(Boolean)
		.join(', ')
		.replace(/^./, (letter) => letter.toUpperCase())
		.concat('.')
}

/** The list as it was understood: what each column is, each row with what happens to it, bad cells by name. */
function WhatWasRead({ looked, squadName, today }: { looked: LookedRoster; squadName: string; today: string }) {
	const { rows, columns, headings, hasHeading, order, unclear } = looked
	const bad = rows.filter(({ person }) => person === null)
	const fresh = rows.filter(({ person, known, sameAs }) => person && !known && sameAs === null)
	const joining = rows.filter(({ known, sameAs }) => known && !known.inSquad && sameAs === null)
	const there = rows.length - bad.length - fresh.length - joining.length
	const say = [
		`${fresh.length} new`,
		...(joining.length > 0 ? [`${joining.length} of the club ${joining.length === 1 ? 'joins' : 'join'}`] : []),
		...(there > 0 ? [`${there} there already`] : []),
		...(bad.length > 0 ? [`${bad.length} with something that cannot be read`] : []),
	]
	return (
		<section aria-label="What was read" className="grid gap-4 border-t-2 border-ink pt-3">
			<h2>{`${rows.length} ${rows.length === 1 ? 'row' : 'rows'}: ${say.join(', ')}`}</h2>
			<div className="flex flex-wrap items-center gap-x-6 gap-y-2">
				<label className="flex min-h-[44px] items-center gap-2">
					<input type="checkbox" name="heading" defaultChecked={hasHeading} className="size-5 accent-act" />
					The first row is a heading
				</label>
				{unclear.length > 0 ? (
					<label className="flex flex-wrap items-center gap-2">
						<span>
							<b>{unclear[0]}</b> is
						</span>
						<select name="order" className="input w-auto" defaultValue={order}>
							{(['day-first', 'month-first'] as const).map((one) => (
								<option key={one} value={one}>
									{longDate(readDay(unclear[0]!, one, today)!)}
								</option>
							))}
						</select>
					</label>
				) : (
					<input type="hidden" name="order" value={order} />
				)}
				<span className="dim text-[14px]">Changed something? Look at it again.</span>
			</div>
			<div className="overflow-x-auto" role="region" aria-label="Rows of the list" tabIndex={0}>
				<table className="min-w-full border-collapse text-[15px]">
					<thead>
						<tr className="text-left align-bottom">
							<th className="py-1 pr-3 font-normal">
								<span className="dim text-[13px]">Line</span>
							</th>
							<th className="py-1 pr-3 font-normal">
								<span className="dim text-[13px]">What happens</span>
							</th>
							{columns.map((field, index) => (
								<th key={index} className="min-w-[130px] px-1.5 py-1 font-normal">
									<span className="dim block truncate text-[13px]">{headings[index] ?? `Column ${index + 1}`}</span>
									<select
										name="column"
										className="input"
										defaultValue={field}
										aria-label={`What column ${index + 1} is`}
									>
										{ROSTER_FIELDS.map((one) => (
											<option key={one} value={one}>
												{ROSTER_FIELD_NAMES[one]}
											</option>
										))}
									</select>
								</th>
							))}
						</tr>
					</thead>
					<tbody>
						{rows.map((row) => (
							<tr key={row.line} className="border-t border-chalk align-top">
								<td className="dim num py-1.5 pr-3">{row.line}</td>
								<td className="py-1.5 pr-3 whitespace-nowrap">
									{row.person === null ? (
										<b className="problem">left out</b>
									) : row.sameAs !== null ? (
										<span className="dim">the same as line {row.sameAs}</span>
									) : row.known?.inSquad ? (
										<span className="dim">there already</span>
									) : row.known ? (
										'joins the squad'
									) : (
										<b>new</b>
									)}
									{row.problems
										.filter(({ column }) => column === null)
										.map(({ words }) => (
											<span key={words} className="problem block">
												{words}
											</span>
										))}
								</td>
								{columns.map((field, index) => {
									const problem = row.problems.find(({ column }) => column === index)
									return (
										<td
											key={index}
											className={`max-w-[260px] px-1.5 py-1.5 ${field === 'ignore' ? 'dim line-through' : ''}`}
										>
											<span className={problem ? 'font-bold' : ''}>{row.cells[index] ?? ''}</span>
											{field === 'born' && row.person?.birthDate && row.cells[index] !== row.person.birthDate && (
												<span className="dim block text-[13px]">{longDate(row.person.birthDate)}</span>
											)}
											{problem && <span className="problem block">{problem.words}</span>}
										</td>
									)
								})}
							</tr>
						))}
					</tbody>
				</table>
			</div>
			{fresh.length + joining.length > 0 ? (
				<div className="flex flex-wrap items-center gap-3">
					<button className="btn" name="do" value="take">
						{fresh.length > 0 ? `Add ${fresh.length} to ${squadName}` : `Let ${joining.length} join ${squadName}`}
					</button>
					{bad.length > 0 && (
						<span>
							{bad.length === 1 ? 'One row is' : `${bad.length} rows are`} left out. To take them too, put them right in
							the list above and look again.
						</span>
					)}
				</div>
			) : (
				<p>
					<b>There is nobody to add.</b>
				</p>
			)}
		</section>
	)
}
