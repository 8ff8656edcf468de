import { cutClassOf, intensityOf } from './count-rep'
import type { Drill } from '../vocabulary/drill'
import type { Parameters } from '../vocabulary/dose'
import type { WorkKind } from '../vocabulary/words'

/** How far around a session other work is looked at, days: the longest spacing a school may ask, 96 h. */
export const NEAR_DAYS = 4

const fast = (drill: Drill) =>
	drill.family === 'sprint' && ['fast', 'maximal'].includes(drill.counting.metres?.plannedZone ?? '')
/** A planned sharp cut or a dead stop at speed. */
const turnsHard = (drill: Drill, parameters: Parameters) =>
	drill.family === 'agility' &&
	drill.intensity === 'high' &&
	(drill.counting.deadStops !== undefined ||
		(drill.counting.cuts !== undefined &&
			['60-90', '90-135', '135-180'].includes(cutClassOf(parameters.angleDeg ?? 0))))

/** The kinds of hard work a line is; two days of one kind want time between them. */
export function kindsOf(drill: Drill, parameters: Parameters): WorkKind[] {
	const kinds: WorkKind[] = []
	if (fast(drill)) kinds.push('maximal-sprint')
	if (turnsHard(drill, parameters)) kinds.push('hard-turns')
	if (drill.family === 'plyometric' && ['high', 'shock'].includes(intensityOf(drill, parameters)))
		kinds.push('hard-jumps')
	if (drill.family === 'throw' && drill.intensity === 'high') kinds.push('maximal-throws')
	return kinds
}

/** High, shock or maximal: what counts as a new hard thing, and what nobody does unwell. */
export const isHard = (drill: Drill, parameters: Parameters): boolean =>
	['high', 'shock'].includes(intensityOf(drill, parameters)) || fast(drill)

export const WORK_KIND_NAMES: Record<WorkKind, string> = {
	'maximal-sprint': 'maximal sprinting',
	'hard-turns': 'hard changes of direction',
	'hard-jumps': 'high and shock jumps',
	'maximal-throws': 'maximal throws',
}
