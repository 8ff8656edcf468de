/** A time or a contact is better when lower, a height or a distance when higher. */
export type Better = 'lower' | 'higher'

/** Limits above this share say nothing about fatigue: the method is too coarse [our setting]. */
export const COARSE_ABOVE_PERCENT = 8

/**
 * Percent by which a rep is worse than the session's best so far, in the mark's own unit; worse is
 * positive, the best itself is 0. A time 5 % slower reads 5, although the speed is 4.76 % lower.
 *
 * @throws RangeError when a mark is not above 0
 * @example dropOffPercent(3.15, 3.0, 'lower') // 5
 */
export function dropOffPercent(value: number, best: number, better: Better): number {
	if (!(value > 0)) throw new RangeError(`value: ${value} is not above 0`)
	if (!(best > 0)) throw new RangeError(`best: ${best} is not above 0`)
	return ((better === 'lower' ? value - best : best - value) / best) * 100
}

export interface DropOffReading {
	/** One number per rep: percent off the best of the reps up to and including it. */
	percents: number[]
	best: number
	bestIndex: number
	/** The limit in force: the larger of the school's and three typical errors. */
	limitPercent: number
	/** Three typical errors exceed what could tell fatigue: no suggestion is made. */
	tooCoarse: boolean
	/** The last two reps are both at or past the limit. */
	endTheSet: boolean
	/** Reps done before the first fall that ended a set; null when none did. */
	repsBeforeFall: number | null
}

/**
 * Live drop-off of one athlete on one line. Stop is suggested when two reps running are at or past
 * max(school limit, 3 × typical error) from the session's best: with plain noise of 1.5 % a limit of
 * 3 % on one rep would stop one set in seven for nothing.
 *
 * @param values marks in order, one method, each above 0
 * @param typicalError in the marks' unit; null when the method has none
 * @param schoolLimitPercent 1–10
 */
export function readDropOff(values: readonly number[], better: Better, schoolLimitPercent: number, typicalError: number | null): DropOffReading | null {
	const first = values[0]
	if (first === undefined) return null
	let best = first
	let bestIndex = 0
	const percents = values.map((value, index) => {
		const isBetter = better === 'lower' ? value < best : value > best
		if (isBetter) {
			best = value
			bestIndex = index
		}
		return dropOffPercent(value, best, better)
	})
	const noisePercent = typicalError === null ? 0 : (3 * typicalError * 100) / best
	const tooCoarse = typicalError === null || noisePercent > Math.max(COARSE_ABOVE_PERCENT, schoolLimitPercent)
	const limitPercent = Math.max(schoolLimitPercent, noisePercent)
	const fell = percents.map((percent) => percent >= limitPercent - 1e-9)
	const fall = fell.findIndex((past, index) => past && fell[index + 1] === true)
	return {
		percents,
		best,
		bestIndex,
		limitPercent,
		tooCoarse,
		endTheSet: !tooCoarse && fell.length >= 2 && fell.at(-1) === true && fell.at(-2) === true,
		repsBeforeFall: tooCoarse || fall === -1 ? null : fall,
	}
}
