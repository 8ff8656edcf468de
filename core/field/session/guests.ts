import type { LogEvent } from '../../vocabulary/events'
import { byTime } from '../../events/by-time'
import { drillNamed, makeLine } from '../make-line'
import type { FieldAthlete, FieldLine, FieldSheet } from '../pack'

/**
 * The sheet with whoever came without being on it, at its end. A pack that was fetched since has them already; of two
 * phones that took in the same athlete, the lines of the first hold.
 *
 * Whoever was taken in by mistake is off it again, unless something was logged of them.
 *
 * @param all every event, those taken back too: a pack that was fetched in between has their athlete
 * @param current events that stand
 */
export function withGuests(sheet: FieldSheet, all: readonly LogEvent[], current: readonly LogEvent[]): FieldSheet {
	const joins = current.flatMap((event) => (event.kind === 'guest' ? [event] : [])).sort(byTime)
	const gone = mistaken(sheet, all, current)
	if (joins.length === 0 && gone.size === 0) return sheet
	const athletes: FieldAthlete[] = sheet.athletes.filter(({ id }) => !gone.has(id))
	const lines: FieldLine[] = sheet.lines.filter(({ athleteId }) => !gone.has(athleteId))
	for (const { athleteId, value } of joins) {
		if (!athletes.some(({ id }) => id === athleteId)) {
			const other = sheet.others?.find(({ id }) => id === athleteId)
			athletes.push(other ?? unknownAthlete(athleteId, value.name ?? 'Guest', sheet.stranger?.barred ?? []))
		}
		for (const { entryId, lineId, planned } of value.lines ?? []) {
			if (lines.some((line) => line.entryId === entryId && line.athleteId === athleteId)) continue
			const drill = sheet.drills[`${planned.drillId}/${planned.drillVersion}`] ?? null
			lines.push(
				makeLine({ id: lineId, entryId, athleteId }, planned, drill, sheet.school, {}, (id) =>
					drillNamed(sheet.drills, id),
				),
			)
		}
	}
	return { ...sheet, athletes, lines }
}

/** Those on the sheet by nothing but a coming that was taken back. */
function mistaken({ lines }: FieldSheet, all: readonly LogEvent[], current: readonly LogEvent[]): Set<string> {
	const came = all.flatMap((event) => (event.kind === 'guest' ? [event] : []))
	const stays = new Set(
		current.flatMap((event) => (event.kind === 'guest' || event.type === 'mark' ? [event.athleteId as string] : [])),
	)
	const brought = new Set(came.flatMap(({ value }) => (value.lines ?? []).map(({ lineId }) => lineId as string)))
	return new Set(
		came
			.map(({ athleteId }) => athleteId as string)
			.filter((id) => !stays.has(id) && lines.every((line) => line.athleteId !== id || brought.has(line.id))),
	)
}

const unknownAthlete = (id: string, name: string, barred: string[]): FieldAthlete => ({
	id,
	name,
	level: 1,
	legLengthM: null,
	spare: [],
	barred,
	worries: [],
	curve: null,
	usual: [],
})
