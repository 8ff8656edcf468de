import { type ReactNode, Suspense, lazy, useRef } from 'react'
import { Link } from 'react-router'
import { daysBetween } from '#core/calendar/day-count'
import { shortDay } from '#core/calendar/say-day'
import { type Measure, SPANS, type Span, type Trend } from '#core/record/story'
import { writeMark, writePercent } from '#core/words/write-numbers'
import { saveSvg } from '../ui/save-svg'
import { useUnits } from '../field/units'
import { WhatIs } from '../ui/what-is'

const TrendChart = lazy(() => import('./trend-chart'))
/** As wide as the axis of the chart and what is kept free at its right. */
const [LEFT, RIGHT] = [58, 20]
/** Measures shown small below the picture; the others stand in a list. */
const SMALL = 3
const SPAN_NAMES: Record<Span, string> = { season: 'half a year', year: 'a year', all: 'everything' }

/** What a picture says, as the sentence above it. */
export function sayTrend(trend: Trend): { words: string; interval: string } {
	const [first] = trend.series
	if (trend.series.length === 1)
		return first!.change ?? { words: 'too few sessions to say how it changes: four are needed', interval: '' }
	const said = trend.series.map(({ side, change }) => `${side ?? 'both'} ${change?.words ?? 'too few sessions yet'}`)
	return { words: said.join('; '), interval: '' }
}

/** A measure's picture under its sentence, with the other measures to choose from and its numbers as a table. */
export function TrendView({
	trend,
	measures,
	athleteId,
}: {
	trend: Trend
	measures: readonly Measure[]
	athleteId: string
}) {
	const { asRead } = useUnits()
	const frame = useRef<HTMLDivElement>(null)
	const { words, interval } = sayTrend(trend)
	const sentence = asRead(`${trend.what}: ${words}`)
	const days = trend.series.flatMap(({ points }) => points.map(({ day }) => day)).sort()
	const [from, to] = [days[0]!, days.at(-1)!]
	const total = Math.max(1, daysBetween(from, to)) + 1
	/** Where a day lies between the ends of the picture, percent of its width. */
	const share = (day: string) => (100 * (Math.min(total - 1, Math.max(0, daysBetween(from, day))) + 0.5)) / total
	const at = (day: string) => `${share(day)}%`
	const lanes = lanesOf(trend.bars)
	const others = measures.filter(({ key }) => key !== trend.key)
	const ask = (key: string, span: Span) =>
		`?measure=${encodeURIComponent(key)}${span === 'season' ? '' : `&span=${span}`}`
	return (
		<section aria-label="Where it is going">
			<h2 className="text-[18px] font-[560]">
				{sentence} {interval && <span className="dim font-normal">({asRead(interval)})</span>}
			</h2>
			<p className="dim mt-0.5 text-[14px]">
				Point: mean of a session{trend.series.length > 1 ? ', left filled, right hollow' : ''}. Tick: its best rep.
				Triangle: a record.
				{trend.series.length === 1 ? ' Band: usual, give or take what a day moves.' : ' Line: usual.'} Taken by{' '}
				{trend.how}. <WhatIs term="usual" />
			</p>
			<nav className="mt-1 flex flex-wrap items-center gap-x-4 text-[14px] print:hidden" aria-label="How much of it">
				{(Object.keys(SPANS) as Span[]).map((span) =>
					span === trend.span ? (
						<b key={span} aria-current="true">
							{SPAN_NAMES[span]}
						</b>
					) : (
						<Link
							key={span}
							className="link inline-flex items-center max-lg:min-h-[44px]"
							to={ask(trend.key, span)}
							preventScrollReset
						>
							{SPAN_NAMES[span]}
						</Link>
					),
				)}
				<button
					type="button"
					className="link ml-auto max-lg:min-h-[44px]"
					onClick={() => {
						const svg = frame.current?.querySelector('svg')
						if (svg) saveSvg(svg, `${trend.what} ${from} ${to}`)
					}}
				>
					save picture
				</button>
			</nav>
			<div ref={frame} className="min-h-[270px]">
				<Suspense
					fallback={<p className="dim pt-24 text-center">The picture is on its way; its numbers are in the table.</p>}
				>
					<TrendChart trend={trend} label={`${sentence}. ${trend.how}. Its numbers stand in the table below.`} />
				</Suspense>
			</div>
			<div className="relative text-[12.5px]" style={{ marginRight: RIGHT }}>
				{trend.matches.length > 0 && (
					<Lane name="match">
						{trend.matches.map((day) => (
							<i
								key={day}
								className="absolute top-[3px] block h-[12px] w-[2px] bg-ink"
								style={{ left: at(day) }}
								title={`Match, ${shortDay(day)}`}
							/>
						))}
					</Lane>
				)}
				{trend.bench.length > 0 && (
					<Lane name="bench">
						{trend.bench.map(({ day, words }) => (
							<i
								key={`${day}${words}`}
								className="absolute top-[4px] -ml-[5px] block size-[10px] rotate-45 border-[1.5px] border-ink bg-paper"
								style={{ left: at(day) }}
								role="img"
								aria-label={asRead(`${words}, ${shortDay(day)}`)}
								title={asRead(`${words}, ${shortDay(day)}`)}
							/>
						))}
					</Lane>
				)}
				{lanes.map((lane, index) => (
					<div key={index} className="relative" style={{ marginLeft: LEFT, height: 18 }}>
						{lane.map((bar) => (
							<TrackBar key={`${bar.from}${asRead(bar.words)}`} bar={bar} from={share(bar.from)} to={share(bar.to)} />
						))}
					</div>
				))}
			</div>
			{trend.gap.length > 0 && <GapStrip trend={trend} at={at} />}
			<details className="mt-2">
				<summary className="link inline-flex min-h-[44px] items-center">As a table</summary>
				<TrendTable trend={trend} athleteId={athleteId} />
			</details>
			{others.length > 0 && (
				<div className="mt-2 grid gap-x-6 sm:grid-cols-3 print:hidden">
					{others.slice(0, SMALL).map((one) => (
						<Small key={one.key} measure={one} to={ask(one.key, trend.span)} />
					))}
				</div>
			)}
			{measures.length > SMALL + 1 && (
				<details className="print:hidden">
					<summary className="link inline-flex min-h-[44px] items-center">
						All {measures.length} measures and how they go
					</summary>
					<ul>
						{measures.map((one) => (
							<li key={one.key} className="rule grid gap-x-3 py-1.5 sm:grid-cols-[minmax(0,1fr)_minmax(0,1.2fr)]">
								<span>
									<Link className="link" to={ask(one.key, trend.span)} preventScrollReset>
										{asRead(one.what)}
									</Link>
									<span className="dim block text-[13px]">
										{one.how}; {one.sessions} {one.sessions === 1 ? 'session' : 'sessions'}
									</span>
								</span>
								<span className={one.change?.beyond ? 'font-semibold' : 'dim'}>
									{one.change
										? asRead(
												`${one.change.side ? `${one.change.side}: ` : ''}${one.change.words} (${one.change.interval})`,
											)
										: 'too few sessions yet'}
								</span>
							</li>
						))}
					</ul>
				</details>
			)}
		</section>
	)
}

