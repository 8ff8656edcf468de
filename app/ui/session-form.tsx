import { useState } from 'react'
import { Form, useNavigation } from 'react-router'
import { countLine } from '#core/dose/count-line'
import { addCounts, allContacts, emptyCount, metresOf, totalOf } from '#core/dose/dose-count'
import { estimateMinutes } from '#core/dose/estimate-minutes'
import { FAMILIES, type Drill, type Ladder } from '#core/library/types'
import { SURFACES } from '#core/progress/surfaces'
import { TextField } from './text-field'

export interface EntryText {
	id?: string
	part: string
	/** "drill:pogo" or "ladder:stiffness" */
	pick: string
	sets: string
	reps: string
	restS: string
	distanceM: string
	heightCm: string
	angleDeg: string
	ballKg: string
	runInM: string
}
export interface SessionText {
	squadId: string
	day: string
	startTime: string
	title: string
	place: string
	surface: string
	plannedMinutes: string
	athleteIds: string[]
	entries: EntryText[]
}
interface Props {
	initial: SessionText
	squads: { id: string; name: string; startTime: string; place: string }[]
	athletes: { id: string; name: string; squadIds: string[] }[]
	drills: Drill[]
	ladders: Ladder[]
	problems: Record<string, string> | undefined
	submitLabel: string
	/** A session stays with its squad once it is made. */
	fixedSquad?: boolean
}

const PARAMETERS = [['distanceM', 'm'], ['heightCm', 'cm'], ['angleDeg', '°'], ['ballKg', 'kg'], ['runInM', 'm run-in']] as const
const text = (value: number | undefined) => (value === undefined ? '' : String(value))

export function entryTextOf(drill: Drill, part: string, pick: string): EntryText {
	const { defaults } = drill
	return { part, pick, sets: text(defaults.sets), reps: text(defaults.reps), restS: text(defaults.restS), distanceM: text(defaults.distanceM), heightCm: text(defaults.heightCm), angleDeg: text(defaults.angleDeg), ballKg: text(defaults.ballKg), runInM: text(defaults.runInM) }
}

