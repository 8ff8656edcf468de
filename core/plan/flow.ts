import { writeClock } from '../words/rests'
import { CHANGE_OVER_MIN, walkBackS } from '../dose/estimate-minutes'
import { type AskedWork, paceOf } from '../vocabulary/line-parts'
import type { Dose, Parameters, Rest } from '../vocabulary/dose'
import type { Drill } from '../vocabulary/drill'

/** One athlete's work at an entry, in turns: a rep each, or a set each where its reps follow each other on the spot. */
export interface FlowAthlete {
	id: string
	turns: number
	/** One turn on the lane, s. */
	turnS: number
	/** What the drill asks between two turns, the walk back in it, s. */
	restS: number
	/** After so many turns a set is over, and its rest counts instead. */
	turnsInSet: number
	setRestS: number
	/** The coach watches each turn: one of these at a time, whatever the lanes. */
	watched?: boolean
}
export interface FlowEntry {
	id: string
	name: string
	/** Turns that can go on side by side. */
	lanes: number
	/** Athletes who start together on one lane: 1, or 2 for pairs. */
	together: number
	/** Everybody side by side, as in warming up: lanes do not matter. */
	atOnce: boolean
	/** Setting it up and saying what is next, minutes. */
	setUpMin: number
	/** In the order of the queue. */
	athletes: FlowAthlete[]
}

export interface EntryFlow {
	id: string
	minutes: number
	/** Mean rest each athlete really gets between turns, s; null with one turn. */
	rests: { athleteId: string; realS: number | null; askedS: number }[]
	/** Mean waiting beyond the asked rest, s. */
	waitS: number
	/** Share of the time the lanes are in use. */
	use: number
	/** What more of would shorten it. */
	bottleneck: 'lanes' | 'rest' | 'attention' | 'none'
}
export interface Flow {
	minutes: number
	entries: EntryFlow[]
}

/** Warming up needs no cones: saying what is next, minutes [our setting]. */
const PREPARE_CHANGE_MIN = 0.5
/** Stepping off and up to the line, s [our setting]. */
export const CLEAR_S = 3
/** Waiting of more than this beside rest that is kept says that the lanes are the narrow place, as a share of the rest. */
const LONG_WAIT = 0.5

/** A rest up to this long is taken on the spot: nobody goes in between, s [our setting]. */
const STAYS_S = 15

/** An athlete's line as turns. Where the rest between reps is short the lane is kept for the whole set. */
export function flowAthlete(
	id: string,
	{ sets, reps }: Dose,
	parameters: Parameters,
	rest: Rest,
	drill: Pick<Drill, 'defaults'>,
	repS = drill.defaults.repS,
): FlowAthlete {
	const back = walkBackS(parameters)
	const [between, after] = [Math.max(rest.repsS, back), Math.max(rest.setsS, back)]
	return between <= STAYS_S
		? { id, turns: sets, turnS: reps * repS + (reps - 1) * between, restS: after, turnsInSet: 1, setRestS: after }
		: { id, turns: sets * reps, turnS: repS, restS: between, turnsInSet: reps, setRestS: after }
}

/** Rest after a turn, counted from 1. */
const restAfter = (athlete: FlowAthlete, turn: number): number =>
	turn % athlete.turnsInSet === 0 ? athlete.setRestS : athlete.restS
/** Mean rest a line asks between its turns; 0 with one turn. */
export function askedRestS(athlete: FlowAthlete): number {
	const gaps = athlete.turns - 1
	if (gaps < 1) return 0
	const setGaps = Math.floor(gaps / athlete.turnsInSet)
	return (setGaps * athlete.setRestS + (gaps - setGaps) * athlete.restS) / gaps
}

export interface FlowLine {
	athleteId: string
	drill: Drill
	dose: Dose
	parameters: Parameters
	rest: Rest
	/** Own best over the line's distance, s. */
	bestS?: number | undefined
}
/** A line as the flow sees it, a complex by its turns. The line's own drill says how it is watched and set up. */
export function flowLineOf(
	athleteId: string,
	line: AskedWork & { rest: Rest },
	drillOf: (drillId: string) => Drill | null | undefined,
	bestS?: number,
): FlowLine {
	const { dose, repS } = paceOf(line, drillOf)
	return {
		athleteId,
		drill: drillOf(line.drillId)!,
		dose,
		parameters: line.parameters,
		rest: line.rest,
		bestS: repS ?? bestS,
	}
}

/** An entry's lines as the flow sees them; null when nobody has one. Warming up, holds and easy work go on all at once. */
export function flowEntry(
	entry: Pick<FlowEntry, 'id' | 'name' | 'lanes' | 'together'>,
	lines: readonly FlowLine[],
): FlowEntry | null {
	if (lines.length === 0) return null
	return {
		...entry,
		setUpMin: lines.every(({ drill }) => drill.family === 'prepare') ? PREPARE_CHANGE_MIN : CHANGE_OVER_MIN,
		atOnce: lines.every(({ drill }) => ['prepare', 'tissue'].includes(drill.family) || drill.intensity === 'low'),
		athletes: lines.map(({ athleteId, drill, dose, parameters, rest, bestS }) => ({
			...flowAthlete(athleteId, dose, parameters, rest, drill, bestS),
			watched: drill.oneAtATime === true,
		})),
	}
}

