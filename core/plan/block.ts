import { type Day, addDays, isBefore, weekday } from '../calendar/day-count'
import type { Phase, Quality } from '../vocabulary/words'
import { TISSUE_HOURS } from './session-checks'
import type { DayRole } from '../vocabulary/session'
import type { ThemeId } from '../vocabulary/ids'
import { type Themes, blockThemes } from './themes'

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
	/** Two on one weekday are a fast session and, six hours later, tendon work. */
	days: TrainingDay[]
	/** What the block drives on; null when nothing stands out. */
	priority: Quality | null
	/** What it only keeps. */
	kept: Quality[]
	/** The last hard day of the unloading week is for tests. */
	testDay: boolean
	/** Hard sessions proposed from the targets, or the parts of the squad's last session. */
	content: 'proposed' | 'copied'
	/** Every hard day is about something; a block from before there were themes has none. */
	themed: boolean
}
export interface BlockSession extends TrainingDay {
	day: Day
	/** 1 for the first. */
	week: number
	phase: Phase
	/** Share of the whole dose, above 0 to 1: the heaviest week has all of it. */
	share: number
	role: DayRole
	theme: ThemeId | null
}
/** A plan as it was kept before there were priorities and roles. */
export type StoredPlan = Pick<BlockPlan, 'start' | 'phases' | 'shape' | 'days'> & Partial<BlockPlan>
export const completePlan = (stored: StoredPlan): BlockPlan => ({
	priority: null,
	kept: [],
	testDay: false,
	content: 'copied',
	themed: false,
	...stored,
})

export const BLOCK_WEEKS = { least: 3, most: 8 } as const
/** A week's load is at least this, percent. */
const LEAST_LOAD = 20
/** The unloading week at a block's end, against its first week, percent. */
const UNLOADING = 60

/** Weekly loads that rise to 120 % and end in an unloading week; each step keeps within the ramp in a first and in a repeated block [our setting]. */
const SHAPES: Record<number, number[]> = {
	3: [100, 112],
	4: [100, 110, 120],
	5: [100, 108, 115, 120],
	6: [100, 106, 112, 117, 120],
	7: [100, 105, 110, 114, 118, 120],
	8: [100, 104, 108, 112, 115, 118, 120],
}

/**
 * @param weeks 3 to 8
 * @throws RangeError outside that
 * @example defaultShape(4) // [100, 110, 120, 60]
 */
export function defaultShape(weeks: number): number[] {
	const rise = SHAPES[weeks]
	if (!rise)
		throw new RangeError(`weeks: ${weeks} is not a whole number from ${BLOCK_WEEKS.least} to ${BLOCK_WEEKS.most}`)
	return [...rise, UNLOADING]
}

/** What a block may begin with; it ends in an unloading week. */
export const EMPHASES = ['accumulate', 'intensify', 'peaking'] as const satisfies readonly Phase[]
export type Emphasis = (typeof EMPHASES)[number]

/** The emphasis first, what leads on from it in the second half, and the unloading week last. */
export function defaultPhases(weeks: number, emphasis: Emphasis): Phase[] {
	const loaded = weeks - 1
	const [first, then]: [Phase, Phase] =
		emphasis === 'accumulate'
			? ['accumulate', 'intensify']
			: emphasis === 'intensify'
				? ['intensify', 'intensify']
				: ['intensify', 'peaking']
	const half = Math.ceil(loaded / 2)
	return [...Array.from({ length: loaded }, (_, week) => (week < half ? first : then)), 'unloading']
}

const minuteOf = ({ startTime }: TrainingDay) => Number(startTime.slice(0, 2)) * 60 + Number(startTime.slice(3, 5))
const HOUR_MIN = 60
const WEEK_MIN = 7 * 24 * HOUR_MIN

/**
 * What each training day of a week is for: of the first sessions of their days as many as keep the spacing,
 * around the week's end too, are hard and the others light; a second session on a day is tendon work.
 *
 * @param themes the library's
 * @param spacingMetH hours from which spacing counts as met
 * @throws RangeError for a second session less than six hours after the first, and for three on one day
 * @example weekRoles([{ weekday: 1, ... }, { weekday: 2, ... }, { weekday: 4, ... }], 44) // hard, light, hard
 */
