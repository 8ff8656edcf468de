import {
	DndContext,
	type DragEndEvent,
	KeyboardSensor,
	PointerSensor,
	useDraggable,
	useDroppable,
	useSensor,
	useSensors,
} from '@dnd-kit/core'
import { Link, data, useFetcher } from 'react-router'
import { sayFirmness } from '#core/words/say-firmness'
import { addDays, isDay, mondayOf } from '#core/calendar/day-count'
import { shortDay } from '#core/calendar/say-day'
import type { Clash } from '#core/plan/calendar-checks'
import type { SheetClash } from '#core/plan/sheet-clashes'
import { RULE_NAMES } from '#core/rules/rule'
import { may } from '#server/access/roles'
import { todayAt } from '#server/clock'
import { easeSession, moveSession } from '#server/plan/calendar'
import { shiftBlock } from '#server/plan/make-block'
import { readPlanPage } from '#server/plan/read-plan-page'
import { bringBack, removeBlock } from '#server/plan/take-off'
import { repairSheet } from '#server/plan/repair-sheet'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/plan'
import { allowed, notFound } from '../request-guard'
import { BodyLines } from '../ui/body-line'
import { PostForm, SubmissionField, useSubmission } from '../ui/post-form'
import { type AsJson, pack, usePacked } from '../packed'
import { actOn } from '../intents'
import { useLocal } from '../ui/local'

export const meta: Route.MetaFunction = () => [{ title: 'Plan · Dromos' }]

/** A week behind and seven ahead: a block and what comes before it. */
const WEEKS = 8

export async function loader({ context, request }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	const today = todayAt(who.timeZone)
	const shown = mayBeLate(scope)
	const asked = new URL(request.url).searchParams.get('from')
	const first = mondayOf(isDay(asked) ? asked : addDays(today, -7))
	const last = addDays(first, WEEKS * 7 - 1)
	const weeks = Array.from({ length: WEEKS }, (_, week) =>
		Array.from({ length: 7 }, (_, day) => addDays(first, week * 7 + day)),
	)
	return {
		today,
		first,
		weeks,
		page: pack(await readPlanPage(shown, first, last, today, who)),
		mayPlan: may(who.role, 'plan:write'),
		behind: isBehind(shown),
	}
}

export async function action({ context, request }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const [today, now] = [todayAt(who.timeZone), new Date()]
	const done = await actOn<PlanAnswer>(request, {
		move: ({ text }) => moveSession(who, text('id'), text('day'), today, now),
		ease: ({ text }) => easeSession(who, text('id'), now),
		repair: ({ text }) => repairSheet(who, text('id'), text('repair'), today, now),
		shift: ({ text }) => shiftBlock(who, text('id'), Number(text('weeks')), today, now),
		remove: ({ text }) => removeBlock(who, text('id'), now),
		back: ({ text }) => bringBack(who, text('id'), today, now),
	})
	if (!done) throw notFound()
	return data(done, { status: 'problem' in done ? 400 : 200 })
}

type PlanAnswer = Awaited<
	ReturnType<
		| typeof moveSession
		| typeof easeSession
		| typeof repairSheet
		| typeof shiftBlock
		| typeof removeBlock
		| typeof bringBack
	>
>

type Loaded = AsJson<Awaited<ReturnType<typeof readPlanPage>>>
type ListedSession = Loaded['sessions'][number]

