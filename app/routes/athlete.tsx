import { sayAway } from '#core/calendar/away'
import { Link, data, redirect } from 'react-router'
import { v7 as newId } from 'uuid'
import { shortDay } from '#core/calendar/say-day'
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
import { sayRestriction } from '#core/rules/s2-restriction'
import { isBehind, mayBeLate } from '#server/kept'
import type { Route } from './+types/athlete'
import { notFound, signedIn } from '../request-guard'
import type { AthleteAnswer } from '../athlete/answer'
import { CareSummary } from '../athlete/care-summary'
import { EmergencyContact } from '../athlete/emergency-contact'
import { KeptOfThem } from '../athlete/kept-of-them'
import { Moves } from '../athlete/moves'
import { NextLines } from '../athlete/next-lines'
import { WaysBack } from '../athlete/way-back'
import { WhatElseLoads } from '../athlete/what-else-loads'
import { BodyMass, Levels, NameForm, TypeForm } from '../athlete/who-they-are'
import { BenchList } from '../athlete/bench-list'
import { ClosedPlace } from '../athlete/closed-place'
import { EffortAsked } from '../athlete/effort-asked'
import { LadderStory } from '../athlete/ladder-story'
import { WhereTimeGoes } from '../athlete/where-time-goes'
import { FortnightStrip } from '../story/fortnight-strip'
import { TrendView } from '../story/trend-view'
import { WhyView } from '../story/why-view'
import type { Overtaken } from '../ui/meanwhile-note'
import { AwayForm, SquadsForm, sayFollowed } from '../athlete/membership-forms'
import { PostForm } from '../ui/post-form'
import { Records } from '../ui/records'
import { SetAsideList } from '../ui/set-aside'
import { ReportForm } from '../ui/report-form'
import { readReport } from '../read-report'
import { pack, usePacked } from '../packed'
import { actOn, noProblems } from '../intents'
import { useUnits } from '../field/units'
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

export default function Athlete({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
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
			{waysBack.length > 0 && <WaysBack waysBack={waysBack} walked={walked} cleared={clearances[0]} />}
			<div className="mt-6 grid gap-x-10 gap-y-8 lg:grid-cols-[1fr_330px]">
				<div className="grid content-start gap-8">
					<NextLines next={next} />
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
					<Moves moves={moves} verdicts={verdicts} />
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
					<WhatElseLoads
						outside={outside}
						load={load}
						mayEnter={mayEnter}
						mayTakeBack={(row) => mayMeasure || (mayEnter && row.recordedBy === personId)}
						problem={actionData?.problems.outside}
					/>
					{emergency && <EmergencyContact emergency={emergency} mayContact={mayContact} answer={actionData} />}
					<section>
						{mayName && (
							<>
								<NameForm athlete={athlete} version={version} answer={actionData} />
								<SquadsForm squads={squads} memberOf={memberOf} version={version} answer={actionData} />
								<AwayForm away={athlete.away} today={today} version={version} answer={actionData} />
							</>
						)}
						<BodyMass athlete={athlete} version={version} mayChange={mayChange} answer={actionData} />
					</section>
					{built && <TypeForm built={built} version={version} answer={actionData} />}
					<Levels levels={levels} mayChange={mayChange} answer={actionData} />
					<CareSummary
						athleteId={athlete.id}
						showPain={showPain}
						standsInTheWay={standsInTheWay}
						pains={pains}
						clearances={clearances}
						mayReport={mayReport && !own}
						reportsSaid={reportsSaid}
						problem={actionData?.problems.pain}
					/>
					{(mayName || own) && (
						<KeptOfThem athleteId={athlete.id} mayErase={mayName} problem={actionData?.problems.erase} />
					)}
				</aside>
			</div>
		</>
	)
}
