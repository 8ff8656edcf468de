import type { EntryMarks, TakenBack } from '#core/field/session-marks'
import { hourAndMinute } from './hour-and-minute'
import { CHOICE, PANEL_HEADING, SheetPanel } from './sheet-panel'
import { sayEvent } from '#core/field/say-event'
import { useUnits } from './units'

/** Everything logged so far, however old: a tap opens the mark to correct it. */
export function AllMarksPanel({
	marks,
	gone,
	nameOf,
	onMark,
	onBringBack,
	onClose,
}: {
	marks: readonly EntryMarks[]
	gone: readonly TakenBack[]
	nameOf: (athleteId: string) => string
	onMark: (id: string) => void
	onBringBack: (one: TakenBack) => void
	onClose: () => void
}) {
	const { asRead } = useUnits()
	return (
		<SheetPanel title="All marks" onClose={onClose}>
			{marks.length === 0 && <p className="mt-3 text-[17px]">Nothing is logged yet.</p>}
			{marks.map(({ entry, people }) => (
				<section key={entry.id} aria-label={entry.name}>
					<h2 className={PANEL_HEADING}>{entry.name}</h2>
					{people.map(({ athleteId, name, marks: own }) => (
						<div key={athleteId} className="mt-2 border-t border-chalk pt-1.5">
							<p className="text-[16px] font-semibold">{name}</p>
							<div className="mt-1 flex flex-wrap gap-1.5">
								{own.map((mark) => (
									<button
										key={mark.id}
										type="button"
										className="num min-h-[48px] min-w-[64px] border border-ink px-2 text-[17px] font-medium"
										aria-label={`${name}, ${asRead(sayEvent(mark))}, set ${mark.setNo}, rep ${mark.repNo}: correct it`}
										onClick={() => onMark(mark.id)}
									>
										{asRead(sayEvent(mark))}
									</button>
								))}
							</div>
						</div>
					))}
				</section>
			))}
			{gone.length > 0 && (
				<section aria-label="Taken back">
					<h2 className={PANEL_HEADING}>Taken back</h2>
					<ul>
						{gone.map((one) => (
							<li key={one.event.id} className="flex items-center gap-2 border-t border-chalk py-1">
								<p className="min-w-0 flex-1 text-[15px] leading-tight">
									<b>
										{nameOf(one.before.athleteId)}, {asRead(sayEvent(one.before))}
									</b>
									<br />
									{hourAndMinute(one.event.deviceTime)}
									{one.event.by !== undefined && `, by ${one.event.by}`}
								</p>
								<button type="button" className={`${CHOICE} shrink-0`} onClick={() => onBringBack(one)}>
									Bring back
								</button>
							</li>
						))}
					</ul>
				</section>
			)}
		</SheetPanel>
	)
}
