import { addDays } from '../../core/calendar/day-count'
import { STANDS_DAYS } from '../../core/own/own'
import type { Family } from '../../core/vocabulary/words'
import type { ClubScope } from '../../db/connect'
import {
	bodyReportsOf,
	careEventsOf,
	careOf,
	clearancesOfAll,
	familiesWorkedBetween,
	lastWorkOf,
	loadsWornBetween,
	outsideOf,
	plannedWorkBefore,
	workDaysBetween,
} from '../../db/queries/care'
import { helpedByHeavy } from '../../db/queries/record'
import type { SessionRow } from '../../db/queries/sessions'
import { readAthletes, readLevels, readStates, squadsOf } from '../../db/queries/squads'
import { readMeasured } from '../own/read-measured'

/** Days before and after that say how often a weight is worn in a week. */
const WORN_WITHIN_DAYS = 6
/** How far back an athlete's days of work are looked at for sessions running. */
const RUNNING_DAYS = 60
/** Work outside from longer ago than this changes nothing: over four weeks is the way back either way. */
const OUTSIDE_DAYS = 60

/** What of the records is the same whatever the day. */
async function readStanding(scope: ClubScope, athleteIds: string[]) {
	const [athletes, levelOf, states, care, events, clearances, pains, squads, helped] = [
		await readAthletes(scope, athleteIds),
		await readLevels(scope, athleteIds),
		await readStates(scope, athleteIds),
		await careOf(scope, athleteIds),
		await careEventsOf(scope, athleteIds),
		await clearancesOfAll(scope, athleteIds),
		await bodyReportsOf(scope, athleteIds),
		await squadsOf(scope, athleteIds),
		await helpedByHeavy(scope, athleteIds),
	]
	return { athletes, levelOf, states, care, events, clearances, pains, squads, helped }
}

/** Everything on record of some athletes that decides what they may do on a day, over all their squads. */
export interface Records extends Awaited<ReturnType<typeof readStanding>> {
	outside: Awaited<ReturnType<typeof outsideOf>>
	last: Awaited<ReturnType<typeof lastWorkOf>>
	planned: Awaited<ReturnType<typeof plannedWorkBefore>>
	days: Awaited<ReturnType<typeof workDaysBetween>>
	measured: Awaited<ReturnType<typeof readMeasured>>
	worn: Awaited<ReturnType<typeof loadsWornBetween>>
	day: string
	/** The club's day: what is planned from then on counts as work to come. */
	today: string
}

/** The records of a span of days, and what is being planned for them meanwhile. */
export interface RecordsOfDays {
	readonly today: string
	/** As they are for a day of the span. */
	on: (day: string) => Records
	/** A session is planned: these athletes are down in it for these families. */
	plan: (session: Pick<SessionRow, 'day'>, athleteIds: readonly string[], families: readonly Family[]) => void
	/** Of these athletes the lines of a session were written anew; some of them wear a weight in it. */
	wear: (
		session: Pick<SessionRow, 'id' | 'day' | 'startTime'>,
		written: ReadonlySet<string>,
		wearing: ReadonlySet<string>,
	) => void
}

/** The records of one day, in a fixed number of queries, for however many sessions of that day ask. */
export const readRecords = async (
	scope: ClubScope,
	athleteIds: string[],
	day: string,
	today: string,
): Promise<Records> => (await readRecordsOfDays(scope, athleteIds, day, day, today)).on(day)

/** The records of the days from one to another, in the same number of queries. */
export async function readRecordsOfDays(
	scope: ClubScope,
	athleteIds: string[],
	from: string,
	to: string,
	today: string,
): Promise<RecordsOfDays> {
	const known = await readStanding(scope, athleteIds)
	const [outside, lastBefore, later, planned, days, measured, wornThen] = [
		await outsideOf(scope, athleteIds, addDays(from, -OUTSIDE_DAYS)),
		await lastWorkOf(scope, athleteIds, from),
		from < to ? await familiesWorkedBetween(scope, athleteIds, addDays(from, 1), to) : [],
		await plannedWorkBefore(scope, athleteIds, today, to),
		await workDaysBetween(scope, athleteIds, addDays(from, -RUNNING_DAYS), to),
		await readMeasured(scope, athleteIds, from),
		await loadsWornBetween(scope, athleteIds, addDays(from, -WORN_WITHIN_DAYS), addDays(to, WORN_WITHIN_DAYS), today),
	]
	let worn = wornThen
	return {
		today,
		on: (day) => {
			const since = addDays(day, -OUTSIDE_DAYS)
			const running = addDays(day, -RUNNING_DAYS)
			const [first, last] = [addDays(day, -WORN_WITHIN_DAYS), addDays(day, WORN_WITHIN_DAYS)]
			return {
				...known,
				outside: outside.filter((row) => row.day >= since),
				last: day === from ? lastBefore : lastWorkOn(lastBefore, later, day),
				planned: planned.filter((row) => row.day < day),
				days: days.filter((row) => row.day >= running && row.day <= day),
				measured: standing(measured, addDays(day, -STANDS_DAYS)),
				worn: worn.filter((row) => row.day >= first && row.day <= last),
				day,
				today,
			}
		},
		plan: ({ day }, ids, families) => {
			if (day < today) return
			for (const athleteId of ids) for (const family of families) planned.push({ athleteId, family, day })
		},
		wear: ({ id, day, startTime }, written, wearing) => {
			worn = [
				...worn.filter((row) => row.sessionId !== id || !written.has(row.athleteId)),
				...(day < today ? [] : [...wearing].map((athleteId) => ({ athleteId, sessionId: id, day, startTime }))),
			]
		},
	}
}

/** Of what was measured what is not too old; an athlete nothing is left of is not named. */
const standing = (measured: Records['measured'], since: string): Records['measured'] =>
	new Map(
		[...measured].flatMap(([id, all]) => {
			const own = all.filter(({ on }) => on >= since)
			return own.length > 0 ? [[id, own] as const] : []
		}),
	)

/** The last work as a later day sees it. @param later work after the day `last` was read for */
function lastWorkOn(
	last: Records['last'],
	later: Awaited<ReturnType<typeof familiesWorkedBetween>>,
	day: string,
): Records['last'] {
	const known = new Map<string, Records['last'][number]>(
		last.map((row) => [`${row.athleteId}/${row.family}`, { ...row, day: row.upTo }]),
	)
	for (const { athleteId, family, day: on } of later) {
		if (on > day) continue
		const one = known.get(`${athleteId}/${family}`)
		known.set(`${athleteId}/${family}`, {
			athleteId,
			family,
			day: on < day && on > (one?.day ?? '') ? on : (one?.day ?? null),
			upTo: on > (one?.upTo ?? '') ? on : one!.upTo,
		})
	}
	return [...known.values()]
}
