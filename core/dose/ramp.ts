import { type Day, addDays, mondayOf } from '../calendar/day-count'
import type { Family, Level } from '../vocabulary/words'
import { type DoseCount, contactsOf, cutsOf, loadOfLeg } from './dose-count'

/** The quantities whose week-to-week growth is watched. */
export type RampQuantity = 'hardContacts' | 'sharpCuts' | 'maximalStarts' | 'fastMetres'

export const RAMP_NAMES: Record<RampQuantity, string> = {
	hardContacts: 'high and shock contacts of the harder-worked leg',
	sharpCuts: 'cuts of 90° and more',
	maximalStarts: 'maximal starts',
	fastMetres: 'metres above 90 % of top speed',
}

/** Something of each quantity. */
export const eachQuantity = <T>(of: (quantity: RampQuantity) => T): Record<RampQuantity, T> =>
	Object.fromEntries((Object.keys(RAMP_NAMES) as RampQuantity[]).map((quantity) => [quantity, of(quantity)])) as Record<
		RampQuantity,
		T
	>

/** Whose level decides a quantity's floor. */
export const RAMP_FAMILY: Record<RampQuantity, Family> = {
	hardContacts: 'plyometric',
	sharpCuts: 'agility',
	maximalStarts: 'sprint',
	fastMetres: 'sprint',
}

/** Weekly floors under which growth is never held against anybody [our setting]. Starts: two sessions of a ladder's own dose. */
export const RAMP_FLOORS: Record<Level, Record<RampQuantity, number>> = {
	1: { hardContacts: 20, sharpCuts: 10, maximalStarts: 12, fastMetres: 60 },
	2: { hardContacts: 40, sharpCuts: 20, maximalStarts: 16, fastMetres: 120 },
	3: { hardContacts: 60, sharpCuts: 30, maximalStarts: 24, fastMetres: 180 },
}

/** Cuts of 60° or more and dead stops enter the hard contacts of the leg that plants. */
export function rampValue(count: DoseCount, quantity: RampQuantity): number {
	if (quantity === 'maximalStarts' || quantity === 'fastMetres') return count[quantity]
	if (quantity === 'sharpCuts') return cutsOf(count, ['90-135', '135-180'])
	const hard = contactsOf(count, ['high', 'shock'])
	const plants = (leg: 'left' | 'right') =>
		loadOfLeg(count.cuts['60-90'], leg) +
		loadOfLeg(count.cuts['90-135'], leg) +
		loadOfLeg(count.cuts['135-180'], leg) +
		loadOfLeg(count.deadStops, leg)
	return Math.max(loadOfLeg(hard, 'left') + plants('left'), loadOfLeg(hard, 'right') + plants('right'))
}

/** How far back a trained week still counts. */
const WEEKS_BACK = 12

export interface DayDose {
	day: Day
	/** Unloading weeks are left out of the mean. */
	unloading: boolean
	value: number
}

export interface RampReading {
	/** In the calendar week of the day, what is known of its later days too, or in the rolling seven days before it: the larger. */
	done: number
	/** Mean of the last four trained weeks, or of as many as exist; null when there is none. */
	mean: number | null
	limit: number
	/** What may still be added on that day; never negative. */
	room: number
}

/**
 * Week ≤ max(floor, (1 + ramp) × mean of the last four trained weeks), weeks Monday to Sunday,
 * unloading weeks and weeks without training left out [our setting].
 *
 * @param days what was done and what is known to come, any order, several entries a day allowed
 * @param day the day about to be trained
 * @param rampPercent 5–20
 */
export function readRamp(days: readonly DayDose[], day: Day, floor: number, rampPercent: number): RampReading {
	const thisMonday = mondayOf(day)
	const sunday = addDays(thisMonday, 6)
	const [oldest, rolling] = [addDays(thisMonday, -7 * WEEKS_BACK), addDays(day, -7)]
	const weeks = new Map<Day, { total: number; unloading: boolean }>()
	let calendarWeek = 0
	let rollingWeek = 0
	for (const entry of days) {
		if (entry.day < oldest || entry.day > sunday) continue
		if (entry.day > rolling && entry.day <= day) rollingWeek += entry.value
		if (entry.day >= thisMonday) {
			calendarWeek += entry.value
			continue
		}
		const monday = mondayOf(entry.day)
		const week = weeks.get(monday) ?? { total: 0, unloading: false }
		weeks.set(monday, { total: week.total + entry.value, unloading: week.unloading || entry.unloading })
	}
	const trained = [...weeks.entries()]
		.filter(([, week]) => !week.unloading && week.total > 0)
		.sort(([a], [b]) => (a < b ? 1 : -1))
		.slice(0, 4)
		.map(([, week]) => week.total)
	const mean = trained.length === 0 ? null : trained.reduce((a, b) => a + b, 0) / trained.length
	const limit = Math.max(floor, mean === null ? 0 : (1 + rampPercent / 100) * mean)
	const done = Math.max(calendarWeek, rollingWeek)
	return { done, mean, limit, room: Math.max(0, limit - done) }
}

/**
 * Puts what is planned behind what was done: it counts as done for what comes after it, no more of it than was left.
 * So an excess is said once, and later weeks do not grow from it.
 *
 * @param days what was done and planned before it; what is planned is added to them
 * @returns what was left for it
 */
export function planInto(days: DayDose[], planned: DayDose, floor: number, rampPercent: number): number {
	const { room } = readRamp(days, planned.day, floor, rampPercent)
	// What loads nothing makes no week an unloading one.
	if (planned.value > 0) days.push({ ...planned, value: Math.min(planned.value, room) })
	return room
}
