import tQuantile from '@stdlib/stats-base-dists-t-quantile'
import { mean, sampleStandardDeviation } from 'simple-statistics'
import { Random } from '../chance/random'
import { MeasureError, inBounds } from '../measure/measure-error'
import type { MarkKind } from '../noise/typical-error'
import type { Dose, Parameters } from '../vocabulary/dose'
import type { Method } from '../vocabulary/words'
import { writePercent } from '../words/write-numbers'

/** The smallest change worth a coach's while, percent of the mark [our setting; what a day moves, from memory of the trade]. */
export const WORTHWHILE_PERCENT: Record<MarkKind, number> = { sprint: 1, contact: 2.5, height: 2.5, distance: 2.5 }
/** Of a trial with a worthwhile effect so many are found at the announced number of pairs. */
const POWER = 0.8
/** Of trials without any effect at most so many answer, either way, however often it is looked. */
const ALPHA = 0.05
/** Nobody is asked for more pairs than this. */
export const MOST_PAIRS = 60
export const FEWEST_PAIRS_OF_A_TRIAL = 4
/** What is known of a spread beforehand weighs as this many pairs [our setting]. */
const PRIOR_WEIGHT = 8

/** One day with and one without, of one athlete: after against before on each, percent of before, better above 0. */
export interface TrialPair {
	treatment: number
	control: number
}

/** After against before, percent of before; above 0 is better. @throws MeasureError where one is not above 0 */
export function changePercent(before: number, after: number, better: 'lower' | 'higher'): number {
	inBounds('before', before, { above: 0 })
	inBounds('after', after, { above: 0 })
	return (100 * (better === 'lower' ? before - after : after - before)) / before
}

/**
 * How far the difference of one pair scatters where nothing works, percent: two days, each a mean after against a mean
 * before.
 *
 * @param repPercent typical error of one rep, percent of the mark, above 0
 * @param reps reps before, and after, 1 and more
 */
export const pairSdPercent = (repPercent: number, reps: number): number => Math.SQRT2 * repPercent * Math.sqrt(2 / reps)

/** The same few are asked for over and over, and each takes a search. */
const known = new Map<string, number>()
function quantile(share: number, freedom: number): number {
	const key = `${share}/${freedom}`
	let value = known.get(key)
	if (value === undefined) {
		value = tQuantile(share, freedom)
		known.set(key, value)
	}
	return value
}

/**
 * Pairs with which an effect of the smallest worthwhile change is found four times in five, by Student's t.
 *
 * @param sdPercent of one pair's difference, above 0
 * @param worthwhilePercent above 0
 * @param alpha two-sided, 0–1
 */
export function pairsFor(sdPercent: number, worthwhilePercent: number, alpha: number): number {
	inBounds('sdPct', sdPercent, { above: 0 })
	inBounds('worthwhilePct', worthwhilePercent, { above: 0 })
	for (let pairs = FEWEST_PAIRS_OF_A_TRIAL; pairs < MOST_PAIRS; pairs++) {
		// One degree less than there are: with few pairs the sum of two t's promises a little too much.
		const reach = quantile(1 - alpha / 2, pairs - 2) + quantile(POWER, pairs - 2)
		if (pairs >= ((reach * sdPercent) / worthwhilePercent) ** 2) return pairs
	}
	return MOST_PAIRS
}

export type TrialAnswer = 'helps' | 'does not' | 'makes it worse' | 'no answer yet'
export interface TrialReading {
	pairs: number
	/** Mean of with minus without, percent; null without a pair. */
	difference: number | null
	/** As it was looked at last, with the confidence of that look; null before the first look. */
	interval: [low: number, high: number] | null
	/** Percent. */
	confidence: number | null
	answer: TrialAnswer
	/** Pairs until it is looked at (again). */
	more: number
	sentence: string
}

/** Each look spends half of what is left, so that however often it is looked no more than all is spent. */
const alphaOf = (look: number, outcomes: number): number => ALPHA / outcomes / 2 ** look

