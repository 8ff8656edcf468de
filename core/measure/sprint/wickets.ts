import { MeasureError, inBounds } from '../measure-error'

export interface WicketsInput {
	/** 2–60 wickets; there is one gap less. */
	count: number
	/** 0.2–4 m. */
	firstGapM: number
	/** 0.2–4 m; the gaps change evenly between the two. */
	lastGapM: number
	/** From the start to the first wicket, 0–60 m. */
	runInM?: number
}

export interface Wickets {
	gapsM: number[]
	/** Of each wicket from the first. */
	positionsM: number[]
	/** First to last wicket. */
	lengthM: number
	/** Of each wicket from the start; null without a run-in. */
	positionsFromStartM: number[] | null
}

/**
 * Spacing list of a row of wickets.
 *
 * @throws MeasureError outside the ranges of the input
 * @example wicketSpacing({ count: 10, firstGapM: 1.9, lastGapM: 2.3 }).lengthM // 18.9
 */
export function wicketSpacing({ count, firstGapM, lastGapM, runInM }: WicketsInput): Wickets {
	inBounds('count', count, { from: 2, to: 60, whole: true, unit: 'wickets' })
	inBounds('firstGapM', firstGapM, { from: 0.2, to: 4, unit: 'm' })
	inBounds('lastGapM', lastGapM, { from: 0.2, to: 4, unit: 'm' })
	if (count === 2 && firstGapM !== lastGapM)
		throw new MeasureError('lastGapM', lastGapM, `${firstGapM} m: two wickets have one gap`)
	const runIn = runInM === undefined ? null : inBounds('runInM', runInM, { from: 0, to: 60, unit: 'm' })
	const gaps = count - 1
	const gapsM = Array.from({ length: gaps }, (_, index) =>
		gaps === 1 ? firstGapM : firstGapM + ((lastGapM - firstGapM) * index) / (gaps - 1),
	)
	const positionsM = [0]
	for (const gap of gapsM) positionsM.push(positionsM.at(-1)! + gap)
	return {
		gapsM,
		positionsM,
		lengthM: positionsM.at(-1)!,
		positionsFromStartM: runIn === null ? null : positionsM.map((position) => position + runIn),
	}
}

/**
 * First and last gap from a target step length: the row starts at a share of the target and ends at it.
 *
 * @param targetStepM 0.2–4 m
 * @param startShare above 0 to 1
 * @example wicketsToTarget(10, 2.3, 0.83) // gaps from 1.909 to 2.3 m
 */
export function wicketsToTarget(count: number, targetStepM: number, startShare: number, runInM?: number): Wickets {
	inBounds('targetStepM', targetStepM, { from: 0.2, to: 4, unit: 'm' })
	inBounds('startShare', startShare, { above: 0, to: 1 })
	return wicketSpacing({
		count,
		firstGapM: targetStepM * startShare,
		lastGapM: targetStepM,
		...(runInM === undefined ? {} : { runInM }),
	})
}
