import { addTo } from '../../core/lists/group-by'
import { stringify } from 'csv-stringify/sync'
import { byTime } from '../../core/events/by-time'
import { foldEvents } from '../../core/events/fold'
import { OPEN_FORMAT, OPEN_KINDS, type OpenKind, type OpenMark, type OpenRecords } from '../../core/open-data/document'
import { columnsOf, toRows } from '../../core/open-data/tables'
import { workOf } from '../../core/vocabulary/entry'
import type { ClubScope } from '../../db/connect'
import { contactsOf } from '../../db/queries/emergency'
import type { StoredMark } from '../../db/queries/log'
import {
	allBatteries,
	allBatterySessions,
	allEntriesOf,
	allLevels,
	allLinesOf,
	marksOf,
	sessionsFrom,
} from '../../db/queries/open-data'
import { type LineRow, type SessionRow, readAttending } from '../../db/queries/sessions'
import { listAthletes, listMembers, listSquads, typesOf } from '../../db/queries/squads'

/** Sessions read at once: a club of five years is never in memory whole. */
const AT_ONCE = 100

/** The days a document is of, both included. */
export interface OpenSpan {
	from: string
	to: string
}

/**
 * Records of a club, some at a time, kind after kind in the order of `OPEN_KINDS`. People are those the club has now;
 * what was planned and measured of somebody who was forgotten is left out.
 */
export async function* exportRecords(
	scope: ClubScope,
	kinds: readonly OpenKind[],
	span: OpenSpan,
): AsyncGenerator<{ kind: OpenKind; records: OpenRecords[OpenKind] }> {
	const athletes = await listAthletes(scope)
	const known = new Set(athletes.map(({ id }) => id))
	const sessions = await sessionsFrom(scope, span.from, span.to)
	const some = Array.from({ length: Math.ceil(sessions.length / AT_ONCE) }, (_, index) =>
		sessions.slice(index * AT_ONCE, (index + 1) * AT_ONCE).map(({ id }) => id as string),
	)
	for (const kind of OPEN_KINDS.filter((one) => kinds.includes(one))) {
		if (kind === 'squads') yield { kind, records: await squads(scope) }
		else if (kind === 'athletes') yield { kind, records: await people(scope, athletes) }
		else if (kind === 'sessions') yield { kind, records: await planned(scope, sessions, known) }
		else if (kind === 'tests') yield { kind, records: await tests(scope, new Set(sessions.map(({ id }) => id))) }
		else
			for (const ids of some) {
				if (kind === 'entries') yield { kind, records: await entries(scope, ids) }
				else if (kind === 'lines')
					yield {
						kind,
						records: (await allLinesOf(scope, ids)).filter((row) => known.has(row.athleteId)).map(openLine),
					}
				else yield { kind, records: standing(await marksOf(scope, ids)).filter((one) => known.has(one.athleteId)) }
			}
	}
}

async function squads(scope: ClubScope): Promise<OpenRecords['squads']> {
	return (await listSquads(scope)).map(
		({ id, name, trainingDays, startTime, place, jumpingSport, phase, schoolId, schoolVersion }) => ({
			id,
			name,
			trainingDays,
			startTime,
			place,
			...(jumpingSport ? { jumpingSport } : {}),
			phase,
			schoolId,
			schoolVersion,
		}),
	)
}

async function people(
	scope: ClubScope,
	athletes: Awaited<ReturnType<typeof listAthletes>>,
): Promise<OpenRecords['athletes']> {
	const ids = athletes.map(({ id }) => id)
	const [levels, contacts, types, members] = [
		await allLevels(scope),
		await contactsOf(scope, ids),
		await typesOf(scope, ids),
		await listMembers(scope),
	]
	return athletes.map(({ id, name, birthDate, legLengthM, massKg }) => ({
		id,
		name,
		born: birthDate,
		legLengthM,
		massKg,
		type: types.get(id) ?? null,
		levels: Object.fromEntries(
			levels.filter((row) => row.athleteId === id).map(({ family, level }) => [family, level]),
		),
		squadIds: members
			.filter((row) => row.id === id)
			.map(({ squadId }) => squadId)
			.sort(),
		contact: contacts.get(id) ?? null,
	}))
}

