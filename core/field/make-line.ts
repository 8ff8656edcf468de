import { dropOffLimit } from '../judge/read-fall'
import { sidedOf } from '../dose/sides'
import type { Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { PlannedLine } from '../vocabulary/line'
import type { School } from '../vocabulary/school'
import { writeDrill } from '../words/write-numbers'
import type { FieldLine, FieldPiece } from './pack'

/** What of a line is its athlete's alone. */
export type OwnOfLine = Partial<
	Pick<FieldLine, 'target' | 'own' | 'lastTime' | 'errors' | 'bests' | 'usuals' | 'firstMetres' | 'blocked' | 'over'>
>

/** The newest of the drills a sheet brings under an id; null where it brings none. */
export const drillNamed = (drills: Readonly<Record<string, Drill>>, id: string): Drill | null =>
	Object.values(drills)
		.filter((drill) => drill.id === id)
		.sort((a, b) => b.version - a.version)[0] ?? null

/**
 * A line as the field shows it, from what is planned and the drill it cites.
 *
 * @param drill null where the line is closed or cites a drill nobody knows: there is nothing to do then
 * @param drillOf the drills of a complex's pieces, by id; a complex with a piece nobody knows is its judged piece alone
 */
export function makeLine(
	place: Pick<FieldLine, 'id' | 'entryId' | 'athleteId'>,
	planned: Pick<PlannedLine, 'dose' | 'parameters' | 'rest'> &
		Nullable<Pick<PlannedLine, 'sides' | 'pieces' | 'carried'>>,
	drill: Drill | null,
	school: School,
	own: OwnOfLine = {},
	drillOf: (drillId: string) => Drill | null | undefined = () => null,
): FieldLine {
	const { dose, parameters, rest, sides, pieces, carried } = planned
	const { blocked = null, over = null, ...ofDrill } = own
	const line: FieldLine = {
		...place,
		...ofTheDrill(drill, parameters, school),
		dose,
		rest,
		...(carried ? { carried } : {}),
		...ofDrill,
		blocked,
		over,
	}
	if (line.sided && sides) line.sides = sides
	const whole = pieces?.map((piece): FieldPiece | null => {
		const known = piece.judged ? drill : drillOf(piece.drillId)
		return known
			? {
					...ofTheDrill(known, piece.parameters, school),
					...(piece.judged ? ofDrill : {}),
					reps: piece.reps,
					rest: piece.rest,
					judged: piece.judged,
				}
			: null
	})
	const known = whole?.filter((piece) => piece !== null)
	return known && known.length === whole!.length ? { ...line, pieces: known } : line
}
type Nullable<T> = { [K in keyof T]?: T[K] | null | undefined }

/** What of a line is its drill's. */
function ofTheDrill(
	drill: Drill | null,
	parameters: Parameters,
	school: School,
): Omit<FieldPiece, 'reps' | 'rest' | 'judged'> {
	const measured = drill?.measures[0]
	const logs = measured && measured !== 'quality' ? measured : 'done'
	const sided = drill && logs !== 'done' ? sidedOf(drill) : null
	return {
		words: drill ? writeDrill(drill, parameters) : '',
		drillName: drill?.name ?? '',
		drillId: drill?.id ?? '',
		drillVersion: drill?.version ?? 0,
		logs,
		family: drill?.family ?? 'prepare',
		parameters,
		...(sided ? { sided } : {}),
		target: logs === 'done' ? 'good by eye' : '',
		bests: {},
		usuals: {},
		cautions: drill && (drill.intensity === 'shock' || parameters.assistPercent) ? drill.cautions : [],
		cues: drill?.cues ?? [],
		lookFor: drill?.lookFor ?? [],
		dropOffPercent: drill ? dropOffLimit(logs === 'done' ? 'sprint' : logs, drill, school) : 0,
	}
}
