import { setImmediate as breathe } from 'node:timers/promises'
import { v7 as newId } from 'uuid'
import { addDays, isBefore } from '../../core/calendar/day-count'
import { dayInZone } from '../../core/calendar/days'
import { NO_REST, type Rest } from '../../core/vocabulary/dose'
import type { Ladder } from '../../core/vocabulary/ladder'
import type { Library } from '../../core/vocabulary/library'
import { type SheetAthlete, resolveSheet } from '../../core/plan/resolve-sheet'
import { type ResolvedLine, sameLine } from '../../core/judge/resolve-line'
import type { PlannedLine } from '../../core/vocabulary/line'
import { writeWork } from '../../core/words/write-work'
import type { ClubScope } from '../../db/connect'
import {
	type EntryRow,
	type LineRow,
	type SessionRow,
	insertLines,
	lastOnLadders,
	linesOf,
	readAttending,
	readEntries,
	readLines,
	writeLinesFor,
	writeWouldBe,
} from '../../db/queries/sessions'
import { type AthleteRow, type SquadRow, type readLevels, type readStates, stateKey } from '../../db/queries/squads'
import { type LatestVerdict, latestVerdicts } from '../../db/queries/verdicts'
import type { LineChange } from '../../db/schema/sessions'
import type { Concluded } from '../../core/permit/known'
import { concludeFor } from '../../core/permit/plain-facts'

import { afterStep, permitWork } from '../../core/plan/permit-line'
import { groupBy } from '../../core/lists/group-by'
import { factsOf } from '../facts/read-facts'
import { type Records, type RecordsOfDays, readRecordsOfDays } from '../facts/records'
import { plannedOf } from './planned-of'

/** "Depth jump 30 cm, 5×2" */
export function writeLine(line: PlannedLine | null, library: Library): string {
	return line && library.drills[line.drillId] ? writeWork(line, (id) => library.drills[id]) : 'no line'
}

/**
 * Writes each athlete's own line for every entry of an unstarted session, as new versions where
 * something changed. A hand-set line stays and says what would have changed; a closed region
 * overrides both.
 */
export const writeLines = (
	scope: ClubScope,
	session: SessionRow,
	squad: SquadRow,
	library: Library,
	now: Date,
): Promise<void> => writeSheets(scope, [{ session, squad }], library, now)

/** A session nobody has begun with the squad whose school it goes by. */
export interface SquadSession {
	session: SessionRow
	squad: SquadRow
}

/**
 * The same for many sessions, the earliest first: what is written for one counts for the next. Everything is read at
 * once and written at once, however many they are.
 *
 * @param only whose lines are written; everybody's where it is not said
 */
export async function writeSheets(
	scope: ClubScope,
	sheets: readonly SquadSession[],
	library: Library,
	now: Date,
	only?: ReadonlySet<string>,
): Promise<void> {
	// Nearly always one: sessions ahead are held by the clock of the club.
	const todays = groupBy(sheets, ({ session }) => dayInZone(now.toISOString(), session.timeZone))
	for (const [today, own] of todays) {
		const ids = own.map(({ session }) => session.id)
		const attending = groupBy(await readAttending(scope, ids), ({ sessionId }) => sessionId)
		const entries = groupBy(await readEntries(scope, ids), ({ sessionId }) => sessionId)
		const everybody = [...new Set([...attending.values()].flat().map(({ athleteId }) => athleteId))]
		const athleteIds = only ? everybody.filter((id) => only.has(id)) : everybody
		const days = own.map(({ session }) => session.day).sort()
		const records = await readRecordsOfDays(scope, athleteIds, days[0]!, days.at(-1)!, today)
		const writer = await readSheetWriter(scope, { ids, days }, athleteIds, records, library, now, only)
		for (const { session, squad } of inOrder(own)) {
			writer.resolve(
				session,
				squad,
				entries.get(session.id) ?? [],
				(attending.get(session.id) ?? []).map(({ athleteId }) => athleteId),
			)
			// Others are answered between the sessions.
			await breathe()
		}
		await writer.write()
		// Of some alone it is not the whole sheet that is of today.
		if (!only) await writeLinesFor(scope, ids, today)
	}
}
const inOrder = (sheets: readonly SquadSession[]): SquadSession[] =>
	[...sheets].sort(({ session: a }, { session: b }) => (isBefore(a, b) ? -1 : 1))

