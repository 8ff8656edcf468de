import { useEffect, useState } from 'react'
import { Link, data, useNavigation } from 'react-router'
import { longDay } from '#core/calendar/say-day'
import { SESSION_RANGES } from '#core/dose/level-ranges'
import { may } from '#server/access/roles'
import { type CoachDecision, type Decided, closeReview, decideVerdicts } from '#server/review/decide'
import { sayEfforts } from '#server/record/say-effort'
import { readReviewPage } from '#server/review/read-review-page'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/session-review'
import { allowed, notFound } from '../request-guard'
import { DoseRuler } from '../field/dose-ruler'
import { ReviewBodies } from '../ui/review-bodies'
import { OpenVerdict, QuietVerdict, type Row, decisionField, groupOpen } from '../ui/review-rows'
import { SessionStrip } from '../ui/session-strip'
import { PostForm } from '../ui/post-form'
import { reviewHead, sayReviewHead } from '#core/record/review-head'
import { ReportForm } from '../ui/report-form'
import { readReport } from '../read-report'
import { report, sayInLog } from '#server/care/report'
import { readNumber } from '#core/measure/read-number'
import { type Sent, actOn } from '../intents'
import { pack, usePacked } from '../packed'
import { settleMark } from '#server/marks/set-aside'
import { SetAsideList } from '../ui/set-aside'
import { useUnits } from '../field/units'
import { WhatIs } from '../ui/what-is'

export const meta: Route.MetaFunction = () => [{ title: 'Review · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'verdict:read')
	const shown = mayBeLate(scope)
	const review = await readReviewPage(shown, params.sessionId, who)
	if (!review) throw notFound()
	return {
		behind: isBehind(shown),
		page: pack(review),
		mayDecide: may(who.role, 'verdict:write'),
	}
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'verdict:write')
	const decide =
		(word: 'accept' | 'hold' | 'ease' | 'advance') =>
		async ({ form, text }: Sent) => {
			const decisions = form.getAll('row').map((value): CoachDecision => {
				const [athleteId = '', ladderId = '', inputHash = '', turn] = String(value).split('/')
				return {
					athleteId,
					ladderId,
					inputHash,
					...(turn === undefined ? {} : { instead: Number(turn) }),
					...(word === 'accept' ? {} : { overrule: { word, reason: text('reason') } }),
				}
			})
			const result = await decideVerdicts(who, params.sessionId, decisions, new Date())
			if (!result) throw notFound()
			const none = result.refused.length > 0 && result.decided === 0
			return data<ReviewAnswer>({ ...result, effort: '' }, { status: none ? 409 : 200 })
		}
	return actOn(request, {
		accept: decide('accept'),
		hold: decide('hold'),
		ease: decide('ease'),
		advance: decide('advance'),
		close: async () => {
			const closed = await closeReview(who, params.sessionId, new Date())
			if (closed === null) throw notFound()
			const nothing: ReviewAnswer = { decided: 0, refused: [], nextSession: null, effort: '' }
			return data(nothing, { status: closed ? 200 : 409 })
		},
		asked: async ({ text }) => {
			const value = { region: text('region'), side: text('side'), score: Number(text('score')) }
			const answer = await sayInLog(who, params.sessionId, text('athlete'), { kind: 'quiet', value }, new Date())
			const nothing: ReviewAnswer = { decided: 0, refused: [], nextSession: null, effort: '' }
			return data(nothing, { status: answer?.outcome === 'refused' ? 400 : 200 })
		},
		report: async (sent) => {
			const nothing: ReviewAnswer = { decided: 0, refused: [], nextSession: null, effort: '' }
			const done = await report(who, sent.text('athlete'), readReport(sent), new Date(), params.sessionId)
			const problem = !done
				? 'Pick who it is about.'
				: 'problems' in done
					? (Object.values(done.problems)[0] ?? '')
					: null
			return data({ ...nothing, said: problem === null ? Date.now() : 0, problem }, { status: problem ? 400 : 200 })
		},
		settle: async ({ text }) => {
			const nothing: ReviewAnswer = { decided: 0, refused: [], nextSession: null, effort: '' }
			const keeps = text('keep') === 'yes'
			const done =
				!keeps && text('typed').trim() === ''
					? { problem: 'Type the right number.' }
					: await settleMark(who, text('mark'), keeps ? '' : text('typed'), new Date())
			if (!done) throw notFound()
			const settleProblem = 'problem' in done ? done.problem : null
			return data({ ...nothing, settleProblem }, { status: settleProblem ? 400 : 200 })
		},
		effort: async ({ form, text }) => {
			const minutes = Number(text('minutes'))
			const given = [...form.entries()].flatMap(([name, value]) =>
				name.startsWith('rpe-') && String(value).trim() !== ''
					? [{ athleteId: name.slice(4), rpe: readNumber(String(value)) ?? Number.NaN }]
					: [],
			)
			const said = await sayEfforts(who, params.sessionId, given, minutes, new Date())
			if (!said) throw notFound()
			const { kept, refused } = said
			const effort =
				refused === 0
					? `${kept} kept.`
					: `${kept} kept, ${refused} not: an effort is a number from 0 to 10, the minutes from 1 to 600.`
			const nothing: ReviewAnswer = { decided: 0, refused: [], nextSession: null, effort }
			return data(nothing, { status: refused > 0 ? 400 : 200 })
		},
	})
}

