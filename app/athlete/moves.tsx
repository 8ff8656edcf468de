import { shortDay } from '#core/calendar/say-day'
import type { VerdictWord } from '#core/judge/types'
import { useUnits } from '../field/units'
import { VerdictMark } from '../ui/glyphs'

interface MovedByHand {
	id: string
	day: string
	ladderName: string
	from: string
	to: string
	reason: string
}
interface Move {
	id: string
	day: string
	ladderName: string
	decided: VerdictWord
	sentence: string
	reason: string | null
}

/** How somebody moved on their ladders: by hand, and by verdicts. */
export function Moves({ moves, verdicts }: { moves: readonly MovedByHand[]; verdicts: readonly Move[] }) {
	const { asRead } = useUnits()
	return (
		<>
			{moves.length > 0 && (
				<section>
					<h2>Moved by hand</h2>
					<ul className="mt-2">
						{moves.map((row) => (
							<li key={row.id} className="rule py-2">
								<span className="dim">
									{shortDay(row.day)}, {row.ladderName.toLowerCase()}
								</span>{' '}
								{row.from} to <b>{row.to}</b>: {row.reason}
							</li>
						))}
					</ul>
				</section>
			)}
			<section>
				<h2>Moves, newest first</h2>
				{verdicts.length === 0 ? (
					<p className="rule dim mt-2 py-2">No move yet: everything has held so far.</p>
				) : (
					<ul className="mt-2">
						{verdicts.map((row) => (
							<li key={row.id} className="rule grid grid-cols-[28px_1fr] gap-x-2.5 py-2 sm:grid-cols-[28px_170px_1fr]">
								<span className="pt-1">
									<VerdictMark word={row.decided} />
								</span>
								<span className="dim">
									{shortDay(row.day)}, {row.ladderName.toLowerCase()}
								</span>
								<span className="col-start-2 sm:col-start-3">
									{asRead(row.sentence)}
									{row.reason && (
										<b className="block">
											Decided: {row.decided}. {row.reason}
										</b>
									)}
								</span>
							</li>
						))}
					</ul>
				)}
			</section>
		</>
	)
}
