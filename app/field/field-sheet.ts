import type { Dose, Drill, Parameters } from '#core/library/types'
import type { Method } from '#core/noise/typical-error'

export interface FieldLine {
	id: string
	entryId: string
	athleteId: string
	words: string
	drillName: string
	/** The kind of number a rep yields; 'done' is ticked off and judged by eye. */
	logs: 'sprint' | 'contact' | 'height' | 'distance' | 'done'
	family: Drill['family']
	dose: Dose
	parameters: Parameters
	restS: number
	target: string
	bests: Partial<Record<Method, number>>
	cautions: string[]
	cues: string[]
	lookFor: string[]
	blocked: string | null
	/** What the school lets the marks of this line fall by before the set ends. */
	dropOffPercent: number
}
export interface FieldEntry {
	id: string
	part: string
	name: string
}
export interface FieldAthlete {
	id: string
	name: string
}
export interface FieldSheet {
	session: { id: string; title: string; squadName: string; day: string }
	entries: FieldEntry[]
	athletes: FieldAthlete[]
	lines: FieldLine[]
}
