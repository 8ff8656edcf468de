import Type, { type Static } from 'typebox'
import { DocumentVersion, type SchoolId, documentIdOf } from './ids'
import { closed, oneOf, written } from './shape'

/** Take-offs: from two feet, which foot last, and from one. */
export const PLANTS = ['two-lr', 'two-rl', 'left', 'right'] as const
export type Plant = (typeof PLANTS)[number]
export const PLANT_NAMES: Record<Plant, string> = {
	'two-lr': 'two feet, left then right',
	'two-rl': 'two feet, right then left',
	left: 'left foot',
	right: 'right foot',
}

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
	assisted: oneOf(['none', 'to-10', 'to-20'] as const),
	beginners: oneOf(['fewer', 'more-easy'] as const),
	plants: oneOf(['one', 'sport', 'all'] as const),
	finisher: oneOf(['none', 'runs', 'shuttles', 'throws'] as const),
	slowWork: oneOf(['need', 'everybody'] as const),
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
	/** The take-offs the sport needs, the one used most first. */
	plants: Type.Array(oneOf(PLANTS), { minItems: 1, maxItems: 4, uniqueItems: true }),
	/** On a fast day the field screen offers one rehearsal and one full rep. */
	fastDayOffer: Type.Boolean(),
})
export type School = Static<typeof School>

/** How far over the own top speed somebody may be pulled, % [our setting]. */
const ASSISTED_MOST: Record<SchoolChoices['assisted'], number> = { none: 0, 'to-10': 10, 'to-20': 20 }
/** The most of several schools' caps is their least, %. */
export const assistedCap = (schools: readonly Pick<School, 'choices'>[]): number =>
	Math.min(...schools.map(({ choices }) => ASSISTED_MOST[choices.assisted]))
/** The side that pulls no further than this, %: never further than was asked. */
export const assistedSide = (percent: number): SchoolChoices['assisted'] =>
	percent >= ASSISTED_MOST['to-20'] ? 'to-20' : percent >= ASSISTED_MOST['to-10'] ? 'to-10' : 'none'

/** When rebounds from a box are trained, from never to always. */
const DEPTH_JUMPS: readonly SchoolChoices['depthJumps'][] = ['never', 'peaking', 'peaking-and-intensify', 'all-year']
/** Of several schools the side that opens the fewest phases to them. */
export const fewestDepthJumps = (schools: readonly Pick<School, 'choices'>[]): SchoolChoices['depthJumps'] =>
	DEPTH_JUMPS[Math.min(...schools.map(({ choices }) => DEPTH_JUMPS.indexOf(choices.depthJumps)))]!

/** The take-offs a school trains. */
export const plantsOf = ({ choices, plants }: Pick<School, 'choices' | 'plants'>): readonly Plant[] =>
	choices.plants === 'all' ? PLANTS : choices.plants === 'one' ? plants.slice(0, 1) : plants
