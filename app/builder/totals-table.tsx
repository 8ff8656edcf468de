import type { SheetPreview } from '#core/plan/preview-sheet'
import { Fragment, memo } from 'react'
import { shortDay } from '#core/calendar/say-day'
import type { LineBeside } from '#core/plan/lines-beside'
import { QUANTITIES, type Quantity } from '#core/vocabulary/entry'
import { useUnits } from '../field/units'
import { WhatIs } from '../ui/what-is'

/** Contacts are moderate and harder. */
const HEADS: Record<Quantity, string> = { fastMetres: 'Fast m', contacts: 'Contacts', cuts60: 'Cuts', throws: 'Throws' }
const TERM = { fastMetres: 'fastMetres', contacts: 'contacts', cuts60: 'cuts', throws: null } as const

/**
 * What the sheet costs each athlete, against the target and the range of their level; below it their line of the piece
 * that is looked at.
 */
export const TotalsTable = memo(function TotalsTable({
	preview,
	beside,
}: {
	preview: SheetPreview
	beside: Map<string, LineBeside> | null
}) {
	return (
		<table className="w-full border-collapse text-[14px]">
			<caption className="sr-only">Totals of each athlete against the target</caption>
			<thead>
				<tr className="text-left text-[13px]">
					<th className="pb-1 font-normal">
						<span className="sr-only">Athlete</span>
					</th>
					{QUANTITIES.map((quantity) => (
						<th
							key={quantity}
							scope="col"
							className={`dim w-[54px] pb-1 text-right font-normal whitespace-nowrap ${quantity === 'contacts' ? 'sm:w-[84px]' : 'sm:w-[64px]'}`}
						>
							{HEADS[quantity]}{' '}
							{TERM[quantity] && (
								<span className="max-sm:hidden">
									<WhatIs term={TERM[quantity]} />
								</span>
							)}
						</th>
					))}
				</tr>
			</thead>
			<tbody>
				{preview.athletes.map((athlete) => (
					<Fragment key={athlete.id}>
						{/* A layer of its own: what stays as it was is not painted again. */}
						<tr className="rule isolate">
							<th scope="row" className="max-w-[104px] truncate sm:max-w-[130px] py-1 text-left font-normal">
								{athlete.name}
							</th>
							{QUANTITIES.map((quantity) => (
								<td key={quantity} className="py-1 pl-1 text-right">
									<Cell
										value={athlete.planned[quantity]}
										target={athlete.targets[quantity]}
										range={athlete.ranges[quantity]}
									/>
								</td>
							))}
						</tr>
						{beside?.has(athlete.id) && <BesideRow line={beside.get(athlete.id)!} />}
					</Fragment>
				))}
			</tbody>
		</table>
	)
})

/** Somebody’s line, why it is what it is, and what it was the last time. */
function BesideRow({ line: { words, why, was, isFirst } }: { line: LineBeside }) {
	const { asRead } = useUnits()
	return (
		<tr>
			<td colSpan={1 + QUANTITIES.length} className="pb-1.5 leading-tight">
				<span className={words === 'no line' ? 'dim' : was || isFirst ? 'font-bold' : ''}>{asRead(words)}</span>
				{why && <span className="dim"> · {asRead(why)}</span>}
				{was && (
					<span className="dim block">
						was {asRead(was.words)} on {shortDay(was.day)}
					</span>
				)}
				{isFirst && <span className="dim"> · first time in eight weeks</span>}
			</td>
		</tr>
	)
}

const WIDTH = 48
/** A number on its tape: the range as a bracket, the target as a tick, the value as the filled length. */
function Cell({
	value,
	target,
	range: [low, high],
}: {
	value: number
	target: number
	range: readonly [number, number]
}) {
	const over = value > high
	const reach = Math.max(high * 1.25, value, 1)
	const at = (x: number) => (WIDTH * Math.min(x, reach)) / reach
	return (
		<span title={`${Math.round(value)} planned, ${target} asked, ${low} to ${high} usual for the level`}>
			<span className={`num ${over ? 'font-bold text-attn' : value < target * 0.95 - 1 ? '' : 'font-bold'}`}>
				{Math.round(value)}
				{over && <span className="sr-only"> over the range</span>}
			</span>
			<span className="dim text-[12px]">/{target}</span>
			<svg className="ml-auto block" width={WIDTH} height="7" aria-hidden="true">
				<rect x={at(low)} y="2.5" width={Math.max(1, at(high) - at(low))} height="2" fill="var(--color-chalk)" />
				<rect x="0" y="2.5" width={at(value)} height="2" fill={over ? 'var(--color-attn)' : 'var(--color-ink)'} />
				<line x1={at(target)} x2={at(target)} y1="0" y2="7" stroke="var(--color-ink)" strokeWidth="1.5" />
			</svg>
		</span>
	)
}
