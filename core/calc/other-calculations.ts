import { meanDeceleration, reactiveCost, turnDeficit, turnDeficits } from '../measure/agility/change-of-direction'
import { curveRun } from '../measure/agility/curve'
import { readPosture } from '../measure/film/posture'
import { compareCarriedLoads } from '../measure/load/carried-load'
import { kineticEnergy, momentOfInertia } from '../measure/load/energy'
import { weeklyLoad } from '../measure/load/weekly-load'
import { ballisticThrow } from '../measure/throw/ballistic-throw'
import { calculation, choice, fields, list, maybe, number, numbers, optional, warnings } from './calculation'

const turn = () => fields({ time_505_s: number('above 0 to 20'), time_10_s: number('above 0 to 20') })

export const THROW = calculation(
	'throw',
	'Release speed of a throw from its distance, without air',
	fields({
		distance_m: number('above 0 to 150'),
		release_height_m: number('0–4'),
		release_angle_deg: number('−45 to below 90'),
		mass_kg: optional(number('0.05–30')),
	}),
	fields({
		release_speed_mps: number(),
		kinetic_energy_j: maybe(number()),
		best_angle_deg: number(),
		best_distance_m: number(),
	}),
	ballisticThrow,
)

export const CURVE = calculation(
	'curve',
	'Running a curve',
	fields({ radius_m: number('above 0 to 1000'), speed_mps: number('above 0 to 13') }),
	fields({ centripetal_mps2: number(), lean_deg: number('from the vertical') }),
	({ radiusM, speedMps }) => curveRun(radiusM, speedMps),
)

export const COD = calculation(
	'cod',
	'Change-of-direction deficit',
	fields(
		{
			time_505_s: optional(number('above 0 to 20')),
			time_10_s: optional(number('above 0 to 20')),
			left: optional(turn()),
			right: optional(turn()),
		},
		[
			['time_505_s', 'time_10_s'],
			['left', 'right'],
		],
	),
	fields({
		deficit_s: number('mean of both sides when both were run'),
		left_deficit_s: maybe(number()),
		right_deficit_s: maybe(number()),
		asymmetry_pct: maybe(number('of the smaller deficit')),
		quicker: maybe(choice(['left', 'right'])),
		warnings,
	}),
	({ time505S, time10S, left, right }) =>
		left && right ? turnDeficits(left, right) : turnDeficit({ time505S: time505S!, time10S: time10S! }),
)

export const BRAKING = calculation(
	'braking',
	'Mean deceleration to a stop',
	fields({ speed_mps: number('above 0 to 13'), distance_m: number('above 0 to 100') }),
	fields({ deceleration_mps2: number() }),
	({ speedMps, distanceM }) => ({ decelerationMps2: meanDeceleration(speedMps, distanceM) }),
)

export const REACTIVE_COST = calculation(
	'reactive-cost',
	'What reading and deciding costs over the same path',
	fields({ reactive_s: number('above 0 to 60'), planned_s: number('above 0 to 60') }),
	fields({ cost_s: number('reactive − planned') }),
	({ reactiveS, plannedS }) => ({ costS: reactiveCost(reactiveS, plannedS) }),
)

export const CARRIED_LOAD = calculation(
	'carried-load',
	'Loads worn on a limb, compared',
	fields({
		loads: list(
			fields({
				mass_kg: number('above 0 to 20'),
				radius_m: number('joint to load, 0–1.5'),
				time_s: optional(number('same distance, above 0 to 120')),
			}),
			{ description: '1 to 50' },
		),
		free_time_s: optional(number('without load, same distance')),
	}),
	fields({ by_load: list(fields({ added_inertia_kgm2: number(), slower_pct: maybe(number('speed lost')) })) }),
	({ loads, freeTimeS }) => ({ byLoad: compareCarriedLoads(loads, freeTimeS) }),
)

export const ENERGY = calculation(
	'energy',
	'Kinetic energy, or moment of inertia of a carried load',
	fields(
		{
			mass_kg: number('above 0 to 500'),
			speed_mps: optional(number('0–100')),
			radius_m: optional(number('joint to load, 0–3')),
		},
		[['speed_mps'], ['radius_m']],
	),
	fields({ kinetic_energy_j: optional(number()), inertia_kgm2: optional(number()) }),
	({ massKg, speedMps, radiusM }) =>
		speedMps === undefined
			? { inertiaKgm2: momentOfInertia(massKg, radiusM!) }
			: { kineticEnergyJ: kineticEnergy(massKg, speedMps) },
)

export const WEEKLY_LOAD = calculation(
	'weekly-load',
	'Monotony and strain of a week',
	fields({ daily_load: numbers('seven, 0–20 000 each; a rest day is 0') }),
	fields({
		mean: number(),
		sd: number(),
		monotony: maybe(number()),
		load: number('sum'),
		strain: maybe(number()),
		warnings,
	}),
	({ dailyLoad }) => weeklyLoad(dailyLoad),
)

const joint = () => fields({ x: number('pixels'), y: number('pixels, downwards') })
export const POSTURE = calculation(
	'posture',
	'Trunk, shin and knee of one frame of film',
	fields({
		shoulder: joint(),
		hip: joint(),
		knee: joint(),
		ankle: joint(),
		runs: choice(['left', 'right'] as const),
	}),
	fields({
		trunk_deg: number('from the vertical'),
		shin_deg: number('from the vertical'),
		knee_deg: number('180 is straight'),
		error_deg: fields({ trunk_deg: number(), shin_deg: number() }),
	}),
	readPosture,
)

export const OTHER_CALCULATIONS = [
	POSTURE,
	THROW,
	CURVE,
	COD,
	BRAKING,
	REACTIVE_COST,
	CARRIED_LOAD,
	ENERGY,
	WEEKLY_LOAD,
]
