import { CARRIED_LOAD, COD, CURVE, THROW } from '#core/calc/other-calculations'
import { TAKEOFF_PLANTS } from '#core/calc/jump-calculations'
import { ASSISTED_TARGET, RESISTED_LOAD, STEPS } from '#core/calc/sprint-calculations'
import { PLANTS, type Plant } from '#core/measure/jump/plants'
import { StepPlot } from './step-plot'
import { LoadPlot } from './load-plot'
import { type FieldSpec, type FormSpec, type Reading, readTyped } from './read-form'
import { BigNumber, Numbers, Waiting, Warnings } from './result-parts'
import { SavePanel } from './save-panel'
import { ToolFields, ToolRows } from './tool-form'
import { ToolPage, type ToolProps, emptyRows, useTool } from './tool-page'

const outputOf = <Output,>(reading: Reading<unknown, Output>): Output | null => (reading.state === 'done' ? reading.output : null)
const inputsOf = <Input extends Record<string, unknown>>(reading: Reading<Input, unknown>): Input[] => (reading.state === 'done' ? [reading.input] : [])
const none = { values: {}, rows: [] }

export function StepsTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [{ key: 'distance_m', label: 'Distance', unit: 'm' }, { key: 'time_s', label: 'Time', unit: 's' }, { key: 'steps', label: 'Steps counted', unit: '', hint: 'A half step counts as 0.5.' }, { key: 'leg_length_m', label: 'Leg length', unit: 'cm', scale: 0.01, optional: true }]
	const { draft, change, reading } = useTool('steps', STEPS, { fields }, none)
	const steps = outputOf(reading)
	return (
		<ToolPage onClear={() => change(() => none)} problem={reading.problems['']} inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={!steps ? <Waiting>Count the steps over a stretch run at an even speed, such as 10 or 20 m at top speed.</Waiting> : <>
				<Numbers>
					<BigNumber label="Step length" value={steps.step_length_m.toFixed(2)} unit="m" />
					<BigNumber label="Step frequency" value={steps.step_frequency_hz.toFixed(2)} unit="a second" />
					<BigNumber label="Speed" value={steps.speed_mps.toFixed(2)} unit="m/s" />
					{steps.step_length_legs !== null && <BigNumber label="Step in leg lengths" value={steps.step_length_legs.toFixed(2)} unit="" />}
				</Numbers>
				<StepPlot lengthM={steps.step_length_m} frequencyHz={steps.step_frequency_hz} />
				<p className="mt-3 max-w-[620px]">One is pushed while the other is kept. Which one follows from the athlete’s own faster and slower days, at least eight reps over three sessions, never from one.</p>
				<SavePanel calculation="steps" inputs={inputsOf(reading)} people={people} today={today} />
			</>}
			about={{ formula: 'Step length = distance / steps; frequency = steps / time; speed = length × frequency.', source: 'Definition.', limits: 'Over a start the two change with every step: take a stretch at an even speed. One step miscounted in ten is a tenth off.' }} />
	)
}

