import { type Away, isAway, sayAway } from '#core/calendar/away'
import { isDay } from '#core/calendar/day-count'
import {
	DndContext,
	type DragEndEvent,
	KeyboardSensor,
	PointerSensor,
	closestCenter,
	useSensor,
	useSensors,
} from '@dnd-kit/core'
import { SortableContext, sortableKeyboardCoordinates, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { memo, useEffect, useMemo, useState } from 'react'
import { Form, type SubmitTarget, useFetcher, useNavigation, useSubmit } from 'react-router'
import type { Drill } from '#core/vocabulary/drill'
import type { Ladder } from '#core/vocabulary/ladder'
import type { Library } from '#core/vocabulary/library'
import type { BuildPack } from '#core/plan/build-pack'
import { entryName } from '#core/plan/entry-parts'
import { linesBeside } from '#core/plan/lines-beside'
import type { Proposal } from '#core/plan/propose-session'
import { SURFACES, type Quality } from '#core/vocabulary/words'
import { ClockField, DayField, TypedField } from '../ui/text-field'
import { DrillSearch, picksOf } from './drill-search'
import { type EntryEdits, EntryRow } from './entry-row'
import { type Made, ProposePanel } from './propose-panel'
import type { SessionEntry } from '#core/vocabulary/entry'
import type { SessionDraft } from '#core/vocabulary/session'
import type { Theme } from '#core/vocabulary/theme'
import { MeanwhileNote, type Overtaken } from '../ui/meanwhile-note'
import { NumberField } from '../ui/number-field'
import { useSame } from '../ui/same-function'
import { proposedEntries, putOn } from './sheet-entries'
import { type KeptTemplate, TemplateBar } from './template-bar'
import { TotalsTable } from './totals-table'
import { usePreview } from './use-preview'
import { useKeptState } from '../ui/kept-draft'
import { DraftBack, useSubmission } from '../ui/post-form'
import { useUnits } from '../field/units'

interface Props {
	initial: SessionDraft
	/** The session that is changed; none for a new one. */
	sessionId?: string
	/** The version of it the form was filled from. */
	version?: number
	/** What somebody else has saved since. */
	overtaken?: Overtaken | undefined
	squads: { id: string; name: string; startTime: string; place: string }[]
	athletes: { id: string; name: string; squadIds: string[]; away: Away | null }[]
	drills: Drill[]
	ladders: Ladder[]
	themes: Theme[]
	templates: KeptTemplate[]
	problems: Record<string, string> | undefined
	submitLabel: string
}

const NO_PROBLEMS: Record<string, string> = {}
const isForm = (kept: SessionDraft) => Array.isArray(kept.entries) && typeof kept.squadId === 'string'

/** Makes or changes a session: when, who, and what in which order, with what it comes to beside it. What was typed stays, whatever is wrong with it. */
export function SessionForm({
	initial,
	sessionId,
	version = 0,
	overtaken,
	squads,
	athletes,
	drills,
	ladders,
	themes,
	templates,
	problems = NO_PROBLEMS,
	submitLabel,
}: Props) {
	const { asRead } = useUnits()
	const kept = useKeptState('session', initial, isForm)
	const { value: draft, newest, setNow, setSoon, settle, isBack, startOver } = kept
	/** What a proposal took the place of: all of it comes back. */
	const [before, setBefore] = useState<Pick<
		SessionDraft,
		'entries' | 'title' | 'theme' | 'surface' | 'plannedMinutes'
	> | null>(null)
	const [proposal, setProposal] = useState<Proposal | null>(null)
	/** The piece whose lines stand beside it. */
	const [chosen, setChosen] = useState<string | null>(null)
	const [chosenPriority, setPriority] = useState<Quality | null | undefined>(undefined)
	const submit = useSubmit()
	const { state } = useNavigation()
	const busy = state !== 'idle'
	const submission = useSubmission(state)
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
		useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
	)
	const library = useMemo<Library>(
		() => ({
			drills: Object.fromEntries(drills.map((drill) => [drill.id, drill])),
			ladders: Object.fromEntries(ladders.map((ladder) => [ladder.id, ladder])),
			schools: {},
			themes: Object.fromEntries(themes.map((theme) => [theme.id, theme])),
		}),
		[drills, ladders, themes],
	)
	const picks = useMemo(
		() =>
			picksOf(
				drills,
				ladders.filter((ladder) => ladder.path === undefined),
			),
		[drills, ladders],
	)
	const set = (change: Partial<SessionDraft>) => setNow((now) => ({ ...now, ...change }))
	const type = (change: Partial<SessionDraft>) => setSoon((now) => ({ ...now, ...change }))
	const pack = usePack(draft, sessionId)
	const priority = chosenPriority === undefined ? (pack?.priority ?? null) : chosenPriority
	const { previewed, hasFailed } = usePreview(draft, pack, library, priority)
	const preview = previewed?.preview ?? null
	const looked = draft.entries.find(({ id }) => id === chosen) ?? null
	const beside = useMemo(
		() => (looked && previewed ? linesBeside(previewed.preview, looked, previewed.pack.athletes, library) : null),
		[looked, previewed, library],
	)

	const chooseSquad = (squadId: string) => {
		const squad = squads.find((candidate) => candidate.id === squadId)
		set({
			squadId,
			athleteIds: athletes
				.filter((athlete) => athlete.squadIds.includes(squadId) && !isAway(athlete.away, draft.day))
				.map((athlete) => athlete.id),
			startTime: squad?.startTime ?? draft.startTime,
			place: squad?.place ?? draft.place,
		})
	}
	const edits = useMemo((): EntryEdits => {
		const change = (way: typeof setNow, entries: (now: SessionEntry[]) => SessionEntry[]) =>
			way((now) => ({ ...now, entries: entries(now.entries) }))
		return {
			look: setChosen,
			edit: (id, edit, soon) =>
				change(soon ? setSoon : setNow, (all) => all.map((one) => (one.id === id ? edit(one) : one))),
			move: (id, by) => change(setNow, (all) => moved(all, id, by)),
			remove: (id) => change(setNow, (all) => all.filter((one) => one.id !== id)),
		}
	}, [setNow, setSoon])
	const order = draft.entries.map(({ id }) => id).join(' ')
	// The same list while the order is: a new one would draw every row.
	const ids = useMemo(() => order.split(' ').filter(Boolean), [order])
	const dropped = ({ active, over }: DragEndEvent) => {
		if (over) edits.move(String(active.id), ids.indexOf(String(over.id)) - ids.indexOf(String(active.id)))
	}
	const add = (pick: string) => {
		const fresh = putOn(pick, library)
		if (fresh) setNow((now) => ({ ...now, entries: [...now.entries, fresh] }))
	}
	const replace = (entries: SessionEntry[], { theme, surface, minutes: inMinutes }: Made = { theme: null }) => {
		const { title, surface: ground, plannedMinutes, entries: given, theme: about = null } = newest.current
		setBefore({ entries: given, title, theme: about, surface: ground, plannedMinutes })
		// A title nobody typed follows the proposal.
		const isTyped = title !== '' && !themes.some(({ name }) => name === title)
		set({
			entries,
			title: isTyped ? title : (library.themes[theme ?? '']?.name ?? title),
			...(theme ? { theme } : {}),
			...(surface === undefined ? {} : { surface }),
			...(inMinutes === undefined ? {} : { plannedMinutes: inMinutes }),
		})
	}
	const send = (over: number) =>
		void submit({ submission, version: over, draft: newest.current } as unknown as SubmitTarget, {
			method: 'post',
			encType: 'application/json',
		})
	const pickAthletes = useSame((athleteIds: string[]) => set({ athleteIds }))
	const chooseRole = useSame((role: SessionDraft['role']) => set({ role }))
	const chooseTheme = useSame((theme: SessionDraft['theme']) => set({ theme }))
	const takeProposal = useSame((found: Proposal, made: Made) => {
		replace(proposedEntries(found.entries), made)
		setProposal(found)
	})
	const undo = useSame(() => {
		if (before) set(before)
		setBefore(null)
		setProposal(null)
	})
	const bringTemplate = useSame((entries: SessionEntry[]) => {
		replace(entries)
		setProposal(null)
	})
	const minutes = draft.plannedMinutes
	const over = preview !== null && preview.minutes > minutes + 0.5

	return (
		<Form
			method="post"
			noValidate
			className="grid gap-6"
			onBlur={settle}
			onPointerDown={settle}
			onSubmit={(event) => {
				event.preventDefault()
				send(version)
			}}
		>
			{isBack && <DraftBack startOver={startOver} />}
			<section className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
				<div className="field">
					<label htmlFor="squad">Squad</label>
					<select
						id="squad"
						className="input"
						value={draft.squadId}
						disabled={sessionId !== undefined}
						onChange={(event) => chooseSquad(event.target.value)}
						aria-invalid={problems.squadId !== undefined}
					>
						<option value="">Pick a squad</option>
						{squads.map((squad) => (
							<option key={squad.id} value={squad.id}>
								{squad.name}
							</option>
						))}
					</select>
					{problems.squadId && <p className="problem">{problems.squadId}</p>}
				</div>
				<DayField label="Day" value={draft.day} onValue={(day) => set({ day })} problem={problems.day} />
				<ClockField
					label="Start"
					value={draft.startTime}
					onValue={(startTime) => set({ startTime })}
					problem={problems.startTime}
				/>
				<div className="field">
					<label htmlFor="minutes">Minutes</label>
					<NumberField
						id="minutes"
						inputMode="numeric"
						value={draft.plannedMinutes}
						onNumber={(plannedMinutes) => type({ plannedMinutes })}
						aria-invalid={problems.plannedMinutes !== undefined}
					/>
					{problems.plannedMinutes && <p className="problem">{problems.plannedMinutes}</p>}
				</div>
				<TypedField
					label="Title"
					className="lg:col-span-2"
					value={draft.title}
					onText={(title) => type({ title })}
					problem={problems.title}
				/>
				<TypedField label="Place" value={draft.place} onText={(place) => type({ place })} problem={problems.place} />
				<label className="field">
					<span className="label">Under foot</span>
					<select
						className="input"
						value={draft.surface ?? ''}
						onChange={(event) => set({ surface: SURFACES.find((one) => one === event.target.value) ?? null })}
					>
						<option value="">not said</option>
						{SURFACES.map((surface) => (
							<option key={surface} value={surface}>
								{surface.replace('-', ' ')}
							</option>
						))}
					</select>
				</label>
			</section>

			<details open={draft.squadId === '' || problems.athleteIds !== undefined}>
				<summary className="min-h-[44px] content-center">
					<span className="num text-[16px] font-bold">Who comes</span>{' '}
					<span className="dim">{draft.athleteIds.length} picked</span>
				</summary>
				{problems.athleteIds && <p className="problem">{problems.athleteIds}</p>}
				{draft.squadId === '' && <p className="dim mt-1">Pick a squad; its athletes stand here.</p>}
				<WhoComes
					athletes={athletes}
					squadId={draft.squadId}
					picked={draft.athleteIds}
					day={draft.day}
					onPicked={pickAthletes}
				/>
			</details>

			<ProposePanel
				pack={pack}
				library={library}
				minutes={minutes}
				role={draft.role}
				priority={priority}
				onRole={chooseRole}
				theme={draft.theme ?? null}
				onTheme={chooseTheme}
				onPriority={setPriority}
				proposal={proposal}
				onProposal={takeProposal}
				onUndo={before && undo}
			/>

			<div className="grid gap-x-8 gap-y-6 xl:grid-cols-[minmax(0,1fr)_400px]">
				<section>
					<div className="flex flex-wrap items-baseline justify-between gap-x-4">
						<h2>What you do, in order</h2>
						{preview && (
							<p className={over ? 'font-bold' : 'dim'} role="status">
								About {Math.round(preview.minutes)} of {minutes || '—'} minutes
								{over && `: ${Math.round(preview.minutes - minutes)} too many`}
							</p>
						)}
					</div>
					{problems.entries && <p className="problem">{problems.entries}</p>}
					<DndContext sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
						<SortableContext items={ids} strategy={verticalListSortingStrategy}>
							<ol className="mt-2" aria-label="Entries">
								{draft.entries.map((entry, index) => (
									<EntryRow
										key={entry.id}
										entry={entry}
										index={index}
										last={index === draft.entries.length - 1}
										library={library}
										picks={picks}
										preview={preview}
										isLookedAt={entry.id === chosen}
										problems={problems}
										edits={edits}
									/>
								))}
							</ol>
						</SortableContext>
					</DndContext>
					<div className="rule flex items-center gap-2 pt-2">
						<span className="dim w-[58px] text-[14px]">Add</span>
						<DrillSearch label="Add a drill or a ladder" picks={picks} onPick={add} />
					</div>
					<p className="dim mt-2 hidden text-[14px] sm:block">Drag by the dots, or Alt with ↑ or ↓ in a row.</p>
				</section>
				<aside className="min-w-0 xl:sticky xl:top-4 xl:self-start">
					{preview && preview.cautions.length > 0 && (
						<section className="mb-4" aria-label="What the rules say">
							<h2>What the rules say</h2>
							<ul className="mt-1 text-[14.5px]">
								{preview.cautions.map(({ rule, sentence, names }) => (
									<li key={rule + sentence} className="border-l-[3px] border-attn py-0.5 pl-2">
										{asRead(sentence)}{' '}
										<span className="dim">
											{names.length === preview.athletes.length && names.length > 1 ? 'Everybody' : names.join(', ')} ·{' '}
											{rule}
										</span>
									</li>
								))}
							</ul>
						</section>
					)}
					<h2>What it comes to</h2>
					{looked && beside && (
						<p className="mt-1 flex items-baseline gap-2 text-[14.5px]" role="status">
							<span>
								With everybody’s line of <b>{looked.part || entryName(looked, library)}</b>
							</span>
							<button type="button" className="link min-h-[30px] max-lg:min-h-[44px]" onClick={() => setChosen(null)}>
								Totals alone
							</button>
						</p>
					)}
					{preview ? (
						<div className="mt-1 max-h-[80vh] overflow-auto">
							<TotalsTable preview={preview} beside={beside} />
						</div>
					) : (
						<p
							className="dim mt-1 text-[14px]"
							// What stands below is where it will be: a press that is on its way meets what it was meant for.
							style={{ minHeight: hasFailed ? undefined : roomForTotals(draft.athleteIds.length) }}
						>
							{draft.squadId === '' || draft.athleteIds.length === 0
								? 'Pick who comes, and everybody’s totals stand here.'
								: hasFailed
									? 'Everybody’s totals could not be worked out. The sheet can be saved all the same.'
									: 'Reading where everybody stands …'}
						</p>
					)}
					<TemplateBar draft={draft} library={library} templates={templates} onUse={bringTemplate} />
				</aside>
			</div>
			{overtaken && <MeanwhileNote overtaken={overtaken} onMine={() => send(overtaken.version)} />}
			{Object.keys(problems).length > 0 && (
				<p className="problem" role="alert">
					Not saved yet:{' '}
					{Object.keys(problems).length === 1 ? 'one thing needs' : `${Object.keys(problems).length} things need`}{' '}
					mending above. What you typed is kept.
				</p>
			)}
			<button className="btn justify-self-start" disabled={busy}>
				{busy ? 'Saving …' : submitLabel}
			</button>
		</Form>
	)
}

