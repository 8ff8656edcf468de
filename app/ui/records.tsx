import { useState } from 'react'
import { writeMark, writePercent } from '../../core/words/write-numbers'
import { useUnits } from '../field/units'
import { WhatIs } from './what-is'

interface Shown {
	key: string
	what: string
	how: string
	kind: 'sprint' | 'contact' | 'height' | 'distance'
	usual: { value: number; betweenSd: number; sessions: number } | null
	repError: { sd: number; pairs: number } | null
	best: number
	seasonBest: number | null
	slowFall: number | null
}
/** Rows shown before "all". */
const FIRST = 8

/** What an athlete's marks usually are, measured alike, with the records beside them. */
export function Records({ records }: { records: readonly Shown[] }) {
	const { asRead } = useUnits()
	const [all, setAll] = useState(false)
	const shown = all ? records : records.slice(0, FIRST)
	return (
		<>
			<table className="mt-2 w-full text-left">
				<thead className="dim text-[13px]">
					<tr>
						<th className="py-1 font-normal">measured alike</th>
						<th className="py-1 text-right font-normal">
							usual <WhatIs term="usual" />
						</th>
						<th className="py-1 pl-3 text-right font-normal">best</th>
					</tr>
				</thead>
				<tbody>
					{shown.map((one) => (
						<tr key={one.key} className="border-t border-chalk align-top">
							<td className="py-1.5 pr-2">
								{asRead(one.what)}
								<span className="dim block text-[13px]">
									{one.how}
									{one.usual
										? `; ${one.usual.sessions} sessions, a day moves it by ${writePercent((100 * one.usual.betweenSd) / one.usual.value)}${
												one.repError
													? `, a rep by ${writePercent((100 * one.repError.sd) / one.usual.value)} (${one.repError.pairs} pairs of the squad)`
													: ''
											}`
										: ''}
								</span>
								{one.slowFall !== null && (
									<span className="block text-[13px] font-semibold">
										A slow fall: {writePercent(one.slowFall)} over the last sessions.
									</span>
								)}
							</td>
							<td className="num py-1.5 text-right text-[18px] font-semibold whitespace-nowrap">
								{one.usual ? (
									asRead(writeMark({ kind: one.kind, value: one.usual.value }))
								) : (
									<span className="dim text-[13px] font-normal">one more session</span>
								)}
							</td>
							<td className="num py-1.5 pl-3 text-right whitespace-nowrap">
								{asRead(writeMark({ kind: one.kind, value: one.best }))}
								{one.seasonBest !== null && one.seasonBest !== one.best && (
									<span className="dim block text-[13px]">
										season {asRead(writeMark({ kind: one.kind, value: one.seasonBest }))}
									</span>
								)}
							</td>
						</tr>
					))}
				</tbody>
			</table>
			{records.length > FIRST && !all && (
				<button type="button" className="link mt-2 mr-4" onClick={() => setAll(true)}>
					All {records.length}
				</button>
			)}
		</>
	)
}
