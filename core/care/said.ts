import { type Day, daysBetween } from '../calendar/day-count'
import { type FoldableEvent, foldEvents } from '../events/fold'
import type { BodyEvent } from '../vocabulary/events'
import { CLOSE_FROM, SPARE_FROM, WITHIN_DAYS } from './grades'

/** A report taken back by its author on the same device within this long was a slip: it closes nothing. */
export const SLIP_MS = 2 * 60_000

/** What the fold of reports needs to know of one event of the log. */
export interface SaidEvent extends FoldableEvent {
	athleteId: string | null
	kind: BodyEvent['kind']
	value: object
	deviceId: string
	/** ISO time of the device that made it; only ever compared with the same device's. */
	deviceTime: string
	/** Unknown on a device, where whatever it made is its holder's. */
	authorId?: string | undefined
	/** Day of its session. */
	day: Day
}

const painOf = ({ kind, value }: SaidEvent): { region?: string; score?: number; redFlag?: boolean } =>
	kind === 'pain' || kind === 'quiet' ? value : {}

const bad = (one: SaidEvent): boolean =>
	one.kind === 'head' || one.kind === 'chest' || painOf(one).redFlag === true || (painOf(one).score ?? 0) >= CLOSE_FROM

const sore = (one: SaidEvent): boolean => (painOf(one).score ?? 0) >= SPARE_FROM

/** Whether one event takes another back, or corrects it, as a slip. */
const isSlip = (before: SaidEvent, after: SaidEvent): boolean => {
	const lateMs = Date.parse(after.deviceTime) - Date.parse(before.deviceTime)
	return before.deviceId === after.deviceId && before.authorId === after.authorId && lateMs >= 0 && lateMs <= SLIP_MS
}

/**
 * What was said of bodies and counts, from every event of the log, replaced ones too: what stands now, of two
 * contradicting corrections both, and whatever closed a region by the time it was withdrawn: only a clearance ends
 * that. A slip closes nothing, and a report that was another athlete's is theirs alone. The order of arrival
 * changes nothing.
 */
export function saidOfBody<E extends SaidEvent>(events: readonly E[]): E[] {
	const byId = new Map(events.map((event) => [event.id, event]))
	const { current, conflicts } = foldEvents([...byId.values()])
	const standing = [...current, ...conflicts.flat().filter((event) => event.void !== true)]
	const withdrawn = [...byId.values()].flatMap((after): E[] => {
		const before = after.replacesId ? byId.get(after.replacesId) : undefined
		const moved = after.athleteId !== before?.athleteId && after.void !== true
		return before && before.void !== true && !moved && !isSlip(before, after) ? [before] : []
	})
	const soreDays = [...standing, ...withdrawn].filter(sore)
	const again = (one: E): boolean =>
		sore(one) &&
		soreDays.some(
			(other) =>
				other.athleteId === one.athleteId &&
				painOf(other).region === painOf(one).region &&
				other.day !== one.day &&
				Math.abs(daysBetween(other.day, one.day)) <= WITHIN_DAYS &&
				// What was said only after it had been withdrawn closed nothing with it.
				[...byId.values()].some(
					(after) => after.replacesId === one.id && Date.parse(other.deviceTime) <= Date.parse(after.deviceTime),
				),
		)
	return [...new Set([...standing, ...withdrawn.filter((one) => bad(one) || again(one))])]
}
