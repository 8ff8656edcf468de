import { Link, data } from 'react-router'
import { addDays, daysBetween } from '#core/calendar/day-count'
import { shortDay } from '#core/calendar/say-day'
import { PATTERNS, REGIONS, REGION_NAMES, type Region } from '#core/vocabulary/words'
import type { Episode } from '#core/care/episodes'
import { REPEATS_TOLD } from '#core/care/return-plan'
import { capital, inSentence } from '#core/words/write-numbers'
import { may } from '#server/access/roles'
import { closeCare, mayOpen, openCare } from '#server/care/care-records'
import { todayAt } from '#server/clock'
import { readCarePage } from '#server/care/read-care-page'
import { placeOf } from '#core/rules/bars'
import { sayRestriction } from '#core/rules/s2-restriction'
import { mayWithdraw, withdrawReport } from '#server/care/withdraw'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/athlete-care'
import { notFound, signedIn } from '../request-guard'
import { TextField } from '../ui/text-field'
import { PostForm } from '../ui/post-form'
import { RegionField } from '../ui/region-field'
import { actOn, noProblems } from '../intents'
import { pack, usePacked } from '../packed'
import { isErased } from '#server/person/person-data'

export const meta: Route.MetaFunction = () => [{ title: 'Care · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	const own = who.athleteId === params.athleteId
	// Care is read by whoever may read pain, and by the athlete.
	if (!own && !may(who.role, 'pain:read')) throw notFound()
	const today = todayAt(who.timeZone)
	const shown = mayBeLate(scope)
	const care = await readCarePage(shown, params.athleteId, today)
	if (!care) throw notFound()
	return {
		behind: isBehind(shown),
		today,
		page: pack(care.page),
		reports: care.reports.map(({ authorId, ...said }) => ({ ...said, mayWithdraw: mayWithdraw(who, authorId) })),
		// For who knows them all.
		others: may(who.role, 'care:write') ? care.others : [],
		mayWrite: may(who.role, 'care:write'),
		mayIllness: mayOpen(who, 'illness', params.athleteId),
		mayWorry: mayOpen(who, 'worry', params.athleteId),
	}
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = signedIn(context, request)
	if (await isErased(who, params.athleteId))
		throw new Response('This athlete was erased; nothing more is kept of them.', { status: 410 })
	const answer = (kind: string, result: { problems: Record<string, string> } | object | null) => {
		if (!result) throw notFound()
		const problems = 'problems' in result ? result.problems : noProblems
		return data({ kind, problems }, { status: problems === noProblems ? 200 : 400 })
	}
	return actOn(request, {
		open: async ({ text }) => {
			const kind = text('kind')
			if (!mayOpen(who, kind, params.athleteId)) throw new Response('Coach or clinician record this.', { status: 403 })
			const typed = {
				kind,
				region: text('region'),
				pattern: text('pattern'),
				drillId: text('drillId'),
				note: text('note'),
				setBy: text('setBy'),
				setByRole: text('setByRole'),
			}
			return answer(kind, await openCare(who, params.athleteId, typed, new Date()))
		},
		withdraw: async ({ text }) => {
			const typed = { id: text('id'), from: text('from'), reason: text('reason'), athleteId: text('other') }
			return answer('withdraw', await withdrawReport(who, params.athleteId, typed, new Date()))
		},
		end: async ({ text }) => {
			const kind = text('kind')
			if (!mayOpen(who, kind, params.athleteId)) throw new Response('Coach or clinician end this.', { status: 403 })
			const by = { name: text('by'), role: text('role') }
			return answer('', await closeCare(who, params.athleteId, text('id'), by, new Date()))
		},
	})
}

/** What was said on the day it began. */
const sayOpened = ({ opened, region }: Episode): string =>
	opened.length === 0
		? 'closed by hand'
		: opened
				.map((one) =>
					one.kind === 'head'
						? 'a blow to the head, or strong pain there'
						: one.kind === 'chest'
							? 'chest pain, a faint, or breath that did not settle'
							: `${one.asked ? 'when asked, ' : ''}${region === 'everything' ? 'neck or head ' : ''}${one.score} of 10${one.redFlag ? ', sharp, gave way, locked or numb' : ''}`,
				)
				.join(', ')
const sayEnded = ({ ended }: Episode): string =>
	ended === null
		? ''
		: ended.kind === 'cleared'
			? `cleared by ${ended.clearance.by}, ${ended.clearance.role}`
			: ended.kind === 'raised'
				? 'worse since'
				: ended.kind === 'quiet'
					? 'quiet when asked'
					: 'lifted by hand'

const WEEKS = 10

export default function Care({ loaderData, actionData }: Route.ComponentProps) {
	const { today, reports, others, mayWrite, mayIllness, mayWorry } = loaderData
	const { athlete, care, pains, drills, episodes, closures, ladders, waysBack } = usePacked(loaderData.page)
	const open = care.filter((row) => row.endedOn === null)
	const named = { drills: Object.fromEntries(drills.map((drill) => [drill.id, drill])) }
	// A restriction that ended on its day is no stretch of time of its own.
	const ended = care.filter(
		(row) => row.endedOn !== null && (row.kind !== 'restriction' || row.endedOn === row.fromDay),
	)
	const problems = actionData?.problems ?? {}
	const drillName = (id: string | null) => drills.find((drill) => drill.id === id)?.name ?? ''
	const what = (row: (typeof care)[number]) =>
		row.kind === 'illness'
			? 'Unwell'
			: row.kind === 'worry'
				? `Worry: ${inSentence(drillName(row.drillId))}, ${row.region ? placeOf({ region: row.region }) : ''}`
				: row.kind === 'known'
					? `A known 1 or 2, ${row.region ? placeOf({ region: row.region }) : ''}`
					: sayRestriction(row, named)
	return (
		<>
			<p className="dim">
				<Link className="link" to={`/athletes/${athlete.id}`}>
					{athlete.name}
				</Link>
			</p>
			<h1 className="mt-1">Care</h1>
			<p className="mt-1 max-w-[70ch]">
				Dromos clears nobody. A clinician decides whether somebody may; a person records who said so. Pain of 5, a red
				flag, or 3 twice in two weeks closes by itself.
			</p>
			<div className="mt-6 grid gap-x-10 gap-y-8 lg:grid-cols-[1fr_360px]">
				<div className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-8">
					<section>
						<h2>
							{open.length === 0 && ladders.length === 0 && waysBack.length === 0 && closures.length === 0
								? 'Nothing stands in the way'
								: 'Stands in the way'}
						</h2>
						<ul className="mt-2">
							{closures.map((closure) => (
								<li
									key={`${closure.region}${closure.side}`}
									className={`rule py-3 ${closure.grade === 'spare' ? '' : 'border-l-[3px] border-l-ink pl-3'}`}
								>
									<p className="text-[17px]">
										<b>{capital(placeOf(closure))}</b>
										{closure.grade === 'spare'
											? ': to be spared until it is quiet after the easy form'
											: closure.grade === 'everything'
												? ' closed: no line at all until a doctor has cleared it'
												: ': nothing that loads it until cleared'}
									</p>
									<p className="dim">
										Since {shortDay(closure.since)}.{' '}
										<Link className="link" to={`/athletes/${athlete.id}`}>
											Record who cleared it
										</Link>
									</p>
								</li>
							))}
							{open.map((row) => (
								<li
									key={row.id}
									className={`rule py-3 ${row.kind === 'restriction' ? 'border-l-[3px] border-l-ink pl-3' : ''}`}
								>
									<p className="text-[17px]">
										<b>{capital(what(row))}</b>
										{row.kind === 'restriction' &&
											(row.region ? ': nothing that loads it until lifted or cleared' : ': closed until lifted')}
										{row.kind === 'known' && ': accepted on the way back, it holds no step up'}
									</p>
									<p className="dim">
										Since {shortDay(row.fromDay)},{' '}
										{row.kind === 'restriction'
											? `set by ${row.setBy}, ${row.setByRole}`
											: row.kind === 'known'
												? `accepted by ${row.setBy}, ${row.setByRole}`
												: `said by ${row.setBy}`}
										{row.note && `. ${row.note}`}
									</p>
									{(mayWrite || (row.kind === 'illness' && mayIllness) || (row.kind === 'worry' && mayWorry)) && (
										<PostForm preventScrollReset className="mt-2 flex flex-wrap items-end gap-2">
											<input type="hidden" name="id" value={row.id} />
											<input type="hidden" name="kind" value={row.kind} />
											{row.kind === 'restriction' && (
												<>
													<TextField
														label="Lifted or cleared by"
														name="by"
														className="w-[190px]"
														problem={problems[`by-${row.id}`]}
														required
													/>
													<TextField
														label="In what role"
														name="role"
														className="w-[170px]"
														problem={problems[`role-${row.id}`]}
														required
													/>
												</>
											)}
											<button className="btn btn-quiet" name="do" value="end">
												{row.kind === 'restriction'
													? 'Open it again'
													: row.kind === 'known'
														? 'No longer accepted'
														: row.kind === 'worry'
															? 'The worry is settled'
															: 'Well again'}
											</button>
											{row.kind !== 'restriction' && problems[`by-${row.id}`] && (
												<p className="problem" role="alert">
													{problems[`by-${row.id}`]}
												</p>
											)}
										</PostForm>
									)}
								</li>
							))}
							{waysBack.map((way) => (
								<li key={way.name} className="rule py-3">
									<p>
										<b>{way.name}</b>{' '}
										<span className="dim">one step a session; then the other ladders, two rungs lower, at 60 %</span>
									</p>
									{way.repeats > 0 && (
										<p className={way.repeats >= REPEATS_TOLD ? 'mt-1 font-bold' : 'dim mt-1'}>
											{way.steps[way.at]}: repeated {way.repeats} {way.repeats === 1 ? 'time' : 'times'} for 1 or 2
											{way.repeats >= REPEATS_TOLD &&
												'. A health professional decides whether that is known and accepted.'}
										</p>
									)}
									<ol
										className="mt-2 flex flex-wrap gap-x-1.5 gap-y-1"
										aria-label={`${way.name}, step ${way.at + 1} of ${way.steps.length}`}
									>
										{way.steps.map((step, index) => (
											<li
												key={step}
												className={`border-t-[5px] px-1 pt-1 text-[13.5px] ${index < way.at ? 'border-ink-2' : index === way.at ? 'border-ink font-bold' : 'dim border-chalk'}`}
												aria-current={index === way.at ? 'step' : undefined}
											>
												{step}
											</li>
										))}
									</ol>
								</li>
							))}
							{ladders.length > 0 && (
								<li className="rule py-3">
									<b>After time away</b>{' '}
									<span className="dim">
										{ladders.map(({ name, percent }) => `${name} at ${percent} % of its dose`).join(', ')}
									</span>
								</li>
							)}
						</ul>
					</section>
					<section>
						<h2>Pain, week by week</h2>
						<BodyList pains={pains} today={today} />
					</section>
					{episodes.length > 0 && (
						<section>
							<h2>What was closed and spared, and what ended it</h2>
							<ul className="mt-2">
								{episodes.map((one) => (
									<li
										key={`${one.region}${one.side}${one.grade}${one.from}`}
										className="rule grid gap-x-4 py-1.5 sm:grid-cols-[190px_1fr]"
									>
										<span className={one.grade === 'spare' ? '' : 'font-bold'}>
											{one.grade === 'spare' ? `Spare the ${placeOf(one)}` : `${capital(placeOf(one))} closed`}
										</span>
										<span>
											{shortDay(one.from)}
											{one.to && one.to !== one.from ? ` to ${shortDay(one.to)}` : one.to ? '' : ', stands'}
											<span className="dim block text-[14px]">
												{sayOpened(one)}
												{one.ended && `; ${sayEnded(one)}`}
											</span>
										</span>
									</li>
								))}
							</ul>
						</section>
					)}
					{reports.length > 0 && (
						<section>
							<h2>Said, newest first</h2>
							<ul className="mt-2">
								{reports.map((said) => (
									<SaidRow
										key={said.id}
										said={said}
										others={others}
										problem={actionData?.kind === 'withdraw' ? problems[said.id] : undefined}
									/>
								))}
							</ul>
						</section>
					)}
					{ended.length > 0 && (
						<section>
							<h2>Settled</h2>
							<ul className="mt-2">
								{ended.map((row) => (
									<li key={row.id} className="rule py-1.5">
										<span>{capital(what(row))}</span>{' '}
										<span className="dim">
											{shortDay(row.fromDay)} to {shortDay(row.endedOn ?? '')},{' '}
											{row.kind === 'restriction'
												? `lifted by ${row.endedBy}, ${row.endedByRole}`
												: `said by ${row.endedBy}`}
										</span>
									</li>
								))}
							</ul>
						</section>
					)}
				</div>
				<aside className="grid content-start gap-6">
					{mayWrite && (
						<PostForm preventScrollReset className="grid gap-2.5" key={`restriction${care.length}`}>
							<h2>Close by hand</h2>
							<input type="hidden" name="kind" value="restriction" />
							<label className="field">
								<span className="label">Region</span>
								<select name="region" className="input" defaultValue="">
									<option value="">none in particular</option>
									<option value="everything">Everything: no line at all</option>
									{REGIONS.map((region) => (
										<option key={region} value={region}>
											{REGION_NAMES[region]}
										</option>
									))}
								</select>
								{actionData?.kind === 'restriction' && problems.region && (
									<span className="problem" role="alert">
										{problems.region}
									</span>
								)}
							</label>
							<label className="field">
								<span className="label">Kind of movement</span>
								<select name="pattern" className="input" defaultValue="">
									<option value="">any</option>
									{PATTERNS.map((pattern) => (
										<option key={pattern}>{pattern}</option>
									))}
								</select>
							</label>
							<label className="field">
								<span className="label">One drill</span>
								<select name="drillId" className="input" defaultValue="">
									<option value="">none in particular</option>
									{drills.map((drill) => (
										<option key={drill.id} value={drill.id}>
											{drill.name}
										</option>
									))}
								</select>
							</label>
							<div className="grid grid-cols-2 gap-2">
								<TextField
									label="Set by"
									name="setBy"
									problem={actionData?.kind === 'restriction' ? problems.setBy : undefined}
									required
								/>
								<TextField label="Role" name="setByRole" placeholder="physiotherapist" />
							</div>
							<TextField
								label="Why"
								name="note"
								maxLength={500}
								problem={actionData?.kind === 'restriction' ? problems.note : undefined}
								required
							/>
							<button className="btn justify-self-start" name="do" value="open">
								Close it from today
							</button>
						</PostForm>
					)}
					{mayWrite && waysBack.length > 0 && (
						<details className="rule pt-1" open={actionData?.kind === 'known'}>
							<summary className="link inline-flex min-h-[44px] items-center">A known 1 or 2 on the way back</summary>
							<PostForm preventScrollReset className="grid gap-2.5" key={`known${care.length}`}>
								<input type="hidden" name="kind" value="known" />
								<p className="dim text-[14px]">
									A health professional may accept a small discomfort that stays: it no longer repeats the step. From 3
									on nothing is accepted.
								</p>
								<RegionField label="Where" problem={actionData?.kind === 'known' ? problems.region : undefined} />
								<div className="grid grid-cols-2 gap-2">
									<TextField
										label="Accepted by"
										name="setBy"
										problem={actionData?.kind === 'known' ? problems.setBy : undefined}
										required
									/>
									<TextField
										label="Their profession"
										name="setByRole"
										placeholder="physiotherapist"
										problem={actionData?.kind === 'known' ? problems.setByRole : undefined}
										required
									/>
								</div>
								<button className="btn btn-quiet justify-self-start" name="do" value="open">
									Accept it
								</button>
							</PostForm>
						</details>
					)}
					{mayWorry && (
						<details className="rule pt-1" open={actionData?.kind === 'worry'}>
							<summary className="link inline-flex min-h-[44px] items-center">A worry about a movement</summary>
							<PostForm preventScrollReset className="grid gap-2.5" key={`worry${care.length}`}>
								<input type="hidden" name="kind" value="worry" />
								<label className="field">
									<span className="label">Movement</span>
									<select name="drillId" className="input" defaultValue="">
										{[
											<option key="" value="" disabled>
												Choose
											</option>,
											...drills.map((drill) => (
												<option key={drill.id} value={drill.id}>
													{drill.name}
												</option>
											)),
										]}
									</select>
									{problems.drillId && (
										<span className="problem" role="alert">
											{problems.drillId}
										</span>
									)}
								</label>
								<RegionField label="Where" problem={actionData?.kind === 'worry' ? problems.region : undefined} />
								<TextField label="What about it" name="note" maxLength={500} />
								<button className="btn btn-quiet justify-self-start" name="do" value="open">
									Offer the alternative first
								</button>
							</PostForm>
						</details>
					)}
					{mayIllness && !open.some((row) => row.kind === 'illness') && (
						<PostForm preventScrollReset className="rule grid gap-2 pt-3">
							<input type="hidden" name="kind" value="illness" />
							<p>Unwell or feverish: nothing high, shock or maximal until well.</p>
							<button className="btn btn-quiet justify-self-start" name="do" value="open">
								Unwell from today
							</button>
						</PostForm>
					)}
				</aside>
			</div>
		</>
	)
}

type Said = Awaited<ReturnType<typeof loader>>['reports'][number]

/** One thing that was said, with what became of it; whoever may puts it right here, with a reason. */
function SaidRow({
	said,
	others,
	problem,
}: {
	said: Said
	others: { id: string; name: string }[]
	problem: string | undefined
}) {
	const words = (
		<span>
			<span className={said.withdrawn ? 'dim line-through' : ''}>{capital(said.words)}</span>{' '}
			<span className="dim text-[14px]">
				{shortDay(said.day)}, {said.by}
			</span>
		</span>
	)
	if (said.withdrawn || !said.mayWithdraw)
		return (
			<li className="rule py-1.5">
				{words}
				{said.withdrawn && (
					<p className="dim text-[14px]">
						Put right by {said.withdrawn.by}: {said.withdrawn.reason}
					</p>
				)}
			</li>
		)
	return (
		<li className="rule">
			<details open={problem !== undefined}>
				<summary className="flex min-h-[40px] max-lg:min-h-[44px] cursor-pointer list-none items-center justify-between gap-3">
					{words}
					<span className="link shrink-0 text-[13.5px]">Put it right</span>
				</summary>
				<PostForm preventScrollReset className="flex flex-wrap items-end gap-2 pb-3">
					<input type="hidden" name="id" value={said.id} />
					<input type="hidden" name="from" value={said.from} />
					{others.length > 0 && (
						<label className="field">
							<span className="label">It was</span>
							<select name="other" className="input" defaultValue="">
								<option value="">nobody’s: take it back</option>
								{others.map((one) => (
									<option key={one.id} value={one.id}>
										{one.name}’s
									</option>
								))}
							</select>
						</label>
					)}
					<TextField label="Why" name="reason" className="w-[240px]" maxLength={500} problem={problem} required />
					<button className="btn btn-quiet" name="do" value="withdraw">
						Put it right
					</button>
					<p className="dim basis-full text-[13.5px]">
						Taken back, what has closed somebody still wants its clearance; within two minutes it was a slip.
					</p>
				</PostForm>
			</details>
		</li>
	)
}

type Pain = NonNullable<Awaited<ReturnType<typeof readCarePage>>>['page']['pains'][number]

/** A phone shows the last weeks: the newest is what is looked for. */
const onPhone = (week: number) => (week > 4 ? 'hidden sm:table-cell' : '')

/** A body list over time: a region a row, a week a column, the worst of the week as its number. */
function BodyList({ pains, today }: { pains: Pain[]; today: string }) {
	const weekOf = (at: string) => Math.floor(daysBetween(at.slice(0, 10), today) / 7)
	const regions = REGIONS.filter((region) => pains.some((pain) => pain.region === region && weekOf(pain.at) < WEEKS))
	if (regions.length === 0) return <p className="rule dim mt-2 py-2">None reported.</p>
	const weeks = Array.from({ length: WEEKS }, (_, index) => WEEKS - 1 - index)
	const worst = (region: Region, week: number) =>
		pains.filter((pain) => pain.region === region && weekOf(pain.at) === week).sort((a, b) => b.score - a.score)[0]
	return (
		<div className="relative overflow-x-auto">
			<table className="mt-2 w-full border-collapse sm:min-w-[520px]">
				<thead>
					<tr className="dim text-[13px]">
						<th className="text-left font-normal">Region</th>
						{weeks.map((week) => (
							<th key={week} scope="col" className={`px-1 font-normal ${onPhone(week)}`}>
								{week % 3 === 0 ? (
									shortDay(addDays(today, -7 * week)).replace(/^\w+ /, '')
								) : (
									<span className="sr-only">{week} weeks ago</span>
								)}
							</th>
						))}
					</tr>
				</thead>
				<tbody>
					{regions.map((region) => (
						<tr key={region} className="border-t border-chalk">
							<th scope="row" className="py-1.5 pr-3 text-left font-normal">
								{REGION_NAMES[region]}
							</th>
							{weeks.map((week) => {
								const pain = worst(region, week)
								return (
									<td key={week} className={`px-1 text-center ${onPhone(week)}`}>
										{pain ? (
											<span
												className={`num inline-grid size-[30px] place-items-center rounded-full border-2 ${pain.score >= 5 || pain.redFlag ? 'border-attn bg-attn text-paper' : pain.score >= 3 ? 'border-ink bg-ink text-paper' : 'border-ink-2'}`}
												title={`${pain.side === 'both' ? '' : `${pain.side} `}${REGION_NAMES[region]} ${pain.score} of 10, ${shortDay(pain.at.slice(0, 10))}${pain.redFlag ? ', red flag' : ''}`}
											>
												{pain.score}
											</span>
										) : (
											<span className="text-chalk" aria-hidden>
												·
											</span>
										)}
									</td>
								)
							})}
						</tr>
					))}
				</tbody>
			</table>
			<p className="dim mt-1 text-[13.5px]">
				0 to 10, the worst of each week. From 3 an alternative stands in, from 5 it closes.
			</p>
		</div>
	)
}
