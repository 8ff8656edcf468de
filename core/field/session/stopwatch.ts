/** A stopwatch in the hand: one start, then a tap for every place or for everybody who crosses. */
export interface Watch {
	/** When it was started, ms on the clock the taps are told by; null while it stands. */
	startedMs: number | null
	/** Taps since, s to 0.01. */
	taps: readonly number[]
}

export const STANDING_WATCH: Watch = { startedMs: null, taps: [] }
/** Taps nearer than this are one, hundredths: a thumb that trembles. Two who cross together are told apart sooner. */
const LEAST_APART = { one: 15, several: 5 } as const
/** Nobody runs longer than this on the field; a watch left running is no time. */
export const LONGEST_S = 600

/** What the next tap is: of the start, of a place on the way, or of the next one to cross. */
export type NextTap =
	| { kind: 'start' }
	| { kind: 'place'; distanceM: number }
	| { kind: 'crossing'; ofRunners: number; nth: number }

/** How many taps a run has after its start: one for each place, or one for each runner where several start together. */
export const tapsOf = (places: readonly number[], runners: number): number => (runners > 1 ? runners : places.length)

/** @param places distances that are timed, rising, the finish last; of several who start together the finish alone */
export function nextTap(watch: Watch, places: readonly number[], runners: number): NextTap {
	if (watch.startedMs === null || watch.taps.length >= tapsOf(places, runners)) return { kind: 'start' }
	return runners > 1
		? { kind: 'crossing', ofRunners: runners, nth: watch.taps.length + 1 }
		: { kind: 'place', distanceM: places[watch.taps.length]! }
}

/** The watch after a tap: started, or with a time more. A tap that trembles and one of a clock that ran backwards change nothing. */
export function tapWatch(watch: Watch, atMs: number, places: readonly number[], runners: number): Watch {
	if (nextTap(watch, places, runners).kind === 'start') return { startedMs: atMs, taps: [] }
	const hundredths = Math.round((atMs - watch.startedMs!) / 10)
	const before = Math.round((watch.taps.at(-1) ?? 0) * 100)
	const apart = runners > 1 && watch.taps.length > 0 ? LEAST_APART.several : LEAST_APART.one
	if (hundredths - before < apart || hundredths > LONGEST_S * 100) return watch
	return { ...watch, taps: [...watch.taps, hundredths / 100] }
}

/** The times of a run that is over; null while it is not. */
export const timesOf = (watch: Watch, places: readonly number[], runners: number): readonly number[] | null =>
	watch.startedMs !== null && watch.taps.length === tapsOf(places, runners) ? watch.taps : null

/** One run of somebody, cumulative times at rising distances. */
export interface Run {
	athleteId: string
	splits: { distanceM: number; timeS: number }[]
}

/**
 * Whose times they were: crossings in their order with the one who was named for each; the last of them goes to
 * whoever is left. Null while more than one is not named.
 *
 * @param named athlete by crossing, null where nobody was named
 */
export function assignCrossings(
	times: readonly number[],
	distanceM: number,
	runners: readonly string[],
	named: readonly (string | null)[],
): Run[] | null {
	const left = runners.filter((id) => !named.includes(id))
	const open = times.filter((_, index) => (named[index] ?? null) === null).length
	if (open > 1 || left.length !== open) return null
	return times.map((timeS, index) => ({ athleteId: named[index] ?? left[0]!, splits: [{ distanceM, timeS }] }))
}
