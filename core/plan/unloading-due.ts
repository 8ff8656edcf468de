import { type Day, addDays, mondayOf } from '../calendar/day-count'
import type { Phase } from '../vocabulary/words'

/**
 * Weeks trained since the last unloading week, the week of `today` included when something was done in
 * it. A week without training starts the count anew, as an unloading week does.
 */
export function weeksSinceUnloading(sessions: readonly { day: Day; phase: Phase }[], today: Day): number {
	const weeks = new Map<Day, boolean>()
	for (const { day, phase } of sessions)
		if (day <= today) weeks.set(mondayOf(day), (weeks.get(mondayOf(day)) ?? false) || phase === 'unloading')
	let monday = mondayOf(today)
	if (!weeks.has(monday)) monday = addDays(monday, -7)
	let trained = 0
	while (weeks.get(monday) === false) {
		trained += 1
		monday = addDays(monday, -7)
	}
	return trained
}
