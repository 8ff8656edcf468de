import { addDays, isDay } from '../../core/calendar/day-count'
import { type CalendarItem, type Clash, checkCalendar } from '../../core/plan/calendar-checks'
import type { SheetClash } from '../../core/plan/sheet-clashes'
import { OUTSIDE_NAMES, outsideWork } from '../../core/judge/outside-load'
import { isHard, kindsOf } from '../../core/dose/work-kinds'
import { intensityOf } from '../../core/dose/count-rep'
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
	const [sessions, library, squads, members] = [
		await sessionsBetween(scope, from, to),
		await readLibrary(scope),
		await listSquads(scope),
		await listMembers(scope),
	]
	const near = sessions.filter((session) => session.day >= addDays(today, -3))
	const ids = near.map((session) => session.id)
	const [attending, lines] = [await readAttending(scope, ids), await readLines(scope, ids)]
	const drills = await readDrillsOfLines(scope, lines)
	const items = near.map((session): CalendarItem => {
		const own = lines.filter((line) => line.sessionId === session.id).flatMap((line) => drills.parts(line))
		return {
			id: session.id,
			day: session.day,
			startTime: session.startTime,
			match: false,
			movable: session.startedAt === null && session.day >= today,
			athleteIds: attending.filter((row) => row.sessionId === session.id).map((row) => row.athleteId),
			kinds: [...new Set(own.flatMap(({ drill, parameters }) => kindsOf(drill, parameters)))].sort(),
			shock: own.some(({ drill, parameters }) => intensityOf(drill, parameters) === 'shock'),
		}
	})
	const byOccasion = new Map<string, { item: CalendarItem; words: string; athleteIds: string[] }>()
	for (const row of await outsideOf(scope, [...new Set(members.map((member) => member.id))], from)) {
		if (row.day > to) continue
		const key = `${row.kind}/${row.day}/${row.startTime}`
		const known = byOccasion.get(key)
		if (known) known.athleteIds.push(row.athleteId)
		else {
			const athleteIds = [row.athleteId]
			byOccasion.set(key, {
				athleteIds,
				words: OUTSIDE_NAMES[row.kind],
				item: {
					id: key,
					day: row.day,
					startTime: row.startTime,
					athleteIds,
					kinds: outsideWork(outsideLoadOf(row)).kinds,
					match: row.kind === 'match' || row.kind === 'tournament',
					shock: false,
					movable: false,
				},
			})
		}
	}
	// The strictest spacing of the club's schools: an athlete may train in two squads.
	const schools = squads
		.flatMap((squad) => library.schools[squad.schoolId] ?? [])
		.sort((a, b) => b.numbers.spacingH - a.numbers.spacingH)
	const outside = [...byOccasion.values()].filter(({ item }) => item.day >= addDays(today, -3))
	const unbegun = sessions.filter((session) => session.startedAt === null && session.day >= today)
	return {
		sessions,
		sheetClashes: await checkSheets(scope, unbegun, lines, library, today),
		outside: [...byOccasion.values()].map(({ item, words, athleteIds }) => ({
			id: item.id,
			day: item.day,
			startTime: item.startTime,
			words,
			squadIds: [
				...new Set(members.filter((member) => athleteIds.includes(member.id)).map((member) => member.squadId)),
			],
		})),
		clashes: schools[0]
			? checkCalendar([...items, ...outside.map(({ item }) => item)], schools[0], today).filter((clash) =>
					items.some((item) => item.id === clash.itemId),
				)
			: [],
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
