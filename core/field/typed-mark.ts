import { type Quantity, quantityIn } from '../measure/quantity'
import { readDigits } from '../measure/read-digits'
import type { LogEvent, Mark } from '../vocabulary/events'
import type { Units } from '../words/units'
import type { FieldLine } from './pack'
import { type Slot, expectedAt, showRead, slotsOf, valueOf } from './slots'

/** What a mark of a line is typed as: its numbers, with the splits on the way that it has; none where it has no number of the line's. */
export const slotsOfMark = (line: Pick<FieldLine, 'logs' | 'parameters'>, mark: Mark): Slot[] =>
	mark.kind === line.logs
		? slotsOf(line, mark.kind === 'sprint' ? mark.value.splits.slice(0, -1).map(({ distanceM }) => distanceM) : [])
		: []

/** What is measured with a tape is typed in everybody's own units; a time is the same everywhere. */
const QUANTITY: Partial<Record<Slot['kind'], Quantity>> = { height: 'height', distance: 'length' }

/** What is asked for, with its unit. @example asksFor(height, 'imperial') // "height, in" */
export function asksFor(slot: Slot, units: Units): string {
	const quantity = QUANTITY[slot.kind]
	if (!quantity || units === 'metric') return `${slot.name}, ${slot.unit}`
	return `${slot.name}, ${quantityIn(quantity, units).unit || 'ft and in'}`
}

/** A number typed for a slot, in the slot's own unit; null for what is none. */
export function readTyped(text: string, slot: Slot, line: Pick<FieldLine, 'parameters'>, units: Units): number | null {
	const quantity = QUANTITY[slot.kind]
	const digits = () => readDigits(text, expectedAt(slot, line, undefined, null))
	if (!quantity) return digits()
	const typed = quantityIn(quantity, units).read(text)
	// Metric digits without a point are read by what is expected; a unit that is typed is always heard.
	return units === 'metric' ? (digits() ?? typed) : typed
}

/** A number of a mark as it would be typed by who reads in `units`. */
export function typedOf(mark: Mark, slot: Slot, units: Units): string {
	if (mark.kind === 'sprint')
		return showRead(mark.value.splits.find((split) => split.distanceM === slot.distanceM)?.timeS ?? 0, slot)
	if (mark.kind === 'contact')
		return String(Math.round((slot.kind === 'contact' ? mark.value.contactS : mark.value.flightS) * 1000))
	if (mark.kind === 'height') return quantityIn('height', units).write(Math.round(mark.value.heightM * 1000) / 10)
	if (mark.kind !== 'distance') return ''
	return units === 'metric' ? mark.value.distanceM.toFixed(2) : quantityIn('length', units).write(mark.value.distanceM)
}

/**
 * What a correction says of a mark whose numbers are typed anew: its method and its wind stay. Null where something
 * cannot be read, or the mark has no number.
 *
 * @param typed one text for each of `slotsOfMark`
 * @param units of whoever typed them
 */
export function retyped(
	line: Pick<FieldLine, 'logs' | 'parameters'>,
	mark: Mark,
	typed: readonly string[],
	units: Units,
): Partial<LogEvent> | null {
	const slots = slotsOfMark(line, mark)
	const reads = slots.map((slot, index) => readTyped(typed[index] ?? '', slot, line, units))
	if (slots.length === 0 || reads.some((read) => read === null)) return null
	const method = 'method' in mark.value ? mark.value.method : ''
	const wind = mark.kind === 'sprint' ? (mark.value.windMps ?? null) : null
	return valueOf(
		line,
		slots,
		reads,
		{ sprint: method, contact: method, height: method, distance: method },
		wind,
	) as Partial<LogEvent>
}
