import { stationShape } from '../field-map/station-shape'
import { keyOf } from '../rules/form'
import type { Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'

/** A hall's free length, m [our setting]. */
export const HALL_M = 30

const known = new WeakMap<Drill, Map<string, number>>()

/**
 * The length of ground a drill needs, m: run-in, way and run-out, by the shape the field map draws; 0 for what is done
 * on the spot. Who waits may wait beside it.
 */
export function lengthNeeded(drill: Drill, parameters: Parameters): number {
	let lengths = known.get(drill)
	if (!lengths) known.set(drill, (lengths = new Map()))
	const key = keyOf(parameters)
	let length = lengths.get(key)
	if (length === undefined) {
		const zones = stationShape(drill, parameters, 1, null)?.zones ?? []
		const ys = zones.flatMap(({ kind, polygon }) => (kind === 'queue' ? [] : polygon.map(({ y }) => y)))
		lengths.set(key, (length = ys.length === 0 ? 0 : Math.max(...ys) - Math.min(...ys)))
	}
	return length
}
