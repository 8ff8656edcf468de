import { addTo } from '../lists/group-by'
import { mean } from 'simple-statistics'
import { type Day, daysBetween } from '../calendar/day-count'
import { dropJumpSeries, type DropJump } from '../measure/jump/drop-jump-series'
import { MeasureError } from '../measure/measure-error'
import { type SprintProfile, fitSprintProfile } from '../measure/sprint/fit-profile'
import { type LoadedRun, resistedLoad } from '../measure/sprint/resisted-load'
import type { SprintSplit } from '../measure/sprint/splits'
import { type StepAdvice, stepAdvice } from '../measure/sprint/steps'
import { type SegmentReading, whereTimeGoes } from '../measure/sprint/where-time-goes'

/** When and how something was measured: how is in words, "gates", "film". */
export interface Taken {
	on: Day
	how: string
}
export interface BestBox extends Taken {
	heightCm: number
	/** The contact from it keeps the school's sprint goal; false: no box tried does, and this one has the shortest. */
	keepsGoal: boolean
}
export interface TopSpeed extends Taken {
	mssMps: number
	tauS: number
	/** Sessions the splits come from; null for one profile of the bench. */
	sessions: number | null
}
export interface LoadLine extends Taken {
	loads: readonly LoadedRun[]
}
export interface StepLength extends Taken {
	lengthM: number
}
export interface WicketRow extends Taken {
	count: number
	firstGapM: number
	lastGapM: number
}

/** What was measured of one athlete and stands on a day. */
export interface Own {
	bestBox?: BestBox
	topSpeed?: TopSpeed
	loadLine?: LoadLine
	step?: StepLength
	/** What the athlete's own faster reps had more of. */
	stepAdvice?: StepAdvice
	wickets?: WicketRow
}

/** One measurement of the bench, as far as it says something of lines to come. */
export type Measured = Taken &
	(
		| { kind: 'drop-jumps'; jumps: readonly DropJump[] }
		| { kind: 'profile'; mssMps: number; tauS: number }
		| { kind: 'loads'; loads: readonly LoadedRun[] }
		| { kind: 'steps'; lengthM: number; speedMps: number }
		| { kind: 'wickets'; count: number; firstGapM: number; lastGapM: number }
	)

/** A measurement older than this says nothing of today: half a year [our setting]. */
export const STANDS_DAYS = 182
/** Of the fastest counted steps so much slower ones are no top speed, share [our setting]. */
const NEAR_TOP = 0.97

/**
 * What stands of an athlete's measurements on a day: of each kind the newest that is not over half a year old.
 *
 * @param measured any order
 * @param goalS contact that keeps the school's sprint goal, s
 * @param field top speed from splits of the field, where there is one
 */
export function ownOf(measured: readonly Measured[], goalS: number, day: Day, field: TopSpeed | null = null): Own {
	const standing = measured
		.filter((one) => one.on <= day && daysBetween(one.on, day) <= STANDS_DAYS)
		.sort((a, b) => (a.on < b.on ? 1 : a.on > b.on ? -1 : 0))
	const newest = <K extends Measured['kind']>(kind: K) =>
		standing.find((one): one is Extract<Measured, { kind: K }> => one.kind === kind)
	const jumps = newest('drop-jumps')
	const profile = newest('profile')
	const loads = newest('loads')
	const wickets = newest('wickets')
	const bench: TopSpeed | null = profile
		? { mssMps: profile.mssMps, tauS: profile.tauS, on: profile.on, how: profile.how, sessions: null }
		: null
	const topSpeed = newerSpeed(bench, field)
	const steps = standing.filter((one): one is Extract<Measured, { kind: 'steps' }> => one.kind === 'steps')
	const step = stepOf(steps)
	return {
		...(jumps ? { bestBox: bestBoxOf(jumps, goalS) } : {}),
		...(topSpeed ? { topSpeed } : {}),
		...(loads ? { loadLine: { loads: loads.loads, on: loads.on, how: loads.how } } : {}),
		...(step ? { step, stepAdvice: adviceOf(steps) } : {}),
		...(wickets
			? {
					wickets: {
						count: wickets.count,
						firstGapM: wickets.firstGapM,
						lastGapM: wickets.lastGapM,
						on: wickets.on,
						how: wickets.how,
					},
				}
			: {}),
	}
}

/** The bench's profile or the field's, whichever is newer; the bench's on one day. */
export const newerSpeed = (bench: TopSpeed | null, field: TopSpeed | null): TopSpeed | null =>
	bench && field ? (field.on > bench.on ? field : bench) : (bench ?? field)

/** The bench's series by the goal of the athlete's school, whatever goal it was looked at with. */
function bestBoxOf({ jumps, on, how }: Extract<Measured, { kind: 'drop-jumps' }>, goalS: number): BestBox {
	const { bestBoxM, quickestBoxM } = dropJumpSeries(goalS, jumps)
	return { heightCm: Math.round((bestBoxM ?? quickestBoxM) * 100), keepsGoal: bestBoxM !== null, on, how }
}

