import { addDays, isDay } from '../../core/calendar/day-count'
import { type CalendarItem, type Clash, checkCalendar } from '../../core/plan/calendar-checks'
import type { SheetClash } from '../../core/plan/sheet-clashes'
import { OUTSIDE_NAMES, outsideWork } from '../../core/judge/outside-load'
import { isHard, kindsOf } from '../../core/dose/work-kinds'
import { intensityOf } from '../../core/dose/count-rep'
import type { WorkKind } from '../../core/vocabulary/words'
import { type ClubScope, inTransaction } from '../../db/connect'
import { outsideLoadOf, outsideOf } from '../../db/queries/care'
import { readLibrary } from '../../db/queries/library'
import {
	type ListedSession,
	lockSession,
	readAttending,
	readEntries,
	readLines,
	retireEntries,
	sessionsBetween,
	updateSession,
} from '../../db/queries/sessions'
import { listBlocks, unstartedByBlock } from '../../db/queries/plan'
import { listMembers, listSquads, readSquad } from '../../db/queries/squads'
import { database } from '../database'
import { keptFor } from '../kept'
import { checkSheets } from './check-sheets'
import { writeLines } from '../sheet/write-lines'
import type { SignedIn } from '../access/sign-in'
import { countSave } from '../submissions/take-version'
import { readDrillsOfLines } from '../sheet/drills-of-lines'

export interface OutsideDay {
	id: string
	day: string
	startTime: string
	words: string
	squadIds: string[]
}
export interface Calendar {
	sessions: ListedSession[]
	outside: OutsideDay[]
	clashes: Clash[]
	/** What the rules say about a session's own sheet. */
	sheetClashes: SheetClash[]
}

/** The calendar with the blocks, each with its squad's name. */
export async function readCalendarPage(scope: ClubScope, first: string, last: string, today: string) {
	const [calendar, blocks, squads] = [
		await readCalendar(scope, first, last, today),
		await listBlocks(scope),
		await listSquads(scope),
	]
	const ahead = await unstartedByBlock(scope)
	const named = blocks.map((block) => ({
		id: block.id,
		start: block.start,
		weeks: block.weeks,
		squad: squads.find((squad) => squad.id === block.squadId)?.name ?? '',
		over: addDays(block.start, block.weeks * 7) <= today,
		/** Sessions that nobody has begun. */
		ahead: ahead.get(block.id) ?? 0,
	}))
	return {
		...calendar,
		blocks: named.filter(({ over }) => !over),
		/** Those that are over, the last first. */
		finished: named.filter(({ over }) => over).reverse(),
	}
}

/** Sessions, matches and other training between two days, and what clashes from today on, with repairs; kept as long as nothing changes. */
export const readCalendar = (scope: ClubScope, from: string, to: string, today: string): Promise<Calendar> =>
	keptFor(scope, ['calendar', from, to, today], (scope) => workOutCalendar(scope, from, to, today))