/** Height of the table of totals with so many rows, as a length of CSS; none where nobody is picked. */
const roomForTotals = (people: number) => (people === 0 ? undefined : `min(80vh, ${20 + 37.5 * people}px)`)

/** Everybody of the squad and whoever comes along, each to be picked. */
const WhoComes = memo(function WhoComes({
	athletes,
	squadId,
	picked,
	day,
	onPicked,
}: {
	athletes: Props['athletes']
	squadId: string
	picked: string[]
	day: string
	onPicked: (athleteIds: string[]) => void
}) {
	const inSquad = athletes.filter((athlete) => athlete.squadIds.includes(squadId))
	const guests = athletes.filter((athlete) => !athlete.squadIds.includes(squadId) && picked.includes(athlete.id))
	return (
		<div className="mt-1 grid grid-cols-2 gap-x-4 sm:grid-cols-3 lg:grid-cols-5">
			{[...inSquad, ...guests].map((athlete) => (
				<label key={athlete.id} className="flex min-h-[44px] items-center gap-2.5">
					<input
						type="checkbox"
						className="size-5 accent-act"
						checked={picked.includes(athlete.id)}
						onChange={(event) =>
							onPicked(event.target.checked ? [...picked, athlete.id] : picked.filter((id) => id !== athlete.id))
						}
					/>
					<span className="min-w-0">
						<span className="block truncate">{athlete.name}</span>
						{isAway(athlete.away, day) && <span className="dim block text-[13px]">{sayAway(athlete.away, day)}</span>}
					</span>
				</label>
			))}
		</div>
	)
})

/** With one of them by so many places earlier or later; as they are where there is no such place. */
function moved(entries: SessionEntry[], id: string, by: number): SessionEntry[] {
	const from = entries.findIndex((one) => one.id === id)
	const to = from + by
	if (from < 0 || to < 0 || to >= entries.length) return entries
	const others = [...entries]
	others.splice(to, 0, ...others.splice(from, 1))
	return others
}

/** Where everybody stands on the session's day; asked again when the day, the ground or the people change. */
function usePack(
	{ squadId, day, startTime, surface, athleteIds }: SessionDraft,
	sessionId: string | undefined,
): BuildPack | null {
	const { load, data } = useFetcher<BuildPack>()
	const asked =
		squadId !== '' && athleteIds.length > 0 && isDay(day) && /^\d{2}:\d{2}$/.test(startTime)
			? `/sessions/pack?${new URLSearchParams({ squad: squadId, day, time: startTime, surface: surface ?? '', athletes: athleteIds.join(','), ...(sessionId ? { session: sessionId } : {}) })}`
			: null
	useEffect(() => {
		if (asked === null) return
		const soon = setTimeout(() => void load(asked), 200)
		return () => clearTimeout(soon)
	}, [asked, load])
	return asked === null ? null : (data ?? null)
}
