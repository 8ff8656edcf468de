import { byTime } from '../events/by-time'
import { isFreeRep } from '../vocabulary/worn-reps'
import type { LogEvent, Mark } from '../vocabulary/events'
import { groupBy } from '../lists/group-by'
import { betterOf } from '../marks/keep-session'
import { percentsOffBest } from '../noise/drop-off'
import type { StopReading } from '../noise/one-more'
import { type Method, METHOD_NAMES } from '../vocabulary/words'
import { repsOfMark, turnsOfMark } from '../dose/sides'
import { byRep, markEvidence } from '../judge/gather-exposure'
import { type Leg, SIDES } from '../vocabulary/words'
import { readFall } from '../judge/read-fall'
import type { MarkEvidence } from '../judge/types'
import { loadOffAt, rehearsalOf } from '../marks/as-done'
import { capital, inSentence, writeMark, writePercent } from '../words/write-numbers'
import { type Round, judgedLine, lineAt, pieceOf, roundOf } from './complex'
import type { FieldLine } from './pack'

/** Where one athlete stands on one line, from the events that stand. */
export interface LineProgress {
	/** Of a complex: as its piece stands whose turn it is. */
	line: FieldLine
	marks: Extract<LogEvent, { type: 'mark' }>[]
	repsDone: number
	planned: number
	ended: boolean
	/** Number of the next set and of the rep in it, counted from 1; of a complex the round and the piece. */
	next: { setNo: number; repNo: number; piece?: number }
	/** Of a complex: reps of the piece still to do in this round. */
	pieceLeft?: number
	/** Whether the next rep is done with the line's weight; null where it has none. */
	worn: boolean | null
	/** Whose turn it is of the sides, where a rep is done on each; null where no side is asked, or none by turn. */
	side: Leg | null
	/** One side of the rep is done, the other to come. */
	half: boolean
	/** Device time of the last rep, ms; null before the first. */
	lastAt: number | null
	dropOff: StopReading | null
	/** How far each mark is off the best before it of those taken likewise, and whether it is the best of them; by id. */
	offBest: ReadonlyMap<string, { percent: number; isBest: boolean }>
	/** Rest the last rep asks for, s: none after a rep that was not run, less after a shorter one. */
	restS: number
	/** Another drill for this athlete, swapped in on the spot. */
	swap: { drillId: string; drillVersion: number } | null
	method: Method | null
	/** Over for this athlete by what was said of their body, in words; null while it stands. */
	over: string | null
	/** Why nobody goes on with it here and now, whatever their body: the ground, or the session's end. */
	halted: Halt | null
	finished: boolean
}

/** What stops a line on the spot. */
export interface Halt {
	by: 'ground' | 'end'
	words: string
}

