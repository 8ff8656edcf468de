import { inBounds } from '../measure-error'
import { STANDARD_GRAVITY } from '../standard-gravity'

/**
 * Running a curve: centripetal acceleration v²/r and the lean that balances it, atan(v²/(r g)), measured
 * from the vertical.
 *
 * @param radiusM above 0 to 1000 m
 * @param speedMps above 0 to 13 m/s
 * @throws MeasureError outside those ranges
 * @example curveRun(20, 8) // { centripetalMps2: 3.2, leanDeg: 18.07… }
 */
export function curveRun(radiusM: number, speedMps: number): { centripetalMps2: number; leanDeg: number } {
	inBounds('radiusM', radiusM, { above: 0, to: 1000, unit: 'm' })
	inBounds('speedMps', speedMps, { above: 0, to: 13, unit: 'm/s' })
	const centripetalMps2 = speedMps ** 2 / radiusM
	return { centripetalMps2, leanDeg: (Math.atan(centripetalMps2 / STANDARD_GRAVITY) * 180) / Math.PI }
}
