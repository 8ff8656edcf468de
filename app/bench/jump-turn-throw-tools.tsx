import { TAKEOFF_PLANTS } from '#core/calc/jump-calculations'
import { BRAKING, COD, CURVE, REACTIVE_COST, THROW } from '#core/calc/other-calculations'
import { PLANTS, type Plant } from '#core/measure/jump/plants'
import { type FieldSpec, readForm, readTyped } from './read-form'
import { EMPTY_DRAFT, inputsOf, outputOf } from './reading-parts'
import { BigNumber, Numbers, Waiting, Warnings } from './result-parts'
import { SavePanel } from './save-panel'
import { ToolFields } from './tool-form'
import { ToolPage, type ToolProps, useTool } from './tool-page'

const PLANT_NAMES: Record<Plant, string> = {
	'both-standing': 'both feet, standing',
	'both-run-in': 'both feet, run-in',
	left: 'left',
	right: 'right',
}

export function PlantsTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = PLANTS.map((plant) => ({
		key: `heights_m.${plant.replaceAll('-', '_')}`,
		label: `Height, ${PLANT_NAMES[plant]}`,
		unit: 'cm',
		scale: 0.01,
		optional: true,
	}))
	const { draft, change, reading } = useTool(
		'plants',
		TAKEOFF_PLANTS,
		{ fields, fixed: { heights_m: {} } },
		EMPTY_DRAFT,
	)
	const typed = fields.filter((field) => typeof readTyped(draft.values[field.key]) === 'number').length
	const result = typed >= 2 ? outputOf(reading) : null
	return (
		<ToolPage
			onClear={() => change(() => EMPTY_DRAFT)}
			problem={typed >= 2 ? reading.problems[''] : undefined}
			inputs={
				<ToolFields fields={fields} draft={draft} problems={typed >= 2 ? reading.problems : {}} change={change} />
			}
			results={
				!result ? (
					<Waiting>Type the best height of at least two take-offs.</Waiting>
				) : (
					<>
						<p className="text-[17px]">
							<b>
								{result.lagging
									? `${cap(PLANT_NAMES[result.lagging])} lags.`
									: 'No take-off lags by more than the error.'}
							</b>
						</p>
						<ul className="mt-4 max-w-[560px]">
							{result.readings.map((one) => (
								<li key={one.plant} className="rule grid grid-cols-[150px_1fr_64px] items-center gap-3 py-2">
									<span>{cap(PLANT_NAMES[one.plant])}</span>
									<span className="h-[10px] bg-chalk">
										<span
											className="block h-full"
											style={{
												width: `${one.share * 100}%`,
												background: one.plant === result.lagging ? 'var(--color-ink)' : 'var(--color-plyometric)',
											}}
										/>
									</span>
									<span className="num text-right">
										<b className="text-[18px]">{Math.round(one.height_m * 100)}</b> <span className="dim">cm</span>
										<span className="dim block text-[13px]">{Math.round(one.share * 100)} %</span>
									</span>
								</li>
							))}
						</ul>
						<SavePanel calculation="plants" inputs={inputsOf(reading)} people={people} today={today} />
					</>
				)
			}
			about={{
				formula:
					'Each height as a share of the best; lagging when more than twice the method’s relative error (3 %) below.',
				source: 'House rule.',
				limits:
					'Best heights, so one lucky jump counts. Left against right means something only when the same side lags over repeated tests.',
			}}
		/>
	)
}
const cap = (text: string) => text.charAt(0).toUpperCase() + text.slice(1)

