import { CARRIED_LOAD } from '#core/calc/other-calculations'
import { ASSISTED_TARGET, RESISTED_LOAD, STEPS } from '#core/calc/sprint-calculations'
import { LoadPlot } from './load-plot'
import type { FieldSpec, FormSpec } from './read-form'
import { EMPTY_DRAFT, inputsOf, outputOf } from './reading-parts'
import { BigNumber, Numbers, Waiting, Warnings } from './result-parts'
import { SavePanel } from './save-panel'
import { StepPlot } from './step-plot'
import { ToolFields, ToolRows } from './tool-form'
import { ToolPage, type ToolProps, emptyRows, useTool } from './tool-page'

export function StepsTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [
		{ key: 'distance_m', label: 'Distance', unit: 'm' },
		{ key: 'time_s', label: 'Time', unit: 's' },
		{ key: 'steps', label: 'Steps counted', unit: '', hint: 'A half step counts as 0.5.' },
		{ key: 'leg_length_m', label: 'Leg length', unit: 'cm', scale: 0.01, optional: true },
	]
	const { draft, change, reading } = useTool('steps', STEPS, { fields }, EMPTY_DRAFT)
	const steps = outputOf(reading)
	return (
		<ToolPage
			onClear={() => change(() => EMPTY_DRAFT)}
			problem={reading.problems['']}
			inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={
				!steps ? (
					<Waiting>Count the steps over a stretch run at an even speed, such as 10 or 20 m at top speed.</Waiting>
				) : (
					<>
						<Numbers>
							<BigNumber label="Step length" value={steps.step_length_m.toFixed(2)} unit="m" />
							<BigNumber label="Step frequency" value={steps.step_frequency_hz.toFixed(2)} unit="a second" />
							<BigNumber label="Speed" value={steps.speed_mps.toFixed(2)} unit="m/s" />
							{steps.step_length_legs !== null && (
								<BigNumber label="Step in leg lengths" value={steps.step_length_legs.toFixed(2)} unit="" />
							)}
						</Numbers>
						<StepPlot lengthM={steps.step_length_m} frequencyHz={steps.step_frequency_hz} />
						<p className="mt-3 max-w-[620px]">
							One is pushed while the other is kept. Which one follows from the athlete’s own faster and slower days, at
							least eight reps over three sessions, never from one.
						</p>
						<SavePanel calculation="steps" inputs={inputsOf(reading)} people={people} today={today} />
					</>
				)
			}
			about={{
				formula: 'Step length = distance / steps; frequency = steps / time; speed = length × frequency.',
				source: 'Definition.',
				limits:
					'Over a start the two change with every step: take a stretch at an even speed. One step miscounted in ten is a tenth off.',
			}}
		/>
	)
}

export function ResistedTool({ people, today }: ToolProps) {
	const spec: FormSpec & { rows: NonNullable<FormSpec['rows']> } = {
		fields: [
			{
				key: 'target_decrement',
				label: 'Wanted loss of speed',
				unit: '%',
				scale: 0.01,
				hint: '10 % for speed, about 50 % for power (common practice).',
			},
		],
		rows: {
			key: 'loads',
			label: 'Runs with loads, three or more',
			atLeast: 1,
			columns: [
				{ key: 'load_kg', label: 'Load', unit: 'kg' },
				{ key: 'velocity_mps', label: 'Top speed', unit: 'm/s' },
			],
		},
	}
	const empty = { values: { target_decrement: '10' }, rows: emptyRows(4) }
	const { draft, change, reading } = useTool('resisted', RESISTED_LOAD, spec, empty)
	const result = outputOf(reading)
	const target = reading.state === 'done' ? reading.input.target_decrement : 0
	return (
		<ToolPage
			onClear={() => change(() => empty)}
			problem={reading.problems['']}
			inputs={
				<>
					<ToolFields fields={spec.fields} draft={draft} problems={reading.problems} change={change} />
					<ToolRows rows={spec.rows} draft={draft} problems={reading.problems} change={change} />
				</>
			}
			results={
				!result || reading.state !== 'done' ? (
					<Waiting>
						Type the top speed reached with each load on this surface; a run without load is one of them. Three
						different loads make a line.
					</Waiting>
				) : (
					<>
						<Numbers>
							<BigNumber
								label={`Load for ${Math.round(target * 100)} % slower`}
								value={result.load_kg.toFixed(1)}
								unit={result.extrapolated ? 'kg, extrapolated' : 'kg'}
							/>
							<BigNumber
								label="Speed to aim at"
								value={(result.free_velocity_mps * (1 - target)).toFixed(2)}
								unit="m/s"
							/>
							<BigNumber label="Free speed, off the line" value={result.free_velocity_mps.toFixed(2)} unit="m/s" />
							<BigNumber label="Fit of the line, r²" value={result.r2.toFixed(3)} unit="" />
						</Numbers>
						<Warnings warnings={result.warnings} />
						<LoadPlot
							runs={reading.input.loads.map((run) => ({ loadKg: run.load_kg, velocityMps: run.velocity_mps }))}
							freeMps={result.free_velocity_mps}
							slope={result.slope}
							targetKg={result.load_kg}
						/>
						<SavePanel calculation="resisted-load" inputs={inputsOf(reading)} people={people} today={today} />
					</>
				)
			}
			about={{
				formula:
					'A line through speed against load; loss of speed = 1 − loaded / free; load = loss × free speed / slope.',
				source: 'Cross et al. 2017.',
				limits:
					'One athlete, one surface, one sled: wet grass is another line. Outside the loads tried the answer is extrapolated and says so.',
			}}
		/>
	)
}

