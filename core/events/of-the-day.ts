import { type Day, addDays } from '../calendar/day-count'
import { dayInZone } from '../calendar/days'

/** A phone holds what it logs of its squads for as long without having reached the club. */
const DAYS_ON_A_PHONE = 7
/** A session that is still going on at midnight is still of the day it began on. */
const PAST_MIDNIGHT_MS = 3 * 3_600_000

/**
 * Whether what somebody logged is of a session's own day. It goes by when it was logged, not by when it arrives: a phone
 * that finds no signal on the field sends the evening on the next morning.
 *
 * @param session its day, in its own time zone
 * @param loggedAt the instant it was logged (ISO 8601, UTC), by the device's clock as the club's server corrected it
 * @param today the day it is at the club as it arrives; nothing is of a day to come, nor of one over a week ago
 */
export function isOfTheDay(session: { day: Day; timeZone: string }, loggedAt: string, today: Day): boolean {
	if (session.day > today || addDays(session.day, DAYS_ON_A_PHONE) < today) return false
	const earlier = new Date(Date.parse(loggedAt) - PAST_MIDNIGHT_MS).toISOString()
	return [loggedAt, earlier].some((instant) => dayInZone(instant, session.timeZone) === session.day)
}
