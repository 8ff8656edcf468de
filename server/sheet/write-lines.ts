import { v7 as newId } from 'uuid'
import { addDays } from '../../core/calendar/day-count'
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
	linesOf,
	readAttending,
	readEntries,
	readLines,
	updateSession,
	writeWouldBe,
} from '../../db/queries/sessions'
import { type AthleteRow, type SquadRow, type readLevels, type readStates, stateKey } from '../../db/queries/squads'
import { latestVerdicts } from '../../db/queries/verdicts'
import type { LineChange } from '../../db/schema/sessions'
import type { Concluded } from '../../core/permit/known'
import { concludeFor } from '../../core/permit/plain-facts'

import { afterStep, permitWork } from '../../core/plan/permit-line'
import { type Standing, factsOf, readRecords } from '../facts/read-facts'
import { plannedOf } from './planned-of'

/** "Depth jump 30 cm, 5×2" */
export function writeLine(line: PlannedLine | null, library: Library): string {
	return line && library.drills[line.drillId] ? writeWork(line, (id) => library.drills[id]) : 'no line'
}

/**
 * Writes each athlete's own line for every entry of an unstarted session, as new versions where
 * something changed. A hand-set line stays and says what would have changed; a closed region
 * overrides both.
 *
 * @param standing what was read already of everybody whose lines are written, for many sessions at once
 * @param only whose lines are written; everybody's where it is not said
 */
export async function writeLines(
	scope: ClubScope,
	session: SessionRow,
	squad: SquadRow,
	library: Library,
	now: Date,
	{ standing, only }: { standing?: Standing; only?: ReadonlySet<string> } = {},
): Promise<void> {
	const everybody = (await readAttending(scope, [session.id])).map((row) => row.athleteId)
	const athleteIds = only ? everybody.filter((id) => only.has(id)) : everybody
	const today = dayInZone(now.toISOString(), session.timeZone)
	const records = await readRecords(scope, athleteIds, session.day, today, standing)
	const attending = new Set(athleteIds)
	const athletes = records.athletes.filter(({ id }) => attending.has(id))
	const entries = await readEntries(scope, [session.id])
	const existing = await readLines(scope, [session.id])
	const verdicts = new Map(
		(await latestVerdicts(scope, athleteIds, session.day)).map((row) => [stateKey(row.athleteId, row.ladderId), row]),
	)
	const before = await linesOf(scope, athleteIds, addDays(session.day, -60), session.day)
	const facts = factsOf(records, session, squad, library, attending)

	const fresh: (typeof existing)[number][] = []
	const superseded: string[] = []
	for (const athlete of athletes) {
		const own = existing.filter((row) => row.athleteId === athlete.id)
		const handSet = new Map(
			own.flatMap((row) => {
				const planned = row.origin === 'hand-set' ? plannedOf(row) : null
				return planned ? [[row.entryId, planned] as const] : []
			}),
		)
		const { concluded, lines: resolvedLines } = linesFor(
			session,
			entries,
			athlete,
			records,
			squad,
			concludeFor(facts.get(athlete.id)!, library),
			library,
			before,
			handSet,
		)
		for (const entry of entries) {
			const resolved = resolvedLines.get(entry.id)!
			const last = own.find((row) => row.entryId === entry.id)
			const line = handSet.get(entry.id)
			// A line set by hand stands as long as nothing but cautions, which were answered then, speaks against it.
			if (last && line && resolved.blocked === null && handSetStands(line, concluded)) {
				const differs = !sameLine(line, resolved)
				await writeWouldBe(scope, last.id, differs ? writeLine(resolved, library) : null)
				continue
			}
			const previous = entry.ladderId === null ? null : lastBefore(before, session, athlete.id, entry.ladderId)
			const change =
				entry.ladderId === null
					? null
					: changeOf(previous, resolved, verdicts.get(stateKey(athlete.id, entry.ladderId)), library)
			const row = rowOf(scope.clubId, session, entry, athlete.id, (last?.version ?? 0) + 1, resolved, change, now)
			if (last && sameRow(last, row)) continue
			if (last) superseded.push(last.id)
			fresh.push(row)
		}
	}
	// Somebody taken off the list keeps the old versions, but none of them stands.
	for (const row of existing)
		if (!everybody.includes(row.athleteId) || !entries.some((entry) => entry.id === row.entryId))
			superseded.push(row.id)
	await insertLines(scope, fresh, superseded)
	// Of some alone it is not the whole sheet that is of today.
	if (!only) await updateSession(scope, session.id, { linesFor: today })
}

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
	{ levelOf, states }: Pick<Awaited<ReturnType<typeof readRecords>>, 'levelOf' | 'states'>,
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

type LatestVerdict = Awaited<ReturnType<typeof latestVerdicts>>[number]

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
	if (!verdict)
		return {
			verdict: null,
			from: writeLine(was, library),
			to,
			why: 'The sheet asks for another dose this time.',
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
