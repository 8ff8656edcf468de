import { useState } from 'react'
import { Form, Link, data, useNavigation } from 'react-router'
import { OPEN_KINDS } from '#core/open-data/document'
import { todayAt } from '#server/clock'
import { type OpenLook, lookAtOpenFiles, takeOpenFiles } from '#server/open-data/import-data'
import type { Route } from './+types/club-data'
import { noteDeed } from '#server/access/change-club'
import { type Sent, actOn } from '../intents'
import { allowed } from '../request-guard'
import { DayInput } from '../ui/day-input'

export const meta: Route.MetaFunction = () => [{ title: 'Data out and in · Dromos' }]

export function loader({ context, request }: Route.LoaderArgs) {
	const { who } = allowed(context, request, 'people:write')
	const today = todayAt(who.timeZone)
	return { club: who.clubName, from: `${Number(today.slice(0, 4)) - 1}${today.slice(4)}`, to: today }
}

interface DataAnswer {
	looked: OpenLook
	/** It was brought in, and not only looked at. */
	taken: boolean
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who, scope } = allowed(context, request, 'people:write')
	const files = ({ form }: Sent) =>
		Promise.all(
			form
				.getAll('file')
				.flatMap((file) =>
					file instanceof File ? [file.text().then((text) => ({ name: file.name.slice(0, 80), text }))] : [],
				),
		)
	const answer = (looked: OpenLook, taken: boolean) =>
		data<DataAnswer>({ looked, taken }, { status: looked.problems.length > 0 ? 400 : 200 })
	return actOn(request, {
		look: async (sent) => answer(await lookAtOpenFiles(scope, await files(sent)), false),
		take: async (sent) => {
			const looked = await takeOpenFiles(who, await files(sent), new Date())
			if (looked.problems.length === 0) await noteDeed(scope, who, 'imported', 'data of a club', new Date())
			return answer(looked, true)
		},
	})
}

const KIND_WORDS: Record<(typeof OPEN_KINDS)[number], string> = {
	squads: 'who trains together, when and where',
	athletes: 'names, birth dates, levels, squads, whom to call',
	sessions: 'day, time, place, who was down for it',
	entries: 'what each session asked for, drill by drill',
	lines: 'what each athlete was given, and why it changed',
	tests: 'the tests of a squad, and the sessions they were done in',
	marks: 'everything that was measured or ticked off',
}

/** A club's work as files for other programs, and back. */
export default function ClubData({ loaderData, actionData }: Route.ComponentProps) {
	const { club } = loaderData
	const [span, setSpan] = useState({ from: loaderData.from, to: loaderData.to })
	const [looksAt, setLooksAt] = useState<OpenLook | null>(null)
	const isBusy = useNavigation().state !== 'idle'
	const query = new URLSearchParams(span).toString()
	const looked = actionData?.looked ?? null
	// What is brought in is what was looked at: another choice of files is looked at first.
	const isLooked = looked !== null && looked !== looksAt && !actionData?.taken && looked.problems.length === 0
	const news = looked?.counts.filter(({ fresh }) => fresh > 0) ?? []
	return (
		<>
			<p className="dim">
				<Link className="link" to="/club">
					{club}
				</Link>
			</p>
			<h1 className="mt-1">Data out and in</h1>
			<p className="mt-2 max-w-[62ch]">
				Who there is, what was planned for whom and what was measured, for a spreadsheet or another program. Nothing of
				anybody’s health is in it; birth dates and telephone numbers are, so keep the files as you would keep those.
			</p>
			<section className="mt-7 max-w-[820px]">
				<h2>Out</h2>
				<div className="mt-2 flex flex-wrap items-end gap-3">
					{(['from', 'to'] as const).map((side) => (
						<label key={side} className="field w-[170px]">
							<span className="label">{side === 'from' ? 'Sessions from' : 'to'}</span>
							<DayInput value={span[side]} onValue={(day) => setSpan({ ...span, [side]: day })} />
						</label>
					))}
					<a className="btn" href={`/club/data/all.json?${query}`} download>
						All of it, JSON
					</a>
				</div>
				<ul className="mt-3">
					{OPEN_KINDS.map((kind) => (
						<li key={kind} className="rule grid grid-cols-[1fr_auto] items-center gap-x-4 py-1">
							<span>
								<b>{kind[0]!.toUpperCase() + kind.slice(1)}</b> <span className="dim">{KIND_WORDS[kind]}</span>
							</span>
							<a
								className="link inline-flex min-h-[44px] items-center"
								href={`/club/data/${kind}.csv?${query}`}
								download
								aria-label={`${kind}, CSV`}
							>
								CSV
							</a>
						</li>
					))}
				</ul>
				<p className="dim mt-3 text-[14px]">
					<a className="link" href="/club/data/schema.json">
						The schema of it
					</a>
				</p>
			</section>
			<section className="mt-7 max-w-[820px]">
				<h2>In</h2>
				<p className="mt-1 max-w-[62ch]">
					The JSON, or any of the tables. What the club has already stays as it is, what is new is added, all of it or
					nothing. Sessions nobody has begun get lines of this club’s own.
				</p>
				<Form
					method="post"
					encType="multipart/form-data"
					className="mt-3 grid gap-3 justify-items-start"
					onChange={() => setLooksAt(looked)}
				>
					<label className="field w-full max-w-[440px]">
						<span className="label">Files</span>
						<input
							className="input"
							type="file"
							name="file"
							multiple
							required
							accept=".json,.csv,application/json,text/csv"
						/>
					</label>
					<div className="flex flex-wrap gap-3">
						<button className={isLooked ? 'btn btn-quiet' : 'btn'} name="do" value="look" disabled={isBusy}>
							See what it would do
						</button>
						{isLooked && news.length > 0 && (
							<button className="btn" name="do" value="take" disabled={isBusy}>
								Bring it in
							</button>
						)}
					</div>
				</Form>
				{looked && (looked !== looksAt || actionData?.taken) && <Looked looked={looked} taken={actionData!.taken} />}
			</section>
		</>
	)
}

