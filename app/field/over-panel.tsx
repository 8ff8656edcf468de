import type { Closure } from '#core/vocabulary/care'
import { CHOICE, SheetPanel } from './sheet-panel'

/** What a report means there and then: what is over, what remains, and when to get help; a slip is put right here. */
export function OverPanel({
	name,
	closures,
	unwell,
	remaining,
	contact,
	place,
	others,
	onUndo,
	onMove,
	onClose,
}: {
	name: string
	closures: { words: string; grade: Closure['grade'] }[]
	/** Said to be unwell in this session. */
	unwell: boolean
	/** Lines the athlete goes on with, in words. */
	remaining: string[]
	/** Whom to call, and where help has to come to; null when nobody has said. */
	contact: string | null
	place: string
	/** Whose report it could have been instead. */
	others: { id: string; name: string }[]
	/** Absent when the last report is not this device's. */
	onUndo?: (() => void) | undefined
	onMove?: ((athleteId: string) => void) | undefined
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
					{unwell && (
						<li className="border-l-4 border-ink pl-3 text-[22px] leading-tight font-bold">
							Unwell: nothing high, shock or maximal until well again.
						</li>
					)}
					{closures.length === 0 && !unwell && <li className="text-[20px]">Noted. Nothing is over for that.</li>}
				</ul>
			)}
			{worst && <Help name={name} contact={contact} place={place} />}
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
					It stays closed until a health professional has cleared it{everything ? ', a doctor this time' : ''}.
				</p>
			)}
			{onUndo && (
				<div className="mt-6 grid gap-2">
					<button type="button" className={`${CHOICE} w-full`} onClick={onUndo}>
						It was a slip: undo{worst ? ' (within two minutes)' : ''}
					</button>
					{onMove && others.length > 0 && (
						<label className="grid gap-1">
							<span className="num text-[16px]">It was somebody else</span>
							<select
								className="min-h-[64px] border border-ink bg-paper px-3 text-[18px]"
								value=""
								onChange={(event) => onMove(event.target.value)}
							>
								<option value="" disabled>
									Whose report was it?
								</option>
								{others.map((one) => (
									<option key={one.id} value={one.id}>
										{one.name}
									</option>
								))}
							</select>
						</label>
					)}
				</div>
			)}
		</SheetPanel>
	)
}

/** A telephone number in words that people wrote. */
const NUMBER = /\+?\d[\d ()/-]{4,}\d/

/** Whom to call and where help has to come to: what somebody looks for who has never been here before. */
function Help({ name, contact, place }: { name: string; contact: string | null; place: string }) {
	const number = contact?.match(NUMBER)?.[0]
	return (
		<div className="mt-5 border-2 border-ink p-3 text-[18px]" role="group" aria-label="In an emergency">
			<p>
				<b>Call for {name}:</b> {contact ?? 'nobody is on record'}
			</p>
			{number && (
				<a
					className="btn mt-2 flex min-h-[64px] items-center justify-center text-[20px]"
					href={`tel:${number.replace(/[^+\d]/g, '')}`}
				>
					Call {number}
				</a>
			)}
			<p className="mt-2">
				<b>We are at:</b> {place}
			</p>
		</div>
	)
}