async function planned(
	scope: ClubScope,
	sessions: readonly SessionRow[],
	known: ReadonlySet<string>,
): Promise<OpenRecords['sessions']> {
	const attending = new Map<string, string[]>()
	for (let from = 0; from < sessions.length; from += AT_ONCE)
		for (const row of await readAttending(
			scope,
			sessions.slice(from, from + AT_ONCE).map(({ id }) => id),
		))
			if (known.has(row.athleteId)) addTo(attending, row.sessionId, row.athleteId)
	return sessions.map((row) => ({
		id: row.id,
		squadId: row.squadId,
		day: row.day,
		startTime: row.startTime,
		timeZone: row.timeZone,
		title: row.title,
		place: row.place,
		surface: row.surface,
		phase: row.phase,
		plannedMinutes: row.plannedMinutes,
		role: row.role,
		theme: row.theme,
		share: row.share,
		begunAt: row.startedAt?.toISOString() ?? null,
		closedAt: row.reviewedAt?.toISOString() ?? null,
		athleteIds: attending.get(row.id) ?? [],
	}))
}

async function entries(scope: ClubScope, sessionIds: string[]): Promise<OpenRecords['entries']> {
	return (await allEntriesOf(scope, sessionIds)).map((row) => ({
		id: row.id,
		sessionId: row.sessionId,
		position: row.position,
		family: row.family,
		drillVersion: row.drillVersion,
		part: row.part,
		drillId: row.drillId,
		ladderId: row.ladderId,
		...workOf({
			dose: row.dose,
			rest: row.rest,
			parameters: row.parameters,
			sides: row.sides ?? null,
			pieces: row.pieces ?? null,
			carried: row.carried ?? null,
			aid: row.aid ?? null,
		}),
		doseFactor: row.doseFactor,
		lanes: row.lanes,
		together: row.together,
		tuning: row.tuning,
		off: row.retired,
	}))
}

const openLine = (row: LineRow): OpenRecords['lines'][number] => ({
	id: row.id,
	sessionId: row.sessionId,
	entryId: row.entryId,
	athleteId: row.athleteId,
	version: row.version,
	current: row.current,
	handSet: row.origin === 'hand-set',
	blocked: row.blocked,
	drillId: row.drillId,
	drillVersion: row.drillVersion,
	ladderId: row.ladderId,
	rungId: row.rungId,
	...workOf(row),
	change: row.change,
	wouldBe: row.wouldBe,
	writtenAt: row.createdAt.toISOString(),
})

async function tests(scope: ClubScope, sessionIds: ReadonlySet<string>): Promise<OpenRecords['tests']> {
	const held = await allBatterySessions(scope)
	return (await allBatteries(scope)).map(({ id, squadId, name, every, items, retired }) => ({
		id,
		squadId,
		name,
		every,
		items,
		sessionIds: held.flatMap((row) =>
			row.batteryId === id && sessionIds.has(row.sessionId) ? [row.sessionId as string] : [],
		),
		off: retired,
	}))
}

/** Marks that stand; of two corrections that contradict each other the newer. */
function standing(marks: readonly StoredMark[]): OpenMark[] {
	const { current, conflicts } = foldEvents(marks)
	return [
		...current,
		...conflicts.flatMap((fork) =>
			fork
				.filter((one) => !one.void)
				.sort(byTime)
				.slice(-1),
		),
	]
		.sort((a, b) => byTime(a, b) || a.id.localeCompare(b.id))
		.map(
			({
				authorId: _author,
				receivedAt: _at,
				counts: _counts,
				stamp: _stamp,
				replacesId: _replaces,
				void: _void,
				...one
			}) => one as OpenMark,
		)
}

/** The whole document as JSON text, piece by piece. */
export async function* writeJson(scope: ClubScope, span: OpenSpan): AsyncGenerator<string> {
	yield `{"format":${JSON.stringify(OPEN_FORMAT)},"version":1`
	let open: OpenKind | null = null
	let isFirst = true
	for await (const { kind, records } of exportRecords(scope, OPEN_KINDS, span)) {
		if (kind !== open) {
			yield `${open === null ? '' : '\n]'},\n"${kind}":[`
			open = kind
			isFirst = true
		}
		if (records.length === 0) continue
		yield `${isFirst ? '' : ','}\n${records.map((record) => JSON.stringify(record)).join(',\n')}`
		isFirst = false
	}
	yield `${open === null ? '' : '\n]'}}\n`
}

/** One table as text by RFC 4180, piece by piece. */
export async function* writeCsv(scope: ClubScope, kind: OpenKind, span: OpenSpan): AsyncGenerator<string> {
	const write = (rows: string[][]) => stringify(rows, { record_delimiter: 'windows' })
	yield write([columnsOf(kind)])
	for await (const { records } of exportRecords(scope, [kind], span)) yield write(toRows(kind, records as never))
}
