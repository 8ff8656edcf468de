import type { KeptReading } from './schema'
import { writeDistance } from '../words/units'

/** A beam broken twice within this is one body: an arm and a trunk. */
const DOUBLE_TRIGGER_MS = 300
/** Between two beams nobody is slower than this, nor faster. */
const SLOWEST_MPS = 1.2
const FASTEST_MPS = 13
/** A start that nothing follows within this was not a run. */
const LONGEST_MS = 90_000

export interface Run {
	/** The first reading's id: what a mark names as its source. */
	source: string
	lane: number
	startedAt: number
	endedAt: number
	/** Cumulative times at rising distances from the first beam, s to 1 ms. */
	splits: { distanceM: number; timeS: number }[]
	/** Beams that stand there and saw nothing. */
	missing: number[]
	/** Why somebody should look before it becomes a mark; null when it is plain. */
	unsure: string | null
	readingIds: string[]
}

type Beam = Extract<KeptReading, { kind: 'beam' }>

/**
 * Runs from beam breaks, lane by lane. A run begins at the first beam; each later beam that is reached at
 * a speed somebody can run belongs to it. A beam broken twice counts once, with its first break. A beam
 * that saw nothing leaves a gap that is named; a run whose last beam saw nothing, and a break no run can
 * explain, are given as unsure. The order in which readings arrive does not matter.
 *
 * @param readings any order; other kinds are left out
 * @param beams distances at which beams stand, metres; worked out from the readings when not given
 */
export function assembleRuns(readings: readonly KeptReading[], beams?: readonly number[]): Run[] {
	const unique = new Map(
		readings.flatMap((reading) => (reading.kind === 'beam' ? [[reading.id, reading] as const] : [])),
	)
	const sorted = [...unique.values()].sort(
		(a, b) => Date.parse(a.at) - Date.parse(b.at) || a.value.distanceM - b.value.distanceM || (a.id < b.id ? -1 : 1),
	)
	const lanes = [...new Set(sorted.map((reading) => reading.value.lane))].sort((a, b) => a - b)
	return lanes
		.flatMap((lane) =>
			runsOfLane(
				lane,
				sorted.filter((reading) => reading.value.lane === lane),
				beams,
			),
		)
		.sort((a, b) => a.startedAt - b.startedAt)
}

function runsOfLane(lane: number, readings: Beam[], given?: readonly number[]): Run[] {
	const beams = given ?? [...new Set(readings.map((reading) => reading.value.distanceM))].sort((a, b) => a - b)
	const open: { started: Beam; last: Beam; seen: Beam[]; ids: string[] }[] = []
	const strays: Beam[] = []
	for (const reading of readings) {
		const at = Date.parse(reading.at)
		const { distanceM } = reading.value
		// The latest run this beam was already part of: the same body once more.
		const double = open.find((run) =>
			run.seen.some((seen) => seen.value.distanceM === distanceM && at - Date.parse(seen.at) < DOUBLE_TRIGGER_MS),
		)
		if (double) {
			double.ids.push(reading.id)
			continue
		}
		if (distanceM === beams[0]) {
			open.push({ started: reading, last: reading, seen: [reading], ids: [reading.id] })
			continue
		}
		// The earliest run that can have come here: nobody overtakes in a lane.
		const run = open.find((candidate) => {
			const metres = distanceM - candidate.last.value.distanceM
			const seconds = (at - Date.parse(candidate.last.at)) / 1000
			return (
				metres > 0 &&
				at - Date.parse(candidate.started.at) < LONGEST_MS &&
				seconds > 0 &&
				metres / seconds <= FASTEST_MPS &&
				metres / seconds >= SLOWEST_MPS
			)
		})
		if (!run) {
			strays.push(reading)
			continue
		}
		run.last = reading
		run.seen.push(reading)
		run.ids.push(reading.id)
	}
	const lastBeam = beams.at(-1)
	const runs = open
		.filter((run) => run.seen.length > 1)
		.map((run): Run => {
			const started = Date.parse(run.started.at)
			const seen = run.seen.slice(1)
			const missing = beams.slice(1).filter((metres) => !seen.some((reading) => reading.value.distanceM === metres))
			return {
				source: run.started.id,
				lane,
				startedAt: started,
				endedAt: Date.parse(run.last.at),
				missing,
				readingIds: run.ids,
				splits: seen.map((reading) => ({
					distanceM: reading.value.distanceM,
					timeS: Math.round(Date.parse(reading.at) - started) / 1000,
				})),
				unsure: lastBeam !== undefined && missing.includes(lastBeam) ? `the beam at ${lastBeam} m saw nothing` : null,
			}
		})
	const orphans = strays.map(
		(reading): Run => ({
			source: reading.id,
			lane,
			startedAt: Date.parse(reading.at),
			endedAt: Date.parse(reading.at),
			splits: [],
			missing: [...beams],
			readingIds: [reading.id],
			unsure: `the beam at ${writeDistance(reading.value.distanceM)} was broken and no start goes with it`,
		}),
	)
	return [...runs, ...orphans]
}

export interface Contact {
	source: string
	/** Feet down, ms since 1970. */
	downAt: number
	contactS: number
	/** Flight after the contact, s; null while nobody has come down again. */
	flightS: number | null
	readingIds: string[]
}

/** Longer than this on the mat is standing, not a contact; longer in the air than this is walking off. */
const LONGEST_CONTACT_S = 1.2
const LONGEST_FLIGHT_S = 1.1
/** A mat bounces: down and up within this is one touch going on. */
const BOUNCE_S = 0.02

/**
 * Contacts with the flight that follows, from a mat's downs and ups. A down without an up, an up without
 * a down and standing on the mat are no contacts; a bounce of the switch is smoothed over. Order of
 * arrival does not matter.
 */
export function assembleContacts(readings: readonly KeptReading[]): Contact[] {
	const unique = new Map(
		readings.flatMap((reading) => (reading.kind === 'mat' ? [[reading.id, reading] as const] : [])),
	)
	const sorted = [...unique.values()].sort((a, b) => Date.parse(a.at) - Date.parse(b.at) || (a.id < b.id ? -1 : 1))
	const changes: typeof sorted = []
	for (const reading of sorted) {
		const before = changes.at(-1)
		if (before && before.value.feet === reading.value.feet) continue
		if (before && (Date.parse(reading.at) - Date.parse(before.at)) / 1000 < BOUNCE_S) {
			changes.pop()
			continue
		}
		changes.push(reading)
	}
	return changes.flatMap((reading, index) => {
		const [up, down] = [changes[index + 1], changes[index + 2]]
		if (reading.value.feet !== 'down' || !up) return []
		const downAt = Date.parse(reading.at)
		const contactS = (Date.parse(up.at) - downAt) / 1000
		if (contactS > LONGEST_CONTACT_S) return []
		const flightS = down ? (Date.parse(down.at) - Date.parse(up.at)) / 1000 : null
		return [
			{
				source: reading.id,
				downAt,
				contactS,
				flightS: flightS !== null && flightS <= LONGEST_FLIGHT_S ? flightS : null,
				readingIds: [reading.id, up.id, ...(down ? [down.id] : [])],
			},
		]
	})
}
