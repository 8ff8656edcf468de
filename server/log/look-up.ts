import { addTo } from '../../core/lists/group-by'
import type { Drill } from '../../core/vocabulary/drill'
import type { LogEvent } from '../../core/vocabulary/events'
import type { ClubScope } from '../../db/connect'
import { type Author, authorsById } from '../../db/queries/clubs'
import { erasedAmong } from '../../db/queries/erase'
import { readDrills } from '../../db/queries/library'
import { type HeldRow, acceptedHashes, eventsById, heldAbout } from '../../db/queries/log'
import { type KeyBests, bestsBefore } from '../../db/queries/marks'
import {
	type LineRow,
	type SessionRow,
	readAttending,
	readEntriesById,
	readLinesById,
	readSession,
} from '../../db/queries/sessions'
import { type AthleteRow, readAthletes } from '../../db/queries/squads'
import { idsOf } from '../sheet/drills-of-lines'

/** Everything a batch needs to know, in a handful of queries however long it is. */
export interface Known {
	hashes: Map<string, string>
	sessions: Map<string, SessionRow>
	attending: Map<string, Set<string>>
	athletes: Map<string, AthleteRow>
	/** Those who were erased: nothing more is taken of them. */
	erased: ReadonlySet<string>
	lines: Map<string, LineRow>
	/** Whose the entries are, of sessions to which somebody or something comes: session by entry. */
	entries: Map<string, string>
	drills: ReadonlyMap<string, Drill>
	bests: Map<string, KeyBests[]>
	/** Events that corrections of this batch name, and who wrote them. */
	targets: Map<string, { event: LogEvent; authorId: string }>
	/** Corrections that stand aside: by their id, and those that wait by what they wait for. */
	held: Map<string, HeldRow>
	waiting: Map<string, HeldRow[]>
	authors: Map<string, Author>
	today: string
}

/** Corrections held about some events, and those that wait for these in turn. */
async function readHeld(scope: ClubScope, ids: string[]): Promise<Map<string, HeldRow>> {
	const held = new Map<string, HeldRow>()
	for (let asked = ids; asked.length > 0; ) {
		const rows = (await heldAbout(scope, asked)).filter((row) => !held.has(row.id))
		for (const row of rows) held.set(row.id, row)
		asked = rows.map((row) => row.id)
	}
	return held
}

/**
 * Reads what a batch speaks of.
 *
 * @param locked sessions as they stand while nobody else may change them
 */
export async function lookUp(
	scope: ClubScope,
	sent: readonly LogEvent[],
	locked: ReadonlyMap<string, SessionRow>,
	today: string,
): Promise<Known> {
	const held = await readHeld(
		scope,
		sent.map((event) => event.id),
	)
	const waiting = new Map<string, HeldRow[]>()
	for (const row of held.values()) if (row.refused === null) addTo(waiting, row.replacesId, row)
	// What waits may be taken with this batch: it is looked up like the rest.
	const events = [...sent, ...[...held.values()].filter((row) => row.refused === null).map((row) => row.event)]
	const targets = new Map(
		(
			await eventsById(
				scope,
				events.flatMap((event) => event.replacesId ?? []),
			)
		).map((event) => [event.id, { event, authorId: event.authorId }]),
	)
	const sessionIds = [...new Set(events.map((event) => event.sessionId))]
	const athleteIds = [...new Set(events.flatMap((event) => event.athleteId ?? []))]
	const hashes = await acceptedHashes(
		scope,
		events.map((event) => event.id),
	)
	const sessions = new Map<string, SessionRow>()
	for (const id of sessionIds) {
		const session = locked.get(id) ?? (await readSession(scope, id))
		if (session) sessions.set(id, session)
	}
	const attending = new Map<string, Set<string>>(sessionIds.map((id) => [id, new Set()]))
	for (const row of await readAttending(scope, sessionIds)) attending.get(row.sessionId)?.add(row.athleteId)
	const lines = new Map(
		(
			await readLinesById(
				scope,
				events.flatMap((event) => ('lineId' in event && event.lineId ? [event.lineId] : [])),
			)
		).map((line) => [line.id, line]),
	)
	const given = events.flatMap(linesGiven)
	const entries = new Map<string, string>()
	// Those that were taken off the sheet since, too: what a phone says of them is not wrong for that.
	for (const { id, sessionId } of await readEntriesById(scope, [
		...given.map(({ entryId }) => entryId),
		...events.flatMap((event) => (event.kind === 'drill-order' ? event.value.entryIds : [])),
	]))
		entries.set(id, sessionId)
	for (const line of await readLinesById(
		scope,
		given.map(({ lineId }) => lineId),
	))
		lines.set(line.id, line)
	const swapped = events.flatMap((event) =>
		event.type === 'mark' && event.asDrill
			? [event.asDrill.drillId]
			: event.kind === 'swap' || event.kind === 'further'
				? [event.value.drillId]
				: [],
	)
	const drills = await readDrills(scope, [
		...[...lines.values()].flatMap(idsOf),
		...given.map(({ planned }) => planned.drillId),
		...swapped,
	])
	const bests = new Map<string, KeyBests[]>()
	if (events.some((event) => event.kind === 'sprint'))
		for (const session of sessions.values()) bests.set(session.id, await bestsBefore(scope, athleteIds, session.day))
	return {
		hashes,
		sessions,
		attending,
		athletes: new Map((await readAthletes(scope, athleteIds)).map((row) => [row.id, row])),
		erased: await erasedAmong(scope, athleteIds),
		lines,
		entries,
		drills,
		bests,
		targets,
		held,
		waiting,
		authors: await authorsById(scope, [...new Set([...held.values()].map((row) => row.authorId))]),
		today,
	}
}

/** The lines an event brings with it: of a guest on the entries that are there, of a further drill for those who are there. */
export function linesGiven(event: LogEvent) {
	if (event.kind === 'guest')
		return (event.value.lines ?? []).map((line) => ({ ...line, athleteId: event.athleteId as string }))
	if (event.kind === 'further')
		return event.value.lines.map((line) => ({
			...line,
			entryId: event.value.entryId,
			athleteId: line.athleteId as string,
		}))
	return []
}
