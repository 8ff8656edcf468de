import type { ReactNode } from 'react'
import { place } from '#core/field-map/geometry'
import { type Station, placedZones } from '#core/field-map/layout'
import type { ZoneKind } from '#core/field-map/station-shape'
import type { Ground, Placement, Point } from '#core/field-map/types'

/** Metres around the ground for its ticks and its scale: more where the letters are larger. */
const marginOf = ({ lengthM }: Ground) => Math.max(2.6, lengthM / 20)
export const viewOf = (ground: Ground) => ({
	width: ground.lengthM + 2 * marginOf(ground),
	height: ground.widthM + 2 * marginOf(ground),
})

const LOOKS: Record<ZoneKind, { fill: string; dash?: readonly number[]; weight: number }> = {
	queue: { fill: 'none', dash: [0.3, 0.6], weight: 0.12 },
	run: { fill: 'none', weight: 0.22 },
	'run-in': { fill: 'none', dash: [1, 0.5], weight: 0.16 },
	'run-out': { fill: 'url(#run-out)', dash: [1, 0.5], weight: 0.12 },
	stand: { fill: 'none', weight: 0.22 },
	sector: { fill: 'url(#sector)', weight: 0.16 },
}

interface Props {
	ground: Ground
	stations: readonly Station[]
	placements: readonly Placement[]
	/** Entries something is wrong with where they stand. */
	wrong?: ReadonlySet<string>
	selected?: string | null
	/** Height of a letter, m on the ground, where the drawing is small. */
	letterM?: number
	/** Wraps a station's drawing, so that it can be taken hold of. */
	hold?: (entryId: string, drawing: ReactNode) => ReactNode
}

/** The inside of the map's drawing, in metres, y upwards; everything is told apart by lines and hatching, so that it prints in black. */
export function MapDrawing({
	ground,
	stations,
	placements,
	wrong,
	selected,
	letterM,
	hold = (_, drawing) => drawing,
}: Props) {
	const { lengthM, widthM } = ground
	const margin = marginOf(ground)
	const at = ({ x, y }: Point): Point => ({ x: x + margin, y: widthM - y + margin })
	const points = (those: readonly Point[]) =>
		those
			.map(at)
			.map(({ x, y }) => `${x.toFixed(2)},${y.toFixed(2)}`)
			.join(' ')
	const letter = letterM ?? Math.max(0.8, lengthM / 62)
	/** Lines keep their weight on the paper, whatever the ground measures. */
	const line = letter / 1.6
	const ticks = (to: number) => Array.from({ length: Math.floor(to / 10) + 1 }, (_, index) => index * 10)
	const corner = at({ x: 0, y: widthM })
	return (
		<>
			<defs>
				<pattern id="run-out" width="1.2" height="1.2" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
					<line x1="0" y1="0" x2="0" y2="1.2" stroke="currentColor" strokeWidth="0.12" opacity="0.55" />
				</pattern>
				<pattern id="sector" width="0.9" height="0.9" patternUnits="userSpaceOnUse" patternTransform="rotate(-45)">
					<line x1="0" y1="0" x2="0" y2="0.9" stroke="currentColor" strokeWidth="0.22" opacity="0.5" />
					<line x1="0" y1="0" x2="0.9" y2="0" stroke="currentColor" strokeWidth="0.1" opacity="0.5" />
				</pattern>
			</defs>
			{ticks(lengthM).map((x) => (
				<line
					key={`x${x}`}
					x1={at({ x, y: 0 }).x}
					x2={at({ x, y: 0 }).x}
					y1={corner.y}
					y2={corner.y + widthM}
					stroke="currentColor"
					strokeWidth={0.06 * line}
					opacity="0.3"
				/>
			))}
			{ticks(widthM).map((y) => (
				<line
					key={`y${y}`}
					y1={at({ x: 0, y }).y}
					y2={at({ x: 0, y }).y}
					x1={corner.x}
					x2={corner.x + lengthM}
					stroke="currentColor"
					strokeWidth={0.06 * line}
					opacity="0.3"
				/>
			))}
			<rect
				x={corner.x}
				y={corner.y}
				width={lengthM}
				height={widthM}
				fill="none"
				stroke="currentColor"
				strokeWidth={0.35 * line}
			/>
			{ticks(lengthM).map((x) => (
				<text
					key={x}
					x={at({ x, y: 0 }).x}
					y={corner.y + widthM + letter * 1.15}
					fontSize={letter * 0.85}
					textAnchor="middle"
					fill="currentColor"
				>
					{x}
				</text>
			))}
			{ticks(widthM)
				.filter((y) => y > 0)
				.map((y) => (
					<text
						key={y}
						x={corner.x - letter * 0.35}
						y={at({ x: 0, y }).y + letter * 0.3}
						fontSize={letter * 0.85}
						textAnchor="end"
						fill="currentColor"
					>
						{y}
					</text>
				))}
			<text
				x={corner.x + lengthM}
				y={corner.y + widthM + letter * 2.3}
				fontSize={letter * 0.85}
				textAnchor="end"
				fill="currentColor"
			>
				metres from the base corner, grid of 10 m
			</text>
			{stations.map((station, index) => {
				const placement = placements.find((one) => one.entryId === station.entryId)
				if (!placement) return null
				const off = wrong?.has(station.entryId) ?? false
				const start = at(placement)
				const drawing = (
					<g color={off ? 'var(--color-attn, #b3261e)' : undefined}>
						{placedZones(station, placement).map((zone, zoneIndex) => (
							<polygon
								key={zoneIndex}
								points={points(zone.polygon)}
								fill={LOOKS[zone.kind].fill}
								stroke="currentColor"
								strokeWidth={LOOKS[zone.kind].weight * line * (selected === station.entryId ? 2 : 1)}
								strokeDasharray={LOOKS[zone.kind].dash?.map((part) => part * line).join(' ')}
								pointerEvents="all"
							/>
						))}
						{station.shape.paths.map((path, pathIndex) => (
							<polyline
								key={pathIndex}
								points={points(path.map((point) => place(point, placement, placement.turnDeg)))}
								fill="none"
								stroke="currentColor"
								strokeWidth={0.09 * line}
								opacity="0.7"
							/>
						))}
						{station.shape.cones.map((cone, coneIndex) => {
							const { x, y } = at(place(cone, placement, placement.turnDeg))
							return (
								<path
									key={coneIndex}
									d={`M${x} ${y - 0.55 * line}l${0.5 * line} ${0.9 * line}h${-line}z`}
									fill="currentColor"
								/>
							)
						})}
						<circle
							cx={start.x}
							cy={start.y}
							r={letter * 0.75}
							fill="var(--color-paper, #fff)"
							stroke="currentColor"
							strokeWidth={0.14 * line}
						/>
						<text
							x={start.x}
							y={start.y + letter * 0.34}
							fontSize={letter}
							fontWeight="700"
							textAnchor="middle"
							fill="currentColor"
						>
							{index + 1}
						</text>
					</g>
				)
				return <g key={station.entryId}>{hold(station.entryId, drawing)}</g>
			})}
		</>
	)
}
