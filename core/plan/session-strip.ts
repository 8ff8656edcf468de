import { addTo } from '../lists/group-by'
import { countLine } from '../dose/count-line'
import { type DoseCount, cutsOf, metresOf, rangedContacts, sumCounts, totalOf } from '../dose/dose-count'
import { intensityOf } from '../dose/count-rep'
import type { Drill } from '../vocabulary/drill'
import type { Family } from '../vocabulary/words'
import type { Dose, Parameters } from '../vocabulary/dose'

export interface StripEntry {
	part: string
	family: Family
	/** What it takes the group, by the flow. */
	minutes: number
	/** The drills of the lines of all athletes on this entry. */
	lines: { athleteId: string; parameters: Parameters; dose: Dose; drill: Drill }[]
}

/** One part of the session as a length of minutes, with what it costs the median athlete. */
export interface StripPart {
	name: string
	family: Family
	/** Unrounded: their sum is the session's, one number with the flow's. */
	minutes: number
	contacts: number
	lowContacts: number
	fastMetres: number
	cuts: number
	throws: number
	/** High-intensity work: shown hatched. */
	hard: boolean
}

const median = (values: number[]): number => {
	const sorted = [...values].sort((a, b) => a - b)
	const middle = sorted.length >> 1
	return sorted.length === 0 ? 0 : sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2
}

/** Parts in order, entries of one name after another taken together. */
export function stripOf(entries: readonly StripEntry[]): StripPart[] {
	const parts: { name: string; family: Family; minutes: number; hard: boolean; byAthlete: Map<string, DoseCount[]> }[] =
		[]
	for (const entry of entries) {
		let part = parts.at(-1)
		if (!part || part.name !== entry.part) {
			part = { name: entry.part, family: entry.family, minutes: 0, hard: false, byAthlete: new Map() }
			parts.push(part)
		}
		part.minutes += entry.minutes
		for (const { athleteId, parameters, dose, drill } of entry.lines) {
			const intensity = intensityOf(drill, parameters)
			part.hard ||= intensity === 'high' || intensity === 'shock'
			addTo(part.byAthlete, athleteId, countLine(drill, parameters, dose))
		}
	}
	return parts.map(({ name, family, minutes, hard, byAthlete }) => {
		const counts = [...byAthlete.values()].map(sumCounts)
		const of = (read: (count: DoseCount) => number) => Math.round(median(counts.map(read)))
		return {
			name,
			family,
			hard,
			minutes,
			contacts: of((count) => totalOf(rangedContacts(count))),
			lowContacts: of((count) => totalOf(count.contacts.low)),
			fastMetres: of((count) => metresOf(count, ['fast', 'maximal'])),
			cuts: of((count) => cutsOf(count, ['under-30', '30-60', '60-90', '90-135', '135-180'])),
			throws: of((count) => totalOf(count.throws)),
		}
	})
}
