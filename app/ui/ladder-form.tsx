import { useState } from 'react'
import { useNavigation } from 'react-router'
import { FAMILIES, type Level } from '#core/vocabulary/words'
import { PARAMETERS } from '#core/vocabulary/parameters'
import type { Drill } from '#core/vocabulary/drill'
import type { Ladder, PassCriterion, Rung } from '#core/vocabulary/ladder'
import { readClock, writeClock } from '#core/words/rests'
import { idFrom } from './id-from'
import { NumberField } from './number-field'
import { parameterTyped } from '#core/measure/quantity'
import { parameterWords } from './parameter-words'
import { MeanwhileNote, type Overtaken } from './meanwhile-note'
import { PostForm } from './post-form'
import { useUnits } from '../field/units'

interface Props {
	ladder: Ladder
	isNew: boolean
	drills: Pick<Drill, 'id' | 'name' | 'defaults' | 'family'>[]
	problems: Record<string, string>
	/** What somebody else has saved since the form was filled. */
	overtaken?: Overtaken | undefined
}

const PASSES: [string, PassCriterion, string][] = [
	['quality', { kind: 'quality' }, 'good by eye'],
	['time-within', { kind: 'time-within', percent: 3 }, 'within 3 % of the usual'],
	['pace', { kind: 'time-within', percent: 5 }, 'within 5 % of the usual'],
	['contact-ceiling', { kind: 'contact-ceiling' }, 'contact under the ceiling'],
	['height', { kind: 'not-below', of: 'height' }, 'height kept'],
	['distance', { kind: 'not-below', of: 'distance' }, 'distance kept'],
	['comfort', { kind: 'comfort' }, 'comfortable'],
]
const passKey = (pass: PassCriterion): string =>
	PASSES.find(([, one]) => JSON.stringify(one) === JSON.stringify(pass))?.[0] ?? 'kept'

