import { Area, CartesianGrid, ComposedChart, Line, ReferenceArea, Scatter, XAxis, YAxis, usePlotArea } from 'recharts'
import { daysBetween } from '#core/calendar/day-count'
import { shortDay } from '#core/calendar/say-day'
import { M_AN_INCH, M_A_FOOT } from '#core/words/units'
import type { Trend } from '#core/record/story'
import type { TrendPoint } from '#core/record/trend'
import { useUnits } from '../field/units'
import { AXIS, GRID, PlotFrame, roundTicks } from '../ui/plot-frame'

/** Room of the axis on the left and of the last label on the right: what lies below is drawn to the same scale. */
export const LEFT = 58
export const RIGHT = 20

/** What the axis counts in, and how many of it the mark's unit holds. */
const AXIS_UNIT = {
	sprint: { unit: 's', per: 1, digits: 2 },
	contact: { unit: 'ms', per: 1000, digits: 0 },
	height: { unit: 'cm', per: 100, digits: 1 },
	distance: { unit: 'm', per: 1, digits: 2 },
} as const
/** An axis counts evenly: feet with a tenth, not feet and inches. */
const IMPERIAL_AXIS = {
	...AXIS_UNIT,
	height: { unit: 'in', per: 1 / M_AN_INCH, digits: 1 },
	distance: { unit: 'ft', per: 1 / M_A_FOOT, digits: 1 },
}

interface Drawn extends TrendPoint {
	at: number
	band: [number, number] | null
	shown: number
	line: number | null
	top: number
}

/** First and last day of the picture. */
export const spanOf = (trend: Trend): [from: string, to: string] => {
	const days = trend.series.flatMap(({ points }) => points.map(({ day }) => day)).sort()
	return [days[0]!, days.at(-1)!]
}

/** A trend: session means as points, best reps as ticks, the usual as a line in its band, phases as ground. */
export default function TrendChart({ trend, label }: { trend: Trend; label: string }) {
	const { units } = useUnits()
	const { unit, per, digits } = (units === 'metric' ? AXIS_UNIT : IMPERIAL_AXIS)[trend.kind]
	const [from, to] = spanOf(trend)
	const at = (day: string) => daysBetween(from, day)
	const last = Math.max(1, at(to))
	const colour = `var(--color-${trend.family})`
	const drawn = trend.series.map(({ side, points }) => ({
		side,
		points: points.map(
			(one): Drawn => ({
				...one,
				at: at(one.day),
				shown: one.mean * per,
				top: one.best * per,
				line: one.usual === null ? null : one.usual * per,
				band: one.low === null || one.high === null ? null : [one.low * per, one.high * per],
			}),
		),
	}))
	const all = drawn.flatMap(({ points }) => points.flatMap(({ shown, top, band }) => [shown, top, ...(band ?? [])]))
	// Room for a record's mark above the best of all.
	const room = 0.08 * (Math.max(...all) - Math.min(...all))
	const ticks = roundTicks(
		Math.min(...all) - (trend.better === 'lower' ? room : 0),
		Math.max(...all) + (trend.better === 'lower' ? 0 : room),
	)
	const months = monthTicks(from, last)
	const several = drawn.length > 1
	return (
		<PlotFrame label={label} height={270}>
			<ComposedChart margin={{ top: 22, right: RIGHT, bottom: 0, left: 0 }} accessibilityLayer={false}>
				{(last > LONG_DAYS ? [] : trend.phases).map((phase, index) => (
					<ReferenceArea
						key={`${phase.from}-${phase.phase}`}
						x1={Math.max(0, at(phase.from))}
						x2={Math.min(last, at(phase.to))}
						fill={
							phase.phase === 'unloading' ? 'var(--color-surface)' : index % 2 === 0 ? 'var(--color-chalk)' : 'none'
						}
						fillOpacity={phase.phase === 'unloading' ? 1 : 0.28}
						stroke={phase.phase === 'unloading' ? 'var(--color-chalk)' : 'none'}
						label={
							(at(phase.to) - at(phase.from)) / last > 0.12
								? { value: phase.phase, position: 'insideBottomLeft', fill: 'var(--color-ink-2)', fontSize: 12 }
								: undefined
						}
					/>
				))}
				<CartesianGrid {...GRID} vertical={false} />
				<XAxis
					{...AXIS}
					type="number"
					dataKey="at"
					domain={[-0.5, last + 0.5]}
					ticks={months.map(([day]) => day)}
					tickFormatter={(value: number) => months.find(([day]) => day === value)?.[1] ?? ''}
					height={26}
					allowDuplicatedCategory={false}
				/>
				<YAxis
					{...AXIS}
					type="number"
					width={LEFT}
					// Better is up, whatever is measured.
					reversed={trend.better === 'lower'}
					domain={[ticks[0]!, ticks.at(-1)!]}
					ticks={ticks}
					tickFormatter={(value: number) => value.toFixed(digits)}
					label={{ value: unit, position: 'top', offset: 9, fill: 'var(--color-ink-2)', fontSize: 12.5 }}
				/>
				{drawn.map(({ side, points }, index) => [
					!several && (
						<Area
							key={`band-${side}`}
							data={points}
							dataKey="band"
							stroke="none"
							fill={colour}
							fillOpacity={0.16}
							isAnimationActive={false}
							connectNulls={false}
						/>
					),
					<Line
						key={`usual-${side}`}
						data={points}
						dataKey="line"
						stroke={colour}
						strokeWidth={several ? 1.5 : 2}
						strokeDasharray={index === 0 ? '' : '6 4'}
						dot={false}
						isAnimationActive={false}
					/>,
					<Scatter
						key={`points-${side}`}
						data={points}
						dataKey="shown"
						isAnimationActive={false}
						shape={(props: unknown) => (
							<SessionPoint
								{...(props as PointProps)}
								square={index > 0}
								small={all.length > MANY_NUMBERS}
								colour={colour}
								axis={trend.better === 'lower' ? [ticks[0]!, ticks.at(-1)!] : [ticks.at(-1)!, ticks[0]!]}
							/>
						)}
					/>,
				])}
			</ComposedChart>
		</PlotFrame>
	)
}