/** Makes or changes a session: when, who, and what in which order. What was typed stays, whatever is wrong with it. */
export function SessionForm({ initial, squads, athletes, drills, ladders, problems = {}, submitLabel, fixedSquad = false }: Props) {
	const [draft, setDraft] = useState(initial)
	const busy = useNavigation().state !== 'idle'
	const set = (change: Partial<SessionText>) => setDraft({ ...draft, ...change })
	const setEntry = (index: number, change: Partial<EntryText>) => set({ entries: draft.entries.map((entry, i) => (i === index ? { ...entry, ...change } : entry)) })
	const drillOf = (pick: string) => drills.find((drill) => `drill:${drill.id}` === pick)
	const ladderOf = (pick: string) => ladders.find((ladder) => `ladder:${ladder.id}` === pick)

	const chooseSquad = (squadId: string) => {
		const squad = squads.find((candidate) => candidate.id === squadId)
		set({ squadId, athleteIds: athletes.filter((athlete) => athlete.squadIds.includes(squadId)).map((athlete) => athlete.id), startTime: squad?.startTime ?? draft.startTime, place: squad?.place ?? draft.place })
	}
	const choosePick = (index: number, pick: string) => {
		const ladder = ladderOf(pick)
		const drill = drillOf(pick) ?? drills.find((candidate) => candidate.id === ladder?.rungs[0]?.drillId)
		const before = draft.entries[index]
		if (drill && before) setEntry(index, { ...entryTextOf(drill, before.part || (ladder?.name ?? drill.name), pick) })
	}
	const move = (index: number, by: number) => {
		const entries = [...draft.entries]
		const [moved] = entries.splice(index, 1)
		if (moved) entries.splice(index + by, 0, moved)
		set({ entries })
	}
	const inSquad = athletes.filter((athlete) => athlete.squadIds.includes(draft.squadId))
	const others = athletes.filter((athlete) => !athlete.squadIds.includes(draft.squadId))

	// What fixed drills cost everybody; ladders are counted once each athlete's rung is known.
	let count = emptyCount()
	let minutes = 0
	for (const entry of draft.entries) {
		const drill = drillOf(entry.pick) ?? drills.find((candidate) => candidate.id === ladderOf(entry.pick)?.rungs[0]?.drillId)
		const dose = { sets: Number(entry.sets), reps: Number(entry.reps) }
		if (!drill || !(dose.sets > 0 && dose.sets <= 20 && dose.reps > 0 && dose.reps <= 60)) continue
		const parameters = entry.distanceM && Number(entry.distanceM) >= 0 ? { distanceM: Number(entry.distanceM) } : {}
		minutes += estimateMinutes(dose, parameters, Number(entry.restS) || 0, drill.defaults.repS)
		if (drillOf(entry.pick)) count = addCounts(count, countLine(drill, { ...parameters, ...(Number(entry.angleDeg) <= 180 ? { angleDeg: Number(entry.angleDeg) } : {}) }, dose))
	}

	return (
		<Form method="post" noValidate className="grid gap-7">
			<input type="hidden" name="draft" value={JSON.stringify(draft)} />
			<section className="grid gap-4 sm:grid-cols-2 lg:grid-cols-4">
				<div className="field">
					<label htmlFor="squad">Squad</label>
					<select id="squad" className="input" value={draft.squadId} disabled={fixedSquad} onChange={(event) => chooseSquad(event.target.value)} aria-invalid={problems.squadId !== undefined}>
						<option value="">Pick a squad</option>
						{squads.map((squad) => <option key={squad.id} value={squad.id}>{squad.name}</option>)}
					</select>
					{problems.squadId && <p className="problem">{problems.squadId}</p>}
				</div>
				<TextField label="Day" type="date" value={draft.day} onChange={(event) => set({ day: event.target.value })} problem={problems.day} />
				<TextField label="Start" type="time" value={draft.startTime} onChange={(event) => set({ startTime: event.target.value })} problem={problems.startTime} />
				<TextField label="Minutes" inputMode="numeric" value={draft.plannedMinutes} onChange={(event) => set({ plannedMinutes: event.target.value })} problem={problems.plannedMinutes} />
				<TextField label="Title" className="lg:col-span-2" value={draft.title} onChange={(event) => set({ title: event.target.value })} problem={problems.title} />
				<TextField label="Place" value={draft.place} onChange={(event) => set({ place: event.target.value })} problem={problems.place} />
				<label className="field"><span className="label">Under foot</span><select className="input" value={draft.surface} onChange={(event) => set({ surface: event.target.value })}><option value="">not said</option>{SURFACES.map((surface) => <option key={surface} value={surface}>{surface.replace('-', ' ')}</option>)}</select></label>
			</section>

			<fieldset>
				<legend className="num text-[16px] font-bold">Who comes <span className="dim font-normal">{draft.athleteIds.length} picked</span></legend>
				{problems.athleteIds && <p className="problem">{problems.athleteIds}</p>}
				{draft.squadId === '' && <p className="dim mt-1">Pick a squad; its athletes stand here.</p>}
				<div className="mt-1 grid grid-cols-2 gap-x-4 sm:grid-cols-3 lg:grid-cols-5">
					{[...inSquad, ...(draft.squadId === '' ? [] : others.filter((athlete) => draft.athleteIds.includes(athlete.id)))].map((athlete) => (
						<label key={athlete.id} className="flex min-h-[44px] items-center gap-2.5">
							<input type="checkbox" className="size-5 accent-act" checked={draft.athleteIds.includes(athlete.id)} onChange={(event) => set({ athleteIds: event.target.checked ? [...draft.athleteIds, athlete.id] : draft.athleteIds.filter((id) => id !== athlete.id) })} />
							<span className="truncate">{athlete.name}</span>
						</label>
					))}
				</div>
			</fieldset>

			<section>
				<div className="flex flex-wrap items-baseline justify-between gap-x-4">
					<h2>What you do, in order</h2>
					<p className="dim">About {Math.round(minutes)} of {draft.plannedMinutes || '—'} minutes · fixed drills: {totalOf(allContacts(count))} contacts, {Math.round(metresOf(count))} m</p>
				</div>
				{problems.entries && <p className="problem">{problems.entries}</p>}
				<ol className="mt-2">
					{draft.entries.map((entry, index) => {
						const ladder = ladderOf(entry.pick)
						const at = (field: string) => problems[`entries.${index}.${field}`]
						const wrong = Object.entries(problems).filter(([path]) => path.startsWith(`entries.${index}.`)).map(([, sentence]) => sentence)
						const number = (field: keyof EntryText, label: string, unit: string) => (
							<label key={field} className="flex items-center gap-1.5 text-[14px]"><input className="input w-[54px] px-1 text-center" inputMode="decimal" value={entry[field] ?? ''} aria-label={`${label}, entry ${index + 1}`} aria-invalid={at(field) !== undefined} onChange={(event) => setEntry(index, { [field]: event.target.value })} />{unit}</label>
						)
						return (
							<li key={index} className="rule py-2.5">
								<div className="flex flex-wrap items-center gap-2">
									<span className="num dim w-5 text-right">{index + 1}</span>
									<input className="input w-[130px]" value={entry.part} placeholder="Part" aria-label={`Part, entry ${index + 1}`} aria-invalid={at('part') !== undefined} onChange={(event) => setEntry(index, { part: event.target.value })} />
									<select className="input w-[200px]" value={entry.pick} aria-label={`Drill or ladder, entry ${index + 1}`} aria-invalid={at('drillId') !== undefined} onChange={(event) => choosePick(index, event.target.value)}>
										<option value="">Pick a drill or a ladder</option>
										<optgroup label="Ladders: each athlete their own rung">{ladders.map((option) => <option key={option.id} value={`ladder:${option.id}`}>{option.name} ladder</option>)}</optgroup>
										{FAMILIES.map((family) => <optgroup key={family} label={family}>{drills.filter((drill) => drill.family === family).map((drill) => <option key={drill.id} value={`drill:${drill.id}`}>{drill.name}</option>)}</optgroup>)}
									</select>
									{ladder ? <span className="dim text-[14px]">each athlete’s own rung, dose and rest</span> : (
										<>
											{number('sets', 'Sets', '×')}
											{number('reps', 'Reps', 'reps')}
											{number('restS', 'Rest', 's rest')}
											{PARAMETERS.filter(([field]) => drillOf(entry.pick)?.defaults[field] !== undefined).map(([field, unit]) => number(field, field, unit))}
										</>
									)}
									<span className="ml-auto flex gap-1">
										<button type="button" className="btn btn-quiet" disabled={index === 0} onClick={() => move(index, -1)} aria-label={`Earlier, entry ${index + 1}`}>↑</button>
										<button type="button" className="btn btn-quiet" disabled={index === draft.entries.length - 1} onClick={() => move(index, 1)} aria-label={`Later, entry ${index + 1}`}>↓</button>
										<button type="button" className="btn btn-quiet" onClick={() => set({ entries: draft.entries.filter((_, i) => i !== index) })} aria-label={`Take off, entry ${index + 1}`}>Take off</button>
									</span>
								</div>
								{wrong.map((sentence) => <p key={sentence} className="problem pl-7">{sentence}</p>)}
							</li>
						)
					})}
				</ol>
				<button type="button" className="btn btn-quiet mt-2" onClick={() => set({ entries: [...draft.entries, { part: '', pick: '', sets: '', reps: '', restS: '', distanceM: '', heightCm: '', angleDeg: '', ballKg: '', runInM: '' }] })}>Add a drill</button>
			</section>
			{Object.keys(problems).length > 0 && <p className="problem" role="alert">Not saved yet: {Object.keys(problems).length === 1 ? 'one thing needs' : `${Object.keys(problems).length} things need`} mending above. What you typed is kept.</p>}
			<button className="btn justify-self-start" disabled={busy}>{busy ? 'Saving …' : submitLabel}</button>
		</Form>
	)
}

