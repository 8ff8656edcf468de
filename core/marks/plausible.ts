import { median } from 'simple-statistics'
import { timeAtDistance } from '../measure/sprint/sprint-curve'
import type { Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Level } from '../vocabulary/words'
import type { MarkKind } from '../noise/typical-error'

export interface Range {
	low: number
	high: number
}
export interface Plausibility {
	outcome: 'plausible' | 'set-aside'
	range: Range
	/** What was probably meant, when the value cannot be. */
	likely?: number
}

/** Own marks of one key before they say what is plausible. */
export const FEWEST_OWN = 5
/**
 * How far from the own median a mark may lie before it is asked about, as shares [our setting]: far outside
 * what a day, tiredness or a season brings, inside what a wrong digit does. The median stays when one mark was typed wrong.
 */
const AROUND_OWN: Record<MarkKind | 'throw', readonly [number, number]> = {
	sprint: [0.85, 1.3],
	contact: [0.6, 1.8],
	height: [0.5, 1.4],
	distance: [0.6, 1.3],
	throw: [0.5, 1.4],
}

/** The fastest a level sprints: top speed, m/s, and time constant, s [our setting, from memory of the trade]. */
const FASTEST: Record<Level, readonly [mssMps: number, tauS: number]> = { 1: [10, 0.95], 2: [11.2, 0.98], 3: [12.6, 1] }
/** Highest jump from two feet, m, by level, and the longest single leap, m [our setting]. */
const HIGHEST_M: Record<Level, number> = { 1: 0.7, 2: 0.85, 3: 1.05 }
const LONGEST_M: Record<Level, number> = { 1: 3, 2: 3.4, 3: 3.9 }
/** Farthest throw of a ball of 3 kg, m [our setting]. */
const FARTHEST_M: Record<Level, number> = { 1: 16, 2: 20, 3: 26 }
const SHORTEST_CONTACT_S = 0.06
const LONGEST_CONTACT_S = 1
const LOWEST_JUMP_M = 0.03
/** Nobody who was timed walked [our setting]. */
const SLOWEST_MPS = 1.5

/**
 * Whether a number can be: from the athlete's own marks of the same key when there are five, else from what
 * the level can do. What cannot be is kept as typed, set aside, and asked about.
 *
 * @param value s for sprint and contact, m for height and distance; above 0
 * @param history own marks of the same key, any order
 */
export function plausibility(
	kind: MarkKind,
	drill: Pick<Drill, 'family' | 'start' | 'counting'>,
	parameters: Parameters,
	value: number,
	history: readonly number[],
	level: Level,
): Plausibility {
	const range = rangeFor(kind, drill, parameters, history, level)
	// A guard for rounding: the end of the range is inside it.
	const inside = (one: number) => one >= range.low * (1 - 1e-9) && one <= range.high * (1 + 1e-9)
	if (inside(value)) return { outcome: 'plausible', range }
	const usual = history.length >= FEWEST_OWN ? median([...history]) : null
	const nearest =
		usual === null
			? misplaced(value).find(inside)
			: [...misplaced(value), ...mistyped(value)]
					.filter(inside)
					.sort((one, other) => Math.abs(Math.log(one / usual)) - Math.abs(Math.log(other / usual)))[0]
	return { outcome: 'set-aside', range, ...(nearest === undefined ? {} : { likely: nearest }) }
}

/** What own marks make likely; null with too few. A throw scatters more than a jump. */
export function aroundOwn(kind: MarkKind | 'throw', history: readonly number[]): Range | null {
	if (history.length < FEWEST_OWN) return null
	const [low, high] = AROUND_OWN[kind]
	const usual = median([...history])
	return { low: low * usual, high: high * usual }
}

function rangeFor(
	kind: MarkKind,
	drill: Pick<Drill, 'family' | 'start' | 'counting'>,
	parameters: Parameters,
	history: readonly number[],
	level: Level,
): Range {
	const own = aroundOwn(kind === 'distance' && drill.family === 'throw' ? 'throw' : kind, history)
	if (own) return own
	if (kind === 'contact') return { low: SHORTEST_CONTACT_S, high: LONGEST_CONTACT_S }
	if (kind === 'height') return { low: LOWEST_JUMP_M, high: HIGHEST_M[level] }
	if (kind === 'distance') return distanceRange(drill, parameters, level)
	return sprintRange(drill, parameters, level)
}

function sprintRange(drill: Pick<Drill, 'start'>, parameters: Parameters, level: Level): Range {
	const metres = parameters.distanceM ?? 10
	const [mss, tau] = FASTEST[level]
	const fastest = mss * (1 + (parameters.assistPercent ?? 0) / 100)
	const low = drill.start === 'rolling' ? metres / fastest : timeAtDistance(fastest, tau, metres)
	return { low, high: metres / SLOWEST_MPS + 2 }
}

function distanceRange(
	{ family, counting }: Pick<Drill, 'family' | 'counting'>,
	parameters: Parameters,
	level: Level,
): Range {
	if (family === 'throw')
		// A lighter ball flies farther, by about the root of what it weighs.
		return { low: 0.5, high: FARTHEST_M[level] * Math.sqrt(3 / (parameters.ballKg ?? 3)) }
	// A run of jumps is measured over all of them.
	const jumps = counting.contacts?.by === 'rep' ? counting.contacts.perRep : 1
	return { low: 0.2, high: LONGEST_M[level] * jumps }
}

/** Scaling leaves rounding behind that nobody types. */
const asTyped = (value: number): number => Number(value.toPrecision(6))

/** The same digits with the point, or the unit, elsewhere: nearest first. */
const misplaced = (value: number): number[] =>
	[10, 0.1, 100, 0.01, 1000, 0.001].map((factor) => asTyped(value * factor))

/** One digit wrong, or two side by side swapped. */
function mistyped(value: number): number[] {
	const letters = [...String(value)]
	const at = letters.flatMap((letter, index) => (/\d/.test(letter) ? [index] : []))
	const with_ = (...changes: [index: number, letter: string][]) => {
		const changed = [...letters]
		for (const [index, letter] of changes) changed[index] = letter
		return Number(changed.join(''))
	}
	const wrong = at.flatMap((index) => Array.from({ length: 10 }, (_, digit) => with_([index, String(digit)])))
	const swapped = at
		.slice(1)
		.map((index, before) => with_([at[before]!, letters[index]!], [index, letters[at[before]!]!]))
	return [...wrong, ...swapped].filter((one) => one > 0)
}
