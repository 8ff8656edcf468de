import { CartesianGrid, ComposedChart, Line, ReferenceLine, XAxis, YAxis } from 'recharts'
import type { SegmentReading } from '#core/measure/sprint/where-time-goes'
import { AXIS, GRID, PlotFrame, axisLabel, roundTicks } from '../ui/plot-frame'

interface Props {
	mssMps: number
	tauS: number
	startM: number
	segments: readonly SegmentReading[]
}

/** Own-curve plot: the mean speed of each segment as a bar of its length, the fitted curve through them. */
export function SpeedPlot({ mssMps, tauS, startM, segments }: Props) {
	const endM = segments.at(-1)!.toM
	const steps = 80
	// The curve by time, so that the steep start has as many points as the flat end.
	const endS = tauS * 6 + (endM + startM) / mssMps
	const curve: { m: number; speed: number }[] = []
	for (let i = 0; i <= steps * 4; i++) {
		const t = endS * (i / (steps * 4)) ** 2
		const m = mssMps * (t - tauS * -Math.expm1(-t / tauS)) - startM
		if (m >= 0 && m <= endM) curve.push({ m, speed: -mssMps * Math.expm1(-t / tauS) })
	}
	const yTicks = roundTicks(0, Math.max(mssMps, ...segments.map((segment) => segment.speedMps)) * 1.02)
	return (
		<PlotFrame
			label={`Speed over distance: the fitted curve rises to ${mssMps.toFixed(1)} m/s; segments at ${segments.map((segment) => `${segment.fromM} to ${segment.toM} m ${segment.speedMps.toFixed(1)}`).join(', ')} m/s.`}
		>
			<ComposedChart data={curve} margin={{ top: 26, right: 54, bottom: 18, left: -8 }}>
				<CartesianGrid {...GRID} vertical={false} />
				<XAxis
					{...AXIS}
					type="number"
					dataKey="m"
					domain={[0, endM]}
					ticks={[0, ...segments.map((segment) => segment.toM)]}
					label={axisLabel('m from the first beam', 'x')}
					height={44}
				/>
				<YAxis {...AXIS} type="number" domain={[0, yTicks.at(-1)!]} ticks={yTicks} label={axisLabel('m/s', 'y')} />
				<ReferenceLine
					y={mssMps}
					stroke="var(--color-ink-2)"
					strokeDasharray="5 4"
					label={{ value: 'top', position: 'right', fill: 'var(--color-ink-2)', fontSize: 12.5 }}
				/>
				<Line dataKey="speed" stroke="var(--color-sprint)" strokeWidth={2.5} dot={false} isAnimationActive={false} />
				{segments.map((segment) => (
					<ReferenceLine
						key={segment.fromM}
						segment={[
							{ x: segment.fromM, y: segment.speedMps },
							{ x: segment.toM, y: segment.speedMps },
						]}
						stroke="var(--color-ink)"
						strokeWidth={segment.weak ? 7 : 3}
					/>
				))}
			</ComposedChart>
		</PlotFrame>
	)
}
