import { assembleContacts, assembleRuns } from '../../devices/assemble-runs'
import type { KeptReading } from '../../devices/schema'
import { heightFromFlightTime } from '../../measure/jump/jump-height'
import type { Mark } from '../../vocabulary/events'
import { writeSeconds } from '../../words/write-numbers'
import { type LineProgress, isNext } from '../line-progress'
import { drillOn } from '../live-advice'
import { sayEvent, shortName } from '../say-event'
import { strangeFor } from '../strange'
import type { Stand } from './stand'
import { type Chance, whoseRun } from './whose-run'
import type { Draft } from './writes'
import { writeDistance } from '../../words/units'

/** Something a device saw that a person should place. */
export interface FeedQuestion {
	source: string
	at: number
	words: string
	/** What it would be for an athlete's line; null where that line takes another kind of number. */
	markFor: (progress: LineProgress) => Draft | null
	/** Whose it may be, likeliest first, with the chance where it is known; empty where order and time say nothing. */
	chances: readonly Chance[]
}

interface Seen {
	source: string
	at: number
	lane: number
	words: string
	/** Why nobody can say what it was; null where it is a whole run, contact or throw. */
	unsure: string | null
	/** Of a run: its time at a distance. */
	timeAt: ((distanceM: number) => number | null) | null
	markFor: FeedQuestion['markFor']
}

const place = (progress: LineProgress, source: string) => ({
	athleteId: progress.line.athleteId,
	entryId: progress.line.entryId,
	lineId: progress.line.id,
	...progress.next,
	...(progress.side ? { side: progress.side } : {}),
	source,
	...(progress.swap ? { asDrill: progress.swap } : {}),
})
const milli = (value: number) => Math.round(value * 1000) / 1000

/** Runs, contacts and throws the devices saw, as marks in waiting. */
export function whatDevicesSaw(readings: readonly KeptReading[]): Seen[] {
	const runs = assembleRuns(readings).map((run): Seen => {
		const last = run.splits.at(-1)
		return {
			source: run.source,
			at: run.endedAt,
			lane: run.lane,
			// A beam at the end that saw nothing matters to those who run to it: others have their whole time.
			unsure: run.splits.length > 0 ? null : run.unsure,
			timeAt: (distanceM) => run.splits.find((split) => split.distanceM === distanceM)?.timeS ?? null,
			words: last
				? `${writeSeconds(last.timeS)} over ${writeDistance(last.distanceM)}, lane ${run.lane}`
				: (run.unsure ?? ''),
			markFor: (progress) => {
				if (progress.line.logs !== 'sprint' || run.splits.length === 0) return null
				const asked = progress.line.parameters.distanceM
				const splits = run.splits.filter((split) => asked === undefined || split.distanceM <= asked)
				const at = { ...place(progress, run.source), type: 'mark' }
				// It was run, and the beam that matters saw nothing: a turn without a time.
				return asked === undefined || splits.at(-1)?.distanceM === asked
					? ({ ...at, kind: 'sprint', value: { splits, method: 'gate' } } as Draft)
					: ({ ...at, kind: 'missed', value: { reason: 'no-time' } } as Draft)
			},
		}
	})
	const contacts = assembleContacts(readings).flatMap((contact): Seen[] => {
		const { flightS } = contact
		if (flightS === null) return []
		return [
			{
				source: contact.source,
				at: contact.downAt,
				lane: 1,
				unsure: null,
				timeAt: null,
				words: `contact ${Math.round(contact.contactS * 1000)} ms, flight ${Math.round(flightS * 1000)} ms`,
				markFor: (progress) => {
					if (progress.line.logs === 'contact')
						return {
							...place(progress, contact.source),
							type: 'mark',
							kind: 'contact',
							value: { contactS: milli(contact.contactS), flightS: milli(flightS), method: 'mat' },
						} as Draft
					return progress.line.logs === 'height'
						? ({
								...place(progress, contact.source),
								type: 'mark',
								kind: 'height',
								value: { heightM: milli(heightFromFlightTime(flightS)), method: 'mat' },
							} as Draft)
						: null
				},
			},
		]
	})
	const balls = readings.flatMap((reading): Seen[] =>
		reading.kind === 'ball'
			? [
					{
						source: reading.id,
						at: Date.parse(reading.at),
						lane: 1,
						unsure: null,
						timeAt: null,
						words: `ball ${reading.value.releaseMps.toFixed(1)} m/s`,
						markFor: (progress) =>
							progress.line.family === 'throw'
								? ({
										...place(progress, reading.id),
										type: 'mark',
										kind: 'release',
										value: { speedMps: reading.value.releaseMps, method: 'ball-sensor' },
									} as Draft)
								: null,
					},
				]
			: [],
	)
	return [...runs, ...contacts, ...balls].sort((a, b) => a.at - b.at)
}

