import { SPRINT_PROFILE } from '#core/calc/sprint-calculations'
import { MeasureError } from '#core/measure/measure-error'
import type { StartCorrection } from '#core/measure/sprint/fit-profile'
import { forceVelocity } from '#core/measure/sprint/force-velocity'
import { weakPartInWords, whereTimeGoes } from '#core/measure/sprint/where-time-goes'
import { type FormSpec, readTyped } from './read-form'
import { BigNumber, Numbers, Waiting, Warnings } from './result-parts'
import { SavePanel } from './save-panel'
import { SpeedPlot } from './speed-plot'
import { ToolFields, ToolRows } from './tool-form'
import { ChoiceField, ToolPage, type ToolProps, emptyRows, useTool } from './tool-page'

/** Error of one split time by the way it was taken, s [our setting, from memory of the trade]. */
const SPLIT_ERROR: Record<string, number> = { gate: 0.01, film: 0.01, phone: 0.04, stopwatch: 0.1 }
const METHODS = [
	['gate', 'gates'],
	['film', 'film'],
	['phone', 'phone timer'],
	['stopwatch', 'stopwatch'],
] as const
const CORRECTIONS: readonly (readonly [StartCorrection, string])[] = [
	['none', 'at the first beam, from a standstill'],
	['time', 'on a signal or by hand: a time is added'],
	['start-distance', 'behind the first beam'],
]
const ROWS: NonNullable<FormSpec['rows']> = {
	key: 'splits',
	label: 'Splits, cumulative',
	atLeast: 2,
	columns: [
		{ key: 'distance_m', label: 'Distance', unit: 'm' },
		{ key: 'time_s', label: 'Time', unit: 's' },
	],
}
const START_DISTANCE = {
	key: 'start_distance_m',
	label: 'Start to first beam, measured',
	unit: 'm',
	optional: true,
	hint: 'Measured is far better than estimated.',
}
const BODY = [
	{ key: 'mass_kg', label: 'Body mass', unit: 'kg', optional: true },
	{ key: 'height_m', label: 'Height', unit: 'cm', scale: 0.01, optional: true },
	{ key: 'temperature_c', label: 'Air temperature', unit: '°C', optional: true },
	{ key: 'wind_mps', label: 'Wind, tail positive', unit: 'm/s', optional: true },
]
const EMPTY = { values: { method: 'gate', correction: 'none' }, rows: emptyRows(5) }

const signed = (value: number) => {
	const size = Math.abs(value).toFixed(2)
	return Number(size) === 0 ? size : `${value < 0 ? '−' : '+'}${size}`
}
const error = (value: number | null | undefined, digits: number) =>
	value === null || value === undefined ? null : value.toFixed(digits)

export function SprintProfileTool({ people, today }: ToolProps) {
	const { draft, change, reading } = useTool(
		'sprint-profile',
		SPRINT_PROFILE,
		({ values }) => ({
			fields: values.correction === 'start-distance' ? [START_DISTANCE] : [],
			rows: ROWS,
			fixed: { correction: values.correction ?? 'none' },
		}),
		EMPTY,
	)
	const method = draft.values.method ?? 'gate'
	return (
		<ToolPage
			onClear={() => change(() => EMPTY)}
			problem={reading.problems['']}
			inputs={
				<>
					<ChoiceField label="Taken with" name="method" choices={METHODS} draft={draft} change={change} />
					<ToolRows rows={ROWS} draft={draft} problems={reading.problems} change={change} />
					<ChoiceField
						label="The clock started"
						name="correction"
						choices={CORRECTIONS}
						draft={draft}
						change={change}
					/>
					{draft.values.correction === 'start-distance' && (
						<ToolFields fields={[START_DISTANCE]} draft={draft} problems={reading.problems} change={change} />
					)}
					<details className="rule pt-1" open={Boolean(draft.values.mass_kg)}>
						<summary className="link inline-flex min-h-[44px] items-center">Force and power too</summary>
						<div className="grid grid-cols-2 gap-3">
							<ToolFields fields={BODY} draft={draft} problems={{}} change={change} />
						</div>
					</details>
				</>
			}
			results={
				reading.state === 'incomplete' ? (
					<Waiting>
						Type or paste at least two splits, such as 10 m and 30 m; five, from 5 m to 40 m, tell far more. A column
						copied from a sheet can be pasted into the first box.
					</Waiting>
				) : (
					<>
						<Profile input={reading.input} output={reading.output} values={draft.values} method={method} />
						<SavePanel
							calculation="sprint-profile"
							inputs={[reading.input]}
							people={people}
							today={today}
							method={method}
						/>
					</>
				)
			}
			about={{
				formula:
					'v(t) = MSS (1 − e^(−t/TAU)), fitted by least squares on the times; MAC = MSS/TAU; peak power = MSS·MAC/4. Force adds body mass and air resistance.',
				source: 'Furusawa, Hill & Parkinson 1927; Samozino et al. 2016; air resistance after Arsac & Locatelli 2002.',
				limits:
					'One straight sprint from a standstill, up to top speed and not beyond. Two splits give no error. A late start that is not corrected makes the acceleration look weak. One run says little about a change: compare with the error.',
			}}
		/>
	)
}

