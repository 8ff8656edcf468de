import { dayInZone } from '../core/calendar/days'

/** The calendar day it is at the club. */
export const todayAt = (timeZone: string, now = new Date()): string => dayInZone(now.toISOString(), timeZone)
