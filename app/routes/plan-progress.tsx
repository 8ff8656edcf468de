import { Link, data } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import { QUANTITIES, type Quantity } from '#core/vocabulary/entry'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { readBlockProgress, replanBlock } from '#server/plan/block-progress'
import { type BlockReview, readBlockReview } from '#server/record/read-block-review'
import type { Route } from './+types/plan-progress'
import { allowed, notFound } from '../request-guard'
import { PostForm } from '../ui/post-form'
import { useUnits } from '../field/units'
import { WhatIs } from '../ui/what-is'

export const meta: Route.MetaFunction = () => [{ title: 'Block · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const progress = await readBlockProgress(scope, params.blockId, todayAt(who.timeZone))
	if (!progress) throw notFound()
	const { block, ...rest } = progress
	const review = await readBlockReview(who, params.blockId, todayAt(who.timeZone))
	return { ...rest, review, blockId: block.id, start: block.start, mayPlan: may(who.role, 'plan:write') }
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const done = await replanBlock(who, params.blockId, todayAt(who.timeZone), new Date())
	if (!done) throw notFound()
	return data(done, { status: 'problem' in done ? 400 : 200 })
}

const HEADS: Record<Quantity, string> = {
	fastMetres: 'Fast metres',
	contacts: 'Contacts',
	cuts60: 'Cuts',
	throws: 'Throws',
}

/** A block as the weeks pass: what was asked, what stands on the sheets and what was done, for one athlete in the mean. */
export default function PlanProgress({ loaderData, actionData }: Route.ComponentProps) {
	const { squadName, start, weeks, replan, mayPlan, review, blockId } = loaderData
	const missed = weeks.filter((week) => week.missed)
	return (
		<>
			<p className="dim">
				<Link className="link" to="/plan">
					Plan
				</Link>
			</p>
			<h1 className="mt-1">
				{squadName}: {weeks.length} weeks from {shortDay(start)}
			</h1>
			<p className="dim mt-1 max-w-[680px]">
				For one athlete in the mean. Asked is the target of the level, written what stands on the sheets, done what was
				logged.
			</p>
			{replan && (
				<section className="mt-4 border-y-[1.5px] border-ink py-3">
					<p>
						<b>
							{missed.length === 1
								? `Week ${missed[0]!.week} was missed.`
								: `Weeks ${missed.map((week) => week.week).join(', ')} were missed.`}
						</b>{' '}
						The rest of the block, so that nobody comes back to more than the ramp allows:
					</p>
					<p className="num mt-1 text-[17px]">
						{weeks
							.map((week, index) => ({ week, load: replan[index]! }))
							.filter(({ week, load }) => load !== week.load || (!week.missed && week.held === 0))
							.map(({ week, load }) => `week ${week.week} ${load} %${load === week.load ? '' : ` (was ${week.load})`}`)
							.join(' · ')}
					</p>
					{mayPlan && (
						<PostForm className="mt-2">
							<button className="btn">Plan the rest anew</button>
						</PostForm>
					)}
				</section>
			)}
			{actionData && (
				<p className={`mt-3 ${'problem' in actionData ? 'problem' : ''}`} role="status">
					{'problem' in actionData
						? actionData.problem
						: `${actionData.replanned} ${actionData.replanned === 1 ? 'session has' : 'sessions have'} new doses.`}
				</p>
			)}
			<div className="mt-5 overflow-x-auto">
				<table className="w-full max-w-[1100px] border-collapse">
					<caption className="sr-only">Weeks of the block, plan against done</caption>
					<thead className="hidden sm:table-header-group">
						<tr className="dim text-left text-[13px]">
							<th className="font-normal" scope="col">
								Week
							</th>
							<th className="font-normal" scope="col">
								Load
							</th>
							<th className="font-normal" scope="col">
								Sessions
							</th>
							{QUANTITIES.map((quantity) => (
								<th key={quantity} scope="col" className="pl-4 font-normal">
									{HEADS[quantity]}
								</th>
							))}
						</tr>
					</thead>
					<tbody>
						{weeks.map((week) => (
							<tr key={week.week} className="rule grid grid-cols-2 gap-x-4 py-2 align-top sm:table-row">
								<th scope="row" className="text-left font-normal sm:py-2 sm:pr-3">
									<b className="num">Week {week.week}</b>
									<span className="dim block text-[13px]">
										{shortDay(week.monday)}, {week.phase}
									</span>
								</th>
								<td className="num hidden whitespace-nowrap sm:table-cell sm:py-2 sm:pr-3">{week.load} %</td>
								<td
									className={`text-right whitespace-nowrap sm:py-2 sm:pr-3 sm:text-left ${week.missed ? 'font-bold' : ''}`}
								>
									{week.missed ? 'missed' : `${week.held} of ${week.sessions} held`}
									<span className="dim sm:hidden">, {week.load} %</span>
								</td>
								{QUANTITIES.map((quantity) => (
									<td key={quantity} className="pt-1.5 sm:min-w-[150px] sm:py-2 sm:pl-4">
										<span className="dim text-[13px] sm:hidden">{HEADS[quantity]}</span>
										<Against
											asked={week.asked[quantity]}
											written={week.written[quantity]}
											done={week.done[quantity]}
											begun={week.held > 0}
										/>
									</td>
								))}
							</tr>
						))}
					</tbody>
				</table>
			</div>
			{review && <WhatChanged review={review} copyId={mayPlan ? blockId : null} />}
		</>
	)
}

/** Start against end, in sentences first; who, and what the block before did, beside them. */
function WhatChanged({ review, copyId }: { review: BlockReview; copyId: string | null }) {
	const { asRead } = useUnits()
	const { words, people, measures, before } = review
	const list = (some: { athleteId: string; name: string; words: string }[]) =>
		some.map((one, index) => (
			<span key={one.athleteId}>
				{index > 0 && '; '}
				<Link className="hover:underline" to={`/athletes/${one.athleteId}`}>
					{one.name}
				</Link>{' '}
				<span className="dim">{asRead(one.words)}</span>
			</span>
		))
	return (
		<>
			<section className="mt-9 max-w-[1100px]">
				<h2 className="text-[18px]">
					What changed <WhatIs term="noise" />
				</h2>
				<p className="mt-1 max-w-[70ch]">{asRead(words)}</p>
				{before && (
					<p className="dim mt-1 max-w-[70ch]">
						<Link className="link" to={`/plan/blocks/${before.id}`}>
							The block before, from {shortDay(before.start)}
						</Link>
						: {asRead(before.words)}
					</p>
				)}
				{measures.length === 0 ? (
					<p className="rule dim mt-3 py-2">
						Nothing was measured alike in four sessions: two at the start and two at the end make a comparison.
					</p>
				) : (
					<ul className="mt-3">
						{measures.map((one) => (
							<li key={one.key} className="rule py-2">
								<p className={one.better.length + one.worse.length > 0 ? 'font-semibold' : ''}>
									{asRead(one.sentence)}.
								</p>
								{one.better.length > 0 && <p className="text-[14px]">{list(one.better)}</p>}
								{one.worse.length > 0 && <p className="text-[14px]">{list(one.worse)}</p>}
								<p className="dim text-[13.5px]">
									{one.how}
									{before &&
										` · the block before: ${one.before ? one.before.slice(one.what.length + 2) : 'not measured'}`}
								</p>
							</li>
						))}
					</ul>
				)}
			</section>
			{people.length > 0 && (
				<section className="mt-7 max-w-[760px]">
					<h2>Athlete by athlete</h2>
					<table className="mt-2 w-full text-left">
						<thead className="dim text-[13px]">
							<tr>
								<th className="py-1 font-normal">Athlete</th>
								<th className="py-1 text-right font-normal">Came</th>
								<th className="py-1 text-right font-normal">Rungs up</th>
								<th className="py-1 text-right font-normal">Rungs back</th>
								{people.some((one) => one.pains !== null) && <th className="py-1 text-right font-normal">Pains</th>}
							</tr>
						</thead>
						<tbody>
							{people.map((one) => (
								<tr key={one.athleteId} className="border-t border-chalk">
									<th scope="row" className="py-1.5 text-left font-semibold">
										<Link className="hover:underline" to={`/athletes/${one.athleteId}`}>
											{one.name}
										</Link>
									</th>
									<td className="num text-right">
										{one.came} of {one.down}
									</td>
									<td className="num text-right">{one.up}</td>
									<td className="num text-right">{one.back}</td>
									{one.pains !== null && <td className="num text-right">{one.pains}</td>}
								</tr>
							))}
						</tbody>
					</table>
				</section>
			)}
			{copyId && (
				<p className="mt-5 print:hidden">
					<Link className="btn btn-quiet" to={`/plan/block?copy=${copyId}`}>
						Begin the next block from this one
					</Link>
				</p>
			)}
		</>
	)
}

/** One quantity of one week: the target as a tick, the sheet as an outline, what was done filled. */
function Against({ asked, written, done, begun }: { asked: number; written: number; done: number; begun: boolean }) {
	const reach = Math.max(asked, written, done, 1) * 1.1
	const at = (value: number) => `${(100 * value) / reach}%`
	return (
		<>
			<p className="text-[14px] leading-snug">
				{begun && (
					<>
						<b className="num">{done}</b> done,{' '}
					</>
				)}
				<span className={begun ? 'dim' : ''}>
					<span className="num">{written}</span> written, <span className="num">{asked}</span> asked
				</span>
			</p>
			<svg className="mt-0.5 block w-full max-w-[160px]" height="10" aria-hidden="true">
				<rect x="0" y="1.5" width={at(written)} height="7" fill="none" stroke="var(--color-ink-2)" />
				{begun && <rect x="0" y="3" width={at(done)} height="4" fill="var(--color-ink)" />}
				<line x1={at(asked)} x2={at(asked)} y1="0" y2="10" stroke="var(--color-ink)" strokeWidth="2" />
			</svg>
		</>
	)
}
