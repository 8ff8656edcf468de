import { Link, data } from 'react-router'
import { longDate } from '#core/calendar/say-day'
import { plain } from '#core/roster/plain-words'
import { HISTORY_FIELDS, HISTORY_FIELD_NAMES } from '#core/roster/read-history'
import { readDay } from '#core/roster/read-date'
import type { MarkKind } from '#core/noise/typical-error'
import { METHODS_OF, METHOD_NAMES, SURFACES } from '#core/vocabulary/words'
import { todayAt } from '#server/clock'
import {
	type LookedHistory,
	type TypedHistory,
	lookAtHistory,
	readHistoryPage,
	takeHistory,
} from '#server/squads/import-history'
import type { Route } from './+types/squad-history'
import { type Sent, actOn } from '../intents'
import { allowed, notFound } from '../request-guard'
import { PasteOrFile } from '../ui/paste-or-file'
import { PostForm } from '../ui/post-form'

export const meta: Route.MetaFunction = () => [{ title: 'Bring results · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'people:write')
	const page = await readHistoryPage(scope, params.squadId)
	if (!page) throw notFound()
	return { ...page, today: todayAt(who.timeZone) }
}

interface HistoryAnswer {
	text: string
	problem: string | null
	looked: LookedHistory | null
	taken: { taken: number; there: number; left: number } | null
}

/** What a form of words chooses, by the words: "drill" beside "words", row by row. */
const typedHistory = ({ text, form }: Sent, isChanged: boolean): TypedHistory => {
	const [words, drills] = [form.getAll('words').map(String), form.getAll('drill').map(String)]
	return {
		text: text('text'),
		columns: isChanged || !form.has('column') ? null : form.getAll('column').map(String),
		order: isChanged || text('order') === '' ? null : text('order'),
		drills: Object.fromEntries(words.map((one, index) => [plain(one), drills[index] ?? ''])),
		methods: Object.fromEntries(Object.keys(METHODS_OF).map((kind) => [kind, text(`method-${kind}`)])),
		surface: text('surface'),
	}
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who, scope } = allowed(context, request, 'people:write')
	const look = async (sent: Sent) => {
		const typed = typedHistory(sent, sent.text('text') !== sent.text('looked'))
		const looked = await lookAtHistory(scope, params.squadId, typed, todayAt(who.timeZone))
		if (!looked) throw notFound()
		return 'problem' in looked
			? data<HistoryAnswer>({ text: typed.text, problem: looked.problem, looked: null, taken: null }, { status: 400 })
			: data<HistoryAnswer>({ text: typed.text, problem: null, looked, taken: null })
	}
	return actOn(request, {
		look,
		take: async (sent) => {
			// What is taken is what was seen.
			if (sent.text('text') !== sent.text('looked')) return look(sent)
			const typed = typedHistory(sent, false)
			const taken = await takeHistory(who, params.squadId, typed, new Date())
			if (!taken) throw notFound()
			return 'problem' in taken
				? data<HistoryAnswer>({ text: typed.text, problem: taken.problem, looked: null, taken: null }, { status: 400 })
				: data<HistoryAnswer>({ text: '', problem: null, looked: null, taken })
		},
	})
}

const KIND_WORDS: Record<MarkKind, string> = {
	sprint: 'Times were taken by',
	contact: 'Contacts were taken by',
	height: 'Heights were taken by',
	distance: 'Lengths were taken by',
}
const results = (count: number) => (count === 1 ? 'one result' : `${count} results`)

export default function SquadHistory({ loaderData, actionData }: Route.ComponentProps) {
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
			<h1 className="mt-1">Bring results</h1>
			<p className="mt-1 max-w-[70ch]">
				Times, jumps and throws of years, out of a spreadsheet: a row a result, with athlete, day, drill and what it
				came to, or a row a day with a column for each test. Nothing is written before you have seen what was read.
			</p>
			{taken && (
				<div className="mt-5 border-l-4 border-ink pl-3" role="status">
					<p>
						<b>
							{`${results(taken.taken)} taken`.replace(/^./, (letter) => letter.toUpperCase())}
							{taken.there > 0 && `, ${results(taken.there)} had been there already`}
							{taken.left > 0 && `, ${taken.left === 1 ? 'one row' : `${taken.left} rows`} left out`}.
						</b>
					</p>
					<p className="mt-2 flex flex-wrap gap-3">
						<Link className="btn" to={`/squads/${squad.id}/placing`}>
							Say where they stand
						</Link>
						<Link className="btn btn-quiet" to="/squads">
							Squads
						</Link>
					</p>
				</div>
			)}
			<PostForm preventScrollReset className="mt-5 grid gap-4" key={taken ? 'again' : 'list'} keep="history">
				<PasteOrFile
					label="The results"
					placeholder={'Athlete, Date, Drill, Result\nAda Sørli, 31.5.2025, Standing start 10 m, 1.92'}
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
						<WhatWasRead looked={looked} today={today} />
					</>
				)}
			</PostForm>
		</>
	)
}

