import type { EndReason, LOAD_OFF_REASONS } from '../vocabulary/event-kinds'
import { WORN_SHARE, isFreeRep } from '../vocabulary/worn-reps'
import { REHEARSAL, loadOffAt } from '../marks/as-done'
import type { LogEvent, Mark } from '../vocabulary/events'
import { capital, writePercent, writeSeconds } from '../words/write-numbers'
import { markEvidence } from '../judge/gather-exposure'
import { type ReadyReading, readReady } from '../judge/ready-check'
import { repsOfMark } from '../dose/sides'
import type { Drill } from '../vocabulary/drill'
import { saidOf } from './over-today'
import { byTime } from '../events/by-time'
import { type LineProgress, type Suggestion, suggestionFor } from './line-progress'
import type { FieldAthlete, FieldSheet } from './pack'
import type { Draft } from './session/writes'

type LoadOffReason = (typeof LOAD_OFF_REASONS)[number]

/** What the screen says before the next rep, and what one tap can do about it. */
export interface Advice extends Suggestion {
	/** Offered as one button, with the very event it writes. */
	act: Act | null
}

/** One tap: what its button says, what is written, and how that is named afterwards. */
export interface Act {
	label: string
	said: string
	draft: Draft
	/** Whether the next athlete comes on the line. */
	moveOn: boolean
}

const at = ({ line }: LineProgress) => ({ athleteId: line.athleteId, entryId: line.entryId, lineId: line.id })
const endSet = (progress: LineProgress, reason: EndReason, label = 'End the set'): Act => ({
	label,
	said: 'set ended',
	draft: { ...at(progress), type: 'decision', kind: 'end-set', value: { reason } },
	moveOn: true,
})

/** Share of reps and minutes a weight is worn [common practice]. */
export const LOADED = { share: [WORN_SHARE.low, WORN_SHARE.high], minutes: [20, 40] } as const

/**
 * The one sentence for an athlete on the line. What hurts comes first, then a fast day that was taken, what ends
 * a set, a weight that should come off, the first reps of the day against the usual, then the rest.
 */
export function liveAdvice(
	progress: LineProgress,
	athlete: FieldAthlete,
	sheet: Pick<FieldSheet, 'lines' | 'school' | 'entries' | 'drills'>,
	events: readonly LogEvent[],
): Advice {
	if (progress.over !== null && !progress.ended)
		return {
			lead: 'Stop here.',
			rest: `${progress.over}: over for today. Tap the name for another drill.`,
			endTheSet: true,
			act: progress.repsDone === 0 ? null : endSet(progress, 'pain'),
		}
	if (progress.halted !== null && !progress.ended)
		return progress.halted.by === 'end'
			? { lead: 'Session ended.', rest: `${capital(progress.halted.words)}.`, endTheSet: false, act: null }
			: {
					lead: 'Not on this ground.',
					rest: `${capital(progress.halted.words)}. Tap the name for another drill.`,
					endTheSet: true,
					act: endSet(progress, 'weather'),
				}
	const drill = drillOn(progress, sheet)
	const said = drill ? saidOf(athlete.id, drill, events) : null
	const plain =
		said === null || progress.finished
			? suggestionFor(progress)
			: // Nobody is told to go on who has said that it hurts there.
				{ ...suggestionFor(progress), lead: 'Ask first.', rest: `${said} was said today. It is for the coach to say.` }
	const withEnd = (say: Suggestion): Advice => ({
		...say,
		act: say.endTheSet ? endSet(progress, 'drop-off') : null,
	})
	if (progress.ended || said !== null) return withEnd(plain)
	// Its two reps are the last whatever they are.
	const fast = fastDay(progress, events)
	if (fast) return fast
	if (plain.endTheSet) return withEnd(plain)
	const load = loadAdvice(progress, athlete.id, sheet, events)
	if (load) return load
	const ready = readyOf(progress, athlete, sheet)
	if (ready && (ready.state === 'slow' || ready.state === 'fast')) {
		const trimmed = Math.ceil(progress.planned * ready.share)
		if (ready.state === 'slow') {
			if (progress.finished) return withEnd(plain)
			const enough = progress.repsDone >= trimmed
			return {
				lead: enough ? 'Enough for today.' : 'Slow day.',
				rest: `${ready.sentence} ${enough ? '' : `${trimmed} of ${progress.planned} reps.`}`.trim(),
				endTheSet: false,
				act: enough ? endSet(progress, 'coach') : null,
			}
		}
		if (!progress.finished && progress.repsDone === 2)
			return {
				lead: 'Fast day.',
				rest: ready.sentence,
				endTheSet: false,
				act: ready.offer
					? {
							label: 'Take it',
							said: 'fast day',
							draft: { ...at(progress), type: 'decision', kind: 'fast-day', value: {} },
							moveOn: false,
						}
					: null,
			}
	}
	if (ready && progress.repsDone > 0 && progress.repsDone <= 2 && !progress.finished)
		return { ...plain, rest: `${ready.sentence} ${plain.rest}`, act: null }
	return withEnd(plain)
}

