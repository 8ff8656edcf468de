import Type from 'typebox'
import { filmDuration } from '../measure/film/film-duration'
import { dropJumpSeries } from '../measure/jump/drop-jump-series'
import { heightFromFlightTime, heightFromReach, heightFromTakeoffVelocity } from '../measure/jump/jump-height'
import { PLANTS, comparePlants } from '../measure/jump/plants'
import { rebound } from '../measure/jump/rebound'
import { calculation, choice, fields, list, maybe, number, optional, warnings } from './calculation'

export const JUMP_HEIGHT = calculation(
	'jump-height',
	'Jump height from flight, take-off speed or reach',
	fields(
		{
			flight_time_s: optional(number('above 0, below 1.5')),
			takeoff_velocity_mps: optional(number('above 0, below 7')),
			reach_m: optional(number('above the standing reach, to 5')),
			standing_reach_m: optional(number('above 0 to 4')),
		},
		[['flight_time_s'], ['takeoff_velocity_mps'], ['reach_m', 'standing_reach_m']],
	),
	fields({ height_m: number() }),
	({ flightTimeS, takeoffVelocityMps, reachM, standingReachM }) => {
		if (flightTimeS !== undefined) return { heightM: heightFromFlightTime(flightTimeS) }
		return {
			heightM:
				takeoffVelocityMps === undefined
					? heightFromReach(reachM!, standingReachM!)
					: heightFromTakeoffVelocity(takeoffVelocityMps),
		}
	},
)

export const REBOUND = calculation(
	'rebound',
	'One contact and the flight after it',
	fields({
		contact_time_s: number('above 0, below 3'),
		flight_time_s: number('above 0, below 1.5'),
		mass_kg: optional(number('15–200')),
		fps: optional(number('rate filmed at, 10–2000')),
	}),
	fields({
		height_m: number(),
		rsi_mps: number(),
		flight_contact_ratio: number(),
		stiffness_kn_m: maybe(number()),
		error: maybe(fields({ contact_time_s: number(), flight_time_s: number(), height_m: number(), rsi_mps: number() })),
		warnings,
	}),
	rebound,
)

export const DROP_JUMP_SERIES = calculation(
	'drop-jump-series',
	'Best box of a drop-jump series',
	fields({
		contact_ceiling_s: number('above 0, below 3'),
		jumps: list(
			fields({
				box_m: number('0–1.5'),
				contact_time_s: number('above 0, below 3'),
				flight_time_s: number('above 0, below 1.5'),
			}),
		),
	}),
	fields({
		best_box_m: maybe(number()),
		quickest_box_m: number(),
		by_box: list(
			fields({
				box_m: number(),
				jumps: Type.Integer(),
				contact_time_s: number(),
				height_m: number(),
				rsi_mps: number(),
				within_ceiling: Type.Boolean(),
			}),
		),
		warnings,
	}),
	({ contactCeilingS, jumps }) => dropJumpSeries(contactCeilingS, jumps),
)

export const TAKEOFF_PLANTS = calculation(
	'plants',
	'Jump height by take-off plant',
	fields({
		heights_m: fields({
			both_standing: optional(number('above 0 to 2')),
			both_run_in: optional(number()),
			left: optional(number()),
			right: optional(number()),
		}),
		error_share: optional(number('relative error of the method, 0.03 when left out')),
	}),
	fields({
		readings: list(fields({ plant: choice(PLANTS), height_m: number(), share: number('of the best') })),
		best: choice(PLANTS),
		lagging: maybe(choice(PLANTS)),
	}),
	({ heightsM, errorShare }) =>
		comparePlants(
			{
				'both-standing': heightsM.bothStanding,
				'both-run-in': heightsM.bothRunIn,
				left: heightsM.left,
				right: heightsM.right,
			},
			errorShare,
		),
)

export const FILM_DURATION = calculation(
	'film-duration',
	'Duration between two frames of a film',
	fields({
		from_frame: number('whole, from 0'),
		to_frame: number('whole, after from_frame'),
		fps: number('rate filmed at, 10–2000'),
	}),
	fields({ duration_s: number(), standard_error_s: number(), worst_case_s: number(), warnings }),
	({ fromFrame, toFrame, fps }) => filmDuration(fromFrame, toFrame, fps),
)

export const JUMP_CALCULATIONS = [JUMP_HEIGHT, REBOUND, DROP_JUMP_SERIES, TAKEOFF_PLANTS, FILM_DURATION]
