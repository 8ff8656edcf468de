/**
 * What makes one variation of a drill, with what a coach may write of it. `assistPercent` is speed over own
 * MSS, `resistPercent` speed lost to the load, `effortPercent` share of own best, `loadG` a weight worn.
 */
const BOUNDS = {
	distanceM: [1, 2000],
	heightCm: [5, 100],
	angleDeg: [0, 180],
	ballKg: [0.5, 10],
	runInM: [0, 60],
	radiusM: [1, 50],
	approachSteps: [0, 20],
	assistPercent: [0, 20],
	resistPercent: [0, 90],
	effortPercent: [0, 100],
	loadG: [0, 6000],
	minutes: [0, 60],
} as const
export type ParameterName = keyof typeof BOUNDS
export const PARAMETERS = Object.keys(BOUNDS) as ParameterName[]
export const PARAMETER_BOUNDS: Record<ParameterName, readonly [number, number]> = BOUNDS