function Profile({
	input,
	output: fitted,
	values,
	method,
}: {
	input: Parameters<typeof SPRINT_PROFILE.compute>[0]
	output: ReturnType<typeof SPRINT_PROFILE.compute>
	values: Record<string, string>
	method: string
}) {
	const splits = input.splits.map((split) => ({ distanceM: split.distance_m, timeS: split.time_s }))
	const splitError = SPLIT_ERROR[method] ?? 0.04
	const readings = whereTimeGoes(splits, { fittedS: fitted.fitted_s }, splitError)
	return (
		<>
			<Numbers>
				<BigNumber
					label="Top speed, MSS"
					value={fitted.mss_mps.toFixed(2)}
					unit="m/s"
					error={error(fitted.se.mss_mps, 2)}
				/>
				<BigNumber
					label="Acceleration, MAC"
					value={fitted.mac_mps2.toFixed(2)}
					unit="m/s²"
					error={error(fitted.se.mac_mps2, 2)}
				/>
				<BigNumber
					label="Time constant, TAU"
					value={fitted.tau_s.toFixed(2)}
					unit="s"
					error={error(fitted.se.tau_s, 2)}
				/>
				<BigNumber label="Peak power" value={fitted.pmax_wkg.toFixed(1)} unit="W/kg" />
				{fitted.correction_s !== null && (
					<BigNumber
						label="Added before the sprint"
						value={fitted.correction_s.toFixed(2)}
						unit="s"
						error={error(fitted.se.correction_s, 2)}
					/>
				)}
				{fitted.start_distance_m !== null && (
					<BigNumber
						label={
							input.start_distance_m === undefined
								? 'Start behind the beam, estimated'
								: 'Start behind the beam, measured'
						}
						value={fitted.start_distance_m.toFixed(2)}
						unit="m"
						{...(input.start_distance_m === undefined ? { error: error(fitted.se.start_distance_m, 2) } : {})}
					/>
				)}
			</Numbers>
			<p className="mt-5 text-[17px]">
				<b>{weakPartInWords(readings)}</b>
			</p>
			<Warnings warnings={fitted.warnings} />
			<SpeedPlot
				mssMps={fitted.mss_mps}
				tauS={fitted.tau_s}
				startM={fitted.start_distance_m ?? 0}
				segments={readings}
			/>
			<table className="mt-4 w-full max-w-[560px] border-collapse">
				<thead>
					<tr className="dim text-left text-[13.5px]">
						<th scope="col" className="py-1 font-normal">
							Segment
						</th>
						<th scope="col" className="py-1 text-right font-normal">
							Time, s
						</th>
						<th scope="col" className="py-1 text-right font-normal">
							Speed, m/s
						</th>
						<th scope="col" className="py-1 text-right font-normal">
							Off own curve, s
						</th>
					</tr>
				</thead>
				<tbody>
					{readings.map((segment) => (
						<tr key={segment.fromM} className={`border-t border-chalk ${segment.weak ? 'font-bold' : ''}`}>
							<td className="py-1.5">
								{segment.fromM}–{segment.toM} m
							</td>
							<td className="num py-1.5 text-right">{segment.timeS.toFixed(2)}</td>
							<td className="num py-1.5 text-right">{segment.speedMps.toFixed(2)}</td>
							<td className="num py-1.5 text-right">{signed(segment.offCurveS)}</td>
						</tr>
					))}
				</tbody>
			</table>
			<p className="dim mt-1.5 text-[13.5px]">
				Taken with an error of {splitError.toFixed(2)} s a split, {(2 * Math.SQRT2 * splitError).toFixed(2)} s off the
				curve is what a segment needs to count as weak.
				{fitted.residual_sd_s !== null &&
					` The splits lie ${fitted.residual_sd_s.toFixed(3)} s off the curve. Above, ± is one standard error.`}
			</p>
			<details className="rule mt-4">
				<summary className="link inline-flex min-h-[44px] items-center">
					What the numbers mean, and what they do not
				</summary>
				<ul className="grid max-w-[620px] gap-1.5 pb-3">
					<li>
						<b>Top speed</b> is where the curve would level off. It is measured only as far as the last split comes near
						it.
					</li>
					<li>
						<b>Acceleration</b> is the push at the very first instant, before any step: an extrapolation that a late
						start or a rocking one distorts first.
					</li>
					<li>
						<b>The time constant</b> says how long the athlete goes on gaining: after it 63 % of top speed is reached. A
						longer one is not worse by itself; it goes with a higher top speed.
					</li>
					<li>
						<b>Peak power</b> is per kilogram of body and without air; it ranks days of one athlete, not athletes
						against each other.
					</li>
					<li>A change counts when it is larger than about three errors, on the same surface, start and timing.</li>
				</ul>
			</details>
			<Force mss={fitted.mss_mps} tau={fitted.tau_s} values={values} />
		</>
	)
}

