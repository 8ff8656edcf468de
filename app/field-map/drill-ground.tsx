import { stationShape } from '#core/field-map/station-shape'
import type { Drill } from '#core/vocabulary/drill'
import { MapDrawing, viewOf } from './map-drawing'

/** Ground left free around a drill that is drawn alone, m. */
const AROUND_M = 1

/** The ground a drill takes with its own numbers, one lane of it, as the map draws it; nothing for what takes none. */
export function DrillGround({ drill }: { drill: Drill }) {
	const shape = stationShape(drill, drill.defaults.parameters, 1, null)
	if (!shape) return null
	const corners = shape.zones.flatMap(({ polygon }) => polygon)
	const [away, across] = [corners.map(({ y }) => y), corners.map(({ x }) => x)]
	const span = (values: number[]) => Math.ceil(Math.max(...values) - Math.min(...values) + 2 * AROUND_M)
	// The longer way lies along the page: one runs to the right, or up where the ground is wider than long.
	const isLong = span(away) >= span(across)
	const ground = {
		id: drill.id,
		name: drill.name,
		surface: 'grass' as const,
		lengthM: isLong ? span(away) : span(across),
		widthM: isLong ? span(across) : span(away),
	}
	const start = isLong
		? { x: AROUND_M - Math.min(...away), y: AROUND_M + Math.max(...across), turnDeg: 90 }
		: { x: AROUND_M - Math.min(...across), y: AROUND_M - Math.min(...away), turnDeg: 0 }
	const { width, height } = viewOf(ground)
	return (
		<figure className="mt-6">
			<svg
				viewBox={`0 0 ${width} ${height}`}
				className="w-full max-w-[620px] text-ink"
				style={{ maxHeight: 320 }}
				role="img"
				aria-label={`The ground of ${drill.name}, ${ground.lengthM} by ${ground.widthM} metres`}
			>
				<MapDrawing
					ground={ground}
					stations={[{ entryId: drill.id, name: drill.name, shape, lanes: 1 }]}
					letterM={Math.max(0.5, ground.lengthM / 46)}
					placements={[{ entryId: drill.id, ...start }]}
				/>
			</svg>
			<figcaption className="dim text-[14px]">
				One lane; 1 is the start.
				{shape.zones.some(({ kind }) => kind === 'run-out') ? ' Hatched: room to slow down.' : ''}
			</figcaption>
		</figure>
	)
}
