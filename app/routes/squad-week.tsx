import { Link } from 'react-router'
import { addDays } from '#core/calendar/day-count'
import { longDay, shortDay } from '#core/calendar/say-day'
import type { Against, WeekAmount, WeekRow } from '#core/record/week'
import { OVER_SHARE, UNDER_SHARE } from '#core/record/week'
import type { Quantity } from '#core/vocabulary/entry'
import { writePercent } from '#core/words/write-numbers'
import { todayAt } from '#server/clock'
import { mondayAsked, readWeek } from '#server/record/read-week'
import type { Route } from './+types/squad-week'
import { allowed, notFound } from '../request-guard'
import { WhatIs } from '../ui/what-is'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'The week · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who } = allowed(context, request, 'plan:read')
	const today = todayAt(who.timeZone)
	const monday = mondayAsked(new URL(request.url).searchParams.get('of'), today)
	const week = await readWeek(who, params.squadId, monday, today)
	if (!week) throw notFound()
	return { ...week, next: addDays(monday, 7) <= today ? addDays(monday, 7) : null, before: addDays(monday, -7) }
}

/** Rows that need no thought are shown on request where they are more than so many. */
const QUIET_SHOWN = 6

/** A squad's week on a page: who came, what they did against what was asked, and who needs a thought. */
export default function SquadWeek({ loaderData }: Route.ComponentProps) {
	const { squadId, squadName, monday, sessions, words, rows, outside, due, before, next } = loaderData
	const thought = rows.filter((row) => row.thought !== null)
	const quiet = rows.filter((row) => row.thought === null)
	const has = (quantity: Quantity) =>
		rows.some(({ amounts }) => amounts[quantity].done > 0 || amounts[quantity].asked > 0)
	const most = (quantity: Quantity) =>
		Math.max(1, ...rows.map(({ amounts }) => Math.max(amounts[quantity].done, amounts[quantity].asked * OVER_SHARE)))
	const columns = {
		contacts: has('contacts') ? most('contacts') : null,
		fastMetres: has('fastMetres') ? most('fastMetres') : null,
	}
	return (
		<div className="wide-page">
			<p className="dim">
				{squadName} · week of {longDay(monday)}
				<span className="print:hidden">
					{' · '}
					<Link className="link" to={`/squads/${squadId}/week?of=${before}`}>
						the week before
					</Link>
					{next && (
						<>
							{' · '}
							<Link className="link" to={`/squads/${squadId}/week?of=${next}`}>
								the week after
							</Link>
						</>
					)}
				</span>
			</p>
			<h1 className="mt-1">The week</h1>
			<p className="mt-1 max-w-[62ch] text-[18px] font-[560]" style={{ fontFamily: 'var(--font-head)' }}>
				{words}
			</p>
			{sessions.length > 0 && (
				<p className="mt-1">
					{sessions.map((session, index) => (
						<span key={session.id}>
							{index > 0 && ', '}
							<Link className="link" to={session.held ? `/sessions/${session.id}/done` : `/sessions/${session.id}`}>
								{shortDay(session.day)} {session.title.toLowerCase()}
							</Link>
							{!session.held && <span className="dim"> to come</span>}
						</span>
					))}
				</p>
			)}
			{due.length > 0 && (
				<p className="mt-1">
					<b>Due:</b>{' '}
					<Link className="link" to={`/squads/${squadId}/tests`}>
						{due.join(', ')}
					</Link>
				</p>
			)}
			{rows.length === 0 ? (
				<p className="rule dim mt-4 py-3">Nobody is in this squad yet.</p>
			) : (
				<table className="mt-4 w-full text-left lg:table-fixed">
					<thead className="dim text-[13px] max-lg:sr-only">
						<tr>
							<th className="w-[150px] py-1 print:w-[130px] font-normal">Athlete</th>
							<th className="w-[62px] py-1 font-normal">Came</th>
							{columns.contacts !== null && (
								<th className="w-[172px] py-1 print:w-[140px] font-normal">
									Contacts against asked <WhatIs term="contacts" />
								</th>
							)}
							{columns.fastMetres !== null && (
								<th className="w-[172px] py-1 print:w-[140px] font-normal">
									Fast metres against asked <WhatIs term="fastMetres" />
								</th>
							)}
							{has('cuts60') && <th className="w-[52px] py-1 text-right font-normal">Cuts</th>}
							{has('throws') && <th className="w-[62px] py-1 text-right font-normal">Throws</th>}
							<th className="w-[120px] py-1 pl-4 font-normal">
								Left · right <WhatIs term="leftRight" />
							</th>
							<th className="w-[130px] py-1 font-normal">Body</th>
							<th className="py-1 font-normal">Worth a thought</th>
						</tr>
					</thead>
					<tbody>
						{thought.map((row) => (
							<Row key={row.athleteId} row={row} columns={columns} cuts={has('cuts60')} throws={has('throws')} />
						))}
						{(quiet.length <= QUIET_SHOWN ? quiet : []).map((row) => (
							<Row key={row.athleteId} row={row} columns={columns} cuts={has('cuts60')} throws={has('throws')} />
						))}
					</tbody>
				</table>
			)}
			{quiet.length > QUIET_SHOWN && (
				<details className="mt-2">
					<summary className="link inline-flex min-h-[44px] items-center">
						{quiet.length} more, as asked and without anything to think about
					</summary>
					<table className="w-full text-left lg:table-fixed">
						<tbody>
							{quiet.map((row) => (
								<Row key={row.athleteId} row={row} columns={columns} cuts={has('cuts60')} throws={has('throws')} />
							))}
						</tbody>
					</table>
				</details>
			)}
			{outside.length > 0 && (
				<p className="mt-5 max-w-[62ch]">
					Outside: {outside.map((line) => `${shortDay(line.slice(0, 10))} ${line.slice(11).toLowerCase()}`).join('; ')}.
				</p>
			)}
			<p className="dim mt-3 max-w-[70ch] text-[14px]">
				Asked is what stood on the sheets of the sessions that were held, athlete by athlete. Over is more than{' '}
				{Math.round(100 * (OVER_SHARE - 1))} % above it, under more than {Math.round(100 * (1 - UNDER_SHARE))} % below,
				a set of work either way left out.
			</p>
		</div>
	)
}

