import { type Day, addDays, hoursBetween } from '../calendar/day-count'
import { AFTER_MATCH_H, BEFORE_MATCH_H } from '../rules/s11-match'
import { spacingMetH } from '../rules/spacing'
import type { School } from '../vocabulary/school'
import type { WorkKind } from '../vocabulary/words'
import { WORK_KIND_NAMES } from '../dose/work-kinds'

/** A session or something outside, as the calendar sees it. */
export interface CalendarItem {
	id: string
	day: Day
	startTime: string
	/** Whom it loads: what shares nobody cannot clash. */
	athleteIds: readonly string[]
	kinds: readonly WorkKind[]
	match: boolean
	/** Shock work in it: not within 48 h before a match. */
	shock: boolean
	/** Only sessions that nobody has begun can be moved. */
	movable: boolean
}
export interface Clash {
	rule: 'S6' | 'S11'
	/** The session it is said of: the later one, or the one that can be moved. */
	itemId: string
	otherId: string
	sentence: string
	/** Days it could go to with no clash left on it and none made elsewhere, nearest first. */
	moveTo: Day[]
	/** Leaving out its hard work ends it too. */
	ease: boolean
}

const shareSomebody = (a: CalendarItem, b: CalendarItem): boolean => {
	const ids = new Set(a.athleteIds)
	return b.athleteIds.some((id) => ids.has(id))
}

/** Two items that come too close: S6 spacing of a kind, S11 around a match; null when they are far enough. */
function clashOf(a: CalendarItem, b: CalendarItem, school: School): { rule: Clash['rule']; sentence: string } | null {
	if (!shareSomebody(a, b)) return null
	const hours = Math.abs(hoursBetween(a, b))
	const [match, session] = a.match ? [a, b] : b.match ? [b, a] : [null, null]
	if (match && session && !session.match) {
		const ahead = hoursBetween(session, match)
		if (ahead >= 0 && ahead < BEFORE_MATCH_H && session.shock)
			return {
				rule: 'S11',
				sentence: `Shock work ${Math.round(ahead)} h before a match; ${BEFORE_MATCH_H} h are asked`,
			}
		if (ahead < 0 && -ahead < AFTER_MATCH_H && session.kinds.length > 0)
			return { rule: 'S11', sentence: `Hard work ${Math.round(-ahead)} h after a match; ${AFTER_MATCH_H} h are asked` }
	}
	const kind = a.kinds.find((one) => b.kinds.includes(one))
	if (kind === undefined || hours === 0 || hours >= spacingMetH(school)) return null
	return {
		rule: 'S6',
		sentence: `${Math.round(hours)} h between two days of ${WORK_KIND_NAMES[kind]}; ${school.numbers.spacingH} h are asked`,
	}
}

/** Clashes a session would have on a day, against everything else. */
const clashesAt = (item: CalendarItem, day: Day, items: readonly CalendarItem[], school: School): number =>
	items.filter((other) => other.id !== item.id && clashOf({ ...item, day }, other, school) !== null).length

/** How far a session may be moved by a repair, days. */
const REACH = 4

/**
 * What clashes on the calendar, each with repairs that are known to work: days the session can go to
 * without any clash, on no day where the same people already train, and not before `from`.
 */
export function checkCalendar(items: readonly CalendarItem[], school: School, from: Day): Clash[] {
	const clashes: Clash[] = []
	for (const [index, a] of items.entries())
		for (const b of items.slice(index + 1)) {
			const found = clashOf(a, b, school)
			if (!found) continue
			const [item, other] = a.movable && (!b.movable || a.day > b.day) ? [a, b] : b.movable ? [b, a] : [null, null]
			if (!item || !other) continue
			const busy = new Set(items.filter((one) => one.id !== item.id && shareSomebody(one, item)).map((one) => one.day))
			const days = Array.from({ length: REACH * 2 }, (_, step) =>
				addDays(item.day, (step % 2 === 0 ? 1 : -1) * (Math.floor(step / 2) + 1)),
			)
			const moveTo = days.filter((day) => day >= from && !busy.has(day) && clashesAt(item, day, items, school) === 0)
			const eased = { ...item, kinds: [], shock: false }
			clashes.push({
				...found,
				itemId: item.id,
				otherId: other.id,
				moveTo,
				ease: clashOf(eased, other, school) === null,
			})
		}
	return clashes
}
