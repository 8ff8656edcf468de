import { scaleDose } from '../dose/scale-dose'
import { rungOf } from '../library/starter-library'
import type { Dose, Library, Parameters } from '../library/types'
import { type LockContext, lockOf } from './locks'
import type { LadderState, PlannedLine } from './types'

/** What the sheet says for everybody: a drill with its dose, or a ladder that gives each athlete their own rung. */
export interface EntryPlan {
	drillId: string
	ladderId: string | null
	dose: Dose
	parameters: Parameters
	restS: number
	/** Below 1 in an unloading week. */
	doseFactor: number
}

export type ResolvedLine = ({ blocked: null } & PlannedLine) | { blocked: string; ladderId: string }

/** Where somebody starts who has never met a ladder: its first rung, full dose. Throws RangeError for an unknown ladder. */
export function entryState(library: Library, ladderId: string): LadderState {
	const first = library.ladders[ladderId]?.rungs[0]
	if (!first) throw new RangeError(`ladderId: ${JSON.stringify(ladderId)} is not in the library`)
	return { ladderId, rungId: first.id, dose: first.dose, closed: null, substitute: null, passed: false, easedBy: null }
}

/**
 * An athlete's own line for an entry. A closed region writes no line; a rung that is locked today
 * (its phase is over, say) gives way to the highest open rung below it.
 *
 * @throws RangeError when the entry cites a drill or ladder the library does not hold
 */
export function resolveLine(entry: EntryPlan, state: LadderState | null, library: Library, locks: LockContext): ResolvedLine {
	if (entry.ladderId === null) return planned(library, entry.drillId, null, entry.dose, entry.parameters, entry.restS, null, entry.doseFactor)
	const ladder = library.ladders[entry.ladderId]
	if (!ladder) throw new RangeError(`ladderId: ${JSON.stringify(entry.ladderId)} is not in the library`)
	const at = state ?? entryState(library, entry.ladderId)
	if (at.closed) return { blocked: 'closed until cleared', ladderId: ladder.id }
	if (at.substitute) {
		const drill = drillOf(library, at.substitute.drillId)
		const { sets, reps, restS, distanceM, heightCm, angleDeg, ballKg, runInM } = drill.defaults
		return planned(library, drill.id, ladder.id, { sets, reps }, { distanceM, heightCm, angleDeg, ballKg, runInM }, restS, at.rungId, entry.doseFactor)
	}
	const { index } = rungOf(ladder, at.rungId)
	for (let i = index; i >= 0; i--) {
		const rung = ladder.rungs[i]
		if (!rung || lockOf(rung, locks) !== null) continue
		return planned(library, rung.drillId, ladder.id, i === index ? at.dose : rung.dose, rung.parameters, rung.restS, rung.id, entry.doseFactor)
	}
	return { blocked: 'no rung of this ladder is open', ladderId: ladder.id }
}

function drillOf(library: Library, drillId: string) {
	const drill = library.drills[drillId]
	if (!drill) throw new RangeError(`drillId: ${JSON.stringify(drillId)} is not in the library`)
	return drill
}

function planned(library: Library, drillId: string, ladderId: string | null, dose: Dose, parameters: Parameters, restS: number, rungId: string | null, factor: number): ResolvedLine {
	const drill = drillOf(library, drillId)
	return { blocked: null, drillId, drillVersion: drill.version, ladderId, rungId, dose: factor < 1 ? scaleDose(dose, factor) : dose, parameters, restS }
}

/** Whether two lines ask for the same thing. */
export const sameLine = (a: PlannedLine, b: PlannedLine): boolean =>
	a.drillId === b.drillId && a.rungId === b.rungId && a.dose.sets === b.dose.sets && a.dose.reps === b.dose.reps && sameParameters(a.parameters, b.parameters)

const sameParameters = (a: Parameters, b: Parameters): boolean =>
	(['distanceM', 'heightCm', 'angleDeg', 'ballKg', 'runInM'] as const).every((key) => a[key] === b[key])