export function ResistedTool({ people, today }: ToolProps) {
	const spec: FormSpec & { rows: NonNullable<FormSpec['rows']> } = {
		fields: [{ key: 'target_decrement', label: 'Wanted loss of speed', unit: '%', scale: 0.01, hint: '10 % for speed, about 50 % for power (common practice).' }],
		rows: { key: 'loads', label: 'Runs with loads, three or more', atLeast: 1, columns: [{ key: 'load_kg', label: 'Load', unit: 'kg' }, { key: 'velocity_mps', label: 'Top speed', unit: 'm/s' }] },
	}
	const empty = { values: { target_decrement: '10' }, rows: emptyRows(4) }
	const { draft, change, reading } = useTool('resisted', RESISTED_LOAD, spec, empty)
	const result = outputOf(reading)
	const target = reading.state === 'done' ? reading.input.target_decrement : 0
	return (
		<ToolPage onClear={() => change(() => empty)} problem={reading.problems['']}
			inputs={<><ToolFields fields={spec.fields} draft={draft} problems={reading.problems} change={change} /><ToolRows rows={spec.rows} draft={draft} problems={reading.problems} change={change} /></>}
			results={!result || reading.state !== 'done' ? <Waiting>Type the top speed reached with each load on this surface; a run without load is one of them. Three different loads make a line.</Waiting> : <>
				<Numbers>
					<BigNumber label={`Load for ${Math.round(target * 100)} % slower`} value={result.load_kg.toFixed(1)} unit={result.extrapolated ? 'kg, extrapolated' : 'kg'} />
					<BigNumber label="Speed to aim at" value={(result.free_velocity_mps * (1 - target)).toFixed(2)} unit="m/s" />
					<BigNumber label="Free speed, off the line" value={result.free_velocity_mps.toFixed(2)} unit="m/s" />
					<BigNumber label="Fit of the line, r²" value={result.r2.toFixed(3)} unit="" />
				</Numbers>
				<Warnings warnings={result.warnings} />
				<LoadPlot runs={reading.input.loads.map((run) => ({ loadKg: run.load_kg, velocityMps: run.velocity_mps }))} freeMps={result.free_velocity_mps} slope={result.slope} targetKg={result.load_kg} />
				<SavePanel calculation="resisted-load" inputs={inputsOf(reading)} people={people} today={today} />
			</>}
			about={{ formula: 'A line through speed against load; loss of speed = 1 − loaded / free; load = loss × free speed / slope.', source: 'Cross et al. 2017.', limits: 'One athlete, one surface, one sled: wet grass is another line. Outside the loads tried the answer is extrapolated and says so.' }} />
	)
}

export function AssistedTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [
		{ key: 'mss_mps', label: 'Own top speed', unit: 'm/s', hint: 'From the sprint profile or a fly.' }, { key: 'overspeed', label: 'Faster by', unit: '%', scale: 0.01 },
		{ key: 'segment_m', label: 'Segment', unit: 'm' }, { key: 'cap', label: 'Cap of the school', unit: '%', scale: 0.01 },
	]
	const empty = { values: { overspeed: '3', segment_m: '20', cap: '6' }, rows: [] }
	const { draft, change, reading } = useTool('assisted', ASSISTED_TARGET, { fields }, empty)
	const result = outputOf(reading)
	return (
		<ToolPage onClear={() => change(() => empty)} problem={reading.problems['']} inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={!result ? <Waiting>Type the athlete’s own top speed and how much faster the pull should be.</Waiting> : <>
				<Numbers><BigNumber label="Speed to aim at" value={result.speed_mps.toFixed(2)} unit="m/s" /><BigNumber label={`Time for ${draft.values.segment_m} m`} value={result.segment_time_s.toFixed(2)} unit="s" /></Numbers>
				<p className="mt-4 border-l-[3px] border-attn py-0.5 pl-3.5 text-[14px]">Pulled running loads the hamstrings more than any free sprint: pain-free athletes, warm, with a free run-out and a release. Stop when the foot brakes in front of the body.</p>
				<SavePanel calculation="assisted-target" inputs={inputsOf(reading)} people={people} today={today} />
			</>}
			about={{ formula: 'Target = top speed × (1 + share); time = segment / target.', source: 'Definition; the cap is a setting of the school.', limits: 'Says nothing of how the speed is reached. Faster is not better: technique that breaks ends the rep.' }} />
	)
}

