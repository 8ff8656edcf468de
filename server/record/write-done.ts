import { v7 as newId } from 'uuid'
import { slotsOf, valueOf } from '../../core/field/slots'
import type { FieldLine } from '../../core/field/pack'
import type { Units } from '../../core/words/units'
import { readTyped, retyped } from '../../core/field/typed-mark'
import { asBefore } from '../../core/field/session/moves'
import { type Draft, type Write, stampWrite } from '../../core/field/session/writes'
import type { LogEvent, Mark } from '../../core/vocabulary/events'
import { ON_PAPER } from '../../core/record/on-paper'
import { type Leg, METHODS_OF } from '../../core/vocabulary/words'
import { eventsById } from '../../db/queries/log'
import { readSquad } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { scopeOf } from '../database'
import { told } from '../field/read-pack'
import { acceptEvents } from '../log/accept-events'
import { readSheet } from '../sheet/read-sheet'
import { fieldLines } from './read-done'

/** What became of a change: a sentence where it was not taken. */
export type Changed = { changed: number } | { problem: string }

/** Sends what was written at a desk, as one batch: a person's desk counts as one device. */
export const sendFromDesk = (who: SignedIn, sessionId: string, writes: readonly Write[], now: Date) =>
	acceptEvents(
		who,
		writes.map((write, deviceSeq) =>
			stampWrite(write, {
				id: newId() as LogEvent['id'],
				sessionId: sessionId as LogEvent['sessionId'],
				deviceId: who.personId as LogEvent['deviceId'],
				deviceSeq,
				deviceTime: now.toISOString(),
			}),
		),
		now,
	)

/** The same, all of it or a sentence. */
async function writeAtDesk(who: SignedIn, sessionId: string, writes: readonly Write[], now: Date): Promise<Changed> {
	const answers = await sendFromDesk(who, sessionId, writes, now)
	const refused = answers.find((answer) => answer.outcome === 'refused')
	return refused?.outcome === 'refused' ? { problem: `Not taken: ${refused.reason}.` } : { changed: answers.length }
}

/** A mark of the session by its id, without what the server keeps beside it; null for another's. */
async function markOf(who: SignedIn, sessionId: string, id: string): Promise<Mark | null> {
	const scope = scopeOf(who.clubId)
	const [stored] = await eventsById(scope, [id])
	if (stored?.type !== 'mark' || stored.sessionId !== sessionId) return null
	const [mark] = await told(scope, [stored])
	return mark as Mark
}

/** Takes a mark back, or brings one back that was taken back. */
export async function takeBack(who: SignedIn, sessionId: string, id: string, now: Date): Promise<Changed | null> {
	const mark = await markOf(who, sessionId, id)
	return mark && !mark.void ? writeAtDesk(who, sessionId, [{ takeBack: mark }], now) : null
}
export async function bringBack(who: SignedIn, sessionId: string, id: string, now: Date): Promise<Changed | null> {
	const gone = await markOf(who, sessionId, id)
	const before = gone?.void && gone.replacesId ? await markOf(who, sessionId, gone.replacesId) : null
	return gone && before ? writeAtDesk(who, sessionId, [{ correct: gone, change: asBefore(before, gone) }], now) : null
}

/** The open lines of a session; null for a stranger's. */
async function linesOf(who: SignedIn, sessionId: string): Promise<FieldLine[] | null> {
	const scope = scopeOf(who.clubId)
	const sheet = await readSheet(scope, sessionId)
	const squad = sheet && (await readSquad(scope, sheet.session.squadId))
	const school = squad && sheet.library.schools[squad.schoolId]
	return sheet && school ? fieldLines(sheet, school) : null
}

/** The mark was somebody else's: on their line of the same drill. */
export async function giveTo(
	who: SignedIn,
	sessionId: string,
	id: string,
	athleteId: string,
	now: Date,
): Promise<Changed | null> {
	const mark = await markOf(who, sessionId, id)
	const line = (await linesOf(who, sessionId))?.find(
		(one) => one.entryId === mark?.entryId && one.athleteId === athleteId,
	)
	if (!mark || mark.void || !line) return null
	const change = { athleteId: line.athleteId, lineId: line.id } as Partial<LogEvent>
	return writeAtDesk(who, sessionId, [{ correct: mark, change }], now)
}

/**
 * Another number in the place of a mark's, typed as on the phone.
 *
 * @param typed one for each number the mark has, in the unit it is typed in
 */
export async function correctMark(
	who: SignedIn,
	sessionId: string,
	id: string,
	typed: readonly string[],
	now: Date,
): Promise<Changed | null> {
	const mark = await markOf(who, sessionId, id)
	const line = (await linesOf(who, sessionId))?.find(
		(one) => one.entryId === mark?.entryId && one.athleteId === mark?.athleteId,
	)
	if (!mark || mark.void || mark.asDrill || !line) return null
	const change = retyped(line, mark, typed, who.units)
	if (change === null) return { problem: 'A number is expected, such as 3.02 or 302.' }
	return writeAtDesk(who, sessionId, [{ correct: mark, change }], now)
}

