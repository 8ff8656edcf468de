import { shortDay } from '#core/calendar/say-day'

interface WayBack {
	name: string
	steps: readonly string[]
	/** Of the steps, counted from 0. */
	at: number
}
interface Walked {
	day: string
	steps: readonly { name: string; done: boolean }[]
	answers: readonly { place: string; score: number }[]
}

/** Where somebody is on the way back, and what was walked of it day by day. */
export function WaysBack({
	waysBack,
	walked,
	cleared,
}: {
	waysBack: readonly WayBack[]
	walked: readonly Walked[]
	/** The last clearance; none for who may not see it. */
	cleared: { clearedBy: string; clearedByRole: string; clearedOn: string } | undefined
}) {
	return (
		<section className="mt-5 border-l-[4px] border-ink py-1 pl-4">
			<h2>On the way back</h2>
			<ul className="mt-1">
				{waysBack.map(({ name, steps, at }) => (
					<li key={name}>
						{name}: <b>{steps[at]}</b>, step <span className="num">{at + 1}</span> of{' '}
						<span className="num">{steps.length}</span>
						{steps[at + 1] && <span className="dim"> · then {steps[at + 1]}</span>}
					</li>
				))}
			</ul>
			{walked.length > 0 && (
				<ol className="mt-2 max-w-[640px]" aria-label="Day by day">
					{walked.map((one) => (
						<li key={one.day} className="rule grid grid-cols-[110px_1fr_auto] gap-x-3 py-1">
							<span className="dim">{shortDay(one.day)}</span>
							<span>{one.steps.map(({ name, done }) => `${name}${done ? '' : ', not done'}`).join('; ')}</span>
							<span className="num">{one.answers.map((answer) => `${answer.place} ${answer.score}`).join(', ')}</span>
						</li>
					))}
				</ol>
			)}
			{cleared && (
				<p className="mt-1">
					Cleared by {cleared.clearedBy}, {cleared.clearedByRole}, {shortDay(cleared.clearedOn)}.
				</p>
			)}
			<p className="dim mt-1 max-w-[70ch] text-[14px]">
				One step a session, in one part of it; everything else of its families is low work that spares what was hurt.
			</p>
		</section>
	)
}