/**
 * How an entry goes: whoever has rested longest goes next on the lane that is free first. Discrete events,
 * no chance: the same group gives the same minutes.
 *
 * With one lane and equal athletes the time is exact: a round lasts the longer of everybody's turns and one
 * athlete's turn and rest, and there is one round fewer than turns, plus a last pass through the group.
 *
 * @param draw seconds of a turn and of a rest, for studies with chance; the athlete's own when not given
 * @throws RangeError for no lanes, nobody together, or negative times
 */
export function simulateEntry(
	entry: FlowEntry,
	draw?: { turnS: (athlete: FlowAthlete) => number; restS: (athlete: FlowAthlete) => number },
): EntryFlow {
	if (!(entry.lanes >= 1 && Number.isInteger(entry.lanes)))
		throw new RangeError(`lanes: ${entry.lanes} is not a whole number of 1 or more`)
	if (!(entry.together >= 1 && Number.isInteger(entry.together)))
		throw new RangeError(`together: ${entry.together} is not a whole number of 1 or more`)
	const count = entry.athletes.length
	const places = entry.atOnce ? Math.max(1, count) : entry.lanes * entry.together
	// Plain arrays: the what-if search runs this many hundred times a second.
	const left = new Int32Array(count)
	const readyAt = new Float64Array(count)
	const endedAt = new Float64Array(count)
	const rested = new Float64Array(count)
	const waited = new Float64Array(count)
	const freeAt = new Float64Array(places)
	let open = 0
	for (const [index, athlete] of entry.athletes.entries()) {
		if (!(athlete.turnS >= 0 && athlete.restS >= 0 && athlete.setRestS >= 0))
			throw new RangeError(`athletes[${index}]: times are not below 0`)
		left[index] = athlete.turns
		endedAt[index] = -1
		if (athlete.turns > 0) open += 1
	}
	let used = 0
	let coachFreeAt = 0
	let coached = 0
	let end = 0
	while (open > 0) {
		let next = -1
		for (let index = 0; index < count; index++)
			if (left[index]! > 0 && (next < 0 || readyAt[index]! < readyAt[next]!)) next = index
		let place = 0
		for (let index = 1; index < places; index++) if (freeAt[index]! < freeAt[place]!) place = index
		const athlete = entry.athletes[next]!
		const free = Math.max(readyAt[next]!, freeAt[place]!)
		const start = athlete.watched ? Math.max(free, coachFreeAt) : free
		if (endedAt[next]! >= 0) {
			rested[next]! += start - endedAt[next]!
			waited[next]! += start - readyAt[next]!
		}
		const turnS = draw ? draw.turnS(athlete) : athlete.turnS
		const done = start + turnS
		used += turnS
		endedAt[next] = done
		readyAt[next] = done + (draw ? draw.restS(athlete) : restAfter(athlete, athlete.turns - left[next]! + 1))
		freeAt[place] = done + CLEAR_S
		if (athlete.watched) {
			coachFreeAt = done + CLEAR_S
			coached += turnS
		}
		left[next]! -= 1
		if (left[next] === 0) open -= 1
		if (done > end) end = done
	}
	const gaps = entry.athletes.reduce((sum, athlete) => sum + Math.max(0, athlete.turns - 1), 0)
	const waitS = gaps > 0 ? waited.reduce((sum, value) => sum + value, 0) / gaps : 0
	const asked =
		gaps > 0
			? entry.athletes.reduce((sum, athlete) => sum + askedRestS(athlete) * Math.max(0, athlete.turns - 1), 0) / gaps
			: 0
	return {
		id: entry.id,
		minutes: entry.setUpMin + end / 60,
		waitS,
		use: end > 0 ? used / (end * places) : 0,
		rests: entry.athletes.map((athlete, index) => ({
			athleteId: athlete.id,
			realS: athlete.turns > 1 ? rested[index]! / (athlete.turns - 1) : null,
			askedS: askedRestS(athlete),
		})),
		bottleneck:
			gaps === 0
				? 'none'
				: waitS > Math.max(10, LONG_WAIT * asked)
					? coached > used / places
						? 'attention'
						: 'lanes'
					: 'rest',
	}
}

export function simulateFlow(entries: readonly FlowEntry[]): Flow {
	const flows = entries.map((entry) => simulateEntry(entry))
	return { entries: flows, minutes: flows.reduce((sum, flow) => sum + flow.minutes, 0) }
}

/** One thing to change, in a sentence, and what it would save; nothing where nothing helps. */
export function flowAdvice(entry: FlowEntry, flow: EntryFlow): string | null {
	if (flow.bottleneck === 'lanes') {
		const saved = flow.minutes - simulateEntry({ ...entry, lanes: entry.lanes + 1 }).minutes
		return saved >= 1
			? `Add a lane: ${Math.round(saved)} min less; everybody waits ${writeClock(flow.waitS)} beyond their rest.`
			: null
	}
	if (flow.bottleneck === 'attention')
		return `The coach is the narrow place: everybody waits ${writeClock(flow.waitS)}. Split the group, or let half do the next drill meanwhile.`
	if (flow.bottleneck === 'rest' && entry.lanes > 1 && flow.use < 0.25)
		return 'A lane fewer would do: the rest sets the pace here.'
	return null
}
