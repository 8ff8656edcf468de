import { mean } from 'simple-statistics'
import { MeasureError, inBounds } from '../measure-error'
import { FLIGHT_BOUNDS, heightFromFlightTime } from './jump-height'
import { CONTACT_BOUNDS } from './reactive-strength-index'

export interface DropJump {
	/** Height of the box, 0–1.5 m. */
	boxM: number
	contactTimeS: number
	flightTimeS: number
}

export interface BoxReading {
	boxM: number
	jumps: number
	/** Means over the box's jumps. */
	contactTimeS: number
	heightM: number
	rsiMps: number
	/** Mean contact at or under the ceiling. */
	withinCeiling: boolean
}

export interface DropJumpSeries {
	/** Null when no box keeps the ceiling. */
	bestBoxM: number | null
	/** The box with the shortest contact. */
	quickestBoxM: number
	/** Lowest box first. */
	byBox: BoxReading[]
	warnings: string[]
}

/** Longer contacts are not the fast stretch–shortening cycle. Schmidtbleicher 1992. */
export const FAST_CONTACT_S = 0.25

/**
 * The best box of a drop-jump series: the highest reactive strength index among boxes whose contact
 * keeps the ceiling; the lower box when two are equal. A box is judged by the contact, not by the height
 * climbed. When none keeps it, the answer is none, and the box with the shortest contact is named.
 *
 * @param contactCeilingS the sprint goal, above 0 and below 3 s
 * @param jumps at least one
 * @throws MeasureError naming the jump and the field
 */
export function dropJumpSeries(contactCeilingS: number, jumps: readonly DropJump[]): DropJumpSeries {
	inBounds('contactCeilingS', contactCeilingS, CONTACT_BOUNDS)
	if (jumps.length < 1) throw new MeasureError('jumps', jumps.length, 'at least one jump')
	jumps.forEach((jump, index) => {
		inBounds(`jumps[${index}].boxM`, jump.boxM, { from: 0, to: 1.5, unit: 'm' })
		inBounds(`jumps[${index}].contactTimeS`, jump.contactTimeS, CONTACT_BOUNDS)
		inBounds(`jumps[${index}].flightTimeS`, jump.flightTimeS, FLIGHT_BOUNDS)
	})
	const boxes = [...new Set(jumps.map((jump) => jump.boxM))].sort((a, b) => a - b)
	const byBox = boxes.map((boxM): BoxReading => {
		const own = jumps.filter((jump) => jump.boxM === boxM)
		const contactTimeS = mean(own.map((jump) => jump.contactTimeS))
		return {
			boxM,
			jumps: own.length,
			contactTimeS,
			heightM: mean(own.map((jump) => heightFromFlightTime(jump.flightTimeS))),
			rsiMps: mean(own.map((jump) => heightFromFlightTime(jump.flightTimeS) / jump.contactTimeS)),
			// A mean of equal decimals can come out a rounding above them.
			withinCeiling: contactTimeS <= contactCeilingS + 1e-9,
		}
	})
	const within = byBox.filter((box) => box.withinCeiling)
	const best = within.reduce<BoxReading | null>(
		(chosen, box) => (chosen === null || box.rsiMps > chosen.rsiMps + 1e-9 ? box : chosen),
		null,
	)
	const quickest = byBox.reduce((chosen, box) => (box.contactTimeS < chosen.contactTimeS - 1e-9 ? box : chosen))
	const warnings = best
		? []
		: [
				`No box keeps ${Math.round(contactCeilingS * 1000)} ms: not yet sprint-relevant. The shortest contact is from ${Math.round(quickest.boxM * 100)} cm.`,
			]
	if (byBox.length === 1) warnings.push('One box only: nothing to compare it with.')
	if (quickest.contactTimeS >= FAST_CONTACT_S)
		warnings.push('All contacts are 250 ms or longer: slow stretch–shortening, a different quality.')
	return { bestBoxM: best?.boxM ?? null, quickestBoxM: quickest.boxM, byBox, warnings }
}
