import { countLine } from '../dose/count-line'
import { RAMP_FAMILY, RAMP_FLOORS, RAMP_NAMES, type RampQuantity, rampValue, readRamp } from '../dose/ramp'
import { scaleDose } from '../library/scale-dose'
import type { Dose } from '../vocabulary/dose'
import { type Facts, least } from './facts'
import type { Form } from './form'
import type { Finding } from './rule'

const QUANTITIES = Object.keys(RAMP_NAMES) as RampQuantity[]

/** The quantity the week has least room for, when a dose does not fit; null when it fits, or the work of the week is unknown. */
function tightest(facts: Facts, { drill, parameters }: Form, dose: Dose) {
	if (facts.work === null) return null
	const asked = countLine(drill, parameters, dose)
	let worst: { quantity: RampQuantity; planned: number; room: number; limit: number; done: number } | null = null
	for (const quantity of QUANTITIES) {
		const planned = rampValue(asked, quantity)
		const days = facts.work.flatMap((one) => {
			const other = facts.library.drills[one.drillId]
			return other
				? [{ day: one.day, unloading: false, value: rampValue(countLine(other, one.parameters, one.dose), quantity) }]
				: []
		})
		const floor = RAMP_FLOORS[facts.levelOf(RAMP_FAMILY[quantity])][quantity]
		const { room, limit, done } = readRamp(days, facts.day, floor, least(facts, 'rampPercent'))
		if (planned > room + 1e-9 && (worst === null || room / planned < worst.room / worst.planned))
			worst = { quantity, planned, room, limit, done }
	}
	return worst
}

/** S7: the week against the last four trained ones. With the largest dose that fits; null there when none does. */
export function readWeek(facts: Facts, form: Form, dose: Dose): { finding: Finding; fits: Dose | null } | null {
	const over = tightest(facts, form, dose)
	if (!over) return null
	// No less than two reps are a dose: where even those do not fit, nothing does.
	const scaled = scaleDose(dose, Math.max(0.001, over.room / over.planned))
	const fits = tightest(facts, form, scaled) ? null : scaled
	return {
		finding: {
			rule: 'S7',
			tier: 'caution',
			firmness: 'our setting',
			found: `${Math.round(over.done + over.planned)} ${RAMP_NAMES[over.quantity]} in the week`,
			limit: `${Math.floor(over.limit + 1e-9)}`,
		},
		fits,
	}
}
