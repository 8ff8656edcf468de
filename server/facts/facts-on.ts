import { addDays } from '../../core/calendar/day-count'
import { type PlainFacts, concludeFor } from '../../core/permit/plain-facts'
import type { Concluded } from '../../core/permit/known'
import type { Library } from '../../core/vocabulary/library'
import type { SessionMoment } from './read-facts'

/** What was read of an athlete once, as it is on another day ahead: nothing but the day and what it brings changes. */
export const concludedOn = (known: PlainFacts, { day, phase, surface }: SessionMoment, library: Library): Concluded =>
	concludeFor({ ...known, day, phase, surface }, library)

/**
 * The day up to which what was said belongs to the judging of a session: the morning after, and not the day of the
 * session that comes next.
 */
export function careDayOf(day: string, next: string): string {
	const [morning, before] = [addDays(day, 1), addDays(next, -1)]
	const last = morning < before ? morning : before
	return last > day ? last : day
}