export function weekRoles(days: readonly TrainingDay[], spacingMetH: number): DayRole[] {
	const order = days
		.map((day, index) => ({ day, index, at: (day.weekday - 1) * 24 * HOUR_MIN + minuteOf(day) }))
		.sort((a, b) => a.at - b.at)
	const roles: DayRole[] = days.map(() => 'light')
	const firsts = order.filter((one, index) => order[index - 1]?.day.weekday !== one.day.weekday)
	for (const [index, one] of order.entries()) {
		if (firsts.includes(one)) continue
		const before = order[index - 1]!
		if (order[index - 2]?.day.weekday === one.day.weekday)
			throw new RangeError(`days: at most two sessions on one day are expected`)
		if (one.at - before.at < TISSUE_HOURS * HOUR_MIN)
			throw new RangeError(
				`days: the second session at ${one.day.startTime} starts less than ${TISSUE_HOURS} h after the one at ${before.day.startTime}`,
			)
		roles[one.index] = 'tissue'
	}
	let best: typeof firsts = []
	for (let pick = 1; pick < 2 ** firsts.length; pick++) {
		const chosen = firsts.filter((_, index) => pick & (2 ** index))
		const gaps = chosen.map((one, index) =>
			index === 0 ? one.at + WEEK_MIN - chosen.at(-1)!.at : one.at - chosen[index - 1]!.at,
		)
		if (chosen.length > best.length && (chosen.length === 1 || gaps.every((gap) => gap >= spacingMetH * HOUR_MIN)))
			best = chosen
	}
	for (const one of best) roles[one.index] = 'hard'
	return roles
}

/**
 * The sessions of a block, in order. Shares go by the heaviest week, because a line's dose is what a rung
 * asks at most.
 *
 * @param spacingMetH hours from which spacing between hard days counts as met, 44 for 48
 * @throws RangeError for a start that is no Monday, for weeks and shape that do not match, for no days, and as `weekRoles` does
 */
export function blockSessions(
	{ start, phases, shape, days, testDay, priority, kept, content, themed }: BlockPlan,
	themes: Themes,
	spacingMetH = 44,
): BlockSession[] {
	if (weekday(start) !== 1) throw new RangeError(`start: ${start} is not a Monday`)
	if (phases.length !== shape.length || phases.length < BLOCK_WEEKS.least || phases.length > BLOCK_WEEKS.most)
		throw new RangeError(`phases: ${phases.length} weeks with ${shape.length} loads; 3 to 8 of both are expected`)
	if (shape.some((load) => !(load >= 20 && load <= 200)))
		throw new RangeError(`shape: ${shape.join(', ')} has a load outside 20 to 200 %`)
	if (days.length === 0) throw new RangeError('days: at least one training day is expected')
	const roles = weekRoles(days, spacingMetH)
	const sessions = phases
		.flatMap((phase, week) =>
			days.map(
				(one, index): BlockSession => ({
					...one,
					day: addDays(start, week * 7 + one.weekday - 1),
					week: week + 1,
					phase,
					share: shareOf(shape, week),
					role: roles[index]!,
					theme: null,
				}),
			),
		)
		.sort((a, b) => (isBefore(a, b) ? -1 : 1))
	const last = sessions.findLast((session) => session.role === 'hard')
	if (testDay && last && last.phase === 'unloading') last.role = 'test'
	if (!themed || content !== 'proposed') return sessions
	const turns = blockThemes(sessions, priority, kept, themes)
	return sessions.map((session, index) => ({ ...session, theme: turns[index]! }))
}

/** A week's share of the heaviest one, in hundredths. */
const shareOf = (shape: readonly number[], week: number): number =>
	Math.round((100 * shape[week]!) / Math.max(...shape)) / 100

/** The first week back after one missed, and after more of them, against the last trained one [our setting: as for time missed]. */
const BACK_AFTER = { one: 0.75, more: 0.6 } as const

/**
 * The loads of a block's weeks after some were missed: the week back starts lower, the rise goes on from where
 * it broke off, and no week is above what the ramp allows. The unloading week at the end stays.
 *
 * @param trained for each week gone by whether anybody trained, oldest first
 * @param rampPercent 5 to 20
 * @returns as many loads as `shape` has; those gone by as they were
 * @example replanShape([100, 108, 115, 120, 60], [true, false], 15) // [100, 108, 75, 100, 60]
 */
export function replanShape(shape: readonly number[], trained: readonly boolean[], rampPercent: number): number[] {
	const gone = Math.min(trained.length, shape.length)
	const lastTrained = trained.lastIndexOf(true)
	const missed = gone - 1 - lastTrained
	if (missed <= 0) return [...shape]
	const from = lastTrained < 0 ? shape[0]! : shape[lastTrained]!
	// What was to come after the last trained week comes after the week back.
	const wanted = [
		from * (missed === 1 ? BACK_AFTER.one : BACK_AFTER.more),
		...shape.slice(Math.max(0, lastTrained), -1),
	]
	const done = shape.slice(0, gone).filter((_, week) => trained[week])
	const ahead: number[] = []
	for (let week = gone; week < shape.length; week++) {
		if (week === shape.length - 1 && shape.length > 1 && shape.at(-1)! < Math.max(...shape)) {
			ahead.push(shape.at(-1)!)
			break
		}
		const four = [...done, ...ahead].slice(-4)
		const most =
			four.length === 0 ? Infinity : ((1 + rampPercent / 100) * four.reduce((sum, load) => sum + load, 0)) / four.length
		ahead.push(Math.max(LEAST_LOAD, Math.floor(Math.min(wanted[week - gone] ?? wanted.at(-1)!, most))))
	}
	return [...shape.slice(0, gone), ...ahead]
}
