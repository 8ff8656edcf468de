import { countWork } from '../../core/dose/count-line'
import { type DoseCount, addInto, emptyCount } from '../../core/dose/dose-count'
import type { Family, Phase } from '../../core/vocabulary/words'
import type { WorkKind } from '../../core/vocabulary/words'
import { kindsOf } from '../../core/dose/work-kinds'
import type { ClubScope } from '../../db/connect'
import { type LineRow, type SessionRow, linesOf, readEntries } from '../../db/queries/sessions'
import { readAthletes } from '../../db/queries/squads'
import { type DrillsOfLines, readDrillsOfLines } from '../sheet/drills-of-lines'

/** What an athlete is down for in a session that nobody has begun. */
export interface PlannedWork {
	sessionId: string
	day: string
	startTime: string
	phase: Phase
	kinds: WorkKind[]
	families: Family[]
	count: DoseCount
}

/** Sessions ahead, by athlete, oldest first, over all squads. */
export async function plannedWork(
	scope: ClubScope,
	athleteIds: string[],
	from: string,
	to: string,
): Promise<Map<string, PlannedWork[]>> {
	const open = (await linesOf(scope, athleteIds, from, to)).filter(
		({ line, session }) => session.startedAt === null && line.blocked === null,
	)
	// An entry that was dropped from a sheet leaves its lines behind: nobody is down for them.
	const entries = new Set(
		(await readEntries(scope, [...new Set(open.map(({ session }) => session.id))])).map(({ id }) => id),
	)
	const rows = open.filter(({ line }) => entries.has(line.entryId))
	const athletes = await readAthletes(scope, athleteIds)
	const works = plannedWorkOf(
		rows,
		await readDrillsOfLines(
			scope,
			rows.map(({ line }) => line),
		),
		new Map(athletes.map((athlete) => [athlete.id, athlete.legLengthM])),
	)
	return new Map(athleteIds.map((id) => [id, works.get(id) ?? []]))
}

/**
 * The same of lines that are known, session by session in their order.
 *
 * @param legs m, by athlete; null where it is not known
 */
export function plannedWorkOf(
	rows: readonly { line: LineRow; session: Pick<SessionRow, 'id' | 'day' | 'startTime' | 'phase'> }[],
	drills: DrillsOfLines,
	legs: ReadonlyMap<string, number | null>,
): Map<string, PlannedWork[]> {
	const byAthlete = new Map<string, Map<string, PlannedWork>>()
	for (const { line, session } of rows) {
		const asked = drills.work(line)
		if (!asked) continue
		const own = byAthlete.get(line.athleteId) ?? new Map<string, PlannedWork>()
		byAthlete.set(line.athleteId, own)
		const work = own.get(session.id) ?? {
			sessionId: session.id,
			day: session.day,
			startTime: session.startTime,
			phase: session.phase,
			kinds: [],
			families: [],
			count: emptyCount(),
		}
		own.set(session.id, work)
		const leg = legs.get(line.athleteId)
		addInto(work.count, countWork(asked, drills.of(line), leg ? { legLengthM: leg } : {}))
		for (const { drill, parameters } of drills.parts(line)) {
			work.kinds = [...new Set([...work.kinds, ...kindsOf(drill, parameters)])].sort()
			work.families = [...new Set([...work.families, drill.family])].sort()
		}
	}
	return new Map([...byAthlete].map(([id, works]) => [id, [...works.values()]]))
}
