import type { Day } from './day-count'
import { shortDay } from './say-day'

/** Somebody is not there for a while: from a day on, to a last day, or until they are said to be back. */
export interface Away {
	from: Day
	/** The last day; null while it is not known. */
	until: Day | null
}
export const isAway = (away: Away | null, day: Day): boolean =>
	away !== null && day >= away.from && (away.until === null || day <= away.until)

/** "away until Thu 3 Dec", "away from Thu 3 Dec", "away"; null for who is there, and stays there. */
export function sayAway(away: Away | null, today: Day): string | null {
	if (away === null || (away.until !== null && away.until < today)) return null
	const until = away.until === null ? '' : ` ${away.from > today ? 'to' : 'until'} ${shortDay(away.until)}`
	return away.from > today ? `away from ${shortDay(away.from)}${until}` : `away${until}`
}
