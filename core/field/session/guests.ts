import type { LogEvent } from '../../vocabulary/events'
import { byTime } from '../line-progress'
import { makeLine } from '../make-line'
import type { FieldAthlete, FieldLine, FieldSheet } from '../pack'

/**
 * The sheet with whoever came without being on it, at its end. A pack that was fetched since has them already; of two
 * phones that took in the same athlete, the lines of the first hold.
 *
 * @param current events that stand
 */
export function withGuests(sheet: FieldSheet, current: readonly LogEvent[]): FieldSheet {
	const joins = current.flatMap((event) => (event.kind === 'guest' ? [event] : [])).sort(byTime)
	if (joins.length === 0) return sheet
	const athletes: FieldAthlete[] = [...sheet.athletes]
	const lines: FieldLine[] = [...sheet.lines]
	for (const { athleteId, value } of joins) {
		if (!athletes.some(({ id }) => id === athleteId)) {
			const other = sheet.others?.find(({ id }) => id === athleteId)
			athletes.push(other ?? unknownAthlete(athleteId, value.name ?? 'Guest', sheet.stranger?.barred ?? []))
		}
		for (const { entryId, lineId, planned } of value.lines ?? []) {
			if (lines.some((line) => line.entryId === entryId && line.athleteId === athleteId)) continue
			const drill = sheet.drills[`${planned.drillId}/${planned.drillVersion}`] ?? null
			lines.push(makeLine({ id: lineId, entryId, athleteId }, planned, drill, sheet.school))
		}
	}
	return { ...sheet, athletes, lines }
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
