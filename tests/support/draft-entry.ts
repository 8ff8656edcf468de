import { randomUUID } from 'node:crypto'
import type { Parameters, Rest } from '../../core/vocabulary/dose'
import type { SessionEntry } from '../../core/vocabulary/entry'
import { STARTER_LIBRARY } from '../../core/library/starter-library'

interface Asked extends Partial<Pick<SessionEntry, 'id' | 'doseFactor' | 'lanes' | 'together' | 'tuning'>> {
	part: string
	drillId?: string
	ladderId?: string
	sets: number
	reps: number
	/** Between reps and between sets alike, unless both are said. */
	rest: number | Rest
	parameters?: Parameters
}

/** An entry as the form sends it; what a case does not say is what a fresh one has. */
export function draftEntry({
	part,
	drillId,
	ladderId,
	sets,
	reps,
	rest,
	parameters = {},
	...more
}: Asked): SessionEntry {
	return {
		id: randomUUID(),
		part,
		drillId: drillId ?? STARTER_LIBRARY.ladders[ladderId ?? '']?.rungs[0]?.drillId ?? 'none',
		ladderId: ladderId ?? null,
		dose: { sets, reps },
		rest: typeof rest === 'number' ? { repsS: rest, setsS: rest } : rest,
		parameters,
		doseFactor: 1,
		lanes: 1,
		together: 1,
		tuning: null,
		...more,
	}
}
