import { useEffect, useRef } from 'react'
import { isNext, type LineProgress, restLeft } from '#core/field/line-progress'
import { restLabel, shortName } from '#core/field/say-event'
import { type SignalSettings, restIsOver } from './signals'
import { useNow } from './use-now'

interface Props {
	queue: readonly LineProgress[]
	onLine: readonly LineProgress[]
	/** Why the session was ended; null while it goes on. */
	ended: string | null
	nameOf: (id: string | null) => string
	clock: () => number
	alerts: SignalSettings
	onOpen: () => void
}

/** Who comes next and how long they still rest. It alone ticks: the rest of the screen stands still between taps. */
export function QueueBar({ queue, onLine, ended, nameOf, clock, alerts, onOpen }: Props) {
	const now = useNow(clock)
	const ready = queue
		.filter((progress) => isNext(progress) && now > 0 && progress.lastAt !== null && restLeft(progress, now) === 0)
		.map((progress) => progress.line.id)
		.join()
	const readyBefore = useRef(ready)
	useEffect(() => {
		const before = new Set(readyBefore.current.split(','))
		if (ready.split(',').some((id) => id !== '' && !before.has(id))) restIsOver(alerts)
		readyBefore.current = ready
	}, [ready, alerts])
	const at = queue.indexOf(onLine.at(-1)!)
	const next = [...queue.slice(at + 1), ...queue.slice(0, Math.max(0, at))]
		.filter((progress) => isNext(progress) && !onLine.includes(progress))
		.slice(0, 2)
	return (
		<button
			type="button"
			data-at="queue"
			className="flex min-h-[64px] items-center justify-between gap-2 border-t border-chalk bg-paper px-4 pb-[env(safe-area-inset-bottom)] text-[15px] max-[899px]:sticky max-[899px]:bottom-0"
			onClick={onOpen}
		>
			<span className="sr-only">Queue: </span>
			{next.map((progress) => (
				<span key={progress.line.id} className="truncate">
					<b>{shortName(nameOf(progress.line.athleteId))}</b> {restLabel(progress, now)}
				</span>
			))}
			{!queue.some(isNext) && (
				<span>{ended === null ? 'Everybody is done here; the next drill is ›' : `Ended: ${ended}`}</span>
			)}
			<span className="shrink-0 underline">all {queue.length}</span>
		</button>
	)
}