/** The drill that is done on a line: its own, or the one swapped in. */
export const drillOn = (
	{ line, swap }: Pick<LineProgress, 'line' | 'swap'>,
	{ drills }: Pick<FieldSheet, 'drills'>,
): Drill | undefined => {
	const { drillId, drillVersion } = swap ?? line
	return drills[`${drillId}/${drillVersion}`]
}

/** The ready check of the day's first sprint line, over 10 m or its own distance; null elsewhere. */
export function readyOf(
	progress: LineProgress,
	athlete: FieldAthlete,
	sheet: Pick<FieldSheet, 'lines' | 'school' | 'entries'>,
): ReadyReading | null {
	const order = new Map(sheet.entries.map((entry, index) => [entry.id, index]))
	const first = sheet.lines
		.filter((line) => line.athleteId === athlete.id && line.logs === 'sprint' && line.blocked === null)
		.sort((a, b) => (order.get(a.entryId) ?? 0) - (order.get(b.entryId) ?? 0))[0]
	// Another drill in its place has no usual here.
	if (!first || first.id !== progress.line.id || progress.swap) return null
	const sprints = progress.marks.flatMap((mark) => (mark.kind === 'sprint' ? [mark.value] : []))
	const [one] = sprints
	if (!one) return null
	const usual = athlete.usual.find(
		(known) =>
			known.firstMetres === first.firstMetres &&
			known.method === one.method &&
			one.splits.some((split) => split.distanceM === known.distanceM) &&
			(known.distanceM === 10 || known.distanceM === first.parameters.distanceM),
	)
	const reps = sprints
		.flatMap((sprint) => {
			const split =
				usual && sprint.method === usual.method
					? sprint.splits.find(({ distanceM }) => distanceM === usual.distanceM)
					: undefined
			return split ? [split.timeS] : []
		})
		.slice(0, 2)
	const best = usual?.distanceM === first.parameters.distanceM ? (first.bests[one.method] ?? null) : null
	return readReady(
		usual ? reps : sprints.slice(0, 2).map((sprint) => sprint.splits.at(-1)!.timeS),
		usual?.reference ?? null,
		best,
		sheet.school,
	)
}

/** After the coach has taken the offer: one rehearsal below full effort, one full rep, then the part is closed, fast or slow. */
function fastDay(progress: LineProgress, events: readonly LogEvent[]): Advice | null {
	const taken = events
		.filter(
			(event) =>
				event.kind === 'fast-day' &&
				event.athleteId === progress.line.athleteId &&
				'entryId' in event &&
				event.entryId === progress.line.entryId,
		)
		.sort(byTime)[0]
	if (!taken) return null
	const after = progress.marks.filter((mark) => mark.kind !== 'missed' && byTime(mark, taken) > 0).length
	const best = Math.min(
		...progress.marks.flatMap((mark) => (mark.kind === 'sprint' ? [mark.value.splits.at(-1)!.timeS] : [])),
	)
	if (after === 0)
		return {
			lead: 'Rehearsal.',
			rest: Number.isFinite(best)
				? `Below full effort: ${writeSeconds(best / REHEARSAL.to)} to ${writeSeconds(best / REHEARSAL.from)}. Then one full rep.`
				: 'Below full effort, 90–95 %. Then one full rep.',
			endTheSet: false,
			act: null,
		}
	if (after === 1)
		return {
			lead: 'One full rep.',
			rest: 'All of it, once. Then this part is closed, fast or slow.',
			endTheSet: false,
			act: null,
		}
	return {
		lead: 'Close this part.',
		rest: 'The full rep of a fast day is done; it is not to be beaten today.',
		endTheSet: true,
		act: endSet(progress, 'good-day', 'Close this part'),
	}
}

