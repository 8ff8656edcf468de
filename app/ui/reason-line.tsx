import { Collapsible } from 'radix-ui'
import type { Judgement } from '#core/progress/types'

/** What was looked at, found, and against what limit: the whole trace of a verdict. */
export function TraceTable({ judgement }: { judgement: Pick<Judgement, 'trace' | 'decidedBy'> }) {
	return (
		<table className="mt-2 w-full max-w-[760px] border-collapse text-[14px]">
			<thead>
				<tr className="text-left"><th className="py-1 pr-4 font-bold">What was looked at</th><th className="py-1 pr-4 font-bold">found</th><th className="py-1 font-bold">limit</th></tr>
			</thead>
			<tbody>
				{judgement.trace.map((line, index) => (
					<tr key={`${line.rule}-${index}`} className="border-t border-dotted border-chalk align-top">
						<td className="py-1 pr-4">{line.question} <span className="dim">{line.firmness}</span>{line.rule === judgement.decidedBy && <b> · decides</b>}</td>
						<td className="py-1 pr-4">{line.found}</td>
						<td className="py-1">{line.limit}</td>
					</tr>
				))}
			</tbody>
		</table>
	)
}

/** A judgement's trace behind one word. */
export function Why({ judgement, name }: { judgement: Pick<Judgement, 'trace' | 'decidedBy'>; name: string }) {
	return (
		<Collapsible.Root className="contents">
			<Collapsible.Trigger className="link inline-block min-h-[28px] px-1" aria-label={`Why: ${name}`}>why</Collapsible.Trigger>
			<Collapsible.Content className="col-span-full"><TraceTable judgement={judgement} /></Collapsible.Content>
		</Collapsible.Root>
	)
}