export function CarriedTool({ people, today }: ToolProps) {
	const spec: FormSpec & { rows: NonNullable<FormSpec['rows']> } = {
		fields: [{ key: 'free_time_s', label: 'Time without load', unit: 's', optional: true, hint: 'Same distance and start.' }],
		rows: { key: 'loads', label: 'Loads on one limb', atLeast: 1, columns: [{ key: 'mass_kg', label: 'Mass', unit: 'g', scale: 0.001 }, { key: 'radius_m', label: 'From joint', unit: 'cm', scale: 0.01 }, { key: 'time_s', label: 'Time', unit: 's', optional: true }] },
	}
	const empty = { values: {}, rows: emptyRows(3) }
	const { draft, change, reading } = useTool('carried', CARRIED_LOAD, spec, empty)
	const result = outputOf(reading)
	const loads = reading.state === 'done' ? reading.input.loads : []
	const most = Math.max(0, ...(result?.by_load ?? []).map((load) => load.added_inertia_kgm2))
	return (
		<ToolPage onClear={() => change(() => empty)} problem={reading.problems['']}
			inputs={<><ToolFields fields={spec.fields} draft={draft} problems={reading.problems} change={change} /><ToolRows rows={spec.rows} draft={draft} problems={reading.problems} change={change} /></>}
			results={!result ? <Waiting>Type mass and distance from the joint of each load to compare: hip to thigh, knee or ankle for the leg.</Waiting> : <>
				<table className="w-full max-w-[620px] border-collapse">
					<thead><tr className="dim text-left text-[13.5px]">{['Load', 'Adds about the joint', 'Against the most', 'Speed lost'].map((head, index) => <th key={head} scope="col" className={`py-1 font-normal ${index ? 'text-right' : ''}`}>{head}</th>)}</tr></thead>
					<tbody>{result.by_load.map((load, index) => (
						<tr key={index} className="border-t border-chalk"><td className="num py-2">{Math.round(loads[index]!.mass_kg * 1000)} g at {Math.round(loads[index]!.radius_m * 100)} cm</td><td className="num py-2 text-right"><b className="text-[19px]">{load.added_inertia_kgm2.toFixed(3)}</b> <span className="dim">kg m²</span></td><td className="num text-right">{most > 0 ? `${Math.round((load.added_inertia_kgm2 / most) * 100)} %` : '–'}</td><td className="num text-right">{load.slower_pct === null ? <span className="dim">not run</span> : `${load.slower_pct.toFixed(1)} %`}</td></tr>
					))}</tbody>
				</table>
				<p className="mt-3 max-w-[620px]">Twice as far out is four times as hard to swing: the place decides more than the mass. A loss of speed within three timing errors is noise.</p>
				<SavePanel calculation="carried-load" inputs={inputsOf(reading)} people={people} today={today} />
			</>}
			about={{ formula: 'Added moment of inertia = m r² about the joint; speed lost = 1 − time without / time with.', source: 'Mechanics.', limits: 'Without the limb’s own inertia, so it compares loads and not people. Carried load is for part of the reps only.' }} />
	)
}

const PLANT_NAMES: Record<Plant, string> = { 'both-standing': 'both feet, standing', 'both-run-in': 'both feet, run-in', left: 'left', right: 'right' }

export function PlantsTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = PLANTS.map((plant) => ({ key: `heights_m.${plant.replaceAll('-', '_')}`, label: `Height, ${PLANT_NAMES[plant]}`, unit: 'cm', scale: 0.01, optional: true }))
	const { draft, change, reading } = useTool('plants', TAKEOFF_PLANTS, { fields, fixed: {} }, none)
	const typed = fields.filter((field) => typeof readTyped(draft.values[field.key]) === 'number').length
	const result = typed >= 2 ? outputOf(reading) : null
	return (
		<ToolPage onClear={() => change(() => none)} problem={typed >= 2 ? reading.problems[''] : undefined} inputs={<ToolFields fields={fields} draft={draft} problems={typed >= 2 ? reading.problems : {}} change={change} />}
			results={!result ? <Waiting>Type the best height of at least two take-offs.</Waiting> : <>
				<p className="text-[17px]"><b>{result.lagging ? `${cap(PLANT_NAMES[result.lagging])} lags.` : 'No take-off lags by more than the error.'}</b></p>
				<ul className="mt-4 max-w-[560px]">{result.readings.map((one) => (
					<li key={one.plant} className="rule grid grid-cols-[150px_1fr_64px] items-center gap-3 py-2"><span>{cap(PLANT_NAMES[one.plant])}</span><span className="h-[10px] bg-chalk"><span className="block h-full" style={{ width: `${one.share * 100}%`, background: one.plant === result.lagging ? 'var(--color-ink)' : 'var(--color-plyometric)' }} /></span><span className="num text-right"><b className="text-[18px]">{Math.round(one.height_m * 100)}</b> <span className="dim">cm</span><span className="dim block text-[13px]">{Math.round(one.share * 100)} %</span></span></li>
				))}</ul>
				<SavePanel calculation="plants" inputs={inputsOf(reading)} people={people} today={today} />
			</>}
			about={{ formula: 'Each height as a share of the best; lagging when more than twice the method’s relative error (3 %) below.', source: 'Our setting.', limits: 'Best heights, so one lucky jump counts. Left against right means something only when the same side lags over repeated tests.' }} />
	)
}
const cap = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