/** Works out the lines of one session after another, and writes them all in the end. */
export interface SheetWriter {
	/** @returns the lines that stand on the sheet now, of those whose lines are written */
	resolve: (
		session: SessionRow,
		squad: SquadRow,
		entries: readonly EntryRow[],
		attending: readonly string[],
	) => LineRow[]
	write: () => Promise<void>
}

/** Days of lines before a session among which the last one is looked for. */
const BEFORE_DAYS = 60

/**
 * @param sessions whose lines are written: the ids of those that are stored already, and the days of all
 * @param athleteIds everybody whose lines are written
 * @param records of the span of those days; told of every sheet
 * @param only set where it is not everybody on the sheets
 */
export async function readSheetWriter(
	scope: ClubScope,
	{ ids, days }: { ids: string[]; days: readonly string[] },
	athleteIds: string[],
	records: RecordsOfDays,
	library: Library,
	now: Date,
	only?: ReadonlySet<string>,
): Promise<SheetWriter> {
	const [first, last] = [[...days].sort()[0] ?? records.today, [...days].sort().at(-1) ?? records.today]
	const existing = groupBy(await readLines(scope, ids, only && athleteIds), ({ sessionId }) => sessionId)
	const verdicts = await latestVerdicts(scope, athleteIds, [...new Set(days)])
	const before = groupBy(
		[
			...(await lastOnLadders(scope, athleteIds, addDays(first, -BEFORE_DAYS), first)),
			...(await linesOf(scope, athleteIds, first, last)),
		],
		({ line }) => line.athleteId,
	)
	const fresh: LineRow[] = []
	const superseded: string[] = []
	const wouldBe: { id: string; words: string | null }[] = []
	const keep = (row: LineRow, words: string | null): LineRow => {
		if (row.wouldBe !== words) wouldBe.push({ id: row.id, words })
		return row
	}
	return {
		resolve: (session, squad, entries, attending) => {
			const writing = new Set(only ? attending.filter((id) => only.has(id)) : attending)
			const own = records.on(session.day)
			const facts = factsOf(own, session, squad, library, writing)
			const reasons = new Map(
				(verdicts.get(session.day) ?? []).map((row) => [stateKey(row.athleteId, row.ladderId), row]),
			)
			const since = addDays(session.day, -BEFORE_DAYS)
			const stand: LineRow[] = []
			for (const athlete of own.athletes.filter(({ id }) => writing.has(id))) {
				const rows = (existing.get(session.id) ?? []).filter((row) => row.athleteId === athlete.id)
				const earlier = (before.get(athlete.id) ?? []).filter(
					(row) => row.session.day >= since && row.session.day <= session.day,
				)
				const handSet = new Map(
					rows.flatMap((row) => {
						const planned = row.origin === 'hand-set' ? plannedOf(row) : null
						return planned ? [[row.entryId, planned] as const] : []
					}),
				)
				const plain = concludeFor(facts.get(athlete.id)!, library)
				const sheet = linesFor(session, entries, athlete, own, squad, plain, library, earlier, handSet)
				for (const entry of entries) {
					const resolved = sheet.lines.get(entry.id)!
					const was = rows.find((row) => row.entryId === entry.id)
					const line = handSet.get(entry.id)
					// A line set by hand stands as long as nothing but cautions, which were answered then, speaks against it.
					if (was && line && resolved.blocked === null && handSetStands(line, sheet.concluded)) {
						stand.push(keep(was, sameLine(line, resolved) ? null : writeLine(resolved, library)))
						continue
					}
					const change =
						entry.ladderId === null
							? null
							: changeOf(
									lastBefore(earlier, session, athlete.id, entry.ladderId),
									resolved,
									reasons.get(stateKey(athlete.id, entry.ladderId)),
									library,
								)
					const row = rowOf(scope.clubId, session, entry, athlete.id, (was?.version ?? 0) + 1, resolved, change, now)
					if (was && sameRow(was, row)) {
						stand.push(was)
						continue
					}
					if (was) superseded.push(was.id)
					fresh.push(row)
					stand.push(row)
				}
				before.set(athlete.id, [
					...(before.get(athlete.id) ?? []).filter((row) => row.session.id !== session.id),
					...stand.filter((line) => line.athleteId === athlete.id).map((line) => ({ line, session })),
				])
			}
			// Somebody taken off the list keeps the old versions, but none of them stands.
			for (const row of existing.get(session.id) ?? [])
				if (!attending.includes(row.athleteId) || !entries.some((entry) => entry.id === row.entryId))
					superseded.push(row.id)
			records.wear(session, writing, new Set(stand.filter(wearsWeight).map(({ athleteId }) => athleteId)))
			return stand
		},
		write: async () => {
			await insertLines(scope, fresh, superseded)
			for (const { id, words } of wouldBe) await writeWouldBe(scope, id, words)
		},
	}
}
const wearsWeight = ({ blocked, parameters }: LineRow): boolean => blocked === null && (parameters.loadG ?? 0) > 0

