import { linearRegression, linearRegressionLine, rSquared } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure-error'

export interface LoadedRun {
	/** Load on the sled or belt, 0–300 kg. */
	loadKg: number
	/** Top speed reached with it, above 0 to 13 m/s. */
	velocityMps: number
}

export interface ResistedLoad {
	loadKg: number
	/** Speed without load, read off the line. */
	freeVelocityMps: number
	/** Loss of speed per kg, (m/s)/kg; negative. */
	slope: number
	r2: number
	/** The load lies outside those tried. */
	extrapolated: boolean
}

/** Share of speed lost to a load: 1 − loaded / free. Both in m/s, above 0. */
export function velocityDecrement(loadedMps: number, freeMps: number): number {
	return (
		1 -
		inBounds('loadedMps', loadedMps, { above: 0, to: 13, unit: 'm/s' }) /
			inBounds('freeMps', freeMps, { above: 0, to: 13, unit: 'm/s' })
	)
}

/**
 * Load that costs an athlete a wanted share of speed, from their own load–velocity line. Another
 * surface is another line. Source: Cross et al. 2017.
 *
 * @param loads runs with at least 3 different loads
 * @param targetDecrement 0.02–0.9 of the free speed
 * @throws MeasureError with fewer loads, or when more load did not cost speed
 * @example resistedLoad([{ loadKg: 0, velocityMps: 9 }, { loadKg: 20, velocityMps: 7.5 }, { loadKg: 40, velocityMps: 6 }], 0.25).loadKg // 30
 */
export function resistedLoad(loads: readonly LoadedRun[], targetDecrement: number): ResistedLoad {
	loads.forEach((run, index) => {
		inBounds(`loads[${index}].loadKg`, run.loadKg, { from: 0, to: 300, unit: 'kg' })
		inBounds(`loads[${index}].velocityMps`, run.velocityMps, { above: 0, to: 13, unit: 'm/s' })
	})
	const different = new Set(loads.map((run) => run.loadKg)).size
	if (different < 3) throw new MeasureError('loads', different, 'at least 3 different loads')
	inBounds('targetDecrement', targetDecrement, { from: 0.02, to: 0.9, unit: '(share of the free speed: 0.1 is 10 %)' })
	const points = loads.map((run): [number, number] => [run.loadKg, run.velocityMps])
	const line = linearRegression(points)
	if (!(line.m < 0 && line.b > 0))
		throw new MeasureError('loads', `${line.m.toFixed(4)} m/s per kg`, 'runs that get slower with more load')
	const loadKg = (-targetDecrement * line.b) / line.m
	const tried = loads.map((run) => run.loadKg)
	return {
		loadKg,
		freeVelocityMps: line.b,
		slope: line.m,
		r2: rSquared(points, linearRegressionLine(line)),
		extrapolated: loadKg < Math.min(...tried) - 1e-9 || loadKg > Math.max(...tried) + 1e-9,
	}
}
