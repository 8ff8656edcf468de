import { Link, data, useNavigation } from 'react-router'
import { longDay } from '#core/calendar/say-day'
import { may } from '#server/access/roles'
import { SIDES } from '#core/vocabulary/words'
import { settleMark } from '#server/marks/set-aside'
import { readDone } from '#server/record/read-done'
import {
	type Changed,
	addFromPaper,
	addNote,
	bringBack,
	correctMark,
	giveTo,
	takeBack,
} from '#server/record/write-done'
import type { Route } from './+types/session-done'
import { allowed, notFound } from '../request-guard'
import { actOn } from '../intents'
import { DoneTable } from '../ui/done-table'
import { PaperGrid } from '../ui/paper-grid'
import { PostForm } from '../ui/post-form'
import { SetAsideList } from '../ui/set-aside'
import { useUnits } from '../field/units'

export const meta: Route.MetaFunction = () => [{ title: 'What was done · Dromos' }]

export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { who } = allowed(context, request, 'marks:read')
	const done = await readDone(who, params.sessionId, new Date())
	if (!done) throw notFound()
	return { ...done, mayReview: may(who.role, 'verdict:read') }
}

export async function action({ context, request, params }: Route.ActionArgs) {
	const { who } = allowed(context, request, 'marks:read')
	const { sessionId } = params
	const now = new Date()
	const answered = (changed: Changed | null) => {
		if (!changed) throw notFound()
		return 'problem' in changed
			? data({ problem: changed.problem, cells: {}, said: '', entryId: '' }, { status: 400 })
			: data({ problem: '', cells: {}, said: 'Kept.', entryId: '' }, { status: 200 })
	}
	return actOn(request, {
		'take-back': async ({ text }) => answered(await takeBack(who, sessionId, text('mark'), now)),
		'bring-back': async ({ text }) => answered(await bringBack(who, sessionId, text('mark'), now)),
		give: async ({ text }) => answered(await giveTo(who, sessionId, text('mark'), text('athlete'), now)),
		correct: async ({ form, text }) =>
			answered(await correctMark(who, sessionId, text('mark'), form.getAll('typed').map(String), now)),
		note: async ({ text }) =>
			answered(
				await addNote(who, sessionId, { athleteId: text('athlete'), entryId: text('drill'), text: text('text') }, now),
			),
		settle: async ({ text }) => {
			const keeps = text('keep') === 'yes'
			if (!keeps && text('typed').trim() === '') return answered({ problem: 'Type the right number.' })
			const done = await settleMark(who, text('mark'), keeps ? '' : text('typed'), now)
			return answered(done && ('problem' in done ? done : { changed: 1 }))
		},
		paper: async ({ form, text }) => {
			const cells = [...form.entries()].flatMap(([name, typed]) => {
				const [what, lineId = '', setNo, repNo, place] = name.split('/')
				const side = SIDES.find((one) => one === place) ?? null
				return what === 'cell'
					? [{ lineId, setNo: Number(setNo), repNo: Number(repNo), side, typed: String(typed) }]
					: []
			})
			const added = await addFromPaper(who, sessionId, cells, text('method'), now)
			if (!added) throw notFound()
			if (!('cells' in added)) return answered(added)
			const count = Object.keys(added.cells).length
			const problem = `Nothing was kept: ${count} ${count === 1 ? 'number' : 'numbers'} cannot be read.`
			return data({ problem, cells: added.cells, said: '', entryId: text('entry') }, { status: 400 })
		},
	})
}

