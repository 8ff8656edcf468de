import { Link } from 'react-router'
import { shortDay } from '#core/calendar/say-day'
import type { FamilyLoad, FortnightDay } from '#core/record/fortnight'
import { VerdictMark } from '../ui/glyphs'
import { useUnits } from '../field/units'

const STATE_WORDS = { flat: 'flat', good: 'good', 'as usual': 'as usual' } as const

/** Fourteen days beside each other: what was done by kind, what came from outside, what was said, what moved. */
export function FortnightStrip({ days, athleteId }: { days: readonly FortnightDay[]; athleteId: string }) {
	const { asRead } = useUnits()
	const most = new Map<FamilyLoad['family'], number>()
	for (const { sessions } of days)
		for (const { load } of sessions)
			for (const one of load) most.set(one.family, Math.max(most.get(one.family) ?? 0, one.amount))
	const empty = days.every(
		({ sessions, outside, body, notes, moves }) =>
			sessions.length + outside.length + body.length + notes.length + moves.length === 0,
	)
	return (
		<section>
			<h2 className="text-[18px] font-[560]">Last fourteen days</h2>
			{empty ? (
				<p className="rule dim mt-2 py-2">Nothing in fourteen days.</p>
			) : (
				<ol className="mt-2 grid gap-x-1 lg:grid-cols-[repeat(14,minmax(0,1fr))] print:grid-cols-[repeat(14,minmax(0,1fr))]">
					{days.map((day, index) => {
						const quiet = !day.sessions.length && !day.outside.length && !day.body.length && !day.notes.length
						return (
							<li
								key={day.day}
								className={`border-t py-1 text-[12.5px] leading-[1.3] ${index === days.length - 1 ? 'border-t-[3px] border-ink' : 'border-chalk'} ${quiet ? 'max-lg:hidden' : ''}`}
							>
								<p className="dim">{shortDay(day.day).split(' ').slice(0, 2).join(' ')}</p>
								{day.sessions.map((session) => (
									<div key={session.id} className="mt-0.5">
										{session.load.map(({ family, amount, words }) => (
											<i
												key={family}
												className="mb-[3px] block h-[8px] border max-lg:max-w-[260px]"
												style={{
													width: `${Math.max(8, (100 * amount) / most.get(family)!)}%`,
													borderColor: `var(--color-${family})`,
													background: `color-mix(in srgb, var(--color-${family}) 24%, transparent)`,
												}}
												role="img"
												aria-label={words}
												title={words}
											/>
										))}
										{session.unlogged && (
											<span className="dim block">{session.unlogged === 'missed' ? 'not logged' : 'to come'}</span>
										)}
										<span className="block break-words">
											{session.state && session.state !== 'as usual' && (
												<b title={session.reading ?? undefined}>{STATE_WORDS[session.state]}</b>
											)}
											{session.effort !== null && (
												<span className="dim">
													{session.state && session.state !== 'as usual' ? ', ' : ''}effort {session.effort}
												</span>
											)}
										</span>
										{!session.unlogged && (
											<Link className="link" to={`/sessions/${session.id}/for/${athleteId}`}>
												as done
											</Link>
										)}
									</div>
								))}
								{day.outside.map((words) => (
									<p key={words} className="mt-0.5 border-l-[2px] border-ink pl-1 break-words">
										{asRead(words)}
									</p>
								))}
								{day.body.map((words) => (
									<p key={words} className="text-attn break-words">
										{asRead(words)}
									</p>
								))}
								{day.moves.map(({ verdict, words }) => (
									<p key={words} title={words} className="mt-0.5 flex items-center gap-1">
										<VerdictMark word={verdict} />
										<span className="sr-only">{words}</span>
									</p>
								))}
								{day.bench.map((words) => (
									<p key={words} className="break-words" title={words}>
										<span className="dim">bench </span>
										{asRead(words)}
									</p>
								))}
								{day.notes.map((words) => (
									<p key={words} className="dim break-words" title={words}>
										{words.length > 44 ? `${words.slice(0, 42)}…` : words}
									</p>
								))}
							</li>
						)
					})}
				</ol>
			)}
		</section>
	)
}