function Row({
	row,
	columns,
	cuts,
	throws,
}: {
	row: WeekRow
	columns: { contacts: number | null; fastMetres: number | null }
	cuts: boolean
	throws: boolean
}) {
	const { asRead } = useUnits()
	const { athleteId, name, came, down, amounts, against, gap, bodyWords, thought, outside, newThings } = row
	return (
		<tr className="border-t border-chalk max-lg:grid max-lg:grid-cols-[1fr_auto] max-lg:gap-x-3 max-lg:py-2">
			<th scope="row" className="py-2 pr-3 text-left font-semibold max-lg:py-0">
				<Link className="hover:underline" to={`/athletes/${athleteId}`}>
					{name}
				</Link>
			</th>
			<td className="num pr-3 max-lg:text-right">
				{down === 0 ? <span className="dim">not down</span> : `${came} of ${down}`}
			</td>
			{columns.contacts !== null && (
				<Amount label="contacts" amount={amounts.contacts} is={against.contacts} most={columns.contacts} />
			)}
			{columns.fastMetres !== null && (
				<Amount label="fast metres" amount={amounts.fastMetres} is={against.fastMetres} most={columns.fastMetres} />
			)}
			{cuts && <Plain label="cuts" amount={amounts.cuts60} is={against.cuts60} />}
			{throws && <Plain label="throws" amount={amounts.throws} is={against.throws} />}
			<td className="pl-4 text-[13.5px] max-lg:col-span-2 max-lg:pl-0">
				{gap && (
					<span className={gap.beyond ? '' : 'dim'} title={gap.what}>
						{gap.ahead} ahead <span className="whitespace-nowrap">{writePercent(gap.percent)},</span>{' '}
						{gap.beyond ? `${gap.times} ${gap.times === 1 ? 'time' : 'times'}` : 'inside noise'}
					</span>
				)}
			</td>
			<td className={`pr-3 text-[13.5px] max-lg:col-span-2 ${bodyWords === 'quiet' ? 'dim' : ''}`}>
				{bodyWords}
				{outside.length > 0 && <span className="dim block">{outside.join('; ')}</span>}
			</td>
			<td className="py-1 text-[14px] max-lg:col-span-2">
				<b>{thought}</b>
				{newThings.length > 0 && <span className="dim block">new: {asRead(newThings.join(', '))}</span>}
			</td>
		</tr>
	)
}

/** Done as a pointer on a line, what was asked as the bracket above it. */
function Amount({ label, amount, is, most }: { label: string; amount: WeekAmount; is: Against; most: number }) {
	const at = (value: number) => `${2 + (96 * Math.min(value, most)) / most}%`
	const [low, high] = [amount.asked * UNDER_SHARE, amount.asked * OVER_SHARE]
	return (
		<td className="pr-3 max-lg:col-span-2">
			<span className="flex items-center gap-2">
				<span className="dim w-[84px] text-[13px] lg:hidden">{label}</span>
				<svg
					className="block h-[26px] w-full min-w-0 flex-1"
					role="img"
					aria-label={`${amount.done} ${label} of ${amount.asked} asked, ${is}`}
				>
					<line x1="2%" x2="98%" y1="20" y2="20" stroke="var(--color-ink-2)" />
					{amount.asked > 0 && (
						<>
							<line x1={at(low)} x2={at(high)} y1="6" y2="6" stroke="var(--color-ink)" strokeWidth="1.5" />
							<line x1={at(low)} x2={at(low)} y1="6" y2="11" stroke="var(--color-ink)" strokeWidth="1.5" />
							<line x1={at(high)} x2={at(high)} y1="6" y2="11" stroke="var(--color-ink)" strokeWidth="1.5" />
						</>
					)}
					<svg x={at(amount.done)} overflow="visible">
						<path d="M0 20l-5 -9h10z" fill={is === 'over' ? 'var(--color-attn)' : 'var(--color-ink)'} />
					</svg>
				</svg>
				<span className={`num w-[34px] text-right ${is === 'over' ? 'font-bold text-attn' : ''}`}>{amount.done}</span>
				<span className="dim w-[38px] text-[12.5px]">{is === 'over' || is === 'under' ? is : ''}</span>
			</span>
		</td>
	)
}
function Plain({ label, amount, is }: { label: string; amount: WeekAmount; is: Against }) {
	return (
		<td className="num pr-1 text-right max-lg:text-left">
			<span className={is === 'over' ? 'font-bold text-attn' : ''} title={`${amount.asked} asked`}>
				{amount.done}
			</span>
			<span className="dim lg:hidden"> {label}</span>
			{(is === 'over' || is === 'under') && <span className="dim block text-[12.5px]">{is}</span>}
		</td>
	)
}
