import { useEffect, useMemo, useRef } from 'react'
import { assembleContacts, assembleRuns } from '#core/devices/assemble-runs'
import type { KeptReading } from '#core/devices/schema'
import type { LogEvent } from '#core/vocabulary/events'
import type { LineProgress } from '#core/field/line-progress'
import { heightFromFlightTime } from '#core/measure/jump/jump-height'
import { writeSeconds } from '#core/words/write-numbers'
import type { NewEvent } from './use-session-log'

/** Something a device saw that a person should place. */
export interface FeedQuestion {
	source: string
	at: number
	words: string
	/** What it would be for an athlete's line; null where that line takes another kind of number. */
	markFor: (progress: LineProgress) => NewEvent | null
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
						} as NewEvent)
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
						} as NewEvent
					return progress.line.logs === 'height'
						? ({
								...place(progress, contact.source),
								type: 'mark',
								kind: 'height',
								value: { heightM: milli(heightFromFlightTime(flightS)), method: 'mat' },
							} as NewEvent)
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
									} as NewEvent)
								: null,
					},
				]
			: [],
	)
	return [...runs, ...contacts, ...balls].sort((a, b) => a.at - b.at)
}

interface Feed {
	readings: readonly KeptReading[]
	/** When the coach switched the feed on, ms; null while it is off. */
	since: number | null
	/** Who stands on the line, lane by lane. */
	onLine: readonly LineProgress[]
	/** Why a number would surprise for an athlete; null when it would not. */
	strange: (progress: LineProgress, mark: NewEvent) => string | null
	all: readonly LogEvent[]
	/** Sources somebody said are no reps. */
	settled: ReadonlySet<string>
	keep: (mark: NewEvent, words: string) => Promise<void>
}

/** Gives what the devices saw to the athlete on the line; what does not fit is a question. */
export function useDeviceFeed({ readings, since, onLine, strange, all, settled, keep }: Feed): FeedQuestion[] {
	const taken = useMemo(
		() => new Set(all.flatMap((event) => (event.type === 'mark' && event.source ? [event.source] : []))),
		[all],
	)
	const seen = useMemo(() => whatDevicesSaw(readings), [readings])
	const open =
		since === null ? [] : seen.filter((one) => one.at >= since && !taken.has(one.source) && !settled.has(one.source))
	const writing = useRef(new Set<string>())
	const judged = open.map((one) => {
		const progress = onLine[one.lane - 1] ?? (onLine.length === 1 ? onLine[0] : undefined)
		const mark = progress && !progress.finished ? one.markFor(progress) : null
		const why =
			one.unsure ?? (mark === null || !progress ? 'it does not go with the drill on the line' : strange(progress, mark))
		return { one, mark, why }
	})
	const plain = judged.find(({ why, mark, one }) => why === null && mark !== null && !writing.current.has(one.source))
	useEffect(() => {
		if (!plain?.mark || writing.current.has(plain.one.source)) return
		// One at a time: after each the line moves on, and the next reading is for the next athlete.
		writing.current.add(plain.one.source)
		void keep(plain.mark, plain.one.words)
	})
	return judged.flatMap(({ one, why }) =>
		why === null
			? []
			: [
					{
						source: one.source,
						at: one.at,
						words: why === one.words ? one.words : `${one.words}: ${why.replace(/\.$/, '')}`,
						markFor: one.markFor,
					},
				],
	)
}