/** What the words of the list mean, and what came of its rows. */
function WhatWasRead({ looked, today }: { looked: LookedHistory; today: string }) {
	const { columns, headings, isFolded, order, unclear, groups, methods, faults, moreFaults, fresh, there } = looked
	const left = faults.length + moreFaults
	const asked = groups.filter(({ drillId }) => drillId === '').length
	return (
		<section aria-label="What was read" className="grid gap-4 border-t-2 border-ink pt-3">
			<h2>
				{[
					`${results(fresh)} to take`,
					...(there > 0 ? [`${there} there already`] : []),
					...(left > 0 ? [`${left} ${left === 1 ? 'row' : 'rows'} with something that cannot be read`] : []),
				].join(', ')}
			</h2>
			{!isFolded && (
				<fieldset className="flex flex-wrap gap-3">
					<legend className="sr-only">What each column is</legend>
					{columns.map((field, index) => (
						<label key={index} className="field w-[170px]">
							<span className="label truncate">{headings[index]}</span>
							<select name="column" className="input" defaultValue={field}>
								{HISTORY_FIELDS.map((one) => (
									<option key={one} value={one}>
										{HISTORY_FIELD_NAMES[one]}
									</option>
								))}
							</select>
						</label>
					))}
				</fieldset>
			)}
			<div className="flex flex-wrap items-end gap-3">
				{unclear.length > 0 ? (
					<label className="field w-[220px]">
						<span className="label">{unclear[0]} is</span>
						<select name="order" className="input" defaultValue={order}>
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
				{methods.map(({ kind, method }) => (
					<label key={kind} className="field w-[220px]">
						<span className="label">{KIND_WORDS[kind]}</span>
						<select name={`method-${kind}`} className="input" defaultValue={method}>
							{METHODS_OF[kind].map((one) => (
								<option key={one} value={one}>
									{METHOD_NAMES[one]}
								</option>
							))}
						</select>
					</label>
				))}
				<label className="field w-[160px]">
					<span className="label">Under foot</span>
					<select name="surface" className="input" defaultValue={looked.surface}>
						<option value="">not known</option>
						{SURFACES.map((surface) => (
							<option key={surface} value={surface}>
								{surface.replace('-', ' ')}
							</option>
						))}
					</select>
				</label>
			</div>
			<div className="overflow-x-auto" role="region" aria-label="Drills of the list" tabIndex={0}>
				<table className="min-w-full border-collapse text-[15px]">
					<thead>
						<tr className="dim text-left text-[13px]">
							<th className="py-1 pr-3 font-normal">In the list</th>
							<th className="py-1 pr-3 font-normal">Which drill it is</th>
							<th className="py-1 pr-3 text-right font-normal">Rows</th>
							<th className="py-1 pr-3 text-right font-normal">Read</th>
							<th className="py-1 text-right font-normal">Athletes</th>
						</tr>
					</thead>
					<tbody>
						{groups.map((group) => (
							<tr key={group.words} className="border-t border-chalk">
								<th scope="row" className="py-1 pr-3 text-left font-bold">
									{group.words || 'nothing'}
									<input type="hidden" name="words" value={group.words} />
								</th>
								<td className="py-1 pr-3">
									<select
										name="drill"
										className={`input min-w-[220px] ${group.drillId === '' ? 'border-attn' : ''}`}
										defaultValue={group.drillId}
										aria-label={`Which drill “${group.words}” is`}
									>
										<option value="">pick one</option>
										<option value="none">not taken</option>
										{looked.drills.map(({ drillId, name }) => (
											<option key={drillId} value={drillId}>
												{name}
											</option>
										))}
									</select>
								</td>
								<td className="num py-1 pr-3 text-right">{group.rows}</td>
								<td className="num py-1 pr-3 text-right">{group.results}</td>
								<td className="num py-1 text-right">{group.people}</td>
							</tr>
						))}
					</tbody>
				</table>
			</div>
			{asked > 0 && (
				<p>
					<b>{asked === 1 ? 'One drill is' : `${asked} drills are`} not told by its words.</b> Pick which it is and look
					again.
				</p>
			)}
			{faults.length > 0 && (
				<div className="overflow-x-auto" role="region" aria-label="Rows that cannot be read" tabIndex={0}>
					<table className="min-w-full border-collapse text-[15px]">
						<tbody>
							{faults.map((row, index) => (
								<tr key={index} className="border-t border-chalk align-top">
									<td className="dim num py-1.5 pr-3">{row.line}</td>
									<td className="py-1.5 pr-3">{row.cells.join(' · ')}</td>
									<td className="problem py-1.5">{row.problems.map(({ words }) => words).join(' ')}</td>
								</tr>
							))}
						</tbody>
					</table>
					{moreFaults > 0 && <p className="dim mt-1">And {moreFaults} more.</p>}
				</div>
			)}
			<div className="flex flex-wrap items-center gap-3">
				{fresh > 0 ? (
					<button className="btn" name="do" value="take">
						Take {results(fresh)}
					</button>
				) : (
					<b>There is nothing to take.</b>
				)}
				<span className="dim text-[14px]">Changed something? Look at it again.</span>
			</div>
		</section>
	)
}
