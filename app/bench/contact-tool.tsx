import { DROP_JUMP_SERIES } from '#core/calc/jump-calculations'
import { ContactPlot } from './contact-plot'
import type { FormSpec } from './read-form'
import { BigNumber, Numbers, Waiting, Warnings } from './result-parts'
import { SavePanel } from './save-panel'
import { ToolFields, ToolRows } from './tool-form'
import { ToolPage, type ToolProps, emptyRows, useTool } from './tool-page'

const SPEC: FormSpec & { rows: NonNullable<FormSpec['rows']> } = {
	fields: [
		{
			key: 'contact_ceiling_s',
			label: 'Contact goal, at most',
			unit: 'ms',
			scale: 0.001,
			hint: 'Sprint-relevant: 100 to 150 ms (common practice).',
		},
	],
	rows: {
		key: 'jumps',
		label: 'Jumps, one a row',
		atLeast: 1,
		columns: [
			{ key: 'box_m', label: 'Box', unit: 'cm', scale: 0.01 },
			{ key: 'contact_time_s', label: 'Contact', unit: 'ms', scale: 0.001 },
			{ key: 'flight_time_s', label: 'Flight', unit: 'ms', scale: 0.001 },
		],
	},
}
const EMPTY = { values: { contact_ceiling_s: '150' }, rows: emptyRows(6) }

export function ContactTool({ people, today }: ToolProps) {
	const { draft, change, reading } = useTool('contact', DROP_JUMP_SERIES, SPEC, EMPTY)
	const result = reading.state === 'done' ? reading.output : null
	const best = result?.by_box.find((box) => box.box_m === result.best_box_m)
	return (
		<ToolPage
			onClear={() => change(() => EMPTY)}
			problem={reading.problems['']}
			inputs={
				<>
					<ToolFields fields={SPEC.fields} draft={draft} problems={reading.problems} change={change} />
					<ToolRows rows={SPEC.rows} draft={draft} problems={reading.problems} change={change} />
				</>
			}
			results={
				!result || reading.state !== 'done' ? (
					<Waiting>
						Type contact and flight of each jump from each box, from a mat or from the film stepper. Box 0 is a hop from
						the ground.
					</Waiting>
				) : (
					<>
						<Numbers>
							<BigNumber
								label="Best box"
								value={best ? String(Math.round(best.box_m * 100)) : 'none'}
								unit={best ? 'cm' : ''}
							/>
							{best && (
								<>
									<BigNumber label="its contact" value={(best.contact_time_s * 1000).toFixed(0)} unit="ms" />
									<BigNumber label="its index, RSI" value={best.rsi_mps.toFixed(2)} unit="m/s" />
									<BigNumber label="its rebound" value={(best.height_m * 100).toFixed(0)} unit="cm" />
								</>
							)}
						</Numbers>
						<Warnings warnings={result.warnings} />
						<ContactPlot
							points={result.by_box.map((box) => ({
								label: `${Math.round(box.box_m * 100)} cm`,
								contactMs: box.contact_time_s * 1000,
								heightCm: box.height_m * 100,
								chosen: box === best,
							}))}
							ceilingMs={reading.input.contact_ceiling_s * 1000}
						/>
						<table className="mt-4 w-full max-w-[600px] border-collapse">
							<thead>
								<tr className="dim text-left text-[13.5px]">
									{['Box', 'Jumps', 'Contact, ms', 'Rebound, cm', 'RSI, m/s', ''].map((head, index) => (
										<th key={head} scope="col" className={`py-1 font-normal ${index ? 'text-right' : ''}`}>
											{head || <span className="sr-only">Goal</span>}
										</th>
									))}
								</tr>
							</thead>
							<tbody>
								{result.by_box.map((box) => (
									<tr key={box.box_m} className={`border-t border-chalk ${box === best ? 'font-bold' : ''}`}>
										<td className="num py-1.5">{Math.round(box.box_m * 100)} cm</td>
										<td className="num text-right">{box.jumps}</td>
										<td className="num text-right">{(box.contact_time_s * 1000).toFixed(0)}</td>
										<td className="num text-right">{(box.height_m * 100).toFixed(0)}</td>
										<td className="num text-right">{box.rsi_mps.toFixed(2)}</td>
										<td className="dim pl-4 text-right text-[14px]">
											{box === best ? 'best' : box.within_ceiling ? 'within the goal' : 'too long'}
										</td>
									</tr>
								))}
							</tbody>
						</table>
						<p className="mt-4 border-l-[3px] border-attn py-0.5 pl-3.5 text-[14px]">
							Depth jumps are for trained, pain-free adults on a box they land from quietly. A higher box with a longer
							contact trains something else.
						</p>
						<SavePanel calculation="drop-jump-series" inputs={[reading.input]} people={people} today={today} />
					</>
				)
			}
			about={{
				formula:
					'Rebound = g t²/8 from flight time; RSI = rebound / contact; best box = highest RSI among boxes within the contact goal, the lower of two equal ones.',
				source:
					'Flight time: Bosco, Luhtanen & Komi 1983. Fast contacts under 250 ms: Schmidtbleicher 1992. The sprint goal is common practice.',
				limits:
					'Height from flight assumes the same posture at take-off and landing; a landing with bent knees reads too high. Contacts off a 60 frames-a-second film are too coarse to compare boxes.',
			}}
		/>
	)
}
