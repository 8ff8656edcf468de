import Type, { type Static } from 'typebox'
import { DocumentVersion, type SchoolId, documentIdOf } from './ids'
import { closed, oneOf, written } from './shape'

/** The questions good coaches answer differently; each side is explained in `library/schools.ts`. */
export const SchoolChoices = closed({
	boxHeight: oneOf(['climb', 'low'] as const),
	depthJumps: oneOf(['peaking', 'peaking-and-intensify', 'all-year', 'never'] as const),
	boxJudgement: oneOf(['shortest-contact', 'rebound-under-ceiling'] as const),
	volume: oneOf(['skill', 'capacity'] as const),
	conditioning: oneOf(['shuttles', 'long-runs'] as const),
	leftRight: oneOf(['close', 'leave'] as const),
	variety: oneOf(['same', 'rotate'] as const),
	contrast: oneOf(['own-trial', 'use'] as const),
	resistance: oneOf(['heavy-to-light', 'light-only'] as const),
	goodDay: oneOf(['stop', 'finish'] as const),
	returnPulls: oneOf(['free', 'pulls-first'] as const),
	shapes: oneOf(['clock', 'eye'] as const),
})
export type SchoolChoices = Static<typeof SchoolChoices>

const from = (minimum: number, maximum: number) => Type.Number({ minimum, maximum })
/** The numbers a squad follows, each in what a school may be tuned to. */
export const SchoolNumbers = closed({
	passCeilingLevel2Ms: from(150, 250),
	passCeilingLevel3Ms: from(150, 250),
	sprintGoalMs: from(100, 200),
	highestBoxCm: from(15, 75),
	dropOffSpeedPercent: from(1, 10),
	dropOffRepeatPercent: from(1, 10),
	dropOffJumpPercent: from(1, 10),
	rampPercent: from(5, 20),
	spacingH: from(48, 96),
	weeksToUnloading: from(3, 6),
	assistedCapPercent: from(0, 20),
	carriedSpeedLossPercent: from(1, 10),
	ballSpeedLossPercent: from(5, 20),
	advancesPerSession: from(1, 2),
})
export type SchoolNumbers = Static<typeof SchoolNumbers>
/** What a number may be tuned to, low and high. */
export const boundsOf = (name: keyof SchoolNumbers): { low: number; high: number } => {
	const { minimum, maximum } = SchoolNumbers.properties[name] as unknown as { minimum: number; maximum: number }
	return { low: minimum, high: maximum }
}

/** The bundle of choices and numbers a squad follows, where good coaches disagree. Immutable: a change is a new version. */
export const School = closed({
	id: documentIdOf<SchoolId>(),
	version: DocumentVersion,
	name: written(80),
	about: written(400),
	choices: SchoolChoices,
	numbers: SchoolNumbers,
	/** A hard part at the end of the session. */
	finisher: Type.Boolean(),
	/** On a fast day the field screen offers one rehearsal and one full rep. */
	fastDayOffer: Type.Boolean(),
})
export type School = Static<typeof School>