/**
 * A word written afterwards: about the session, an athlete, or what an athlete did on a drill; that comes back when
 * they do the drill the next time.
 *
 * @param entryId empty where it is about no drill
 */
export async function addNote(
	who: SignedIn,
	sessionId: string,
	{ athleteId, entryId, text }: { athleteId: string; entryId: string; text: string },
	now: Date,
): Promise<Changed | null> {
	const said = text.trim()
	if (said === '') return { problem: 'Write what is to be remembered.' }
	if (said.length > 1000) return { problem: 'A note has at most 1000 characters.' }
	const lines = await linesOf(who, sessionId)
	if (!lines) return null
	const note = (about: string, place: object) =>
		({ ...place, type: 'observation', kind: 'note', value: { about, text: said } }) as Draft
	if (athleteId === '') {
		if (entryId !== '') return { problem: 'Pick the athlete whose drill it is about.' }
		return writeAtDesk(who, sessionId, [{ add: note('session', { athleteId: null }) }], now)
	}
	if (entryId === '') return writeAtDesk(who, sessionId, [{ add: note('athlete', { athleteId }) }], now)
	const line = lines.find((one) => one.entryId === entryId && one.athleteId === athleteId)
	return line
		? writeAtDesk(who, sessionId, [{ add: note('drill', { athleteId, entryId, lineId: line.id }) }], now)
		: { problem: 'They have no line on that drill.' }
}

/** A cell of the paper grid: which line, which rep, and what was typed. */
export interface Cell {
	lineId: string
	setNo: number
	repNo: number
	/** Where each side has its own reps. */
	side?: Leg | null
	typed: string
}

/** A cell by its place: "line/set/rep", with the side where it has one. */
const cellKey = ({ lineId, setNo, repNo, side }: Omit<Cell, 'typed'>): string =>
	[lineId, setNo, repNo, ...(side ? [side] : [])].join('/')

/**
 * Marks from paper, all of them or none. An empty cell is none; of a contact two numbers are typed, contact and flight;
 * of a drill that is judged by eye the reps of a set.
 *
 * @param method how they were taken
 * @returns what cannot be read, by "line/set/rep" or "line/set/rep/side"; null for a stranger's session
 */
export async function addFromPaper(
	who: SignedIn,
	sessionId: string,
	cells: readonly Cell[],
	method: string,
	now: Date,
): Promise<Changed | { cells: Record<string, string> } | null> {
	const lines = await linesOf(who, sessionId)
	if (!lines) return null
	const byId = new Map(lines.map((line) => [line.id, line]))
	const problems: Record<string, string> = {}
	const drafts = cells
		.filter(({ typed }) => typed.trim() !== '')
		.flatMap((cell): Draft[] => {
			const read = readCell(cell, byId.get(cell.lineId), method, who.units)
			if ('problem' in read) problems[cellKey(cell)] = read.problem
			return 'draft' in read ? [read.draft] : []
		})
	if (Object.keys(problems).length > 0) return { cells: problems }
	if (drafts.length === 0) return { problem: 'Nothing was typed.' }
	return writeAtDesk(
		who,
		sessionId,
		drafts.map((add) => ({ add })),
		now,
	)
}

function readCell(
	{ setNo, repNo, side = null, typed }: Cell,
	line: FieldLine | undefined,
	method: string,
	units: Units,
): { draft: Draft } | { problem: string } {
	if (!line) return { problem: 'no such line' }
	if ((line.sided === 'each') !== (side !== null)) return { problem: 'left or right' }
	const place = {
		athleteId: line.athleteId,
		entryId: line.entryId,
		lineId: line.id,
		setNo,
		repNo,
		...(side ? { side } : {}),
		type: 'mark',
	}
	if (line.logs === 'done') {
		const reps = Number(typed.trim())
		return /^\d{1,3}$/.test(typed.trim()) && reps > 0
			? { draft: { ...place, kind: 'done', value: { reps } } as Draft }
			: { problem: 'whole reps' }
	}
	const slots = slotsOf(line, [])
	// One number may have spaces in it: "8 ft 2 in".
	const parts = slots.length > 1 ? typed.trim().split(/[\s/;]+/) : [typed]
	const reads = slots.map((slot, index) => readTyped(parts[index] ?? '', slot, line, units))
	if (parts.length !== slots.length || reads.some((read) => read === null))
		return { problem: slots.length > 1 ? 'two numbers, as 146 512' : 'a number, as 302' }
	const known: readonly string[] = METHODS_OF[line.logs]
	const taken = known.includes(method) ? method : ON_PAPER[line.logs]
	const methods = { sprint: taken, contact: taken, height: taken, distance: taken }
	return { draft: { ...place, ...valueOf(line, slots, reads, methods) } as Draft }
}
