import type { Day } from '../calendar/day-count'
import type { DayDose, RampQuantity } from '../dose/ramp'
import type { Family } from '../vocabulary/words'
import type { WorkDay } from './types'
import type { WorkKind } from '../vocabulary/words'

export const OUTSIDE_KINDS = ['match', 'tournament', 'practice', 'gym'] as const
export type OutsideKind = (typeof OUTSIDE_KINDS)[number]
export const OUTSIDE_NAMES: Record<OutsideKind, string> = {
	match: 'Match',
	tournament: 'Tournament day',
	practice: 'Team practice',
	gym: 'Gym',
}

/** What loads an athlete outside the sessions of this program. */
export interface OutsideLoad {
	kind: OutsideKind
	day: Day
	startTime: string
	minutes: number
	/** 0–10; null when nobody asked. */
	rpe: number | null
	hardRunning: boolean
	hardCutting: boolean
}

/** What a kind usually is, so that a squad is entered in two taps [our setting]. */
export const OUTSIDE_DEFAULTS: Record<OutsideKind, { minutes: number; hardRunning: boolean; hardCutting: boolean }> = {
	match: { minutes: 90, hardRunning: true, hardCutting: true },
	tournament: { minutes: 180, hardRunning: true, hardCutting: true },
	practice: { minutes: 90, hardRunning: false, hardCutting: true },
	gym: { minutes: 60, hardRunning: false, hardCutting: false },
}

/** What hard running and cutting of an hour and a half stand for in the week's ramp [our setting]. */
const PER_90_MIN: Record<RampQuantity, { running: number; cutting: number }> = {
	hardContacts: { running: 0, cutting: 6 },
	sharpCuts: { running: 0, cutting: 6 },
	maximalStarts: { running: 4, cutting: 0 },
	fastMetres: { running: 60, cutting: 0 },
}

/** For spacing and missed time: hard running is sprinting, hard cutting is turning. */
export function outsideWork(load: OutsideLoad): WorkDay {
	const families: Family[] = [
		...(load.hardCutting ? (['agility'] as const) : []),
		...(load.hardRunning ? (['sprint'] as const) : []),
	]
	const kinds: WorkKind[] = [
		...(load.hardCutting ? (['hard-turns'] as const) : []),
		...(load.hardRunning ? (['maximal-sprint'] as const) : []),
	]
	return { day: load.day, startTime: load.startTime, families, kinds, outside: true }
}

/** For the ramp: what was done outside up to a day. */
export function outsideRamp(quantity: RampQuantity, loads: readonly OutsideLoad[], upTo: Day): DayDose[] {
	const { running, cutting } = PER_90_MIN[quantity]
	return loads.flatMap((load) => {
		const value =
			(((load.hardRunning ? running : 0) + (load.hardCutting ? cutting : 0)) * Math.min(load.minutes, 240)) / 90
		return load.day <= upTo && value > 0 ? [{ day: load.day, unloading: false, value }] : []
	})
}
