import { addDays, mondayOf } from '../../core/calendar/day-count'
import type { Library } from '../../core/vocabulary/library'
import { type SheetAhead, type SheetClash, sheetClashes } from '../../core/plan/sheet-clashes'
import type { ClubScope } from '../../db/connect'
import type { EntryRow, LineRow, ListedSession } from '../../db/queries/sessions'
import { listSquads, readAthletes, readLevels } from '../../db/queries/squads'
import { breathe } from '../breathe'
import { concludedOn } from '../facts/facts-on'
import { factsOf } from '../facts/read-facts'
import { readRecords } from '../facts/records'
import { groupBy } from '../../core/lists/group-by'
import { doneRamp } from './done-ramp'
import { readDrillsOfLines } from '../sheet/drills-of-lines'

/**
 * What the rules say about the sheets of sessions nobody has begun.
 *
 * @param entries and lines that stand on those sheets
 */
export async function checkSheets(
	scope: ClubScope,
	sessions: readonly ListedSession[],
	entries: readonly EntryRow[],
	lines: readonly LineRow[],
	library: Library,
	today: string,
): Promise<SheetClash[]> {
	const open = lines.filter(
		(line) => line.blocked === null && sessions.some((session) => session.id === line.sessionId),
	)
	const ids = [...new Set(open.map((line) => line.athleteId))]
	if (ids.length === 0) return []
	const [athletes, levelOf, squads, drills] = [
		await readAthletes(scope, ids),
		await readLevels(scope, ids),
		await listSquads(scope),
		await readDrillsOfLines(scope, open),
	]
	const moment = { day: today, startTime: '12:00', phase: 'accumulate' as const, surface: null }
	const records = await readRecords(scope, ids, today, today)
	const facts = new Map<string, ReturnType<typeof factsOf>>()
	for (const schoolId of new Set(squads.map((squad) => squad.schoolId)))
		if (library.schools[schoolId]) facts.set(schoolId, factsOf(records, moment, { schoolId }, library))
	const last =
		sessions
			.map(({ day }) => day)
			.sort()
			.at(-1) ?? today
	const position = new Map(entries.map((entry) => [entry.id, entry.position]))
	const done = await doneRamp(scope, ids, today, addDays(mondayOf(last), 6))
	const placed = groupBy(open, ({ sessionId, athleteId }) => `${sessionId}/${athleteId}`)
	const sheets: SheetAhead[] = []
	for (const session of sessions) {
		const school = library.schools[squads.find((squad) => squad.id === session.squadId)?.schoolId ?? '']
		if (!school) continue
		for (const athlete of athletes) {
			const own = placed.get(`${session.id}/${athlete.id}`)
			if (!own) continue
			await breathe()
			sheets.push({
				sessionId: session.id,
				day: session.day,
				startTime: session.startTime,
				phase: session.phase,
				surface: session.surface,
				athlete: {
					id: athlete.id,
					name: athlete.name,
					legLengthM: athlete.legLengthM,
					levelOf: (family) => levelOf(athlete.id, family),
					concluded: concludedOn(facts.get(school.id)!.get(athlete.id)!, session, library),
				},
				lines: own
					.sort((a, b) => position.get(a.entryId)! - position.get(b.entryId)!)
					.flatMap((line) =>
						drills.parts(line).map(({ drill, parameters, dose, judged }) => ({
							entryId: line.entryId,
							drill,
							parameters,
							dose,
							ladderId: judged ? line.ladderId : null,
							rungId: judged ? line.rungId : null,
							handSet: line.origin === 'hand-set',
						})),
					),
			})
		}
	}
	await breathe()
	return sheetClashes(sheets, done, library)
}
