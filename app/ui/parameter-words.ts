import { isMeasured, parameterTyped } from '#core/measure/quantity'
import type { Units } from '#core/words/units'
import type { ParameterName } from '#core/vocabulary/parameters'

/** What may be set on a drill, with its unit. */
export function parameterWords(name: ParameterName, units: Units): string {
	if (units === 'metric' || !isMeasured(name)) return PARAMETER_WORDS[name]
	const { unit } = parameterTyped(name, units)
	return unit === '' ? parameterName(name) : `${parameterName(name)}, ${unit}`
}
/** What may be set on a drill, without its unit. */
export const parameterName = (name: ParameterName): string => PARAMETER_WORDS[name].split(',')[0]!
const PARAMETER_WORDS: Record<ParameterName, string> = {
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
