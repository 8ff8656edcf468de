import { CartesianGrid, Line, LineChart, ReferenceDot, XAxis, YAxis } from 'recharts'
import { AXIS, GRID, PlotFrame, axisLabel, roundTicks } from '../ui/plot-frame'

/** Iso-velocity plot: length against frequency; along one line the speed is the same. */
export function StepPlot({ lengthM, frequencyHz }: { lengthM: number; frequencyHz: number }) {
	const xTicks = roundTicks(Math.max(frequencyHz - 1.2, 0.5), frequencyHz + 1.2)
	const yTicks = roundTicks(Math.max(lengthM - 0.7, 0.1), lengthM + 0.7)
	const [xFrom, xTo, yFrom, yTo] = [xTicks[0]!, xTicks.at(-1)!, yTicks[0]!, yTicks.at(-1)!]
	const speed = lengthM * frequencyHz
	const speeds = [...new Set([-2, -1, 0, 1, 2].map((step) => Math.round(speed) + step))].filter((one) => one > 0)
	const data = Array.from({ length: 61 }, (_, index) => {
		const x = xFrom + ((xTo - xFrom) * index) / 60
		return Object.fromEntries([
			['x', x],
			...speeds.map((one) => [`v${one}`, one / x >= yFrom && one / x <= yTo ? one / x : null]),
		])
	})
	return (
		<PlotFrame
			label={`Step length ${lengthM.toFixed(2)} m against ${frequencyHz.toFixed(2)} steps a second, between lines of ${speeds.join(', ')} m/s.`}
		>
			<LineChart data={data} margin={{ top: 26, right: 50, bottom: 18, left: -8 }}>
				<CartesianGrid {...GRID} />
				<XAxis
					{...AXIS}
					type="number"
					dataKey="x"
					domain={[xFrom, xTo]}
					ticks={xTicks}
					label={axisLabel('steps a second', 'x')}
					height={44}
				/>
				<YAxis {...AXIS} type="number" domain={[yFrom, yTo]} ticks={yTicks} label={axisLabel('m a step', 'y')} />
				{speeds.map((one) => (
					<Line
						key={one}
						dataKey={`v${one}`}
						stroke="var(--color-ink-2)"
						strokeWidth={1}
						strokeDasharray="5 4"
						dot={false}
						isAnimationActive={false}
						label={({
							index,
							x,
							y,
							value,
						}: {
							index?: number
							x?: number | string
							y?: number | string
							value?: unknown
						}) =>
							value !== null &&
							value !== undefined &&
							data.findLastIndex((row) => row[`v${one}`] !== null) === index ? (
								<text x={Number(x) + 4} y={Number(y) + 4} fontSize={12} fill="var(--color-ink-2)">
									{one} m/s
								</text>
							) : (
								<g />
							)
						}
					/>
				))}
				<ReferenceDot x={frequencyHz} y={lengthM} r={7} fill="var(--color-sprint)" stroke="none" />
			</LineChart>
		</PlotFrame>
	)
}