/**
 * The lines one athlete gets on a sheet by what is known of them, and what is known after the steps of an earlier
 * session of the day.
 *
 * @param before lines of the athlete up to the session's day, those of that day among them
 */
export function linesFor(
	session: SessionRow,
	entries: readonly EntryRow[],
	athlete: AthleteRow,
	{ levelOf, states }: Pick<Records, 'levelOf' | 'states'>,
	squad: SquadRow,
	plain: Concluded,
	library: Library,
	before: { line: LineRow; session: SessionRow }[],
	handSet: ReadonlyMap<string, PlannedLine> = new Map(),
): { concluded: Concluded; lines: Map<string, ResolvedLine> } {
	const walked = stepsBefore(before, session, athlete.id, library)
	const concluded = walked.reduce(afterStep, plain)
	const lines = resolveSheet(entries, sheetAthleteOf(athlete, levelOf, states, squad, concluded), library, handSet)
	return { concluded, lines: new Map([...lines].map(([id, line]) => [id, notAgain(line, walked, library)])) }
}

/** Paths of which an earlier session of the same day has a step already: each is written once a day. */
function stepsBefore(
	lines: { line: LineRow; session: SessionRow }[],
	{ id, day, startTime }: SessionRow,
	athleteId: string,
	{ ladders }: Library,
): string[] {
	return lines.flatMap(({ line, session }) => {
		const earlier = session.id !== id && session.day === day && session.startTime < startTime
		if (!earlier || line.athleteId !== athleteId || line.blocked !== null) return []
		return Object.values(ladders)
			.filter((ladder) => ladder.path !== undefined && hasStep(ladder, line))
			.map(({ id: path }) => path)
	})
}
const hasStep = ({ rungs }: Ladder, line: { rungId: string | null; drillId: string | null }): boolean =>
	rungs.some((rung) => rung.id === line.rungId && rung.drillId === line.drillId)

/** What was a step this morning is low work in the evening, where it is low: it is not called the step again. */
const notAgain = (line: ResolvedLine, walked: readonly string[], { ladders }: Library): ResolvedLine =>
	line.blocked === null && walked.some((path) => ladders[path] && hasStep(ladders[path], line))
		? { ...line, rungId: null }
		: line

/** An athlete as the sheet is resolved for. */
function sheetAthleteOf(
	athlete: AthleteRow,
	levelOf: Awaited<ReturnType<typeof readLevels>>,
	states: Awaited<ReturnType<typeof readStates>>,
	squad: SquadRow,
	concluded: Concluded,
): SheetAthlete {
	return {
		id: athlete.id,
		legLengthM: athlete.legLengthM,
		levelOf: (family) => levelOf(athlete.id, family),
		stateOf: (ladderId) => states.get(stateKey(athlete.id, ladderId))?.state ?? null,
		concluded,
		kept: (ladderId) => squad.focus?.[ladderId] === 'kept',
	}
}

function lastBefore(
	lines: { line: LineRow; session: SessionRow }[],
	session: SessionRow,
	athleteId: string,
	ladderId: string,
): LineRow | null {
	const started = lines.filter(
		(row) =>
			row.line.athleteId === athleteId &&
			row.line.ladderId === ladderId &&
			row.session.startedAt !== null &&
			row.session.id !== session.id,
	)
	return started.at(-1)?.line ?? null
}

