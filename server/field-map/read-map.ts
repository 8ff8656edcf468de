import { foldEvents } from '../../core/events/fold'
import { type Station, autoLayout } from '../../core/field-map/layout'
import { joinShapes, stationShape } from '../../core/field-map/station-shape'
import type { Ground, Placement } from '../../core/field-map/types'
import type { ClubScope } from '../../db/connect'
import { distanceMarks, listGrounds, readLayouts } from '../../db/queries/grounds'
import { entryName } from '../../core/plan/entry-parts'
import type { Sheet } from '../sheet/read-sheet'

export interface SessionMap {
	grounds: Ground[]
	ground: Ground
	stations: Station[]
	placements: Placement[]
	/** Stations this ground has no room for, when nobody has placed them yet. */
	unplaced: { entryId: string; sentence: string }[]
	/** Whether somebody has saved this plan; otherwise it is a proposal. */
	saved: boolean
}

/** The stations of a session and where they stand on a ground; null where the club has no such ground. */
export async function readMap(
	scope: ClubScope,
	sheet: Sheet,
	groundId: string | null,
): Promise<SessionMap | { grounds: Ground[] }> {
	const grounds = await listGrounds(scope)
	const surface = sheet.session.surface === 'wet-grass' ? 'grass' : sheet.session.surface
	const ground =
		grounds.find((one) => one.id === groundId) ??
		grounds.find((one) => one.name === sheet.session.place) ??
		grounds.find((one) => one.surface === surface) ??
		grounds[0]
	if (!ground) return { grounds }
	const stations = await readStations(scope, sheet)
	const kept = (await readLayouts(scope, sheet.session.id)).find((layout) => layout.groundId === ground.id)
	const known =
		kept?.placements.filter((placement) => stations.some((station) => station.entryId === placement.entryId)) ?? []
	if (known.length > 0) return { grounds, ground, stations, placements: known, unplaced: [], saved: true }
	const { placements, unplaced } = autoLayout(stations, ground)
	return { grounds, ground, stations, placements, unplaced, saved: false }
}

/** Each entry that needs a place, with the ground all its lines need together. */
async function readStations(scope: ClubScope, sheet: Sheet): Promise<Station[]> {
	const throwing = Object.values(sheet.library.drills)
		.filter((drill) => drill.family === 'throw')
		.map((drill) => drill.id)
	const { current } = foldEvents(
		await distanceMarks(
			scope,
			sheet.athletes.map((athlete) => athlete.id),
			throwing,
		),
	)
	const longest = current.reduce<number | null>(
		(most, { value }) => (typeof value.distanceM === 'number' ? Math.max(most ?? 0, value.distanceM) : most),
		null,
	)
	return sheet.entries.flatMap((entry): Station[] => {
		const lines = sheet.athletes.flatMap((athlete) =>
			athlete.lines.filter((line) => line.entryId === entry.id && line.blocked === null && line.drill !== null),
		)
		const distinct = new Map(lines.map((line) => [`${line.drillId}/${JSON.stringify(line.parameters)}`, line]))
		const shapes = [...distinct.values()].flatMap(
			(line) => stationShape(line.drill!, line.parameters, entry.lanes, longest) ?? [],
		)
		return shapes.length > 0
			? [{ entryId: entry.id, name: entryName(entry, sheet.library), lanes: entry.lanes, shape: joinShapes(shapes) }]
			: []
	})
}
