import type { Day } from '../calendar/day-count'
import { returningOf } from '../care/return-plan'
import type { Concluded } from '../permit/known'
import { placeOf } from '../rules/bars'
import { sayRestriction } from '../rules/s2-restriction'
import type { Closure } from '../vocabulary/care'
import { EVERYTHING } from '../vocabulary/words'
import { type BodyLimits, type Shut, weightOf } from './over-today'
import type { Ask } from './to-ask'

/** What limits an athlete, without what was said of it. */
export const limitsOf = ({ facts }: Concluded): BodyLimits => ({
	closures: facts.closures.filter(({ grade }) => grade !== 'noted'),
	shut: facts.restrictions.flatMap(({ pattern, drillId }): Shut[] =>
		pattern || drillId
			? [
					{
						words: sayRestriction({ pattern, drillId }, facts.library),
						...(pattern ? { pattern } : {}),
						...(drillId ? { drillId } : {}),
					},
				]
			: [],
	),
	easyOnly: facts.unwellSince !== null,
})

/** What an athlete is asked about once work on it is done: what was to be spared before the day, and what is on the way back. */
export function asksOf({ facts, plan }: Concluded, day: Day): Ask[] {
	const spared = facts.closures.flatMap((one): Ask[] =>
		one.grade === 'spare' && one.region !== EVERYTHING && one.since < day
			? [{ region: one.region, side: one.side ?? 'both' }]
			: [],
	)
	return [
		...spared,
		...returningOf(plan).flatMap((region): Ask[] =>
			spared.some((one) => one.region === region)
				? []
				: [{ region, side: 'both', ...(plan.everything && region === 'neck-head' ? { afterAnything: true } : {}) }],
		),
	]
}

/** How it stands with one athlete's body on a day, as every role may read it: no cause, no number. */
export interface BodyNow {
	everythingSince: Day | null
	/** "left knee", and since when. */
	closed: { place: string; since: Day }[]
	/** What is spared; `ask` when something was done since, and nobody has said yet how it was. */
	spared: { place: string; since: Day; ask: boolean }[]
	/** Kinds of movement and drills closed by hand, in words. */
	shut: string[]
	/** Nothing high, shock or maximal; why is not said. */
	easyOnly: boolean
	/** The step that is due on each path back, in words, and how often it was repeated for a small pain. */
	back: { step: string; repeats: number }[]
	/** The most closed weighs most; 0 has nothing. */
	weight: number
}

/** One athlete whose body sets limits. */
export interface Body extends BodyNow {
	id: string
	name: string
	squadName: string
	/** Unwell since; kept from whoever may not read it. */
	unwellSince: Day | null
}

/**
 * How it stands with an athlete on a day: the same on Today, calendar, sheet, card and review.
 *
 * @param worked days on which the athlete worked, for whether anybody could have been asked
 */
export function bodyOf(known: Concluded, worked: readonly Day[], day: Day): BodyNow {
	const limits = limitsOf(known)
	const of = (grade: Closure['grade']) =>
		limits.closures.filter((one) => one.grade === grade && one.region !== EVERYTHING)
	const back = known.plan.paths.flatMap(({ due, repeats }) => (due ? [{ step: due.rung.name, repeats }] : []))
	return {
		everythingSince: limits.closures.find((one) => one.region === EVERYTHING)?.since ?? null,
		closed: of('closed').map((one) => ({ place: placeOf(one), since: one.since })),
		spared: of('spare').map((one) => ({
			place: placeOf(one),
			since: one.since,
			ask: worked.some((at) => at > one.since && at <= day),
		})),
		shut: (limits.shut ?? []).map(({ words }) => words),
		easyOnly: limits.easyOnly,
		back,
		weight: 2 * weightOf(limits) + (back.length > 0 ? 1 : 0),
	}
}