/** @param over why the drill that is done on this line is over for the athlete; what the server says of the line's own drill is known */
export function progressOf(
	whole: FieldLine,
	events: readonly LogEvent[],
	over: string | null = null,
	halted: Halt | null = null,
): LineProgress {
	const own = events.filter(
		(event) => 'lineId' in event && event.entryId === whole.entryId && event.athleteId === whole.athleteId,
	)
	const marks = own.filter((event) => event.type === 'mark').sort(byRep)
	const { dose } = whole
	const planned = dose.sets * dose.reps
	const ended = own.some((event) => event.type === 'decision' && event.kind === 'end-set')
	const judged = judgedLine(whole)
	const swapped = own
		.flatMap((event) => (event.type === 'decision' && event.kind === 'swap' ? [event] : []))
		.sort(byTime)
		.at(-1)
	const swap =
		swapped && (swapped.value.drillId !== judged.drillId || swapped.value.drillVersion !== judged.drillVersion)
			? swapped.value
			: null
	const round = whole.pieces && !swap ? roundOf(whole.pieces, marks) : null
	const line = round ? lineAt(whole, round.piece) : judged
	const sided = line.sided ?? null
	const pieces = round ? whole.pieces! : []
	const ofPiece = (piece: number) => (round ? marks.filter((mark) => pieceOf(pieces, mark) === piece) : marks)
	// Both halves of a rep that is done left and right are one place.
	const turns = round ? round.done : marks.reduce((sum, event) => sum + turnsOfMark(event, sided), 0)
	const taken = Math.floor(turns)
	const next = { setNo: Math.floor(taken / dose.reps) + 1, repNo: (taken % dose.reps) + 1 }
	const ofJudged = ofPiece(pieces.findIndex((piece) => piece.judged) + 1)
	const aRound = whole.pieces?.find((piece) => piece.judged)?.reps ?? 1
	const off = judged.parameters.loadG ? loadOffAt(events, whole) : null
	const isFree = (mark: Mark) => isFreeRep(whole, mark) || (off !== null && Date.parse(mark.deviceTime) > off)
	const last = [...marks].sort(byTime).at(-1)
	const rehearsal = rehearsalOf(events, whole)
	const doneAs = (mark: Mark) => mark.asDrill?.drillId ?? judged.drillId
	const read = ofJudged
		// Below full effort on purpose it is no fall.
		.filter((event) => event.id !== rehearsal)
		.flatMap((event) => {
			const evidence = markEvidence(event, judged.parameters.distanceM)
			return evidence ? [{ event, evidence }] : []
		})
	const evidence = read
		// With the weight and without it are not one stretch.
		.filter(({ event }) => last === undefined || isFree(event) === (off !== null || isFree(last)))
		.filter(({ event }) => doneAs(event) === (swap?.drillId ?? judged.drillId))
		.map((one) => one.evidence)
	const fall = readFall(evidence, judged.dropOffPercent, judged.errors)
	const alike = groupBy(read, ({ event, evidence: { kind, method, side } }) =>
		[kind, method, side, isFree(event), doneAs(event)].join(' '),
	)
	const times = marks.map((event) => Date.parse(event.deviceTime))
	return {
		line,
		marks,
		planned,
		ended,
		swap,
		restS: round
			? restInRound(whole, round, last)
			: restAfter(line.rest[turns % dose.reps === 0 ? 'setsS' : 'repsS'], line, last),
		method: fall?.method ?? null,
		repsDone: ofJudged.reduce((sum, event) => sum + repsOfMark(event, judged.sided ?? null), 0) / aRound,
		next: round ? { ...next, piece: round.piece } : next,
		...(round ? { pieceLeft: round.left } : {}),
		worn: whole.carried && !swap ? off === null && !isFreeRep(whole, next) : null,
		side: sided === 'each' && !swap ? nextSide(line, round ? ofPiece(round.piece) : marks) : null,
		half: round ? round.half : turns % 1 !== 0,
		lastAt: times.length > 0 ? Math.max(...times) : null,
		dropOff: fall?.reading ?? null,
		offBest: new Map([...alike.values()].flatMap(offBestOf)),
		over: swap ? over : (line.over ?? over),
		halted,
		finished: ended || taken >= planned,
	}
}

/** Of marks taken likewise, in order. */
function offBestOf(alike: readonly { event: Mark; evidence: MarkEvidence }[]) {
	const values = alike.map(({ evidence }) => evidence.value)
	const percents = percentsOffBest(values, betterOf(alike[0]!.evidence.kind))
	const best = percents.lastIndexOf(0)
	return alike.map(({ event, evidence }, at): [string, { percent: number; isBest: boolean }] => [
		event.id,
		{ percent: percents[at]!, isBest: evidence.value === values[best] },
	])
}

/**
 * The side whose turn it is: the one with more left of its own dose, else the one that has done less; the left begins.
 * What was ticked off without a side was done on both.
 */
function nextSide(line: FieldLine, marks: readonly Mark[]): Leg {
	const planned = line.dose.sets * line.dose.reps
	const [left, right] = SIDES.map((side) => {
		const own = line.sides?.[side]
		const asked = line.sides === undefined ? planned : own ? own.sets * own.reps : 0
		const done = marks.filter((mark) => mark.side === undefined || mark.side === side)
		return asked - done.reduce((sum, mark) => sum + turnsOfMark(mark), 0)
	}) as [number, number]
	return right > left ? 'right' : 'left'
}

/**
 * A rep that ends its set asks for the rest between sets. A sprint over less than the line's distance asks for
 * its share of the rest; a rep that was not run for none.
 */
function restAfter(restS: number, line: FieldLine, last: Mark | undefined): number {
	if (!last || last.kind === 'missed') return 0
	const ran = last.kind === 'sprint' ? last.value.splits.at(-1)?.distanceM : undefined
	const asked = line.parameters.distanceM
	return ran !== undefined && asked !== undefined && ran < asked ? Math.round((restS * ran) / asked) : restS
}

/** In a complex: between the reps of a piece, between pieces, and between rounds. */
function restInRound(whole: FieldLine, round: Round, last: Mark | undefined): number {
	if (!last) return 0
	const pieces = whole.pieces!
	const was = pieceOf(pieces, last)
	const between = was === round.piece ? pieces[was - 1]!.rest.repsS : whole.rest.repsS
	return restAfter(round.within ? between : whole.rest.setsS, lineAt(whole, was), last)
}