export function AssistedTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [
		{ key: 'mss_mps', label: 'Own top speed', unit: 'm/s', hint: 'From the sprint profile or a fly.' },
		{ key: 'overspeed', label: 'Faster by', unit: '%', scale: 0.01 },
		{ key: 'segment_m', label: 'Segment', unit: 'm' },
		{ key: 'cap', label: 'Cap of the school', unit: '%', scale: 0.01 },
	]
	const empty = { values: { overspeed: '3', segment_m: '20', cap: '6' }, rows: [] }
	const { draft, change, reading } = useTool('assisted', ASSISTED_TARGET, { fields }, empty)
	const result = outputOf(reading)
	return (
		<ToolPage
			onClear={() => change(() => empty)}
			problem={reading.problems['']}
			inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={
				!result ? (
					<Waiting>Type the athlete’s own top speed and how much faster the pull should be.</Waiting>
				) : (
					<>
						<Numbers>
							<BigNumber label="Speed to aim at" value={result.speed_mps.toFixed(2)} unit="m/s" />
							<BigNumber
								label={`Time for ${draft.values.segment_m} m`}
								value={result.segment_time_s.toFixed(2)}
								unit="s"
							/>
						</Numbers>
						<p className="mt-4 border-l-[3px] border-attn py-0.5 pl-3.5 text-[14px]">
							Pulled running loads the hamstrings more than any free sprint: pain-free athletes, warm, with a free
							run-out and a release. Stop when the foot brakes in front of the body.
						</p>
						<SavePanel calculation="assisted-target" inputs={inputsOf(reading)} people={people} today={today} />
					</>
				)
			}
			about={{
				formula: 'Target = top speed × (1 + share); time = segment / target.',
				source: 'Definition; the cap is a setting of the school.',
				limits: 'Says nothing of how the speed is reached. Faster is not better: technique that breaks ends the rep.',
			}}
		/>
	)
}

export function CarriedTool({ people, today }: ToolProps) {
	const spec: FormSpec & { rows: NonNullable<FormSpec['rows']> } = {
		fields: [
			{ key: 'free_time_s', label: 'Time without load', unit: 's', optional: true, hint: 'Same distance and start.' },
		],
		rows: {
			key: 'loads',
			label: 'Loads on one limb',
			atLeast: 1,
			columns: [
				{ key: 'mass_kg', label: 'Mass', unit: 'g', scale: 0.001 },
				{ key: 'radius_m', label: 'From joint', unit: 'cm', scale: 0.01 },
				{ key: 'time_s', label: 'Time', unit: 's', optional: true },
			],
		},
	}
	const empty = { values: {}, rows: emptyRows(3) }
	const { draft, change, reading } = useTool('carried', CARRIED_LOAD, spec, empty)
	const result = outputOf(reading)
	const loads = reading.state === 'done' ? reading.input.loads : []
	const most = Math.max(0, ...(result?.by_load ?? []).map((load) => load.added_inertia_kgm2))
	return (
		<ToolPage
			onClear={() => change(() => empty)}
			problem={reading.problems['']}
			inputs={
				<>
					<ToolFields fields={spec.fields} draft={draft} problems={reading.problems} change={change} />
					<ToolRows rows={spec.rows} draft={draft} problems={reading.problems} change={change} />
				</>
			}
			results={
				!result ? (
					<Waiting>
						Type mass and distance from the joint of each load to compare: hip to thigh, knee or ankle for the leg.
					</Waiting>
				) : (
					<>
						<table className="w-full max-w-[620px] border-collapse">
							<thead>
								<tr className="dim text-left text-[13.5px]">
									{['Load', 'Adds about the joint', 'Against the most', 'Speed lost'].map((head, index) => (
										<th key={head} scope="col" className={`py-1 font-normal ${index ? 'text-right' : ''}`}>
											{head}
										</th>
									))}
								</tr>
							</thead>
							<tbody>
								{result.by_load.map((load, index) => (
									<tr key={index} className="border-t border-chalk">
										<td className="num py-2">
											{Math.round(loads[index]!.mass_kg * 1000)} g at {Math.round(loads[index]!.radius_m * 100)} cm
										</td>
										<td className="num py-2 text-right">
											<b className="text-[19px]">{load.added_inertia_kgm2.toFixed(3)}</b>{' '}
											<span className="dim">kg m²</span>
										</td>
										<td className="num text-right">
											{most > 0 ? `${Math.round((load.added_inertia_kgm2 / most) * 100)} %` : '–'}
										</td>
										<td className="num text-right">
											{load.slower_pct === null ? (
												<span className="dim">not run</span>
											) : (
												`${load.slower_pct.toFixed(1)} %`
											)}
										</td>
									</tr>
								))}
							</tbody>
						</table>
						<p className="mt-3 max-w-[620px]">
							Twice as far out is four times as hard to swing: the place decides more than the mass. A loss of speed
							within three timing errors is noise.
						</p>
						<SavePanel calculation="carried-load" inputs={inputsOf(reading)} people={people} today={today} />
					</>
				)
			}
			about={{
				formula: 'Added moment of inertia = m r² about the joint; speed lost = 1 − time without / time with.',
				source: 'Mechanics.',
				limits:
					'Without the limb’s own inertia, so it compares loads and not people. Carried load is for part of the reps only.',
			}}
		/>
	)
}
