import type { VerdictWord } from '#core/progress/types'
import { VerdictMark } from './glyphs'

export interface Change {
	id: string
	name: string
	athleteId: string
	verdict: VerdictWord | null
	from: string
	to: string
	why: string
	firmness: string
}

/** What changed for whom against the last time, with the reason behind "why". */
export function ChangeList({ changes }: { changes: Change[] }) {
	return (
		<ul>
			{changes.map((change) => (
				<li key={change.id} className="rule grid grid-cols-[28px_1fr] gap-x-2.5 gap-y-0.5 py-2.5 sm:grid-cols-[28px_150px_1fr]">
					<span className="pt-1">{change.verdict && <VerdictMark word={change.verdict} />}</span>
					<a className="font-bold hover:underline" href={`/athletes/${change.athleteId}`}>{change.name}</a>
					<div className="col-start-2 sm:col-start-3">
						<p>{change.from} <span aria-label="becomes">→</span> <b className="font-semibold">{change.to}</b></p>
						<p className="dim text-[14px]">{change.why} <span className="whitespace-nowrap">({change.firmness})</span></p>
					</div>
				</li>
			))}
		</ul>
	)
}