interface PointProps {
	cx?: number
	cy?: number
	payload?: Drawn
}

/**
 * One session: its mean, a tick for its best rep, a triangle over a record, hollow where it is no part of the usual.
 *
 * @param axis what stands at the top of the plot, and at its bottom
 */
function SessionPoint({
	cx,
	cy,
	payload,
	square,
	small,
	colour,
	axis: [top, bottom],
}: PointProps & { square: boolean; small: boolean; colour: string; axis: [top: number, bottom: number] }) {
	const plot = usePlotArea()
	if (cx === undefined || cy === undefined || !payload || !plot) return <g />
	const best = plot.y + (plot.height * (payload.top - top)) / (bottom - top)
	const fill = payload.unusual ? 'var(--color-paper)' : colour
	const size = small ? 2.5 : 5
	return (
		<g>
			<path
				d={small ? `M${cx} ${cy}V${best}` : `M${cx} ${cy}V${best}M${cx - 4} ${best}h8`}
				stroke={colour}
				strokeWidth={small ? 0.75 : 1.5}
				fill="none"
			/>
			{square ? (
				<rect
					x={cx - size + 1}
					y={cy - size + 1}
					width={2 * size - 2}
					height={2 * size - 2}
					fill="var(--color-paper)"
					stroke={colour}
					strokeWidth={small ? 1 : 2}
				/>
			) : (
				<circle cx={cx} cy={cy} r={size} fill={fill} stroke={colour} strokeWidth={small ? 1 : 1.5} />
			)}
			{payload.record && <path d={`M${cx - 5} ${Math.min(best, cy) - 10}h10l-5 6z`} fill="var(--color-ink)" />}
			<title>{`${shortDay(payload.day)}`}</title>
		</g>
	)
}

/** From so many days on phases are stripes that say nothing, and years say more than months. */
const LONG_DAYS = 550
/** With more numbers than this their marks would run into each other: about seventy sessions. */
const MANY_NUMBERS = 280

/** The first of each month within the picture, every second or third where there are many; over years, of each year. */
function monthTicks(from: string, days: number): [day: number, name: string][] {
	const [year, month] = from.split('-').map(Number) as [number, number]
	const first = Array.from({ length: Math.ceil(days / 28) + 2 }, (_, index) => {
		const date = new Date(Date.UTC(year, month - 1 + index, 1))
		const name = shortDay(date.toISOString().slice(0, 10)).split(' ').at(-1)!
		return [
			daysBetween(from, date.toISOString().slice(0, 10)),
			date.getUTCMonth() === 0 ? `${name} ${date.getUTCFullYear()}` : name,
		] as [number, string]
	}).filter(([day]) => day >= 0 && day <= days)
	if (days > LONG_DAYS)
		return first.filter(([, name]) => /\d{4}$/.test(name)).map(([day, name]): [number, string] => [day, name.slice(-4)])
	const step = Math.ceil(first.length / 8)
	// Within one month the days say more than its name.
	return first.length < 2
		? [0, days].map((day) => [day, shortDay(new Date(Date.parse(from) + day * 86_400_000).toISOString().slice(0, 10))])
		: first.filter((_, index) => index % step === 0)
}
