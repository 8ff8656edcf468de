import type { FieldSheet } from '#core/field/pack'
import type { SessionLog } from './use-session-log'

interface Props {
	sheet: FieldSheet
	entryId: string
	log: SessionLog
	/** The last tap is not on the device yet, and takes long. */
	slow: boolean
	onEntry: (by: number) => void
	onDrills: () => void
	onSession: () => void
}

export function FieldHeader({ sheet, entryId, log, slow, onEntry, onDrills, onSession }: Props) {
	const entryIndex = sheet.entries.findIndex(({ id }) => id === entryId)
	const entry = sheet.entries[entryIndex]
	const signIn = `/sign-in?to=${encodeURIComponent(`/field?session=${sheet.session.id}`)}`
	return (
		<header className="field-header border-b border-chalk">
			<div className="flex items-stretch justify-between text-[14px]">
				<a className="flex min-h-[48px] items-center px-4 underline underline-offset-2" href="/field">
					Sessions
				</a>
				<span className="flex items-center px-1 text-center" role="status" aria-label="Where the marks are">
					{!log.ready ? (
						'reading what is on this device …'
					) : slow ? (
						'writing to this device …'
					) : log.state === 'sign-in-again' ? (
						<a className="flex min-h-[48px] items-center font-bold underline" href={signIn}>
							Sign in again; {log.waiting} wait here
						</a>
					) : log.state === 'somebody-else' ? (
						<a className="flex min-h-[48px] items-center font-bold underline" href={signIn}>
							Somebody else is signed in; {log.waiting} wait here
						</a>
					) : (
						<span>
							<b>{log.waiting}</b> only on this device · <b>{log.safe}</b> safe
							{log.state === 'no-connection' && ' · no connection'}
						</span>
					)}
				</span>
				<button type="button" className="min-h-[48px] px-4 underline underline-offset-2" onClick={onSession}>
					More
				</button>
			</div>
			<div className="field-drills flex items-stretch justify-between border-t border-chalk">
				<button
					type="button"
					className="min-h-[64px] min-w-[64px] text-[24px] disabled:text-chalk"
					onClick={() => onEntry(-1)}
					disabled={entryIndex <= 0}
					aria-label="Drill before"
				>
					‹
				</button>
				<button
					type="button"
					className="min-h-[64px] min-w-0 flex-1 text-center"
					aria-haspopup="dialog"
					onClick={onDrills}
				>
					<span className="num block truncate text-[17px] font-semibold" data-testid="drill">
						{entry?.name}
					</span>
					<span
						className="mx-auto mt-1 flex w-full max-w-[240px] gap-[3px]"
						aria-label={`Drill ${entryIndex + 1} of ${sheet.entries.length}`}
						role="img"
					>
						{sheet.entries.map((item, index) => (
							<i key={item.id} className={`h-[5px] flex-1 border border-ink ${index <= entryIndex ? 'bg-ink' : ''}`} />
						))}
					</span>
				</button>
				<button
					type="button"
					className="min-h-[64px] min-w-[64px] text-[24px] disabled:text-chalk"
					onClick={() => onEntry(1)}
					disabled={entryIndex >= sheet.entries.length - 1}
					aria-label="Drill after"
				>
					›
				</button>
			</div>
		</header>
	)
}
