import { sayFirmness } from '#core/words/say-firmness'
import { sayAway } from '#core/calendar/away'
import { Link, data, redirect } from 'react-router'
import { v7 as newId } from 'uuid'
import { longDay, shortDay } from '#core/calendar/say-day'
import { ATHLETE_TYPES, REGION_NAMES, TYPE_NAMES } from '#core/vocabulary/words'
import { OUTSIDE_NAMES, sayLift } from '#core/judge/outside-load'
import { changeFor, judgementFor, personFor, reasonFor, seesBody } from '#server/access/projection'
import { type Permission, may } from '#server/access/roles'
import { takeBackMeasurement } from '#server/bench/save-measurement'
import { todayAt } from '#server/clock'
import { enterOutside, mayEnterOutside, takeBackOutside } from '#server/care/outside'
import { readNumber } from '#core/measure/read-number'
import { sayEfforts } from '#server/record/say-effort'
import { nameCauses } from '#server/record/name-causes'
import { SPANS, type Span } from '#core/record/story'
import { versionSeen } from '#server/submissions/take-version'
import { mayRecord, recordClearance } from '#server/care/clear'
import { changeContact, mayWriteContact } from '#server/care/emergency'
import { closeCare, mayOpen } from '#server/care/care-records'
import { answerAsked, mayReport, report } from '#server/care/report'
import { changeIdentity, changeLevel, changeMass, changeType } from '#server/squads/change-roster'
import { changeAway, changeSquads } from '#server/squads/membership'
import { readAthletePage } from '#server/squads/read-athlete'
import { placeOf } from '#core/rules/bars'
import { sayRestriction } from '#core/rules/s2-restriction'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/athlete'
import { notFound, signedIn } from '../request-guard'
import { BenchList } from '../athlete/bench-list'
import { ClosedPlace } from '../athlete/closed-place'
import { EffortAsked } from '../athlete/effort-asked'
import { LadderStory } from '../athlete/ladder-story'
import { OutsideForm } from '../athlete/outside-form'
import { WhereTimeGoes } from '../athlete/where-time-goes'
import { FortnightStrip } from '../story/fortnight-strip'
import { TrendView } from '../story/trend-view'
import { WhyView } from '../story/why-view'
import { FamilyMark, VerdictMark } from '../ui/glyphs'
import { MeanwhileNote, type Overtaken } from '../ui/meanwhile-note'
import { AwayForm, SquadsForm, sayFollowed } from '../athlete/membership-forms'
import { PostForm } from '../ui/post-form'
import { Records } from '../ui/records'
import { Said } from '../ui/said'
import { SetAsideList } from '../ui/set-aside'
import { ReportForm } from '../ui/report-form'
import { DayField, TextField } from '../ui/text-field'
import { readReport } from '../read-report'
import { pack, usePacked } from '../packed'
import { actOn, noProblems } from '../intents'
import { useUnits } from '../field/units'
import { useLocal } from '../ui/local'
import { WhatIs } from '../ui/what-is'
import { erasePerson, isErased } from '#server/person/person-data'