export function TurnTool({ people, today }: ToolProps) {
	const sides: FieldSpec[] = [
		{ key: 'left.time_505_s', label: '505, turning left', unit: 's' }, { key: 'right.time_505_s', label: '505, turning right', unit: 's' },
		{ key: 'left.time_10_s', label: '10 m straight', unit: 's' },
	]
	const braking: FieldSpec[] = [{ key: 'speed_mps', label: 'Speed before braking', unit: 'm/s', optional: true }, { key: 'distance_m', label: 'Distance to the stop', unit: 'm', optional: true }]
	const reactive: FieldSpec[] = [{ key: 'planned_s', label: 'Path, planned', unit: 's', optional: true }, { key: 'reactive_s', label: 'Same path, reactive', unit: 's', optional: true }]
	// The straight run has no side: one time serves both.
	const { draft, change, reading } = useTool('turn', COD, ({ values }) => {
		const straight = readTyped(values['left.time_10_s'])
		return { fields: sides, fixed: typeof straight === 'number' && !Number.isNaN(straight) ? { right: { time_10_s: straight } } : {} }
	}, none)
	const result = outputOf(reading)
	const at = (key: string) => readTyped(draft.values[key])
	const [speed, stop, planned, reacted] = [at('speed_mps'), at('distance_m'), at('planned_s'), at('reactive_s')]
	return (
		<ToolPage onClear={() => change(() => none)} problem={reading.problems['']}
			inputs={<><ToolFields fields={sides} draft={draft} problems={reading.problems} change={change} /><details className="rule pt-1"><summary className="link inline-flex min-h-[44px] items-center">Braking and reacting</summary><div className="grid gap-3"><ToolFields fields={[...braking, ...reactive]} draft={draft} problems={{}} change={change} /></div></details></>}
			results={<>
				{!result ? <Waiting>Type both 505 times and a straight 10 m from the same timing set-up.</Waiting> : <>
					<Numbers>
						{([['A turn left costs', result.left_deficit_s], ['A turn right costs', result.right_deficit_s]] as const).map(([label, costs]) => costs !== null && <BigNumber key={label} label={label} value={costs.toFixed(2)} unit="s" />)}
						<BigNumber label="Gap" value={result.asymmetry_pct === null ? '–' : result.asymmetry_pct.toFixed(0)} unit={result.quicker ? `%, ${result.quicker} quicker` : '%'} />
					</Numbers>
					<Warnings warnings={result.warnings} />
					<p className="mt-4 max-w-[620px]">A gap counts when it is larger than the test’s own error and on the same side over repeated days; one day shows a number, not an asymmetry.</p>
				</>}
				{(isPositive(speed) && isPositive(stop)) || (isPositive(planned) && isPositive(reacted)) ? <div className="rule mt-6 pt-4"><Numbers>
					{isPositive(speed) && isPositive(stop) && <BigNumber label="Mean braking" value={(speed ** 2 / (2 * stop)).toFixed(1)} unit="m/s²" />}
					{isPositive(planned) && isPositive(reacted) && <BigNumber label="Reading and deciding costs" value={(reacted - planned).toFixed(2)} unit="s" />}
				</Numbers></div> : null}
				{result && <SavePanel calculation="cod" inputs={inputsOf(reading)} people={people} today={today} />}
			</>}
			about={{ formula: 'Deficit = 505 time − 10 m time; braking = v²/(2d); reactive cost = reactive − planned time over the same path.', source: 'Nimphius et al. 2016; Exell et al. 2012 and Bishop et al. 2021 for what counts as a gap.', limits: 'Both times from one set-up. The deficit carries the error of two times: by gates about 0.03 s, by stopwatch 0.14 s.' }} />
	)
}
const isPositive = (value: number | null | undefined): value is number => typeof value === 'number' && value > 0

