import { writeTimeOfDay } from '#core/calendar/time-of-day'

/** Whether this device writes twelve hours twice. */
const asHere = (): boolean => new Intl.DateTimeFormat([], { hour: 'numeric' }).resolvedOptions().hour12 === true

/** A session's time as the device writes times: "17:30" or "5:30 pm". */
export const sayStart = (time: string, twelveHours = asHere()): string => writeTimeOfDay(time, twelveHours)

/** The time on this device's clock, written the same way. @param instant ISO 8601, or ms */
export const hourAndMinute = (instant: string | number, twelveHours = asHere()): string =>
	// Words and numbers stay English, whatever the device speaks.
	sayStart(new Date(instant).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' }), twelveHours)

/** With its seconds, where one run is told from another: "17:42:07" or "5:42:07 pm". @param instant ms */
export const withSeconds = (instant: number, twelveHours = asHere()): string =>
	hourAndMinute(instant, twelveHours).replace(
		/:\d\d/,
		(minutes) => `${minutes}:${String(new Date(instant).getSeconds()).padStart(2, '0')}`,
	)

/** "Mon 17:42". @param instant ms */
export const weekdayAndTime = (instant: number, twelveHours = asHere()): string =>
	`${new Date(instant).toLocaleDateString('en-GB', { weekday: 'short' })} ${hourAndMinute(instant, twelveHours)}`
