import { addDays, ageInYears, daysBetween } from '../../core/calendar/days'
import { foldEvents } from '../../core/events/fold'
import type { Level } from '../../core/vocabulary/words'
import type { Library } from '../../core/vocabulary/library'
import type { School } from '../../core/vocabulary/school'
import { isOpen, matchesAround } from '../../core/progress/gather-input'
import type { LockContext } from '../../core/progress/locks'
import { SWAP_FROM } from '../../core/progress/safety-rules'
import type { OpenRestriction } from '../../core/progress/types'
import type { ClubScope } from '../../db/connect'
import { careOf, careRecordOf, outsideLoadOf, outsideOf } from '../../db/queries/care'
import { eventsOfSessions } from '../../db/queries/log'
import { type SessionRow, recentSessionsOf } from '../../db/queries/sessions'
import { type AthleteRow, type SquadRow, readAthletes, readStates } from '../../db/queries/squads'
import { decidedAthletes } from '../../db/queries/verdicts'
import { standingsOf } from '../review/gather'

/** Pain older than this no longer waits for a decision. */
const PENDING_DAYS = 14

/** What of a session decides what is open on its day. */
export type SessionDay = Pick<SessionRow, 'id' | 'day' | 'startTime' | 'phase' | 'surface'>

/** What every line of a session is resolved against, athlete by athlete. */
export async function lineContexts(
	scope: ClubScope,
	session: SessionDay,
	squad: SquadRow,
	athleteIds: string[],
	library: Library,
): Promise<(athlete: AthleteRow, level: Level) => LockContext> {
	const school = library.schools[squad.schoolId]
	if (!school) throw new Error(`school ${squad.schoolId} is not in the library`)
	const [care, outside, states, pending] = [
		await careOf(scope, athleteIds),
		await outsideOf(scope, athleteIds, addDays(session.day, -8)),
		await readStates(scope, athleteIds),
		await pendingPains(scope, session, athleteIds),
	]
	const standings = standingsOf(states, library)
	return (athlete, level) =>
		contextOf(athlete, level, session, school, {
			restrictions: pending.get(athlete.id) ?? [],
			care: care.filter((row) => row.athleteId === athlete.id).map(careRecordOf),
			outside: outside.filter((row) => row.athleteId === athlete.id).map(outsideLoadOf),
			standings: standings.get(athlete.id) ?? {},
		})
}

interface Known {
	restrictions: OpenRestriction[]
	care: ReturnType<typeof careRecordOf>[]
	outside: ReturnType<typeof outsideLoadOf>[]
	standings: Record<string, string[]>
}
export function contextOf(
	athlete: AthleteRow,
	level: Level,
	session: Omit<SessionDay, 'id'>,
	school: School,
	{ restrictions, care, outside, standings }: Known,
): LockContext {
	const open = care.filter((record) => isOpen(record, session.day))
	return {
		level,
		massKg: athlete.massKg,
		ageYears: athlete.birthDate === null ? null : ageInYears(athlete.birthDate, session.day),
		phase: session.phase,
		school,
		day: session.day,
		surface: session.surface,
		...matchesAround(outside, session),
		unwell: open.some((record) => record.kind === 'illness'),
		contrastHelps: false,
		standings,
		restrictions: [
			...restrictions,
			...open.flatMap((record) =>
				record.kind === 'restriction'
					? [{ region: record.region, pattern: record.pattern, since: record.from, setBy: record.setBy }]
					: [],
			),
		],
	}
}

/** A report nobody has decided on yet counts as decided the careful way: 3 and more spares the region at once. */
async function pendingPains(
	scope: ClubScope,
	session: SessionDay,
	athleteIds: string[],
): Promise<Map<string, OpenRestriction[]>> {
	const recent = (await recentSessionsOf(scope, athleteIds, session.day, PENDING_DAYS))
		.map((row) => row.session)
		.filter((one) => one.id !== session.id)
	const decided = await decidedAthletes(scope, [...new Set(recent.map((one) => one.id))])
	const { current, conflicts } = foldEvents(await eventsOfSessions(scope, [...decided.keys()]))
	const byAthlete = new Map<string, OpenRestriction[]>()
	for (const event of [...current, ...conflicts.flat()]) {
		if (
			event.type !== 'observation' ||
			event.kind !== 'pain' ||
			event.void ||
			decided.get(event.sessionId)?.has(event.athleteId)
		)
			continue
		if (event.value.score < SWAP_FROM && !event.value.redFlag) continue
		const day = event.deviceTime.slice(0, 10)
		if (daysBetween(day, session.day) > PENDING_DAYS) continue
		const restriction: OpenRestriction = {
			region: event.value.region,
			pattern: null,
			since: day,
			setBy: `a report of ${event.value.score} of 10 that waits for a decision`,
		}
		byAthlete.set(event.athleteId, [...(byAthlete.get(event.athleteId) ?? []), restriction])
	}
	return byAthlete
}

/** An athlete's own page: the same context for one athlete on one day. */
export async function contextsOn(
	scope: ClubScope,
	athleteId: string,
	session: Omit<SessionDay, 'id'>,
	school: School,
	library: Library,
): Promise<((level: Level) => LockContext) | null> {
	const [athlete] = await readAthletes(scope, [athleteId])
	if (!athlete) return null
	const [care, outside, states] = [
		await careOf(scope, [athleteId]),
		await outsideOf(scope, [athleteId], addDays(session.day, -8)),
		await readStates(scope, [athleteId]),
	]
	const standings = standingsOf(states, library).get(athleteId) ?? {}
	return (level) =>
		contextOf(athlete, level, session, school, {
			restrictions: [],
			care: care.map(careRecordOf),
			outside: outside.map(outsideLoadOf),
			standings,
		})
}
