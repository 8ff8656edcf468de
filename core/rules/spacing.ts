import { type Day, hoursBetween } from '../calendar/day-count'
import type { WorkKind } from '../vocabulary/words'

/** A start with the kinds of hard work in it. */
export interface HardDay {
	day: Day
	startTime: string
	kinds: readonly WorkKind[]
}

/** Spacing is met this many hours early, start to start: Tuesday 18:00 and Thursday 14:00 are two days apart [our setting]. */
export const GRACE_H = 4
/** Hours from which a spacing counts as met: 44 for 48, 68 for 72. */
export const metFromH = (spacingH: number): number => spacingH - GRACE_H

/** The nearest work of one of the kinds, before or after a start, that is closer than so many hours ask for; null when all is far enough. */
export function spacingClash(
	kinds: readonly WorkKind[],
	at: { day: Day; startTime: string },
	work: readonly HardDay[],
	spacingH: number,
): { kind: WorkKind; hours: number; comes: 'before' | 'after' } | null {
	if (kinds.length === 0) return null
	const limitH = metFromH(spacingH)
	let nearest: ReturnType<typeof spacingClash> = null
	for (const one of work)
		for (const kind of one.kinds) {
			if (!kinds.includes(kind)) continue
			const since = hoursBetween(one, at)
			const hours = Math.abs(since)
			if (hours > 0 && hours < limitH && (nearest === null || hours < nearest.hours))
				nearest = { kind, hours, comes: since > 0 ? 'after' : 'before' }
		}
	return nearest
}