/** The weeks around now: sessions, matches, and what clashes, named where it stands with what repairs it. */
export default function Plan({ loaderData, actionData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { today, first, weeks, mayPlan } = loaderData
	const { sessions, outside, clashes, sheetClashes, blocks, finished, bodies, takenOff } = usePacked(loaderData.page)
	const count = clashes.length + sheetClashes.length
	const mover = useFetcher<typeof action>()
	const submission = useSubmission(mover.state)
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
		useSensor(KeyboardSensor),
	)
	const move = (id: string, day: string) => void mover.submit({ submission, do: 'move', id, day }, { method: 'post' })
	// Where it was dropped, before the server has answered.
	const pending =
		mover.formData?.get('do') === 'move'
			? { id: String(mover.formData.get('id')), day: String(mover.formData.get('day')) }
			: null
	const dayOf = (session: ListedSession) => (pending?.id === session.id ? pending.day : session.day)
	const problem =
		(mover.data && 'problem' in mover.data ? mover.data.problem : null) ??
		(actionData && 'problem' in actionData ? actionData.problem : null)
	const dropped = ({ active, over }: DragEndEvent) => {
		const session = sessions.find((one) => one.id === active.id)
		if (over && session && session.day !== over.id) move(session.id, String(over.id))
	}
	return (
		<>
			<header className="mb-4 flex flex-wrap items-end justify-between gap-3">
				<div>
					<p className="dim">
						{shortDay(weeks[0]![0]!)} to {shortDay(weeks.at(-1)!.at(-1)!)}
					</p>
					<h1 className="mt-1">
						{count === 0 ? 'Nothing clashes' : `${count} ${count === 1 ? 'clash' : 'clashes'} ahead`}
					</h1>
				</div>
				<div className="flex flex-wrap gap-2">
					<Link className="btn btn-quiet" to={`/plan?from=${addDays(first, -28)}`} aria-label="Four weeks earlier">
						‹
					</Link>
					<Link className="btn btn-quiet" to="/plan">
						Now
					</Link>
					<Link className="btn btn-quiet" to={`/plan?from=${addDays(first, 28)}`} aria-label="Four weeks later">
						›
					</Link>
					{mayPlan && (
						<Link className="btn btn-quiet" to="/sessions/new">
							Make a session
						</Link>
					)}
					{mayPlan && (
						<Link className="btn" to="/plan/block">
							Plan a block
						</Link>
					)}
				</div>
			</header>
			{problem && (
				<p className="problem mb-3" role="alert">
					{problem}
				</p>
			)}
			<div className="my-4">
				<BodyLines bodies={bodies} />
			</div>
			{count > 0 && <Clashes clashes={clashes} sheetClashes={sheetClashes} sessions={sessions} mayPlan={mayPlan} />}
			<DndContext sensors={sensors} onDragEnd={dropped}>
				{weeks.map((days) => (
					<section
						key={days[0]}
						className={days.at(-1)! < today ? 'hidden sm:block' : ''}
						aria-label={`Week of ${shortDay(days[0]!)}`}
					>
						<ol className="grid gap-px border-t border-chalk sm:grid-cols-7">
							{days.map((day) => {
								const own = sessions.filter((session) => dayOf(session) === day)
								const beside = outside.filter((one) => one.day === day)
								return (
									<DayCell key={day} day={day} today={today} empty={own.length + beside.length === 0}>
										{own.map((session) => (
											<SessionChip
												key={session.id}
												session={session}
												isToday={day === today}
												rules={[
													...clashes.filter((clash) => clash.itemId === session.id),
													...sheetClashes.filter((clash) => clash.sessionId === session.id),
												].map((clash) => clash.rule)}
												movable={mayPlan && session.startedAt === null && session.day >= today}
												onMove={(by) => move(session.id, addDays(session.day, by))}
											/>
										))}
										{beside.map((one) => (
											<p key={one.id} className="mt-1 border-l-[3px] border-ink-2 pl-1.5 text-[13.5px] leading-snug">
												<b>{one.words}</b> <span className="num">{time(one.startTime)}</span>
											</p>
										))}
									</DayCell>
								)
							})}
						</ol>
					</section>
				))}
			</DndContext>
			{mayPlan && (
				<p className="dim mt-3 hidden text-[14px] sm:block">
					Drag a session to another day, or focus it and press Alt with ← or →. Its lines are written anew for that day.
				</p>
			)}
			{takenOff.length > 0 && (
				<section className="mt-7">
					<h2>Taken off</h2>
					<ul className="mt-2">
						{takenOff.map((one) => (
							<li key={one.id} className="rule flex flex-wrap items-center justify-between gap-3 py-2">
								<span>{one.title}</span>
								<PostForm>
									<input type="hidden" name="do" value="back" />
									<input type="hidden" name="id" value={one.id} />
									<button className="btn btn-quiet">Bring it back</button>
								</PostForm>
							</li>
						))}
					</ul>
				</section>
			)}
			{finished.length > 0 && (
				<section className="mt-7">
					<h2>Blocks that are over</h2>
					<ul className="mt-2">
						{finished.map((block) => (
							<li key={block.id} className="rule flex flex-wrap items-center justify-between gap-3 py-2">
								<span>
									<Link className="link" to={`/plan/blocks/${block.id}`}>
										{block.squad}, {block.weeks} weeks from {shortDay(block.start)}
									</Link>{' '}
									<span className="dim">what changed</span>
								</span>
								{mayPlan && (
									<Link className="btn btn-quiet" to={`/plan/block?copy=${block.id}`}>
										Copy
									</Link>
								)}
							</li>
						))}
					</ul>
				</section>
			)}
			{blocks.length > 0 && (
				<section className="mt-7">
					<h2>Blocks</h2>
					<ul className="mt-2">
						{blocks.map((block) => (
							<li key={block.id} className="rule flex flex-wrap items-center justify-between gap-3 py-2">
								<span>
									<Link className="link" to={`/plan/blocks/${block.id}`}>
										{block.squad}, {block.weeks} weeks from {shortDay(block.start)}
									</Link>{' '}
									<span className="dim">plan against done</span>
								</span>
								{mayPlan && (
									<span className="flex flex-wrap gap-2">
										{(
											[
												[-1, 'A week earlier'],
												[1, 'A week later'],
											] as const
										).map(([weeksBy, label]) => (
											<PostForm key={label}>
												<input type="hidden" name="do" value="shift" />
												<input type="hidden" name="id" value={block.id} />
												<input type="hidden" name="weeks" value={weeksBy} />
												<button className="btn btn-quiet">{label}</button>
											</PostForm>
										))}
										<Link className="btn btn-quiet" to={`/plan/block?copy=${block.id}`}>
											Copy
										</Link>
										{block.ahead > 0 && (
											<PostForm>
												<input type="hidden" name="do" value="remove" />
												<input type="hidden" name="id" value={block.id} />
												<button className="btn btn-quiet">
													{block.ahead === 1 ? 'Take the one session off' : `Take ${block.ahead} sessions off`} that{' '}
													{block.ahead === 1 ? 'is' : 'are'} not begun
												</button>
											</PostForm>
										)}
									</span>
								)}
							</li>
						))}
					</ul>
				</section>
			)}
		</>
	)
}

