import type { LogEvent } from '../vocabulary/events'
import type { MadeOn } from './keep-session'

/**
 * When an athlete took off the weight worn in an entry, ms of the device's time; null while it is on. What is done
 * after that is done free.
 *
 * @param events that stand
 */
export function loadOffAt(
	events: readonly LogEvent[],
	{ entryId, athleteId }: { entryId: string; athleteId: string },
): number | null {
	const times = events.flatMap((event) =>
		event.kind === 'load-off' && event.athleteId === athleteId && event.entryId === entryId
			? [Date.parse(event.deviceTime)]
			: [],
	)
	return times.length === 0 ? null : Math.min(...times)
}

/** The same without the weight. */
export function madeFree<T extends Pick<MadeOn, 'parameters' | 'carried'>>(on: T): T {
	const { loadG: _loadG, ...parameters } = on.parameters
	return { ...on, parameters, carried: null }
}
