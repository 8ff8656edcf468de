import { WICKETS } from '#core/calc/sprint-calculations'
import { MeasureError } from '#core/measure/measure-error'
import { splitIntoLanes } from '#core/measure/sprint/wicket-lanes'
import { wicketsToTarget } from '#core/measure/sprint/wickets'
import { type FieldSpec, readTyped } from './read-form'
import { BigNumber, Numbers, Waiting } from './result-parts'
import { SavePanel } from './save-panel'
import { ToolFields } from './tool-form'
import { ToolPage, type ToolProps, useTool } from './tool-page'

const FIELDS: FieldSpec[] = [
	{ key: 'count', label: 'Wickets', unit: '' },
	{ key: 'first_gap_m', label: 'First gap', unit: 'm' },
	{ key: 'last_gap_m', label: 'Last gap', unit: 'm' },
	{ key: 'run_in_m', label: 'Run-in', unit: 'm', optional: true },
]
const EMPTY = {
	values: { count: '10', first_gap_m: '1.90', last_gap_m: '2.30', run_in_m: '15', lanes: '3', start_share: '83' },
	rows: [],
}

/** Step at top speed in leg lengths, until the athlete's own steps were counted [common practice, no source]. */
const STEP_IN_LEGS = 2.3

interface Spacing {
	gaps_m: number[]
	positions_m: number[]
	length_m: number
	positions_from_start_m: number[] | null
}

export function WicketsTool({ people, squads, today }: ToolProps) {
	const { draft, change, reading } = useTool('wickets', WICKETS, { fields: FIELDS }, EMPTY)
	const set = (key: string, text: string) => change((now) => ({ ...now, values: { ...now.values, [key]: text } }))
	const result = reading.state === 'done' ? reading.output : null
	const squad = draft.values.squad ?? ''
	const members = people.filter((person) => person.squads.includes(squad))
	const stepOf = (id: string, legLengthM: number | null) =>
		draft.values[`step:${id}`] ?? (legLengthM === null ? '' : (legLengthM * STEP_IN_LEGS).toFixed(2))
	return (
		<ToolPage
			onClear={() => change(() => EMPTY)}
			problem={reading.problems['']}
			inputs={
				<>
					<ToolFields
						fields={squad ? FIELDS.filter((field) => !field.key.endsWith('gap_m')) : FIELDS}
						draft={draft}
						problems={reading.problems}
						change={change}
					/>
					<section className="rule pt-3">
						<h2>Lanes for a squad</h2>
						<p className="dim mt-1 text-[13.5px]">
							Each lane has one spacing; athletes are put where their step fits best.
						</p>
						<div className="mt-2 grid gap-3">
							<label className="field">
								<span className="label">Squad</span>
								<select className="input" value={squad} onChange={(event) => set('squad', event.target.value)}>
									<option value="">one list, no squad</option>
									{squads.map((name) => (
										<option key={name}>{name}</option>
									))}
								</select>
							</label>
							{squad && (
								<ToolFields
									fields={[
										{ key: 'lanes', label: 'Lanes', unit: '' },
										{ key: 'start_share', label: 'First gap', unit: '% of the last' },
									]}
									draft={draft}
									problems={{}}
									change={change}
								/>
							)}
						</div>
						{members.length > 0 && (
							<table className="mt-3 w-full">
								<thead>
									<tr className="dim text-left text-[13px]">
										<th scope="col" className="font-normal">
											Athlete
										</th>
										<th scope="col" className="font-normal">
											Step at the end, m
										</th>
									</tr>
								</thead>
								<tbody>
									{members.map((person) => (
										<tr key={person.id} className="border-t border-chalk">
											<td className="py-1 pr-2">{person.name}</td>
											<td className="w-[110px] py-1">
												<input
													className="input num"
													inputMode="decimal"
													aria-label={`Step of ${person.name}, m`}
													value={stepOf(person.id, person.legLengthM)}
													onChange={(event) => set(`step:${person.id}`, event.target.value)}
												/>
											</td>
										</tr>
									))}
								</tbody>
							</table>
						)}
						{members.length > 0 && (
							<p className="dim mt-1 text-[13.5px]">
								Filled in as {STEP_IN_LEGS} leg lengths (common practice) until you type a counted step.
							</p>
						)}
					</section>
				</>
			}
			results={
				!result ? (
					<Waiting>Type how many wickets, and the first and the last gap.</Waiting>
				) : (
					<>
						{members.length === 0 ? (
							<>
								<Numbers>
									<BigNumber label="First to last wicket" value={result.length_m.toFixed(2)} unit="m" />
									{result.positions_from_start_m && (
										<BigNumber
											label="Start to last wicket"
											value={result.positions_from_start_m.at(-1)!.toFixed(2)}
											unit="m"
										/>
									)}
									<BigNumber
										label="Each gap longer by"
										value={result.gaps_m.length > 1 ? ((result.gaps_m[1]! - result.gaps_m[0]!) * 100).toFixed(1) : '0'}
										unit="cm"
									/>
								</Numbers>
								<SpacingList
									title={`${result.positions_m.length} wickets, ${result.gaps_m[0]!.toFixed(2)} to ${result.gaps_m.at(-1)!.toFixed(2)} m`}
									spacing={result}
								/>
							</>
						) : (
							<Lanes
								members={members.map((person) => ({
									name: person.name,
									step: readTyped(stepOf(person.id, person.legLengthM)),
								}))}
								values={draft.values}
							/>
						)}
						<p className="mt-5 print:hidden">
							<button type="button" className="btn btn-quiet" onClick={() => window.print()}>
								Print the list
							</button>
						</p>
						{members.length === 0 && reading.state === 'done' && (
							<div className="print:hidden">
								<SavePanel calculation="wickets" inputs={[reading.input]} people={people} today={today} />
							</div>
						)}
					</>
				)
			}
			about={{
				formula:
					'Gaps grow evenly from the first to the last; positions are their sums. Lanes: the split of the squad with the least sum of squared differences between step and spacing, exact by dynamic programming.',
				source: 'Arithmetic; the usual gaps are common practice.',
				limits:
					'Spacing follows the step an athlete has, a little beyond it at most. A gap somebody has to reach for teaches braking.',
			}}
		/>
	)
}

