import type { ErrorObject } from 'ajv'
import {
	OPEN_FORMAT,
	OPEN_KINDS,
	OPEN_SHAPES,
	type OpenKind,
	type OpenMark,
	type OpenRecords,
	noRecords,
} from '../../core/open-data/document'
import { fromRows, kindOfHeading } from '../../core/open-data/tables'
import type { Library } from '../../core/vocabulary/library'
import { FAMILIES } from '../../core/vocabulary/words'
import { type ClubScope, inTransaction } from '../../db/connect'
import { insertAthletes } from '../../db/queries/clubs'
import { readDrills, readLibrary } from '../../db/queries/library'
import { allEntriesOf, attendingKeys, begunSessions, idsThere } from '../../db/queries/open-data'
import { addBatterySession, insertBattery } from '../../db/queries/record'
import { insertAttending, insertEntries, insertLines, insertSession, readLinesById } from '../../db/queries/sessions'
import { addMembers, insertSquad, updateAthleteType, writeLevel } from '../../db/queries/squads'
import type { SignedIn } from '../access/sign-in'
import { isTimeZone } from '../access/join'
import { shapeCheck } from '../check-shape'
import { todayAt } from '../clock'
import { database } from '../database'
import { acceptEvents } from '../log/accept-events'
import { cellsOf } from '../read-cells'

/** What is wrong with a record: of which kind, the how many-th (from 1; 0 is about the whole), where in it, and what. */
export interface OpenProblem {
	kind: OpenKind | null
	record: number
	field: string
	words: string
}
/** What bringing something in would do, kind by kind. */
export interface OpenCount {
	kind: OpenKind
	fresh: number
	/** Of the club already: left as it is. */
	there: number
	/** Lines of a session nobody has begun: the club writes its own. */
	anew: number
}
export interface OpenLook {
	counts: OpenCount[]
	problems: OpenProblem[]
	/** Beyond those that are named. */
	moreProblems: number
}

export const MOST_CHARACTERS = 40_000_000
const MOST_RECORDS = 400_000
/** More are said to be there and not named. */
const NAMED = 50
const CHECKS = Object.fromEntries(OPEN_KINDS.map((kind) => [kind, shapeCheck(OPEN_SHAPES[kind])])) as Record<
	OpenKind,
	ReturnType<typeof shapeCheck<unknown>>
>

type Read = { records: OpenRecords; problems: OpenProblem[] }