function DayCell({
	day,
	today,
	empty,
	children,
}: {
	day: string
	today: string
	empty: boolean
	children: React.ReactNode
}) {
	const { setNodeRef, isOver } = useDroppable({ id: day, disabled: day < today })
	return (
		<li
			ref={setNodeRef}
			aria-label={shortDay(day)}
			className={`min-w-0 py-1.5 sm:min-h-[88px] sm:px-2 ${empty && day !== today ? 'hidden sm:block' : ''} ${day === today ? 'border-t-[3px] border-ink sm:-mt-px' : ''} ${isOver ? 'bg-chalk' : ''}`}
		>
			<p className={`text-[13px] ${day === today ? 'font-bold' : 'dim'}`}>{day === today ? 'Today' : shortDay(day)}</p>
			{children}
		</li>
	)
}

function SessionChip({
	session,
	isToday,
	rules,
	movable,
	onMove,
}: {
	session: ListedSession
	isToday: boolean
	rules: (Clash['rule'] | SheetClash['rule'])[]
	movable: boolean
	onMove: (days: number) => void
}) {
	const { time } = useLocal()
	const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({
		id: session.id,
		disabled: !movable,
	})
	const state = session.reviewedAt
		? 'reviewed'
		: session.startedAt
			? isToday
				? 'begun'
				: 'waits for review'
			: `${session.phase === 'unloading' ? 'unloading: ' : ''}${session.title}`
	return (
		<div
			ref={setNodeRef}
			style={{
				transform: transform ? `translate3d(${Math.round(transform.x)}px, ${Math.round(transform.y)}px, 0)` : undefined,
			}}
			className={`mt-1 flex items-start gap-1 border-l-[3px] bg-paper pl-1.5 text-[14px] leading-snug ${rules.length > 0 ? 'border-attn' : 'border-act'} ${isDragging ? 'relative z-10 border border-ink' : ''}`}
		>
			<Link
				to={session.startedAt && !session.reviewedAt ? `/sessions/${session.id}/review` : `/sessions/${session.id}`}
				className="block min-h-[44px] min-w-0 flex-1 hover:underline"
				onKeyDown={(event) => {
					if (!movable || !event.altKey || (event.key !== 'ArrowLeft' && event.key !== 'ArrowRight')) return
					event.preventDefault()
					onMove(event.key === 'ArrowLeft' ? -1 : 1)
				}}
			>
				<b>{session.squadName}</b> <span className="num">{time(session.startTime)}</span>
				<span className="dim block truncate">{state}</span>
				{rules.length > 0 && (
					<span className="block truncate font-bold">
						clash: {[...new Set(rules)].map((rule) => RULE_NAMES[rule].toLowerCase()).join(', ')}
					</span>
				)}
			</Link>
			{movable && (
				<button
					type="button"
					className="hidden min-h-[44px] w-[22px] shrink-0 cursor-grab touch-none text-ink-2 sm:block"
					aria-label={`Drag ${session.squadName}, ${shortDay(session.day)}`}
					{...attributes}
					{...listeners}
				>
					⠿
				</button>
			)}
		</div>
	)
}

