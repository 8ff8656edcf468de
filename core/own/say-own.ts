import { shortDay } from '../calendar/say-day'
import { MeasureError } from '../measure/measure-error'
import { assistedTarget } from '../measure/sprint/assisted-target'
import { wicketsToTarget } from '../measure/sprint/wickets'
import { momentOfInertia } from '../measure/load/energy'
import type { CarriedLoad, Parameters, SideDoses } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'
import { type School, assistedCap } from '../vocabulary/school'
import { writeDose, writePercent, writeSeconds } from '../words/write-numbers'
import { writeWorn } from '../words/write-work'
import { type Own, type Taken, ownLoad } from './own'
import { writeDistance } from '../words/units'

/** Wickets on a row where nobody set one, and the share of the own step its first gap has [common practice]. */
const WICKETS = 10
const FIRST_GAP_SHARE = 0.83

const taken = ({ how, on }: Taken): string => `${how}, ${shortDay(on)}`
const metres = (value: number): string => `${value.toFixed(2)} m`
const gaps = (first: number, last: number): string => `${first.toFixed(2)} to ${metres(last)}`

/** What of a line comes from an own measurement: as few letters as a card has room for, and in a sentence that says so. */
export interface OwnWord {
	short: string
	words: string
}

/** What of a line is looked at. */
export interface OwnLine {
	parameters: Parameters
	sides?: SideDoses | null | undefined
	carried?: CarriedLoad | null | undefined
}

/** How fast a limb swings at its fastest in a sprint, radians a second [common practice, no source]. */
const SWING_RADPS = 10
/** Where a weight is worn, and what it adds to the swing of the limb against none: inertia about the joint, and energy. */
function wornOf(carried: CarriedLoad | null | undefined): OwnWord | null {
	if (!carried) return null
	const short = `${carried.grams} g ${writeWorn(carried)}`
	if (carried.segment === 'trunk' || !carried.fromJointCm) return { short, words: `${short}.` }
	const inertia = momentOfInertia(carried.grams / 1000, carried.fromJointCm / 100)
	// Rotational energy, ½ I ω².
	const joules = 0.5 * inertia * SWING_RADPS ** 2
	return {
		short,
		words: `${short}: ${(inertia * 1000).toFixed(1)} g m² more to swing than without, ${joules.toFixed(2)} J at ${SWING_RADPS} rad/s.`,
	}
}

/**
 * What of a line comes from the athlete's own measurements, each in a sentence that says so: load of a sled, speed and
 * time of a pulled run, spacing of wickets, best box, and which side takes a rep more. Empty where nothing was measured.
 */
export function sayOwn(
	drill: Pick<Drill, 'id' | 'intensity' | 'counting'>,
	{ parameters, sides, carried }: OwnLine,
	own: Own,
	school: School,
): OwnWord[] {
	return [
		sledOf(parameters, own),
		pulledOf(drill, parameters, own, school),
		drill.id === 'wicket-run' ? wicketsOf(own) : null,
		boxOf(drill, parameters, own),
		sidesOf(sides),
		wornOf(carried),
	].filter((one) => one !== null)
}

function sledOf({ resistPercent }: Parameters, { loadLine }: Own): OwnWord | null {
	if (!resistPercent || !loadLine) return null
	const load = ownLoad(loadLine, resistPercent)
	if (!load) return null
	const short = `${load.kg.toFixed(1)} kg`
	return {
		short,
		words: `${short} for ${writePercent(resistPercent)} slower, off the own load–velocity line (${taken(loadLine)}${load.extrapolated ? '; outside the loads tried' : ''}).`,
	}
}

function pulledOf(
	{ counting }: Pick<Drill, 'counting'>,
	{ assistPercent, distanceM }: Parameters,
	{ topSpeed }: Own,
	school: School,
): OwnWord | null {
	if (!topSpeed || !assistPercent || !distanceM || counting.metres?.kind !== 'assisted') return null
	try {
		const { speedMps, segmentTimeS } = assistedTarget(
			topSpeed.mssMps,
			assistPercent / 100,
			distanceM,
			assistedCap([school]) / 100,
		)
		const short = `${writeDistance(distanceM)} in ${writeSeconds(segmentTimeS)}`
		return {
			short,
			words: `${short} at ${speedMps.toFixed(2)} m/s, ${assistPercent} % over the own ${topSpeed.mssMps.toFixed(2)} m/s (${taken(topSpeed)}).`,
		}
	} catch (error) {
		// Over the school's cap no target is set; the line itself is another rule's.
		if (error instanceof MeasureError) return null
		throw error
	}
}

function wicketsOf({ wickets, step }: Own): OwnWord | null {
	if (wickets && (!step || wickets.on >= step.on))
		return {
			short: gaps(wickets.firstGapM, wickets.lastGapM),
			words: `${wickets.count} wickets ${gaps(wickets.firstGapM, wickets.lastGapM)} apart, the row set for this athlete (${shortDay(wickets.on)}).`,
		}
	if (!step) return null
	const { gapsM } = wicketsToTarget(WICKETS, step.lengthM, FIRST_GAP_SHARE)
	const short = gaps(gapsM[0]!, gapsM.at(-1)!)
	return {
		short,
		words: `${WICKETS} wickets ${short} apart: the own step is ${metres(step.lengthM)} (${taken(step)}).`,
	}
}

function boxOf({ intensity }: Pick<Drill, 'intensity'>, { heightCm }: Parameters, { bestBox }: Own): OwnWord | null {
	if (intensity !== 'shock' || !heightCm || !bestBox) return null
	return {
		short: `best box ${bestBox.heightCm} cm`,
		words: bestBox.keepsGoal
			? `Own best box ${bestBox.heightCm} cm (${taken(bestBox)}).`
			: `No box keeps the sprint goal yet; contact is shortest from ${bestBox.heightCm} cm (${taken(bestBox)}).`,
	}
}

function sidesOf(sides: SideDoses | null | undefined): OwnWord | null {
	const { left, right } = sides ?? {}
	return left && right && left.reps !== right.reps
		? {
				short: `left ${left.reps}, right ${right.reps}`,
				words: `Left ${writeDose(left)}, right ${writeDose(right)}.`,
			}
		: null
}

/** What stands of an athlete's measurements and where each goes, in sentences; empty where nothing does. */
export function sayStanding({ bestBox, topSpeed, loadLine, step, stepAdvice, wickets }: Own, school: School): string[] {
	return [
		topSpeed &&
			`Top speed ${topSpeed.mssMps.toFixed(2)} m/s (${topSpeed.sessions === null ? '' : `${topSpeed.sessions} sessions, `}${taken(topSpeed)}): sets pulled runs.`,
		bestBox &&
			(bestBox.keepsGoal
				? `Best box ${bestBox.heightCm} cm (${taken(bestBox)})${school.choices.boxHeight === 'low' ? ': no rebound from a higher one.' : '.'}`
				: `No box keeps the sprint goal yet; contact is shortest from ${bestBox.heightCm} cm (${taken(bestBox)}).`),
		loadLine && `Load–velocity line (${taken(loadLine)}): sets the kilograms of a sled.`,
		wickets && (!step || wickets.on >= step.on)
			? `A row of wickets (${shortDay(wickets.on)}): sets their spacing.`
			: step && `Step ${metres(step.lengthM)} (${taken(step)}): sets the spacing of wickets.`,
		stepAdvice?.push && stepAdvice.sentence,
	].filter((one) => typeof one === 'string')
}