/** A ladder's rungs from the bottom up; each row is one rung. */
export function LadderForm({ ladder, isNew, drills, problems, overtaken }: Props) {
	const { asRead, units } = useUnits()
	const [draft, setDraft] = useState(ladder)
	const busy = useNavigation().state !== 'idle'
	const known = new Set(ladder.rungs.map((rung) => rung.id))
	const replaceRung = (index: number, fresh: Rung) =>
		setDraft({ ...draft, rungs: draft.rungs.map((rung, at) => (at === index ? fresh : rung)) })
	const setRung = (index: number, change: Partial<Rung>) => replaceRung(index, { ...draft.rungs[index]!, ...change })
	const move = (index: number, by: number) => {
		const rungs = [...draft.rungs]
		const [rung] = rungs.splice(index, 1)
		if (rung) rungs.splice(index + by, 0, rung)
		setDraft({ ...draft, rungs })
	}
	const add = () => {
		const drill = drills.find((one) => one.family === draft.family) ?? drills[0]!
		const last = draft.rungs.at(-1)
		const { dose, rest, parameters } = drill.defaults
		let id = idFrom(drill.name)
		while (draft.rungs.some((rung) => rung.id === id)) id = `${id}-2`.slice(0, 40)
		const level = last?.level ?? 1
		setDraft({
			...draft,
			rungs: [
				...draft.rungs,
				{
					id,
					name: drill.name,
					level,
					drillId: drill.id,
					parameters,
					dose,
					rest,
					pass: { kind: 'quality' },
					gates: level > 1 ? [{ kind: 'level' }] : [],
				},
			],
		})
	}
	const setLevel = (index: number, level: Level) => {
		const gates = draft.rungs[index]!.gates.filter((gate) => gate.kind !== 'level')
		setRung(index, { level, gates: level > 1 ? [{ kind: 'level' }, ...gates] : gates })
	}
	const problemAt = (prefix: string) =>
		Object.entries(problems)
			.filter(([field]) => field === prefix || field.startsWith(`${prefix}.`))
			.map(([field, text]) => (
				<p key={field} className="problem col-span-full" role="alert">
					{text}
				</p>
			))
	return (
		<PostForm className="grid gap-4" keep="ladder">
			<input
				type="hidden"
				name="document"
				value={JSON.stringify({ ...draft, id: isNew ? idFrom(draft.name) : draft.id })}
			/>
			<div className="grid gap-3 sm:grid-cols-[1fr_160px]">
				<label className="field">
					<span className="label">Name</span>
					<input
						className="input"
						value={draft.name}
						maxLength={60}
						required
						onChange={(event) => setDraft({ ...draft, name: event.target.value })}
					/>
					{problemAt('name')}
					{isNew && problemAt('id')}
				</label>
				<label className="field">
					<span className="label">Family</span>
					<select
						className="input"
						value={draft.family}
						onChange={(event) => setDraft({ ...draft, family: event.target.value as Ladder['family'] })}
					>
						{FAMILIES.map((family) => (
							<option key={family}>{family}</option>
						))}
					</select>
				</label>
				<label className="field sm:col-span-2">
					<span className="label">What it trains, and when to leave it</span>
					<textarea
						className="input"
						rows={2}
						maxLength={400}
						value={draft.about}
						onChange={(event) => setDraft({ ...draft, about: event.target.value })}
					/>
					{problemAt('about')}
				</label>
			</div>
			<ol className="grid gap-0">
				{draft.rungs.map((rung, index) => (
					<li
						key={rung.id}
						className="rule grid grid-cols-2 items-end gap-2 py-2 lg:grid-cols-[minmax(150px,1fr)_minmax(150px,1fr)_64px_56px_56px_66px_150px_auto]"
					>
						<label className="field">
							<span className="label">Rung {index + 1}</span>
							<input
								className="input"
								value={rung.name}
								maxLength={80}
								onChange={(event) => setRung(index, { name: event.target.value })}
							/>
						</label>
						<label className="field">
							<span className="label">Drill</span>
							<select
								className="input"
								value={rung.drillId}
								onChange={(event) => {
									const drill = drills.find((one) => one.id === event.target.value)
									if (!drill) return
									// Pieces, turns and the place of a weight are of the drill they were written for.
									const { pieces: _pieces, turns: _turns, wornAt: _wornAt, ...plain } = rung
									replaceRung(index, { ...plain, drillId: drill.id, parameters: drill.defaults.parameters })
								}}
							>
								{drills.map((drill) => (
									<option key={drill.id} value={drill.id}>
										{drill.name}
									</option>
								))}
							</select>
						</label>
						<label className="field">
							<span className="label">Level</span>
							<select
								className="input"
								value={rung.level}
								onChange={(event) => setLevel(index, Number(event.target.value) as Level)}
							>
								{[1, 2, 3].map((level) => (
									<option key={level}>{level}</option>
								))}
							</select>
						</label>
						{(['sets', 'reps'] as const).map((part) => (
							<label key={part} className="field">
								<span className="label capitalize">{part}</span>
								<input
									className="input num"
									inputMode="numeric"
									defaultValue={rung.dose[part]}
									onChange={(event) => setRung(index, { dose: { ...rung.dose, [part]: Number(event.target.value) } })}
								/>
							</label>
						))}
						{(['repsS', 'setsS'] as const).map((part) => (
							<label key={part} className="field">
								<span className="label">Between {part === 'repsS' ? 'reps' : 'sets'}</span>
								<NumberField
									className="input num"
									value={rung.rest[part]}
									read={readClock}
									write={writeClock}
									onNumber={(value) => setRung(index, { rest: { ...rung.rest, [part]: value } })}
								/>
							</label>
						))}
						<label className="field">
							<span className="label">Passed by</span>
							<select
								className="input"
								value={passKey(rung.pass)}
								onChange={(event) => {
									const found = PASSES.find(([key]) => key === event.target.value)
									if (found) setRung(index, { pass: found[1] })
								}}
							>
								{passKey(rung.pass) === 'kept' && <option value="kept">as it is</option>}
								{PASSES.map(([key, , words]) => (
									<option key={key} value={key}>
										{asRead(words)}
									</option>
								))}
							</select>
						</label>
						<div className="flex gap-1">
							<button
								type="button"
								className="btn btn-quiet px-2.5"
								disabled={index === 0}
								aria-label={`Move ${rung.name} down the ladder`}
								onClick={() => move(index, -1)}
							>
								↑
							</button>
							<button
								type="button"
								className="btn btn-quiet px-2.5"
								disabled={index === draft.rungs.length - 1}
								aria-label={`Move ${rung.name} up the ladder`}
								onClick={() => move(index, 1)}
							>
								↓
							</button>
							{!known.has(rung.id) && (
								<button
									type="button"
									className="btn btn-quiet px-2.5"
									aria-label={`Take ${rung.name} away`}
									onClick={() => setDraft({ ...draft, rungs: draft.rungs.filter((_, at) => at !== index) })}
								>
									×
								</button>
							)}
						</div>
						<div className="col-span-full flex flex-wrap gap-3">
							{PARAMETERS.filter((name) => rung.parameters[name] !== undefined).map((name) => (
								<label key={name} className="flex items-center gap-1.5 text-[13.5px]">
									{parameterWords(name, units)}
									<input
										className="input num w-[76px]"
										inputMode="decimal"
										defaultValue={parameterTyped(name, units).write(rung.parameters[name]!)}
										key={`${rung.id}${rung.drillId}${name}`}
										onChange={(event) =>
											setRung(index, {
												parameters: {
													...rung.parameters,
													[name]: parameterTyped(name, units).read(event.target.value) ?? Number.NaN,
												},
											})
										}
									/>
								</label>
							))}
						</div>
						{problemAt(`rungs.${index}`)}
					</li>
				))}
			</ol>
			{problems.rungs && (
				<p className="problem" role="alert">
					{problems.rungs}
				</p>
			)}
			{problems.document && (
				<p className="problem" role="alert">
					{problems.document}
				</p>
			)}
			<div className="flex flex-wrap gap-2">
				<button type="button" className="btn btn-quiet" onClick={add}>
					Add a rung on top
				</button>
				<button className="btn" disabled={busy || draft.rungs.length === 0}>
					{busy ? 'Keeping …' : isNew ? 'Keep the ladder' : 'Keep the change'}
				</button>
			</div>
			{overtaken && <MeanwhileNote overtaken={overtaken} />}
		</PostForm>
	)
}
