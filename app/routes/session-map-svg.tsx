import { renderToStaticMarkup } from 'react-dom/server'
import { readMap } from '#server/field-map/read-map'
import { readSheet } from '#server/sheet/read-sheet'
import type { Route } from './+types/session-map-svg'
import { allowed, notFound } from '../request-guard'
import { MapDrawing, viewOf } from '../field-map/map-drawing'

/** The map as a drawing of its own, a millimetre for a decimetre, black on white. */
export async function loader({ context, request, params }: Route.LoaderArgs) {
	const { scope } = allowed(context, request, 'plan:read')
	const sheet = await readSheet(scope, params.sessionId)
	const map = sheet && (await readMap(scope, sheet, new URL(request.url).searchParams.get('ground')))
	if (!sheet || !map || !('ground' in map)) throw notFound()
	const { width, height } = viewOf(map.ground)
	const names = map.stations.map((station, index) => `${index + 1} ${station.name}`).join(' · ')
	const svg = renderToStaticMarkup(
		<svg
			xmlns="http://www.w3.org/2000/svg"
			width={`${width * 10}mm`}
			height={`${height * 10}mm`}
			viewBox={`0 0 ${width} ${height}`}
			color="#000"
			style={{ background: '#fff', fontFamily: 'sans-serif' }}
		>
			<title>{`${sheet.session.squadName}, ${sheet.session.day}, ${map.ground.name}`}</title>
			<desc>{names}</desc>
			<MapDrawing ground={map.ground} stations={map.stations} placements={map.placements} />
			<text x={map.ground.lengthM / 20} y={map.ground.lengthM / 35} fontSize={map.ground.lengthM / 70}>
				{names}
			</text>
		</svg>,
	)
	return new Response(svg, {
		headers: {
			'content-type': 'image/svg+xml; charset=utf-8',
			'content-disposition': `attachment; filename="map-${sheet.session.day}.svg"`,
		},
	})
}
