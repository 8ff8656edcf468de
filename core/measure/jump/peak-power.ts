import { inBounds } from '../measure-error'

/**
 * Peak power of a vertical jump in watts: 60.7 · height (cm) + 45.3 · mass (kg) − 2055, an estimate over
 * a group, with several hundred watts of error for one person. Source: Sayers et al. 1999.
 *
 * @param heightM above 0 to 1.2 m
 * @param massKg 15–200 kg
 * @throws MeasureError outside the ranges, or where the equation falls below 0
 * @example peakPower(0.4, 70) // 3544
 */
export function peakPower(heightM: number, massKg: number): number {
	inBounds('heightM', heightM, { above: 0, to: 1.2, unit: 'm' })
	inBounds('massKg', massKg, { from: 15, to: 200, unit: 'kg' })
	const watts = 60.7 * heightM * 100 + 45.3 * massKg - 2055
	// Made on adults; for a light child and a low jump the line runs below the ground.
	return inBounds('massKg', watts, {
		above: 0,
		unit: 'W by this equation: it does not hold for so light a body and so low a jump',
	})
}
