import type { Day } from '../calendar/day-count'
import type { Closure, Restriction } from '../vocabulary/care'
import type { Dose, Parameters } from '../vocabulary/dose'
import type { Library } from '../vocabulary/library'
import type { Own } from '../own/own'
import type { School } from '../vocabulary/school'
import type { Family, Level, Phase, Region, Surface } from '../vocabulary/words'

/** Work on some day, done or written. */
export interface WorkItem {
	day: Day
	drillId: string
	parameters: Parameters
	dose: Dose
}
/** A rung that was new to the athlete on a day. */
export interface NewRung {
	day: Day
	ladderId: string
	rungId: string
}

/** What is known of one athlete and of the moment a line is for. Null is unknown, and the careful side is taken. */
export interface Facts {
	library: Library
	/** Whole years. */
	ageYears: number | null
	massKg: number | null
	levelOf(family: Family): Level
	/** Rungs passed, by ladder. */
	passed: Readonly<Record<string, readonly string[]>>
	/** Of all the athlete's squads, the session's first: numbers are the stricter of all, choices the first's. */
	schools: readonly [School, ...School[]]
	phase: Phase
	day: Day
	surface: Surface | null
	/** To the next match and since the last one, start to start; null when none is known near. */
	hoursToMatch: number | null
	hoursSinceMatch: number | null
	closures: readonly Closure[]
	restrictions: readonly Restriction[]
	unwellSince: Day | null
	worries: readonly { drillId: string; region: Region | null; since: Day }[]
	/** Last day of work by family; absent or null when none is on record. */
	lastWork: Readonly<Partial<Record<Family, Day | null>>>
	/** Null when unknown: then neither spacing nor the week speaks. */
	work: readonly WorkItem[] | null
	newRungs: readonly NewRung[]
	/** Hard things done for the first time outside the sessions; absent where none are known. */
	newOutside?: readonly { day: Day; name: string }[] | undefined
	/** Days on which a weight is worn in another session, done or written; absent where none is known. */
	loadsOn?: readonly Day[] | undefined
	/** The athlete's own trial of heavy before fast said that it helps. */
	contrastHelps: boolean
	/** What was measured of the athlete; absent where nothing was. */
	own?: Own | undefined
}

/** The strictest of a number over all the athlete's schools. */
export const least = (facts: Facts, name: keyof School['numbers']): number =>
	Math.min(...facts.schools.map((school) => school.numbers[name]))
export const most = (facts: Facts, name: keyof School['numbers']): number =>
	Math.max(...facts.schools.map((school) => school.numbers[name]))
