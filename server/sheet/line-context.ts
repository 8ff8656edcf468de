import { addDays, ageInYears } from '../../core/calendar/days'
import type { Level } from '../../core/vocabulary/words'
import type { Library } from '../../core/vocabulary/library'
import type { School } from '../../core/vocabulary/school'
import { isOpen, matchesAround } from '../../core/progress/gather-input'
import type { LockContext } from '../../core/progress/locks'
import type { OpenRestriction } from '../../core/progress/types'
import type { ClubScope } from '../../db/connect'
import { careOf, careRecordOf, outsideLoadOf, outsideOf } from '../../db/queries/care'
import type { SessionRow } from '../../db/queries/sessions'
import { type AthleteRow, readAthletes, readStates } from '../../db/queries/squads'
import { standingsOf } from '../review/gather'

/** What of a session decides what is open on its day. */
export type SessionDay = Pick<SessionRow, 'id' | 'day' | 'startTime' | 'phase' | 'surface'>

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