/** Seconds until the rest after what was done is over; 0 is ready. */
export function restLeft(progress: LineProgress, nowMs: number): number {
	if (progress.lastAt === null) return 0
	// A clock that was put right since the rep may stand a little before it: nobody rests longer than the line says.
	const elapsedS = Math.max(0, nowMs - progress.lastAt) / 1000
	return Math.max(0, Math.ceil(progress.restS - elapsedS))
}

/** Whether somebody comes on the line again by themselves: reps left, and nothing that bars it said of their body, the ground or the session. */
export const isNext = ({ finished, over, halted }: Pick<LineProgress, 'finished' | 'over' | 'halted'>): boolean =>
	!finished && over === null && halted === null

/** Whose turn comes after somebody: the next in the order who still has reps, round and round. */
export function nextInQueue(queue: readonly LineProgress[], afterAthleteId: string | null): string | null {
	const at = queue.findIndex((progress) => progress.line.athleteId === afterAthleteId)
	for (let step = 1; step <= queue.length; step++) {
		const candidate = queue[(at + step + queue.length) % queue.length]
		if (candidate && isNext(candidate)) return candidate.line.athleteId
	}
	return null
}

export interface Suggestion {
	lead: string
	rest: string
	endTheSet: boolean
}

/** What the screen says before the next rep: one more, or stop, and why. */
export function suggestionFor(progress: LineProgress): Suggestion {
	const { line, dropOff, repsDone, planned, ended } = progress
	const kind = line.logs === 'done' ? null : line.logs
	const left = Math.max(0, planned - repsDone)
	if (ended)
		return { lead: 'Set ended.', rest: `${repsDone} of ${planned} reps done; that counts as done.`, endTheSet: false }
	if (dropOff && kind && dropOff.stopAfter !== null) {
		const [before, last] = dropOff.percents.slice(dropOff.stopAfter - 2, dropOff.stopAfter)
		return {
			lead: 'End the set.',
			rest: `The last two were ${writePercent(before ?? 0)} and ${writePercent(last ?? 0)} off the best, more than chance; the limit is ${writePercent(line.dropOffPercent)}.`,
			endTheSet: true,
		}
	}
	const piece = progress.next.piece === undefined ? undefined : line.pieces?.[progress.next.piece - 1]
	if (piece && !piece.judged && left > 0)
		return {
			lead: `Round ${progress.next.setNo} of ${planned}.`,
			rest: `${piece.drillName}${piece.reps > 1 ? ` ×${piece.reps}` : ''}; ${inSentence(judgedLine(line).drillName)} is what is judged.`,
			endTheSet: false,
		}
	if (left === 0) return { lead: 'All done.', rest: `${repsDone} of ${planned} reps.`, endTheSet: false }
	if (!dropOff || !kind)
		return {
			lead: repsDone === 0 ? 'First one.' : `${left} to go.`,
			rest: line.target === '' ? 'Nothing to compare with yet.' : `Target: ${line.target}.`,
			endTheSet: false,
		}
	if (dropOff.tooCoarse && progress.method)
		return {
			lead: `${left} to go.`,
			rest: `By ${METHOD_NAMES[progress.method]} tiredness cannot be seen here: the eye decides.`,
			endTheSet: false,
		}
	const off = dropOff.percents.at(-1) ?? 0
	const limit = line.dropOffPercent
	const limitValue = dropOff.best * (1 + ((kind === 'sprint' || kind === 'contact' ? 1 : -1) * limit) / 100)
	const watch = `${dropOff.seesLittle ? 'This method sees little: ' : ''}staying past ${writeMark({ kind, value: limitValue })} ends the set.`
	if (off === 0)
		return {
			lead: 'One more is fine.',
			rest: `${repsDone === 1 ? 'First mark' : 'Best so far'}, ${left} to go. ${capital(watch)}`,
			endTheSet: false,
		}
	if (off >= limit - 1e-9)
		return {
			lead: 'Watch the next one.',
			rest: `${writePercent(off)} off ${writeMark({ kind, value: dropOff.best })}. ${capital(watch)}`,
			endTheSet: false,
		}
	return {
		lead: 'One more is fine.',
		rest: `Within ${writePercent(off)} of the best, ${left} to go. ${capital(watch)}`,
		endTheSet: false,
	}
}
