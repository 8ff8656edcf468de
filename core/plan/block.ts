import { type Day, addDays, weekday } from '../calendar/days'
import type { Phase } from '../library/types'

export interface TrainingDay {
	/** 1 Monday to 7 Sunday. */
	weekday: number
	startTime: string
	minutes: number
}
export interface BlockPlan {
	/** The first week's Monday. */
	start: Day
	/** Emphasis of each week; as many as the block has weeks. */
	phases: Phase[]
	/** Load of each week against the first, percent. */
	shape: number[]
	days: TrainingDay[]
}
export interface BlockSession extends TrainingDay {
	day: Day
	/** 1 for the first. */
	week: number
	phase: Phase
	/** Share of the whole dose, above 0 to 1: the heaviest week has all of it. */
	share: number
}

export const BLOCK_WEEKS = { least: 3, most: 8 } as const
/** The unloading week at a block's end, against its first week, percent. */
const UNLOADING = 60

/** Weekly loads that rise to 120 % and end in an unloading week; each step keeps within the ramp in a first and in a repeated block [our setting]. */
const SHAPES: Record<number, number[]> = {
	3: [100, 112], 4: [100, 110, 120], 5: [100, 108, 115, 120], 6: [100, 106, 112, 117, 120], 7: [100, 105, 110, 114, 118, 120], 8: [100, 104, 108, 112, 115, 118, 120],
}

/**
 * @param weeks 3 to 8
 * @throws RangeError outside that
 * @example defaultShape(4) // [100, 110, 120, 60]
 */
export function defaultShape(weeks: number): number[] {
	const rise = SHAPES[weeks]
	if (!rise) throw new RangeError(`weeks: ${weeks} is not a whole number from ${BLOCK_WEEKS.least} to ${BLOCK_WEEKS.most}`)
	return [...rise, UNLOADING]
}

export const EMPHASES = { strength: 'accumulate', 'strength-speed': 'intensify', peaking: 'peaking' } as const satisfies Record<string, Phase>
export type Emphasis = keyof typeof EMPHASES

/** The emphasis first, what leads on from it in the second half, and the unloading week last. */
export function defaultPhases(weeks: number, emphasis: Emphasis): Phase[] {
	const loaded = weeks - 1
	const [first, then]: [Phase, Phase] = emphasis === 'strength' ? ['accumulate', 'intensify'] : emphasis === 'strength-speed' ? ['intensify', 'intensify'] : ['intensify', 'peaking']
	const half = Math.ceil(loaded / 2)
	return [...Array.from({ length: loaded }, (_, week) => (week < half ? first : then)), 'unloading']
}

/**
 * The sessions of a block, in order. Shares go by the heaviest week, because a line's dose is what a rung
 * asks at most.
 *
 * @throws RangeError for a start that is no Monday, for weeks and shape that do not match, and for no days
 */
export function blockSessions({ start, phases, shape, days }: BlockPlan): BlockSession[] {
	if (weekday(start) !== 1) throw new RangeError(`start: ${start} is not a Monday`)
	if (phases.length !== shape.length || phases.length < BLOCK_WEEKS.least || phases.length > BLOCK_WEEKS.most) throw new RangeError(`phases: ${phases.length} weeks with ${shape.length} loads; 3 to 8 of both are expected`)
	if (shape.some((load) => !(load >= 20 && load <= 200))) throw new RangeError(`shape: ${shape.join(', ')} has a load outside 20 to 200 %`)
	if (days.length === 0) throw new RangeError('days: at least one training day is expected')
	const most = Math.max(...shape)
	return phases
		.flatMap((phase, week) => days.map((one): BlockSession => ({ ...one, day: addDays(start, week * 7 + one.weekday - 1), week: week + 1, phase, share: Math.round((100 * shape[week]!) / most) / 100 })))
		.sort((a, b) => (a.day + a.startTime < b.day + b.startTime ? -1 : 1))
}