/** A measure in miniature: its season as points, better up, with what it says. */
function Small({ measure, to }: { measure: Measure; to: string }) {
	const { asRead } = useUnits()
	const days = measure.points.map(({ day }) => day)
	const [from, to_] = [days[0]!, days.at(-1)!]
	const total = Math.max(1, daysBetween(from, to_))
	const values = measure.points.map(({ mean }) => mean)
	const [low, high] = [Math.min(...values), Math.max(...values)]
	const y = (value: number) => {
		const share = high === low ? 0.5 : (value - low) / (high - low)
		return 5 + 40 * (measure.better === 'lower' ? share : 1 - share)
	}
	return (
		<Link to={to} preventScrollReset className="rule block py-2 no-underline">
			<b className="block truncate text-[14px]" title={asRead(measure.what)}>
				{asRead(measure.what)}
			</b>
			<svg className="my-1 block h-[50px] w-full" aria-hidden="true">
				{measure.points.map(({ day, side, mean }) => (
					<circle
						key={`${day}${side}`}
						cx={`${2 + (96 * daysBetween(from, day)) / total}%`}
						cy={y(mean)}
						r="3"
						fill={side === 'right' ? 'none' : `var(--color-${measure.family})`}
						stroke={`var(--color-${measure.family})`}
					/>
				))}
			</svg>
			<span className={`block text-[13.5px] ${measure.change?.beyond ? 'font-semibold' : 'dim'}`}>
				{measure.change
					? asRead(`${measure.change.side ? `${measure.change.side}: ` : ''}${measure.change.words}`)
					: 'too few sessions to say'}
			</span>
		</Link>
	)
}