export function CurveTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [{ key: 'radius_m', label: 'Radius', unit: 'm' }, { key: 'speed_mps', label: 'Speed', unit: 'm/s' }]
	const { draft, change, reading } = useTool('curve', CURVE, { fields }, none)
	const result = outputOf(reading)
	const lean = result ? (result.lean_deg * Math.PI) / 180 : 0
	return (
		<ToolPage onClear={() => change(() => none)} problem={reading.problems['']} inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={!result ? <Waiting>Type the radius of the curve and the speed in it.</Waiting> : <>
				<Numbers><BigNumber label="Lean from the vertical" value={result.lean_deg.toFixed(0)} unit="°" /><BigNumber label="Sideways pull" value={result.centripetal_mps2.toFixed(1)} unit="m/s²" /><BigNumber label="of standing weight" value={(result.centripetal_mps2 / 9.80665).toFixed(2)} unit="×" /></Numbers>
				<svg className="glyph mt-5" viewBox="0 0 200 120" width="300" role="img" aria-label={`A runner leaning ${result.lean_deg.toFixed(0)} degrees`}>
					<path d="M20 110H180" stroke="var(--color-ink-2)" /><path d="M100 110V20" stroke="var(--color-chalk)" strokeDasharray="4 4" />
					<path d={`M100 110L${100 - 88 * Math.sin(lean)} ${110 - 88 * Math.cos(lean)}`} stroke="var(--color-agility)" strokeWidth="4" />
				</svg>
				<SavePanel calculation="curve" inputs={inputsOf(reading)} people={people} today={today} />
			</>}
			about={{ formula: 'Sideways pull = v²/r; lean = atan(v²/(r g)).', source: 'Mechanics; g = 9.80665 m/s² (3rd CGPM 1901).', limits: 'The lean of the line from foot to centre of mass, at an even speed; what the ground holds is another matter, and wet grass holds less.' }} />
	)
}

export function ThrowTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [{ key: 'distance_m', label: 'Distance', unit: 'm' }, { key: 'release_height_m', label: 'Release height', unit: 'm' }, { key: 'release_angle_deg', label: 'Release angle', unit: '°', hint: 'Off film from the side; 35 to 42° is usual.' }, { key: 'mass_kg', label: 'Ball', unit: 'kg', optional: true }]
	const empty = { values: { release_height_m: '1.9', release_angle_deg: '38' }, rows: [] }
	const { draft, change, reading } = useTool('throw', THROW, { fields }, empty)
	const result = outputOf(reading)
	const distance = reading.state === 'done' ? reading.input.distance_m : 0
	return (
		<ToolPage onClear={() => change(() => empty)} problem={reading.problems['']} inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={!result ? <Waiting>Type the distance of a medicine-ball throw. A disc flies on the air: log its distance only.</Waiting> : <>
				<Numbers>
					<BigNumber label="Release speed" value={result.release_speed_mps.toFixed(1)} unit="m/s" />
					{result.kinetic_energy_j !== null && <BigNumber label="Energy of the ball" value={result.kinetic_energy_j.toFixed(0)} unit="J" />}
					<BigNumber label="Best angle at this speed" value={result.best_angle_deg.toFixed(0)} unit="°" />
					<BigNumber label="would carry" value={result.best_distance_m.toFixed(1)} unit="m" />
				</Numbers>
				<p className="mt-4 max-w-[620px]">{result.best_distance_m - distance < 0.1 ? 'The angle costs nothing.' : `The angle costs ${(result.best_distance_m - distance).toFixed(1)} m at the same speed. An athlete throws faster at some angles than at others, so try before changing it.`}</p>
				<SavePanel calculation="throw" inputs={inputsOf(reading)} people={people} today={today} />
			</>}
			about={{ formula: 'v = √(g d² / (2 cos²θ (d tanθ + h))); best angle: tanθ = v / √(v² + 2 g h); energy = ½ m v².', source: 'Ballistics without air.', limits: 'Fair for a medicine ball over a few metres. A release angle 5° off changes the speed by a few percent.' }} />
	)
}
