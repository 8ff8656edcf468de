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
import type { LineProgress } from '#core/field/line-progress'
import { CHOICE, SheetPanel } from './sheet-panel'
import { restLabel } from './say-event'
import { useNow } from './use-now'

interface Props {
	queue: LineProgress[]
	away: { id: string; name: string }[]
	nameOf: (id: string) => string
	groupOf: (id: string) => number
	groups: number[]
	group: number
	clock: () => number
	onGroup: (group: number) => void
	onSplit: () => void
	onMove: (athleteId: string, toIndex: number) => void
	onPick: (athleteId: string) => void
	onAttendance: (athleteId: string, present: boolean) => void
	onClose: () => void
}

/** Everybody on this drill: who is ready, who rests, who is done, who is not here; dragged or moved by keys into another order. */
export function QueuePanel({
	queue,
	away,
	nameOf,
	groupOf,
	groups,
	group,
	clock,
	onGroup,
	onSplit,
	onMove,
	onPick,
	onAttendance,
	onClose,
}: Props) {
	const now = useNow(clock)
	const sensors = useSensors(
		useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
		useSensor(TouchSensor, { activationConstraint: { delay: 150, tolerance: 8 } }),
		useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
	)
	const ids = queue.map((progress) => progress.line.athleteId)
	const dropped = ({ active, over }: DragEndEvent) => {
		if (over && active.id !== over.id) onMove(String(active.id), ids.indexOf(String(over.id)))
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
							onClick={() => onGroup(one)}
						>
							{one === 0 ? 'All' : `Group ${one}`}
						</button>
					))
				) : (
					<button type="button" className={`${CHOICE} col-span-4`} onClick={onSplit}>
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
								onAway={(id) => onAttendance(id, false)}
							/>
						))}
					</ul>
				</SortableContext>
			</DndContext>
			<ul>
				{away.map((athlete) => (
					<li key={athlete.id} className="flex items-center justify-between gap-2 border-t border-chalk">
						<span className="min-h-[64px] content-center">{athlete.name}, not here</span>
						<button
							type="button"
							className="min-h-[64px] px-3 text-[15px] underline"
							onClick={() => onAttendance(athlete.id, true)}
						>
							Has come
						</button>
					</li>
				))}
			</ul>
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
					{progress.repsDone} of {progress.planned} · {restLabel(progress, now)} · {progress.line.words}
				</span>
			</button>
			<button type="button" className="min-h-[64px] px-2 text-[15px] underline" onClick={() => onAway(athleteId)}>
				Not here
			</button>
		</li>
	)
}
