import type { MarkKind } from '../noise/typical-error'
import type { Family, Leg, Phase } from '../vocabulary/words'
import type { FortnightDay } from './fortnight'
import type { GapPoint, TrendPoint } from './trend'
import type { CauseId, Why } from './why'

/** How much of it a picture shows. */
export const SPANS = { season: 182, year: 365, all: null } as const
export type Span = keyof typeof SPANS

/** A measure of the athlete: a key, both sides of it together. */
export interface Measure {
	/** The key without its side. */
	key: string
	what: string
	how: string
	sessions: number
	lastDay: string
	/** Session means of the season, oldest first, in the mark’s unit. */
	points: { day: string; side: Leg | null; mean: number }[]
	family: Family
	better: 'lower' | 'higher'
	/** Over the season; null with too few sessions. Of two sides the one that moved more. */
	change: { words: string; interval: string; gain: number; beyond: boolean; side: Leg | null } | null
}
export interface Trend {
	key: string
	what: string
	how: string
	family: Family
	kind: MarkKind
	better: 'lower' | 'higher'
	span: Span
	series: {
		side: Leg | null
		points: TrendPoint[]
		change: { words: string; interval: string } | null
	}[]
	gap: GapPoint[]
	/** Runs of sessions of one phase, as ground. */
	phases: { from: string; to: string; phase: Phase }[]
	matches: string[]
	/** What was measured at the bench meanwhile. */
	bench: { day: string; words: string }[]
	/** Closures, spared regions and time away, for those who may read them. */
	bars: { from: string; to: string; words: string; isCare: boolean }[]
}
export interface WhyDay extends Why {
	sessionId: string
	day: string
	state: 'flat' | 'good'
	/** "Three-point start, 20 m: 3.18 s, usual 3.06 s" */
	reading: string
	ticked: CauseId[]
	/** Everything that can be named, found or not. */
	nameable: { cause: CauseId; name: string }[]
}
export interface Story {
	measures: Measure[]
	trend: Trend | null
	fortnight: FortnightDay[]
	why: WhyDay | null
}
