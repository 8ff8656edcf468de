import type { Day } from '../calendar/day-count'

/** One athlete whose body sets limits today. */
export interface Body {
	id: string
	name: string
	squadName: string
	everythingSince: Day | null
	/** "left knee", and since when; no cause, no number. */
	closed: { place: string; since: Day }[]
	/** What is spared; `ask` when something was done since, and nobody has said yet how it was. */
	spared: { place: string; since: Day; ask: boolean }[]
	/** Kinds of movement closed by hand. */
	patterns: string[]
	/** The step that is due on each path back, in words. */
	back: string[]
	/** Unwell since; kept from whoever may not read it. */
	unwellSince: Day | null
}