/**
 * What one athlete's pairs say. It is looked at only when the announced number of pairs is there, which follows the
 * scatter that is seen; each later look asks more. "Helps" and "makes it worse": the interval leaves 0 out. "Does not":
 * it leaves the smallest worthwhile change out. The last look stands, so that an answer can be overturned. Nothing is
 * said of others, or of the long run.
 *
 * @param pairs in the order of their days
 * @param priorSd what one pair's difference scatters by, percent, from the method and the reps
 * @param outcomes how many outcomes the trial looks at: 5 and 10 minutes are two
 */
export function readTrial(pairs: readonly TrialPair[], kind: MarkKind, priorSd: number, outcomes = 1): TrialReading {
	if (outcomes < 1) throw new MeasureError('outcomes', outcomes, 'at least one')
	const worthwhile = WORTHWHILE_PERCENT[kind]
	const differences = pairs.map(({ treatment, control }) => treatment - control)
	const sdAt = (n: number): number => {
		const own = n < 2 ? 0 : sampleStandardDeviation(differences.slice(0, n)) ** 2
		return Math.sqrt((PRIOR_WEIGHT * priorSd ** 2 + Math.max(0, n - 1) * own) / (PRIOR_WEIGHT + Math.max(0, n - 1)))
	}
	let look = 1
	let next = pairsFor(sdAt(0), worthwhile, alphaOf(1, outcomes))
	let last: { answer: TrialAnswer; interval: [number, number]; confidence: number } | null = null
	for (let n = FEWEST_PAIRS_OF_A_TRIAL; n <= differences.length; n++) {
		// Before a look the number follows what is seen of the scatter, never of the effect.
		next = Math.max(next, pairsFor(sdAt(n), worthwhile, alphaOf(look, outcomes)))
		if (n < next) continue
		const some = differences.slice(0, n)
		const alpha = alphaOf(look, outcomes)
		const half = (quantile(1 - alpha / 2, n - 1) * sampleStandardDeviation(some)) / Math.sqrt(n)
		const interval: [number, number] = [mean(some) - half, mean(some) + half]
		last = { answer: answerOf(interval, worthwhile), interval, confidence: 100 * (1 - alpha) }
		look++
		next = Math.max(n + 2, pairsFor(sdAt(n), worthwhile, alphaOf(look, outcomes)))
	}
	const n = differences.length
	const difference = n === 0 ? null : mean(differences)
	const answer = last?.answer ?? 'no answer yet'
	const more = Math.max(1, next - n)
	return {
		pairs: n,
		difference,
		interval: last?.interval ?? null,
		confidence: last?.confidence ?? null,
		answer,
		more,
		sentence: sayTrial(answer, n, more, last?.interval ?? null, worthwhile),
	}
}

function answerOf([low, high]: [number, number], worthwhile: number): TrialAnswer {
	if (low > 0) return 'helps'
	if (high < 0) return 'makes it worse'
	return high < worthwhile ? 'does not' : 'no answer yet'
}

/** What rounds to nothing has no sign. */
const signed = (value: number): string => `${value <= -0.05 ? '−' : ''}${writePercent(Math.abs(value))}`
function sayTrial(
	answer: TrialAnswer,
	pairs: number,
	more: number,
	interval: [number, number] | null,
	worthwhile: number,
): string {
	const over = `${pairs} ${pairs === 1 ? 'pair' : 'pairs'} of days`
	const range = interval ? `${signed(interval[0])} to ${signed(interval[1])}` : ''
	if (answer === 'helps') return `Helps: ${range} better with it than without, over ${over}.`
	if (answer === 'makes it worse') return `Makes it worse: ${range} with it, over ${over}.`
	if (answer === 'does not')
		return `Does not: with it ${range}; ${writePercent(worthwhile)} would be worth it. Over ${over}.`
	return `No answer yet: ${pairs === 0 ? 'no pair of days' : over}, about ${more} more.`
}

