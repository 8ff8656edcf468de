import { CartesianGrid, ReferenceDot, ReferenceLine, Scatter, ScatterChart, XAxis, YAxis } from 'recharts'
import { AXIS, GRID, PlotFrame, axisLabel, roundTicks } from '../ui/plot-frame'

interface Props {
	runs: readonly { loadKg: number; velocityMps: number }[]
	freeMps: number
	slope: number
	targetKg: number
}

/** Speed against load: the runs, the athlete's own line, the load asked for. */
export function LoadPlot({ runs, freeMps, slope, targetKg }: Props) {
	const xTicks = roundTicks(0, Math.max(targetKg, ...runs.map((run) => run.loadKg)) * 1.08)
	const yTicks = roundTicks(0, Math.max(freeMps, ...runs.map((run) => run.velocityMps)) * 1.02)
	const xEnd = Math.min(xTicks.at(-1)!, -freeMps / slope)
	return (
		<PlotFrame
			label={`Speed against load: ${runs.map((run) => `${run.loadKg} kg ${run.velocityMps} m/s`).join(', ')}; the load asked for is ${targetKg.toFixed(1)} kg.`}
		>
			<ScatterChart margin={{ top: 26, right: 40, bottom: 18, left: -8 }}>
				<CartesianGrid {...GRID} />
				<XAxis
					{...AXIS}
					type="number"
					dataKey="loadKg"
					domain={[0, xTicks.at(-1)!]}
					ticks={xTicks}
					label={axisLabel('load, kg', 'x')}
					height={44}
				/>
				<YAxis
					{...AXIS}
					type="number"
					dataKey="velocityMps"
					domain={[0, yTicks.at(-1)!]}
					ticks={yTicks}
					label={axisLabel('m/s', 'y')}
				/>
				<ReferenceLine
					segment={[
						{ x: 0, y: freeMps },
						{ x: xEnd, y: freeMps + slope * xEnd },
					]}
					stroke="var(--color-sprint)"
					strokeWidth={2}
				/>
				<ReferenceLine
					segment={[
						{ x: targetKg, y: 0 },
						{ x: targetKg, y: freeMps + slope * targetKg },
					]}
					stroke="var(--color-act)"
					strokeDasharray="6 4"
					strokeWidth={2}
				/>
				<Scatter data={[...runs]} fill="var(--color-ink)" isAnimationActive={false} />
				<ReferenceDot x={targetKg} y={freeMps + slope * targetKg} r={7} fill="var(--color-act)" stroke="none" />
			</ScatterChart>
		</PlotFrame>
	)
}
