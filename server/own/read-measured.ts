import { addTo } from '../../core/lists/group-by'
import { addDays } from '../../core/calendar/day-count'
import { findCalculation } from '../../core/calc/calculations'
import { benchMethodName } from '../../core/calc/measured'
import { type FieldRun, type Measured, STANDS_DAYS, type TopSpeed, fieldSpeed } from '../../core/own/own'
import { partOf, plainRun } from '../../core/marks/mark-key'
import type { ClubScope } from '../../db/connect'
import { type MeasurementRow, measurementsSince } from '../../db/queries/measurements'
import { runCalculation } from '../calc/run-calculation'
import { type FirstRep, firstRepsBefore } from './first-reps'

/** Ordinary sessions this far back make a profile of the field. */
const FIELD_DAYS = 84

/** Inputs and outputs of the calculations below, in their published shapes. */
interface Input {
	jumps: { box_m: number; contact_time_s: number; flight_time_s: number }[]
	loads: { load_kg: number; velocity_mps: number }[]
	count: number
	first_gap_m: number
	last_gap_m: number
}
interface Output {
	mss_mps: number
	tau_s: number
	step_length_m: number
	speed_mps: number
}
/** What a kept measurement says of lines to come, from its input and what it computes to. */
const READ: Record<string, (input: Input, output: Output, taken: { on: string; how: string }) => Measured> = {
	'drop-jump-series': ({ jumps }, _, taken) => ({
		...taken,
		kind: 'drop-jumps',
		jumps: jumps.map((jump) => ({
			boxM: jump.box_m,
			contactTimeS: jump.contact_time_s,
			flightTimeS: jump.flight_time_s,
		})),
	}),
	'sprint-profile': (_, { mss_mps, tau_s }, taken) => ({ ...taken, kind: 'profile', mssMps: mss_mps, tauS: tau_s }),
	'resisted-load': ({ loads }, _, taken) => ({
		...taken,
		kind: 'loads',
		loads: loads.map((run) => ({
			loadKg: run.load_kg,
			velocityMps: run.velocity_mps,
		})),
	}),
	steps: (_, { step_length_m, speed_mps }, taken) => ({
		...taken,
		kind: 'steps',
		lengthM: step_length_m,
		speedMps: speed_mps,
	}),
	wickets: ({ count, first_gap_m, last_gap_m }, _, taken) => ({
		...taken,
		kind: 'wickets',
		count,
		firstGapM: first_gap_m,
		lastGapM: last_gap_m,
	}),
}

/** What was measured of some athletes at the bench and may still stand on a day, by athlete; in one query. */
export async function readMeasured(
	scope: ClubScope,
	athleteIds: string[],
	day: string,
): Promise<Map<string, Measured[]>> {
	const rows = await measurementsSince(scope, athleteIds, Object.keys(READ), addDays(day, -STANDS_DAYS))
	const measured = new Map<string, Measured[]>()
	for (const row of rows) {
		const one = measuredOf(row)
		if (one) addTo(measured, row.athleteId, one)
	}
	return measured
}

/** Null for what a later version of a measure would refuse. */
function measuredOf({ calculation, input, takenOn, method }: MeasurementRow): Measured | null {
	const one = findCalculation(calculation)
	const answer = one && runCalculation(one, input)
	if (!answer || !('output' in answer)) return null
	return READ[calculation]!(input as unknown as Input, answer.output as unknown as Output, {
		on: takenOn,
		how: benchMethodName(method),
	})
}

/** Free gate runs of ordinary sessions at full effort, by athlete. */
export async function readFieldRuns(
	scope: ClubScope,
	athleteIds: string[],
	day: string,
	firsts?: readonly FirstRep[],
): Promise<Map<string, FieldRun[]>> {
	const reps = firsts ?? (await firstRepsBefore(scope, athleteIds, addDays(day, -FIELD_DAYS), day))
	const runs = new Map<string, FieldRun[]>()
	for (const { athleteId, day: on, start, key, method, splits } of reps) {
		if (method !== 'gate' || start === null || key === null || on < addDays(day, -FIELD_DAYS)) continue
		// A pulled, loaded or easy run, one with turns or a run-in, says nothing of a free one; and a curve begins at rest.
		if (!plainRun(key) || start === 'rolling') continue
		// On one ground: grass and track are two curves.
		const like = `${start}/${partOf(key, 'surface')}`
		addTo(runs, athleteId, { day: on, start: like, splits })
	}
	return runs
}

/** Top speeds from the gate splits of ordinary sessions, by athlete, where there are enough. */
export async function readFieldSpeeds(
	scope: ClubScope,
	athleteIds: string[],
	day: string,
	firsts?: readonly FirstRep[],
): Promise<Map<string, TopSpeed>> {
	return new Map(
		[...(await readFieldRuns(scope, athleteIds, day, firsts))].flatMap(([athleteId, own]) => {
			const speed = fieldSpeed(own)
			return speed ? [[athleteId, speed] as const] : []
		}),
	)
}
