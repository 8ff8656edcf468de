import { isOfBody } from '../vocabulary/event-kinds'
import { CORRECTED_BY, type Corrector, type EventKey, type LogEvent } from '../vocabulary/events'

/** Who asks for a correction, as far as it decides. */
export interface Corrects {
	/** Whether they wrote the event that is corrected. */
	author: boolean
	/** Whether they may log the event's session. */
	logs: boolean
	/** Whether the care of athletes is theirs: coach or clinician. */
	care: boolean
	/** Whether the event is about themselves. */
	own: boolean
}

/** What came onto the sheet with an event, by ids: a correction, or a taking back, is of just that. */
const brought = (event: LogEvent): string => {
	const lines = event.kind === 'guest' || event.kind === 'further' ? (event.value.lines ?? []) : []
	return [...(event.kind === 'further' ? [event.value.entryId] : []), ...lines.map(({ lineId }) => lineId)].join(' ')
}
const keyOf = (event: LogEvent) => `${event.type}/${event.kind}` as EventKey

/**
 * Why an event may not replace another one; null when it may. A correction is of the same session and the
 * same kind and about the same athlete, by its author or by who is declared beside the kind. A mark may
 * become another kind of mark, and may turn out to be another athlete's, for who logs the session; so may what
 * was said of a body, for its author and who has the care, unless it is about themselves. What brought lines onto the
 * sheet is replaced by what brings the same.
 *
 * @param target the event it names; the first of its chain and every later one are held to the same
 */
export function mayNotCorrect(correction: LogEvent, target: LogEvent, who: Corrects): string | null {
	if (correction.sessionId !== target.sessionId) return 'what it corrects belongs to another session'
	const marks = correction.type === 'mark' && target.type === 'mark'
	if (!marks && keyOf(correction) !== keyOf(target)) return `a ${correction.kind} does not replace a ${target.kind}`
	if (brought(correction) !== brought(target)) return 'what it corrects brought something else onto the sheet'
	const by = CORRECTED_BY[keyOf(target)]
	const moves = marks
		? who.logs
		: // Taken back is not moved: what closed somebody's knee is not opened in another's name.
			correction.void !== true && isOfBody(target) && (who.author || who.care) && (who.logs || who.care)
	if (correction.athleteId !== target.athleteId && !moves) return 'what it corrects is about another athlete'
	const named: Record<Corrector, boolean> = { logs: who.logs, care: who.care, own: who.own }
	return who.author || by.some((corrector) => named[corrector])
		? null
		: 'only its author may correct it, or who is responsible for it'
}
