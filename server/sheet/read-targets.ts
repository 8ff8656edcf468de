import type { Method } from '../../core/vocabulary/words'
import { returnTargetOf, targetOf } from '../../core/judge/target'
import type { ClubScope } from '../../db/connect'
import { bestTimesBefore } from '../../db/queries/log'
import { readLevels, readSquad } from '../../db/queries/squads'
import type { Sheet, SheetLine } from './read-sheet'

export interface LineTarget {
	words: string
	/** Own bests for the line's start and distance by method, in seconds. */
	bests: Partial<Record<Method, number>>
}

/** What each line aims at, by line id. */
export async function readTargets(scope: ClubScope, sheet: Sheet): Promise<Map<string, LineTarget>> {
	const athleteIds = sheet.athletes.map((athlete) => athlete.id)
	const bests = await bestTimesBefore(scope, athleteIds, sheet.session.day)
	const levelOf = await readLevels(scope, athleteIds)
	const squad = await readSquad(scope, sheet.session.squadId)
	const school = squad ? sheet.library.schools[squad.schoolId] : undefined
	const targetOfLine = (athleteId: string, line: SheetLine): LineTarget => {
		const ladder = line.ladderId ? sheet.library.ladders[line.ladderId] : undefined
		const rung = ladder?.rungs.find((one) => one.id === line.rungId) ?? null
		const own: LineTarget['bests'] = {}
		for (const best of bests) {
			if (
				best.athleteId === athleteId &&
				line.drill?.start !== undefined &&
				best.start === line.drill.start &&
				best.distanceM === line.parameters.distanceM
			)
				own[best.method] = best.timeS
		}
		const onRung = rung && rung.drillId === line.drillId ? rung : null
		if (onRung === null && line.parameters.effortPercent !== undefined)
			return { words: returnTargetOf(line.parameters.effortPercent, own), bests: own }
		return {
			words: school ? targetOf(onRung, levelOf(athleteId, ladder?.family ?? 'plyometric'), school, own) : '',
			bests: own,
		}
	}
	return new Map(
		sheet.athletes.flatMap((athlete) =>
			athlete.lines.map((line) => [line.id, targetOfLine(athlete.id, line)] as const),
		),
	)
}
