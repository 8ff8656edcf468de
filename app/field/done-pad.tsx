import { useState } from 'react'
import type { LineProgress } from '#core/field/line-progress'
import type { Drill } from '#core/vocabulary/drill'
import { sentences } from '#core/words/sentences'
import type { Grade } from '#core/field/session/taps'
import { RatingRow, type Reports } from './rating-row'
import { useUnits } from './units'

interface Props {
	progress: LineProgress
	drill: Drill | undefined
	ready: boolean
	undoLabel: string | null
	onUndo: () => void
	onReps: (reps: number, grade: Grade | null) => void
	reports: Reports
}

/** A set ticked off and judged by eye in one tap. */
export function DonePad({ progress, drill, ready, undoLabel, onUndo, onReps, reports }: Props) {
	const { asRead } = useUnits()
	const { line } = progress
	const [typed, setTyped] = useState<number | null>(null)
	const reps =
		typed ?? progress.pieceLeft ?? Math.min(line.dose.reps, Math.max(1, line.dose.reps - progress.next.repNo + 1))
	return (
		<>
			<div data-at="pad" className="flex flex-1 flex-col justify-end gap-2 px-4 py-2">
				<div className="flex flex-1 flex-col justify-center gap-2 py-2 text-[17px] leading-snug">
					<p>{asRead(sentences(drill?.cues ?? []))}</p>
					<p className="text-ink-2">Look for: {asRead(sentences([(drill?.lookFor ?? []).join('; ').toLowerCase()]))}</p>
				</div>
				<div className="flex items-center justify-center gap-4">
					<button
						type="button"
						className="num min-h-[72px] w-[84px] border border-ink text-[30px]"
						aria-label="One rep fewer"
						onClick={() => setTyped(Math.max(1, reps - 1))}
					>
						−
					</button>
					<p className="num text-center text-[54px] leading-none font-semibold">
						{reps}
						<span className="block pt-1 text-[16px] font-medium">reps done in this set</span>
					</p>
					<button
						type="button"
						className="num min-h-[72px] w-[84px] border border-ink text-[30px]"
						aria-label="One rep more"
						onClick={() => setTyped(Math.min(60, reps + 1))}
					>
						+
					</button>
				</div>
				<div className="grid grid-cols-2 gap-2">
					<button
						type="button"
						className="num min-h-[64px] border border-ink text-[16px] font-semibold disabled:text-ink-2"
						disabled={undoLabel === null}
						onClick={onUndo}
					>
						Undo{undoLabel && <span className="block truncate text-[13px] font-normal">{undoLabel}</span>}
					</button>
					<button
						type="button"
						className="num min-h-[64px] border border-ink text-[16px] font-semibold disabled:text-ink-2"
						disabled={!ready || progress.finished}
						onClick={() => onReps(reps, null)}
					>
						Done, not judged
					</button>
				</div>
				<p className="text-center text-[14px]">Set done, and it was …</p>
			</div>
			<RatingRow mayRate={ready && !progress.finished} onRate={(grade) => onReps(reps, grade)} reports={reports} />
		</>
	)
}
