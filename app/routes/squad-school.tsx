import { Link, data, useNavigation } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import { NUMBER_BOUNDS, QUESTIONS } from '#core/library/schools'
import { PLANTS, PLANT_NAMES } from '#core/vocabulary/school'
import type { VerdictWord } from '#core/judge/types'
import { type WouldChange, answerSchoolForm, readSchoolPage } from '#server/library/school-change'
import type { Route } from './+types/squad-school'
import { allowed, notFound } from '../request-guard'
import { VerdictMark } from '../ui/glyphs'
import { MeanwhileNote } from '../ui/meanwhile-note'
import { PostForm } from '../ui/post-form'
import { type Sent, actOn } from '../intents'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'School · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { scope } = allowed(context, request, 'plan:write')
	const page = await readSchoolPage(scope, params.squadId, new URL(request.url).searchParams.get('from'))
	if (!page) throw notFound()
	return page
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'plan:write')
	const asked =
		(intent: 'preview' | 'save') =>
		async ({ form }: Sent) =>
			answerSchoolForm(who, params.squadId, intent, form, new Date())
	const answer = await actOn(request, { preview: asked('preview'), save: asked('save') })
	if (!answer) throw notFound()
	return data(answer, { status: answer.meanwhile ? 409 : Object.keys(answer.problems).length > 0 ? 400 : 200 })
}

export default function SquadSchool({ loaderData, actionData }: Route.ComponentProps) {
	const { version, squad, current, from, schools } = loaderData
	const navigation = useNavigation()
	const busy = navigation.state !== 'idle'
	const problems = actionData?.problems ?? {}
	const preview = actionData?.preview
	return (
		<>
			<p className="dim">
				<Link className="link" to="/squads">
					Squads
				</Link>{' '}
				· {squad.name}
			</p>
			<h1 className="mt-1">{current.name}</h1>
			<p className="dim mt-1">
				{current.about} Version {current.version}. Where good coaches disagree, neither side is wrong.
			</p>
			<nav className="mt-4 flex flex-wrap gap-x-5 gap-y-1" aria-label="Start from">
				<span className="dim content-center">Start from</span>
				{schools.map((school) => (
					<Link
						key={school.id}
						className={`min-h-[44px] content-center ${school.id === from.id ? 'font-bold' : 'link'}`}
						to={`/squads/${squad.id}/school?from=${school.id}`}
						aria-current={school.id === from.id ? 'true' : undefined}
						preventScrollReset
					>
						{school.name}
					</Link>
				))}
			</nav>
			{actionData?.saved && (
				<p className="mt-3 border-l-[3px] border-act py-1 pl-3" role="status">
					{actionData.saved} is in force for {squad.name}; the sessions ahead are written by it.
				</p>
			)}
			<PostForm
				preventScrollReset
				key={`${from.id}/${from.version}`}
				className="mt-2 grid gap-x-10 lg:grid-cols-[1fr_360px]"
			>
				<input type="hidden" name="base" value={from.id} />
				<input type="hidden" name="version" value={version} />
				{actionData?.meanwhile && (
					<div className="lg:col-span-2">
						<MeanwhileNote overtaken={actionData.meanwhile} />
					</div>
				)}
				<ul>
					{QUESTIONS.map((question) => (
						<li key={question.id} className="rule py-3">
							<fieldset>
								<legend className="label">{question.question}</legend>
								<div className="mt-1 grid gap-1">
									{question.sides.map((side) => (
										<label key={side.id} className="grid grid-cols-[28px_1fr] items-start gap-1.5 py-1">
											<input
												type="radio"
												className="mt-0.5 size-5 accent-act"
												name={question.id}
												value={side.id}
												defaultChecked={from.choices[question.id] === side.id}
											/>
											<span>
												<b>{side.name}.</b> {side.why} <span className="dim text-[14px]">{side.does}</span>
											</span>
										</label>
									))}
								</div>
							</fieldset>
						</li>
					))}
				</ul>
				<div className="lg:sticky lg:top-4 lg:self-start">
					<h2 className="pt-3">Numbers</h2>
					<ul className="mt-1">
						{NUMBER_BOUNDS.map((bound) => (
							<li key={bound.id} className="rule py-1">
								<label className="grid grid-cols-[1fr_78px] items-center gap-2 text-[14px]">
									<span>
										{bound.name}{' '}
										<span className="dim">
											{bound.low}–{bound.high}
											{bound.unit && ` ${bound.unit}`}
										</span>
									</span>
									<input
										className="input num text-right"
										name={bound.id}
										inputMode="decimal"
										defaultValue={from.numbers[bound.id]}
										aria-invalid={problems[bound.id] !== undefined}
									/>
								</label>
								{problems[bound.id] && (
									<p className="problem" role="alert">
										{problems[bound.id]}
									</p>
								)}
							</li>
						))}
					</ul>
					<fieldset className="border-b border-chalk pb-1.5 text-[14px]">
						<legend className="label pt-2">Take-offs of the sport</legend>
						{PLANTS.map((plant) => (
							<label key={plant} className="flex min-h-[40px] max-lg:min-h-[44px] items-center gap-2">
								<input
									type="checkbox"
									className="size-5 accent-act"
									name="plant"
									value={plant}
									defaultChecked={from.plants.includes(plant)}
								/>
								{PLANT_NAMES[plant]}
							</label>
						))}
						<label className="flex min-h-[44px] items-center gap-2">
							Used most
							<select className="input flex-1" name="mostUsed" defaultValue={from.plants[0]}>
								{PLANTS.map((plant) => (
									<option key={plant} value={plant}>
										{PLANT_NAMES[plant]}
									</option>
								))}
							</select>
						</label>
						{problems.plants && (
							<p className="problem" role="alert">
								{problems.plants}
							</p>
						)}
					</fieldset>
					<label className="rule flex min-h-[44px] items-center gap-2">
						<input
							type="checkbox"
							className="size-5 accent-act"
							name="fastDayOffer"
							value="on"
							defaultChecked={from.fastDayOffer}
						/>
						An offer on a fast day
					</label>
					<div className="rule flex flex-wrap gap-2 pt-3">
						<button className="btn" name="do" value="preview" disabled={busy}>
							{busy ? 'Judging …' : 'What would change'}
						</button>
						<button className="btn btn-quiet" name="do" value="save" disabled={busy}>
							Use it
						</button>
					</div>
					{preview && <Preview preview={preview} />}
				</div>
				{/* Last, so that a pressed button comes first: what is saved over somebody else's names no other. */}
				<input type="hidden" name="do" value="save" />
			</PostForm>
		</>
	)
}

