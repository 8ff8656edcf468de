import type { ParameterName } from '#core/vocabulary/parameters'

/** What may be set on a drill, with its unit. */
export const PARAMETER_WORDS: Record<ParameterName, string> = {
	distanceM: 'Distance, m',
	heightCm: 'Height, cm',
	angleDeg: 'Angle, °',
	ballKg: 'Ball, kg',
	runInM: 'Run-in, m',
	radiusM: 'Radius, m',
	approachSteps: 'Approach, steps',
	assistPercent: 'Over own top speed, %',
	resistPercent: 'Speed lost to a pull, %',
	effortPercent: 'Effort, %',
	loadG: 'Worn, g',
	minutes: 'Minutes',
}
