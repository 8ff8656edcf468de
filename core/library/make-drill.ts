import { scaleDose } from './scale-dose'
import { PARAMETERS, type ParameterName } from '../vocabulary/parameters'
import type { Dose, Parameters } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import type { Level } from '../vocabulary/words'

/** A drill as it is written down; what can be derived is left out. */
export interface DrillSpec
	extends Partial<Omit<Drill, 'defaults' | 'doses' | 'ranges' | 'space' | 'cues' | 'lookFor' | 'faults'>> {
	id: string
	name: string
	/** Sets × reps of a level-2 athlete. */
	dose: readonly [number, number]
	/** Seconds between reps and between sets. */
	rest: readonly [repsS: number, setsS: number]
	repS: number
	parameters?: Parameters
	ranges?: Drill['ranges']
	doses?: Drill['doses']
	widthM?: number
	cue: string
	look: string
	/** What goes wrong, and what to say then. */
	faults: readonly (readonly [string, string])[]
	/** Cautions beside those its like have. */
	also?: readonly string[]
}

/** What may usually be set, by parameter [our setting]; a drill narrows it. */
const USUAL_RANGES: Record<ParameterName, readonly [number, number]> = {
	distanceM: [5, 60],
	heightCm: [15, 75],
	angleDeg: [15, 180],
	ballKg: [1, 5],
	runInM: [10, 40],
	radiusM: [4, 15],
	approachSteps: [0, 12],
	assistPercent: [5, 20],
	resistPercent: [5, 50],
	effortPercent: [50, 100],
	loadG: [50, 1000],
	minutes: [2, 40],
}
/** Room to slow down after a maximal sprint, m [common practice]. */
export const RUN_OUT_M = 15

/** Level 1 starts at two thirds, level 3 with a set more; rebounds from a box do not grow by sets [our setting]. */
function dosesFrom(dose: Dose, intensity: Drill['intensity']): Record<Level, Dose> {
	return {
		1: scaleDose(dose, 2 / 3),
		2: dose,
		3: intensity === 'shock' ? dose : { sets: dose.sets + 1, reps: dose.reps },
	}
}

export function makeDrill(common: Pick<Drill, 'family'> & Partial<Drill>, spec: DrillSpec): Drill {
	const {
		dose: [sets, reps],
		rest: [repsS, setsS],
		repS,
		parameters = {},
		ranges,
		doses,
		widthM,
		cue,
		look,
		faults,
		also = [],
		...own
	} = spec
	const merged = {
		pattern: 'linear' as const,
		legs: 'both' as const,
		reactive: false,
		intensity: 'low' as const,
		counting: {},
		measures: ['quality' as const],
		regions: {},
		alternatives: {},
		kit: [],
		cautions: [],
		...common,
		...own,
	}
	const used = PARAMETERS.filter((name) => parameters[name] !== undefined)
	const runOutM =
		merged.counting.metres && ['fast', 'maximal'].includes(merged.counting.metres.plannedZone) ? RUN_OUT_M : 0
	return {
		...merged,
		version: merged.version ?? 5,
		defaults: { dose: { sets, reps }, rest: { repsS, setsS }, parameters, repS },
		doses: doses ?? dosesFrom({ sets, reps }, merged.intensity),
		ranges: Object.fromEntries(used.map((name) => [name, ranges?.[name] ?? USUAL_RANGES[name]])),
		space: {
			lengthM: Math.max(3, (parameters.runInM ?? 0) + (parameters.distanceM ?? 0) + runOutM),
			widthM: widthM ?? 2,
			...(runOutM > 0 ? { runOutM } : {}),
		},
		cues: cue.split('; '),
		lookFor: look.split('; '),
		faults: faults.map(([fault, correction]) => ({ fault, correction })),
		cautions: [...merged.cautions, ...also],
	}
}