/** A line under the picture for what happened on single days. */
function Lane({ name, children }: { name: string; children: ReactNode }) {
	return (
		<div className="relative h-[18px]" style={{ marginLeft: LEFT }}>
			<span className="dim absolute" style={{ left: -LEFT }}>
				{name}
			</span>
			{children}
		</div>
	)
}

/** A closure or time away under the picture, its words on whichever side there is room. */
function TrackBar({ bar, from, to }: { bar: Trend['bars'][number]; from: number; to: number }) {
	const { asRead } = useUnits()
	const words = to > 60 ? { right: `calc(${100 - from}% + 6px)` } : { left: `calc(${Math.max(to, from + 1)}% + 6px)` }
	return (
		<>
			<i
				className={`absolute top-[6px] block h-[6px] ${bar.isCare ? 'bg-attn' : 'border border-ink-2'}`}
				style={{ left: `${from}%`, width: `${Math.max(1, to - from)}%` }}
			/>
			<span className="dim absolute whitespace-nowrap" style={words}>
				{asRead(bar.words)}
			</span>
		</>
	)
}

/** Bars that overlap get lanes of their own. */
function lanesOf(bars: Trend['bars']): Trend['bars'][] {
	const lanes: Trend['bars'][] = []
	for (const bar of [...bars].sort((a, b) => (a.from < b.from ? -1 : 1))) {
		// A label takes room too: about forty days of a season.
		const free = lanes.find((lane) => daysBetween(lane.at(-1)!.to, bar.from) > 40)
		if (free) free.push(bar)
		else lanes.push([bar])
	}
	return lanes
}

/** Left against right under the picture: a bar to the side that is ahead. */
function GapStrip({ trend, at }: { trend: Trend; at: (day: string) => string }) {
	const most = Math.max(5, ...trend.gap.map(({ percent }) => Math.abs(percent)))
	const last = trend.gap.at(-1)!
	return (
		<div className="mt-1 text-[12.5px]" style={{ paddingRight: RIGHT }}>
			<p className="dim">
				Gap, percent of the stronger side; up is left ahead. Last:{' '}
				<b className="num">
					{last.percent === 0
						? 'even'
						: `${last.percent > 0 ? 'left' : 'right'} ${writePercent(Math.abs(last.percent))}`}
				</b>
			</p>
			<div className="relative h-[56px]" style={{ marginLeft: LEFT }} aria-hidden="true">
				<i className="absolute top-[28px] block h-px w-full bg-ink-2" />
				{trend.gap.map(({ day, percent }) => (
					<i
						key={day}
						className={`absolute block w-[7px] ${percent > 0 ? 'bg-ink' : 'border border-ink bg-paper'}`}
						style={{
							left: at(day),
							marginLeft: -3,
							height: Math.max(1, (26 * Math.abs(percent)) / most),
							top: percent > 0 ? 28 - (26 * percent) / most : 28,
						}}
					/>
				))}
			</div>
		</div>
	)
}

function TrendTable({ trend, athleteId }: { trend: Trend; athleteId: string }) {
	const { asRead } = useUnits()
	const rows = trend.series
		.flatMap(({ side, points }) => points.map((point) => ({ side, ...point })))
		.sort((a, b) => (a.day < b.day ? 1 : a.day > b.day ? -1 : 0))
	const write = (value: number) => asRead(writeMark({ kind: trend.kind, value }))
	return (
		<table className="w-full max-w-[640px] text-left">
			<thead className="dim text-[13px]">
				<tr>
					<th className="py-1 font-normal">session</th>
					{trend.series.length > 1 && <th className="py-1 font-normal">side</th>}
					<th className="py-1 text-right font-normal">mean</th>
					<th className="py-1 text-right font-normal">best</th>
					<th className="py-1 text-right font-normal">reps</th>
					<th className="py-1 text-right font-normal">usual before</th>
				</tr>
			</thead>
			<tbody>
				{rows.map((row) => (
					<tr key={`${row.sessionId}${row.side}`} className="border-t border-chalk">
						<td className="py-1">
							<Link className="link" to={`/sessions/${row.sessionId}/for/${athleteId}`}>
								{shortDay(row.day)}
							</Link>
							{row.record && ', record'}
							{row.unusual && <span className="dim">, not in the usual</span>}
						</td>
						{trend.series.length > 1 && <td>{row.side}</td>}
						<td className="num text-right font-semibold">{write(row.mean)}</td>
						<td className="num text-right">{write(row.best)}</td>
						<td className="num text-right">{row.n}</td>
						<td className="num text-right">{row.usual === null ? '' : write(row.usual)}</td>
					</tr>
				))}
			</tbody>
		</table>
	)
}
