import { type Day, addDays, hoursBetween } from '../calendar/day-count'
import { AFTER_MATCH_H, BEFORE_MATCH_H } from '../rules/s11-match'
import { metFromH } from '../rules/spacing'
import type { WorkKind } from '../vocabulary/words'
import { NEAR_DAYS, WORK_KIND_NAMES } from '../dose/work-kinds'

/** A session or something outside, as the calendar sees it. */
export interface CalendarItem {
	id: string
	day: Day
	startTime: string
	/** Whom it loads: what shares nobody cannot clash. */
	athleteIds: readonly string[]
	/** Hard work in it, by athlete; nothing for who does none. */
	kinds: ReadonlyMap<string, readonly WorkKind[]>
	match: boolean
	/** Who does shock work in it: not within 48 h before a match. */
	shock: ReadonlySet<string>
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
}

/** Hours asked between two days of one kind, of one athlete: the most that a school of theirs asks. */
export type SpacingOf = (athleteId: string) => number

const inBoth = (a: CalendarItem, b: CalendarItem): string[] => {
	const ids = new Set(a.athleteIds)
	return b.athleteIds.filter((id) => ids.has(id))
}
/** Whom a sentence is about, where that is not everybody who is in both. */
const sayWhom = (concerned: number, all: number): string =>
	concerned === all ? '' : ` (${concerned} of ${all} athletes)`

/** Two items that come too close for somebody in both: S6 spacing of a kind, S11 around a match; null when they are far enough. */
function clashOf(
	a: CalendarItem,
	b: CalendarItem,
	spacingOf: SpacingOf,
): { rule: Clash['rule']; sentence: string } | null {
	const hours = Math.abs(hoursBetween(a, b))
	if (hours >= NEAR_DAYS * 24) return null
	const both = inBoth(a, b)
	const [match, session] = a.match ? [a, b] : b.match ? [b, a] : [null, null]
	if (match && session && !session.match) {
		const ahead = hoursBetween(session, match)
		const shock = both.filter((id) => session.shock.has(id)).length
		if (ahead >= 0 && ahead < BEFORE_MATCH_H && shock > 0)
			return {
				rule: 'S11',
				sentence: `Shock work ${Math.round(ahead)} h before a match; ${BEFORE_MATCH_H} h are asked${sayWhom(shock, both.length)}`,
			}
		const hard = both.filter((id) => kindsIn(session, id).length > 0).length
		if (ahead < 0 && -ahead < AFTER_MATCH_H && hard > 0)
			return {
				rule: 'S11',
				sentence: `Hard work ${Math.round(-ahead)} h after a match; ${AFTER_MATCH_H} h are asked${sayWhom(hard, both.length)}`,
			}
	}
	if (hours === 0) return null
	const close = both.flatMap((id) => {
		const kind = kindsIn(a, id).find((one) => kindsIn(b, id).includes(one))
		const askedH = spacingOf(id)
		return kind !== undefined && hours < metFromH(askedH) ? [{ kind, askedH }] : []
	})
	const [most] = [...close].sort((x, y) => y.askedH - x.askedH)
	return most === undefined
		? null
		: {
				rule: 'S6',
				sentence: `${Math.round(hours)} h between two days of ${WORK_KIND_NAMES[most.kind]}; ${most.askedH} h are asked${sayWhom(close.length, both.length)}`,
			}
}
const kindsIn = ({ kinds }: CalendarItem, athleteId: string): readonly WorkKind[] => kinds.get(athleteId) ?? []

/** Clashes a session would have on a day, against everything else. */
const clashesAt = (item: CalendarItem, day: Day, items: readonly CalendarItem[], spacingOf: SpacingOf): number =>
	items.filter((other) => other.id !== item.id && clashOf({ ...item, day }, other, spacingOf) !== null).length

const startOf = ({ day, startTime }: CalendarItem): string => day + startTime

/** How far a session may be moved by a repair, days. */
const REACH = 4

/**
 * What clashes on the calendar, each with repairs that are known to work: days the session can go to
 * without any clash, on no day where the same people already train, and not before `from`.
 */
export function checkCalendar(items: readonly CalendarItem[], spacingOf: SpacingOf, from: Day): Clash[] {
	const clashes: Clash[] = []
	for (const [index, a] of items.entries())
		for (const b of items.slice(index + 1)) {
			const found = clashOf(a, b, spacingOf)
			if (!found) continue
			const [item, other] =
				a.movable && (!b.movable || startOf(a) > startOf(b)) ? [a, b] : b.movable ? [b, a] : [null, null]
			if (!item || !other) continue
			const busy = new Set(items.filter((one) => inBoth(one, item).length > 0).map((one) => one.day))
			const days = Array.from({ length: REACH * 2 }, (_, step) =>
				addDays(item.day, (step % 2 === 0 ? 1 : -1) * (Math.floor(step / 2) + 1)),
			)
			const moveTo = days.filter((day) => day >= from && !busy.has(day) && clashesAt(item, day, items, spacingOf) === 0)
			clashes.push({
				...found,
				itemId: item.id,
				otherId: other.id,
				moveTo,
			})
		}
	return clashes
}