interface ReviewAnswer extends Decided {
	/** What became of the efforts that were sent. */
	effort: string
	/** When a report was taken, and what was wrong with one that was not. */
	said?: number
	/** Why a number set aside was not settled. */
	settleProblem?: string | null
	problem?: string | null
}

export default function SessionReview({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
	const { mayDecide } = loaderData
	const {
		session,
		strip,
		done,
		attending,
		came,
		level,
		group,
		conflicts,
		held,
		people,
		bodies,
		rows: judged,
		setAside,
		attendance,
		reviewed,
	} = usePacked(loaderData.page)
	const busy = useNavigation().state !== 'idle'
	const refusals = new Map(actionData?.refused.map((row) => [`${row.athleteId}/${row.ladderId}`, row.reason]) ?? [])
	const rows: Row[] = judged.map((row) => ({
		...row,
		refused: refusals.get(`${row.athleteId}/${row.ladderId}`) ?? null,
	}))
	const undecided = rows.filter((row) => row.decided === null)
	const open = groupOpen(undecided.filter((row) => row.needsYou))
	const head = reviewHead(undecided)
	const quiet = undecided.filter((row) => !row.needsYou && !row.absent)
	const absent = undecided.filter((row) => !row.needsYou && row.absent)
	const acceptable = [...quiet, ...absent]
	const decided = rows.filter((row) => row.decided !== null)
	const ranges = SESSION_RANGES[level]
	const help = useReviewKeys()
	return (
		<>
			<header className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
				<div>
					<p className="dim">
						{session.squadName} · {longDay(session.day)} · {came} of {attending} came
					</p>
					<h1 className="mt-1">
						{rows.length === 0
							? reviewed
								? 'Closed'
								: 'Nothing to judge'
							: undecided.length === 0
								? 'All decided'
								: sayReviewHead(head)}
					</h1>
				</div>
				<Link className="btn btn-quiet" to={`/sessions/${session.id}/done`}>
					What was done
				</Link>
				{mayDecide && undecided.length === 0 && !reviewed && (
					<PostForm preventScrollReset>
						<button className="btn" name="do" value="close" disabled={busy}>
							Seen, close the session
						</button>
					</PostForm>
				)}
				{mayDecide && acceptable.length > 0 && (
					<PostForm preventScrollReset>
						{acceptable.map(decisionField)}
						<button className="btn" name="do" value="accept" disabled={busy}>
							{busy
								? 'Writing …'
								: quiet.length === 0
									? 'Nothing to judge, write the next session'
									: `Accept ${head.readWell.length === 0 ? 'what reads well' : head.readWell.length}, write the next session`}
						</button>
					</PostForm>
				)}
			</header>
			{actionData?.nextSession && (
				<p className="mb-4 border-l-[3px] border-act py-1 pl-3" role="status">
					{actionData.decided} decided.{' '}
					{actionData.nextSession.made ? 'The next session was made' : 'The next session is written'}:{' '}
					<Link className="link" to={`/sessions/${actionData.nextSession.id}`}>
						{longDay(actionData.nextSession.day)}, with each athlete’s line
					</Link>
					.
				</p>
			)}
			{conflicts > 0 && (
				<p className="problem mb-4">
					{conflicts} {conflicts === 1 ? 'mark has' : 'marks have'} corrections that contradict each other; they are
					left out of the evidence until one is taken back on the field screen.
				</p>
			)}
			<SetAsideList marks={setAside} maySettle={mayDecide} problem={actionData?.settleProblem ?? null} />
			{held.length > 0 && (
				<section className="mb-4 border-l-[3px] border-attn py-1 pl-3" aria-label="Corrections that do not stand">
					<h2>Corrections that do not stand</h2>
					<ul className="mt-1 text-[15px]">
						{held.map(({ id, words }) => (
							<li key={id}>{asRead(words)}</li>
						))}
					</ul>
				</section>
			)}
			<ReviewBodies bodies={bodies} mayAsk={mayDecide} />
			{attendance.length > 0 && (
				<details className="mb-3" open={actionData?.problem != null} key={actionData?.said ?? 0}>
					<summary className="link inline-flex min-h-[44px] items-center">
						Somebody reports pain of this session
					</summary>
					<ReportForm athletes={attendance} problem={actionData?.problem ?? undefined} />
				</details>
			)}
			<SessionStrip parts={strip} done={done} />
			<div className="mt-5 grid gap-x-9 gap-y-8 lg:grid-cols-[1fr_310px]">
				<div>
					{open.map((rows) => (
						<OpenVerdict key={`${rows[0]?.athleteId}/${rows[0]?.ladderId}`} rows={rows} mayDecide={mayDecide} />
					))}
					{quiet.length > 0 && (
						<section className={open.length > 0 ? 'mt-6' : ''}>
							<h2 className="mb-1.5">
								Reads well <WhatIs term="verdict" />
							</h2>
							<QuietList rows={quiet} mayDecide={mayDecide} />
						</section>
					)}
					{absent.length > 0 && <DidNotCome rows={absent} mayDecide={mayDecide} />}
					{decided.length > 0 && (
						<section className="mt-6">
							<h2 className="mb-1.5">Decided</h2>
							<QuietList rows={decided} mayDecide={mayDecide} />
						</section>
					)}
					{rows.length === 0 && <p>No line of this session belongs to a ladder, so there is nothing to judge.</p>}
				</div>
				<aside>
					<h2>
						Group, done against plan <span className="dim font-normal">mean</span>
					</h2>
					<DoseRuler
						label={`Contacts, level ${level}`}
						unit="contacts"
						value={group.contacts.planned}
						done={group.contacts.done}
						low={ranges.contacts.low}
						high={ranges.contacts.high}
					/>
					<DoseRuler
						label="Metres at 95 % and over"
						unit="m"
						value={group.metres.planned}
						done={group.metres.done}
						low={ranges.fastMetres.low}
						high={ranges.fastMetres.high}
					/>
					<DoseRuler
						label="Cuts of 60° and more"
						unit="cuts"
						value={group.cuts.planned}
						done={group.cuts.done}
						low={ranges.cuts60.low}
						high={ranges.cuts60.high}
					/>
					<p className="dim mt-2 text-[13.5px]">Pointer: done. Dashes: planned. Bracket: usual range for the level.</p>
					{mayDecide && <EffortForm people={people} minutes={session.plannedMinutes} said={actionData?.effort ?? ''} />}
					<p className="dim mt-4 text-[13.5px] max-lg:hidden">
						Keys: <kbd>j</kbd> and <kbd>k</kbd> walk the list, <kbd>a</kbd> accepts, <kbd>o</kbd> opens another way,{' '}
						<kbd>?</kbd> says this again.
					</p>
					{help && (
						<p className="mt-2 border-l-[3px] border-act py-1 pl-3" role="status">
							j next, k before, a accept, o other with a reason. Enter on “Accept {quiet.length}” takes all that reads
							well.
						</p>
					)}
				</aside>
			</div>
		</>
	)
}

/** One list per ladder, so that like stands beside like. */
function QuietList({ rows, mayDecide }: { rows: Row[]; mayDecide: boolean }) {
	const ladders = [...new Set(rows.map((row) => row.ladderName))]
	return ladders.map((ladder) => (
		<div key={ladder} className="mb-4">
			<h3 className="dim py-1">{ladder}</h3>
			<ul>
				{rows
					.filter((row) => row.ladderName === ladder)
					.map((row) => (
						<QuietVerdict key={`${row.athleteId}/${row.ladderId}`} row={row} mayDecide={mayDecide} />
					))}
			</ul>
		</div>
	))
}

/** Who did not come, in one line; what would be written of them is behind it. */
function DidNotCome({ rows, mayDecide }: { rows: Row[]; mayDecide: boolean }) {
	const names = [...new Set(rows.map(({ name }) => name))]
	return (
		<section className="mt-6">
			<h2 className="mb-1">{names.length} did not come: nothing to judge</h2>
			<p>{names.join(', ')}</p>
			<details>
				<summary className="link inline-flex min-h-[44px] items-center">What stands of each ladder</summary>
				<QuietList rows={rows} mayDecide={mayDecide} />
			</details>
		</section>
	)
}

/** j and k walk from one open verdict to the next, a accepts it, o opens another way; never while somebody types. */
function useReviewKeys(): boolean {
	const [help, setHelp] = useState(false)
	useEffect(() => {
		const onKey = (event: KeyboardEvent) => {
			const target = event.target as HTMLElement
			if (event.ctrlKey || event.metaKey || event.altKey || target.matches('input, textarea, select')) return
			const open = [...document.querySelectorAll<HTMLElement>('[data-verdict]')]
			const at = open.findIndex((article) => article.contains(document.activeElement))
			const press = (name: string) => open[at]?.querySelector<HTMLButtonElement>(`[data-key="${name}"]`)?.click()
			if (event.key === 'j') open[Math.min(at + 1, open.length - 1)]?.focus()
			else if (event.key === 'k') open[Math.max(at - 1, 0)]?.focus()
			else if (event.key === 'a' || event.key === 'o') press(event.key)
			else if (event.key === '?') setHelp((now) => !now)
			else return
			event.preventDefault()
		}
		window.addEventListener('keydown', onKey)
		return () => window.removeEventListener('keydown', onKey)
	}, [])
	return help
}

/** How hard the session was, 0 to 10, athlete by athlete, about half an hour after it. */
function EffortForm({
	people,
	minutes,
	said,
}: {
	people: { id: string; name: string; rpe: number | null }[]
	minutes: number
	said: string
}) {
	const { asRead } = useUnits()
	return (
		<details className="rule mt-5 pt-1" open={said !== ''}>
			<summary className="link inline-flex min-h-[44px] items-center">How hard was it?</summary>
			<PostForm preventScrollReset>
				<p className="dim text-[14px]">The whole session as each felt it, 0 to 10. Empty is not asked.</p>
				<label className="mt-1 flex items-center gap-2">
					Minutes <input className="input num w-[80px]" name="minutes" inputMode="numeric" defaultValue={minutes} />
				</label>
				<ul className="mt-2">
					{people.map((person) => (
						<li key={person.id} className="rule">
							<label className="flex min-h-[44px] items-center justify-between gap-3">
								{person.name}
								<input
									className="input num w-[70px] text-center"
									name={`rpe-${person.id}`}
									inputMode="decimal"
									placeholder={person.rpe === null ? '' : String(person.rpe)}
									aria-label={`Effort, ${person.name}`}
								/>
							</label>
						</li>
					))}
				</ul>
				<button className="btn btn-quiet mt-2" name="do" value="effort">
					Keep
				</button>
				{said && (
					<p className="mt-1" role="status">
						{asRead(said)}
					</p>
				)}
			</PostForm>
		</details>
	)
}
