import { STARTER_LIBRARY } from '../../core/library/starter-library'
import type { CareReport, Clearance } from '../../core/vocabulary/care'
import type { Family } from '../../core/vocabulary/words'
import type { AthleteHistory } from '../../core/judge/gather-input'
import type { Stamp } from '../../core/marks/keep-session'
import type { SessionMean } from '../../core/noise/usual'
import { passedRungs } from '../../core/judge/locks'
import { startingAt } from '../../core/judge/resolve-line'
import type { LadderState } from '../../core/judge/types'
import type { Random } from '../../core/chance/random'
import type { DemoAthlete } from './scenario'

/** One athlete while the weeks go by. */
export interface Life {
	id: string
	demo: DemoAthlete
	/** What chance does to this athlete: what is changed of another's story changes nothing of theirs. */
	random: Random
	states: Map<string, LadderState>
	history: AthleteHistory
	/** The same that the history holds, to be added to. */
	stamps: Map<string, Stamp>
	means: Map<string, SessionMean[]>
	bests: Map<string, number>
	/** Last day of work by family, and what was said of pain, as the sessions go by. */
	worked: Partial<Record<Family, string>>
	pains: CareReport[]
	cleared: Clearance[]
}

/** Nine weeks ago everybody had passed what lies below their rung, and knew how to stop. */
export function firstStates(demo: DemoAthlete): Map<string, LadderState> {
	const start = { ...demo.start, brake: demo.level >= 2 ? 'dead-10' : 'stop-10' }
	return new Map(
		Object.entries(start).map(([ladderId, rungId]) => {
			const state = startingAt(STARTER_LIBRARY, ladderId, rungId)
			return [
				ladderId,
				ladderId === 'brake' ? { ...state, passed: true, done: [...(state.done ?? []), rungId] } : state,
			]
		}),
	)
}

export const standingsOf = (life: Life): Record<string, string[]> =>
	Object.fromEntries(
		[...life.states].map(([ladderId, state]) => [ladderId, passedRungs(state, STARTER_LIBRARY.ladders[ladderId]!)]),
	)
/** Longer legs, heavier body, roughly [our setting]. */
export const massOf = (demo: DemoAthlete): number => demo.massKg ?? Math.round(50 + (demo.legM - 0.82) * 230)
