import { mean } from 'simple-statistics'
import { inBounds } from '../measure/measure-error'
import type { Method } from '../vocabulary/words'
import { type Better, percentsOffBest } from './drop-off'

/** Reps at the end that may have fallen together, and reps of the best stretch they are held against. */
const LAST = [2, 3, 4] as const
const STRETCH = 4
/** Of the last reps so many are past the limit, the very last among them. */
const LEAST_PAST = 2
/** Fewest reps that can say anything: one, and two after it. */
const FEWEST = 3
/**
 * Standard errors between the last reps and the best stretch from which a fall is called, by the number of
 * reps done. Set by simulation so that of exposures without any fatigue at most 2 % are stopped, whatever
 * their number of reps, most of that chance being spent between the fifth rep and the tenth. What is said
 * after some reps does not hang on how many were planned.
 */
const LIMITS: Readonly<Record<number, number>> = { 3: 3.4, 4: 3.4, 5: 3.3, 6: 3.1, 7: 3, 8: 2.95 }
const limitAt = (reps: number): number => LIMITS[reps] ?? 2.95 + 1.45 * Math.log(reps / 8)
/** Share of exposures without fatigue that are stopped up to so many reps, from the same simulation. */
const FALSE_STOPS: readonly (readonly [reps: number, rate: number])[] = [
	[2, 0],
	[4, 0.001],
	[5, 0.002],
	[6, 0.004],
	[7, 0.007],
	[8, 0.01],
	[10, 0.014],
	[15, 0.018],
]
export const MOST_FALSE_STOPS = 0.02

/** An error over this share of the mark hides the tiredness of one set [our setting]. */
const COARSE_PERCENT = 4.4
/** From this share on it is seen in fewer than half of the sets. */
const SEES_LITTLE_PERCENT = 3

export interface StopReading {
	/** Reps of all sets, from 1, after which no more are worth while; null while there is no such sign. */
	stopAfter: number | null
	/** The method cannot show tiredness here: nothing is ever called. */
	tooCoarse: boolean
	/** It shows tiredness in fewer than half of the sets. */
	seesLittle: boolean
	/** Share of exposures without fatigue that this would have stopped by now, at most. */
	falseStopRate: number
	/** Percent off the best of all reps before, one a rep. */
	percents: number[]
	/** Reps before the fall began; null without one. */
	repsBeforeFall: number | null
	best: number
}

/**
 * One more, or stop: after each rep the last two, three or four are held against the best stretch of up to
 * four reps before them, across the sets of the line. Stop is said once they are past the limit and farther
 * apart than chance would bring them; it stays said.
 *
 * @param values marks in order, all sets, one key, each above 0
 * @param limitPercent fall that matters, above 0
 * @param typicalError of one rep, in the mark's unit, above 0; null when the method has none
 * @throws MeasureError outside those ranges
 */
export function readStop(
	values: readonly number[],
	better: Better,
	limitPercent: number,
	typicalError: number | null,
	method?: Method,
): StopReading | null {
	values.forEach((value, index) => inBounds(`marks[${index}]`, value, { above: 0 }))
	inBounds('limitPct', limitPercent, { above: 0, to: 50, unit: '%' })
	if (typicalError !== null) inBounds('typicalError', typicalError, { above: 0 })
	if (values.length === 0) return null
	const best = better === 'lower' ? Math.min(...values) : Math.max(...values)
	// What the error is a share of must not change with later reps: the first rep stands for the athlete.
	const errorPercent = typicalError === null ? Number.POSITIVE_INFINITY : (100 * typicalError) / values[0]!
	const tooCoarse = method === 'reach' || errorPercent > COARSE_PERCENT
	const fall = tooCoarse || typicalError === null ? null : findFall(values, better, limitPercent, typicalError)
	return {
		stopAfter: fall?.after ?? null,
		tooCoarse,
		seesLittle: !tooCoarse && errorPercent > SEES_LITTLE_PERCENT,
		falseStopRate: tooCoarse ? 0 : (FALSE_STOPS.find(([reps]) => reps >= values.length)?.[1] ?? MOST_FALSE_STOPS),
		percents: percentsOffBest(values, better),
		repsBeforeFall: fall?.before ?? null,
		best,
	}
}

function findFall(
	values: readonly number[],
	better: Better,
	limitPercent: number,
	typicalError: number,
): { after: number; before: number } | null {
	const best = bestStretches(values, better)
	for (let reps = FEWEST; reps <= values.length; reps++)
		for (const last of LAST) {
			const before = reps - last
			if (before < 1) continue
			const stretch = best[before]!
			const fallTo = (value: number) => (better === 'lower' ? value - stretch.mean : stretch.mean - value)
			const isPast = (value: number) => (100 * fallTo(value)) / stretch.mean >= limitPercent - 1e-9
			const window = values.slice(before, reps)
			const now = mean(window)
			const error = typicalError * Math.sqrt(1 / last + 1 / stretch.reps)
			// One slip is no fall: the last rep must be past the limit, and another beside it.
			if (!isPast(now) || !isPast(window.at(-1)!) || window.filter(isPast).length < LEAST_PAST) continue
			if (fallTo(now) >= limitAt(reps) * error) return { after: reps, before: before + window.findIndex(isPast) }
		}
	return null
}

/** The best mean of up to four reps running, among the first so many reps: by their number, in one pass. */
export function bestStretches(values: readonly number[], better: Better): { mean: number; reps: number }[] {
	const best: { mean: number; reps: number }[] = [{ mean: Number.NaN, reps: 0 }]
	for (let before = 1; before <= values.length; before++) {
		const reps = Math.min(STRETCH, before)
		const latest = mean(values.slice(before - reps, before))
		const earlier = best[before - 1]!
		// A shorter stretch is only held against while there are no four reps.
		const stands = earlier.reps === reps && (better === 'lower' ? earlier.mean < latest : earlier.mean > latest)
		best.push(stands ? earlier : { mean: latest, reps })
	}
	return best
}
