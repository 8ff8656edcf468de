import { readDigits } from '../measure/read-digits'
import type { LogEvent, Mark } from '../vocabulary/events'
import type { FieldLine } from './pack'
import { type Slot, expectedAt, showRead, slotsOf, valueOf } from './slots'

/** What a mark of a line is typed as: its numbers, with the splits on the way that it has; none where it has no number of the line's. */
export const slotsOfMark = (line: Pick<FieldLine, 'logs' | 'parameters'>, mark: Mark): Slot[] =>
	mark.kind === line.logs
		? slotsOf(line, mark.kind === 'sprint' ? mark.value.splits.slice(0, -1).map(({ distanceM }) => distanceM) : [])
		: []

/** A number of a mark as it would be typed, in the slot's unit. */
export function typedOf(mark: Mark, slot: Slot): string {
	if (mark.kind === 'sprint')
		return showRead(mark.value.splits.find((split) => split.distanceM === slot.distanceM)?.timeS ?? 0, slot)
	if (mark.kind === 'contact')
		return String(Math.round((slot.kind === 'contact' ? mark.value.contactS : mark.value.flightS) * 1000))
	if (mark.kind === 'height') return String(Math.round(mark.value.heightM * 1000) / 10)
	return mark.kind === 'distance' ? mark.value.distanceM.toFixed(2) : ''
}

/**
 * What a correction says of a mark whose numbers are typed anew: its method and its wind stay. Null where something
 * cannot be read, or the mark has no number.
 *
 * @param typed one text for each of `slotsOfMark`
 */
export function retyped(
	line: Pick<FieldLine, 'logs' | 'parameters'>,
	mark: Mark,
	typed: readonly string[],
): Partial<LogEvent> | null {
	const slots = slotsOfMark(line, mark)
	const reads = slots.map((slot, index) => readDigits(typed[index] ?? '', expectedAt(slot, line, undefined, null)))
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
