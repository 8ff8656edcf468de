import {
	CartesianGrid,
	ReferenceArea,
	ReferenceDot,
	ReferenceLine,
	Scatter,
	ScatterChart,
	XAxis,
	YAxis,
	LabelList,
} from 'recharts'
import { AXIS, GRID, PlotFrame, axisLabel, roundTicks } from '../ui/plot-frame'

export interface ContactPoint {
	label: string
	contactMs: number
	heightCm: number
	chosen: boolean
}

/** Contact–rebound plot: shorter contacts to the left, higher rebounds up; lines of equal index fan out from the corner. */
export function ContactPlot({ points, ceilingMs }: { points: readonly ContactPoint[]; ceilingMs: number | null }) {
	const xTicks = roundTicks(0, Math.max(...points.map((point) => point.contactMs), ceilingMs ?? 0) * 1.1)
	const yTicks = roundTicks(0, Math.max(...points.map((point) => point.heightCm)) * 1.15)
	const [xEnd, yEnd] = [xTicks.at(-1)!, yTicks.at(-1)!]
	// Labels stand away from the line of the goal.
	const others = points.filter((point) => !point.chosen)
	const inside = others.filter((point) => ceilingMs !== null && point.contactMs <= ceilingMs)
	const outside = others.filter((point) => !inside.includes(point))
	// RSI in m/s is height / contact: 1 m/s is 0.1 cm per ms.
	const fan = [0.5, 1, 1.5, 2, 3, 5].map((rsi) => ({
		rsi,
		x: Math.min(xEnd, yEnd / (rsi / 10)),
		y: Math.min(yEnd, xEnd * (rsi / 10)),
	}))
	return (
		<PlotFrame
			label={`Contact against rebound: ${points.map((point) => `${point.label}: ${Math.round(point.contactMs)} ms, ${Math.round(point.heightCm)} cm`).join('; ')}.`}
		>
			<ScatterChart margin={{ top: 26, right: 44, bottom: 18, left: 6 }}>
				<CartesianGrid {...GRID} />
				{ceilingMs !== null && <ReferenceArea x1={0} x2={ceilingMs} fill="var(--color-act)" fillOpacity={0.07} />}
				<XAxis
					{...AXIS}
					type="number"
					dataKey="contactMs"
					domain={[0, xEnd]}
					ticks={xTicks}
					label={axisLabel('contact, ms', 'x')}
					height={44}
				/>
				<YAxis
					{...AXIS}
					type="number"
					dataKey="heightCm"
					domain={[0, yEnd]}
					ticks={yTicks}
					label={axisLabel('rebound, cm', 'y')}
				/>
				{fan.map(({ rsi, x, y }) => (
					<ReferenceLine
						key={rsi}
						segment={[
							{ x: 0, y: 0 },
							{ x, y },
						]}
						stroke="var(--color-chalk)"
						strokeWidth={1.5}
					/>
				))}
				{fan.map(({ rsi, x, y }) => (
					<ReferenceDot
						key={rsi}
						x={x}
						y={y}
						r={0}
						label={{
							value: `RSI ${rsi}`,
							position: x === xEnd ? 'right' : 'top',
							fill: 'var(--color-ink-2)',
							fontSize: 11.5,
						}}
					/>
				))}
				{ceilingMs !== null && (
					<ReferenceLine x={ceilingMs} stroke="var(--color-act)" strokeWidth={2} strokeDasharray="6 4" />
				)}
				{(
					[
						['left', inside],
						['right', outside],
					] as const
				).map(([side, own]) => (
					<Scatter key={side} data={own} fill="var(--color-plyometric)" shape="circle" isAnimationActive={false}>
						<LabelList dataKey="label" position={side} fill="var(--color-ink)" fontSize={13} />
					</Scatter>
				))}
				<Scatter
					data={points.filter((point) => point.chosen)}
					fill="var(--color-ink)"
					shape="diamond"
					isAnimationActive={false}
				>
					<LabelList dataKey="label" position="right" fill="var(--color-ink)" fontSize={13} fontWeight={700} />
				</Scatter>
			</ScatterChart>
		</PlotFrame>
	)
}
