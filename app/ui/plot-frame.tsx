import type { ReactElement } from 'react'
import { ResponsiveContainer } from 'recharts'

/** Axes of every plot: thin chalk lines, the product's own digits. */
export const AXIS = {
	stroke: 'var(--color-ink-2)',
	tick: { fill: 'var(--color-ink-2)', fontSize: 12.5, fontFamily: 'var(--font-head)' },
	tickLine: { stroke: 'var(--color-ink-2)' },
} as const
export const GRID = { stroke: 'var(--color-chalk)', strokeDasharray: '' } as const
export const axisLabel = (value: string, axis: 'x' | 'y') => ({
	value,
	fill: 'var(--color-ink-2)',
	fontSize: 12.5,
	...(axis === 'x'
		? { position: 'insideBottomRight' as const, offset: -4 }
		: { position: 'insideTopLeft' as const, dy: -24, dx: 30 }),
})

/** A plot with its content in words for those who do not see it. */
export function PlotFrame({
	label,
	height = 280,
	children,
}: {
	label: string
	height?: number
	children: ReactElement
}) {
	return (
		<figure className="mt-5" role="img" aria-label={label}>
			<ResponsiveContainer width="100%" height={height} initialDimension={{ width: 640, height }}>
				{children}
			</ResponsiveContainer>
		</figure>
	)
}

/** Round steps of an axis that hold a range, about five of them. */
export function roundTicks(from: number, to: number): number[] {
	const span = Math.max(to - from, 1e-9)
	const power = 10 ** Math.floor(Math.log10(span / 4))
	const step = [1, 2, 2.5, 5, 10].map((factor) => factor * power).find((one) => span / one <= 5.5)!
	const first = Math.floor(from / step + 1e-9)
	const last = Math.ceil(to / step - 1e-9)
	return Array.from({ length: last - first + 1 }, (_, index) => Number(((first + index) * step).toPrecision(10)))
}
