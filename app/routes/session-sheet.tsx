import { addTo } from '#core/lists/group-by'
import { Collapsible } from 'radix-ui'
import { Link, data, redirect } from 'react-router'
import { sayFirmness } from '#core/words/say-firmness'
import { longDay } from '#core/calendar/say-day'
import { SESSION_RANGES } from '#core/dose/level-ranges'
import { may } from '#server/access/roles'
import { takeOffSession } from '#server/plan/take-off'
import { changeLineByHand } from '#server/sheet/change-line'
import { RULE_NAMES } from '#core/rules/rule'
import { acknowledge } from '#server/sheet/read-cautions'
import { type SheetPage, readSheetPage } from '#server/sheet/read-sheet-page'
import { todayAt } from '#server/clock'
import { freshenLines } from '#server/sheet/rewrite-upcoming'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/session-sheet'
import { allowed, notFound } from '../request-guard'
import { FamilyMark, VerdictMark } from '../ui/glyphs'
import { BodyLines } from '../ui/body-line'
import { SessionStrip } from '../ui/session-strip'
import { PostForm } from '../ui/post-form'
import { actOn } from '../intents'
import { type AsJson, pack, usePacked } from '../packed'
import { useUnits } from '../field/units'
import { useLocal } from '../ui/local'

export const meta: Route.MetaFunction = () => [{ title: 'Session sheet · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = allowed(context, request, 'plan:read')
	await freshenLines(who.clubId, todayAt(who.timeZone), new Date())
	const shown = mayBeLate(scope)
	const page = await readSheetPage(shown, params.sessionId, todayAt(who.timeZone), who)
	if (!page) throw notFound()
	const begun = page.session.startedAt !== null
	return {
		behind: isBehind(shown),
		page: pack(page),
		begun,
		mayPlan: may(who.role, 'plan:write'),
		// Numbers on paper come in once the day is there.
		mayRead: may(who.role, 'marks:read') && (begun || page.session.day <= todayAt(who.timeZone)),
		mayField: may(who.role, 'marks:write') || may(who.role, 'marks:write-today'),
	}
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const answer = (
		line: string,
		result: { saved: true } | { kept: true } | { problem: string; asksWhy?: boolean } | null,
	) => {
		if (!result) throw notFound()
		return 'problem' in result
			? data<LineAnswer>({ line, problem: result.problem, asksWhy: result.asksWhy === true }, { status: 400 })
			: data<LineAnswer>({ line, saved: true })
	}
	return actOn<ReturnType<typeof answer> | Response>(request, {
		off: async () => {
			const taken = await takeOffSession(who, params.sessionId, new Date())
			return taken && 'off' in taken ? redirect('/plan') : answer('', taken)
		},
		acknowledge: async ({ text }) => {
			const finding = text('finding')
			return answer(finding, await acknowledge(who, params.sessionId, finding, text('reason'), new Date()))
		},
		dose: async ({ text }) => {
			const typed = { sets: text('sets'), reps: text('reps'), reason: text('reason') }
			return answer(text('line'), await changeLineByHand(who, params.sessionId, text('line'), typed, new Date()))
		},
	})
}

type LineAnswer = { line: string } & ({ saved: true } | { problem: string; asksWhy: boolean })

type Loaded = AsJson<SheetPage>
type SheetAthlete = Loaded['athletes'][number]
type SheetLine = SheetAthlete['lines'][number]

export default function SessionSheet({ loaderData, actionData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { begun, mayPlan, mayRead, mayField } = loaderData
	const { session, turns, strip, bodies, entries, athletes, cautions } = usePacked(loaderData.page)
	const planned = Math.round(strip.reduce((sum, part) => sum + part.minutes, 0))
	return (
		<>
			<header className="mb-5 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
				<div>
					<p className="dim">
						{longDay(session.day)} · {time(session.startTime)}
						{session.place && ` · ${session.place}`}
					</p>
					<h1 className="mt-1">
						{session.squadName}, {session.title.charAt(0).toLowerCase() + session.title.slice(1)}
					</h1>
					<p className={`mt-1 ${planned > session.plannedMinutes ? 'font-bold' : 'dim'}`}>
						About {planned} of {session.plannedMinutes} minutes
						{planned > session.plannedMinutes && (
							<>
								: {planned - session.plannedMinutes} too many,{' '}
								<Link className="link" to={`/sessions/${session.id}/flow`}>
									add lanes
								</Link>{' '}
								or drop a set or a part
							</>
						)}{' '}
						· {session.phase}
						{begun && ' · begun, the sheet is frozen'}
					</p>
					{turns.length > 0 && <p className="mt-1 font-semibold">{turns.join(' ')}</p>}
				</div>
				<div className="flex flex-wrap gap-2">
					<Link className="btn btn-quiet" to={`/sessions/${session.id}/flow`}>
						Lanes and minutes
					</Link>
					<Link className="btn btn-quiet" to={`/sessions/${session.id}/map`}>
						Field map
					</Link>
					<Link className="btn btn-quiet" to={`/sessions/${session.id}/card`}>
						Card
					</Link>
					{mayPlan && !begun && (
						<Link className="btn btn-quiet" to={`/sessions/${session.id}/change`}>
							Change
						</Link>
					)}
					{mayPlan && (
						<Link className="btn btn-quiet" to={`/sessions/new?copy=${session.id}`}>
							Copy
						</Link>
					)}
					{mayPlan && !begun && (
						<PostForm>
							<button className="btn btn-quiet" name="do" value="off" title="It can be brought back from the plan">
								Take off
							</button>
						</PostForm>
					)}
					{mayRead && (
						<Link className="btn btn-quiet" to={`/sessions/${session.id}/done`}>
							What was done
						</Link>
					)}
					{begun && (
						<Link className="btn btn-quiet" to={`/sessions/${session.id}/review`}>
							Review
						</Link>
					)}
					{mayField && session.reviewedAt === null && (
						<a className="btn" href={`/field?session=${session.id}`}>
							Go to the field
						</a>
					)}
				</div>
			</header>
			{cautions.length > 0 && (
				<Cautions
					cautions={cautions}
					mayAnswer={mayPlan}
					problem={
						actionData && 'problem' in actionData ? { finding: actionData.line, text: actionData.problem } : null
					}
				/>
			)}
			<div className="mb-5">
				<BodyLines bodies={bodies} />
			</div>
			<SessionStrip parts={strip} />

			<section className="mt-7">
				<h2>What everybody does</h2>
				<ul className="mt-2">
					{entries.map((entry) => (
						<EntryRow key={entry.id} entry={entry} athletes={athletes} />
					))}
				</ul>
			</section>

			<section className="mt-8">
				<h2>Each athlete’s own lines and totals</h2>
				<p className="dim mt-0.5 text-[14px]">
					Contacts are moderate and harder; low ones, of skips and pogos, stand beside them. One landing of both feet is
					1; the load of a leg is its own and those on both. Sprint steps are not contacts. Estimates until the marks
					are in.
				</p>
				<div className="mt-2">
					{athletes.map((athlete) => (
						<AthleteRow
							key={athlete.id}
							athlete={athlete}
							entries={entries}
							begun={begun}
							mayPlan={mayPlan}
							problem={
								actionData && 'problem' in actionData
									? { line: actionData.line, text: actionData.problem, asksWhy: actionData.asksWhy }
									: null
							}
						/>
					))}
				</div>
			</section>
		</>
	)
}

/** What stands against the sheet as it is: change it, or answer by name, time and reason. */
function Cautions({
	cautions,
	mayAnswer,
	problem,
}: {
	cautions: Loaded['cautions']
	mayAnswer: boolean
	problem: { finding: string; text: string } | null
}) {
	const { asRead } = useUnits()
	const open = cautions.filter((caution) => caution.answered === null).length
	return (
		<section className="mb-5 border-l-[3px] border-ink pl-3" aria-label="Cautions">
			<h2>{open === 0 ? 'Cautions, all answered' : open === 1 ? 'One caution' : `${open} cautions`}</h2>
			<ul>
				{cautions.map((caution) => (
					<li key={`${caution.rule}${asRead(caution.sentence)}`} className="rule py-2">
						<p>
							{asRead(caution.sentence)}{' '}
							<span className="dim text-[14px]">
								{RULE_NAMES[caution.rule].toLowerCase()}
								{caution.names.length > 0 &&
									` · ${caution.names.length > 4 ? `${caution.names.length} athletes` : caution.names.join(', ')}`}
							</span>
						</p>
						{caution.answered ? (
							<p className="dim text-[14px]">
								{caution.answered.by}, {caution.answered.at}: {caution.answered.reason}
							</p>
						) : (
							mayAnswer && (
								<details open={problem?.finding === caution.finding}>
									<summary className="link inline-flex min-h-[36px] max-lg:min-h-[44px] items-center text-[14px]">
										Go on, with a reason
									</summary>
									<PostForm preventScrollReset className="flex flex-wrap items-center gap-2">
										<input type="hidden" name="finding" value={caution.finding} />
										<input
											className="input w-[320px] max-w-full"
											name="reason"
											required
											minLength={3}
											maxLength={500}
											aria-label="Reason"
											placeholder="Your reason"
										/>
										<button className="btn btn-quiet" name="do" value="acknowledge">
											Go on
										</button>
									</PostForm>
									{problem?.finding === caution.finding && (
										<p className="problem" role="alert">
											{asRead(problem.text)}
										</p>
									)}
								</details>
							)
						)}
					</li>
				))}
			</ul>
		</section>
	)
}

/** One entry: like lines together, the most common first. */
function EntryRow({ entry, athletes }: { entry: Loaded['entries'][number]; athletes: SheetAthlete[] }) {
	const { asRead } = useUnits()
	const groups = new Map<string, string[]>()
	const over: string[] = []
	for (const athlete of athletes) {
		const line = athlete.lines.find((candidate) => candidate.entryId === entry.id)
		if (!line) continue
		if (line.over !== null) {
			over.push(athlete.name)
			continue
		}
		const words = line.blocked ? `no line: ${line.blocked}` : line.words
		addTo(groups, words, athlete.name)
	}
	const sorted = [...groups].sort((a, b) => b[1].length - a[1].length)
	return (
		<li className="rule grid gap-x-4 gap-y-1 py-2 sm:grid-cols-[190px_1fr]">
			<p className="flex items-start gap-2.5">
				<span className="pt-0.5">
					<FamilyMark family={entry.family} label />
				</span>
				<span>
					<b>{entry.name}</b>
					{entry.part !== entry.name && <span className="dim block text-[13.5px]">{entry.part}</span>}
				</span>
			</p>
			<ul>
				{sorted.map(([words, names]) => (
					<li key={words} className="grid gap-x-4 sm:grid-cols-[280px_1fr]">
						<span>{asRead(words)}</span>
						<span className="dim">{sorted.length === 1 && over.length === 0 ? 'everybody' : names.join(', ')}</span>
					</li>
				))}
				{over.length > 0 && (
					<li className="grid gap-x-4 font-bold text-attn sm:grid-cols-[280px_1fr]">
						<span>over for today</span>
						<span>{over.join(', ')}</span>
					</li>
				)}
			</ul>
		</li>
	)
}

function AthleteRow({
	athlete,
	entries,
	begun,
	mayPlan,
	problem,
}: {
	athlete: SheetAthlete
	entries: Loaded['entries']
	begun: boolean
	mayPlan: boolean
	problem: { line: string; text: string; asksWhy: boolean } | null
}) {
	const { planned, done } = athlete
	const range = SESSION_RANGES[athlete.level].contacts
	const show = (what: number, was: number) => (begun ? `${was} of ${what}` : String(what))
	const changed = athlete.lines.filter((line) => line.change).length
	return (
		<Collapsible.Root
			className="rule"
			defaultOpen={problem !== null && athlete.lines.some((line) => line.id === problem.line)}
		>
			<Collapsible.Trigger className="group grid w-full grid-cols-2 items-baseline gap-x-4 gap-y-0.5 py-2 text-left lg:grid-cols-[180px_70px_1fr_110px_90px_90px_70px]">
				<b>{athlete.name}</b>
				<span className="dim text-right lg:text-left">level {athlete.level}</span>
				<span data-testid="contacts">
					<b className="num">{show(planned.contacts, done.contacts)}</b> contacts{' '}
					<span className="dim">
						· left {show(planned.left, done.left)}, right {show(planned.right, done.right)}, both{' '}
						{show(planned.both, done.both)}
						{planned.low + done.low > 0 && ` · ${show(planned.low, done.low)} low`}
					</span>
				</span>
				<span data-testid="metres" className="text-right lg:text-left">
					<b className="num">{show(planned.metres, done.metres)}</b> m
				</span>
				<span>
					<b className="num">{show(planned.cuts, done.cuts)}</b> cuts
				</span>
				<span className="text-right lg:text-left">
					<b className="num">{show(planned.throws, done.throws)}</b> throws
				</span>
				<span className="dim">
					{athlete.minutes}′{changed > 0 && <span className="sr-only">, {changed} changed</span>}{' '}
					<span className="link group-data-[state=open]:hidden">lines</span>
				</span>
			</Collapsible.Trigger>
			<Collapsible.Content className="pb-3 sm:pl-4">
				<p className="dim text-[14px]">
					Contacts usual for level {athlete.level}: {range.low} to {range.high} ({sayFirmness(range.firmness)}).
				</p>
				<ul className="mt-1">
					{athlete.lines.map((line) => {
						const entry = entries.find((candidate) => candidate.id === line.entryId)
						return (
							<LineRow
								key={line.id}
								line={line}
								part={entry?.name ?? ''}
								editable={mayPlan && !begun && line.blocked === null}
								problem={problem?.line === line.id ? problem : null}
							/>
						)
					})}
				</ul>
			</Collapsible.Content>
		</Collapsible.Root>
	)
}

function LineRow({
	line,
	part,
	editable,
	problem,
}: {
	line: SheetLine
	part: string
	editable: boolean
	problem: { text: string; asksWhy: boolean } | null
}) {
	const { asRead } = useUnits()
	return (
		<li className="rule grid gap-x-4 gap-y-0.5 py-2 text-[14.5px] lg:grid-cols-[150px_1fr_auto]">
			<span className="dim">{part}</span>
			<div>
				<p>
					{line.blocked ? (
						<b>No line: {line.blocked}</b>
					) : (
						<>
							<b>{asRead(line.words)}</b>{' '}
							<span className="dim">
								{line.rest !== '' && `· ${line.rest} `}· target: {line.target}
							</span>
						</>
					)}
					{line.origin === 'hand-set' && <span className="dim"> · set by hand</span>}
				</p>
				{line.blocked === null && line.own.length > 0 && <p>{line.own.join(' ')}</p>}
				{line.over && <p className="font-bold text-attn">Over by now: {line.over}.</p>}
				{line.change && (
					<p className="flex items-start gap-2">
						{line.change.verdict && (
							<span className="pt-1">
								<VerdictMark word={line.change.verdict} />
							</span>
						)}
						<span>
							Was {asRead(line.change.from)}. {asRead(line.change.why)}{' '}
							<span className="dim">({sayFirmness(line.change.firmness)})</span>
						</span>
					</p>
				)}
				{line.wouldBe && (
					<p>
						The verdict would have written <b>{line.wouldBe}</b>; the line set by hand stays.
					</p>
				)}
				{line.cautions.length > 0 && <p className="border-l-[3px] border-ink pl-2">{line.cautions.join('. ')}.</p>}
				{problem && (
					<p className="problem" role="alert">
						{asRead(problem.text)}
					</p>
				)}
			</div>
			{editable && (
				<PostForm preventScrollReset className="flex items-center gap-1.5">
					<input type="hidden" name="line" value={line.id} />
					<input
						className="input w-[58px] text-center"
						name="sets"
						inputMode="numeric"
						defaultValue={line.dose.sets}
						aria-label={`Sets, ${part}`}
					/>
					<span aria-hidden="true">×</span>
					<input
						className="input w-[58px] text-center"
						name="reps"
						inputMode="numeric"
						defaultValue={line.dose.reps}
						aria-label={`Reps, ${part}`}
					/>
					{problem?.asksWhy && (
						<input
							className="input w-[220px]"
							name="reason"
							placeholder="why it is right"
							aria-label={`Why, ${part}`}
						/>
					)}
					<button className="btn btn-quiet" name="do" value="dose" aria-label={`Set by hand, ${part}`}>
						Set
					</button>
				</PostForm>
			)}
		</li>
	)
}