function Force({ mss, tau, values }: { mss: number; tau: number; values: Record<string, string> }) {
	const [massKg, heightCm, temperatureC, windMps] = ['mass_kg', 'height_m', 'temperature_c', 'wind_mps'].map((key) =>
		readTyped(values[key]),
	)
	if (massKg === null || massKg === undefined || heightCm === null || heightCm === undefined) return null
	try {
		const force = forceVelocity({
			mssMps: mss,
			tauS: tau,
			massKg,
			heightM: heightCm / 100,
			...(typeof temperatureC === 'number' ? { temperatureC } : {}),
			...(typeof windMps === 'number' ? { windMps } : {}),
		})
		return (
			<section className="rule mt-6 pt-4">
				<h2>Force and velocity</h2>
				<div className="mt-3">
					<Numbers>
						<BigNumber label="Force at no speed, F0" value={force.f0Nkg.toFixed(2)} unit="N/kg" />
						<BigNumber label="Speed at no force, V0" value={force.v0Mps.toFixed(2)} unit="m/s" />
						<BigNumber label="Peak power" value={force.pmaxWkg.toFixed(1)} unit="W/kg" />
						<BigNumber label="Most force forwards" value={force.rfmaxPct.toFixed(0)} unit="%" />
						<BigNumber label="Its loss with speed" value={force.drfPct.toFixed(1)} unit="% per m/s" />
					</Numbers>
				</div>
				<p className="dim mt-3 text-[14px]">
					A low F0 speaks for the first steps and strength, a low V0 for top speed and stiffness; which to train is the
					coach’s call and needs more than one day.
				</p>
			</section>
		)
	} catch (problem) {
		if (!(problem instanceof MeasureError)) throw problem
		return (
			<p className="problem mt-5" role="alert">
				Force needs{' '}
				{problem.field === 'massKg'
					? 'a body mass'
					: problem.field === 'heightM'
						? 'a height in cm'
						: problem.field === 'windMps'
							? 'a wind'
							: problem.field === 'temperatureC'
								? 'a temperature'
								: 'a curve'}{' '}
				that is {problem.expected}.
			</p>
		)
	}
}
