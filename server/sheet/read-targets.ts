import type { Method } from '../../core/vocabulary/words'
import { returnTargetOf, targetOf } from '../../core/judge/target'
import type { Usual } from '../../core/noise/usual'
import type { ClubScope } from '../../db/connect'
import { readLevels, readSquad } from '../../db/queries/squads'
import { ownOf } from '../../core/own/own'
import { type OwnWord, sayOwn } from '../../core/own/say-own'
import { readUsuals } from '../marks/read-usuals'
import { readFieldSpeeds, readMeasured } from '../own/read-measured'
import { keptFor } from '../kept'
import { type Sheet, type SheetLine, readSheet } from './read-sheet'

export interface LineTarget {
	words: string
	/** The best of marks made as the line says, by method, in the mark's unit. */
	bests: Partial<Record<Method, number>>
	/** Their usual, likewise. */
	usuals: Partial<Record<Method, number>>
	/** What of the line comes from the athlete's own measurements. */
	own: OwnWord[]
}

/** What each line of a stored sheet aims at, by line id; kept as long as nothing changes. */
export const readTargets = (scope: ClubScope, { session }: Sheet): Promise<ReadonlyMap<string, LineTarget>> =>
	keptFor(scope, ['targets', session.id], async (scope) => {
		// Of the sheet as it stands for who works it out, which may be later than the asker's.
		const sheet = await readSheet(scope, session.id)
		return sheet ? workOutTargets(scope, sheet) : new Map()
	})
async function workOutTargets(scope: ClubScope, sheet: Sheet): Promise<ReadonlyMap<string, LineTarget>> {
	const athleteIds = sheet.athletes.map((athlete) => athlete.id)
	const usuals = await readUsuals(scope, athleteIds, sheet.session.day)
	const levelOf = await readLevels(scope, athleteIds)
	const squad = await readSquad(scope, sheet.session.squadId)
	const school = squad ? sheet.library.schools[squad.schoolId] : undefined
	const { day } = sheet.session
	const measured = await readMeasured(scope, athleteIds, day)
	// Top speed from ordinary sessions is looked for only where a line is run by it.
	const speeds = sheet.athletes.some(({ lines }) => lines.some((line) => line.parameters.assistPercent))
		? await readFieldSpeeds(scope, athleteIds, day)
		: new Map<string, never>()
	const ownBy = new Map(
		school
			? athleteIds.map((id) => [
					id,
					ownOf(measured.get(id) ?? [], school.numbers.sprintGoalMs / 1000, day, speeds.get(id) ?? null),
				])
			: [],
	)
	const targetOfLine = (athleteId: string, line: SheetLine): LineTarget => {
		const ladder = line.ladderId ? sheet.library.ladders[line.ladderId] : undefined
		const rung = ladder?.rungs.find((one) => one.id === line.rungId) ?? null
		if (!line.drill) return { words: '', bests: {}, usuals: {}, own: [] }
		const measurements = ownBy.get(athleteId)
		const planned = { ...line, drill: line.drill }
		const { surface } = sheet.session
		const own = Object.entries(usuals.ofLine(athleteId, planned, surface)) as [
			Method,
			{ usual: Usual | null; best: number },
		][]
		const known = {
			bests: Object.fromEntries(own.map(([method, { best }]) => [method, best])),
			usuals: Object.fromEntries(own.flatMap(([method, { usual }]) => (usual ? [[method, usual.value]] : []))),
			own: school && measurements ? sayOwn(line.drill, line, measurements, school) : [],
		}
		const onRung = rung && rung.drillId === line.drillId ? rung : null
		const { effortPercent } = line.parameters
		if (onRung === null && effortPercent !== undefined)
			return { ...known, words: returnTargetOf(effortPercent, usuals.freeRuns(athleteId, planned, surface)) }
		return {
			...known,
			words: school
				? targetOf(onRung, levelOf(athleteId, ladder?.family ?? 'plyometric'), school, known.usuals, own.length > 0)
				: '',
		}
	}
	return new Map(
		sheet.athletes.flatMap((athlete) =>
			athlete.lines.map((line) => [line.id, targetOfLine(athlete.id, line)] as const),
		),
	)
}
