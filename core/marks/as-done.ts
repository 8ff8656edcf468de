import type { LogEvent, Mark } from '../vocabulary/events'
import { isFreeRep } from '../vocabulary/worn-reps'
import { byTime } from '../events/by-time'
import type { Dose } from '../vocabulary/dose'
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

/** A fast day's rehearsal is run at 90–95 % of the own best. */
export const REHEARSAL = { from: 0.9, to: 0.95 } as const

/**
 * The rep an athlete ran below full effort after a fast day was taken in an entry: the first after that which was
 * not missed. Its id; null where there is none.
 *
 * @param events that stand
 */
export function rehearsalOf(
	events: readonly LogEvent[],
	{ entryId, athleteId }: { entryId: string; athleteId: string },
): string | null {
	const isTaken = (event: LogEvent) =>
		event.kind === 'fast-day' && event.athleteId === athleteId && event.entryId === entryId
	if (!events.some(isTaken)) return null
	const own = events
		.filter((event) => event.athleteId === athleteId && 'entryId' in event && event.entryId === entryId)
		.sort(byTime)
	return own.slice(own.findIndex(isTaken)).find((event) => event.type === 'mark' && event.kind !== 'missed')?.id ?? null
}

/**
 * What a mark was made on, as it was done: free on the reps of a line that are done without its weight and once that had
 * come off, below full effort as a rehearsal.
 *
 * @param dose of the line
 * @param events that stand: marks, weights taken off and fast days of the session
 */
export function asDone(on: MadeOn, dose: Dose, mark: Mark, events: readonly LogEvent[]): MadeOn {
	const off = loadOffAt(events, mark)
	const isOff = (off !== null && Date.parse(mark.deviceTime) > off) || isFreeRep({ ...on, dose }, mark)
	const worn = isOff ? madeFree(on) : on
	if (rehearsalOf(events, mark) !== mark.id) return worn
	const effortPercent = ((REHEARSAL.from + REHEARSAL.to) / 2) * 100
	return { ...worn, parameters: { ...worn.parameters, effortPercent } }
}

/** The same without the weight. */
function madeFree<T extends Pick<MadeOn, 'parameters' | 'carried'>>(on: T): T {
	const { loadG: _loadG, ...parameters } = on.parameters
	return { ...on, parameters, carried: null }
}