/** A weight worn: on which reps, its share of them and its minutes, and when to take it off. */
function loadAdvice(
	progress: LineProgress,
	athleteId: string,
	sheet: Pick<FieldSheet, 'lines' | 'school'>,
	events: readonly LogEvent[],
): Advice | null {
	const { line, worn } = progress
	if (!line.parameters.loadG || progress.finished) return null
	const isOff = loadOffAt(events, line) !== null
	const plain = (lead: string, rest: string): Advice => ({ lead, rest, endTheSet: false, act: null })
	if (isOff) return plain('Weight off.', 'The rest without it: finish free and fast.')
	if (progress.repsDone === 0)
		return worn === false
			? plain('Without the weight.', 'The first rep is free: the others are held against it.')
			: null
	const { said, minutes } = wornSoFar(progress, athleteId, sheet, events)
	const limit = sheet.school.numbers.carriedSpeedLossPercent
	const slower = speedLost(progress)
	const act = (reason: LoadOffReason): Act => ({
		label: 'Take it off now',
		said: 'weight off',
		draft: { ...at(progress), type: 'decision', kind: 'load-off', value: { reason } },
		moveOn: false,
	})
	if (slower !== null && slower >= limit - 1e-9)
		return {
			lead: 'Take it off now.',
			rest: `${writePercent(slower)} slower, the limit is ${limit} %. ${said}`,
			endTheSet: false,
			act: act('speed-loss'),
		}
	if (minutes >= LOADED.minutes[1])
		return { lead: 'Take it off now.', rest: said, endTheSet: false, act: act('minutes') }
	if (worn === false) return plain('Take it off.', `What is left is free: finish fast. ${said}`)
	// Before its time it comes off because somebody saw that it spoils the movement.
	return { lead: 'With the weight.', rest: said, endTheSet: false, act: act('movement') }
}

/** How far the last rep with the weight fell below the best free one, or the best with it where none was free, %; null before there is one. */
function speedLost({ line, marks, dropOff }: LineProgress): number | null {
	if (!line.carried) return dropOff?.percents.at(-1) ?? 0
	const run = (mark: Mark) => {
		const evidence = mark.asDrill === undefined ? markEvidence(mark, line.parameters.distanceM) : null
		return evidence?.kind === 'sprint'
			? [{ timeS: evidence.value, method: evidence.method, free: isFreeRep(line, mark) }]
			: []
	}
	const runs = marks.flatMap(run)
	const last = runs.at(-1)
	if (!last || last.free) return null
	const like = runs.filter(({ method }) => method === last.method)
	const free = like.filter((one) => one.free)
	const best = Math.min(...(free.length > 0 ? free : like).map(({ timeS }) => timeS))
	return ((last.timeS - best) / best) * 100
}

/** Reps and minutes with a weight so far, in words. */
function wornSoFar(
	{ line }: LineProgress,
	athleteId: string,
	sheet: Pick<FieldSheet, 'lines'>,
	events: readonly LogEvent[],
): { said: string; minutes: number } {
	const lines = new Map(sheet.lines.filter((one) => one.athleteId === athleteId).map((one) => [one.id, one]))
	const done = events.flatMap((event) =>
		event.type === 'mark' && event.kind !== 'missed' && event.athleteId === athleteId ? [event] : [],
	)
	// Left and right of one rep are one.
	const reps = (marks: typeof done) =>
		marks.reduce((sum, mark) => sum + repsOfMark(mark, lines.get(mark.lineId)?.sided ?? null), 0)
	const loaded = done.filter((mark) => {
		const own = lines.get(mark.lineId)
		return own?.parameters.loadG && !isFreeRep(own, mark)
	})
	const of = done.filter((mark) => lines.get(mark.lineId)?.family === line.family)
	const share = reps(loaded) / Math.max(1, reps(of))
	const times = loaded.map((mark) => Date.parse(mark.deviceTime))
	const minutes = times.length === 0 ? 0 : Math.round((Math.max(...times) - Math.min(...times)) / 60_000)
	return {
		minutes,
		said: `Worn on ${reps(loaded)} of ${reps(of)} reps (${Math.round(share * 100)} %, usual ${LOADED.share[0] * 100}–${LOADED.share[1] * 100}), ${minutes} min (${LOADED.minutes[0]}–${LOADED.minutes[1]}).`,
	}
}
