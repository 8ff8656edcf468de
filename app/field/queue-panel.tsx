import {
	type Announcements,
	DndContext,
	type DragEndEvent,
	KeyboardSensor,
	PointerSensor,
	TouchSensor,
	type UniqueIdentifier,
	closestCenter,
	useSensor,
	useSensors,
} from '@dnd-kit/core'
import {
	SortableContext,
	sortableKeyboardCoordinates,
	useSortable,
	verticalListSortingStrategy,
} from '@dnd-kit/sortable'
import type { Stand } from '#core/field/session/stand'
import type { Tap } from '#core/field/session/taps'
import type { LineProgress } from '#core/field/line-progress'
import { CHOICE, SheetPanel } from './sheet-panel'
import { restLabel } from '#core/field/say-event'
import { useNow } from './use-now'
import { useUnits } from './units'

interface Props {
	stand: Stand
	clock: () => number
	onTap: (tap: Tap) => void
	onPick: (athleteId: string) => void
	onJoin: () => void
	onClose: () => void
}

/** Everybody on this drill: who is ready, who rests, who is done, who is not here; dragged or moved by keys into another order. */
export function QueuePanel({ stand, clock, onTap, onPick, onJoin, onClose }: Props) {
	const { queue, away, order, nameOf } = stand
	const { group } = stand.cursor
	const groupOf = (id: string) => order.find(({ athleteId }) => athleteId === id)?.group ?? 0
	const groups = [...new Set(order.map((place) => place.group))].sort()
	const now = useNow(clock)
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
		useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: 8 } }),
		useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
	)
	const ids = queue.map((progress) => progress.line.athleteId)
	const dropped = ({ active, over }: DragEndEvent) => {
		if (over && active.id !== over.id)
			onTap({ tap: 'move', athleteId: String(active.id), to: ids.indexOf(String(over.id)) })
	}
	return (
		<SheetPanel title="Queue" onClose={onClose}>
			<div className="mt-3 grid grid-cols-4 gap-1.5" role="group" aria-label="Group">
				{groups.length > 1 ? (
					[0, ...groups.filter((one) => one > 0)].map((one) => (
						<button
							key={one}
							type="button"
							className={CHOICE}
							aria-pressed={group === one}
							onClick={() => onTap({ tap: 'group', group: one })}
						>
							{one === 0 ? 'All' : `Group ${one}`}
						</button>
					))
				) : (
					<button type="button" className={`${CHOICE} col-span-4`} onClick={() => onTap({ tap: 'split' })}>
						Groups by level
					</button>
				)}
			</div>
			<DndContext
				sensors={sensors}
				collisionDetection={closestCenter}
				accessibility={{ announcements: saidAloud(ids, nameOf) }}
				onDragEnd={dropped}
			>
				<SortableContext items={ids} strategy={verticalListSortingStrategy}>
					<ul className="mt-3">
						{queue.map((progress) => (
							<QueueRow
								key={progress.line.athleteId}
								progress={progress}
								name={nameOf(progress.line.athleteId)}
								group={groupOf(progress.line.athleteId)}
								now={now}
								onPick={onPick}
								onAway={(athleteId) => onTap({ tap: 'here', athleteId, present: false })}
							/>
						))}
					</ul>
				</SortableContext>
			</DndContext>
			<ul>
				{[...away].map((athleteId) => (
					<li key={athleteId} className="flex items-center justify-between gap-2 border-t border-chalk">
						<span className="min-h-[64px] content-center">{nameOf(athleteId)}, not here</span>
						<button
							type="button"
							className="min-h-[64px] px-3 text-[15px] underline"
							onClick={() => onTap({ tap: 'here', athleteId, present: true })}
						>
							Has come
						</button>
					</li>
				))}
			</ul>
			<button type="button" className={`${CHOICE} mt-4 w-full`} onClick={onJoin}>
				Somebody else comes
			</button>
		</SheetPanel>
	)
}

/** What a screen reader says while a row is dragged: names and places. */
function saidAloud(ids: readonly string[], nameOf: (id: string) => string): Announcements {
	const name = (id: UniqueIdentifier) => nameOf(String(id))
	const place = (id: UniqueIdentifier) => `place ${ids.indexOf(String(id)) + 1} of ${ids.length}`
	return {
		onDragStart: ({ active }) => `${name(active.id)} is picked up from ${place(active.id)}.`,
		onDragOver: ({ active, over }) => (over ? `${name(active.id)} is over ${place(over.id)}.` : undefined),
		onDragEnd: ({ active, over }) => `${name(active.id)} is put down at ${place((over ?? active).id)}.`,
		onDragCancel: ({ active }) => `${name(active.id)} stays at ${place(active.id)}.`,
	}
}

function QueueRow({
	progress,
	name,
	group,
	now,
	onPick,
	onAway,
}: {
	progress: LineProgress
	name: string
	group: number
	now: number
	onPick: (id: string) => void
	onAway: (id: string) => void
}) {
	const { asRead } = useUnits()
	const { athleteId } = progress.line
	const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: athleteId })
	return (
		<li
			ref={setNodeRef}
			className={`flex items-stretch justify-between gap-1 border-t border-chalk bg-paper ${isDragging ? 'relative z-10 border-2 border-ink' : ''}`}
			style={{ transform: transform ? `translate3d(0, ${Math.round(transform.y)}px, 0)` : undefined, transition }}
		>
			<button
				type="button"
				className="num min-h-[64px] w-[48px] touch-none text-[22px] text-ink-2"
				aria-label={`Move ${name}`}
				{...attributes}
				{...listeners}
			>
				≡
			</button>
			<button type="button" className="min-h-[64px] min-w-0 flex-1 text-left" onClick={() => onPick(athleteId)}>
				<b className="block truncate text-[18px]">{name}</b>
				<span className="block truncate text-[15px]">
					{group > 0 && `group ${group} · `}
					{progress.repsDone} of {progress.planned} · {restLabel(progress, now)} · {asRead(progress.line.words)}
				</span>
			</button>
			<button type="button" className="min-h-[64px] px-2 text-[15px] underline" onClick={() => onAway(athleteId)}>
				Not here
			</button>
		</li>
	)
}
