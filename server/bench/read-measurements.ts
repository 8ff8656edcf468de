import { findCalculation } from '../../core/calc/calculations'
import { MEASURED, benchMethodName } from '../../core/calc/measured'
import type { ClubScope } from '../../db/connect'
import { measurementsOf } from '../../db/queries/measurements'
import { listMembers, listSquads } from '../../db/queries/squads'
import { runCalculation } from '../calc/run-calculation'

/** The bench measurements that stand for an athlete, each in one line, newest first. */
export async function readMeasurements(scope: ClubScope, athleteId: string) {
	return (await measurementsOf(scope, athleteId, 60)).map((row) => {
		const one = findCalculation(row.calculation)
		const answer = one ? runCalculation(one, row.input) : null
		const kept = MEASURED[row.calculation]
		return {
			id: row.id,
			takenOn: row.takenOn,
			title: kept?.title ?? row.calculation,
			method: benchMethodName(row.method),
			calculation: row.calculation,
			followed: answer && 'output' in answer ? followedOf(kept, answer.output) : null,
			// A later version of a measure may refuse what an earlier one took; the line says so and keeps the input.
			headline:
				answer && 'output' in answer && kept
					? kept.headline(answer.output)
					: `no longer computes: ${answer && 'error' in answer ? answer.error.message : row.calculation}`,
		}
	})
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