export const meta: Route.MetaFunction = () => [{ title: 'Athlete · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who, scope } = signedIn(context, request)
	const own = who.athleteId === params.athleteId
	// Somebody else's athlete page looks to an athlete like one that does not exist.
	if (!own && !may(who.role, 'plan:read')) throw notFound()
	const showPain = seesBody(who, params.athleteId)
	const query = new URL(request.url).searchParams
	const span = query.get('span') ?? ''
	const shown = mayBeLate(scope)
	const page = await readAthletePage(shown, params.athleteId, todayAt(who.timeZone), {
		measure: query.get('measure'),
		span: Object.hasOwn(SPANS, span) ? (span as Span) : 'season',
		session: query.get('day'),
		showBody: showPain,
		forPlanner: may(who.role, 'plan:write'),
	})
	if (!page) throw notFound()
	const {
		care,
		drills,
		episodes: _episodes,
		walked,
		ageYears,
		athlete,
		next,
		clearances,
		moves,
		emergency: _emergency,
		...rest
	} = page
	const openCare = care.filter((row) => row.endedOn === null)
	const named = { drills: Object.fromEntries(drills.map((drill) => [drill.id, drill])) }
	const seen = {
		...rest,
		effortAsked: own ? rest.effortAsked : null,
		athlete: personFor(showPain, athlete, ageYears),
		next: next && {
			...next,
			// The athlete reads the whole session; at the desk the ladders are what changes.
			lines: next.lines
				.filter((line) => own || line.onLadder)
				.map((line) => ({ ...line, change: changeFor(showPain, line.change) })),
		},
		clearances: showPain ? clearances : [],
		walked: showPain ? walked : walked.map((day) => ({ ...day, answers: [] })),
		moves: showPain ? moves : moves.map((row) => ({ ...row, reason: '' })),
		standsInTheWay: showPain
			? openCare
					.filter((row) => row.kind === 'worry' || (row.kind === 'restriction' && (row.pattern || row.drillId)))
					.map(
						(row) =>
							`${sayRestriction(row, named)}: ${row.kind === 'worry' ? 'a worry' : 'closed by hand'} since ${shortDay(row.fromDay)}`,
					)
			: [],
		pains: showPain ? page.pains : [],
		verdicts: page.verdicts.map(({ judgement, reason, ...row }) => ({
			...row,
			sentence: judgementFor(showPain, judgement).sentence,
			reason: reasonFor(showPain, judgement.decidedBy, reason),
		})),
		showPain,
		emergency: showPain ? page.emergency : null,
		mayContact: mayWriteContact(who, params.athleteId),
		mayChange: may(who.role, 'plan:write'),
		mayName: may(who.role, 'people:write'),
		mayMeasure: may(who.role, 'marks:write'),
		mayEnter: mayEnterOutside(who, params.athleteId),
		personId: who.personId,
		own,
		illness: showPain ? (openCare.find((row) => row.kind === 'illness') ?? null) : null,
		mayReport: mayReport(who, params.athleteId),
		mayClear: mayRecord(who, params.athleteId),
	}
	return { behind: isBehind(shown), page: pack(seen) }
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = signedIn(context, request)
	const { athleteId } = params
	if (await isErased(who, athleteId))
		throw new Response('This athlete was erased; nothing more is kept of them.', { status: 410 })
	const mustHave = (permission: Permission, refusal: string) => {
		if (!may(who.role, permission)) throw new Response(refusal, { status: 403 })
	}
	/** @param which form says beside its button that it is kept; empty where the page shows it by itself */
	const answer = (result: { problems: Record<string, string> } | object | null | false, region = '', which = '') => {
		if (!result) throw notFound()
		const problems = 'problems' in result ? (result.problems as Record<string, string>) : noProblems
		const kept = which !== '' && problems === noProblems ? { which, did: 'Kept.' } : {}
		return data<AthleteAnswer>({ problems, region, ...kept }, { status: problems === noProblems ? 200 : 400 })
	}
	const followed = (
		changed: Parameters<typeof sayFollowed>[0] | { problems: Record<string, string> } | null,
		which: string,
	) =>
		changed && 'on' in changed
			? data<AthleteAnswer>({ problems: noProblems, region: '', which, did: sayFollowed(changed) })
			: answer(changed)
	const overtaken = (by: { meanwhile: Overtaken }, which: string) =>
		data<AthleteAnswer>({ problems: noProblems, region: '', which, ...by }, { status: 409 })
	return actOn(request, {
		level: async ({ text, form }) => {
			mustHave('plan:write', 'The coach decides the levels.')
			const [family, level] = [text('family'), Number(text('level'))]
			const set = await changeLevel(who, athleteId, family, level, versionSeen(form), new Date())
			return typeof set === 'object' ? overtaken(set, family) : answer(set && {}, '', family)
		},
		report: async (sent) => answer(await report(who, athleteId, readReport(sent), new Date())),
		// Well again: said by whoever may say unwell; not before the next day.
		well: async ({ text }) => {
			if (!mayOpen(who, 'illness', athleteId)) throw new Response('Only about yourself.', { status: 403 })
			const ended = await closeCare(who, athleteId, text('id'), { name: '', role: '' }, new Date())
			return answer(
				ended && 'problems' in ended ? { problems: { well: Object.values(ended.problems)[0] ?? '' } } : ended,
			)
		},
		outside: async ({ text }) => {
			if (!mayEnterOutside(who, athleteId))
				throw new Response('The coach enters what else loads, and the athlete what loads them.', { status: 403 })
			const typed = {
				kind: text('kind'),
				day: text('day'),
				startTime: text('startTime'),
				minutes: text('minutes'),
				rpe: text('rpe'),
				hardRunning: text('hardRunning'),
				hardCutting: text('hardCutting'),
				hardJumping: text('hardJumping'),
				lifts: text('lifts'),
			}
			return answer(await enterOutside(who, { athleteId }, typed, new Date()))
		},
		'outside-back': async ({ text }) => {
			if (!mayEnterOutside(who, athleteId))
				throw new Response('The coach takes this back, or whoever entered it.', { status: 403 })
			return answer((await takeBackOutside(who, athleteId, text('outside'), new Date())) && {})
		},
		effort: async ({ text }) => {
			if (!mayEnterOutside(who, athleteId))
				throw new Response('The coach asks how hard it was, and the athlete says it of their own.', { status: 403 })
			const given = [{ athleteId, rpe: readNumber(text('rpe')) ?? Number.NaN }]
			const said = await sayEfforts(who, text('session'), given, Number(text('minutes')), new Date())
			if (!said) throw notFound()
			return answer(
				said.refused > 0
					? { problems: { effort: 'From 0 to 10, over 1 to 600 minutes, of a session that was held.' } }
					: {},
			)
		},
		cause: async ({ text, form }) => {
			mustHave('marks:write', 'The coach says what it was.')
			return answer(await nameCauses(who, athleteId, text('session'), form.getAll('cause').map(String), new Date()))
		},
		identity: async ({ text, form }) => {
			mustHave('people:write', 'The coach keeps names and birth dates.')
			const typed = { name: text('name'), birthDate: text('birthDate') }
			const changed = await changeIdentity(who, athleteId, typed, versionSeen(form), new Date())
			if (changed && 'meanwhile' in changed) return overtaken(changed, 'identity')
			return answer(changed, '', 'identity')
		},
		squads: async ({ form }) => {
			mustHave('people:write', 'The coach keeps squads.')
			const squads = form.getAll('squad').map(String)
			const changed = await changeSquads(who, athleteId, squads, versionSeen(form), new Date())
			if (changed && 'meanwhile' in changed) return overtaken(changed, 'squads')
			return followed(changed, 'squads')
		},
		away: async ({ text, form }) => {
			mustHave('people:write', 'The coach says who is away.')
			const typed = { from: text('awayFrom'), until: text('awayUntil') }
			const changed = await changeAway(who, athleteId, typed, versionSeen(form), new Date())
			if (changed && 'meanwhile' in changed) return overtaken(changed, 'away')
			return followed(changed, 'away')
		},
		mass: async ({ text, form }) => {
			mustHave('plan:write', 'The coach sets the body mass.')
			const changed = await changeMass(who, athleteId, text('mass'), versionSeen(form), new Date())
			if (changed && 'meanwhile' in changed) return overtaken(changed, 'mass')
			return answer(changed && ('problem' in changed ? { problems: { mass: changed.problem } } : {}), '', 'mass')
		},
		erase: async ({ text }) => {
			mustHave('people:write', 'The coach erases an athlete.')
			const erased = await erasePerson(who, athleteId, text('erase'), new Date())
			if (erased && 'erased' in erased) throw redirect('/squads')
			return answer(erased && { problems: { erase: erased.problem } }, '', 'erase')
		},
		type: async ({ text, form }) => {
			mustHave('plan:write', 'The coach says how somebody is built.')
			const changed = await changeType(who, athleteId, text('type'), versionSeen(form), new Date())
			return typeof changed === 'object' ? overtaken(changed, 'type') : answer(changed && {}, '', 'type')
		},
		contact: async ({ text, form }) => {
			if (!mayWriteContact(who, athleteId))
				throw new Response('The coach, the athlete or a guardian keeps this.', { status: 403 })
			const changed = await changeContact(who, athleteId, text('contact'), versionSeen(form), new Date())
			if (changed && 'meanwhile' in changed) return overtaken(changed, 'contact')
			return answer(changed && ('problem' in changed ? { problems: { contact: changed.problem } } : {}), '', 'contact')
		},
		'take-back': async ({ text }) => {
			const taken = await takeBackMeasurement(who, text('measurement'), newId(), new Date())
			if (taken === 'not-allowed')
				throw new Response('The coach, or whoever took it, takes a measurement back.', { status: 403 })
			return answer(taken && {})
		},
		asked: async ({ text }) => {
			const region = text('region')
			return answer(
				await answerAsked(who, athleteId, { region, side: text('side'), score: text('score') }, new Date()),
				region,
			)
		},
		clear: async ({ text }) => {
			if (!mayRecord(who, athleteId))
				throw new Response('Coach, clinician or guardian record a clearance.', { status: 403 })
			const region = text('region')
			const typed = {
				region,
				side: text('side'),
				clearedBy: text('clearedBy'),
				role: text('role'),
				injury: text('injury'),
			}
			return answer(await recordClearance(who, athleteId, typed, new Date()), region)
		},
	})
}

/** What somebody is called and when they were born. */
function NameForm({
	athlete,
	version,
	answer,
}: {
	athlete: { name: string; birthDate: string | null }
	version: number
	answer: AthleteAnswer | undefined
}) {
	const overtaken = answer?.which === 'identity' ? answer.meanwhile : undefined
	const { name, birthDate } = answer?.problems ?? {}
	return (
		<details className="mb-5" open={overtaken !== undefined || name !== undefined || birthDate !== undefined}>
			<summary className="link inline-flex min-h-[44px] items-center">Name and birth date</summary>
			<PostForm preventScrollReset key={version} className="grid gap-3 pt-1">
				<input type="hidden" name="version" value={version} />
				<TextField label="Name" name="name" required defaultValue={athlete.name} problem={name} />
				<DayField label="Born" name="birthDate" defaultValue={athlete.birthDate ?? ''} problem={birthDate} />
				<button className="btn btn-quiet justify-self-start" name="do" value="identity">
					Keep
				</button>
				{overtaken && <MeanwhileNote overtaken={overtaken} />}
			</PostForm>
			{answer?.which === 'identity' && <Said answer={{ ...answer, meanwhile: undefined }} />}
		</details>
	)
}

/** What a type changes. */
const TYPE_DOES = {
	none: 'Proposals take nothing away.',
	stiff: 'Proposals have a third fewer springs and rebounds, and all of the slow work.',
	slow: 'Proposals have all the springs, and half the slow work.',
}

interface AthleteAnswer {
	problems: Record<string, string>
	region: string
	meanwhile?: Overtaken
	/** Which form somebody else has saved meanwhile: name and birth date, the mass, the type, whom to call, or a family's level. */
	which?: string
	/** What a change of squads or of days away did to the sessions ahead. */
	did?: string
}

export default function Athlete({ loaderData, actionData }: Route.ComponentProps) {
	const { time } = useLocal()
	const { asRead, typed } = useUnits()
	const {
		athlete,
		story,
		noted,
		segments,
		version,
		squadNames,
		squads,
		memberOf,
		today,
		squadId,
		levels,
		ladders,
		next,
		records,
		setAside,
		verdicts,
		moves,
		pains,
		measured,
		standing,
		clearances,
		closures,
		own,
		illness,
		effortAsked,
		built,
		waysBack,
		walked,
		outside,
		load,
		standsInTheWay,
		showPain,
		emergency,
		mayContact,
		mayChange,
		mayName,
		mayMeasure,
		mayEnter,
		personId,
		mayClear,
		mayReport,
	} = usePacked(loaderData.page)
	// A report that was taken empties the form.
	const reportsSaid = pains.length + closures.length + (illness ? 1 : 0)
	return (
		<>
			<header>
				<p className="dim">
					{squadNames.join(', ') || 'in no squad'}
					{sayAway(athlete.away, today) && <b> · {sayAway(athlete.away, today)}</b>} · {asRead(athlete.bands)}
				</p>
				<h1 className="mt-1">{athlete.name}</h1>
			</header>
			{closures
				.filter(({ grade }) => grade !== 'noted')
				.map((closure) => (
					<ClosedPlace
						key={`${closure.region}${closure.side}`}
						closure={closure}
						mayClear={mayClear}
						mayReport={mayReport}
						problems={actionData?.region === closure.region ? actionData.problems : {}}
					/>
				))}
			{illness && (
				<section className="mt-5 border-l-[4px] border-ink py-1 pl-4">
					<h2>Unwell since {shortDay(illness.fromDay)}</h2>
					<p className="mt-1">Nothing high, shock or maximal until well again.</p>
					{mayReport && (
						<PostForm preventScrollReset className="mt-2">
							<input type="hidden" name="id" value={illness.id} />
							<button className="btn btn-quiet" name="do" value="well">
								Well again
							</button>
						</PostForm>
					)}
					{actionData?.problems.well && (
						<p className="problem" role="alert">
							{actionData.problems.well}
						</p>
					)}
				</section>
			)}
			{own && (
				<details className="mt-5" open={actionData?.problems.pain !== undefined} key={`own${reportsSaid}`}>
					<summary className="btn btn-quiet inline-flex cursor-pointer list-none">
						Something hurts, or you are unwell
					</summary>
					<ReportForm problem={actionData?.problems.pain} />
				</details>
			)}
			{effortAsked && <EffortAsked asked={effortAsked} problem={actionData?.problems.effort} />}
			{waysBack.length > 0 && (
				<section className="mt-5 border-l-[4px] border-ink py-1 pl-4">
					<h2>On the way back</h2>
					<ul className="mt-1">
						{waysBack.map(({ name, steps, at }) => (
							<li key={name}>
								{name}: <b>{steps[at]}</b>, step <span className="num">{at + 1}</span> of{' '}
								<span className="num">{steps.length}</span>
								{steps[at + 1] && <span className="dim"> · then {steps[at + 1]}</span>}
							</li>
						))}
					</ul>
					{walked.length > 0 && (
						<ol className="mt-2 max-w-[640px]" aria-label="Day by day">
							{walked.map((one) => (
								<li key={one.day} className="rule grid grid-cols-[110px_1fr_auto] gap-x-3 py-1">
									<span className="dim">{shortDay(one.day)}</span>
									<span>{one.steps.map(({ name, done }) => `${name}${done ? '' : ', not done'}`).join('; ')}</span>
									<span className="num">
										{one.answers.map((answer) => `${answer.place} ${answer.score}`).join(', ')}
									</span>
								</li>
							))}
						</ol>
					)}
					{clearances[0] && (
						<p className="mt-1">
							Cleared by {clearances[0].clearedBy}, {clearances[0].clearedByRole}, {shortDay(clearances[0].clearedOn)}.
						</p>
					)}
					<p className="dim mt-1 max-w-[70ch] text-[14px]">
						One step a session, in one part of it; everything else of its families is low work that spares what was
						hurt.
					</p>
				</section>
			)}
			<div className="mt-6 grid gap-x-10 gap-y-8 lg:grid-cols-[1fr_330px]">
				<div className="grid content-start gap-8">
					<section>
						<h2>
							Now
							{next && (
								<span className="dim font-normal">
									{' '}
									— {longDay(next.day)}, {time(next.startTime)}, {next.squadName}
								</span>
							)}
						</h2>
						{next ? (
							<ul className="mt-2">
								{next.lines.map((line) => (
									<li key={line.id} className="rule flex items-start gap-3 py-2">
										<span className="w-6 pt-1">
											{line.change?.verdict && <VerdictMark word={line.change.verdict} />}
										</span>
										<span>
											{line.blocked === null ? (
												<b>{asRead(line.words)}</b>
											) : (
												<>
													{asRead(line.words)}: <b>not today</b>, {line.blocked}
												</>
											)}
											{line.change && (
												<span className="dim block text-[14px]">
													Was {asRead(line.change.from)}. {asRead(line.change.why)} ({sayFirmness(line.change.firmness)}
													)
												</span>
											)}
										</span>
									</li>
								))}
							</ul>
						) : (
							<p className="rule dim mt-2 py-2">No session planned.</p>
						)}
					</section>
					{story?.trend ? (
						<TrendView trend={story.trend} measures={story.measures} athleteId={athlete.id} />
					) : (
						<section>
							<h2>Where it is going</h2>
							<p className="rule dim mt-2 py-2">Nothing measured yet: the first marks begin the picture.</p>
						</section>
					)}
					{story && <FortnightStrip days={story.fortnight} athleteId={athlete.id} />}
					<section>
						<h2>Ladders</h2>
						<div className="mt-2 grid gap-x-8 gap-y-5 sm:grid-cols-2">
							{ladders
								.filter((ladder) => ladder.met)
								.map((ladder) => (
									<LadderStory key={ladder.id} ladder={ladder} />
								))}
						</div>
						{ladders.every((ladder) => !ladder.met) && <p className="rule dim mt-2 py-2">No ladder met yet.</p>}
						{squadId && mayChange && (
							<p className="mt-3">
								<Link className="link" to={`/squads/${squadId}/ladders`}>
									The squad on its ladders, and moves by hand
								</Link>
							</p>
						)}
					</section>
					{moves.length > 0 && (
						<section>
							<h2>Moved by hand</h2>
							<ul className="mt-2">
								{moves.map((row) => (
									<li key={row.id} className="rule py-2">
										<span className="dim">
											{shortDay(row.day)}, {row.ladderName.toLowerCase()}
										</span>{' '}
										{row.from} to <b>{row.to}</b>: {row.reason}
									</li>
								))}
							</ul>
						</section>
					)}
					<section>
						<h2>Moves, newest first</h2>
						{verdicts.length === 0 ? (
							<p className="rule dim mt-2 py-2">No move yet: everything has held so far.</p>
						) : (
							<ul className="mt-2">
								{verdicts.map((row) => (
									<li
										key={row.id}
										className="rule grid grid-cols-[28px_1fr] gap-x-2.5 py-2 sm:grid-cols-[28px_170px_1fr]"
									>
										<span className="pt-1">
											<VerdictMark word={row.decided} />
										</span>
										<span className="dim">
											{shortDay(row.day)}, {row.ladderName.toLowerCase()}
										</span>
										<span className="col-start-2 sm:col-start-3">
											{asRead(row.sentence)}
											{row.reason && (
												<b className="block">
													Decided: {row.decided}. {row.reason}
												</b>
											)}
										</span>
									</li>
								))}
							</ul>
						)}
					</section>
				</div>
				<aside className="grid content-start gap-8">
					{story?.why && <WhyView why={story.why} mayName={mayMeasure} problem={actionData?.problems.cause} />}
					{noted.length > 0 && (
						<section>
							<h2>Noted last time</h2>
							<ul className="mt-2">
								{noted.map((one) => (
									<li key={one.drill} className="rule py-1.5">
										{one.drill}: {one.text} <span className="dim">{shortDay(one.day)}</span>
									</li>
								))}
							</ul>
						</section>
					)}
					{segments && <WhereTimeGoes segments={segments} squadId={squadId} mayChange={mayChange} />}
					<section>
						<SetAsideList marks={setAside} maySettle={false} mayReview={mayMeasure} problem={null} />
						<h2>Usual and best</h2>
						{records.length === 0 ? (
							<p className="rule dim mt-2 py-2">Nothing measured yet.</p>
						) : (
							<>
								<Records records={records} />
								<a
									className="link inline-flex min-h-[44px] items-center print:hidden"
									href={`/athletes/${athlete.id}/marks.csv`}
								>
									all marks as a file (CSV)
								</a>
							</>
						)}
					</section>
					<section>
						<h2>What lines are set by</h2>
						{standing.length === 0 ? (
							<p className="rule dim mt-2 py-2">Nothing measured stands: lines go by rung and school alone.</p>
						) : (
							<ul className="mt-2">
								{standing.map((sentence) => (
									<li key={sentence} className="rule py-1.5">
										{asRead(sentence)}
									</li>
								))}
							</ul>
						)}
					</section>
					<BenchList measured={measured} mayMeasure={mayMeasure} />
					<section>
						<h2>What else loads</h2>
						{load && load.monotony !== null && (
							<p className="rule mt-2 py-2">
								The last seven days: <b className="num">{Math.round(load.load)}</b> effort minutes, monotony{' '}
								<b className="num">{load.monotony.toFixed(1)}</b>, strain{' '}
								<b className="num">{Math.round(load.strain ?? 0)}</b>. <WhatIs term="monotony" />
							</p>
						)}
						{outside.length === 0 ? (
							<p className="rule dim mt-2 py-2">No match, practice or gym in four weeks.</p>
						) : (
							<ul className="mt-2">
								{outside.map((row) => (
									<li key={row.id} className="rule flex items-center justify-between gap-2 py-1">
										<span>
											{OUTSIDE_NAMES[row.kind]}, {row.minutes} min{row.rpe !== null && `, effort ${row.rpe}`}
											{row.lifts && <span className="block">{asRead(row.lifts.map(sayLift).join('; '))}</span>}
											<span className="dim block text-[13px]">
												{shortDay(row.day)}, {time(row.startTime)}
												{row.hardRunning && ' · hard running'}
												{row.hardCutting && ' · hard cutting'}
												{row.hardJumping && ' · hard jumping'}
											</span>
										</span>
										{(mayMeasure || (mayEnter && row.recordedBy === personId)) && (
											<PostForm preventScrollReset>
												<input type="hidden" name="outside" value={row.id} />
												<button
													className="link min-h-[44px] text-[13.5px] whitespace-nowrap"
													name="do"
													value="outside-back"
													aria-label={`Take back: ${OUTSIDE_NAMES[row.kind]}, ${shortDay(row.day)}`}
												>
													Take back
												</button>
											</PostForm>
										)}
									</li>
								))}
							</ul>
						)}
						{mayEnter && <OutsideForm problem={actionData?.problems.outside} />}
					</section>
					{emergency && (
						<section>
							<h2>In an emergency</h2>
							{mayContact ? (
								<PostForm preventScrollReset className="mt-2 flex flex-wrap items-center gap-2">
									<input type="hidden" name="version" value={emergency.version} />
									<input
										className="input min-w-0 flex-1"
										name="contact"
										defaultValue={emergency.contact ?? ''}
										key={emergency.contact}
										placeholder="Name, who it is, number"
										maxLength={200}
										aria-label="Whom to call in an emergency"
									/>
									<button className="btn btn-quiet">Keep</button>
									<input type="hidden" name="do" value="contact" />
									<Said answer={actionData?.which === 'contact' ? actionData : undefined} />
								</PostForm>
							) : (
								<p className="rule mt-2 py-2">{emergency.contact ?? 'Nobody is on record.'}</p>
							)}
							{actionData?.problems.contact && (
								<p className="problem" role="alert">
									{actionData.problems.contact}
								</p>
							)}
							<p className="dim mt-1 text-[13.5px]">
								Shown on the field to whoever reports a blow to the head, chest pain or what closes.
							</p>
						</section>
					)}
					<section>
						{mayName && (
							<>
								<NameForm athlete={athlete} version={version} answer={actionData} />
								<SquadsForm squads={squads} memberOf={memberOf} version={version} answer={actionData} />
								<AwayForm away={athlete.away} today={today} version={version} answer={actionData} />
							</>
						)}
						<h2>Body mass</h2>
						{mayChange ? (
							<PostForm preventScrollReset className="mt-2 flex flex-wrap items-center gap-2">
								<input type="hidden" name="version" value={version} />
								<input
									className="input num w-[90px]"
									name="mass"
									inputMode="decimal"
									defaultValue={athlete.massKg === null ? '' : typed('body').write(athlete.massKg)}
									key={athlete.massKg}
									aria-label={`Body mass, ${typed('body').unit}`}
								/>
								<span>{typed('body').unit}</span>
								<button className="btn btn-quiet">Set</button>
								<input type="hidden" name="do" value="mass" />
								<Said answer={actionData?.which === 'mass' ? actionData : undefined} />
							</PostForm>
						) : (
							<p className="rule mt-2 py-2">{asRead(athlete.bands.split(', ')[1] ?? '')}</p>
						)}
						{actionData?.problems.mass && (
							<p className="problem" role="alert">
								{actionData.problems.mass}
							</p>
						)}
						{athlete.bands.endsWith('unknown') && (
							<p className="dim mt-1 text-[13.5px]">Unknown: no box over 45 cm, the strictest row.</p>
						)}
					</section>
					{built && (
						<section>
							<h2>Type</h2>
							<PostForm preventScrollReset className="mt-2 flex flex-wrap items-center gap-2">
								<input type="hidden" name="version" value={version} />
								<select
									className="input w-[260px]"
									name="type"
									defaultValue={built.type ?? ''}
									key={built.type}
									aria-label="Type"
								>
									<option value="">nothing stands out</option>
									{ATHLETE_TYPES.map((type) => (
										<option key={type} value={type}>
											{TYPE_NAMES[type]}
										</option>
									))}
								</select>
								<button className="btn btn-quiet">Set</button>
								<input type="hidden" name="do" value="type" />
								<Said answer={actionData?.which === 'type' ? actionData : undefined} />
							</PostForm>
							{built.proposal && (
								<p className="mt-1 text-[14.5px]">
									The measures say <b>{TYPE_NAMES[built.proposal.type]}</b>: {built.proposal.why}.
								</p>
							)}
							<p className="dim mt-1 text-[13.5px]">{TYPE_DOES[built.type ?? 'none']} Only who plans sees this.</p>
						</section>
					)}
					<section>
						<h2>Level by family</h2>
						<ul className="mt-2">
							{levels.map(({ family, version: levelVersion, level, proposal }) => (
								<li key={family} className="rule flex min-h-[44px] flex-wrap items-center justify-between gap-2 py-1">
									<span className="flex items-center gap-2.5">
										<FamilyMark family={family} />
										{family}
									</span>
									{mayChange ? (
										<PostForm preventScrollReset className="flex items-center gap-2">
											<input type="hidden" name="family" value={family} />
											<input type="hidden" name="version" value={levelVersion} />
											<select
												name="level"
												className="input w-auto"
												defaultValue={level}
												key={level}
												aria-label={`Level, ${family}`}
											>
												{[1, 2, 3].map((value) => (
													<option key={value}>{value}</option>
												))}
											</select>
											<input type="hidden" name="do" value="level" />
											<button className="btn btn-quiet" aria-label={`Set level, ${family}`}>
												Set
											</button>
											<Said answer={actionData?.which === family ? actionData : undefined} />
										</PostForm>
									) : (
										<b className="num">{level}</b>
									)}
									{proposal && (
										<p className="basis-full text-[14px]">
											<b>Level {proposal.level} is due</b>: {asRead(proposal.because.join(', ').toLowerCase())} passed.
											You decide.
										</p>
									)}
								</li>
							))}
						</ul>
					</section>
					<section>
						<h2 className="flex justify-between">
							Care
							{showPain && (
								<Link
									className="link text-[14px] font-normal max-lg:inline-flex max-lg:min-h-[44px] max-lg:items-center"
									to={`/athletes/${athlete.id}/care`}
								>
									all of it
								</Link>
							)}
						</h2>
						{standsInTheWay.map((words) => (
							<p key={words} className="rule mt-2 py-2">
								<b>{asRead(words)}</b>
							</p>
						))}
						{showPain && pains.length === 0 && <p className="rule dim mt-2 py-2">No pain reported in ten weeks.</p>}
						<ul className="mt-2">
							{pains.map((pain) => (
								<li key={pain.id} className="rule flex justify-between gap-3 py-1.5">
									<span>
										{pain.side === 'both' ? '' : `${pain.side} `}
										{REGION_NAMES[pain.region]}
										{pain.redFlag && <b>, red flag</b>}
										<span className="dim block text-[13px]">
											{shortDay(pain.at.slice(0, 10))}, {pain.moment.replace('-', ' ')}
										</span>
									</span>
									<b className="num text-[17px]">
										{pain.score} <span className="dim text-[14px] font-normal">of 10</span>
									</b>
								</li>
							))}
						</ul>
						{clearances.map((row) => (
							<p key={row.id} className="rule py-1.5">
								{placeOf(row)} cleared by {row.clearedBy}, {row.clearedByRole}, {shortDay(row.clearedOn)}
							</p>
						))}
						{mayReport && !own && (
							<details className="rule mt-1" open={actionData?.problems.pain !== undefined}>
								<summary className="link inline-flex min-h-[44px] items-center">Report pain or illness</summary>
								<ReportForm key={reportsSaid} problem={actionData?.problems.pain} />
							</details>
						)}
						<p className="dim mt-2 text-[13.5px]">Dromos clears nobody: a clinician does, and somebody records it.</p>
					</section>
					{(mayName || own) && (
						<section>
							<h2>What is kept of them</h2>
							<a
								className="link inline-flex min-h-[44px] items-center"
								href={`/athletes/${athlete.id}/data/all.json`}
								download
							>
								everything as a file (JSON)
							</a>
							{mayName && (
								<details open={actionData?.problems.erase !== undefined}>
									<summary className="link inline-flex min-h-[44px] items-center">Erase them</summary>
									<PostForm preventScrollReset className="grid gap-2 pb-2">
										<p className="text-[14px]">
											For good: name, birth date, contact, everything about their health, verdicts and their sign-in go.
											Marks stay without a name. What a phone still has of them is not taken any more.
										</p>
										<TextField
											label="Their whole name, typed"
											name="erase"
											autoComplete="off"
											problem={actionData?.problems.erase}
										/>
										<button className="btn btn-quiet justify-self-start text-attn!" name="do" value="erase">
											Erase
										</button>
									</PostForm>
								</details>
							)}
						</section>
					)}
				</aside>
			</div>
		</>
	)
}