/** What was done, by drill and athlete: seen, put right, and added to from paper. */
export default function SessionDone({ loaderData, actionData }: Route.ComponentProps) {
	const { asRead } = useUnits()
	const { session, day, drills, people, gone, setAside, paper, marks, athletes, mayChange, mayReview } = loaderData
	const busy = useNavigation().state !== 'idle'
	const logged = drills.reduce((sum, drill) => sum + drill.people.reduce((n, one) => n + one.reps.length, 0), 0)
	const came = new Set(
		drills.flatMap((drill) => drill.people.flatMap((one) => (one.reps.length > 0 ? [one.athleteId] : []))),
	)
	// A note that was kept leaves an empty form behind.
	const noted = [
		day,
		...people.map(({ words }) => words),
		...drills.flatMap((drill) => drill.people.map(({ words }) => words)),
	].flat().length
	const open = drills.filter(({ entryId }) => (paper[entryId] ?? []).length > 0)
	return (
		<>
			<header className="mb-4 flex flex-wrap items-end justify-between gap-x-6 gap-y-3">
				<div>
					<p className="dim">
						{session.squadName} · {longDay(session.day)} · {session.title}
					</p>
					<h1 className="mt-1">
						{logged === 0
							? 'Nothing is logged yet'
							: `${logged} ${logged === 1 ? 'mark' : 'marks'} of ${came.size} ${came.size === 1 ? 'athlete' : 'athletes'}`}
					</h1>
				</div>
				<div className="flex flex-wrap gap-2 print:hidden">
					<Link className="btn btn-quiet" to={`/sessions/${session.id}`}>
						Sheet
					</Link>
					{mayReview && (
						<Link className="btn btn-quiet" to={`/sessions/${session.id}/review`}>
							Review
						</Link>
					)}
				</div>
			</header>
			{actionData?.problem && (
				<p className="problem mb-3" role="alert">
					{actionData.problem}
				</p>
			)}
			{actionData?.said && (
				<p className="mb-3 border-l-[3px] border-act py-1 pl-3" role="status">
					{actionData.said}
				</p>
			)}
			<SetAsideList marks={setAside} maySettle={mayChange} problem={null} />
			{day.length > 0 && (
				<ul className="mb-4 max-w-[72ch]" aria-label="What held for everybody">
					{day.map((words) => (
						<li key={words}>{asRead(words)}</li>
					))}
				</ul>
			)}
			{drills.map((drill) => (
				<DoneTable
					sessionId={session.id}
					key={drill.entryId}
					drill={drill}
					marks={marks}
					mayChange={mayChange}
					busy={busy}
				/>
			))}
			{people.length > 0 && (
				<section className="mt-6 max-w-[72ch]">
					<h2>Said of people</h2>
					<ul className="mt-1">
						{people.map(({ name, words }) => (
							<li key={name} className="border-t border-chalk py-1.5">
								<b>{name}:</b> {words.join('; ')}
							</li>
						))}
					</ul>
				</section>
			)}
			{gone.length > 0 && (
				<section className="mt-6 max-w-[72ch]" aria-label="Taken back">
					<h2>Taken back</h2>
					<ul className="mt-1">
						{gone.map(({ id, words }) => (
							<li key={id} className="flex items-center justify-between gap-3 border-t border-chalk py-1.5">
								<span className="dim">{asRead(words)}</span>
								{mayChange && (
									<PostForm preventScrollReset className="print:hidden">
										<input type="hidden" name="mark" value={id} />
										<button className="btn btn-quiet" name="do" value="bring-back" disabled={busy}>
											Bring back
										</button>
									</PostForm>
								)}
							</li>
						))}
					</ul>
				</section>
			)}
			{mayChange && <WriteUp athletes={athletes} drills={drills} noted={noted} busy={busy} />}
			{open.length > 0 && (
				<section className="mt-8 print:hidden">
					<h2>From paper</h2>
					<p className="dim max-w-[72ch]">
						Digits are read as on the phone: 312 is 3.12 s. Tab goes to the next rep, Enter to the next athlete; a block
						of cells can be pasted from a spreadsheet.
					</p>
					{open.map(({ entryId, name }) => (
						<details key={entryId} className="mt-2" open={actionData?.entryId === entryId}>
							<summary className="link inline-flex min-h-[44px] items-center">{name}</summary>
							<PaperGrid entryId={entryId} lines={paper[entryId]!} problems={actionData?.cells ?? {}} busy={busy} />
						</details>
					))}
				</section>
			)}
		</>
	)
}

/** What is to be remembered of it, in the coach's words. */
function WriteUp({
	athletes,
	drills,
	noted,
	busy,
}: {
	athletes: readonly { id: string; name: string }[]
	drills: readonly { entryId: string; name: string }[]
	/** How much is noted so far. */
	noted: number
	busy: boolean
}) {
	return (
		<section className="mt-8 max-w-[72ch] print:hidden">
			<h2>Write it up</h2>
			<p className="dim">What is noted of an athlete on a drill is there when they do it the next time.</p>
			<PostForm preventScrollReset className="mt-2 grid gap-3" key={noted} keep="note">
				<div className="flex flex-wrap gap-3">
					<label className="grid gap-1">
						About
						<select className="input" name="athlete" defaultValue="">
							<option value="">the session</option>
							{athletes.map(({ id, name }) => (
								<option key={id} value={id}>
									{name}
								</option>
							))}
						</select>
					</label>
					<label className="grid gap-1">
						On
						<select className="input" name="drill" defaultValue="">
							<option value="">no drill</option>
							{drills.map(({ entryId, name }) => (
								<option key={entryId} value={entryId}>
									{name}
								</option>
							))}
						</select>
					</label>
				</div>
				<label className="grid gap-1">
					Note
					<textarea className="input min-h-[5.5rem]" name="text" maxLength={1000} required />
				</label>
				<div>
					<button className="btn" name="do" value="note" disabled={busy}>
						Keep the note
					</button>
				</div>
			</PostForm>
		</section>
	)
}