function SpacingList({ title, spacing, names }: { title: string; spacing: Spacing; names?: readonly string[] }) {
	return (
		<section className="mt-6 break-inside-avoid">
			<h2>{title}</h2>
			{names && <p className="mt-0.5">{names.join(', ')}</p>}
			<table className="mt-2 w-full max-w-[440px] border-collapse">
				<thead>
					<tr className="dim text-left text-[13.5px]">
						<th scope="col" className="py-1 font-normal">
							Wicket
						</th>
						<th scope="col" className="py-1 text-right font-normal">
							Gap, m
						</th>
						<th scope="col" className="py-1 text-right font-normal">
							From the first, m
						</th>
						{spacing.positions_from_start_m && (
							<th scope="col" className="py-1 text-right font-normal">
								From the start, m
							</th>
						)}
					</tr>
				</thead>
				<tbody>
					{spacing.positions_m.map((position, index) => (
						<tr key={index} className="border-t border-chalk">
							<td className="num py-1">{index + 1}</td>
							<td className="num py-1 text-right">{index === 0 ? '' : spacing.gaps_m[index - 1]!.toFixed(2)}</td>
							<td className="num py-1 text-right font-semibold">{position.toFixed(2)}</td>
							{spacing.positions_from_start_m && (
								<td className="num py-1 text-right">{spacing.positions_from_start_m[index]!.toFixed(2)}</td>
							)}
						</tr>
					))}
				</tbody>
			</table>
		</section>
	)
}

function Lanes({
	members,
	values,
}: {
	members: readonly { name: string; step: number | null }[]
	values: Record<string, string>
}) {
	const ready = members.flatMap(({ name, step }) => (step !== null && Number.isFinite(step) ? [{ name, step }] : []))
	const without = members.filter((member) => !ready.some((one) => one.name === member.name))
	const [count, lanes, share, runIn] = ['count', 'lanes', 'start_share', 'run_in_m'].map((key) =>
		readTyped(values[key]),
	)
	try {
		const split = splitIntoLanes(
			ready.map((one) => one.step),
			Math.min(lanes ?? 1, Math.max(ready.length, 1)),
		)
		const worst = Math.max(
			...split.lanes.flatMap((lane) => lane.members.map((member) => Math.abs(ready[member]!.step - lane.spacingM))),
		)
		return (
			<>
				<p className="text-[17px]">
					<b>
						{split.lanes.length} {split.lanes.length === 1 ? 'lane' : 'lanes'} for {ready.length} athletes; nobody is
						more than {Math.round(worst * 100)} cm off their step.
					</b>
				</p>
				{without.length > 0 && (
					<p className="mt-1">Without a step: {without.map((member) => member.name).join(', ')}.</p>
				)}
				<div className="grid gap-x-8 xl:grid-cols-2 print:grid-cols-2">
					{split.lanes.map((lane, index) => {
						const spacing = wicketsToTarget(count ?? 10, lane.spacingM, (share ?? 100) / 100, runIn ?? undefined)
						return (
							<SpacingList
								key={index}
								title={`Lane ${index + 1}: ${lane.spacingM.toFixed(2)} m at the end`}
								names={lane.members.map((member) => ready[member]!.name)}
								spacing={{
									gaps_m: spacing.gapsM,
									positions_m: spacing.positionsM,
									length_m: spacing.lengthM,
									positions_from_start_m: spacing.positionsFromStartM,
								}}
							/>
						)
					})}
				</div>
			</>
		)
	} catch (problem) {
		if (!(problem instanceof MeasureError)) throw problem
		return (
			<p className="problem" role="alert">
				{problem.field === 'lanes'
					? 'Lanes'
					: problem.field.startsWith('stepLengthsM')
						? 'A step'
						: problem.field === 'startShare'
							? 'The first gap'
							: 'Wickets'}
				: expected {problem.expected}.
			</p>
		)
	}
}
