import type { LogEvent } from '../vocabulary/events'
import { writeDistance } from '../words/units'

/** A phone may be hours or years off; what a calendar cannot hold is refused. */
const EARLIEST = Date.UTC(2000, 0, 1)
const LATEST = Date.UTC(2100, 0, 1)

/** Rules a schema cannot say. Null when the event is sound. */
export function unsound(event: LogEvent): { field: string; reason: string } | null {
	const taken = Date.parse(event.deviceTime)
	if (!(taken >= EARLIEST && taken < LATEST))
		return { field: 'deviceTime', reason: `${event.deviceTime} is not a time between 2000 and 2100` }
	if (event.replacesId === event.id) return { field: 'replacesId', reason: 'an event cannot replace itself' }
	if (event.type === 'mark' && event.kind === 'sprint') {
		for (const [index, split] of event.value.splits.entries()) {
			const before = event.value.splits[index - 1]
			if (before && !(split.distanceM > before.distanceM && split.timeS > before.timeS)) {
				return {
					field: `value.splits.${index}`,
					reason: `${split.timeS} s at ${writeDistance(split.distanceM)} must come after ${before.timeS} s at ${writeDistance(before.distanceM)}`,
				}
			}
			const from = before ?? { distanceM: 0, timeS: 0 }
			const speed = (split.distanceM - from.distanceM) / (split.timeS - from.timeS)
			if (speed > 13)
				return {
					field: `value.splits.${index}`,
					reason: `${split.timeS} s at ${writeDistance(split.distanceM)} would be ${speed.toFixed(1)} m/s; nobody runs over 13`,
				}
		}
	}
	return null
}
