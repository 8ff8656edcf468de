import type { Closure, Restriction } from '../vocabulary/care'
import type { Drill } from '../vocabulary/drill'
import { EVERYTHING, REGION_NAMES } from '../vocabulary/words'
import type { Form } from './form'

/** From this load on, 1 a little to 3 a lot, a spared region bars a drill; a closed one bars every load. */
export const SPARED_LOAD = 2

/** "left knee", "everything" */
export const placeOf = ({ region, side }: { region: Closure['region']; side?: string | null | undefined }): string =>
	region === EVERYTHING ? 'everything' : `${side && side !== 'both' ? `${side} ` : ''}${REGION_NAMES[region]}`

/** Whether a closure of a region bars a form of a drill. */
export function bars(closure: Closure, { drill, intensity }: Pick<Form, 'drill' | 'intensity'>): boolean {
	if (closure.region === EVERYTHING) return true
	const load = drill.regions[closure.region] ?? 0
	if (load === 0 || closure.grade === 'noted') return false
	if (closure.grade === 'closed') return true
	return load >= SPARED_LOAD || intensity === 'high' || intensity === 'shock'
}

/** What was closed by hand, wherever it is kept. */
export interface Restricted {
	region?: Restriction['region'] | null
	pattern?: Restriction['pattern'] | null
	drillId?: string | null | undefined
}
/** Closing a pattern closes moving in it, not holding still or preparing. */
const moves = (drill: Drill) => drill.family !== 'prepare' && drill.family !== 'tissue'

/** Whether a restriction speaks of a drill: it is the drill, loads the region, or moves in the pattern. */
export const restrictsDrill = ({ region, pattern, drillId }: Restricted, drill: Drill): boolean =>
	region === EVERYTHING ||
	(region != null && (drill.regions[region] ?? 0) > 0) ||
	(pattern != null && pattern === drill.pattern && moves(drill)) ||
	(drillId != null && drillId === drill.id)