export type Condition = 'treatment' | 'control'
/**
 * The order of an athlete's days, two to a pair, half of the pairs begun with and half without, drawn by a seed: the same
 * seed gives the same order.
 *
 * @param pairs 1 and more
 * @param seed whole
 */
export function drawDays(pairs: number, seed: number): Condition[] {
	const random = new Random(seed)
	const firsts = Array.from({ length: pairs }, (_, index): Condition => (index < pairs / 2 ? 'treatment' : 'control'))
	// With an odd number chance says which begins oftener.
	if (pairs % 2 === 1 && random.chance(0.5))
		for (const [index, first] of firsts.entries()) firsts[index] = first === 'treatment' ? 'control' : 'treatment'
	for (let index = firsts.length - 1; index > 0; index--) {
		const other = Math.floor(random.next() * (index + 1))
		;[firsts[index], firsts[other]] = [firsts[other]!, firsts[index]!]
	}
	return firsts.flatMap((first): Condition[] => [first, first === 'treatment' ? 'control' : 'treatment'])
}

/** What is asked about: heavy or banded effort before fast work, a warm-up, a load, a cue. */
export const TRIAL_KINDS = ['heavy-before', 'warm-up', 'load', 'cue'] as const
export type TrialKind = (typeof TRIAL_KINDS)[number]
export const TRIAL_KIND_NAMES: Record<TrialKind, string> = {
	'heavy-before': 'heavy or banded effort before',
	'warm-up': 'a warm-up',
	load: 'a load',
	cue: 'a cue',
}
/** Waits that can be looked at: at once, and 5 and 10 minutes after. */
export const WAITS_MIN = [0, 5, 10] as const

/** How a trial is run. */
export interface TrialPlan {
	/** What is measured before and after. */
	outcome: { drillId: string; parameters: Parameters; kind: MarkKind; method: Method }
	/** Reps before, and after each wait, 1–4. */
	reps: number
	/** What is done in between on the days with it; a cue or a warm-up has no drill of its own. */
	treatment: { drillId: string; dose: Dose } | null
	/** Minutes between the treatment and the reps after it, each an outcome of its own. */
	waitsMin: number[]
	/** Announced when it began, an athlete. */
	pairs: number
	/** Of the order of days. */
	seed: number
	athleteIds: string[]
}
/** Entries of a trial's session. */
export interface TrialEntries {
	before: string
	treatment: string | null
	/** By minutes. */
	after: Record<string, string>
}

/**
 * What an athlete does on their next day: the order drawn for them, gone on with as long as it takes.
 *
 * @param athleteId its letters are part of the seed, so that not everybody begins alike
 * @param daysDone with everything measured
 */
export function nextCondition(
	{ pairs, seed }: Pick<TrialPlan, 'pairs' | 'seed'>,
	athleteId: string,
	daysDone: number,
): Condition {
	const round = Math.floor(daysDone / (2 * pairs))
	const own = [...athleteId].reduce((sum, letter) => (Math.imul(sum, 31) + letter.charCodeAt(0)) | 0, seed + round)
	return drawDays(pairs, own)[daysDone % (2 * pairs)]!
}

/** A day of one athlete with everything measured: means before and after each wait, in the mark’s unit. */
export interface TrialDay {
	day: string
	condition: Condition
	before: number
	/** By minutes. */
	after: Record<string, number>
}
/** Days with and days without, in their order, the first with the first: what is left over waits for its other half. */
export function pairDays(days: readonly TrialDay[], waitMin: number, better: 'lower' | 'higher'): TrialPair[] {
	const of = (condition: Condition) =>
		[...days]
			.sort((a, b) => (a.day < b.day ? -1 : 1))
			.filter((one) => one.condition === condition && one.after[waitMin] !== undefined)
			.map((one) => changePercent(one.before, one.after[waitMin]!, better))
	const [treatment, control] = [of('treatment'), of('control')]
	return treatment.slice(0, control.length).map((change, index) => ({ treatment: change, control: control[index]! }))
}
