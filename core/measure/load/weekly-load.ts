import { mean, sampleStandardDeviation, sum } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure-error'

/**
 * Load of one session in arbitrary units: perceived exertion (0–10) × minutes. Source: Foster et al. 2001.
 *
 * @param rpe 0–10
 * @param minutes 0–600
 * @example sessionLoad(6, 75) // 450
 */
export function sessionLoad(rpe: number, minutes: number): number {
	return inBounds('rpe', rpe, { from: 0, to: 10 }) * inBounds('minutes', minutes, { from: 0, to: 600, unit: 'minutes' })
}

export interface WeeklyLoad {
	mean: number
	sd: number
	/** Mean over SD; null when every day is the same. */
	monotony: number | null
	/** Sum of the week. */
	load: number
	/** Load × monotony; null with it. */
	strain: number | null
	warnings: string[]
}

/**
 * Monotony and strain of seven days: mean / sample SD of the daily loads (a rest day is 0), and the
 * week's sum times that. Source: Foster et al. 2001.
 *
 * @param dailyLoad seven loads, 0–20 000 each
 * @throws MeasureError when there are not seven, or one is out of range
 * @example weeklyLoad([400, 0, 300, 0, 500, 0, 0]).load // 1200
 */
export function weeklyLoad(dailyLoad: readonly number[]): WeeklyLoad {
	if (dailyLoad.length !== 7) throw new MeasureError('dailyLoad', dailyLoad.length, 'seven daily loads')
	dailyLoad.forEach((load, index) => inBounds(`dailyLoad[${index}]`, load, { from: 0, to: 20_000 }))
	const average = mean([...dailyLoad])
	// Equal decimals must read as equal, not as a spread of one rounding.
	const same = dailyLoad.every((load) => load === dailyLoad[0])
	const sd = same ? 0 : sampleStandardDeviation([...dailyLoad])
	const load = sum([...dailyLoad])
	const monotony = same ? null : average / sd
	return {
		mean: average,
		sd,
		monotony,
		load,
		strain: monotony === null ? null : load * monotony,
		warnings: same ? ['Every day is the same, so monotony and strain are not defined.'] : [],
	}
}
