import { useState } from 'react'
import { useNavigation } from 'react-router'
import {
	EFFORT_ZONES,
	FAMILIES,
	INTENSITY_CLASSES,
	MEASURE_KINDS,
	PATTERNS,
	REGIONS,
	REGION_NAMES,
	START_NAMES,
	type Region,
} from '#core/vocabulary/words'
import { PARAMETERS, type ParameterName } from '#core/vocabulary/parameters'
import type { Drill } from '#core/vocabulary/drill'
import { parameterTyped } from '#core/measure/quantity'
import { parameterWords } from './parameter-words'
import { MeanwhileNote, type Overtaken } from './meanwhile-note'
import { PostForm } from './post-form'
import { readNumber } from '#core/measure/read-number'
import { readClock, writeClock } from '#core/words/rests'
import { idFrom } from './id-from'
import { NumberField } from './number-field'
import { useUnits } from '../field/units'

interface Props {
	drill: Drill
	isNew: boolean
	drills: { id: string; name: string; regions: Drill['regions'] }[]
	problems: Record<string, string>
	/** What somebody else has saved since the form was filled. */
	overtaken?: Overtaken | undefined
}

const lines = (text: string) =>
	text
		.split('\n')
		.map((line) => line.trim())
		.filter((line) => line !== '')
const number = (text: string): number | undefined => (text.trim() === '' ? undefined : (readNumber(text) ?? Number.NaN))

