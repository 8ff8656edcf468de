import { wasPlanned } from '../../core/field/session/drills-now'
import { v7 as newId } from 'uuid'
import { nextTrainingDay } from '../../core/calendar/day-count'
import type { Library } from '../../core/vocabulary/library'
import { type EntryTuning, type SessionEntry, workOf } from '../../core/vocabulary/entry'
import { partsOf, wholeEntry } from '../../core/plan/entry-parts'
import { canonicalJson } from '../../core/events/canonical-json'
import { tuningForAnotherDay } from '../../core/plan/resolve-sheet'
import { type ClubScope, inTransaction } from '../../db/connect'
import { readLibrary } from '../../db/queries/library'
import {
	type SessionRow,
	insertAttending,
	insertEntries,
	insertSession,
	lockSession,
	readAttending,
	readEntries,
	removeAttending,
	retireEntries,
	updateSession,
} from '../../db/queries/sessions'
import { type SquadRow, readAthletes, readSquad } from '../../db/queries/squads'
import { comingTo } from '../squads/membership'
import type { Problems } from '../access/join'
import { database } from '../database'
import type { SignedIn } from '../access/sign-in'
import { type Difference, type Meanwhile, differences, takeVersion } from '../submissions/take-version'
import { describe, draftOf } from './describe-session'
import { dried } from './dried'
import { readDraft } from './draft'
import { writeLines } from './write-lines'

export type Saved = { sessionId: string } | { problems: Problems }
/** Saved, or what somebody else saved meanwhile, beside what was typed. */
export type Changed = Saved | { meanwhile: Meanwhile & { differences: Difference[] } }

/** Makes a session from nothing: its entries, and each athlete's own line. */
export const createSession = (clubId: string, timeZone: string, value: unknown, now: Date): Promise<Saved> =>
	inTransaction(database().db, clubId, (scope) => makeSession(scope, timeZone, value, now))

/** The same within a transaction that writes more. */
export async function makeSession(scope: ClubScope, timeZone: string, value: unknown, now: Date): Promise<Saved> {
	const library = await readLibrary(scope)
	const read = readDraft(value, library)
	if ('problems' in read) return read
	const { draft } = read
	const squad = await readSquad(scope, draft.squadId)
	const known = await readAthletes(scope, draft.athleteIds)
	if (!squad) return { problems: { squadId: 'Pick a squad.' } }
	if (known.length !== draft.athleteIds.length)
		return { problems: { athleteIds: 'Somebody picked is not an athlete of this club.' } }
	const session: SessionRow = {
		clubId: scope.clubId,
		id: newId(),
		squadId: squad.id,
		day: draft.day,
		startTime: draft.startTime,
		timeZone,
		title: draft.title.trim(),
		place: draft.place.trim(),
		phase: squad.phase,
		surface: draft.surface,
		plannedMinutes: draft.plannedMinutes,
		blockId: null,
		role: draft.role,
		theme: draft.theme ?? null,
		share: draft.share,
		startedAt: null,
		reviewedAt: null,
		linesFor: null,
	}
	await insertSession(scope, session)
	await insertAttending(
		scope,
		session.id,
		known.map((athlete) => athlete.id),
	)
	await insertEntries(
		scope,
		draft.entries.map((entry, position) => keptEntry(session.id, entry, position, library)),
	)
	await writeLines(scope, session, squad, library, now)
	return { sessionId: session.id }
}

