import { dropOffLimit } from '../judge/read-fall'
import { sidedOf } from '../dose/sides'
import type { SideDoses } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { PlannedLine } from '../vocabulary/line'
import type { School } from '../vocabulary/school'
import { writeDrill } from '../words/write-numbers'
import type { FieldLine } from './pack'

/** What of a line is its athlete's alone. */
export type OwnOfLine = Partial<
	Pick<FieldLine, 'target' | 'own' | 'lastTime' | 'errors' | 'bests' | 'usuals' | 'blocked' | 'over'>
>

/**
 * A line as the field shows it, from what is planned and the drill it cites.
 *
 * @param drill null where the line is closed or cites a drill nobody knows: there is nothing to do then
 */
export function makeLine(
	place: Pick<FieldLine, 'id' | 'entryId' | 'athleteId'>,
	planned: Pick<PlannedLine, 'dose' | 'parameters' | 'rest'> & { sides?: SideDoses | null | undefined },
	drill: Drill | null,
	school: School,
	own: OwnOfLine = {},
): FieldLine {
	const measured = drill?.measures[0]
	const logs = measured && measured !== 'quality' ? measured : 'done'
	const { dose, parameters, rest, sides } = planned
	const sided = drill && logs !== 'done' ? sidedOf(drill) : null
	return {
		...place,
		words: drill ? writeDrill(drill, parameters) : '',
		drillName: drill?.name ?? '',
		drillId: drill?.id ?? '',
		drillVersion: drill?.version ?? 0,
		logs,
		family: drill?.family ?? 'prepare',
		dose,
		parameters,
		rest,
		...(sided ? { sided } : {}),
		...(sided && sides ? { sides } : {}),
		target: logs === 'done' ? 'good by eye' : '',
		bests: {},
		usuals: {},
		cautions: drill && (drill.intensity === 'shock' || parameters.assistPercent) ? drill.cautions : [],
		cues: drill?.cues ?? [],
		lookFor: drill?.lookFor ?? [],
		blocked: null,
		over: null,
		dropOffPercent: drill ? dropOffLimit(logs === 'done' ? 'sprint' : logs, drill, school) : 0,
		...own,
	}
}
