import { countWork } from '../dose/count-line'
import { repsOfRound } from '../vocabulary/line-parts'
import { countMark } from '../dose/count-mark'
import { type DoseCount, addInto, emptyCount, metresOf, rangedContacts, totalOf } from '../dose/dose-count'
import { repsOfMark } from '../dose/sides'
import { SESSION_RANGES } from '../dose/level-ranges'
import type { LogEvent } from '../vocabulary/events'
import { effortZone } from '../measure/sprint/effort-zone'
import { lineAt } from './complex'
import { drillNamed } from './make-line'
import type { FieldAthlete, FieldLine, FieldSheet } from './pack'

export interface DoseLeft {
	contacts: { done: number; planned: number; low: number; high: number }
	fastMetres: { done: number; planned: number; low: number; high: number }
	/** Planned reps not done. */
	repsLeft: number
}

/** What an athlete has done of the day's dose and what is left of it, by the counting convention. */
export function doseLeft(
	sheet: Pick<FieldSheet, 'lines' | 'drills'>,
	athlete: Pick<FieldAthlete, 'id' | 'level' | 'legLengthM'>,
	events: readonly LogEvent[],
): DoseLeft {
	const [planned, done] = [emptyCount(), emptyCount()]
	const lines = new Map(
		sheet.lines
			.filter((line) => line.athleteId === athlete.id && line.blocked === null)
			.map((line) => [line.entryId, line]),
	)
	const legLength = athlete.legLengthM === null ? {} : { legLengthM: athlete.legLengthM }
	let repsLeft = 0
	for (const line of lines.values()) {
		const drill = sheet.drills[`${line.drillId}/${line.drillVersion}`]
		const known = (id: string) => (id === line.drillId ? drill : drillNamed(sheet.drills, id))
		addInto(planned, countWork(line, known, legLength))
		repsLeft += line.dose.sets * line.dose.reps
	}
	for (const event of events) {
		if (event.type !== 'mark' || event.athleteId !== athlete.id) continue
		const line = lines.get(event.entryId)
		if (!line) continue
		const at = lineAt(line, event.piece)
		repsLeft -= repsOfMark(event, at.sided) / repsOfRound(line.pieces)
		const cited = event.asDrill ?? at
		const drill = sheet.drills[`${cited.drillId}/${cited.drillVersion}`]
		if (drill) addInto(done, countMark(event, at, drill, zoneOf(event, at), athlete.legLengthM))
	}
	const range = SESSION_RANGES[athlete.level]
	const contacts = (count: DoseCount) => totalOf(rangedContacts(count))
	const fast = (count: DoseCount) => Math.round(metresOf(count, ['fast', 'maximal']))
	return {
		contacts: { done: contacts(done), planned: contacts(planned), low: range.contacts.low, high: range.contacts.high },
		fastMetres: { done: fast(done), planned: fast(planned), low: range.fastMetres.low, high: range.fastMetres.high },
		repsLeft: Math.max(0, Math.ceil(repsLeft)),
	}
}

function zoneOf(event: LogEvent, line: FieldLine) {
	const last = event.kind === 'sprint' ? event.value.splits.at(-1) : undefined
	// The bests of a line say nothing of another drill that was done in its place.
	const best = event.kind === 'sprint' && event.asDrill === undefined ? line.bests[event.value.method] : undefined
	return last && best !== undefined && last.distanceM === line.parameters.distanceM
		? effortZone(last.timeS, best)
		: null
}
