import { addTo } from '../lists/group-by'
import type { LogEvent, Mark } from '../vocabulary/events'
import type { FieldLine } from './pack'

/** Two people who log one rep tap within this of each other, at the least. */
const LEAST_APART_MS = 10_000

/**
 * Marks that may be one rep logged twice: same athlete and drill, from two sources (phones, or a phone and
 * a device), within ten seconds or half the rest between reps, whichever is longer. Both are kept; a person says which
 * it was.
 *
 * @param events what stands now
 * @param settled pairs that were said to be two reps, by `pairOf`
 */
export function likelyDoubles(
	events: readonly LogEvent[],
	lines: readonly Pick<FieldLine, 'id' | 'rest'>[],
	settled: ReadonlySet<string> = new Set(),
): [Mark, Mark][] {
	const restOf = new Map(lines.map((line) => [line.id, line.rest.repsS]))
	const groups = new Map<string, Mark[]>()
	for (const event of events) {
		if (event.type !== 'mark' || event.kind === 'missed') continue
		const key = `${event.athleteId}/${event.entryId}/${event.kind}/${event.side ?? ''}/${event.piece ?? ''}`
		addTo(groups, key, event)
	}
	const pairs: [Mark, Mark][] = []
	for (const marks of groups.values()) {
		marks.sort((a, b) => Date.parse(a.deviceTime) - Date.parse(b.deviceTime) || (a.id < b.id ? -1 : 1))
		for (const [index, mark] of marks.entries()) {
			const next = marks[index + 1]
			if (!next) continue
			const apart = Date.parse(next.deviceTime) - Date.parse(mark.deviceTime)
			const limit = Math.max(LEAST_APART_MS, ((restOf.get(mark.lineId) ?? 0) * 1000) / 2)
			const sameRun = mark.source !== undefined && mark.source === next.source
			if (sameRun || (apart <= limit && sourceOf(mark) !== sourceOf(next))) {
				if (!settled.has(pairOf(mark, next))) pairs.push([mark, next])
			}
		}
	}
	return pairs
}

export const pairOf = (a: LogEvent, b: LogEvent): string => [a.id, b.id].sort().join(' ')

/** A run from the gates is a source of its own, whichever phone wrote it down. */
const sourceOf = (mark: Mark): string => (mark.source ? 'device' : mark.deviceId)
