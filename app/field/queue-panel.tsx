import { restLabel } from './field-screen'
import type { LineProgress } from './queue'

interface Props {
	queue: LineProgress[]
	away: { id: string; name: string }[]
	nameOf: (id: string) => string
	now: number
	onPick: (athleteId: string) => void
	onAttendance: (athleteId: string, present: boolean) => void
	onClose: () => void
}

/** Everybody on this drill: who is ready, who rests, who is done, who is not here. */
export function QueuePanel({ queue, away, nameOf, now, onPick, onAttendance, onClose }: Props) {
	return (
		<div className="sun fixed inset-0 z-20 overflow-auto bg-paper p-4 text-ink" role="dialog" aria-modal="true" aria-label="Queue">
			<div className="mx-auto max-w-[560px]">
				<div className="flex items-center justify-between"><h1 className="text-[26px]">Queue</h1><button type="button" className="btn btn-quiet min-h-[64px]" onClick={onClose}>Close</button></div>
				<ul className="mt-3">
					{queue.map((progress) => (
						<li key={progress.line.id} className="flex items-stretch justify-between gap-2 border-t border-chalk">
							<button type="button" className="min-h-[64px] flex-1 text-left" onClick={() => onPick(progress.line.athleteId)}><b className="text-[18px]">{nameOf(progress.line.athleteId)}</b><span className="block text-[15px]">{progress.repsDone} of {progress.planned} · {restLabel(progress, now)} · {progress.line.words}</span></button>
							<button type="button" className="min-h-[64px] px-3 text-[15px] underline" onClick={() => onAttendance(progress.line.athleteId, false)}>Not here</button>
						</li>
					))}
					{away.map((athlete) => (
						<li key={athlete.id} className="flex items-center justify-between gap-2 border-t border-chalk"><span className="min-h-[64px] content-center">{athlete.name}, not here</span><button type="button" className="min-h-[64px] px-3 text-[15px] underline" onClick={() => onAttendance(athlete.id, true)}>Has come</button></li>
					))}
				</ul>
			</div>
		</div>
	)
}