export function TurnTool({ people, today }: ToolProps) {
	const sides: FieldSpec[] = [
		{ key: 'left.time_505_s', label: '505, turning left', unit: 's' },
		{ key: 'right.time_505_s', label: '505, turning right', unit: 's' },
		{ key: 'left.time_10_s', label: '10 m straight', unit: 's' },
	]
	const braking: FieldSpec[] = [
		{ key: 'speed_mps', label: 'Speed before braking', unit: 'm/s' },
		{ key: 'distance_m', label: 'Distance to the stop', unit: 'm' },
	]
	const reactive: FieldSpec[] = [
		{ key: 'planned_s', label: 'Path, planned', unit: 's' },
		{ key: 'reactive_s', label: 'Same path, reactive', unit: 's' },
	]
	// The straight run has no side: one time serves both.
	const { draft, change, reading } = useTool(
		'turn',
		COD,
		({ values }) => {
			const straight = readTyped(values['left.time_10_s'])
			return {
				fields: sides,
				fixed: typeof straight === 'number' && !Number.isNaN(straight) ? { right: { time_10_s: straight } } : {},
			}
		},
		EMPTY_DRAFT,
	)
	const result = outputOf(reading)
	const stop = readForm({ fields: braking }, draft, BRAKING)
	const deciding = readForm({ fields: reactive }, draft, REACTIVE_COST)
	return (
		<ToolPage
			onClear={() => change(() => EMPTY_DRAFT)}
			problem={reading.problems['']}
			inputs={
				<>
					<ToolFields fields={sides} draft={draft} problems={reading.problems} change={change} />
					<details className="rule pt-1">
						<summary className="link inline-flex min-h-[44px] items-center">Braking and reacting</summary>
						<div className="grid gap-3">
							<ToolFields
								fields={[...braking, ...reactive]}
								draft={draft}
								problems={{ ...stop.problems, ...deciding.problems }}
								change={change}
							/>
						</div>
					</details>
				</>
			}
			results={
				<>
					{!result ? (
						<Waiting>Type both 505 times and a straight 10 m from the same timing set-up.</Waiting>
					) : (
						<>
							<Numbers>
								{(
									[
										['A turn left costs', result.left_deficit_s],
										['A turn right costs', result.right_deficit_s],
									] as const
								).map(
									([label, costs]) =>
										costs !== null && <BigNumber key={label} label={label} value={costs.toFixed(2)} unit="s" />,
								)}
								<BigNumber
									label="Gap"
									value={result.asymmetry_pct === null ? '–' : result.asymmetry_pct.toFixed(0)}
									unit={result.quicker ? `%, ${result.quicker} quicker` : '%'}
								/>
							</Numbers>
							<Warnings warnings={result.warnings} />
							<p className="mt-4 max-w-[620px]">
								A gap counts when it is larger than the test’s own error and on the same side over repeated days; one
								day shows a number, not an asymmetry.
							</p>
						</>
					)}
					{(stop.state === 'done' || deciding.state === 'done') && (
						<div className="rule mt-6 pt-4">
							<Numbers>
								{stop.state === 'done' && (
									<BigNumber label="Mean braking" value={stop.output.deceleration_mps2.toFixed(1)} unit="m/s²" />
								)}
								{deciding.state === 'done' && (
									<BigNumber label="Reading and deciding costs" value={deciding.output.cost_s.toFixed(2)} unit="s" />
								)}
							</Numbers>
						</div>
					)}
					{result && <SavePanel calculation="cod" inputs={inputsOf(reading)} people={people} today={today} />}
				</>
			}
			about={{
				formula:
					'Deficit = 505 time − 10 m time; braking = v²/(2d); reactive cost = reactive − planned time over the same path.',
				source: 'Nimphius et al. 2016; Exell et al. 2012 and Bishop et al. 2021 for what counts as a gap.',
				limits:
					'Both times from one set-up. The deficit carries the error of two times: by gates about 0.03 s, by stopwatch 0.14 s.',
			}}
		/>
	)
}
export function CurveTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [
		{ key: 'radius_m', label: 'Radius', unit: 'm' },
		{ key: 'speed_mps', label: 'Speed', unit: 'm/s' },
	]
	const { draft, change, reading } = useTool('curve', CURVE, { fields }, EMPTY_DRAFT)
	const result = outputOf(reading)
	const lean = result ? (result.lean_deg * Math.PI) / 180 : 0
	return (
		<ToolPage
			onClear={() => change(() => EMPTY_DRAFT)}
			problem={reading.problems['']}
			inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={
				!result ? (
					<Waiting>Type the radius of the curve and the speed in it.</Waiting>
				) : (
					<>
						<Numbers>
							<BigNumber label="Lean from the vertical" value={result.lean_deg.toFixed(0)} unit="°" />
							<BigNumber label="Sideways pull" value={result.centripetal_mps2.toFixed(1)} unit="m/s²" />
							<BigNumber label="of standing weight" value={(result.centripetal_mps2 / 9.80665).toFixed(2)} unit="×" />
						</Numbers>
						<svg
							className="glyph mt-5"
							viewBox="0 0 200 120"
							width="300"
							role="img"
							aria-label={`A runner leaning ${result.lean_deg.toFixed(0)} degrees`}
						>
							<path d="M20 110H180" stroke="var(--color-ink-2)" />
							<path d="M100 110V20" stroke="var(--color-chalk)" strokeDasharray="4 4" />
							<path
								d={`M100 110L${100 - 88 * Math.sin(lean)} ${110 - 88 * Math.cos(lean)}`}
								stroke="var(--color-agility)"
								strokeWidth="4"
							/>
						</svg>
						<SavePanel calculation="curve" inputs={inputsOf(reading)} people={people} today={today} />
					</>
				)
			}
			about={{
				formula: 'Sideways pull = v²/r; lean = atan(v²/(r g)).',
				source: 'Mechanics; g = 9.80665 m/s² (3rd CGPM 1901).',
				limits:
					'The lean of the line from foot to centre of mass, at an even speed; what the ground holds is another matter, and wet grass holds less.',
			}}
		/>
	)
}