function Preview({ preview }: { preview: WouldChange }) {
	return (
		<div role="status">
			<Verdicts preview={preview} />
			{preview.lines && <Lines lines={preview.lines} />}
		</div>
	)
}

function Lines({ lines: { day, title, changes } }: { lines: NonNullable<WouldChange['lines']> }) {
	return (
		<section className="mt-4" aria-label="Lines ahead">
			<h2>
				{changes.length === 0
					? `Every line of ${title}, ${shortDay(day)}, stays`
					: `${changes.length} ${changes.length === 1 ? 'line' : 'lines'} of ${title}, ${shortDay(day)}, would be ${changes.length === 1 ? 'another' : 'others'}`}
			</h2>
			<ul>
				{changes.map(({ name, from, to }, index) => (
					<li key={index} className="rule py-1.5 text-[14px]">
						<b>{name}</b> <span className="dim">{from}</span> → {to}
					</li>
				))}
			</ul>
		</section>
	)
}

function Verdicts({ preview }: { preview: WouldChange }) {
	const { asRead } = useUnits()
	if (!preview.session) return <p className="mt-4">No session has been held yet: nothing to compare with.</p>
	return (
		<section className="mt-4" aria-label="What would change">
			<h2>
				{preview.changes.length === 0
					? `Nothing would have changed on ${shortDay(preview.session.day)}`
					: `${preview.changes.length} of ${preview.judged} verdicts of ${shortDay(preview.session.day)} would differ`}
			</h2>
			<ul>
				{preview.changes.map((change) => (
					<li key={`${change.athleteId}${change.ladderName}`} className="rule py-2 text-[14px]">
						<p>
							<b>{change.name}</b>, {change.ladderName.toLowerCase()}
						</p>
						<p className="dim flex gap-2">
							<span className="pt-0.5">
								<VerdictMark word={change.from.verdict as VerdictWord} />
							</span>
							<span>{asRead(change.from.sentence)}</span>
						</p>
						<p className="flex gap-2">
							<span className="pt-0.5">
								<VerdictMark word={change.to.verdict as VerdictWord} />
							</span>
							<span>{asRead(change.to.sentence)}</span>
						</p>
					</li>
				))}
			</ul>
		</section>
	)
}
