import { assembleContacts, assembleRuns } from '../../devices/assemble-runs'
import type { KeptReading } from '../../devices/schema'
import { heightFromFlightTime } from '../../measure/jump/jump-height'
import { writeSeconds } from '../../words/write-numbers'
import type { LineProgress } from '../line-progress'
import { drillOn } from '../live-advice'
import { strangeFor } from '../strange'
import type { Stand } from './stand'
import type { Draft } from './writes'

/** Something a device saw that a person should place. */
export interface FeedQuestion {
	source: string
	at: number
	words: string
	/** What it would be for an athlete's line; null where that line takes another kind of number. */
	markFor: (progress: LineProgress) => Draft | null
}

interface Seen {
	source: string
	at: number
	lane: number
	words: string
	unsure: string | null
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
			unsure: run.unsure,
			words: last ? `${writeSeconds(last.timeS)} over ${last.distanceM} m, lane ${run.lane}` : (run.unsure ?? ''),
			markFor: (progress) => {
				const asked = progress.line.parameters.distanceM
				const splits = run.splits.filter((split) => asked === undefined || split.distanceM <= asked)
				return progress.line.logs === 'sprint' &&
					splits.length > 0 &&
					(asked === undefined || splits.at(-1)!.distanceM === asked)
					? ({
							...place(progress, run.source),
							type: 'mark',
							kind: 'sprint',
							value: { splits, method: 'gate' },
						} as Draft)
					: null
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
	questions: FeedQuestion[]
}

/**
 * Gives what the devices saw to whoever is on the line; what does not fit is a question.
 *
 * @param since when the coach let devices log on this phone, ms; null while not
 */
export function placeReadings(stand: Stand, readings: readonly KeptReading[], since: number | null): Placed {
	const placed: Placed = { plain: [], questions: [] }
	if (since === null) return placed
	const { all, settled, onLine, sheet } = stand
	const taken = new Set(all.flatMap((event) => (event.type === 'mark' && event.source ? [event.source] : [])))
	for (const one of whatDevicesSaw(readings)) {
		if (one.at < since || taken.has(one.source) || settled.has(one.source)) continue
		const progress = onLine[one.lane - 1] ?? (onLine.length === 1 ? onLine[0] : undefined)
		const mark = progress && !progress.finished ? one.markFor(progress) : null
		const why =
			one.unsure ??
			(mark === null || !progress
				? 'it does not go with the drill on the line'
				: strangeFor(
						progress,
						mark,
						sheet.athletes.find((athlete) => athlete.id === progress.line.athleteId),
						drillOn(progress, sheet),
					))
		if (why === null && mark) placed.plain.push({ source: one.source, mark, words: one.words })
		else
			placed.questions.push({
				source: one.source,
				at: one.at,
				words: why === one.words ? one.words : `${one.words}: ${(why ?? '').replace(/\.$/, '')}`,
				markFor: one.markFor,
			})
	}
	return placed
}