/** The newest day's steps near the top speed of what stands: a step at half effort is no measure for wickets. */
function stepOf(steps: readonly Extract<Measured, { kind: 'steps' }>[]): StepLength | null {
	const fastest = Math.max(...steps.map((one) => one.speedMps))
	const near = steps.filter((one) => one.speedMps >= fastest * NEAR_TOP)
	const [newest] = near
	if (!newest) return null
	const sameDay = near.filter((one) => one.on === newest.on)
	return { lengthM: mean(sameDay.map((one) => one.lengthM)), on: newest.on, how: newest.how }
}
const adviceOf = (steps: readonly Extract<Measured, { kind: 'steps' }>[]): StepAdvice =>
	stepAdvice(steps.map((one) => ({ sessionId: one.on, speedMps: one.speedMps, stepLengthM: one.lengthM })))

/** Splits of one session's run, cumulative from the start. */
export interface FieldRun {
	day: Day
	/** Runs of unlike starts, or of unlike grounds, are never put together. */
	start: string
	splits: readonly { distanceM: number; timeS: number }[]
}
/** Sessions, distances and the longest of them that make a profile of the field [our setting]. */
const FIELD_SESSIONS = 3
const FIELD_DISTANCES = 4
const FIELD_LONGEST_M = 30
/** The last split has to come so near top speed, share of it [our setting]. */
const FIELD_NEAR_TOP = 0.95

/** The mean time at each distance over sessions of one start, of the start that was run most among those with enough; null without one. */
function fieldMeans(runs: readonly FieldRun[]): { splits: SprintSplit[]; on: Day; sessions: number } | null {
	const byStart = new Map<string, FieldRun[]>()
	for (const run of runs) addTo(byStart, run.start, run)
	for (const own of [...byStart.values()].sort((a, b) => b.length - a.length)) {
		const distances = [...new Set(own.flatMap((run) => run.splits.map((split) => split.distanceM)))].sort(
			(a, b) => a - b,
		)
		// Only runs with every distance are put together: two athletes' days would make one bent curve.
		const whole = own.filter((run) => distances.every((at) => run.splits.some((split) => split.distanceM === at)))
		if (whole.length < FIELD_SESSIONS || distances.length < FIELD_DISTANCES || distances.at(-1)! < FIELD_LONGEST_M)
			continue
		return {
			splits: distances.map((distanceM) => ({
				distanceM,
				timeS: mean(whole.map((run) => run.splits.find((split) => split.distanceM === distanceM)!.timeS)),
			})),
			on: whole.reduce((last, run) => (run.day > last ? run.day : last), ''),
			sessions: whole.length,
		}
	}
	return null
}

/**
 * Top speed and time constant from gate splits of ordinary sessions: the mean time at each distance over sessions
 * of one start, at least three of them, four distances of which the longest is 30 m or more and comes near top speed.
 *
 * @returns null while there are too few, or where they are no sprint
 */
export function fieldSpeed(runs: readonly FieldRun[]): TopSpeed | null {
	const means = fieldMeans(runs)
	const fit = means && fitted(means.splits)
	if (!means || !fit || fit.topSpeedShare < FIELD_NEAR_TOP) return null
	return { mssMps: fit.mssMps, tauS: fit.tauS, on: means.on, how: 'gates', sessions: means.sessions }
}

/** Where the time goes in ordinary sessions: each segment against the athlete's own curve through them. */
export interface FieldSegments {
	segments: SegmentReading[]
	mssMps: number
	tauS: number
	on: Day
	sessions: number
}
/** Of one split time by gates, s [our setting, as at the bench]. */
const GATE_ERROR_S = 0.01
/**
 * The segments of the same means against the curve through them: one is weak only beyond what the timing of so many
 * sessions errs.
 */
export function fieldSegments(runs: readonly FieldRun[]): FieldSegments | null {
	const means = fieldMeans(runs)
	const fit = means && fitted(means.splits)
	if (!means || !fit) return null
	const [first, ...rest] = whereTimeGoes(means.splits, fit, GATE_ERROR_S / Math.sqrt(means.sessions))
	return {
		// The first holds the start itself, which the curve knows nothing of.
		segments: [{ ...first!, weak: false }, ...rest],
		mssMps: fit.mssMps,
		tauS: fit.tauS,
		on: means.on,
		sessions: means.sessions,
	}
}
function fitted(splits: readonly SprintSplit[]): SprintProfile | null {
	try {
		return fitSprintProfile({ splits: [...splits], correction: 'none' })
	} catch (error) {
		if (error instanceof MeasureError) return null
		throw error
	}
}

/** The load for a wanted loss of speed off an own line, kg; null where the line does not tell. */
export function ownLoad({ loads }: LoadLine, lossPercent: number): { kg: number; extrapolated: boolean } | null {
	try {
		const { loadKg, extrapolated } = resistedLoad(loads, lossPercent / 100)
		return { kg: loadKg, extrapolated }
	} catch (error) {
		if (error instanceof MeasureError) return null
		throw error
	}
}
