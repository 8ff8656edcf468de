import { byTime } from '../events/by-time'
import type { LogEvent, Observation } from '../vocabulary/events'

/** How hard a session was found, and how long it lasted. */
export type Effort = Extract<Observation, { kind: 'effort' }>

/**
 * What stands of an athlete's effort in each session: what was said last, whoever said it. Coach and athlete may both
 * have been asked; the session still loads once.
 *
 * @param events folded: nothing that was replaced or taken back
 */
export function effortsOf(events: readonly LogEvent[], athleteId: string): Map<string, Effort> {
	const said = events.flatMap((event) =>
		event.type === 'observation' && event.kind === 'effort' && event.athleteId === athleteId && !event.void
			? [event]
			: [],
	)
	return new Map(said.sort(byTime).map((event) => [event.sessionId, event]))
}
