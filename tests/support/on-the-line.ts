import type { FieldAthlete, FieldLine } from '../../core/field/pack'
import { QUALITY_FIRST } from '../../core/library/schools'
import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { LogEvent, Mark } from '../../core/vocabulary/events'

const START = Date.UTC(2026, 2, 12, 18)
/** Counts on through a file: of two events the one written later comes later. */
let seq = 0
/** What a device adds, `afterS` seconds into the session. */
export const stamp = (afterS: number, deviceId = 'd') => ({
	id: `e${String(seq).padStart(4, '0')}`,
	sessionId: 's',
	athleteId: 'a',
	deviceId,
	deviceSeq: seq++,
	deviceTime: new Date(START + afterS * 1000).toISOString(),
})
export const athlete: FieldAthlete = {
	id: 'a',
	name: 'Ilka Moreau',
	level: 2,
	legLengthM: 0.91,
	spare: [],
	barred: [],
	worries: [],
	curve: { mssMps: 8.5, tauS: 1.1 },
	usual: [{ distanceM: 10, method: 'gate', reference: { median: 1.9, sd: 0.03, n: 9 } }],
}
/** Six starts of 20 m with two minutes of rest. */
export const line = (change: Partial<FieldLine> = {}): FieldLine => ({
	id: 'l',
	entryId: 'e',
	athleteId: 'a',
	words: '',
	drillName: '',
	drillId: 'three-point-start',
	drillVersion: STARTER_LIBRARY.drills['three-point-start']!.version,
	logs: 'sprint',
	family: 'sprint',
	dose: { sets: 1, reps: 6 },
	parameters: { distanceM: 20 },
	rest: { repsS: 120, setsS: 120 },
	target: '',
	bests: { gate: 3.2 },
	cautions: [],
	cues: [],
	lookFor: [],
	blocked: null,
	over: null,
	dropOffPercent: 3,
	...change,
})
export const sheet = (...lines: FieldLine[]) => ({
	lines,
	entries: [{ id: 'e', part: 'Starts', name: 'Starts' }],
	school: QUALITY_FIRST,
	drills: {
		[`three-point-start/${STARTER_LIBRARY.drills['three-point-start']!.version}`]:
			STARTER_LIBRARY.drills['three-point-start']!,
	},
})
/** A start by gates, 130 s after the one before, with its splits at 10 and 20 m. */
export const rep = (repNo: number, ten: number, twenty: number, change: Partial<Mark> = {}, deviceId = 'd'): Mark =>
	({
		...stamp(repNo * 130, deviceId),
		entryId: 'e',
		lineId: 'l',
		setNo: 1,
		repNo,
		type: 'mark',
		kind: 'sprint',
		value: {
			splits: [
				{ distanceM: 10, timeS: ten },
				{ distanceM: 20, timeS: twenty },
			],
			method: 'gate',
		},
		...change,
	}) as Mark
export const decide = (
	kind: 'fast-day' | 'load-off' | 'end-set' | 'swap',
	afterS: number,
	value: object = {},
): LogEvent => ({ ...stamp(afterS), entryId: 'e', lineId: 'l', type: 'decision', kind, value }) as LogEvent
