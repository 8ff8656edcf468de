import { addTo } from '../../core/lists/group-by'
import { findCalculation } from '../../core/calc/calculations'
import { MEASURED, benchMethodName } from '../../core/calc/measured'
import type { ClubScope } from '../../db/connect'
import { byTime } from '../../core/events/by-time'
import { foldEvents } from '../../core/events/fold'
import { sayEvent } from '../../core/field/say-event'
import { eventsOfAthlete } from '../../db/queries/log'
import { readLibrary } from '../../db/queries/library'
import { type MeasurementRow, measurementsOf, measurementsOfMarks } from '../../db/queries/measurements'
import { readLinesById, recentSessionsOf } from '../../db/queries/sessions'
import { listMembers, listSquads } from '../../db/queries/squads'
import { runCalculation } from '../calc/run-calculation'
import { partAt } from '../../core/vocabulary/line-parts'
import { plannedOf } from '../sheet/planned-of'

/** The bench measurements that stand for an athlete, each in one line, newest first. */
export async function readMeasurements(scope: ClubScope, athleteId: string) {
	return (await measurementsOf(scope, athleteId, 60)).map((row) => {
		const { answer, kept } = computed(row)
		return {
			id: row.id,
			takenOn: row.takenOn,
			title: kept?.title ?? row.calculation,
			method: benchMethodName(row.method),
			calculation: row.calculation,
			followed: answer && 'output' in answer ? followedOf(kept, answer.output) : null,
			headline: headlineOf(row),
		}
	})
}

function computed(row: Pick<MeasurementRow, 'calculation' | 'input'>) {
	const one = findCalculation(row.calculation)
	return { answer: one ? runCalculation(one, row.input) : null, kept: MEASURED[row.calculation] }
}
function headlineOf(row: Pick<MeasurementRow, 'calculation' | 'input'>): string {
	const { answer, kept } = computed(row)
	// A later version of a measure may refuse what an earlier one took; the line says so and keeps the input.
	return answer && 'output' in answer && kept
		? kept.headline(answer.output)
		: `no longer computes: ${answer && 'error' in answer ? answer.error.message : row.calculation}`
}

function followedOf(
	kept: (typeof MEASURED)[string] | undefined,
	output: Record<string, unknown>,
): { name: string; unit: string; digits: number; value: number } | null {
	if (!kept?.followed) return null
	const { of, ...shown } = kept.followed
	const value = of(output)
	return typeof value === 'number' && Number.isFinite(value) ? { ...shown, value } : null
}

/** The reps an athlete did on a day, in their order, each in words: what a film can be of. */
export async function repsOn(
	scope: ClubScope,
	athleteId: string,
	day: string,
): Promise<{ id: string; words: string }[]> {
	const sessions = (await recentSessionsOf(scope, [athleteId], day, 1)).map(({ session }) => session.id)
	const { current } = foldEvents(await eventsOfAthlete(scope, athleteId, sessions))
	const marks = current
		.flatMap((event) =>
			event.type === 'mark' && event.kind !== 'missed' && event.athleteId === athleteId ? [event] : [],
		)
		.sort(byTime)
	const library = await readLibrary(scope)
	const lines = new Map(
		(
			await readLinesById(
				scope,
				marks.map(({ lineId }) => lineId),
			)
		).map((line) => [line.id as string, line]),
	)
	return marks.map((mark) => {
		const line = lines.get(mark.lineId)
		const planned = line && plannedOf(line)
		const drill = library.drills[mark.asDrill?.drillId ?? (planned ? partAt(planned, mark.piece).drillId : '')]
		return {
			id: mark.id,
			words: `${drill?.name ?? ''}, set ${mark.setNo} rep ${mark.repNo}${mark.side ? `, ${mark.side}` : ''}: ${sayEvent(mark)}`,
		}
	})
}

/** What was measured of some reps on film, in words, by the rep. */
export async function filmedOf(scope: ClubScope, markIds: string[]): Promise<Map<string, string[]>> {
	const words = new Map<string, string[]>()
	for (const row of await measurementsOfMarks(scope, markIds)) addTo(words, row.markId!, headlineOf(row))
	return words
}

/** Everybody of the club once, by name, with a squad and what the bench can start from. */
export async function readBenchPeople(scope: ClubScope) {
	const squads = new Map((await listSquads(scope)).map((squad) => [squad.id, squad.name]))
	const byId = new Map<string, { id: string; name: string; squads: string[]; legLengthM: number | null }>()
	for (const member of await listMembers(scope)) {
		const known = byId.get(member.id) ?? { id: member.id, name: member.name, squads: [], legLengthM: member.legLengthM }
		known.squads.push(squads.get(member.squadId) ?? '')
		byId.set(member.id, known)
	}
	return { people: [...byId.values()], squads: [...squads.values()] }
}
