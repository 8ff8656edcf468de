import Type from 'typebox'
import { assistedTarget } from '../measure/sprint/assisted-target'
import { START_CORRECTIONS, fitSprintProfile } from '../measure/sprint/fit-profile'
import { forceVelocity } from '../measure/sprint/force-velocity'
import { resistedLoad } from '../measure/sprint/resisted-load'
import { readSteps } from '../measure/sprint/steps'
import { splitIntoLanes } from '../measure/sprint/wicket-lanes'
import { wicketSpacing } from '../measure/sprint/wickets'
import { calculation, choice, fields, list, maybe, number, numbers, optional, warnings } from './calculation'

export const SPRINT_PROFILE = calculation(
	'sprint-profile',
	'Sprint profile from split times',
	fields({
		splits: list(
			fields({
				distance_m: number('from the first beam, above 0 to 400, rising'),
				time_s: number('above 0 to 120, rising'),
			}),
			{ description: '2 to 100 splits' },
		),
		correction: choice(START_CORRECTIONS),
		start_distance_m: optional(number('measured, from the start to the first beam, 0–10: used as it is')),
	}),
	fields({
		mss_mps: number(),
		tau_s: number(),
		mac_mps2: number(),
		pmax_wkg: number('without air resistance'),
		correction_s: maybe(number('estimated, added to every split')),
		start_distance_m: maybe(number('estimated, or as measured')),
		residual_sd_s: maybe(number('n − p degrees of freedom')),
		se: fields({
			mss_mps: maybe(number()),
			tau_s: maybe(number()),
			mac_mps2: maybe(number()),
			correction_s: maybe(number()),
			start_distance_m: maybe(number()),
		}),
		correlation: maybe(number('of the errors of MSS and TAU')),
		fitted_s: numbers(),
		residuals_s: numbers('observed − fitted'),
		top_speed_share: number('at the last split'),
		warnings,
	}),
	fitSprintProfile,
)

export const FORCE_VELOCITY = calculation(
	'force-velocity',
	'Horizontal force, velocity and power of a sprint',
	fields({
		mss_mps: number('2–13'),
		tau_s: number('0.3–3'),
		mass_kg: number('15–200'),
		height_m: number('0.9–2.5'),
		temperature_c: optional(number('−30–50, 15 when left out')),
		pressure_hpa: optional(number('600–1100, 1013.25 when left out')),
		wind_mps: optional(number('tail wind positive, −15–15, 0 when left out')),
	}),
	fields({
		f0_nkg: number(),
		v0_mps: number(),
		pmax_wkg: number(),
		slope: number('N·s/(m·kg)'),
		rfmax_pct: number(),
		drf_pct: number('per m/s'),
		air_density_kgm3: number(),
	}),
	forceVelocity,
)

export const STEPS = calculation(
	'steps',
	'Step length and frequency',
	fields({
		distance_m: number('above 0 to 400'),
		time_s: number('above 0 to 120'),
		steps: number(),
		leg_length_m: optional(number('0.3–1.4')),
	}),
	fields({
		step_length_m: number(),
		step_frequency_hz: number(),
		speed_mps: number(),
		step_length_legs: maybe(number('in leg lengths')),
	}),
	readSteps,
)

export const WICKETS = calculation(
	'wickets',
	'Spacing of a row of wickets',
	fields({
		count: number('2–60, whole'),
		first_gap_m: number('0.2–4'),
		last_gap_m: number('0.2–4'),
		run_in_m: optional(number('0–60')),
	}),
	fields({
		gaps_m: numbers('one less than wickets'),
		positions_m: numbers('from the first wicket'),
		length_m: number('first to last wicket'),
		positions_from_start_m: maybe(numbers()),
	}),
	wicketSpacing,
)

export const WICKET_LANES = calculation(
	'wicket-lanes',
	'Lanes of one spacing for a squad',
	fields({ step_lengths_m: numbers('1–500, each 0.2–4'), lanes: number('1 to the number of athletes, whole') }),
	fields({
		lanes: list(
			fields({
				spacing_m: number(),
				members: list(Type.Integer(), { description: 'positions in step_lengths_m, from 0' }),
			}),
		),
		cost_m2: number('sum of squared differences, the least there is'),
	}),
	({ stepLengthsM, lanes }) => splitIntoLanes(stepLengthsM, lanes),
)

export const RESISTED_LOAD = calculation(
	'resisted-load',
	'Load for a wanted loss of speed',
	fields({
		loads: list(fields({ load_kg: number('0–300'), velocity_mps: number('above 0 to 13') }), {
			description: 'at least 3 different loads',
		}),
		target_decrement: number('share of the free speed, 0.02–0.9'),
	}),
	fields({
		load_kg: number(),
		free_velocity_mps: number(),
		slope: number('(m/s)/kg'),
		r2: number(),
		extrapolated: Type.Boolean(),
		warnings,
	}),
	({ loads, targetDecrement }) => {
		const result = resistedLoad(loads, targetDecrement)
		return { ...result, warnings: result.extrapolated ? ['Extrapolated: the load lies outside those tried.'] : [] }
	},
)

export const ASSISTED_TARGET = calculation(
	'assisted-target',
	'Target of an assisted sprint',
	fields({
		mss_mps: number('2–13'),
		overspeed: number('share above own top speed, above 0'),
		segment_m: number('above 0 to 100'),
		cap: number('largest share the school allows'),
	}),
	fields({ speed_mps: number(), segment_time_s: number() }),
	({ mssMps, overspeed, segmentM, cap }) => assistedTarget(mssMps, overspeed, segmentM, cap),
)

export const SPRINT_CALCULATIONS = [
	SPRINT_PROFILE,
	FORCE_VELOCITY,
	STEPS,
	WICKETS,
	WICKET_LANES,
	RESISTED_LOAD,
	ASSISTED_TARGET,
]
