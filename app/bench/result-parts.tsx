import type { ReactNode } from 'react'
import { useUnits } from '../field/units'

/** A number that decides, with its unit, its error and what it is. */
export function BigNumber({
	label,
	value,
	unit,
	error,
}: {
	label: string
	value: string
	unit: string
	error?: string | null
}) {
	const { asRead } = useUnits()
	const metric = `${value} ${unit}`
	const read = asRead(metric)
	const [number, of] = read === metric ? [value, unit] : [read.slice(0, read.lastIndexOf(' ')), read.split(' ').at(-1)!]
	return (
		<div>
			<p className="dim text-[13.5px]">{label}</p>
			<p className="num text-[30px] leading-none font-semibold">
				{number} <span className="dim text-[15px] font-normal">{of}</span>
			</p>
			{error !== undefined && (
				<p className="dim mt-1 text-[13.5px]">{error === null ? 'error not known' : `± ${asRead(error)}`}</p>
			)}
		</div>
	)
}

export const Numbers = ({ children }: { children: ReactNode }) => (
	<div className="flex flex-wrap gap-x-9 gap-y-5">{children}</div>
)

/** What the numbers cannot tell, where the numbers are. */
export function Warnings({ warnings }: { warnings: readonly string[] }) {
	if (warnings.length === 0) return null
	return (
		<ul className="mt-4 border-l-[3px] border-ink py-0.5 pl-3.5">
			{warnings.map((warning) => (
				<li key={warning} className="py-0.5">
					{warning}
				</li>
			))}
		</ul>
	)
}

export const Waiting = ({ children }: { children: ReactNode }) => <p className="dim rule py-3">{children}</p>

/** Formula, source and limits, on request. */
export function About({ formula, source, limits }: { formula: string; source: string; limits: string }) {
	return (
		<details className="rule mt-8">
			<summary className="link inline-flex min-h-[44px] items-center">Formula, source and limits</summary>
			<dl className="grid gap-x-5 gap-y-1.5 pb-2 text-[14px] sm:grid-cols-[80px_1fr]">
				<dt className="font-bold">Formula</dt>
				<dd>{formula}</dd>
				<dt className="font-bold">Source</dt>
				<dd>{source}</dd>
				<dt className="font-bold">Limits</dt>
				<dd>{limits}</dd>
			</dl>
		</details>
	)
}