/** Changes an unstarted session. Entries that went are retired, never deleted; lines get new versions. */
export async function changeSession(
	who: SignedIn,
	sessionId: string,
	value: unknown,
	seen: number,
	now: Date,
): Promise<Changed | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		if (!session) return null
		if (session.startedAt)
			return {
				problems: { title: 'This session has begun: its sheet is frozen. What changes on the field is logged there.' },
			}
		const library = await readLibrary(scope)
		const read = readDraft(value, library)
		if ('problems' in read) return read
		const { draft } = read
		const squad = await readSquad(scope, session.squadId)
		const known = await readAthletes(scope, draft.athleteIds)
		if (!squad || draft.squadId !== squad.id)
			return { problems: { squadId: 'A session stays with its squad; make a new one for another squad.' } }
		if (known.length !== draft.athleteIds.length)
			return { problems: { athleteIds: 'Somebody picked is not an athlete of this club.' } }
		const before = await readEntries(scope, [sessionId])
		const meanwhile = await takeVersion(scope, who, 'session', sessionId, seen, now)
		if (meanwhile) {
			const attending = (await readAttending(scope, [sessionId])).map((row) => row.athleteId)
			const names = new Map(
				(await readAthletes(scope, [...attending, ...draft.athleteIds])).map((row) => [row.id, row.name]),
			)
			return {
				meanwhile: {
					...meanwhile,
					differences: differences(
						describe(draftOf(session, before, attending), names, library),
						describe(draft, names, library),
					),
				},
			}
		}
		const header = {
			title: draft.title.trim(),
			plannedMinutes: draft.plannedMinutes,
			day: draft.day,
			startTime: draft.startTime,
			place: draft.place.trim(),
			surface: draft.surface,
			role: draft.role,
			theme: draft.theme ?? null,
			share: draft.share,
		}
		await updateSession(scope, sessionId, header)
		// Positions and doses live in the entry row, which is cited by marks: a changed entry is a new one.
		const rows = draft.entries.map((entry, position) => keptEntry(sessionId, entry, position, library))
		const kept = new Set<string>()
		const fresh = rows.filter((row, index) => {
			const same = before.find(
				(old) =>
					old.id === draft.entries[index]?.id && old.position === row.position && comparable(old) === comparable(row),
			)
			if (same) kept.add(same.id)
			return !same
		})
		await retireEntries(
			scope,
			before.filter((row) => !kept.has(row.id)).map((row) => row.id),
		)
		await insertEntries(scope, fresh)
		await removeAttending(scope, sessionId)
		await insertAttending(
			scope,
			sessionId,
			known.map((athlete) => athlete.id),
		)
		await writeLines(scope, { ...session, ...header }, squad, library, now)
		return { sessionId }
	})
}

type NewEntry = Parameters<typeof insertEntries>[1][number]
/** What of an entry makes another entry of it. */
const comparable = ({ part, drillId, ladderId, doseFactor, lanes, together, tuning, ...work }: NewEntry): string =>
	canonicalJson({ part, drillId, ladderId, doseFactor, lanes, together, tuning, ...workOf(work) })

/** An entry of a sheet as it is kept: whole, on its place, with an id of its own. */
export function keptEntry(sessionId: string, entry: SessionEntry, position: number, library: Library): NewEntry {
	const parts = partsOf(entry, library)
	if (!parts) throw new Error(`entry ${position} names no drill`)
	const whole = wholeEntry(entry, library)
	return {
		...whole,
		...workOf(whole),
		id: newId(),
		sessionId,
		part: entry.part.trim(),
		family: parts.family,
		position,
		drillId: parts.drill.id,
		drillVersion: parts.drill.version,
		ladderId: parts.ladder?.id ?? null,
		tuning: tuningOf(entry.tuning),
		retired: false,
	}
}

/** Nothing said is nothing kept. */
function tuningOf(tuning: EntryTuning | null): EntryTuning | null {
	const said = Object.entries(tuning ?? {}).filter(
		([, value]) =>
			value !== undefined && value !== false && !(typeof value === 'object' && Object.keys(value).length === 0),
	)
	return said.length === 0 ? null : (Object.fromEntries(said) as EntryTuning)
}

/** The squad's next session where none is planned: the same parts on its next training day, for everybody of the squad. */
export async function copyForward(
	scope: ClubScope,
	session: SessionRow,
	squad: SquadRow,
	library: Library,
	now: Date,
): Promise<SessionRow> {
	const weekdays = squad.trainingDays.length > 0 ? squad.trainingDays : [1, 2, 3, 4, 5, 6, 7]
	const next: SessionRow = {
		...session,
		id: newId(),
		blockId: null,
		day: nextTrainingDay(session.day, weekdays),
		startTime: squad.startTime,
		phase: squad.phase,
		surface: dried(session.surface),
		role: 'hard',
		share: 1,
		startedAt: null,
		reviewedAt: null,
		linesFor: null,
	}
	const members = await comingTo(scope, squad.id, next.day)
	const attending = (await readAttending(scope, [session.id])).map((row) => row.athleteId)
	await insertSession(scope, next)
	await insertAttending(scope, next.id, members.length > 0 ? members : attending)
	await insertEntries(
		scope,
		(await readEntries(scope, [session.id])).filter(wasPlanned).map((entry) => ({
			...entry,
			id: newId(),
			sessionId: next.id,
			doseFactor: 1,
			tuning: tuningForAnotherDay(entry.tuning),
		})),
	)
	await writeLines(scope, next, squad, library, now)
	return next
}
