import { type AskedWork, type LinePart, linePartsOf } from '../../core/vocabulary/line-parts'
import type { Drill } from '../../core/vocabulary/drill'
import type { ClubScope } from '../../db/connect'
import { readDrills } from '../../db/queries/library'
import type { LineRow } from '../../db/queries/sessions'

type Citing = Pick<LineRow, 'drillId' | 'drillVersion' | 'pieces'>
/** A line that is open, as what it asks. */
type Open<T extends Citing> = T & { drillId: string }

/** The drills some lines cite: a line its own version, a piece of a complex the newest. */
export interface DrillsOfLines {
	/** The drill a line, or a piece of it, cites; by the drill's id. */
	of: (line: Citing) => (drillId: string) => Drill | null
	/** Every drill of a line with what is asked of it; none of a line that is blocked. */
	parts: <T extends Citing & Pick<LineRow, 'dose' | 'parameters' | 'blocked'>>(
		line: T,
	) => (LinePart & { drill: Drill })[]
	/** A line as work that can be counted; null where it is blocked or cites a drill nobody knows. */
	work: <T extends Citing & Pick<LineRow, 'dose' | 'parameters' | 'blocked'>>(line: T) => (AskedWork & Open<T>) | null
}

/** The ids of the drills a line cites. */
export const idsOf = ({ drillId, pieces }: Pick<Citing, 'drillId' | 'pieces'>): string[] => [
	...(drillId === null ? [] : [drillId]),
	...(pieces ?? []).map((piece) => piece.drillId),
]

export const readDrillsOfLines = async (scope: ClubScope, lines: readonly Citing[]): Promise<DrillsOfLines> =>
	drillsOfLines(await readDrills(scope, lines.flatMap(idsOf)))

/** @param drills by "id/version" */
export function drillsOfLines(drills: ReadonlyMap<string, Drill>): DrillsOfLines {
	const newest = new Map<string, Drill>()
	for (const drill of drills.values())
		if (drill.version > (newest.get(drill.id)?.version ?? -1)) newest.set(drill.id, drill)
	const of = (line: Citing) => (id: string) =>
		(id === line.drillId ? drills.get(`${id}/${line.drillVersion}`) : newest.get(id)) ?? null
	const work: DrillsOfLines['work'] = (line) =>
		line.blocked === null && line.drillId !== null && of(line)(line.drillId) !== null
			? (line as AskedWork & Open<typeof line>)
			: null
	return {
		of,
		work,
		parts: (line) => {
			const asked = work(line)
			return asked
				? linePartsOf(asked).flatMap((part) => {
						const drill = of(line)(part.drillId)
						return drill ? [{ ...part, drill }] : []
					})
				: []
		},
	}
}
