import { countWork } from '../../core/dose/count-line'
import { type DoseCount, addInto, emptyCount } from '../../core/dose/dose-count'
import type { Family, Phase } from '../../core/vocabulary/words'
import type { WorkKind } from '../../core/vocabulary/words'
import { kindsOf } from '../../core/dose/work-kinds'
import type { ClubScope } from '../../db/connect'
import { linesOf, readEntries } from '../../db/queries/sessions'
import { readAthletes } from '../../db/queries/squads'
import { readDrillsOfLines } from '../sheet/drills-of-lines'

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
	const [drills, athletes] = [
		await readDrillsOfLines(
			scope,
			rows.map(({ line }) => line),
		),
		await readAthletes(scope, athleteIds),
	]
	const legs = new Map(athletes.map((athlete) => [athlete.id, athlete.legLengthM]))
	const byAthlete = new Map<string, Map<string, PlannedWork>>(athleteIds.map((id) => [id, new Map()]))
	for (const { line, session } of rows) {
		const asked = drills.work(line)
		const own = byAthlete.get(line.athleteId)
		if (!asked || !own) continue
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
