import { MeasureError, inBounds } from '../measure-error'

export const PLANTS = ['both-standing', 'both-run-in', 'left', 'right'] as const
/** How a jump is taken off: both feet from a stand, both after a run-in, one foot after a run-in. */
export type Plant = (typeof PLANTS)[number]

/** Field names of the plants in the input. */
const FIELDS: Record<Plant, string> = {
	'both-standing': 'bothStanding',
	'both-run-in': 'bothRunIn',
	left: 'left',
	right: 'right',
}

export interface PlantReading {
	plant: Plant
	heightM: number
	/** Share of the best plant, 0–1. */
	share: number
}

/**
 * Compares an athlete's jump heights by take-off plant: each as a share of the best, and which one lags.
 *
 * @param heightsM best height of each plant tried, above 0 to 2 m; at least two plants
 * @returns readings in the order of PLANTS; the lagging plant, null when the lowest is within the error of the best
 * @param errorShare relative error of the method, 0.03 when left out [our setting]
 * @throws MeasureError outside those ranges
 */
export function comparePlants(
	heightsM: { [P in Plant]?: number | undefined },
	errorShare = 0.03,
): { readings: PlantReading[]; best: Plant; lagging: Plant | null } {
	inBounds('errorShare', errorShare, { from: 0, to: 0.3 })
	const tried = PLANTS.filter((plant) => heightsM[plant] !== undefined)
	if (tried.length < 2) throw new MeasureError('heightsM', tried.length, 'at least two plants')
	tried.forEach((plant) => inBounds(`heightsM.${FIELDS[plant]}`, heightsM[plant], { above: 0, to: 2, unit: 'm' }))
	const best = tried.reduce((a, b) => (heightsM[b]! > heightsM[a]! ? b : a))
	const readings = tried.map((plant) => ({
		plant,
		heightM: heightsM[plant]!,
		share: heightsM[plant]! / heightsM[best]!,
	}))
	const lowest = readings.reduce((a, b) => (b.share < a.share ? b : a))
	return { readings, best, lagging: lowest.share < 1 - 2 * errorShare ? lowest.plant : null }
}

/**
 * Countermovement jump over squat jump: what the counter-movement adds.
 * @param countermovementM, squatM heights, above 0 to 2 m
 * @example countermovementRatio(0.4, 0.36) // 1.111…
 */
export function countermovementRatio(countermovementM: number, squatM: number): number {
	return (
		inBounds('countermovementM', countermovementM, { above: 0, to: 2, unit: 'm' }) /
		inBounds('squatM', squatM, { above: 0, to: 2, unit: 'm' })
	)
}
