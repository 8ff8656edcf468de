import type { Closure } from '../vocabulary/care'
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
