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
	/** Kinds of movement and drills closed by hand, in words. */
	shut: string[]
	/** The step that is due on each path back, in words, and how often it was repeated for a small pain. */
	back: { step: string; repeats: number }[]
	/** Unwell since; kept from whoever may not read it. */
	unwellSince: Day | null
}