const SHOWN = 6
/** What clashes, each with what repairs it; the first few, the rest on demand. */
function Clashes({
	clashes,
	sheetClashes,
	sessions,
	mayPlan,
}: {
	clashes: Clash[]
	sheetClashes: SheetClash[]
	sessions: ListedSession[]
	mayPlan: boolean
}) {
	const rows = [
		...clashes.map((clash) => ({
			key: `${clash.itemId}/${clash.otherId}/${clash.rule}`,
			sessionId: clash.itemId,
			row: (session: ListedSession) => <ClashRow clash={clash} session={session} mayPlan={mayPlan} />,
		})),
		...sheetClashes.map((clash) => ({
			key: `${clash.sessionId}/${clash.rule}/${clash.sentence}`,
			sessionId: clash.sessionId,
			row: (session: ListedSession) => <SheetClashRow clash={clash} session={session} mayPlan={mayPlan} />,
		})),
	]
		.flatMap(({ key, sessionId, row }) => {
			const session = sessions.find((one) => one.id === sessionId)
			return session ? [{ key, at: session.day + session.startTime, element: row(session) }] : []
		})
		.sort((a, b) => (a.at < b.at ? -1 : 1))
	return (
		<div className="mb-5">
			<ul aria-label="Clashes">
				{rows.slice(0, SHOWN).map(({ key, element }) => (
					<li key={key} className="rule py-2">
						{element}
					</li>
				))}
			</ul>
			{rows.length > SHOWN && (
				<details>
					<summary className="rule inline-flex min-h-[44px] w-full items-center">
						<span className="link">{rows.length - SHOWN} more, further ahead</span>
					</summary>
					<ul>
						{rows.slice(SHOWN).map(({ key, element }) => (
							<li key={key} className="rule py-2">
								{element}
							</li>
						))}
					</ul>
				</details>
			)}
		</div>
	)
}

function ClashRow({ clash, session, mayPlan }: { clash: Clash; session: ListedSession; mayPlan: boolean }) {
	const repair = useFetcher()
	const submission = useSubmission(repair.state)
	const busy = repair.state !== 'idle'
	return (
		<div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
			<span className="min-w-0 flex-1 basis-[280px]">
				<b>
					{session.squadName}, {shortDay(session.day)}:
				</b>{' '}
				{clash.sentence}. <span className="dim">{clash.rule === 'S6' ? 'published' : 'common practice'}</span>
			</span>
			{mayPlan && (
				<repair.Form method="post" className="flex flex-wrap gap-2">
					<SubmissionField id={submission} />
					<input type="hidden" name="id" value={clash.itemId} />
					{clash.moveTo[0] && (
						<>
							<input type="hidden" name="day" value={clash.moveTo[0]} />
							<button className="btn btn-quiet" name="do" value="move" disabled={busy}>
								Move to {shortDay(clash.moveTo[0])}
							</button>
						</>
					)}
					<button className="btn btn-quiet" name="do" value="ease" disabled={busy}>
						Leave its hard parts out
					</button>
				</repair.Form>
			)}
		</div>
	)
}

const REPAIR_WORDS: Record<NonNullable<SheetClash['repair']>, string> = {
	reorder: 'Put the hard parts first',
	trim: 'Cut to what is allowed',
	lower: 'Take the rung below',
}
const FIRMNESS: Record<SheetClash['rule'], string> = {
	S5: 'common practice',
	S7: 'our setting',
	S8: 'our setting',
	S10: 'our setting',
}
function SheetClashRow({ clash, session, mayPlan }: { clash: SheetClash; session: ListedSession; mayPlan: boolean }) {
	const repair = useFetcher()
	const submission = useSubmission(repair.state)
	return (
		<div className="flex flex-wrap items-center justify-between gap-x-4 gap-y-1">
			<span className="min-w-0 flex-1 basis-[280px]">
				<b>
					{session.squadName}, {shortDay(session.day)}:
				</b>{' '}
				{clash.sentence}{' '}
				<span className="dim">
					{clash.names.length > 4
						? `${clash.names.slice(0, 3).join(', ')} and ${clash.names.length - 3} more`
						: clash.names.join(', ')}{' '}
					· {sayFirmness(FIRMNESS[clash.rule])}
				</span>
			</span>
			{mayPlan &&
				(clash.repair ? (
					<repair.Form method="post">
						<SubmissionField id={submission} />
						<input type="hidden" name="id" value={clash.sessionId} />
						<input type="hidden" name="repair" value={clash.repair} />
						<button className="btn btn-quiet" name="do" value="repair" disabled={repair.state !== 'idle'}>
							{REPAIR_WORDS[clash.repair]}
						</button>
					</repair.Form>
				) : (
					<Link className="btn btn-quiet" to={`/sessions/${clash.sessionId}`}>
						See the sheet
					</Link>
				))}
		</div>
	)
}
