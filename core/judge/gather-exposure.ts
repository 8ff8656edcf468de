import type { Day } from '../calendar/day-count'
import { isOfJudged } from '../vocabulary/line-parts'
import { repsOfMark, sidedOf } from '../dose/sides'
import type { CutShortReason, EndReason } from '../vocabulary/event-kinds'
import type { LogEvent } from '../vocabulary/events'
import type { Drill } from '../vocabulary/drill'
import type { Phase } from '../vocabulary/words'
import type { Exposure, MarkEvidence } from './types'
import type { PlannedLine } from '../vocabulary/line'

/** By what an exposure's usual is found: the method, and the side where there is one. */
export const usualName = ({ method, side }: Pick<MarkEvidence, 'method' | 'side'>): string =>
	side ? `${method}/${side}` : method

/** The number a mark is judged by; null when its drill asks for another distance than was timed. */
export function markEvidence(event: LogEvent, distanceM: number | undefined): MarkEvidence | null {
	if (event.type !== 'mark') return null
	const side = event.side ? { side: event.side } : {}
	if (event.kind === 'sprint') {
		const last = event.value.splits.at(-1)
		if (!last || (distanceM !== undefined && last.distanceM !== distanceM)) return null
		return { kind: 'sprint', value: last.timeS, method: event.value.method, ...side }
	}
	if (event.kind === 'contact')
		return {
			kind: 'contact',
			value: event.value.contactS,
			method: event.value.method,
			flightS: event.value.flightS,
			...side,
		}
	if (event.kind === 'height')
		return { kind: 'height', value: event.value.heightM, method: event.value.method, ...side }
	if (event.kind === 'distance')
		return { kind: 'distance', value: event.value.distanceM, method: event.value.method, ...side }
	return null
}

/** Order of the reps: by set and rep, the same rep logged twice by device order. Never by id or by a phone's clock alone. */
export const byRep = (a: LogEvent, b: LogEvent): number =>
	('repNo' in a && 'repNo' in b ? (a.setNo ?? 0) - (b.setNo ?? 0) || (a.repNo ?? 0) - (b.repNo ?? 0) : 0) ||
	(a.deviceId < b.deviceId ? -1 : a.deviceId > b.deviceId ? 1 : a.deviceSeq - b.deviceSeq)

/** What the end of a session is to a line that was on the way: nobody's own doing. */
const CUT_SHORT_AS: Record<CutShortReason, EndReason> = {
	weather: 'weather',
	lightning: 'weather',
	heat: 'weather',
	coach: 'coach',
	time: 'coach',
}

/** A measured rep and its tick-off are one rep: marks of one kind win over a bare "done" at the same place. */
export function exposureOf(
	session: { id: string; day: Day; phase: Phase },
	line: PlannedLine,
	drill: Drill,
	rungDrillId: string | null,
	/** Current events (folded) of this athlete's line. */
	events: readonly LogEvent[],
	usual: NonNullable<Exposure['usual']>,
	/** Marks that are compared with these: what was set aside, or made otherwise than the line says, is not. */
	isLike: (event: LogEvent) => boolean,
	firstDayBack: boolean,
	/** Why the session was ended while this line was done; null where it was not. */
	cutShort: CutShortReason | null = null,
): Exposure {
	// The other pieces of a complex are no evidence of the one that is judged.
	const judged = events.filter((event) => isOfJudged(line, 'piece' in event ? event.piece : null))
	const marks = judged.filter((event) => event.type === 'mark').sort(byRep)
	const aRound = line.pieces?.find((piece) => piece.judged)?.reps ?? 1
	// What was done as another drill, swapped on the spot, says nothing about the rung; when most of it was, the line was not done.
	const own = marks.filter((event) => event.asDrill === undefined || event.asDrill.drillId === drill.id)
	const mostlySwapped = marks.length > 0 && own.length * 2 < marks.length
	const quality = { good: 0, notYet: 0, poor: 0, setTaps: 0 }
	for (const event of judged) {
		if (event.type !== 'observation' || event.kind !== 'quality') continue
		const weight = event.value.scope === 'set' ? line.dose.reps : 1
		if (event.value.scope === 'set') quality.setTaps += 1
		if (event.value.grade === 'good') quality.good += weight
		else if (event.value.grade === 'poor') quality.poor += weight
		else quality.notYet += weight
	}
	const comforts = events.flatMap((event) =>
		event.type === 'observation' && event.kind === 'comfort' ? [event.value] : [],
	)
	const off = events
		// Worn as long as it should be is no sign of anything.
		.filter((event) => event.type === 'decision' && event.kind === 'load-off' && event.value.reason !== 'minutes')
		.sort(byRep)
		.at(-1)
	const end = events
		.filter((event) => event.type === 'decision' && event.kind === 'end-set')
		.sort(byRep)
		.at(-1)
	return {
		sessionId: session.id,
		day: session.day,
		phase: session.phase,
		rungId: line.rungId ?? '',
		onRung: drill.id === rungDrillId && !mostlySwapped,
		planned: line.dose,
		repsDone: marks.reduce((sum, event) => sum + repsOfMark(event, sidedOf(drill)), 0) / aRound,
		endReason: end && end.kind === 'end-set' ? end.value.reason : cutShort && CUT_SHORT_AS[cutShort],
		marks: own
			.filter(isLike)
			.map((event) => markEvidence(event, line.parameters.distanceM))
			.filter((mark) => mark !== null),
		quality,
		...(Object.keys(usual).length > 0 ? { usual } : {}),
		...(firstDayBack ? { firstDayBack } : {}),
		...(comforts.length > 0
			? {
					comfort: {
						worst: Math.max(...comforts.map((one) => one.worst)),
						braking: comforts.some((one) => one.braking),
					},
				}
			: {}),
		...(off && off.kind === 'load-off' && off.value.reason !== 'minutes' ? { loadOff: off.value.reason } : {}),
	}
}
