import { sayFirmness } from '#core/words/say-firmness'
import type { VerdictWord } from '#core/judge/types'
import { VerdictMark } from './glyphs'
import { useUnits } from '../field/units'

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

/** What changed for whom against the last time, one athlete once, with the reason and how firm it is. */
export function ChangeList({ changes }: { changes: Change[] }) {
	const { asRead } = useUnits()
	const people = [...new Set(changes.map((change) => change.athleteId))]
	return (
		<ul>
			{people.map((athleteId) => {
				const own = changes.filter((change) => change.athleteId === athleteId)
				return (
					<li key={athleteId} className="rule grid gap-x-3 gap-y-1 py-2.5 sm:grid-cols-[140px_1fr]">
						<a
							className="font-bold hover:underline max-lg:inline-flex max-lg:min-h-[44px] max-lg:items-center"
							href={`/athletes/${athleteId}`}
						>
							{own[0]?.name}
						</a>
						<ul className="grid gap-1.5">
							{own.map((change, index) => (
								<li key={change.id} className="grid grid-cols-[28px_1fr] gap-x-2">
									<span className="pt-1">{change.verdict && <VerdictMark word={change.verdict} />}</span>
									<div>
										<p>
											{asRead(change.from)} <span aria-label="becomes">→</span>{' '}
											<b className="font-semibold">{asRead(change.to)}</b>
										</p>
										{own.findIndex((other) => other.why === change.why) === index && (
											<p className="dim text-[14px]">
												{asRead(change.why)} <span className="whitespace-nowrap">({sayFirmness(change.firmness)})</span>
											</p>
										)}
									</div>
								</li>
							))}
						</ul>
					</li>
				)
			})}
		</ul>
	)
}
