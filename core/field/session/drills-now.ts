import type { LogEvent } from '../../vocabulary/events'
import { byTime } from '../../events/by-time'
import { drillNamed, makeLine } from '../make-line'
import type { FieldEntry, FieldLine, FieldSheet } from '../pack'

/** What a drill that nobody planned is listed under. */
export const FURTHER_PART = 'added on the spot'
/** Whether an entry was planned: what was added for one afternoon is not repeated by copying its session. */
export const wasPlanned = ({ part }: { part: string }): boolean => part !== FURTHER_PART

/**
 * The sheet with the drills that were added on the spot, each after the one it was added to, and all of them in the
 * order that was said last. A drill whose adding was taken back is off it again, unless marks stand on it.
 *
 * @param all every event, those taken back too: a pack that was fetched in between has their drill
 * @param current the events that stand
 */
export function withDrills(sheet: FieldSheet, all: readonly LogEvent[], current: readonly LogEvent[]): FieldSheet {
	const further = current.flatMap((event) => (event.kind === 'further' ? [event] : [])).sort(byTime)
	const marked = new Set(current.flatMap((event) => (event.type === 'mark' ? [event.entryId as string] : [])))
	const stands = new Set(further.map(({ value }) => value.entryId as string))
	const gone = new Set(
		all.flatMap(({ kind, value }) =>
			kind === 'further' && !stands.has(value.entryId) && !marked.has(value.entryId) ? [value.entryId as string] : [],
		),
	)
	const order = current
		.flatMap((event) => (event.kind === 'drill-order' ? [event] : []))
		.sort(byTime)
		.at(-1)?.value.entryIds
	if (further.length === 0 && gone.size === 0 && order === undefined) return sheet
	let entries = sheet.entries.filter(({ id }) => !gone.has(id))
	const lines: FieldLine[] = sheet.lines.filter(({ entryId }) => !gone.has(entryId))
	for (const { value } of further) {
		const drill = sheet.drills[`${value.drillId}/${value.drillVersion}`] ?? null
		const entry: FieldEntry = { id: value.entryId, part: FURTHER_PART, name: drill?.name ?? '' }
		const others = entries.filter(({ id }) => id !== entry.id)
		const at = others.findIndex(({ id }) => id === value.after) + 1
		entries = [...others.slice(0, at), entries.find(({ id }) => id === entry.id) ?? entry, ...others.slice(at)]
		for (const { athleteId, lineId, planned } of value.lines)
			if (!lines.some((line) => line.entryId === entry.id && line.athleteId === athleteId))
				lines.push(
					makeLine({ id: lineId, entryId: entry.id, athleteId }, planned, drill, sheet.school, {}, (id) =>
						drillNamed(sheet.drills, id),
					),
				)
	}
	return { ...sheet, entries: order ? inOrder(entries, order) : entries, lines }
}

/** In the order that was said; what it does not name stays behind what it stood behind. */
function inOrder(entries: readonly FieldEntry[], order: readonly string[]): FieldEntry[] {
	const sorted = order.flatMap((id) => entries.find((entry) => entry.id === id) ?? [])
	entries.forEach((entry, index) => {
		if (!sorted.includes(entry)) sorted.splice(sorted.indexOf(entries[index - 1]!) + 1, 0, entry)
	})
	return sorted
}