/** Everything a drill says of itself. Lists are one a line; a fault and its correction stand on one line with a colon. */
export function DrillForm({ drill, isNew, drills, problems, overtaken }: Props) {
	const { units } = useUnits()
	const [draft, setDraft] = useState(drill)
	const [texts, setTexts] = useState({
		cues: drill.cues.join('\n'),
		lookFor: drill.lookFor.join('\n'),
		faults: drill.faults.map((fault) => `${fault.fault}: ${fault.correction}`).join('\n'),
		kit: drill.kit.join('\n'),
		cautions: drill.cautions.join('\n'),
	})
	const busy = useNavigation().state !== 'idle'
	const set = (change: Partial<Drill>) => setDraft({ ...draft, ...change })
	const problem = (path: string) => {
		const found = Object.entries(problems).find(([field]) => field === path || field.startsWith(`${path}.`))
		return found ? (
			<p className="problem" role="alert">
				{found[1]}
			</p>
		) : null
	}
	const pick = <T extends string>(
		label: string,
		value: T,
		values: readonly T[],
		change: (value: T) => void,
		names: Partial<Record<T, string>> = {},
	) => (
		<label className="field">
			<span className="label">{label}</span>
			<select className="input" value={value} onChange={(event) => change(event.target.value as T)}>
				{values.map((one) => (
					<option key={one} value={one}>
						{names[one] ?? one}
					</option>
				))}
			</select>
		</label>
	)
	const count = (label: string, value: number | undefined, change: (value: number | undefined) => void, path = '') => (
		<label className="field">
			<span className="label">{label}</span>
			<input
				className="input num"
				inputMode="decimal"
				defaultValue={value ?? ''}
				onChange={(event) => change(number(event.target.value))}
				aria-invalid={path !== '' && problems[path] !== undefined}
			/>
			{path && problem(path)}
		</label>
	)
	const list = (label: string, name: keyof typeof texts, hint: string) => (
		<label className="field">
			<span className="label">
				{label} <span className="dim font-normal">{hint}</span>
			</span>
			<textarea
				className="input"
				rows={3}
				value={texts[name]}
				onChange={(event) => setTexts({ ...texts, [name]: event.target.value })}
			/>
			{problem(name)}
		</label>
	)
	const without = <T extends object, K extends keyof T>(from: T, key: K): T => {
		const { [key]: _gone, ...rest } = from
		return rest as T
	}
	const shown = (name: ParameterName, value: number | undefined) =>
		value === undefined ? '' : parameterTyped(name, units).write(value)
	const read = (name: ParameterName, text: string) =>
		text.trim() === '' ? undefined : (parameterTyped(name, units).read(text) ?? Number.NaN)
	const setParameter = (name: ParameterName, value: number | undefined) =>
		set({
			defaults: {
				...draft.defaults,
				parameters:
					value === undefined
						? without(draft.defaults.parameters, name)
						: { ...draft.defaults.parameters, [name]: value },
			},
			ranges:
				value === undefined
					? without(draft.ranges, name)
					: { ...draft.ranges, [name]: draft.ranges[name] ?? [value, value] },
		})
	const setRange = (name: ParameterName, end: 0 | 1, value: number | undefined) => {
		const [low, high] = draft.ranges[name] ?? [0, 0]
		set({ ranges: { ...draft.ranges, [name]: end === 0 ? [value ?? 0, high] : [low, value ?? 0] } })
	}
	const setRegion = (region: Region, load: number) =>
		set(
			load === 0
				? { regions: without(draft.regions, region), alternatives: without(draft.alternatives, region) }
				: { regions: { ...draft.regions, [region]: load } },
		)
	const { contacts, cuts, metres, throws } = draft.counting
	const setCounting = (change: Partial<Drill['counting']>) =>
		set({
			counting: Object.fromEntries(
				Object.entries({ ...draft.counting, ...change }).filter(([, value]) => value !== undefined),
			) as Drill['counting'],
		})
	const document: Drill = {
		...draft,
		id: isNew ? idFrom(draft.name) : draft.id,
		cues: lines(texts.cues),
		lookFor: lines(texts.lookFor),
		kit: lines(texts.kit),
		cautions: lines(texts.cautions),
		faults: lines(texts.faults).map((line) => {
			const [fault = '', ...rest] = line.split(':')
			return { fault: fault.trim(), correction: rest.join(':').trim() }
		}),
	}
	return (
		<PostForm className="grid gap-5" keep="drill">
			<input type="hidden" name="document" value={JSON.stringify(document)} />
			<div className="grid gap-3 sm:grid-cols-3">
				<label className="field sm:col-span-3">
					<span className="label">Name</span>
					<input
						className="input"
						value={draft.name}
						onChange={(event) => set({ name: event.target.value })}
						maxLength={80}
						required
					/>
					{problem('name')}
					{isNew && problem('id')}
				</label>
				{pick('Family', draft.family, FAMILIES, (family) => set({ family }))}
				{pick('Intensity', draft.intensity, INTENSITY_CLASSES, (intensity) => set({ intensity }))}
				{pick('Moves', draft.pattern, PATTERNS, (pattern) => set({ pattern }))}
				{pick('Legs', draft.legs, ['both', 'one', 'alternating', 'none'], (legs) => set({ legs }))}
				{pick('Planned or reactive', draft.reactive ? 'reactive' : 'planned', ['planned', 'reactive'], (value) =>
					set({ reactive: value === 'reactive' }),
				)}
				<div>
					{pick(
						'Starts',
						draft.start ?? 'none',
						['none', 'standing', 'three-point', 'rolling', 'reaction'],
						(start) => set(start === 'none' ? without(draft, 'start') : { start }),
						{ ...START_NAMES, none: 'not timed' },
					)}
					{problem('start')}
				</div>
			</div>
			<div className="grid gap-3 sm:grid-cols-3">
				{list('Cues', 'cues', 'one a line')}
				{list('Look for', 'lookFor', 'one a line')}
				{list('Faults', 'faults', 'fault: correction')}
				{list('Kit', 'kit', 'one a line')}
				{list('Cautions', 'cautions', 'one a line')}
				<fieldset className="field">
					<legend className="label">Measured by</legend>
					<div className="flex flex-wrap gap-x-4">
						{MEASURE_KINDS.map((kind) => (
							<label key={kind} className="flex min-h-[40px] max-lg:min-h-[44px] items-center gap-1.5">
								<input
									type="checkbox"
									className="size-5 accent-act"
									checked={draft.measures.includes(kind)}
									onChange={(event) =>
										set({
											measures: event.target.checked
												? [...draft.measures, kind]
												: draft.measures.filter((one) => one !== kind),
										})
									}
								/>
								{kind}
							</label>
						))}
					</div>
					{problem('measures')}
				</fieldset>
			</div>
			<fieldset>
				<legend className="label mb-1">Dose and rest</legend>
				<div className="grid grid-cols-2 gap-3 sm:grid-cols-4 lg:grid-cols-8">
					{([1, 2, 3] as const).flatMap((level) =>
						(['sets', 'reps'] as const).map((part) => (
							<div key={`${level}${part}`}>
								{count(
									`Level ${level}, ${part}`,
									draft.doses[level][part],
									(value) =>
										set({
											doses: { ...draft.doses, [level]: { ...draft.doses[level], [part]: value ?? 0 } },
											...(level === 2
												? { defaults: { ...draft.defaults, dose: { ...draft.defaults.dose, [part]: value ?? 0 } } }
												: {}),
										}),
									`doses.${level}.${part}`,
								)}
							</div>
						)),
					)}
					{(['repsS', 'setsS'] as const).map((part) => (
						<div key={part}>
							<label className="field">
								<span className="label">Between {part === 'repsS' ? 'reps' : 'sets'}</span>
								<NumberField
									className="input num"
									value={draft.defaults.rest[part]}
									read={readClock}
									write={writeClock}
									onNumber={(value) =>
										set({ defaults: { ...draft.defaults, rest: { ...draft.defaults.rest, [part]: value } } })
									}
								/>
								{problem(`defaults.rest.${part}`)}
							</label>
						</div>
					))}
					{count(
						'A rep, s',
						draft.defaults.repS,
						(repS) => set({ defaults: { ...draft.defaults, repS: repS ?? 0 } }),
						'defaults.repS',
					)}
				</div>
				{problems['defaults.dose.reps'] && (
					<p className="problem mt-1" role="alert">
						{problems['defaults.dose.reps']}
					</p>
				)}
			</fieldset>
			<fieldset>
				<legend className="label mb-1">What may be set</legend>
				<div className="grid gap-x-6 gap-y-2 sm:grid-cols-2 lg:grid-cols-3">
					{PARAMETERS.map((name) => (
						<div key={name} className="grid grid-cols-[1fr_70px_auto_62px_auto_62px] items-center gap-1.5 text-[14px]">
							<span>{parameterWords(name, units)}</span>
							<input
								className="input num"
								inputMode="decimal"
								defaultValue={shown(name, draft.defaults.parameters[name])}
								aria-label={`${parameterWords(name, units)}, usual`}
								onChange={(event) => setParameter(name, read(name, event.target.value))}
							/>
							<span className="dim">in</span>
							<input
								className="input num"
								inputMode="decimal"
								key={`low${String(draft.ranges[name] === undefined)}`}
								defaultValue={shown(name, draft.ranges[name]?.[0])}
								disabled={draft.defaults.parameters[name] === undefined}
								aria-label={`${parameterWords(name, units)}, least`}
								onChange={(event) => setRange(name, 0, read(name, event.target.value))}
							/>
							<span className="dim">to</span>
							<input
								className="input num"
								inputMode="decimal"
								key={`high${String(draft.ranges[name] === undefined)}`}
								defaultValue={shown(name, draft.ranges[name]?.[1])}
								disabled={draft.defaults.parameters[name] === undefined}
								aria-label={`${parameterWords(name, units)}, most`}
								onChange={(event) => setRange(name, 1, read(name, event.target.value))}
							/>
							{problems[`ranges.${name}`] && (
								<p className="problem col-span-6" role="alert">
									{problems[`ranges.${name}`]}
								</p>
							)}
						</div>
					))}
				</div>
			</fieldset>
			<fieldset>
				<legend className="label mb-1">How it is counted</legend>
				<div className="grid gap-3 sm:grid-cols-4">
					{pick(
						'Ground contacts',
						contacts?.by ?? 'none',
						['none', 'rep', 'metres'],
						(by) =>
							setCounting({
								contacts:
									by === 'none'
										? undefined
										: by === 'rep'
											? { by, feet: 'both', perRep: 1 }
											: { by, feet: 'both', stepLengthLegLengths: 1, perStep: 1 },
							} as Partial<Drill['counting']>),
						{ none: 'none', rep: 'so many a rep', metres: 'by distance' },
					)}
					{contacts &&
						pick(
							'Feet',
							contacts.feet,
							contacts.by === 'rep' ? ['both', 'alternating', 'each-leg'] : ['both', 'alternating'],
							(feet) => setCounting({ contacts: { ...contacts, feet } as NonNullable<typeof contacts> }),
						)}
					{contacts?.by === 'rep' &&
						count(
							'Contacts a rep',
							contacts.perRep,
							(perRep) => setCounting({ contacts: { ...contacts, perRep: perRep ?? 1 } }),
							'counting.contacts',
						)}
					{contacts?.by === 'metres' &&
						count(
							'A step, leg lengths',
							contacts.stepLengthLegLengths,
							(value) => setCounting({ contacts: { ...contacts, stepLengthLegLengths: value ?? 1 } }),
							'counting.contacts',
						)}
					{count(
						'Cuts a rep',
						cuts?.perRep,
						(perRep) =>
							setCounting({ cuts: perRep === undefined ? undefined : { perRep } } as Partial<Drill['counting']>),
						'counting.cuts',
					)}
					{pick(
						'Metres run',
						metres?.plannedZone ?? 'none',
						['none', ...EFFORT_ZONES],
						(plannedZone) =>
							setCounting({ metres: plannedZone === 'none' ? undefined : { ...metres, plannedZone } } as Partial<
								Drill['counting']
							>),
						{ none: 'not counted' },
					)}
					{pick(
						'Throws',
						throws?.sides ?? 'none',
						['none', 'both', 'each-side'],
						(sides) => setCounting({ throws: sides === 'none' ? undefined : { sides } } as Partial<Drill['counting']>),
						{ none: 'none', both: 'one a rep', 'each-side': 'one a side' },
					)}
				</div>
			</fieldset>
			<fieldset>
				<legend className="label mb-1">What it loads, and what spares it</legend>
				<ul className="grid gap-x-8 sm:grid-cols-2">
					{REGIONS.map((region) => (
						<li key={region} className="rule grid grid-cols-[110px_110px_1fr] items-center gap-2 py-1 text-[14px]">
							<span>{REGION_NAMES[region]}</span>
							<select
								className="input"
								value={draft.regions[region] ?? 0}
								aria-label={`Load on the ${REGION_NAMES[region]}`}
								onChange={(event) => setRegion(region, Number(event.target.value))}
							>
								{['not', 'a little', 'some', 'a lot'].map((name, load) => (
									<option key={name} value={load}>
										{name}
									</option>
								))}
							</select>
							{draft.regions[region] ? (
								<select
									className="input"
									value={draft.alternatives[region] ?? ''}
									aria-label={`Alternative that spares the ${REGION_NAMES[region]}`}
									onChange={(event) =>
										set({
											alternatives:
												event.target.value === ''
													? without(draft.alternatives, region)
													: { ...draft.alternatives, [region]: event.target.value },
										})
									}
								>
									<option value="">nothing spares it</option>
									{drills
										.filter((one) => (one.regions[region] ?? 0) === 0)
										.map((one) => (
											<option key={one.id} value={one.id}>
												{one.name}
											</option>
										))}
								</select>
							) : (
								<span />
							)}
							{problems[`alternatives.${region}`] && (
								<p className="problem col-span-3" role="alert">
									{problems[`alternatives.${region}`]}
								</p>
							)}
						</li>
					))}
				</ul>
			</fieldset>
			{problems.document && (
				<p className="problem" role="alert">
					{problems.document}
				</p>
			)}
			{Object.keys(problems).length > 0 && (
				<p className="problem">
					Nothing is kept yet:{' '}
					{Object.keys(problems).length === 1 ? 'one thing is' : `${Object.keys(problems).length} things are`} not as
					expected.
				</p>
			)}
			<button className="btn justify-self-start" disabled={busy}>
				{busy ? 'Keeping …' : isNew ? 'Keep the drill' : 'Keep the change'}
			</button>
			{overtaken && <MeanwhileNote overtaken={overtaken} />}
		</PostForm>
	)
}