function changeOf(
	previous: LineRow | null,
	resolved: ResolvedLine,
	verdict: LatestVerdict | undefined,
	library: Library,
): LineChange | null {
	const was = previous && plannedOf(previous)
	if (
		!previous ||
		(resolved.blocked === null && was && sameLine(was, resolved)) ||
		(resolved.blocked !== null && previous.blocked !== null)
	)
		return null
	const to = resolved.blocked ?? writeLine(resolved, library)
	const note = resolved.blocked === null ? resolved.note : null
	if (note) {
		const said = `${note.charAt(0).toUpperCase()}${note.slice(1)}.`
		// A step up has its own reason, beside what the day makes of its dose.
		const moved =
			verdict?.decided === 'advance' && resolved.blocked === null && verdict.judgement.next.rungId === resolved.rungId
		return {
			// Who went up a rung and does not do it that day has no step up on the line.
			verdict: verdict?.decided === 'advance' && !moved ? null : (verdict?.decided ?? null),
			from: writeLine(was, library),
			to,
			why: moved && was?.rungId !== resolved.rungId ? `${verdict.sentence} ${said}` : said,
			firmness: 'our setting',
			rule: moved ? verdict.judgement.decidedBy : null,
		}
	}
	// A verdict that gives a dose would speak against the reason why nothing of it is done.
	const isLeftOut = resolved.blocked !== null && verdict?.decided !== 'stop' && verdict?.decided !== 'swap'
	if (!verdict || isLeftOut)
		return {
			verdict: null,
			from: writeLine(was, library),
			to,
			why: isLeftOut ? 'Left out this time.' : 'The sheet asks for another dose this time.',
			firmness: 'our setting',
			rule: null,
		}
	const why = verdict.reason ? `${verdict.sentence} The coach decided: ${verdict.reason}` : verdict.sentence
	const { firmness, decidedBy } = verdict.judgement
	return { verdict: verdict.decided, from: writeLine(was, library), to, why, firmness, rule: decidedBy }
}

function rowOf(
	clubId: string,
	session: SessionRow,
	entry: EntryRow,
	athleteId: string,
	version: number,
	resolved: ResolvedLine,
	change: LineChange | null,
	now: Date,
): LineRow {
	const common = {
		clubId,
		id: newId(),
		sessionId: session.id,
		entryId: entry.id,
		athleteId,
		version,
		current: true,
		origin: 'resolved' as const,
		change,
		wouldBe: null,
		createdAt: now,
	}
	if (resolved.blocked !== null)
		return {
			...common,
			blocked: resolved.blocked,
			drillId: null,
			drillVersion: null,
			ladderId: resolved.ladderId,
			rungId: null,
			dose: { sets: 0, reps: 0 },
			parameters: {},
			rest: NO_REST,
			sides: null,
			pieces: null,
			carried: null,
			aid: null,
		}
	const { note: _note, ...line } = resolved
	return { ...common, sides: null, pieces: null, carried: null, aid: null, ...line }
}

const sameRest = (a: Rest, b: Rest): boolean => a.repsS === b.repsS && a.setsS === b.setsS
function sameRow(a: LineRow, b: LineRow): boolean {
	const [lineA, lineB] = [plannedOf(a), plannedOf(b)]
	const sameWork = lineA && lineB ? sameLine(lineA, lineB) && sameRest(lineA.rest, lineB.rest) : lineA === lineB
	return sameWork && a.blocked === b.blocked && JSON.stringify(a.change) === JSON.stringify(b.change)
}

/** A line a coach sets by hand; it survives every later resolution. */
export async function setLineByHand(
	scope: ClubScope,
	last: LineRow,
	dose: LineRow['dose'],
	parameters: LineRow['parameters'],
	now: Date,
): Promise<void> {
	await insertLines(
		scope,
		[
			{
				...last,
				id: newId(),
				version: last.version + 1,
				origin: 'hand-set',
				dose,
				parameters,
				wouldBe: null,
				createdAt: now,
			},
		],
		[last.id],
	)
}

/** Whether no block speaks against a line that was set by hand. */
function handSetStands(line: PlannedLine, concluded: Concluded): boolean {
	const { yes, findings } = permitWork(concluded, line)
	return yes || findings.every((finding) => finding.tier === 'caution')
}