/** Records out of files: documents of JSON, and tables of CSV whose heading says what they are. */
export function readOpenFiles(files: readonly { name: string; text: string }[]): Read {
	const records = noRecords()
	const problems: OpenProblem[] = []
	const whole = (words: string, kind: OpenKind | null = null) =>
		void problems.push({ kind, record: 0, field: '', words })
	const add = (kind: OpenKind, values: readonly unknown[]) => {
		const into = records[kind] as unknown[]
		for (const value of values) {
			const check = CHECKS[kind]
			if (check(value)) into.push(value)
			else {
				const error = firstOf(check.errors)
				problems.push({ kind, record: into.length + 1, ...error })
				into.push(value)
			}
		}
	}
	if (files.every(({ text }) => text.trim() === '')) whole('Choose a file first.')
	if (files.reduce((sum, { text }) => sum + text.length, 0) > MOST_CHARACTERS)
		whole(`Files of up to ${MOST_CHARACTERS / 1_000_000} MB are read at once; bring a year at a time.`)
	else
		for (const { name, text } of files) {
			if (text.trim() === '') continue
			if (/^\s*\{/.test(text)) {
				const document = parsed(text)
				if (document === null) whole(`${name} is no JSON.`)
				else if (document.format !== OPEN_FORMAT || document.version !== 1)
					whole(`${name}: a document with "format": "${OPEN_FORMAT}" and "version": 1 is expected.`)
				else
					for (const [key, value] of Object.entries(document)) {
						const kind = OPEN_KINDS.find((one) => one === key)
						if (kind && Array.isArray(value)) add(kind, value)
						else if (key !== 'format' && key !== 'version') whole(`${name}: “${key.slice(0, 40)}” is not known.`)
					}
				continue
			}
			const cells = cellsOf(text, { rows: MOST_RECORDS, trim: false })
			if ('problem' in cells) {
				whole(`${name}: ${cells.problem}`)
				continue
			}
			const [heading = [], ...rows] = cells
			const kind = kindOfHeading(heading)
			if (kind === null) {
				whole(`${name}: the first row is the heading of none of these tables: ${OPEN_KINDS.join(', ')}.`)
				continue
			}
			const read = fromRows(kind, heading, rows)
			for (const { row, column, words } of read.problems)
				problems.push({ kind, record: records[kind].length + row + 1, field: column, words })
			// What cannot be read as a cell is said once: its shape is not looked at too.
			const bad = new Set(read.problems.map(({ row }) => row))
			for (const [index, record] of read.records.entries())
				if (bad.has(index)) (records[kind] as unknown[]).push(record)
				else add(kind, [record])
		}
	return { records, problems }
}

function parsed(text: string): Record<string, unknown> | null {
	try {
		return JSON.parse(text) as Record<string, unknown>
	} catch {
		return null
	}
}
/** What stands deepest in the record, in words: of a union the last error only says that none fits. */
function firstOf(errors: ReturnType<typeof shapeCheck<unknown>>['errors']): { field: string; words: string } {
	const [error] = [...(errors ?? [])].sort((a, b) => b.instancePath.length - a.instancePath.length)
	const field = error?.instancePath.slice(1).replaceAll('/', ', ') ?? ''
	return { field, words: error ? sayError(error) : 'is not understood.' }
}
function sayError({ keyword, params, data, message }: ErrorObject): string {
	const found = data === null || typeof data !== 'object' ? `“${String(data).slice(0, 60)}”: ` : ''
	const said = params as Record<string, unknown>
	switch (keyword) {
		case 'required':
			return `“${String(said.missingProperty)}” is missing.`
		case 'additionalProperties':
			return `“${String(said.additionalProperty)}” is not known.`
		case 'enum':
			return `${found}one of ${(said.allowedValues as string[]).join(', ')} is expected.`
		case 'format':
			return `${found}${said.format === 'date' ? 'a day like 2009-05-31' : 'a moment like 2026-03-14T17:30:00Z'} is expected.`
		case 'type':
			return `${found}a ${String(said.type)} is expected.`
		case 'minimum':
		case 'exclusiveMinimum':
			return `${found}${keyword === 'minimum' ? `${String(said.limit)} or more` : `more than ${String(said.limit)}`} is expected.`
		case 'maximum':
			return `${found}at most ${String(said.limit)} is expected.`
		case 'minLength':
		case 'pattern':
			return `${found}is empty or not written as it should be.`
		default:
			return `${found}${message ?? 'is not understood'}.`
	}
}

interface Plan extends OpenLook {
	fresh: OpenRecords
}

/** What of some records is new, and everything that stands in the way: each names only what is in the files or the club. */
async function lookAt(scope: ClubScope, { records, problems: read }: Read): Promise<Plan> {
	const problems = [...read]
	/** Where in its files a record stands. */
	const places = new Map<object, number>()
	const say: Say = (kind, one, field, words) =>
		void problems.push({ kind, record: (places.get(one) ?? -1) + 1, field, words })
	const library = await readLibrary(scope)
	const fresh = noRecords()
	const counts: OpenCount[] = []
	const there = {} as Record<OpenKind, Set<string>>
	// Records that are no records have been named, and nothing more can be said of them.
	if (problems.length > 0) return { problems, ...named(problems), counts, fresh }
	for (const kind of OPEN_KINDS) {
		const all = records[kind] as { id: string }[]
		there[kind] = await idsThere(
			scope,
			kind,
			all.map(({ id }) => id),
		)
		const news = all.filter(({ id }) => !there[kind].has(id))
		;(fresh[kind] as unknown[]).push(...news)
		const seen = new Set<string>()
		for (const [index, one] of all.entries()) {
			places.set(one, index)
			if (seen.has(one.id)) say(kind, one, 'id', 'stands in the files twice.')
			seen.add(one.id)
		}
		counts.push({ kind, fresh: news.length, there: all.length - news.length, anew: 0 })
	}
	const byId = <T extends { id: string }>(all: readonly T[]): ReadonlyMap<string, T> =>
		new Map(all.map((one) => [one.id, one]))
	const [squads, athletes] = [byId(records.squads), byId(records.athletes)]
	const [sessions, entries] = [byId(records.sessions), byId(records.entries)]
	const begunHere = await begunSessions(scope, [...new Set(records.lines.map(({ sessionId }) => sessionId as string))])
	const hasBegun = (id: string) =>
		there.sessions.has(id) || !sessions.has(id) ? begunHere.has(id) : sessions.get(id)!.begunAt !== null
	/** Ids that must be there, in the files or in the club. */
	const wanted = async (kind: OpenKind, inThem: ReadonlyMap<string, unknown>, ids: readonly string[]) => {
		const missing = [...new Set(ids)].filter((id) => !inThem.has(id))
		const have = await idsThere(scope, kind, missing)
		return (id: string) => inThem.has(id) || have.has(id)
	}
	const hasSquad = await wanted('squads', squads, [
		...fresh.athletes.flatMap((one) => one.squadIds),
		...fresh.sessions.map((one) => one.squadId),
		...fresh.tests.map((one) => one.squadId),
	])
	const hasAthlete = await wanted('athletes', athletes, [
		...fresh.sessions.flatMap((one) => one.athleteIds),
		...fresh.lines.map((one) => one.athleteId),
	])
	const hasSession = await wanted('sessions', sessions, [
		...fresh.entries.map((one) => one.sessionId),
		...fresh.tests.flatMap((one) => one.sessionIds),
	])
	const drills = await readDrills(scope, [
		...fresh.entries.flatMap((one) => [one.drillId, ...(one.pieces ?? []).map(({ drillId }) => drillId)]),
		...fresh.lines.flatMap((one) => (one.drillId === null ? [] : [one.drillId])),
		...fresh.tests.flatMap((one) => one.items.map(({ drillId }) => drillId)),
		...fresh.marks.flatMap((one) => (one.asDrill ? [one.asDrill.drillId] : [])),
	])
	const noDrill = (id: string, version: number) => `“${id}”, version ${version}, is not in this club’s library.`

	for (const one of fresh.squads)
		if (!library.schools[one.schoolId])
			say('squads', one, 'schoolId', `“${one.schoolId}” is not in this club’s library.`)
	for (const one of fresh.athletes)
		if (!one.squadIds.every(hasSquad)) say('athletes', one, 'squadIds', 'names a squad that is in no file.')
	for (const one of fresh.sessions) {
		if (!hasSquad(one.squadId)) say('sessions', one, 'squadId', 'names a squad that is in no file.')
		if (!one.athleteIds.every(hasAthlete)) say('sessions', one, 'athleteIds', 'names somebody who is in no file.')
		if (!isTimeZone(one.timeZone)) say('sessions', one, 'timeZone', `“${one.timeZone}” is no time zone.`)
		if (one.theme !== null && !library.themes[one.theme])
			say('sessions', one, 'theme', `“${one.theme}” is not in this club’s library.`)
		if (one.closedAt !== null && one.begunAt === null)
			say('sessions', one, 'closedAt', 'is said of a session nobody began.')
	}
	for (const one of fresh.entries) {
		if (!hasSession(one.sessionId)) say('entries', one, 'sessionId', 'names a session that is in no file.')
		const drill = drills.get(`${one.drillId}/${one.drillVersion}`)
		if (!drill) say('entries', one, 'drillId', noDrill(one.drillId, one.drillVersion))
		else if (drill.family !== one.family) say('entries', one, 'family', `is “${drill.family}” of this drill.`)
		if (one.ladderId !== null && !library.ladders[one.ladderId])
			say('entries', one, 'ladderId', `“${one.ladderId}” is not in this club’s library.`)
	}
	for (const one of fresh.tests) {
		if (!hasSquad(one.squadId)) say('tests', one, 'squadId', 'names a squad that is in no file.')
		if (!one.sessionIds.every(hasSession)) say('tests', one, 'sessionIds', 'names a session that is in no file.')
		if (one.items.some(({ drillId }) => !library.drills[drillId]))
			say('tests', one, 'items', 'name a drill that is not in this club’s library.')
	}
	const kept = await keepable(scope, fresh, { hasBegun, sessions, entries, hasAthlete, drills, library }, say, noDrill)
	counts.find(({ kind }) => kind === 'lines')!.anew = fresh.lines.length - kept.length
	counts.find(({ kind }) => kind === 'lines')!.fresh = kept.length
	fresh.lines = kept
	const lines = byId(kept)
	await marksFit(scope, fresh.marks, { sessions, lines, drills }, say, noDrill)
	return { problems, ...named(problems), counts, fresh }
}

const named = (problems: readonly OpenProblem[]): Pick<OpenLook, 'moreProblems'> => ({
	moreProblems: Math.max(0, problems.length - NAMED),
})

type Say = (kind: OpenKind, one: object, field: string, words: string) => void

/** Lines that are taken as they are: those of sessions that have begun. What is yet to be done the club writes itself. */
async function keepable(
	scope: ClubScope,
	fresh: OpenRecords,
	{
		hasBegun,
		sessions,
		entries,
		hasAthlete,
		drills,
		library,
	}: {
		hasBegun: (id: string) => boolean
		sessions: ReadonlyMap<string, unknown>
		entries: ReadonlyMap<string, { sessionId: string }>
		hasAthlete: (id: string) => boolean
		drills: Awaited<ReturnType<typeof readDrills>>
		library: Library
	},
	say: Say,
	noDrill: (id: string, version: number) => string,
): Promise<OpenRecords['lines']> {
	const others = new Map(
		(
			await allEntriesOf(
				scope,
				[...new Set(fresh.lines.map(({ sessionId }) => sessionId as string))].filter((id) => !sessions.has(id)),
			)
		).map((row) => [row.id as string, { sessionId: row.sessionId as string }]),
	)
	return fresh.lines.filter((one) => {
		const of = entries.get(one.entryId) ?? others.get(one.entryId)
		if (of?.sessionId !== one.sessionId) say('lines', one, 'entryId', 'names an entry that is not of its session.')
		if (!hasAthlete(one.athleteId)) say('lines', one, 'athleteId', 'names somebody who is in no file.')
		if ((one.drillId === null) !== (one.blocked !== null))
			say('lines', one, 'blocked', 'a line has a drill or says why there is none.')
		if (one.drillId !== null && !drills.has(`${one.drillId}/${one.drillVersion}`))
			say('lines', one, 'drillId', noDrill(one.drillId, one.drillVersion ?? 0))
		if (one.ladderId !== null && !library.ladders[one.ladderId])
			say('lines', one, 'ladderId', `“${one.ladderId}” is not in this club’s library.`)
		return hasBegun(one.sessionId)
	})
}

/** Whether marks hang on lines of the same athlete, entry and session. */
async function marksFit(
	scope: ClubScope,
	marks: readonly OpenMark[],
	{
		sessions,
		lines,
		drills,
	}: {
		sessions: ReadonlyMap<string, OpenRecords['sessions'][number]>
		lines: ReadonlyMap<string, OpenRecords['lines'][number]>
		drills: Awaited<ReturnType<typeof readDrills>>
	},
	say: Say,
	noDrill: (id: string, version: number) => string,
): Promise<void> {
	const elsewhere = new Map(
		(
			await readLinesById(
				scope,
				[...new Set(marks.map(({ lineId }) => lineId as string))].filter((id) => !lines.has(id)),
			)
		).map((row) => [row.id as string, row]),
	)
	const attending = await attendingKeys(scope, [...new Set(marks.map(({ sessionId }) => sessionId as string))])
	for (const one of marks) {
		const line = lines.get(one.lineId) ?? elsewhere.get(one.lineId)
		if (!line) say('marks', one, 'lineId', 'names a line that is in no file, or of a session nobody has begun.')
		else if (line.entryId !== one.entryId || line.sessionId !== one.sessionId || line.athleteId !== one.athleteId)
			say('marks', one, 'lineId', 'names a line of another entry, session or athlete.')
		else if (
			!sessions.get(one.sessionId)?.athleteIds.includes(one.athleteId) &&
			!attending.has(`${one.sessionId}/${one.athleteId}`)
		)
			say('marks', one, 'athleteId', 'is not down for this session.')
		if (one.asDrill && !drills.has(`${one.asDrill.drillId}/${one.asDrill.drillVersion}`))
			say('marks', one, 'asDrill', noDrill(one.asDrill.drillId, one.asDrill.drillVersion))
		if (one.replacesId || one.void) say('marks', one, 'replacesId', 'only marks that stand are brought in.')
	}
}

/** What bringing files in would do; nothing is written. */
export async function lookAtOpenFiles(
	scope: ClubScope,
	files: readonly { name: string; text: string }[],
): Promise<OpenLook> {
	const { counts, problems, moreProblems } = await lookAt(scope, readOpenFiles(files))
	return { counts, problems: problems.slice(0, NAMED), moreProblems }
}

/**
 * Brings files in, all of them or nothing: what the club has stays as it is. Marks go through the log like any other, a
 * batch at a time; a process that ends between two leaves the rest to the same files brought in again.
 */
export async function takeOpenFiles(
	who: SignedIn,
	files: readonly { name: string; text: string }[],
	now: Date,
): Promise<OpenLook> {
	return takeRecords(who, readOpenFiles(files), now)
}

/** The same of records that are none of a file's. */
export async function takeRecords(who: SignedIn, read: Read, now: Date): Promise<OpenLook> {
	const today = todayAt(who.timeZone, now)
	const { fresh, counts, problems, moreProblems } = await inTransaction(database().db, who.clubId, async (scope) => {
		const plan = await lookAt(scope, read)
		if (plan.problems.length === 0) await write(scope, who, plan.fresh, today, now)
		return plan
	})
	if (problems.length > 0) return { counts, problems: problems.slice(0, NAMED), moreProblems }
	for (let from = 0; from < fresh.marks.length; from += BATCH) {
		const some = fresh.marks.slice(from, from + BATCH)
		for (const [index, answer] of (await acceptEvents(who, some, now)).entries())
			if (answer.outcome === 'refused')
				problems.push({ kind: 'marks', record: from + index + 1, field: answer.field, words: answer.reason })
	}
	return { counts, problems: problems.slice(0, NAMED), moreProblems: Math.max(0, problems.length - NAMED) }
}
const BATCH = 500

async function write(scope: ClubScope, who: SignedIn, fresh: OpenRecords, today: string, now: Date): Promise<void> {
	for (const one of fresh.squads) await insertSquad(scope, one)
	await insertAthletes(
		scope,
		fresh.athletes.map(({ id, name, born, legLengthM, massKg, contact }) => ({
			id,
			name,
			birthDate: born,
			legLengthMm: legLengthM === null ? null : Math.round(legLengthM * 1000),
			massKg,
			emergencyContact: contact,
			createdAt: now,
		})),
	)
	for (const { id, type, levels } of fresh.athletes) {
		if (type !== null) await updateAthleteType(scope, id, type)
		for (const family of FAMILIES) if (levels[family]) await writeLevel(scope, id, family, levels[family])
	}
	for (const squadId of new Set(fresh.athletes.flatMap(({ squadIds }) => squadIds)))
		await addMembers(
			scope,
			squadId,
			fresh.athletes.filter(({ squadIds }) => squadIds.includes(squadId)).map(({ id }) => id),
			today,
		)
	for (const { begunAt, closedAt, athleteIds, ...one } of fresh.sessions) {
		await insertSession(scope, {
			...one,
			startedAt: begunAt === null ? null : new Date(begunAt),
			reviewedAt: closedAt === null ? null : new Date(closedAt),
		})
		if (athleteIds.length > 0) await insertAttending(scope, one.id, athleteIds)
	}
	for (let from = 0; from < fresh.entries.length; from += BATCH)
		await insertEntries(
			scope,
			fresh.entries.slice(from, from + BATCH).map(({ off, ...one }) => ({ ...one, retired: off })),
		)
	for (let from = 0; from < fresh.lines.length; from += BATCH)
		await insertLines(
			scope,
			fresh.lines
				.slice(from, from + BATCH)
				.map(({ handSet, writtenAt, change, sides, pieces, carried, aid, ...one }) => ({
					...one,
					origin: handSet ? ('hand-set' as const) : ('resolved' as const),
					change: change as never,
					sides: sides ?? null,
					pieces: pieces ?? null,
					carried: carried ?? null,
					aid: aid ?? null,
					createdAt: new Date(writtenAt),
				})),
		)
	for (const { sessionIds, off, items, ...one } of fresh.tests) {
		await insertBattery(scope, { ...one, items: items as never, retired: off, madeBy: who.personId, madeAt: now })
		for (const sessionId of sessionIds) await addBatterySession(scope, one.id, sessionId)
	}
}