function Looked({ looked: { counts, problems, moreProblems }, taken }: { looked: OpenLook; taken: boolean }) {
	const some = counts.filter(({ fresh, there, anew }) => fresh + there + anew > 0)
	if (problems.length > 0)
		return (
			<div className="mt-4" role="alert">
				<p className="problem">Nothing was brought in.</p>
				<table className="mt-2 w-full text-left text-[15px]">
					<thead className="dim text-[13px]">
						<tr>
							<th className="w-[90px] py-1 font-normal">Table</th>
							<th className="w-[70px] py-1 font-normal">Row</th>
							<th className="w-[140px] py-1 font-normal">Field</th>
							<th className="py-1 font-normal">What</th>
						</tr>
					</thead>
					<tbody>
						{problems.map(({ kind, record, field, words }, index) => (
							<tr key={index} className="rule align-top">
								<td className="py-1 pr-3">{kind ?? ''}</td>
								<td className="num py-1 pr-3">{record > 0 ? record : ''}</td>
								<td className="py-1 pr-3">{field}</td>
								<td className="py-1">{words}</td>
							</tr>
						))}
					</tbody>
				</table>
				{moreProblems > 0 && <p className="dim mt-1">And {moreProblems} more.</p>}
			</div>
		)
	return (
		<div className="mt-4" role="status">
			<p className="font-semibold">
				{taken
					? 'It is in.'
					: some.some(({ fresh }) => fresh > 0)
						? 'Nothing is written yet. It would add:'
						: 'All of it is here already.'}
			</p>
			<table className="mt-2 w-full max-w-[560px] text-left text-[15px]">
				<thead className="dim text-[13px]">
					<tr>
						<th className="py-1 font-normal">Table</th>
						<th className="py-1 text-right font-normal">{taken ? 'Added' : 'New'}</th>
						<th className="py-1 text-right font-normal">Here already</th>
						<th className="py-1 text-right font-normal">Written anew here</th>
					</tr>
				</thead>
				<tbody>
					{some.map(({ kind, fresh, there, anew }) => (
						<tr key={kind} className="rule">
							<th scope="row" className="py-1 font-semibold">
								{kind}
							</th>
							<td className="num py-1 text-right">{fresh}</td>
							<td className="num py-1 text-right">{there}</td>
							<td className="num py-1 text-right">{anew > 0 ? anew : ''}</td>
						</tr>
					))}
				</tbody>
			</table>
		</div>
	)
}
