import { FIRMNESS_MEANS, sayFirmness } from '#core/words/say-firmness'
import type { Judgement } from '#core/judge/types'
import { useUnits } from '../field/units'

/** What was looked at, found, and against what limit: the whole trace of a verdict. */
export function TraceTable({
	judgement,
	firedOnly = false,
}: {
	judgement: Pick<Judgement, 'trace' | 'decidedBy'>
	firedOnly?: boolean
}) {
	const { asRead } = useUnits()
	const lines = firedOnly
		? judgement.trace.filter(
				(line) => line.rule === judgement.decidedBy || (line.fired && ['S1', 'S7', 'P4'].includes(line.rule)),
			)
		: judgement.trace
	return (
		<table className="mt-2 w-full max-w-[760px] border-collapse text-[14px]">
			{!firedOnly && <caption className="dim caption-bottom pt-2 text-left text-[13px]">{FIRMNESS_MEANS}</caption>}
			<thead>
				<tr className="text-left">
					<th className="py-1 pr-4 font-bold">What was looked at</th>
					<th className="py-1 pr-4 font-bold">found</th>
					<th className="py-1 font-bold">limit</th>
				</tr>
			</thead>
			<tbody>
				{lines.map((line, index) => (
					<tr key={`${line.rule}-${index}`} className="border-t border-dotted border-chalk align-top">
						<td className="py-1 pr-4">
							{asRead(line.question)} <span className="dim">{sayFirmness(line.firmness)}</span>
							{line.rule === judgement.decidedBy && <b> · decides</b>}
						</td>
						<td className="py-1 pr-4">{asRead(line.found)}</td>
						<td className="py-1">{asRead(line.limit)}</td>
					</tr>
				))}
			</tbody>
		</table>
	)
}