async function workOutCalendar(scope: ClubScope, from: string, to: string, today: string): Promise<Calendar> {
	// What clashes does not hang on which weeks are shown: what comes before them counts.
	const nearFrom = addDays(today, -3)
	const readFrom = from < nearFrom ? from : nearFrom
	const [known, library, squads, members] = [
		await sessionsBetween(scope, readFrom, to),
		await readLibrary(scope),
		await listSquads(scope),
		await listMembers(scope),
	]
	const sessions = known.filter(({ day }) => day >= from)
	const near = known.filter(({ day }) => day >= nearFrom)
	const ids = near.map((session) => session.id)
	const [attending, entries, written] = [
		await readAttending(scope, ids),
		await readEntries(scope, ids),
		await readLines(scope, ids),
	]
	const down = new Set(attending.map((row) => `${row.sessionId}/${row.athleteId}`))
	const standing = new Set(entries.map(({ id }) => id))
	// What was taken off a sheet, and who was taken off its list, leave their lines behind.
	const lines = written.filter((line) => standing.has(line.entryId) && down.has(`${line.sessionId}/${line.athleteId}`))
	const drills = await readDrillsOfLines(scope, lines)
	const items = near.map((session): CalendarItem => {
		const kinds = new Map<string, WorkKind[]>()
		const shock = new Set<string>()
		for (const line of lines)
			if (line.sessionId === session.id)
				for (const { drill, parameters } of drills.parts(line)) {
					const known = kinds.get(line.athleteId) ?? []
					kinds.set(line.athleteId, [...new Set([...known, ...kindsOf(drill, parameters)])].sort())
					if (intensityOf(drill, parameters) === 'shock') shock.add(line.athleteId)
				}
		return {
			id: session.id,
			day: session.day,
			startTime: session.startTime,
			match: false,
			movable: session.startedAt === null && session.day >= today,
			athleteIds: attending.filter((row) => row.sessionId === session.id).map((row) => row.athleteId),
			kinds,
			shock,
		}
	})
	const byOccasion = new Map<
		string,
		{ item: CalendarItem; words: string; athleteIds: string[]; kinds: Map<string, readonly WorkKind[]> }
	>()
	for (const row of await outsideOf(scope, [...new Set(members.map((member) => member.id))], readFrom)) {
		if (row.day > to) continue
		const key = `${row.kind}/${row.day}/${row.startTime}`
		const known = byOccasion.get(key)
		const own = outsideWork(outsideLoadOf(row)).kinds
		if (known) {
			known.athleteIds.push(row.athleteId)
			known.kinds.set(row.athleteId, own)
		} else {
			const athleteIds = [row.athleteId]
			const kinds = new Map([[row.athleteId, own]])
			byOccasion.set(key, {
				athleteIds,
				kinds,
				words: OUTSIDE_NAMES[row.kind],
				item: {
					id: key,
					day: row.day,
					startTime: row.startTime,
					athleteIds,
					kinds,
					match: row.kind === 'match' || row.kind === 'tournament',
					shock: new Set(),
					movable: false,
				},
			})
		}
	}
	// An athlete may train in two squads, or with another one for a day: the most that any of them asks.
	const spacing = new Map<string, number>()
	const asks = (athleteId: string, squadId: string) => {
		const school = library.schools[squads.find((squad) => squad.id === squadId)?.schoolId ?? '']
		if (school) spacing.set(athleteId, Math.max(spacing.get(athleteId) ?? 0, school.numbers.spacingH))
	}
	for (const member of members) asks(member.id, member.squadId)
	const squadOf = new Map(near.map((session) => [session.id, session.squadId]))
	for (const row of attending) asks(row.athleteId, squadOf.get(row.sessionId)!)
	const occasions = [...byOccasion.values()]
	const shown = new Set(sessions.map(({ id }) => id))
	const unbegun = near.filter((session) => session.startedAt === null && session.day >= today)
	const sheetClashes = await checkSheets(scope, unbegun, entries, lines, library, today)
	const outside = occasions.filter(({ item }) => item.day >= from)
	return {
		sessions,
		sheetClashes: sheetClashes.filter(({ sessionId }) => shown.has(sessionId)),
		outside: outside.map(({ item, words, athleteIds }) => ({
			id: item.id,
			day: item.day,
			startTime: item.startTime,
			words,
			squadIds: [
				...new Set(members.filter((member) => athleteIds.includes(member.id)).map((member) => member.squadId)),
			],
		})),
		clashes: checkCalendar(
			[...items, ...occasions.map(({ item }) => item).filter(({ day }) => day >= nearFrom)],
			(athleteId) => spacing.get(athleteId) ?? 0,
			today,
		).filter((clash) => shown.has(clash.itemId)),
	}
}

/** Moves an unstarted session to another day; its lines are written anew for that day. Null for a stranger's. */
export async function moveSession(
	who: Pick<SignedIn, 'clubId' | 'personId'>,
	sessionId: string,
	day: string,
	today: string,
	now: Date,
): Promise<{ moved: true } | { problem: string } | null> {
	if (!isDay(day)) return { problem: `${day} is not a day.` }
	if (day < today) return { problem: 'A session cannot be moved into the past.' }
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		const squad = session && (await readSquad(scope, session.squadId))
		if (!session || !squad) return null
		if (session.startedAt) return { problem: 'This session has begun; it stays on its day.' }
		await countSave(scope, who, 'session', sessionId, now)
		await updateSession(scope, sessionId, { day })
		await writeLines(scope, { ...session, day }, squad, await readLibrary(scope), now)
		return { moved: true as const }
	})
}

/** Takes the hard work out of an unstarted session: what is left no longer needs days between. */
export async function easeSession(
	who: SignedIn,
	sessionId: string,
	now: Date,
): Promise<{ eased: number } | { problem: string } | null> {
	return inTransaction(database().db, who.clubId, async (scope) => {
		const session = await lockSession(scope, sessionId)
		const squad = session && (await readSquad(scope, session.squadId))
		if (!session || !squad) return null
		if (session.startedAt) return { problem: 'This session has begun; its sheet is frozen.' }
		const [library, entries, lines] = [
			await readLibrary(scope),
			await readEntries(scope, [sessionId]),
			await readLines(scope, [sessionId]),
		]
		const drills = await readDrillsOfLines(scope, lines)
		const hard = entries.filter((entry) =>
			lines.some(
				(line) =>
					line.entryId === entry.id &&
					drills
						.parts(line)
						.some(({ drill, parameters }) => kindsOf(drill, parameters).length > 0 || isHard(drill, parameters)),
			),
		)
		await countSave(scope, who, 'session', sessionId, now)
		await retireEntries(
			scope,
			hard.map((entry) => entry.id),
		)
		await writeLines(scope, session, squad, library, now)
		return { eased: hard.length }
	})
}