export function ThrowTool({ people, today }: ToolProps) {
	const fields: FieldSpec[] = [
		{ key: 'distance_m', label: 'Distance', unit: 'm' },
		{ key: 'release_height_m', label: 'Release height', unit: 'm' },
		{
			key: 'release_angle_deg',
			label: 'Release angle',
			unit: '°',
			hint: 'Off film from the side; 35 to 42° is usual.',
		},
		{ key: 'mass_kg', label: 'Ball', unit: 'kg', optional: true },
	]
	const empty = { values: { release_height_m: '1.9', release_angle_deg: '38' }, rows: [] }
	const { draft, change, reading } = useTool('throw', THROW, { fields }, empty)
	const result = outputOf(reading)
	const distance = reading.state === 'done' ? reading.input.distance_m : 0
	return (
		<ToolPage
			onClear={() => change(() => empty)}
			problem={reading.problems['']}
			inputs={<ToolFields fields={fields} draft={draft} problems={reading.problems} change={change} />}
			results={
				!result ? (
					<Waiting>Type the distance of a medicine-ball throw. A disc flies on the air: log its distance only.</Waiting>
				) : (
					<>
						<Numbers>
							<BigNumber label="Release speed" value={result.release_speed_mps.toFixed(1)} unit="m/s" />
							{result.kinetic_energy_j !== null && (
								<BigNumber label="Energy of the ball" value={result.kinetic_energy_j.toFixed(0)} unit="J" />
							)}
							<BigNumber label="Best angle at this speed" value={result.best_angle_deg.toFixed(0)} unit="°" />
							<BigNumber label="would carry" value={result.best_distance_m.toFixed(1)} unit="m" />
						</Numbers>
						<p className="mt-4 max-w-[620px]">
							{result.best_distance_m - distance < 0.1
								? 'The angle costs nothing.'
								: `The angle costs ${(result.best_distance_m - distance).toFixed(1)} m at the same speed. An athlete throws faster at some angles than at others, so try before changing it.`}
						</p>
						<SavePanel calculation="throw" inputs={inputsOf(reading)} people={people} today={today} />
					</>
				)
			}
			about={{
				formula: 'v = √(g d² / (2 cos²θ (d tanθ + h))); best angle: tanθ = v / √(v² + 2 g h); energy = ½ m v².',
				source: 'Ballistics without air.',
				limits:
					'Fair for a medicine ball over a few metres. A release angle 5° off changes the speed by a few percent.',
			}}
		/>
	)
}