/** What the devices saw since the coach let them log here: marks that are plain, and what somebody should place. */
export interface Placed {
	/** In the order they were seen. The next one is judged when the line has moved on. */
	plain: { source: string; mark: Draft; words: string }[]
	/** In the order they were seen. What comes after a question in its lane waits for the answer. */
	questions: FeedQuestion[]
}

/** The one whose turn it is gets a run unasked when it is at least so likely theirs [our setting]. */
const PLAIN_FROM = 0.5
/** So many of those who come next may have run in place of the one whose turn it is. */
const LOOK_AHEAD = 4

/**
 * Gives what the devices saw to whoever is on the line; what does not fit is a question, with whose it may be. Where
 * one runs at a time, a run is weighed by the order and by what each of the next ones runs.
 *
 * @param since when the coach let devices log on this phone, ms; null while not
 */
export function placeReadings(stand: Stand, readings: readonly KeptReading[], since: number | null): Placed {
	const placed: Placed = { plain: [], questions: [] }
	if (since === null) return placed
	const { all, settled } = stand
	const taken = new Set(all.flatMap((event) => (event.type === 'mark' && event.source ? [event.source] : [])))
	const asked = new Set<number>()
	for (const one of whatDevicesSaw(readings)) {
		if (one.at < since || taken.has(one.source) || settled.has(one.source)) continue
		const { progress, why, chances } = weigh(stand, one)
		const mark = progress && one.markFor(progress)
		// Whose the one before was decides whose turn it is.
		if (why === null && mark && !asked.has(one.lane)) {
			placed.plain.push({ source: one.source, mark, words: one.words })
			continue
		}
		const said = asked.has(one.lane) ? 'the one before it is not placed' : (why ?? '')
		asked.add(one.lane)
		placed.questions.push({
			source: one.source,
			at: one.at,
			words: said === one.words ? one.words : `${one.words}: ${said.replace(/\.$/, '')}`,
			markFor: one.markFor,
			chances,
		})
	}
	return placed
}

/** The number this phone saved by hand last on the drill that is shown: with it the line moved on. */
function byHand({ current, cursor, deviceId }: Stand): Mark | null {
	let last: Mark | null = null
	for (const event of current)
		if (event.type === 'mark' && event.entryId === cursor.entryId && event.deviceId === deviceId)
			if (!event.source && !event.replacesId && (last === null || event.deviceTime > last.deviceTime)) last = event
	return last
}

/** Whose a reading is by the line, and why it should be asked; null when it is plain. */
function weigh(stand: Stand, one: Seen): { progress: LineProgress | undefined; why: string | null; chances: Chance[] } {
	const { onLine, queue, sheet, nameOf } = stand
	const progress = onLine[one.lane - 1] ?? (onLine.length === 1 ? onLine[0] : undefined)
	const athleteOf = ({ line }: LineProgress) => sheet.athletes.find(({ id }) => id === line.athleteId)
	const from = progress ? queue.indexOf(progress) : 0
	const next = [...queue.slice(from), ...queue.slice(0, Math.max(0, from))].filter(
		(other) => other === progress || isNext(other),
	)
	const before = queue.slice(0, Math.max(0, from))
	const most = Math.max(0, ...before.map(({ marks }) => marks.length))
	const runner = (other: LineProgress) => ({ progress: other, athlete: athleteOf(other) ?? { curve: null } })
	const chances =
		one.timeAt && onLine.length === 1
			? whoseRun(
					next.slice(0, LOOK_AHEAD).map(runner),
					one.timeAt,
					// Whoever stands before and has run less often than others there was passed over.
					next
						.slice(LOOK_AHEAD)
						.filter((other) => before.includes(other) && other.marks.length < most)
						.map(runner),
				)
			: []
	if (one.unsure) return { progress, why: one.unsure, chances }
	const saved = byHand(stand)
	if (saved?.athleteId && one.at <= Date.parse(saved.deviceTime))
		return {
			progress,
			why: `it was seen before ${shortName(nameOf(saved.athleteId))}’s ${sayEvent(saved)} was saved`,
			chances,
		}
	const mark = progress && !progress.finished ? one.markFor(progress) : null
	if (!progress || !mark) return { progress, why: 'it does not go with the drill on the line', chances }
	if (mark.kind === 'missed')
		return {
			progress,
			why: `the beam at ${writeDistance(progress.line.parameters.distanceM ?? 0)} saw nothing`,
			chances,
		}
	const strange = strangeFor(progress, mark, athleteOf(progress), drillOn(progress, sheet))
	if (strange) return { progress, why: strange, chances }
	const [likeliest] = chances
	const own = chances.find((chance) => chance.progress === progress)
	if (likeliest && own && own.chance < PLAIN_FROM)
		return {
			progress,
			why:
				likeliest === own
					? 'nobody of the next ones runs like that'
					: `it is more like ${shortName(athleteOf(likeliest.progress)?.name ?? '')}`,
			chances,
		}
	return { progress, why: null, chances }
}
