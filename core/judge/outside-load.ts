import type { Day } from '../calendar/day-count'
import type { DayDose, RampQuantity } from '../dose/ramp'
import type { Family } from '../vocabulary/words'
import type { WorkDay } from './types'
import type { WorkKind } from '../vocabulary/words'
import { readMass } from '../measure/read-mass'

export const OUTSIDE_KINDS = ['match', 'tournament', 'practice', 'gym'] as const
export type OutsideKind = (typeof OUTSIDE_KINDS)[number]
export const OUTSIDE_NAMES: Record<OutsideKind, string> = {
	match: 'Match',
	tournament: 'Tournament day',
	practice: 'Team practice',
	gym: 'Gym',
}

/** One exercise of a gym visit. */
export interface Lift {
	exercise: string
	/** Null where none was said: own body. */
	kg: number | null
	/** Of a set; null where none was said. */
	reps: number | null
	/** Never done before. */
	isNew: boolean
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
	/** As in a jumping sport; absent where there was none. */
	hardJumping?: boolean
	/** Of the gym; absent where nobody said. */
	lifts?: readonly Lift[]
}

/** So many reps a set, or fewer, with a weight are heavy [common practice, no source]. */
const HEAVY_REPS = 6
const isHeavyLift = ({ kg, reps, isNew }: Lift): boolean =>
	isNew || (kg !== null && reps !== null && reps <= HEAVY_REPS)
/** Heavy or new work in the gym: it wants time as high jumps do. */
export const isHeavyGym = ({ kind, lifts }: OutsideLoad): boolean => kind === 'gym' && (lifts ?? []).some(isHeavyLift)

/** @example sayLift({ exercise: 'Back squat', kg: 100, reps: 5, isNew: true }) // "Back squat 100 kg × 5, first time" */
export const sayLift = ({ exercise, kg, reps, isNew }: Lift): string =>
	`${exercise}${kg === null ? '' : ` ${kg} kg`}${reps === null ? '' : ` × ${reps}`}${isNew ? ', first time' : ''}`

const LIFT =
	/^(.*?\p{L}.*?)(?:[\s,]+([0-9]+(?:[.,][0-9]+)?)\s*(kg|lbs?|pounds?))?(?:[\s,]*[x×*]\s*([0-9]+))?(?:[\s,]+(first time|new))?$/iu
const MOST_LIFTS = 12
/**
 * A gym visit as people write it in a line: exercises with semicolons or line breaks between them, each with
 * kilograms or pounds, reps and "first time" as far as they were said.
 *
 * @returns null where a piece of it cannot be read: no name, over 400 kg, over 100 reps, more than twelve
 * @example readLifts('Back squat 100 kg × 5; Nordic curl x 4 new')
 */
export function readLifts(text: string): Lift[] | null {
	const pieces = text
		.split(/[;\n]/)
		.map((piece) => piece.trim())
		.filter((piece) => piece !== '')
	if (pieces.length > MOST_LIFTS) return null
	const lifts = pieces.map((piece): Lift | null => {
		const [, exercise, mass, unit, reps, first] = LIFT.exec(piece) ?? []
		if (!exercise || exercise.length > 60) return null
		const lift = {
			exercise: exercise.trim(),
			kg: mass ? Math.round(readMass(`${mass} ${unit}`)! * 10) / 10 : null,
			reps: reps ? Number(reps) : null,
			isNew: first !== undefined,
		}
		// A figure left over in the name is one that was not understood.
		if (/\d\s*(kg|lbs?|pounds?)?$/i.test(lift.exercise)) return null
		return (lift.kg ?? 1) > 0 && (lift.kg ?? 1) <= 400 && (lift.reps ?? 1) >= 1 && (lift.reps ?? 1) <= 100 ? lift : null
	})
	return lifts.every((lift) => lift !== null) ? lifts : null
}

/** What a kind usually is, so that a squad is entered in two taps; in a jumping sport all but the gym is hard jumping, too [our setting]. */
export const OUTSIDE_DEFAULTS: Record<OutsideKind, { minutes: number; hardRunning: boolean; hardCutting: boolean }> = {
	match: { minutes: 90, hardRunning: true, hardCutting: true },
	tournament: { minutes: 180, hardRunning: true, hardCutting: true },
	practice: { minutes: 90, hardRunning: false, hardCutting: true },
	gym: { minutes: 60, hardRunning: false, hardCutting: false },
}

/** What hard running, cutting and jumping of an hour and a half stand for in the week's ramp [our setting]. */
const PER_90_MIN: Record<RampQuantity, { running: number; cutting: number; jumping: number }> = {
	hardContacts: { running: 0, cutting: 6, jumping: 12 },
	sharpCuts: { running: 0, cutting: 6, jumping: 0 },
	maximalStarts: { running: 4, cutting: 0, jumping: 0 },
	fastMetres: { running: 60, cutting: 0, jumping: 0 },
}

/** For spacing and missed time: hard running is sprinting, hard cutting is turning, hard jumping is jumping; heavy or new gym work as hard jumps. */
export function outsideWork(load: OutsideLoad): WorkDay {
	const families: Family[] = [
		...(load.hardCutting ? (['agility'] as const) : []),
		...(load.hardRunning ? (['sprint'] as const) : []),
		...(load.hardJumping ? (['plyometric'] as const) : []),
	]
	const kinds: WorkKind[] = [
		...(load.hardCutting ? (['hard-turns'] as const) : []),
		...(load.hardRunning ? (['maximal-sprint'] as const) : []),
		...(load.hardJumping || isHeavyGym(load) ? (['hard-jumps'] as const) : []),
	]
	return { day: load.day, startTime: load.startTime, families, kinds, outside: true }
}

/** For the ramp: what was done outside up to a day. */
export function outsideRamp(quantity: RampQuantity, loads: readonly OutsideLoad[], upTo: Day): DayDose[] {
	const { running, cutting, jumping } = PER_90_MIN[quantity]
	return loads.flatMap((load) => {
		const each = (load.hardRunning ? running : 0) + (load.hardCutting ? cutting : 0) + (load.hardJumping ? jumping : 0)
		const value = (each * Math.min(load.minutes, 240)) / 90
		return load.day <= upTo && value > 0 ? [{ day: load.day, unloading: false, value }] : []
	})
}
