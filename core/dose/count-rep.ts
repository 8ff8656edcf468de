import type { CutClass, EffortZone, IntensityClass, Leg } from '../vocabulary/words'
import type { Drill } from '../vocabulary/drill'
import type { Parameters } from '../vocabulary/dose'
import { type DoseCount, type LegCount, emptyCount } from './dose-count'

/** A typical adult leg length, used until the athlete's own is known [our setting]. */
export const DEFAULT_LEG_LENGTH_M = 0.9

/**
 * A full effort passes 90 % of its top speed at about TAU · MSS · (ln 10 − 0.9), 14 m for 8.5 m/s and
 * 1.2 s; what lies beyond counts as metres above 90 % of top speed, for everybody, as an estimate [our setting].
 */
const BELOW_90_M = 15

export interface RepContext {
	/** 0-based place of the rep in the line; decides which leg plants on an alternating cut. */
	repIndex: number
	/** The leg an alternating drill starts on; it takes the odd contact. */
	startingLeg?: Leg
	/** When only one side was done (each-leg drills, throws and cuts by side). */
	side?: Leg
	/** Leg length in metres, 0.4–1.4; steps are multiples of it. */
	legLengthM?: number
	/** The zone the rep was really run in; without it the planned zone stands as an estimate. */
	zone?: EffortZone
}

/** @example cutClassOf(90) // '90-135'. Throws RangeError outside 0–180 degrees. */
export function cutClassOf(angleDeg: number): CutClass {
	if (!(angleDeg >= 0 && angleDeg <= 180)) throw new RangeError(`angleDeg: ${angleDeg} is not between 0 and 180`)
	if (angleDeg < 30) return 'under-30'
	if (angleDeg < 60) return '30-60'
	if (angleDeg < 90) return '60-90'
	return angleDeg < 135 ? '90-135' : '135-180'
}

/** A landing from above the drill's own limit counts as high. */
export function intensityOf(drill: Drill, parameters: Parameters): IntensityClass {
	const above = drill.highAboveCm !== undefined && (parameters.heightCm ?? 0) > drill.highAboveCm
	return above && drill.intensity === 'moderate' ? 'high' : drill.intensity
}

const other = (leg: Leg): Leg => (leg === 'left' ? 'right' : 'left')

function contactsOfRep(drill: Drill, parameters: Parameters, context: RepContext): LegCount {
	const rule = drill.counting.contacts
	const legs: LegCount = { left: 0, right: 0, both: 0 }
	if (!rule) return legs
	const starting = context.startingLeg ?? 'left'
	const alternate = (steps: number, perStep: number) => {
		legs[starting] += Math.ceil(steps / 2) * perStep
		legs[other(starting)] += Math.floor(steps / 2) * perStep
	}
	if (rule.by === 'metres') {
		const stepM = rule.stepLengthLegLengths * (context.legLengthM ?? DEFAULT_LEG_LENGTH_M)
		// A hair off before rounding up, so that 20 m in steps of exactly 2 m is 10 contacts, not 11.
		const steps = Math.ceil((parameters.distanceM ?? 0) / stepM - 1e-9)
		if (rule.feet === 'both') legs.both += steps * rule.perStep
		else alternate(steps, rule.perStep)
	} else if (rule.feet === 'both') legs.both += rule.perRep
	else if (rule.feet === 'alternating') alternate(rule.perRep, 1)
	else if (context.side) legs[context.side] += rule.perRep
	else {
		legs.left += rule.perRep
		legs.right += rule.perRep
	}
	return legs
}

/**
 * What one rep costs by the counting convention (common practice; docs/method.md, "Counting").
 *
 * @param parameters distance in m, height in cm, angle in degrees, ball in kg; non-negative
 * @throws RangeError for a negative or non-finite parameter, naming it
 * @example countRep(depthJump, { heightCm: 30 }, { repIndex: 0 }).contacts.shock.both // 2
 */
export function countRep(drill: Drill, parameters: Parameters, context: RepContext): DoseCount {
	for (const [name, value] of Object.entries(parameters)) {
		if (value !== undefined && !(value >= 0 && Number.isFinite(value)))
			throw new RangeError(`${name}: ${value} is not a number of 0 or more`)
	}
	const count = emptyCount()
	const rules = drill.counting
	count.contacts[intensityOf(drill, parameters)] = contactsOfRep(drill, parameters, context)

	const plant =
		context.side ??
		(context.repIndex % 2 === 0 ? (context.startingLeg ?? 'left') : other(context.startingLeg ?? 'left'))
	if (rules.cuts) count.cuts[cutClassOf(parameters.angleDeg ?? 0)][plant] += rules.cuts.perRep
	if (rules.deadStops) count.deadStops[plant] += rules.deadStops.perRep
	if (rules.metres) {
		const zone = context.zone ?? rules.metres.plannedZone
		count.metres[zone] += parameters.distanceM ?? 0
		count.metres.easy += parameters.runInM ?? 0
		if (drill.family === 'sprint' && (zone === 'fast' || zone === 'maximal')) {
			count.maximalStarts += 1
			count.fastMetres += Math.max(0, (parameters.distanceM ?? 0) + (parameters.runInM ?? 0) - BELOW_90_M)
		}
	}
	if (rules.steps)
		count.steps += Math.ceil(
			(parameters.distanceM ?? 0) / (rules.steps.stepLengthLegLengths * (context.legLengthM ?? DEFAULT_LEG_LENGTH_M)) -
				1e-9,
		)
	if (rules.throws) {
		const bothSides = rules.throws.sides === 'each-side' && !context.side
		if (rules.throws.sides === 'both') count.throws.both += 1
		else if (context.side) count.throws[context.side] += 1
		else {
			count.throws.left += 1
			count.throws.right += 1
		}
		count.throwKg += (parameters.ballKg ?? 0) * (bothSides ? 2 : 1)
	}
	return count
}
