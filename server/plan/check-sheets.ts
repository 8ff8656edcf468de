import type { Library } from '../../core/vocabulary/library'
import { type SheetAhead, type SheetClash, sheetClashes } from '../../core/plan/sheet-clashes'
import type { ClubScope } from '../../db/connect'
import { careOf, careRecordOf, outsideLoadOf, outsideOf } from '../../db/queries/care'
import { readDrills } from '../../db/queries/library'
import { type LineRow, type ListedSession, readEntries } from '../../db/queries/sessions'
import { listSquads, readAthletes, readLevels, readStates, stateKey } from '../../db/queries/squads'
import { addDays } from '../../core/calendar/days'
import { standingsOf } from '../review/gather'
import { contextOf } from '../sheet/line-context'
import { doneRamp } from './done-ramp'

/** What the rules say about the sheets of sessions nobody has begun. */
export async function checkSheets(
	scope: ClubScope,
	sessions: readonly ListedSession[],
	lines: readonly LineRow[],
	library: Library,
	today: string,
): Promise<SheetClash[]> {
	const open = lines.filter(
		(line) => line.blocked === null && sessions.some((session) => session.id === line.sessionId),
	)
	const ids = [...new Set(open.map((line) => line.athleteId))]
	if (ids.length === 0) return []
	const [athletes, levelOf, states, care, outside, squads, entries, drills] = [
		await readAthletes(scope, ids),
		await readLevels(scope, ids),
		await readStates(scope, ids),
		await careOf(scope, ids),
		await outsideOf(scope, ids, addDays(today, -8)),
		await listSquads(scope),
		await readEntries(
			scope,
			sessions.map((session) => session.id),
		),
		await readDrills(
			scope,
			open.map((line) => line.drillId ?? ''),
		),
	]
	const standings = standingsOf(states, library)
	const position = new Map(entries.map((entry) => [entry.id, entry.position]))
	const done = await doneRamp(scope, ids, today)
	const sheets = sessions.flatMap((session) => {
		const school = library.schools[squads.find((squad) => squad.id === session.squadId)?.schoolId ?? '']
		if (!school) return []
		return athletes.flatMap((athlete): SheetAhead[] => {
			const own = open
				.filter((line) => line.sessionId === session.id && line.athleteId === athlete.id && position.has(line.entryId))
				.sort((a, b) => position.get(a.entryId)! - position.get(b.entryId)!)
			if (own.length === 0) return []
			const known = {
				restrictions: [],
				care: care.filter((row) => row.athleteId === athlete.id).map(careRecordOf),
				outside: outside.filter((row) => row.athleteId === athlete.id).map(outsideLoadOf),
				standings: standings.get(athlete.id) ?? {},
			}
			return [
				{
					sessionId: session.id,
					day: session.day,
					startTime: session.startTime,
					phase: session.phase,
					surface: session.surface,
					school,
					athlete: {
						id: athlete.id,
						name: athlete.name,
						legLengthM: athlete.legLengthM,
						levelOf: (family) => levelOf(athlete.id, family),
						stateOf: (ladderId) => states.get(stateKey(athlete.id, ladderId))?.state ?? null,
						locksAt: (level) => contextOf(athlete, level, session, school, known),
					},
					lines: own.flatMap((line) => {
						const drill = drills.get(`${line.drillId}/${line.drillVersion}`)
						return drill
							? [
									{
										entryId: line.entryId,
										drill,
										parameters: line.parameters,
										dose: line.dose,
										ladderId: line.ladderId,
										rungId: line.rungId,
										handSet: line.origin === 'hand-set',
									},
								]
							: []
					}),
				},
			]
		})
	})
	return sheetClashes(sheets, done, library)
}
