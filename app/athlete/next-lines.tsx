import { longDay } from '#core/calendar/say-day'
import type { VerdictWord } from '#core/judge/types'
import { sayFirmness } from '#core/words/say-firmness'
import { useUnits } from '../field/units'
import { VerdictMark } from '../ui/glyphs'
import { useLocal } from '../ui/local'

interface Next {
	day: string
	startTime: string
	squadName: string
	lines: readonly {
		id: string
		words: string
		/** Why it is not done; null where it is. */
		blocked: string | null
		/** Why it is another than the last time. */
		change: { verdict: VerdictWord | null; from: string; why: string; firmness: string } | null
	}[]
}

/** What somebody is down for next, line by line, and why it changed. */
export function NextLines({ next }: { next: Next | null }) {
	const { time } = useLocal()
	const { asRead } = useUnits()
	return (
		<section>
			<h2>
				Now
				{next && (
					<span className="dim font-normal">
						{' '}
						— {longDay(next.day)}, {time(next.startTime)}, {next.squadName}
					</span>
				)}
			</h2>
			{next ? (
				<ul className="mt-2">
					{next.lines.map((line) => (
						<li key={line.id} className="rule flex items-start gap-3 py-2">
							<span className="w-6 shrink-0 pt-1">
								{line.change?.verdict && <VerdictMark word={line.change.verdict} />}
							</span>
							<span>
								{line.blocked === null ? (
									<b>{asRead(line.words)}</b>
								) : (
									<>
										{asRead(line.words)}: <b>not today</b>, {line.blocked}
									</>
								)}
								{line.change && (
									<span className="dim block text-[14px]">
										Was {asRead(line.change.from)}. {asRead(line.change.why)} ({sayFirmness(line.change.firmness)})
									</span>
								)}
							</span>
						</li>
					))}
				</ul>
			) : (
				<p className="rule dim mt-2 py-2">No session planned.</p>
			)}
		</section>
	)
}