/** Numbers that were typed as numbers, everything else as it was typed, so that the check can say what is wrong with it. */
export function draftOf(session: SessionText): unknown {
	const number = (value: string) => (value.trim() === '' ? undefined : Number.isFinite(Number(value.replace(',', '.'))) ? Number(value.replace(',', '.')) : value)
	return {
		squadId: session.squadId, day: session.day, startTime: session.startTime, title: session.title, place: session.place, ...(session.surface ? { surface: session.surface } : {}), plannedMinutes: number(session.plannedMinutes), athleteIds: session.athleteIds,
		entries: session.entries.map((entry) => {
			const [kind, id] = entry.pick.split(':')
			const fields = { sets: number(entry.sets), reps: number(entry.reps), restS: number(entry.restS), distanceM: number(entry.distanceM), heightCm: number(entry.heightCm), angleDeg: number(entry.angleDeg), ballKg: number(entry.ballKg), runInM: number(entry.runInM) }
			return { ...(entry.id ? { id: entry.id } : {}), part: entry.part, ...(kind === 'ladder' ? { ladderId: id } : kind === 'drill' ? { drillId: id } : {}), ...Object.fromEntries(Object.entries(fields).filter(([, value]) => value !== undefined)) }
		}),
	}
}

/** What the form sent, or null when it was tampered with. */
export function readSessionText(value: FormDataEntryValue | null): SessionText | null {
	try {
		const parsed = JSON.parse(String(value)) as SessionText
		return typeof parsed === 'object' && parsed !== null && Array.isArray(parsed.entries) && Array.isArray(parsed.athleteIds) && parsed.entries.every((entry) => typeof entry?.pick === 'string' && typeof entry.sets === 'string' && typeof entry.reps === 'string' && typeof entry.restS === 'string') ? parsed : null
	} catch {
		return null
	}
}
