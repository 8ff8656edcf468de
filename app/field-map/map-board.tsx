import { DndContext, type DragMoveEvent, PointerSensor, useDraggable, useSensor, useSensors } from '@dnd-kit/core'
import { type ReactNode, useRef, useState } from 'react'
import { GRID_M, type Station, TURN_DEG, refusalOf, snap } from '#core/field-map/layout'
import type { Ground, Placement } from '#core/field-map/types'
import { MapDrawing, viewOf } from './map-drawing'

interface Props {
	ground: Ground
	stations: Station[]
	placements: Placement[]
	selected: string | null
	editable: boolean
	onSelect: (entryId: string) => void
	/** A move that nothing forbids. */
	onMove: (placement: Placement) => void
	onRefused: (sentence: string) => void
}

const FAR_M = 5
const ARROWS: Record<string, readonly [number, number]> = {
	ArrowLeft: [-1, 0],
	ArrowRight: [1, 0],
	ArrowUp: [0, 1],
	ArrowDown: [0, -1],
}

/** The map to scale; stations are dragged, or moved by arrows and turned by R. A move into a throw sector or off the ground is refused and falls back. */
export function MapBoard({ ground, stations, placements, selected, editable, onSelect, onMove, onRefused }: Props) {
	const svg = useRef<SVGSVGElement>(null)
	const [drag, setDrag] = useState<Placement | null>(null)
	const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 4 } }))
	const { width, height } = viewOf(ground)
	const placementOf = (entryId: string) => placements.find((one) => one.entryId === entryId)
	/** As the drawing shows it by its number, and the list by its name. */
	const nameOf = (entryId: string) => {
		const index = stations.findIndex((one) => one.entryId === entryId)
		return `${index + 1} ${stations[index]!.name}`
	}
	const dragged = ({ active, delta }: Pick<DragMoveEvent, 'active' | 'delta'>): Placement | null => {
		const from = placementOf(String(active.id))
		const pxPerM = (svg.current?.getBoundingClientRect().width ?? 0) / width
		return from && pxPerM > 0 ? snap({ ...from, x: from.x + delta.x / pxPerM, y: from.y - delta.y / pxPerM }) : null
	}
	const offer = (placement: Placement) => {
		const refusal = refusalOf(stations, placements, placement, ground)
		if (refusal) onRefused(refusal)
		else onMove(placement)
	}
	const shown = placements.map((one) => (drag?.entryId === one.entryId ? drag : one))
	const wrong = new Set(drag && refusalOf(stations, placements, drag, ground) ? [drag.entryId] : [])
	return (
		<DndContext
			sensors={sensors}
			onDragStart={({ active }) => onSelect(String(active.id))}
			onDragMove={(event) => setDrag(dragged(event))}
			onDragCancel={() => setDrag(null)}
			onDragEnd={(event) => {
				const at = dragged(event)
				setDrag(null)
				if (at) offer(at)
			}}
		>
			<svg
				ref={svg}
				viewBox={`0 0 ${width} ${height}`}
				className="block w-full min-w-[640px] select-none text-ink"
				style={{ fontFamily: 'var(--font-head)' }}
				role="group"
				aria-label={`Map of ${ground.name}, ${ground.lengthM} by ${ground.widthM} metres`}
			>
				<MapDrawing
					ground={ground}
					stations={stations}
					placements={shown}
					wrong={wrong}
					selected={selected}
					hold={(entryId, drawing) => (
						<Held
							key={entryId}
							entryId={entryId}
							name={nameOf(entryId)}
							at={placementOf(entryId)!}
							editable={editable}
							onSelect={() => onSelect(entryId)}
							onKey={(key, shift) => {
								const from = placementOf(entryId)!
								const step = ARROWS[key]
								if (step)
									offer(
										snap({
											...from,
											x: from.x + step[0] * (shift ? FAR_M : GRID_M),
											y: from.y + step[1] * (shift ? FAR_M : GRID_M),
										}),
									)
								else if (key.toLowerCase() === 'r')
									offer(snap({ ...from, turnDeg: from.turnDeg + (shift ? -TURN_DEG : TURN_DEG) }))
								else return false
								return true
							}}
						>
							{drawing}
						</Held>
					)}
				/>
			</svg>
		</DndContext>
	)
}

function Held({
	entryId,
	name,
	at,
	editable,
	onSelect,
	onKey,
	children,
}: {
	entryId: string
	name: string
	at: Placement
	editable: boolean
	onSelect: () => void
	onKey: (key: string, shift: boolean) => boolean
	children: ReactNode
}) {
	const { listeners, setNodeRef } = useDraggable({ id: entryId, disabled: !editable })
	return (
		<g
			// The library measures any element; only its types speak of HTML.
			ref={(node) => setNodeRef(node as unknown as HTMLElement | null)}
			{...listeners}
			tabIndex={0}
			role="button"
			aria-label={`${name}, ${at.x} m along, ${at.y} m up, turned ${at.turnDeg} degrees`}
			className={editable ? 'cursor-grab touch-none' : ''}
			onFocus={onSelect}
			onKeyDown={(event) => {
				if (editable && onKey(event.key, event.shiftKey)) event.preventDefault()
			}}
		>
			{children}
		</g>
	)
}
