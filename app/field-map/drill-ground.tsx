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
	// One runs to the right: away becomes along.
	const [along, across] = [corners.map(({ y }) => y), corners.map(({ x }) => x)]
	const [near, left] = [Math.min(...along), Math.max(...across)]
	const ground = {
		id: drill.id,
		name: drill.name,
		surface: 'grass' as const,
		lengthM: Math.ceil(Math.max(...along) - near + 2 * AROUND_M),
		widthM: Math.ceil(left - Math.min(...across) + 2 * AROUND_M),
	}
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
					placements={[{ entryId: drill.id, x: AROUND_M - near, y: AROUND_M + left, turnDeg: 90 }]}
				/>
			</svg>
			<figcaption className="dim text-[14px]">
				One lane; 1 is the start.{drill.space.runOutM ? ' Hatched: room to slow down.' : ''}
			</figcaption>
		</figure>
	)
}
