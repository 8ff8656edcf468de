import type { Closure } from '#core/vocabulary/care'
import { SheetPanel } from './sheet-panel'

/** What a report of pain means there and then: what is over, what remains, and when to get help. */
export function OverPanel({
	name,
	closures,
	remaining,
	onClose,
}: {
	name: string
	closures: { words: string; grade: Closure['grade'] }[]
	/** Lines the athlete goes on with, in words. */
	remaining: string[]
	onClose: () => void
}) {
	const everything = closures.some((one) => one.grade === 'everything')
	const worst = closures.some((one) => one.grade !== 'spare')
	return (
		<SheetPanel title={name} onClose={onClose}>
			{everything ? (
				<p className="mt-4 border-l-4 border-attn pl-3 text-[22px] leading-tight font-bold text-attn" role="alert">
					Everything is over today. Take {name} out now and get professional help.
				</p>
			) : (
				<ul className="mt-4" role="alert">
					{closures.map((one) => (
						<li
							key={`${one.words} ${one.grade}`}
							className={`border-l-4 pl-3 text-[22px] leading-tight font-bold ${one.grade === 'spare' ? 'border-ink' : 'border-attn text-attn'}`}
						>
							{one.grade === 'spare'
								? `${one.words}: what loads it much, and all hard work on it, is over today.`
								: `${one.words}: all that loads it is over today.`}
						</li>
					))}
				</ul>
			)}
			{!everything && (
				<>
					<p className="num mt-6 text-[17px] font-semibold">Remaining today</p>
					{remaining.length === 0 ? (
						<p className="text-[18px]">Nothing of this sheet. The session is over for {name}.</p>
					) : (
						<ul className="text-[18px]">
							{remaining.map((words) => (
								<li key={words} className="border-b border-chalk py-1.5">
									{words}
								</li>
							))}
						</ul>
					)}
				</>
			)}
			{worst && (
				<p className="mt-5 max-w-[48ch] text-[15px]">
					It stays closed until a health professional has cleared it{everything ? ', a doctor this time' : ''}. Undo
					within two minutes, if it was a slip.
				</p>
			)}
		</SheetPanel>
	)
}
